import type { System, Train } from '../file';
import { trainYear, type TrainYear } from '../life';
import { agedBy, boreFromRating, isSmallElement, restrictorPressureBar, serviceYears, yearlyAgeing } from '../membrane';
import { kindOf, type Stage, type StageOf } from '../stage';
import { nothingKnown, productStation, quickTrain, type Begun, type Known, type SolvedTrain } from '../train';
import { dissolvedMgL, strengthened, type Water } from '../water';
import { membraneShare } from '../advice';
import type { Bench } from './bench';
import type { Candidate } from './search';
import type { Laid, Space, Target } from './spaces';

/** Heads of options, each solved once: what stands ahead of resin and tank, set for its ratio, cold and warm, new and old. */

/** How old the membrane is: new, at the end of its years, or half way, for the mean of a year. */
export type Age = 'new' | 'old' | 'mid';
export type Day = 'cold' | 'mean' | 'warm';
export interface Head {
  /** Its stages with the membrane set for what it is to waste; null where nothing comes through it. */
  readonly stages: () => readonly Stage[] | null;
  readonly on: (day: Day, age: Age) => SolvedTrain | null;
  readonly year: () => TrainYear | null;
  /** What was worked out of it alone, by the need; and with something behind, by what that is. */
  readonly alone: Map<string, Map<string, unknown>>;
  readonly behind: Map<string, Map<string, unknown>>;
}
/** What was found under some name, or is found now. */
export function kept<T>(all: Map<string, unknown>, what: string, of: () => T): T {
  if (!all.has(what)) all.set(what, of());
  return all.get(what) as T;
}
/** What tells one thing behind a head from another, but for what only stores. */
export function behindKey(tail: readonly Stage[]): string {
  const known = BEHIND.get(tail);
  if (known !== undefined) return known;
  const key = tail
    .filter((stage) => kindOf(stage).form !== 'tank')
    .map((stage) => JSON.stringify(stage))
    .join();
  BEHIND.set(tail, key);
  return key;
}
const BEHIND = new WeakMap<readonly Stage[], string>();

/** Rows of stages laid down once: each head for all that share it, each tail for all heads it can stand behind. */
export interface Rows {
  readonly heads: Map<string, Pick<Laid, 'head' | 'target'>>;
  readonly tails: Map<string, Laid['tail']>;
}
export const noRows = (): Rows => ({ heads: new Map(), tails: new Map() });
export function laidOnce(one: Candidate<Space>, { heads, tails }: Rows): Laid {
  let [head, tail] = [heads.get(one.headKey), tails.get(one.tailKey)];
  if (!head || !tail) {
    const laid = one.space.lay(one.choice);
    if (!head) heads.set(one.headKey, (head = laid));
    if (!tail) tails.set(one.tailKey, (tail = laid.tail));
  }
  return { head: head.head, target: head.target, tail };
}
/** Heads by their key, see `headKey`; kept between searches on one water. */
export type Heads = Map<string, Head>;

/** Worked out when it is first asked for. */
export function once<T>(of: () => T): () => T {
  let found: { readonly value: T } | null = null;
  return () => (found ??= { value: of() }).value;
}

/** The train of some stages, with nothing of the system's own in it. */
export const bareTrain = ({ train }: Pick<System, 'train'>, stages: readonly Stage[]): Train => ({
  ...train,
  stages: [...stages],
  probes: [],
  branches: [],
  loop: null,
});

/** A restrictor as a shop has it: a tube of so much, cut to length. */
const TUBE_MM = 300;
const BORE_STEP_MM = 0.01;

/** A tube that passes a waste at its pressure: the next bore that is to be had, and the length of it. */
function tubeFor(flowLPerH: number, bar: number, temperatureC: number, tdsMgL: number): StageOf<'membrane'>['restrictor'] {
  const rated = boreFromRating(flowLPerH, bar, TUBE_MM, temperatureC);
  const boreMm = Math.min(3, Math.max(0.2, Math.round((rated.ok ? rated.value : 1) / BORE_STEP_MM) * BORE_STEP_MM));
  const takes = (lengthMm: number): number => restrictorPressureBar({ lengthMm, boreMm }, flowLPerH, temperatureC, tdsMgL);
  // What it takes grows in a line with its length, from what its ends take.
  const [ends, aTube] = [takes(0), takes(TUBE_MM)];
  const lengthMm = aTube > ends ? (TUBE_MM * (bar - ends)) / (aTube - ends) : TUBE_MM;
  return {
    form: 'tube',
    lengthMm: Math.round(Math.min(2000, Math.max(10, lengthMm))),
    boreMm: Number(boreMm.toFixed(2)),
    assumed: true,
    flushLever: false,
  };
}

/** Stages with their membrane as old as that. */
export function agedStages(stages: readonly Stage[], age: Age): Stage[] {
  return stages.map((stage) => {
    if (stage.kind !== 'membrane') return stage;
    const years = age === 'new' ? 0 : serviceYears(stage.elementClass) / (age === 'mid' ? 2 : 1);
    const factors = agedBy(yearlyAgeing(stage.elementClass), years);
    return { ...stage, waterFactor: factors.water, saltFactor: factors.salt };
  });
}

const withMembrane = (stages: readonly Stage[], change: (membrane: StageOf<'membrane'>) => StageOf<'membrane'>): Stage[] =>
  stages.map((stage) => (stage.kind === 'membrane' ? change(stage) : stage));

