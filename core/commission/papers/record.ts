import { allStages, type System, type Work } from '../../file';
import { THIN, words } from '../../quantity';
import type { Measure, Step } from '../../stage';
import { expectedToday, todayOf } from '../expected';
import { skippingCosts } from '../handOver';
import { judge } from '../judge';
import { bucketTest } from '../ratio';
import { runbook, runbookSteps, WORK_LABELS } from '../runbook';
import type { Block, Paper, Parties } from './blocks';

const clock = (at: string): string => at.slice(0, 16).replace('T', ' ');

/** The piece of work a record is of: the open one, else the last that ended. */
export const recordedWork = ({ build }: Pick<System, 'build'>): Work | null =>
  build.works.findLast(({ endedAt }) => endedAt === null) ?? build.works.at(-1) ?? null;

/** A measure as it was when it was read: what was expected then, not what would be today. */
const asRead = (measure: Measure, found: Work['measured'][number]): Measure => ({
  ...measure,
  expected: found.expected,
  low: found.low,
  high: found.high,
});

const VERDICTS = { fits: 'fits', low: 'low', high: 'high', kept: '' } as const;

/** Every figure read, in the order of the steps; read again, each time. */
function figures(system: System, work: Work, steps: readonly Step[]): string[][] {
  return steps.flatMap((step) =>
    work.measured
      .filter((one) => one.step === step.id)
      .map((one) => {
        const measure = step.measures.find(({ id }) => id === one.measure);
        if (!measure) return [step.title, one.measure, String(one.value), '', '', clock(one.at)];
        const { read, expected, verdict } = judge(asRead(measure, one), one.value, system.units);
        const seen = measure.dimension === 'seen';
        return [
          step.title,
          measure.label,
          read,
          seen ? '' : expected,
          seen ? (one.value === 1 ? '' : 'not so') : VERDICTS[verdict],
          clock(one.at),
        ];
      }),
  );
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
  const expected = expectedToday(system, todayOf(work.measured));
  const steps = runbookSteps(runbook(system, expected.ok ? expected.value : null, work));
  const stage = work.stageId === null ? undefined : allStages(system.train).find(({ id }) => id === work.stageId);
  const done = new Set(work.done.map(({ step }) => step));
  const read = figures(system, work, steps);
  const jugs = ratios(system, work);
  const titleOf = (id: string): string => steps.find((step) => step.id === id)?.title ?? id;
  const actOf = (id: string): string => steps.find((step) => step.id === id)?.act ?? '';
  const open = steps.filter(({ id }) => !done.has(id) && !work.deviations.some(({ step, how }) => step === id && how === 'skipped'));
  const given = [
    ...new Map(
      steps
        .filter(({ id }) => done.has(id))
        .flatMap(({ cautions }) => cautions)
        .map((one) => [one.title, one]),
    ).values(),
  ];
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
          [
            'Steps',
            `${steps.filter(({ id }) => done.has(id)).length} of ${steps.length} done${open.length > 0 && work.endedAt === null ? `, ${open.length} open` : ''}`,
          ],
        ],
      },
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
            rows: work.deviations.map((one) => [
              titleOf(one.step),
              one.how === 'skipped' ? 'left out' : 'taken as it was',
              one.reason,
              one.how === 'skipped' ? skippingCosts(actOf(one.step)) : '',
            ]),
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
