import { trainTitle, type TrainReport } from '../../advice';
import { currentSample, tapIsAssumed, type System } from '../../file';
import { untested } from '../../goal';
import { COST_WORDS, perM3 } from '../../ledger';
import { costUnit, dayAndYear, inSentence, listed, moneyText, THIN, words } from '../../quantity';
import { kindOf } from '../../stage';
import { wasteToProduct } from '../../train';
import { measuredOutput } from '../measuredOutput';
import { GROUP_LABELS, partsOf, partsTotal, sumOf, type PricedPart } from '../parts';
import type { Block, Paper, Parties } from './blocks';

/** Flows of elements of one kind differ by about this (element data sheets: ±15 to 20 %). */
const FLOW_DOUBT = 0.2;

/** A price is to the cent; what is worked out is to three digits. */
const money = (amount: number): string => amount.toFixed(2);
const about = (amount: number): string => (amount >= 100 ? String(Math.round(amount)) : amount.toFixed(amount >= 10 ? 1 : 2));

/** What it makes a day: as two jugs have it where they were filled, and then what was worked out only where that differs. */
function makes(system: System, workedOut: number): (readonly [string, string])[] {
  const say = words(system.units);
  const measured = measuredOutput(system);
  if (!measured) return [['Makes', `${say.perDay(workedOut)}, ${Math.round(100 * FLOW_DOUBT)}${THIN}% more or less: elements differ`]];
  const { at, productLPerDay, pressureBar, temperatureC } = measured;
  const hour = [
    pressureBar === null ? '' : say.of(pressureBar, 'pressureBar'),
    temperatureC === null ? '' : say.of(temperatureC, 'temperatureC'),
  ].filter((text) => text !== '');
  const off = Math.abs(Math.log(productLPerDay / workedOut)) > Math.log(1 + FLOW_DOUBT);
  return [
    ['Makes', `${say.perDay(productLPerDay)}, measured with two jugs on ${dayAndYear(at)}${hour.length > 0 ? ` at ${listed(hour)}` : ''}`],
    ...(off ? [['Worked out', `${say.perDay(workedOut)}: what was measured counts until the reason is found`] as const] : []),
  ];
}

/** Waste to product, as measured where it was. */
function drained(system: System, workedOut: number): string {
  const measured = measuredOutput(system);
  return `${words(system.units).ratio(measured?.wasteToProduct ?? workedOut)} of waste to product${measured ? ', measured' : ''}`;
}

/** What the system will do on this water, and how sure that is. */
function promises(system: System, report: TrainReport): Block[] {
  const { solved, demandLPerDay, checks, runHoursPerDay, winter, resin } = report;
  const say = words(system.units);
  const made = solved.productLPerH * 24;
  const ratio = wasteToProduct(solved);
  const bound = (limit: { readonly label: string }): string => inSentence(limit.label);
  const sure = checks.filter((check) => check.verdict === 'met' && !untested(check));
  const blank = checks.filter(untested);
  const missed = checks.filter(({ verdict }) => verdict === 'missed');
  const unknown = checks.filter(({ verdict }) => verdict === 'unknown');
  const rows: (readonly [string, string])[] = [
    ['Water', trainTitle(system, report)],
    ...(solved.unit
      ? ([
          ...makes(system, made),
          [
            'Needed',
            `${say.perDay(demandLPerDay)}${runHoursPerDay === null || runHoursPerDay > 24 ? '' : `, made in ${say.hours(runHoursPerDay)} a day`}`,
          ],
        ] as const)
      : ([['Needed', say.perDay(demandLPerDay)]] as const)),
    ...(ratio === null ? [] : [['To the drain', drained(system, ratio)] as const]),
    ...(winter ? [['In the cold', `${say.perDay(winter.productLPerDay)} at ${say.of(winter.temperatureC, 'temperatureC')}`] as const] : []),
    ...(resin?.throughput.until.kind === 'litres'
      ? [['Resin lasts', `about ${say.about(resin.throughput.until.litres, 'volumeL')} when new`] as const]
      : []),
    ['Keeps', sure.length === 0 ? 'no limit of the goal was checked' : listed(sure.map(({ limit }) => bound(limit)))],
    ...(missed.length > 0 ? [['Does not keep', listed(missed.map(({ limit }) => bound(limit)))] as const] : []),
    ...(unknown.length > 0 ? [['Not known until the tap is tested', listed(unknown.map(({ limit }) => bound(limit)))] as const] : []),
    ...(blank.length > 0 ? [['Not tested at the tap', listed(blank.map(({ limit }) => bound(limit)))] as const] : []),
  ];
  return [
    { kind: 'heading', text: 'What it will do on this water' },
    { kind: 'facts', rows },
  ];
}

