import { enumerateOptions, spaceSize, type Axis, type Choice } from './axes';
import { inSteps, kneeOfTwo, nearestToIdeal, paretoFront, type Knee } from './front';
import { MOST_MARGIN, recommend, TIE_BAND, type Recommendation, type Weighed } from './recommend';

/** The search over all options: what would do, what is best, and why each other one is not (science of options, 2 and 5). */

/** A space of options as the search goes through it: its axes, and how many of the last of them leave what is solved as it is. */
export interface Searched {
  readonly id: string;
  readonly axes: readonly Axis[];
  readonly behind: number;
}
/** An option of one of the spaces; its id stays. */
export interface Candidate<S extends Searched = Searched> {
  readonly id: string;
  readonly space: S;
  readonly choice: Choice;
  /** The same for all options that differ behind their head alone, and for all that differ in their head alone. */
  readonly headKey: string;
  readonly tailKey: string;
}
/** What makes an option impossible. */
export interface Missed<Rule extends string = string> {
  readonly rule: Rule;
  readonly field: string;
  readonly value: number;
  readonly limit: number;
}
/** Whether an option would do, as the search is told: by whoever solves it. */
export type Sifting<S extends Searched, Rule extends string> = (
  one: Candidate<S>,
) => { readonly found: Found } | { readonly rejection: Missed<Rule> };

function choiceOf(axes: readonly Axis[], places: readonly number[]): Choice {
  const choice: Record<string, string | number | boolean> = {};
  for (let k = 0; k < axes.length; k++) choice[axes[k]!.id] = axes[k]!.values[places[k]!]!;
  return choice;
}
const headKeyOf = (space: Searched, places: readonly number[]): string =>
  `${space.id}:${places.map((place, k) => `${space.axes[k]!.id}=${space.axes[k]!.values[place]!}`).join()}`;

/** What options that share a head have in common: its places, joined, and its key. */
interface Ahead<S extends Searched> {
  readonly space: S;
  readonly places: readonly number[];
  readonly id: string;
  readonly key: string;
}
const aheadOf = <S extends Searched>(space: S, places: readonly number[]): Ahead<S> => ({
  space,
  places,
  id: `${space.id}:${places.join('.')}`,
  key: headKeyOf(space, places),
});

/** What comes after a head, by its places along the last axes; the same with the name of the space. */
interface Tail {
  readonly places: readonly number[];
  readonly id: string;
  readonly key: string;
}
const tailOf = (space: Searched, places: readonly number[]): Tail => {
  const id = places.join('.');
  return { places, id, key: `${space.id}:${id}` };
};

/** Options that share a head. */
interface BlockOfOptions<S extends Searched> {
  readonly ahead: Ahead<S>;
  readonly tails: readonly Tail[];
}
function* blocks<S extends Searched>(spaces: readonly S[]): Generator<BlockOfOptions<S>> {
  for (const space of spaces) {
    const cut = Math.max(0, space.axes.length - space.behind);
    const tails = Array.from(enumerateOptions(space.axes.slice(cut)), ({ places }) => tailOf(space, places));
    for (const { places } of enumerateOptions(space.axes.slice(0, cut))) yield { ahead: aheadOf(space, places), tails };
  }
}

/** An option at some places; its id and what it takes along each axis are told when somebody asks, for most are pruned. */
class Placed<S extends Searched> implements Candidate<S> {
  constructor(
    private readonly ahead: Ahead<S>,
    private readonly tail: Tail,
  ) {}
  get space(): S {
    return this.ahead.space;
  }
  get headKey(): string {
    return this.ahead.key;
  }
  get tailKey(): string {
    return this.tail.key;
  }
  get id(): string {
    const { ahead, tail } = this;
    return ahead.places.length === 0 || tail.places.length === 0 ? `${ahead.id}${tail.id}` : `${ahead.id}.${tail.id}`;
  }
  get choice(): Choice {
    return choiceOf(this.ahead.space.axes, [...this.ahead.places, ...this.tail.places]);
  }
}

