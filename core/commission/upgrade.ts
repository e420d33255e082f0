import { allStages, same, type System, type Train } from '../file';
import {
  flushedUntil,
  kindOf,
  MAINS,
  PRESERVATIVE,
  seen,
  step,
  UNDER_PRESSURE,
  type Act,
  type Stage,
  type StageOf,
  type Step,
} from '../stage';
import type { Expected } from './expected';
import { inOrder, newBuild, saying, the, type Asked } from './newBuild';
import { trainChange, type TrainChange } from './trainChange';
import { SERIES_BAR } from './wholeTrain';

const isMembrane = (stage: Stage): stage is StageOf<'membrane'> => stage.kind === 'membrane';

/** Work that is done again whatever was changed. */
const ALWAYS: ReadonlySet<Act> = new Set(['linePressure', 'leaks', 'baseline', 'handOver']);

/** Whatever of a train runs on electricity: it is unplugged before anything is opened. */
const isPowered = ({ train }: Pick<System, 'train'>): boolean =>
  train.loop !== null || allStages(train).some((stage) => kindOf(stage).plumbed(stage).powered);

export const shutOff = (system: Pick<System, 'train'>): Step =>
  step({
    id: 'shut-off',
    act: 'shutOff',
    place: 'shutDown',
    title: 'Shut the feed and let the pressure out',
    how: `${isPowered(system) ? 'Pumps stopped and unplugged, then the feed valve shut' : 'Feed valve shut'}; a tap behind the unit open until nothing runs. A bucket and a towel under what is opened.`,
    minutes: 5,
    cautions: isPowered(system) ? [UNDER_PRESSURE, MAINS] : [UNDER_PRESSURE],
    measures: [seen('still', 'Nothing runs, the gauge stands at 0', 'The feed valve leaks: shut the stopcock behind it.')],
  });

/** Resin set aside while preservative, or water the membrane has not been set for, is about. */
export const resinOut = (stages: readonly Stage[], why: string): Step[] =>
  stages
    .filter(({ kind }) => kind === 'resin')
    .map((stage) =>
      step({
        id: `out-${stage.id}`,
        act: 'resinOut',
        place: 'shutDown',
        stageId: stage.id,
        title: `Take ${the(stage)} out of the path`,
        before: 'The pressure is out.',
        how: `Close it with its caps, upright and wet: resin that dries out is lost. ${why}`,
        minutes: 5,
        cautions: [PRESERVATIVE],
      }),
    );

const removing = (stage: Stage): Step =>
  step({
    id: `remove-${stage.id}`,
    act: 'remove',
    place: 'shutDown',
    stageId: stage.id,
    title: `Take out ${the(stage)}`,
    before: 'The pressure is out.',
    how: 'Plug or join the two ends it leaves; write the day on what is thrown away.',
    minutes: 10,
    cautions: [UNDER_PRESSURE],
  });

const fitting = (stage: Stage, into: 'fit' | 'move', behind: string): Step =>
  step({
    id: `${into}-${stage.id}`,
    act: into,
    place: 'connect',
    stageId: stage.id,
    title:
      into === 'move'
        ? `Move ${the(stage)}: it now stands ${behind}`
        : stage.kind === 'resin'
          ? `Put in the housing of ${the(stage)}, still empty, ${behind}`
          : `Put in ${the(stage)}, ${behind}`,
    how: 'Cut the tubing square, push it home, pull at it once. Look twice which side is in and which is out.',
    minutes: 15,
    cautions: [UNDER_PRESSURE],
  });

/** Where a stage stands, in words. */
function behindOf({ stages, branches }: Train, stage: Stage): string {
  const list = [stages, ...branches.map((branch) => branch.stages)].find((one) => one.some(({ id }) => id === stage.id)) ?? [];
  const before = list[list.findIndex(({ id }) => id === stage.id) - 1];
  return before ? `behind ${the(before)}` : 'first on the line';
}

