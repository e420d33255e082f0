import type { TrainReport } from '../../advice';
import { atPlace } from '../../train';
import { allStages, type System } from '../../file';
import { formatIn, formatStrength, inSentence, THIN, words, atStart } from '../../quantity';
import { smallestStepUScm } from '../../water';
import { isBoat } from '../hanging';
import { lastMeasured } from '../work';
import { recordedWork } from './record';
import type { Block, Paper, Parties } from './blocks';
import { dueSays } from './dueSays';

/** Over the reading of the first day by so much, somebody is called (our judgement: the chapters' alarms are finer). */
const CALL_AT = 2;

/** What each probe should read, as its own display shows it, and from where on to call. */
function readings(system: System, report: TrainReport): string[][] {
  const work = recordedWork(system);
  return system.train.probes.flatMap((probe) => {
    const instrument = system.instruments.find(({ id }) => id === probe.instrumentId);
    const station = atPlace(report.solved, probe);
    if (!instrument || !station) return [];
    const first = work ? (lastMeasured(work, 'baseline', `probe-${probe.id}`)?.value ?? null) : null;
    const normal = first ?? station.state.ec25UScm;
    const shown = (ec25: number): string => {
      if (instrument.scale.kind !== 'factor') return formatStrength(ec25, system.units).text;
      return formatIn(ec25, 'conductivityUScm', 'ppm', instrument.scale.factor).text;
    };
    const call = Math.max(CALL_AT * normal, normal + 2 * smallestStepUScm(instrument));
    const tap = probe.after === 'tap';
    return [
      [
        probe.name,
        `${shown(normal)}${first === null ? ' expected' : ' on the first day'}`,
        tap ? `it stands more than a third off ${shown(normal)}` : `above ${shown(call)} and it stays`,
      ],
    ];
  });
}

/** What the people who live with it do, and how often. */
function chores(system: System, report: TrainReport): string[] {
  const say = words(system.units);
  const own = system.tasks.map(
    ({ says, everyDays }) =>
      `${atStart(says)}: ${everyDays === null ? 'at every use' : everyDays === 1 ? 'every day' : `every ${say.days(everyDays)}`}.`,
  );
  const asked = report.lives.flatMap((life) => {
    const { days, litres } = dueSays(life, system.units);
    const when = [...(days === null ? [] : [`every ${say.days(days)}`]), ...(litres === null ? [] : [`after ${litres}`])];
    return when.length === 0 ? [] : [`${atStart(life.says)} ${inSentence(life.stage.name)}: ${when.join(', or ')}.`];
  });
  return [...asked, ...own];
}

/** The customer card: one page, no trade's words. */
export function card(system: System, report: TrainReport, parties: Parties): Paper {
  const { stages } = system.train;
  const tank = stages.some(({ kind }) => kind === 'tank');
  const heated = allStages(system.train).some(({ kind }) => kind === 'decarboniser');
  const sea = isBoat(system);
  const list: Block = { kind: 'list', items: chores(system, report) };
  return {
    key: 'card',
    name: 'Customer card',
    blocks: [
      { kind: 'title', text: system.name, under: system.site },
      { kind: 'heading', text: 'If water runs where it should not' },
      { kind: 'text', text: 'Shut the valve on the feed, then the stopcock. Pull the plug of any pump with dry hands. Then call.' },
      { kind: 'lines', says: ['The stopcock is', `Call ${parties.workshop}`] },
      { kind: 'heading', text: 'What to read' },
      { kind: 'table', head: ['Where', 'Normal', 'Call when'], rows: readings(system, report), right: [] },
      {
        kind: 'text',
        quiet: true,
        text: `Let it run five minutes before you read. In winter it makes less: cold water, no fault. 0${THIN}ppm is not zero contaminants.`,
      },
      { kind: 'heading', text: 'What to do, and how often' },
      list,
      { kind: 'heading', text: 'Call when' },
      {
        kind: 'list',
        items: [
          'a joint is wet, or the floor under it',
          ...(stages.some(({ kind }) => kind === 'membrane')
            ? ['water runs to the drain although nobody takes any and the tank is full']
            : []),
          ...(tank ? ['the tank runs over, or its float does not shut'] : []),
          'it makes much less than it did, at the same time of the year',
          ...(sea ? ['the pressure will not rise, or a hose sweats'] : []),
          ...(heated ? ['the machine furs up, or the cup turns sour'] : []),
          'it smells or tastes of anything',
        ],
      },
      ...(heated ? [{ kind: 'caution' as const, title: 'Boilers scald', text: 'Let the machine cool before its water is opened.' }] : []),
      {
        kind: 'caution',
        title: 'Not tested for drinking unless somebody says so in writing',
        text: 'A meter does not see germs, lead or organics. Purified water is no only source to drink from.',
      },
      { kind: 'qr', says: 'Whoever serves it scans this: it opens the system as it was built.' },
    ],
  };
}