/** All options of some spaces, in their order. */
export function* candidates<S extends Searched>(spaces: readonly S[]): Generator<Candidate<S>> {
  for (const { ahead, tails } of blocks(spaces)) for (const tail of tails) yield new Placed(ahead, tail);
}
export const candidateCount = (spaces: readonly Searched[]): number => spaces.reduce((sum, { axes }) => sum + spaceSize(axes), 0);

/** An option by its id; null where there is none. */
export function candidate<S extends Searched>(spaces: readonly S[], id: string): Candidate<S> | null {
  const [name, places = ''] = id.split(':');
  const space = spaces.find((one) => one.id === name);
  if (!space) return null;
  const at = places.split('.').map(Number);
  if (at.length !== space.axes.length || space.axes.some(({ values }, k) => values[at[k]!] === undefined)) return null;
  const cut = Math.max(0, space.axes.length - space.behind);
  return new Placed(aheadOf(space, at.slice(0, cut)), tailOf(space, at.slice(cut)));
}

/** An admissible option with its year. */
export interface Found extends Weighed {
  readonly route: string;
  readonly capital: number;
  readonly wasteL: number;
  readonly widthMm: number;
}

/** How many a rule pruned, and the one that came nearest to passing it. */
export interface Pruned<Rule extends string = string> {
  readonly count: number;
  readonly nearest: { readonly id: string; readonly rejection: Missed<Rule> };
}
export interface Sifted<Rule extends string = string> {
  readonly tried: number;
  readonly found: readonly Found[];
  readonly pruned: Readonly<Partial<Record<Rule, Pruned<Rule>>>>;
}

/** How far a figure is past its limit, whichever way. */
export const missBy = ({ value, limit }: Missed): number => (value > limit ? value / Math.max(limit, 1e-9) : limit / Math.max(value, 1e-9));

const STEP = 200;

/**
 * Sifts options one by one, yielding the share done.
 *
 * @param part of so many parts: every option whose head falls to it, so that it is solved once; parts joined are the whole
 */
export function* sift<S extends Searched, Rule extends string>(
  spaces: readonly S[],
  sifting: Sifting<S, Rule>,
  part = 0,
  parts = 1,
): Generator<number, Sifted<Rule>> {
  const found: Found[] = [];
  const pruned: Partial<Record<Rule, Pruned<Rule>>> = {};
  const all = candidateCount(spaces);
  let tried = 0;
  let place = 0;
  for (const { ahead, tails } of blocks(spaces)) {
    if (place++ % parts !== part) continue;
    for (const tail of tails) {
      const one = new Placed(ahead, tail);
      tried += 1;
      if (tried % STEP === 0) yield Math.min(1, (tried * parts) / all);
      const judged = sifting(one);
      if ('found' in judged) {
        found.push(judged.found);
        continue;
      }
      const { rejection } = judged;
      const known = pruned[rejection.rule];
      const nearer = !known || missBy(rejection) < missBy(known.nearest.rejection);
      pruned[rejection.rule] = { count: (known?.count ?? 0) + 1, nearest: nearer ? { id: one.id, rejection } : known.nearest };
    }
  }
  return { tried, found, pruned };
}

/** Joins parts of a search; the order in which they came does not matter. */
export function joined<Rule extends string>(parts: readonly Sifted<Rule>[], spaces: readonly Searched[]): Sifted<Rule> {
  const order = new Map(spaces.map(({ id }, k) => [id, k]));
  const key = (id: string): number[] => [order.get(id.split(':')[0]!) ?? 0, ...id.split(':')[1]!.split('.').map(Number)];
  const found = parts
    .flatMap((part) => part.found.map((one) => ({ one, key: key(one.id) })))
    .sort((a, b) => byPlaces(a.key, b.key))
    .map(({ one }) => one);
  const pruned: Partial<Record<Rule, Pruned<Rule>>> = {};
  for (const part of parts)
    for (const [rule, more] of Object.entries(part.pruned) as [Rule, Pruned<Rule>][]) {
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