/** A membrane that grew a second one on its waste: the restrictor, the flush valve and the product lines change place. */
function secondElement(system: System, before: StageOf<'membrane'>, after: StageOf<'membrane'>): Step[] {
  if (before.arrangement === after.arrangement) return [];
  const series = after.arrangement === 'series';
  const say = saying(system);
  const common = { place: 'connect', stageId: after.id } as const;
  const steps: Step[] = [
    step({
      ...common,
      id: 'restrictor-out',
      act: 'restrictorOut',
      place: 'shutDown',
      title: 'Take the old restrictor out of the waste line',
      before: 'The pressure is out.',
      how: series
        ? 'It sits in the waste of the first membrane. Left in, it starves the second; keep it, marked with its length.'
        : 'It was cut for one membrane and holds back too much for two; keep it, marked with its length.',
      minutes: 5,
      cautions: [UNDER_PRESSURE],
      measures: [
        seen(
          'out',
          'The old restrictor is out of the line',
          'Follow the waste line from the membrane to the drain: it may hide inside the fitting.',
        ),
      ],
    }),
  ];
  if (after.arrangement === 'single') return [...steps, restrictorIn(system, after)];
  steps.push(
    step({
      ...common,
      id: 'second-housing',
      act: 'fit',
      title: 'Clip the second housing beside the first',
      how: series
        ? 'The waste of the first goes into the cap end of the second, where the feed port is alone.'
        : 'A tee in the feed gives both cap ends the same water; a tee joins both wastes before the restrictor.',
      minutes: 20,
      measures: [
        seen(
          'ports',
          series ? 'Waste of the first on the feed of the second' : 'Both fed at the cap end',
          'The central port is product, the offset one waste: change the lines now.',
        ),
      ],
    }),
    step({
      ...common,
      id: 'join-products',
      act: 'joinProducts',
      title: 'Join both product lines with a tee',
      how: 'Both central ports into one tee, its third leg on to what follows. No valve between.',
      minutes: 10,
      measures: [
        seen('tee', 'Both products meet in the tee', 'A product line left closed makes its membrane push back: nothing may be plugged.'),
      ],
    }),
    restrictorIn(system, after),
    step({
      ...common,
      id: 'flush-valve',
      act: 'flushValve',
      title: `Move the flush valve to the waste of ${series ? 'the second membrane' : 'both membranes'}`,
      how: 'It belongs beside the restrictor, where it opens the way round it. Where none is fitted there is nothing to move.',
      minutes: 10,
    }),
  );
  if (!series) return steps;
  return [
    ...steps,
    step({
      ...common,
      id: 'series-pressure',
      act: 'linePressure',
      place: 'pressure',
      title: `See that near ${say.of(SERIES_BAR, 'pressureBar')} is there`,
      before: 'The feed runs into a bucket.',
      how: 'The second membrane gets what the first leaves. At less pressure both let more of the salt through.',
      minutes: 3,
      measures: [
        {
          id: 'bar',
          label: 'Pressure while it runs',
          dimension: 'pressureBar',
          expected: system.source.linePressureBar,
          low: 0.8 * SERIES_BAR,
          high: null,
          doubt: { share: 0.02, least: 0.1 },
          because: `near ${say.of(SERIES_BAR, 'pressureBar')} is wanted for two in series (common practice)`,
          ifLow: 'A booster pump comes before the second membrane: see More water in Train.',
        },
      ],
    }),
  ];
}

const restrictorIn = (system: System, after: StageOf<'membrane'>): Step =>
  step({
    id: 'restrictor-in',
    act: 'restrictorIn',
    place: 'connect',
    stageId: after.id,
    title: `Fit ${after.arrangement === 'single' ? 'a restrictor for one membrane' : 'one larger restrictor'} on the last waste`,
    how: `${saying(system).of(after.restrictor.lengthMm, 'lengthMm')} of tube, uncut, before the drain; it is cut to the ratio later.`,
    minutes: 5,
    measures: [
      seen(
        'one',
        'One restrictor, on the last waste, none before it',
        'Two in one line: the membranes get no flow along them and scale within weeks.',
      ),
    ],
  });

/**
 * From the train that was handed over to the one that stands now: what is taken out, moved and added, then every step
 * of a new build that those changes call for.
 */
