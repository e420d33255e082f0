import type { BoughtSet, System, Train } from '../file';
import { waterCosts } from '../ledger';
import { runToEnd } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import type { TrainUse } from '../stage';
import { benchOf, type Bench } from './bench';
import { compareUnderDoubt, doubtsOf, type Compared } from './certainty';
import { laidOnce, type Heads } from './heads';
import { quickLook, todayLook } from './look';
import { capitalRecovery } from './money';
import {
  againstSite,
  figuresOf,
  judgeOption,
  judgeSolved,
  OF_HEAD,
  routeOfLook,
  type Figures,
  type Judged,
  type Look,
  type Rejection,
  type RuleId,
} from './option';
import { whyNot, type WhyNot } from './recommend';
import { detailOf, titleOf } from './says';
import { candidate, candidates, choose, missBy, sift, vectorOf, type Candidate, type Chosen, type Found, type Sifted } from './search';
import { turns, type InputTurn } from './sensitivity';
import type { Route, Space } from './spaces';
import { takenByAll } from './taken';

/** One comparison from the search to what is shown: the rows side by side, why, what would change it, and how sure it is. */

/** An option as it is shown, solved in full. */
export interface Row {
  readonly id: string;
  readonly role: 'today' | 'recommended' | 'cheapest' | 'leastWaste' | 'fewestVisits' | 'bought' | 'asked';
  readonly title: string;
  readonly detail: string;
  readonly route: Route | 'bought';
  readonly figures: Figures;
  readonly rejection: Rejection | null;
  readonly advisories: readonly RuleId[];
}
export type OptionsSifted = Sifted<RuleId>;
export interface Shown {
  readonly chosen: Chosen;
  readonly rows: readonly Row[];
  /** The present train in the pictures; null where it makes nothing. */
  readonly today: Found | null;
  /** What nothing lets through: by each rule the smallest change that would let one option in. */
  readonly smallest: readonly { readonly rejection: Rejection; readonly title: string }[];
}

export const TODAY = 'today';
type Of = Candidate<Space>;

/** An option looked at quickly, as the search does. */
export const lookAt = (one: Of, bench: Bench): Look => quickLook(laidOnce(one, bench.rows), bench, one.headKey);

export const foundOf = (id: string, look: Look, figures: Figures, advisories: readonly RuleId[]): Found => ({
  id,
  route: routeOfLook(look),
  annualCost: figures.annualCost,
  advisories: advisories.length,
  visitsPerYear: figures.visitsPerYear,
  winterMargin: figures.winterMargin,
  capital: figures.capital,
  wasteL: figures.wasteL,
  widthMm: figures.widthMm,
});

/** Sifts a bench's options, or a part of them. */
export function siftOptions(bench: Bench, part = 0, parts = 1): Generator<number, OptionsSifted> {
  const failed = new Map<string, Rejection>();
  return sift<Space, RuleId>(
    bench.spaces,
    (one) => {
      const laid = laidOnce(one, bench.rows);
      const site = { taken: takenByAll([laid.head, laid.tail]), wasteToProduct: laid.target?.wasteToProduct ?? null };
      const rejection = againstSite(site, bench) ?? failed.get(one.headKey);
      if (rejection) return { rejection };
      const look = quickLook(laid, bench, one.headKey);
      const judged = judgeSolved(look, bench);
      if (judged.admissible) return { found: foundOf(one.id, look, judged.figures, judged.advisories) };
      if (OF_HEAD.has(judged.rejection.rule)) failed.set(one.headKey, judged.rejection);
      return { rejection: judged.rejection };
    },
    part,
    parts,
  );
}

/** An option or today's train solved whole, by the id it is shown under. */
function fullBy(id: string, bench: Bench, use: TrainUse): Look | null {
  if (id === TODAY) return todayLook(bench, use);
  const one = candidate(bench.spaces, id);
  return one && (lookAt(one, bench).sure?.() ?? null);
}

