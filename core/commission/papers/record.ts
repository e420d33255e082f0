import { allStages, type System, type Work } from '../../file';
import { THIN, words } from '../../quantity';
import { cautionsGiven } from '../handOver';
import { judge, measureOf, readAs, unitsOfProbe } from '../judge';
import { unproven } from '../missing';
import { bucketTest } from '../ratio';
import { runbook, runbookSteps, WORK_LABELS } from '../runbook';
import type { Block, Paper, Parties } from './blocks';

const clock = (at: string): string => at.slice(0, 16).replace('T', ' ');

/** The piece of work a record is of: the open one, else the last that ended. */
export const recordedWork = ({ build }: Pick<System, 'build'>): Work | null =>
  build.works.findLast(({ endedAt }) => endedAt === null) ?? build.works.at(-1) ?? null;

const VERDICTS = { fits: 'fits', low: 'low', high: 'high', kept: '' } as const;

/** Every figure once, as it was read last, with what stood before it; in the order in which each was first read. */
function figures(system: System, work: Work): string[][] {
  const keyOf = (one: Work['measured'][number]): string => `${one.step}/${one.measure}`;
  return [...new Set(work.measured.map(keyOf))].map((key) => {
    const all = work.measured.filter((one) => keyOf(one) === key);
    const one = all.at(-1)!;
    const units = unitsOfProbe(system, one.probeId);
    const { expected, verdict } = judge(measureOf(one), one.value, units);
    const seen = one.dimension === 'seen';
    const before = [...new Set(all.slice(0, -1).map((old) => readAs(old, units)))].filter((text) => text !== readAs(one, units));
    return [
      one.title,
      one.label,
      `${readAs(one, units)}${before.length > 0 ? `, corrected from ${before.join(', ')}` : ''}`,
      seen ? '' : expected,
      seen ? '' : VERDICTS[verdict],
      clock(one.at),
    ];
  });
}

/** Waste to product as it was measured, with the length the restrictor had. */
function ratios(system: System, work: Work): string[][] {
  const say = words(system.units);
  return system.build.ratios
    .filter(({ at }) => at >= work.startedAt && (work.endedAt === null || at <= work.endedAt))
    .map((one) => {
      const result = bucketTest(one);
      return [
        clock(one.at),
        say.of(one.wasteL, 'volumeL'),
        say.of(one.productL, 'volumeL'),
        result.ok ? `${result.value.wasteToProduct.toFixed(1)} ± ${result.value.uncertainty.toFixed(1)} : 1` : '–',
        `${system.train.wasteTarget}${THIN}:${THIN}1`,
        say.of(one.restrictorLengthMm, 'lengthMm'),
        [
          one.pressureBar === null ? '' : say.of(one.pressureBar, 'pressureBar'),
          one.temperatureC === null ? '' : say.of(one.temperatureC, 'temperatureC'),
        ]
          .filter((text) => text !== '')
          .join(', '),
      ];
    });
}

/** The commissioning record: every measured figure beside the predicted one, what was left out and why, two signatures. */
export function record(system: System, parties: Parties, on: string): Paper {
  const work = recordedWork(system);
  if (!work)
    return {
      key: 'record',
      name: 'Commissioning record',
      blocks: [
        { kind: 'title', text: `${system.name}: commissioning record`, under: on },
        { kind: 'text', text: 'No work has been begun: there is nothing to record yet.' },
      ],
    };
  const stage = work.stageId === null ? undefined : allStages(system.train).find(({ id }) => id === work.stageId);
  const read = figures(system, work);
  const jugs = ratios(system, work);
  const given = work.endedAt === null ? cautionsGiven(system, work) : work.cautions;
  const all = runbookSteps(runbook(system, null, work));
  const steps = work.endedAt === null ? all.length : null;
  const open = unproven(system, work, all);
  return {
    key: 'record',
    name: 'Commissioning record',
    blocks: [
      {
        kind: 'title',
        text: `${system.name}: commissioning record`,
        under: [system.site, parties.customer, parties.workshop].filter((text) => text !== '').join(' · '),
      },
      {
        kind: 'facts',
        rows: [
          ['Work', `${WORK_LABELS[work.kind]}${stage ? `: ${stage.name}` : ''}`],
          ['Begun', clock(work.startedAt)],
          ['Handed over', work.endedAt === null ? 'not yet' : clock(work.endedAt)],
          ['Steps', steps === null ? `${work.done.length} done` : `${work.done.length} of ${steps} done`],
        ],
      },
      ...(work.kind === 'putAway'
        ? []
        : open.map((text): Block => ({
            kind: 'caution',
            title: work.endedAt === null ? 'Not proven yet' : 'Handed over without proof',
            text,
          }))),
      { kind: 'heading', text: 'Measured beside predicted' },
      ...(read.length > 0
        ? [{ kind: 'table' as const, head: ['Step', 'Figure', 'Read', 'Predicted for that hour', '', 'When'], rows: read, right: [] }]
        : [{ kind: 'text' as const, text: 'Nothing was read at any step.' }]),
      ...(jugs.length > 0
        ? ([
            { kind: 'heading', text: 'Waste to product' },
            { kind: 'table', head: ['When', 'Waste', 'Product', 'Ratio', 'Wanted', 'Restrictor', 'At'], rows: jugs, right: [] },
          ] as const satisfies readonly Block[])
        : []),
      { kind: 'heading', text: 'Deviations' },
      work.deviations.length > 0
        ? {
            kind: 'table',
            head: ['Step', '', 'Reason', 'What it costs later'],
            rows: work.deviations.map((one) => [one.title, one.how === 'skipped' ? 'left out' : 'taken as it was', one.reason, one.costs]),
            right: [],
          }
        : { kind: 'text', text: 'None.' },
      ...(given.length > 0
        ? [
            { kind: 'heading' as const, text: 'Cautions that stood at the steps' },
            { kind: 'list' as const, items: given.map(({ title, text }) => `${title}. ${text}`) },
          ]
        : []),
      { kind: 'signatures', names: ['Commissioned by', 'Received by'] },
      {
        kind: 'text',
        quiet: true,
        text: `Printed ${on}. A meter says nothing of germs, lead or organics; drinking water needs its own tests.`,
      },
    ],
  };
}
