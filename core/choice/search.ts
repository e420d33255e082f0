import { enumerateOptions, spaceSize, type Axis, type Option } from './axes';
import { inSteps, kneeOfTwo, nearestToIdeal, paretoFront, type Knee } from './front';
import type { Figures } from './figures';
import type { Choice, Space } from './jobs';
import { judgePlan } from './judge';
import type { Judging } from './judging';
import { elementCount } from '../membrane';
import { membraneKey, type Plan } from './plan';
import { MOST_MARGIN, recommend, TIE_BAND, type Recommendation, type Weighed } from './recommend';
import type { Rejection, RuleId } from './rules';

/** The search over all options: what would do, what is best, and why each other one is not (science of options, 2 and 5). */

/** An option of one of the spaces; its id stays. */
export interface Candidate {
  readonly id: string;
  readonly space: Space;
  readonly choice: Choice;
}
function choiceOf(axes: readonly Axis[], { places }: Option): Choice {
  const choice: Record<string, string | number | boolean> = {};
  for (let k = 0; k < axes.length; k++) choice[axes[k]!.id] = axes[k]!.values[places[k]!]!;
  return choice;
}

/** Axes at the end of a space that leave its membrane part as it is: resin and tank, and what stands in their place. */
const BEHIND = 2;
/** Options that differ in those axes alone. */
interface BlockOfOptions {
  readonly space: Space;
  readonly head: readonly number[];
  readonly tail: readonly Axis[];
}
function* blocks(spaces: readonly Space[]): Generator<BlockOfOptions> {
  for (const space of spaces) {
    const cut = Math.max(0, space.axes.length - BEHIND);
    for (const { places } of enumerateOptions(space.axes.slice(0, cut))) yield { space, head: places, tail: space.axes.slice(cut) };
  }
}
function* within({ space, head, tail }: BlockOfOptions): Generator<Candidate> {
  for (const { places } of enumerateOptions(tail)) {
    const whole = [...head, ...places];
    const id = whole.join('.');
    yield { id: `${space.id}:${id}`, space, choice: choiceOf(space.axes, { id, places: whole }) };
  }
}

/** All options of some spaces, in their order. */
export function* candidates(spaces: readonly Space[]): Generator<Candidate> {
  for (const block of blocks(spaces)) yield* within(block);
}
export const candidateCount = (spaces: readonly Space[]): number => spaces.reduce((sum, { axes }) => sum + spaceSize(axes), 0);

/** An option by its id; null where there is none. */
export function candidate(spaces: readonly Space[], id: string): Candidate | null {
  const [name, places = ''] = id.split(':');
  const space = spaces.find((one) => one.id === name);
  if (!space) return null;
  const at = places.split('.').map(Number);
  if (at.length !== space.axes.length || space.axes.some(({ values }, k) => values[at[k]!] === undefined)) return null;
  return { id, space, choice: choiceOf(space.axes, { id: places, places: at }) };
}

/** An admissible option with its year. */
export interface Found extends Weighed {
  readonly route: Plan['route'];
  readonly capital: number;
  readonly wasteL: number;
  readonly widthMm: number;
}
export const foundOf = (id: string, plan: Plan, figures: Figures, advisories: readonly RuleId[]): Found => ({
  id,
  route: plan.route,
  annualCost: figures.annualCost,
  advisories: advisories.length,
  visitsPerYear: figures.visitsPerYear,
  winterMargin: figures.winterMargin,
  capital: figures.capital,
  wasteL: figures.wasteL,
  widthMm: figures.widthMm,
});

/** How many a rule pruned, and the one that came nearest to passing it. */
export interface Pruned {
  readonly count: number;
  readonly nearest: { readonly id: string; readonly rejection: Rejection };
}
export interface Sifted {
  readonly tried: number;
  readonly found: readonly Found[];
  readonly pruned: Readonly<Partial<Record<RuleId, Pruned>>>;
}

/** How far a figure is past its limit, whichever way. */
export const missBy = ({ value, limit }: Rejection): number =>
  value > limit ? value / Math.max(limit, 1e-9) : limit / Math.max(value, 1e-9);

const STEP = 200;

/**
 * Judges options one by one, yielding the share done.
 *
 * @param part of so many parts: every option whose place falls to it; parts joined are the whole
 */
export function* sift(spaces: readonly Space[], judging: Judging, part = 0, parts = 1): Generator<number, Sifted> {
  const found: Found[] = [];
  const pruned: Partial<Record<RuleId, { count: number; nearest: Pruned['nearest'] }>> = {};
  const all = candidateCount(spaces);
  let tried = 0;
  for (const { id, space, choice } of candidatesOfPart(spaces, part, parts)) {
    const plan = space.planOf(choice);
    tried += 1;
    if (tried % STEP === 0) yield Math.min(1, (tried * parts) / all);
    const judged = judgePlan(plan, judging);
    if (judged.admissible) {
      found.push(foundOf(id, plan, judged.figures, judged.advisories));
      continue;
    }
    const { rejection } = judged;
    const known = pruned[rejection.rule];
    if (!known) pruned[rejection.rule] = { count: 1, nearest: { id, rejection } };
    else {
      known.count += 1;
      if (missBy(rejection) < missBy(known.nearest.rejection)) known.nearest = { id, rejection };
    }
  }
  return { tried, found, pruned };
}