function rowOf(id: string, role: Row['role'], look: Look, bench: Bench): Row | null {
  const judged: Judged = judgeOption(look, bench);
  const figures = judged.admissible ? judged.figures : figuresOf(look, bench);
  const { stages } = look.system.train;
  return (
    figures && {
      id,
      role,
      title: titleOf(stages),
      detail: detailOf(stages, bench.system.units),
      route: routeOfLook(look),
      figures,
      rejection: judged.admissible ? null : judged.rejection,
      advisories: judged.admissible ? judged.advisories : [],
    }
  );
}

/** A year of a set that is bought whole: its own figures, on this job's water and prices. */
export function figuresOfBought(set: BoughtSet, { need, prices, system: { choice } }: Bench): Figures {
  const made = need.litresPerYear;
  const wasteL = made * set.wasteToProduct;
  const kWh = (made / 1000) * set.kWhPerM3;
  const runs = {
    prefilters: set.partsPerYear,
    energy: kWh * prices.powerPerKWh,
    ...waterCosts({ feedL: made + wasteL, wasteL, usedL: choice.wasteUsedShare * wasteL }, prices),
  };
  const running = Object.values(runs).reduce((sum, amount) => sum + amount, 0);
  const visits = set.visitsPerYear * prices.visit;
  const capital = set.price * capitalRecovery(choice.rate, choice.horizonYears);
  return {
    annualCost: running + visits + capital,
    running,
    capital: set.price,
    lines: { ...runs, visits, capital },
    parts: [],
    resin: null,
    feedL: made + wasteL,
    wasteL,
    kWh,
    visitsPerYear: set.visitsPerYear,
    changesPerYear: 0,
    winterMargin: need.litresPerDay > 0 ? (set.productLPerH * need.hoursPerDay) / need.litresPerDay : Infinity,
    widthMm: 0,
    hours: set.productLPerH > 0 ? made / set.productLPerH : 0,
  };
}

const boughtRow = (set: BoughtSet, bench: Bench): Row => ({
  id: set.id,
  role: 'bought',
  title: set.name,
  detail: `${set.commonSpares ? 'spares to be had anywhere' : 'spares of its maker only'} · ${set.support ? 'maker supports it' : 'no support'}`,
  route: 'bought',
  figures: figuresOfBought(set, bench),
  rejection: null,
  advisories: [],
});

/** One option side by side; null where there is none of that id. */
export function rowBy(id: string, role: Row['role'], system: System, use: TrainUse = {}): Row | null {
  const bench = benchOf(system);
  if (!bench.ok) return null;
  const set = system.choice.bought.find((one) => one.id === id);
  if (set) return boughtRow(set, bench.value);
  const look = fullBy(id, bench.value, use);
  return look && rowOf(id, role, look, bench.value);
}

/** What is shown of a search: front, recommendation, and up to four rows side by side, each solved in full. */
export function shownOf(bench: Bench, sifted: OptionsSifted, use: TrainUse = {}): Shown {
  const { system } = bench;
  const chosen = choose(sifted.found, system.choice.tieBand);
  const now = todayLook(bench, use);
  const today = rowOf(TODAY, 'today', now, bench);
  const rows: Row[] = today ? [today] : [];
  const add = (id: string | undefined, role: Row['role']): void => {
    if (id === undefined || rows.some((row) => row.id === id)) return;
    const look = fullBy(id, bench, use);
    const row = look && rowOf(id, role, look, bench);
    if (row) rows.push(row);
  };
  const front = chosen.front.map(({ place }) => sifted.found[place]!);
  const least = (of: (one: Found) => number): string | undefined =>
    front.reduce<Found | null>((best, one) => (!best || of(one) < of(best) ? one : best), null)?.id;
  add(chosen.recommendation?.id, 'recommended');
  add(chosen.recommendation?.cheapest, 'cheapest');
  add(
    least(({ wasteL }) => wasteL),
    'leastWaste',
  );
  if (rows.length < MOST_ROWS)
    add(
      least(({ visitsPerYear }) => visitsPerYear),
      'fewestVisits',
    );
  rows.push(...system.choice.bought.map((set) => boughtRow(set, bench)));
  return {
    chosen,
    rows,
    today: today ? foundOf(TODAY, now, today.figures, today.advisories) : null,
    smallest: chosen.recommendation ? [] : smallestChanges(bench, sifted),
  };
}
export const MOST_ROWS = 4;