export function upgrade(system: System, before: Train, expected: Expected | null): Asked[] {
  const change = trainChange(before, system.train);
  const membranes = change.rebuilt.filter((one) => isMembrane(one.before) && isMembrane(one.after));
  const opened = membraneOpened(change);
  const own: Step[] = [
    shutOff(system),
    ...(opened ? resinOut(before.stages, 'A new membrane brings preservative.') : []),
    ...change.removed.filter(({ kind }) => !(opened && kind === 'resin')).map(removing),
    ...change.moved.map((stage) => fitting(stage, 'move', behindOf(system.train, stage))),
    ...change.added.map((stage) => fitting(stage, 'fit', behindOf(system.train, stage))),
    ...change.rebuilt
      .filter(({ after }) => !isMembrane(after))
      .map(({ after }) => fitting(after, 'fit', `${behindOf(system.train, after)}, in place of the old one`)),
    ...membranes.flatMap((one) => secondElement(system, one.before as StageOf<'membrane'>, one.after as StageOf<'membrane'>)),
  ];
  const touched = new Set([...change.added, ...change.moved, ...change.rebuilt.map(({ after }) => after)].map(({ id }) => id));
  const probesMoved = !same(before.probes, system.train.probes);
  const all = newBuild(system, expected);
  const needed = [
    ...neededAgain(all, system, touched, opened),
    ...all.filter(({ step: { act } }) => probesMoved && (act === 'probes' || act === 'bleed')),
  ];
  return inOrder([...own.map((one): Asked => ({ step: one, by: one.stageId === null ? [] : [one.stageId] })), ...needed], system);
}

/** Whether a membrane is new, so that preservative comes into the water. */
const membraneOpened = ({ added, rebuilt }: TrainChange): boolean =>
  added.some(isMembrane) || rebuilt.some(({ after }) => isMembrane(after));

/** Steps of a new build that changed stages call for; behind a membrane that was opened the resin comes back too. */
export function neededAgain(all: readonly Asked[], system: System, touched: ReadonlySet<string>, membraneIsNew: boolean): Asked[] {
  const kinds = new Map(
    [...system.train.stages, ...system.train.branches.flatMap(({ stages }) => stages)].map((stage) => [stage.id, stage]),
  );
  return all.filter(({ step: { act }, by }) => {
    if (ALWAYS.has(act)) return true;
    if (by.some((id) => touched.has(id))) return true;
    if (!membraneIsNew) return false;
    const ofMembrane = by.some((id) => kinds.get(id)?.kind === 'membrane' && touched.has(id));
    const resinBack = by.some((id) => kinds.get(id)?.kind === 'resin');
    return ofMembrane || resinBack || act === 'readPorts' || act === 'filterDrop';
  });
}

/** A piece changed for its like: old one out, what its kind asks for, and the figures again. */
export function partChange(system: System, stageId: string, expected: Expected | null): Asked[] {
  const all = [...system.train.stages, ...system.train.branches.flatMap(({ stages }) => stages)];
  const stage = all.find(({ id }) => id === stageId);
  if (!stage) return [];
  const membrane = isMembrane(stage);
  const resins = system.train.stages.filter(({ kind }) => kind === 'resin');
  const lead = stage.kind === 'resin' && resins.length > 1 && resins[0]!.id === stageId;
  const own: Step[] = [
    shutOff(system),
    ...(membrane ? resinOut(system.train.stages, 'A new membrane brings preservative.') : []),
    removing(stage),
    ...(lead
      ? resins.slice(1).map((one) => fitting(one, 'move', one === resins[1] ? 'first: it goes on being used up' : 'one place further up'))
      : []),
    fitting(stage, 'fit', lead ? 'new, last: it guards the others' : behindOf(system.train, stage)),
  ];
  const needed = neededAgain(newBuild(system, expected), system, new Set([stageId]), membrane)
    .filter(({ step: { act } }) => act !== 'ports' && act !== 'handOver')
    .map((one) =>
      kindOf(stage).prefilter && one.step.act === 'flushFilters' ? { ...one, step: pastMembrane(one.step, stage.kind === 'carbon') } : one,
    );
  return inOrder([...own.map((one): Asked => ({ step: one, by: one.stageId === null ? [] : [one.stageId] })), ...needed], system);
}

/** A filter flushed while the membrane stays in: its water is led off before it. */
const pastMembrane = (one: Step, carbon: boolean): Step => ({
  ...one,
  before: 'The line to the membrane is off and leads to the drain.',
  how: `Take the line off before the membrane and lead it to the drain, until ${flushedUntil(carbon)}. Then back on.`,
});