/**
 * Options of one part of the search: those of one membrane part go to one worker, so that it is solved once. Whoever has
 * least to do so far takes the next: every worker finds the same shares.
 */
function* candidatesOfPart(spaces: readonly Space[], part: number, parts: number): Generator<Candidate> {
  const loads = new Array<number>(parts).fill(0);
  const taken = new Map<string, number>();
  for (const block of blocks(spaces)) {
    if (parts > 1) {
      const first = within(block).next();
      if (first.done) continue;
      const { membrane } = first.value.space.planOf(first.value.choice);
      const key = membrane && membraneKey(membrane);
      const known = key ? taken.get(key) : undefined;
      const whose = known ?? loads.indexOf(Math.min(...loads));
      // A part is solved once, element by element; options behind it are arithmetic.
      loads[whose]! += OPTIONS_LOAD + (membrane && known === undefined ? elementCount(membrane.ranks) : 0);
      if (key) taken.set(key, whose);
      if (whose !== part) continue;
    }
    yield* within(block);
  }
}
/** What a block of options behind a membrane costs, in elements solved. */
const OPTIONS_LOAD = 0.2;

/** Joins parts of a search; the order in which they came does not matter. */
export function joined(parts: readonly Sifted[], spaces: readonly Space[]): Sifted {
  const order = new Map(spaces.map(({ id }, k) => [id, k]));
  const key = (id: string): number[] => [order.get(id.split(':')[0]!) ?? 0, ...id.split(':')[1]!.split('.').map(Number)];
  const found = parts
    .flatMap((part) => part.found.map((one) => ({ one, key: key(one.id) })))
    .sort((a, b) => byPlaces(a.key, b.key))
    .map(({ one }) => one);
  const pruned: Partial<Record<RuleId, Pruned>> = {};
  for (const part of parts)
    for (const [rule, more] of Object.entries(part.pruned) as [RuleId, Pruned][]) {
      const known = pruned[rule];
      const [a, b] = known ? [missBy(known.nearest.rejection), missBy(more.nearest.rejection)] : [Infinity, 0];
      const nearer =
        !known || b < a || (a === b && byPlaces(key(more.nearest.id), key(known.nearest.id)) < 0) ? more.nearest : known.nearest;
      pruned[rule] = { count: (known?.count ?? 0) + more.count, nearest: nearer };
    }
  return { tried: parts.reduce((sum, part) => sum + part.tried, 0), found, pruned };
}
const byPlaces = (a: readonly number[], b: readonly number[]): number => {
  for (let k = 0; k < Math.max(a.length, b.length); k++) if ((a[k] ?? 0) !== (b[k] ?? 0)) return (a[k] ?? 0) - (b[k] ?? 0);
  return 0;
};

/** Objectives, all so that less is better, and the step each is told in: cost, waste, visits, winter margin, width. */
const STEPS = [1, 500, 0.1, 0.05, 10] as const;
export const objectives = ({ annualCost, wasteL, visitsPerYear, winterMargin, widthMm }: Found): number[] => [
  annualCost,
  wasteL,
  visitsPerYear,
  -Math.min(MOST_MARGIN, winterMargin),
  widthMm,
];
export const vectorOf = (found: Found): number[] => inSteps(objectives(found), STEPS);

export interface Chosen {
  /** Places of what nothing beats, one of each that are alike. */
  readonly front: readonly { readonly place: number; readonly alike: number }[];
  readonly recommendation: Recommendation | null;
  /** Place nearest to the best of everything at once. */
  readonly nearestToIdeal: Knee | null;
  /** Knees of the two pictures: cost against waste, cost against visits. */
  readonly kneeOfWaste: Knee | null;
}

/** The front, the knee and the one to take, of what would do. */
export function choose(found: readonly Found[], tieBand = TIE_BAND): Chosen {
  const vectors = found.map(vectorOf);
  const front = paretoFront(vectors);
  const groups = new Map<string, number[]>();
  for (const place of front) {
    const key = vectors[place]!.join();
    const group = groups.get(key);
    if (group) group.push(place);
    else groups.set(key, [place]);
  }
  const shown = [...groups.values()].map((group) => ({
    place: group.reduce((best, place) => (found[place]!.annualCost < found[best]!.annualCost ? place : best)),
    alike: group.length - 1,
  }));
  const points = shown.map(({ place }) => objectives(found[place]!));
  const ideal = nearestToIdeal(points);
  const knee = kneeOfTwo(points.map(([cost, waste]) => [cost!, waste!]));
  const placed = (one: Knee | null): Knee | null => one && { ...one, point: shown[one.point]!.place };
  return { front: shown, recommendation: recommend(found, tieBand), nearestToIdeal: placed(ideal), kneeOfWaste: placed(knee) };
}