/** By each rule that pruned, the option that only this one keeps out and that comes nearest to passing. */
function smallestChanges(bench: Bench, { pruned }: OptionsSifted): Shown['smallest'] {
  const best = new Map<RuleId, { readonly miss: number; readonly rejection: Rejection; readonly title: string }>();
  for (const one of candidates(bench.spaces)) {
    const look = lookAt(one, bench);
    const judged = judgeOption(look, bench);
    if (judged.admissible) continue;
    const { rejection } = judged;
    const miss = missBy(rejection);
    if (miss >= (best.get(rejection.rule)?.miss ?? Infinity)) continue;
    if (judgeOption(look, bench, [rejection.rule]).admissible)
      best.set(rejection.rule, { miss, rejection, title: titleOf(look.system.train.stages) });
  }
  return (Object.keys(pruned) as RuleId[]).flatMap((rule) => best.get(rule) ?? []);
}

/** Why an option is not the one to take. */
export type Why = { readonly kind: 'pruned'; readonly rejection: Rejection; readonly others: readonly RuleId[] } | WhyNot;
export function whyNotThis(id: string, system: System, sifted: OptionsSifted): Why | null {
  if (sifted.found.some((one) => one.id === id)) return whyNot(sifted.found, sifted.found.map(vectorOf), id, system.choice.tieBand);
  const bench = benchOf(system);
  const one = bench.ok ? candidate(bench.value.spaces, id) : null;
  if (!bench.ok || !one) return null;
  const look = lookAt(one, bench.value);
  const judged = judgeOption(look, bench.value);
  if (judged.admissible) {
    const found = [...sifted.found, foundOf(id, look, judged.figures, judged.advisories)];
    return whyNot(found, found.map(vectorOf), id, system.choice.tieBand);
  }
  // What would stand in its way besides, were this rule to give.
  const waived: RuleId[] = [judged.rejection.rule];
  for (;;) {
    const next = judgeOption(look, bench.value, waived);
    if (next.admissible || waived.includes(next.rejection.rule)) break;
    waived.push(next.rejection.rule);
  }
  return { kind: 'pruned', rejection: judged.rejection, others: waived.slice(1) };
}

/** What would change the answer, input by input; empty where there is none. */
export function* turnsOf(system: System, recommended: string, heads?: Heads): Generator<number, Outcome<InputTurn[]>> {
  const laid = benchOf(system, heads);
  if (!laid.ok) return laid;
  const own = candidate(laid.value.spaces, recommended);
  return own ? ok(yield* turns(laid.value, own, lookAt)) : ok([]);
}

/** How sure it is that the first of some costs less than each other. */
export function surenessOf(system: System, ids: readonly string[], use: TrainUse = {}): Outcome<Compared> {
  const bench = benchOf(system);
  if (!bench.ok) return bench;
  const figures = ids.map((id) => {
    const look = fullBy(id, bench.value, use);
    return look && figuresOf(look, bench.value);
  });
  if (figures.some((one) => one === null))
    return fail('id', ids.join(), 'options of this comparison', 'One of these options is not there any more.');
  return compareUnderDoubt(figures as Figures[], bench.value.prices, doubtsOf(system));
}

/** The train an option stands for on this system, exactly as it was judged: its membrane set, uses and probes kept. */
export function trainBy(id: string, system: System): Outcome<Train> {
  const bench = benchOf(system);
  if (!bench.ok) return bench;
  const one = id === TODAY ? null : candidate(bench.value.spaces, id);
  return one
    ? ok(lookAt(one, bench.value).system.train)
    : fail('id', id, 'an option of this comparison', 'This option is not there any more: what is tried has changed.');
}

/** What an option is called; null where there is none of that id. */
export function titleBy(id: string, spaces: readonly Space[]): string | null {
  const one = candidate(spaces, id);
  if (!one) return null;
  const { head, tail } = one.space.lay(one.choice);
  return titleOf([...head, ...tail]);
}

/** The whole search on one thread, for whoever waits for it. */
export const searchOf = (bench: Bench): OptionsSifted => runToEnd(siftOptions(bench));