/** Which water that was worked out on. */
function basis(system: System): string {
  const sample = currentSample(system.source);
  const how = {
    meter: 'a meter reading',
    kit: 'a reading and a test kit',
    report: 'a supply report',
    usual: 'what is usual in such a supply',
  }[sample.way];
  return tapIsAssumed(system.source)
    ? 'Worked out on an assumed water: nobody has measured this tap yet. Measure it before anything is bought.'
    : `Worked out on ${how} of ${sample.takenOn}. Another water gives other figures.`;
}

/** A sum with lines that have no price is a lower end; of none at all nothing is known. */
const priced = (sum: number, open: number, lines: number): string =>
  open === 0 ? money(sum) : open === lines || sum === 0 ? 'to be priced' : `from ${money(sum)}`;

/** Price by headings; lines without one are named, not hidden. */
function price(system: System, parts: readonly PricedPart[]): Block[] {
  const { currency } = system.prices;
  const { markUp } = system.build;
  const total = partsTotal(parts, markUp);
  const groups = [...new Set(parts.map(({ group }) => group))].filter((group) => group !== 'spares');
  const rows = groups.map((group) => {
    const mine = parts.filter((one) => one.group === group);
    const sum = sumOf(mine) * (1 + markUp);
    const open = mine.filter((one) => one.price === null).length;
    return [GROUP_LABELS[group], `${mine.length}${open > 0 ? `, ${open} to be priced` : ''}`, priced(sum, open, mine.length)];
  });
  return [
    { kind: 'heading', text: 'Price' },
    {
      kind: 'table',
      head: ['', 'Lines', currency],
      rows: [...rows, ['Total, without work and taxes', '', priced(total.total, total.unpriced, parts.length)]],
      right: [1, 2],
      strong: [rows.length],
    },
    ...(total.unpriced > 0
      ? [
          {
            kind: 'text' as const,
            text: `${total.unpriced} ${total.unpriced === 1 ? 'line is' : 'lines are'} not priced yet: the total grows by them.`,
          },
        ]
      : []),
  ];
}

/** What a year costs to keep: every line of the ledger, and what is bought how often. */
function upkeep(system: System, { ledger }: TrainReport): Block[] {
  const { currency } = system.prices;
  const per = costUnit(system.units);
  const say = words(system.units);
  const parts = ledger.parts.filter(({ perYear }) => perYear > 0);
  const running = (['water', 'sewer', 'energy'] as const).filter((line) => (ledger.lines[line] ?? 0) > 0);
  const rows = [
    ...parts.map(({ life, perYear }) => [life.stage.name, life.days === null ? '' : `every ${say.days(life.days)}`, about(perYear)]),
    ...running.map((line) => [COST_WORDS[line], RUNNING_WHY[line], about(ledger.lines[line]!)]),
    ['All together', '', about(ledger.running)],
  ];
  return [
    { kind: 'heading', text: 'Upkeep a year' },
    { kind: 'table', head: ['', '', currency], rows, right: [2], strong: [rows.length - 1] },
    ...(ledger.productL > 0
      ? [
          {
            kind: 'text' as const,
            quiet: true,
            text: `Product then costs about ${moneyText((perM3(ledger.running, ledger) * per.litres) / 1000, currency)} for ${per.label === 'm³' ? `1${THIN}m³` : per.label}, parts and wear counted; buying and visits are not. At the need that was given, mean of the seasons; estimates.`,
          },
        ]
      : []),
  ];
}
const RUNNING_WHY = { water: 'waste counted', sewer: 'what runs to the drain', energy: 'what draws current' } as const;

/** The offer: what is sold, what it does and does not do, what it costs to buy and to keep. */
export function offer(system: System, report: TrainReport, parties: Parties, on: string): Paper {
  const parts = partsOf(system, report.solved, report.lives);
  const stages = system.train.stages.map((stage) => `${stage.name}: ${inSentence(kindOf(stage).says)}.`);
  return {
    key: 'offer',
    name: 'Offer',
    blocks: [
      {
        kind: 'title',
        text: system.name,
        under: [
          system.site,
          parties.customer === '' ? '' : `for ${parties.customer}`,
          parties.workshop === '' ? '' : `from ${parties.workshop}`,
          on,
        ]
          .filter((text) => text !== '')
          .join(' · '),
      },
      { kind: 'picture', of: 'descent', says: trainTitle(system, report) },
      { kind: 'heading', text: 'What it is' },
      { kind: 'list', items: stages },
      ...promises(system, report),
      { kind: 'text', quiet: true, text: basis(system) },
      ...price(system, parts),
      ...upkeep(system, report),
      { kind: 'heading', text: 'What it does not do' },
      {
        kind: 'list',
        items: [
          'It is not tested for drinking: germs, lead and organics are not read by a meter and need tests of their own.',
          'Uncharged matter passes the resin, and a meter does not see it.',
          'It does not replace what local codes and licensed trades ask for: backflow, drain, electricity.',
          ...(system.train.stages.some(({ kind }) => kind === 'membrane')
            ? ['It sends water to the drain while it runs; how much stands above.']
            : []),
        ],
      },
      { kind: 'signatures', names: ['Offered', 'Accepted'] },
    ],
  };
}