/** More is not led past a membrane: it would be no membrane's work. */
const MOST_BLEND = 0.9;

/** A head set for its target at the mean of the year, its membrane new. */
function setFor(
  stages: readonly Stage[],
  { wasteToProduct, heldLPerH, blends }: Target,
  solve: (stages: readonly Stage[]) => SolvedTrain | null,
  { system, tap }: Bench,
): readonly Stage[] | null {
  const at = (recycleLPerH: number): Stage[] =>
    withMembrane(stages, (one) => ({ ...one, valve: { kind: 'recovery', recovery: 1 / (1 + wasteToProduct) }, recycleLPerH }));
  let set = at(0);
  const membrane = stages.find((stage): stage is StageOf<'membrane'> => stage.kind === 'membrane')!;
  // A valve set for its recovery wants nothing solved; whether it makes anything is found on the days it is looked at.
  if (heldLPerH === null && !blends && !isSmallElement(membrane.elementClass)) return set;
  let solved = solve(set);
  if (!solved?.unit) return null;
  if (heldLPerH !== null && solved.unit.feedLPerH < heldLPerH) {
    // What is recycled weakens what is made, and so the feed, nearly in a line: that brings it to the litre.
    const ahead = solved.unit.feedLPerH;
    const tried = Math.round(heldLPerH - ahead);
    solved = solve(at(tried));
    if (!solved?.unit) return null;
    const slope = tried > 0 ? (solved.unit.feedLPerH - ahead) / tried : 0;
    const recycle = Math.max(0, Math.round((heldLPerH - ahead) / (1 + slope)));
    set = at(recycle);
  } else if (isSmallElement(membrane.elementClass) && heldLPerH === null) {
    const { concentrateLPerH, concentratePressureBar, concentrate } = solved.unit;
    const restrictor = tubeFor(
      concentrateLPerH,
      concentratePressureBar,
      concentrate.temperatureC,
      dissolvedMgL(concentrate.mgL, concentrate.alkalinityMgL),
    );
    set = withMembrane(stages, (one) => ({ ...one, valve: null, restrictor }));
  }
  if (!blends) return set;
  const met = membraneShare({ ...system, train: bareTrain(system, set) }, solved, membrane.bypassAfter, tap);
  const bypassShare = Math.round(1000 * Math.min(MOST_BLEND, met?.share ?? 0)) / 1000;
  return withMembrane(set, (one) => ({ ...one, bypassShare }));
}

/** Temperatures of the days that are looked at. */
export const celsiusOf = ({ seasons: { temperature } }: Pick<Bench, 'seasons'>): Record<Day, number> => ({
  cold: temperature.mean - temperature.amplitude,
  mean: temperature.mean,
  warm: temperature.mean + temperature.amplitude,
});

/** A head on a bench: every figure of it worked out when it is asked for. */
export function headOf(laid: Laid, bench: Bench, key: string): Head {
  const { system, feed, seasons, heads } = bench;
  const known = heads.get(key);
  if (known) return known;
  const { strength } = seasons;
  const behind = bench.behindBarPerLPerH.get(key.split(':')[0]!);
  const celsius = celsiusOf(bench);
  const begun: Begun = { near: null };
  const quick = (stages: readonly Stage[], water: Water): ReturnType<typeof quickTrain> =>
    quickTrain(bareTrain(system, stages), system.source, water, feedsAt(heads, water), behind?.(water.temperatureC) ?? 0, begun);
  const meanFeed = strengthened(feed, strength.mean);
  const solve = (stages: readonly Stage[], day: Day): SolvedTrain | null => {
    const solved = quick(stages, { ...meanFeed, temperatureC: celsius[day] });
    return solved.ok && solved.value.productLPerH > 0 ? solved.value : null;
  };
  const stages = once(() =>
    laid.target ? setFor(laid.head, laid.target, (some) => solve(agedStages(some, 'new'), 'mean'), bench) : laid.head,
  );
  const days = new Map<string, SolvedTrain | null>();
  const on: Head['on'] = (day, age) => {
    const name = `${day} ${age}`;
    const hit = days.get(name);
    if (hit !== undefined) return hit;
    const own = stages();
    const solved = own && solve(agedStages(own, age), day);
    days.set(name, solved);
    return solved;
  };
  const year = once((): TrainYear | null => {
    const own = stages();
    if (!own) return null;
    const mid = agedStages(own, 'mid');
    const found = trainYear(
      { train: bareTrain(system, mid) },
      (water) => quick(mid, water),
      feed,
      seasons,
      (solved) => productStation(solved).water,
    );
    return found.ok ? found.value : null;
  });
  const head: Head = { stages, on, year, alone: new Map(), behind: new Map() };
  heads.set(key, head);
  return head;
}

/** Species of the membrane's feed by the water it comes from: kept with the heads of a bench. */
const FEEDS = new WeakMap<Heads, Map<string, Known>>();
function feedsAt(heads: Heads, water: Water): Known {
  const all = FEEDS.get(heads) ?? new Map<string, Known>();
  FEEDS.set(heads, all);
  const key = `${water.temperatureC} ${water.mgL.Cl} ${water.mgL.Ca} ${water.alkalinityMgL}`;
  const feeds = all.get(key) ?? nothingKnown();
  all.set(key, feeds);
  return feeds;
}
