import { allStages, membraneStage, type System } from '../file';
import { strengthOf } from '../advice';
import { strengthLimit } from '../goal';
import { inSentence, words } from '../quantity';
import { kindOf, PLACES, step, type Act, type Place, type Stage, type Step, type StepsAround } from '../stage';
import type { Expected } from './expected';
import { pushedTo } from './hanging';
import { circulating, filterDrop, handingOver, leakCheck, meterStepBehind, placing, portsOf, readingTheLine } from './wholeTrain';

/** A step of the runbook, with the stages that asked for it; none where it is the whole system's. */
export interface Asked {
  readonly step: Step;
  readonly by: readonly string[];
}

/**
 * All work of a train put into service for the first time, in its order: what concerns the whole of it, and what each
 * stage asks for in the place where that belongs.
 */
export function newBuild(system: System, expected: Expected | null): Asked[] {
  const whole = [
    ...placing(system),
    readingTheLine(system),
    leakCheck(system),
    ...filterDrop(system, expected),
    ...portsOf(system, expected),
    ...circulating(system, expected),
    ...handingOver(system, expected),
  ].map((one): Asked => ({ step: one, by: [] }));
  return inOrder([...whole, ...ownSteps(system, expected)], system);
}

/** Places whose work is done before any water, and those whose work waits until all membranes stand. */
const FIRST: ReadonlySet<Place> = new Set(['shutDown', 'connect', 'pressure']);
const BETWEEN: ReadonlySet<Place> = new Set(['rinse', 'membrane', 'setting']);
/** Places that close the work. */
const ENDS: ReadonlySet<Place> = new Set(['running', 'meters', 'handOver']);
/** Work that closes its place. */
const LAST: ReadonlySet<Act> = new Set(['leaks', 'filterDrop', 'readPorts', 'handOver']);

/**
 * Work in its order: by place; what stands ahead of a second membrane once the first is set, what stands behind a tank
 * once that holds water; within a place what is the whole system's, then stage after stage.
 */
export function inOrder(asked: readonly Asked[], system: System): Asked[] {
  const { stages } = system.train;
  const along = new Map(allStages(system.train).map(({ id }, i) => [id, i]));
  const placesOf = (kind: Stage['kind']): number[] => stages.flatMap((stage, i) => (stage.kind === kind ? [i] : []));
  const [membranes, tanks] = [placesOf('membrane'), placesOf('tank')];
  const ahead = (places: readonly number[], at: number): number => places.filter((place) => place < at).length;
  const rank = ({ step: { place, act, stageId } }: Asked): readonly number[] => {
    const at = stageId === null ? null : (along.get(stageId) ?? null);
    // A second pass is set up on the product of the first.
    const pass = at === null ? 0 : Math.min(ahead(membranes, at), Math.max(0, membranes.length - 1));
    const group = FIRST.has(place) ? 0 : BETWEEN.has(place) ? 1 + pass : ENDS.has(place) || at === null ? 99 : 9 + ahead(tanks, at);
    return [group, PLACES.indexOf(place), LAST.has(act) ? 1000 : at === null || act === 'resinOut' ? 0 : 1 + at];
  };
  return asked
    .map((one, i) => ({ one, rank: [...rank(one), i] }))
    .sort((a, b) => a.rank.map((figure, k) => figure - b.rank[k]!).find((difference) => difference !== 0) ?? 0)
    .map(({ one }) => one);
}

/** What the stages ask for, each in the order of the water; a step that several ask for is done once. */
function ownSteps(system: System, expected: Expected | null): Asked[] {
  const found = new Map<string, Asked>();
  for (const stage of allStages(system.train))
    for (const entry of kindOf(stage).steps(stage, aroundOf(system, stage, expected))) {
      const known = found.get(entry.id);
      const shared = entry.act === 'flushFilters';
      if (known) found.set(entry.id, { ...known, by: [...known.by, stage.id] });
      else found.set(entry.id, { step: placedStep(system, stage, step({ ...entry, stageId: shared ? null : stage.id })), by: [stage.id] });
    }
  return [...found.values()];
}

/** What stands ahead of the membrane is made ready before that is in; what stands behind it, or behind a tank, once water comes. */
function placedStep(system: System, stage: Stage, one: Step): Step {
  const ahead = sideOf(system, stage) === 'ahead';
  if (ahead && (one.place === 'cartridges' || one.place === 'store')) return { ...one, place: 'rinse' };
  return !ahead && one.place === 'rinse' && one.stageId !== null ? { ...one, place: 'cartridges' } : one;
}

/** On which side of the last membrane a stage stands; what is taken off for a use stands by itself. */
function sideOf({ train: { stages, branches } }: System, { id }: Stage): 'ahead' | 'behind' | 'alone' {
  const membrane = stages.findLastIndex(({ kind }) => kind === 'membrane');
  const branch = branches.find((one) => one.stages.some((stage) => stage.id === id));
  if (branch) return 'behind';
  if (membrane < 0) return 'alone';
  return stages.findIndex((stage) => stage.id === id) < membrane ? 'ahead' : 'behind';
}

/** What a stage is told of the train it stands in. */
function aroundOf(system: System, stage: Stage, expected: Expected | null): StepsAround<Stage> {
  const { train } = system;
  const at = train.stages.findIndex(({ id }) => id === stage.id);
  const isUnit = membraneStage(train.stages)?.id === stage.id;
  return {
    units: system.units,
    first: allStages(train).find(({ kind }) => kind === stage.kind)?.id === stage.id,
    side: sideOf(system, stage),
    resinBehind: at >= 0 && train.stages.slice(at).some(({ kind }) => kind === 'resin'),
    carbon: allStages(train).some(({ kind }) => kind === 'carbon'),
    pushedTo: pushedTo(system),
    standing: expected?.standings.find((standing) => standing.stage.id === stage.id) ?? null,
    unit: (isUnit ? expected?.solved.unit : expected?.solved.secondPass?.unit) ?? null,
    wasteTarget: train.wasteTarget,
    colours: system.build.colours,
    mostUScm: mostUScm(system, expected),
    meterStepUScm: meterStepBehind(system, stage),
  };
}

/** Most conductivity the goal allows of the product. */
const mostUScm = (system: System, expected: Expected | null): number | null =>
  (expected ? strengthOf(system, expected.solved) : strengthLimit(system.goal, system.units.ppmFactor))?.highUScm ?? null;

/** A stage's own name in a sentence of the runbook. */
export const the = (stage: Stage): string => inSentence(stage.name);
/** Figures as this system speaks of them. */
export const saying = (system: System): ReturnType<typeof words> => words(system.units);
