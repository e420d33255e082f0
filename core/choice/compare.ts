import type { BoughtSet, System } from '../file';
import { fail, ok, type Outcome } from '../quantity';
import { solveTrain } from '../train';
import { once, remembered, type Answers } from './answers';
import { trainOf } from './build';
import { compareUnderDoubt, doubtsOf, type Compared } from './certainty';
import { figuresOf, type Figures } from './figures';
import { comparisonOf, type Comparison } from './forSystem';
import { judgePlan } from './judge';
import { physicsOn } from './onTap';
import type { Judging } from './judging';
import type { Plan, Route } from './plan';
import { figuresOfBought, planToday } from './present';
import { whyNot, type WhyNot } from './recommend';
import type { Rejection, RuleId } from './rules';
import { detailOf, titleOf } from './says';
import { candidate, candidates, choose, foundOf, missBy, vectorOf, type Chosen, type Found, type Sifted } from './search';
import { FURTHEST_STRENGTH, turns, type InputTurn, type Kept } from './sensitivity';

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
export interface Shown {
  readonly chosen: Chosen;
  readonly rows: readonly Row[];
  /** The present train in the pictures; null where it makes nothing. */
  readonly today: Found | null;
  /** What nothing lets through: by each rule the smallest change that would let one option in. */
  readonly smallest: readonly { readonly rejection: Rejection; readonly title: string }[];
}

export const TODAY = 'today';

/** The comparison as its rows are solved: every slice of the membrane, where the search makes do with fewer. */
const SHOWN_SLICES = 10;
const inFull = (system: System): Outcome<Comparison> => comparisonOf(system, new Map(), { slices: SHOWN_SLICES });

/** A plan by the id it is shown under: an option's, or today's. */
function planBy(id: string, system: System, { spaces, feed, meanC, judging }: Comparison): Plan | null {
  if (id === TODAY) {
    const solved = solveTrain(system.train, system.source, { ...feed, temperatureC: meanC });
    return solved.ok ? planToday(system, solved.value, judging) : null;
  }
  const one = candidate(spaces, id);
  return one && one.space.planOf(one.choice);
}

function rowOf(id: string, role: Row['role'], plan: Plan, judging: Judging, units: System['units']): Row | null {
  const judged = judgePlan(plan, judging);
  const figures = judged.admissible ? judged.figures : figuresOf(plan, judging);
  return (
    figures && {
      id,
      role,
      title: titleOf(plan),
      detail: detailOf(plan, units),
      route: plan.route,
      figures,
      rejection: judged.admissible ? null : judged.rejection,
      advisories: judged.admissible ? judged.advisories : [],
    }
  );
}

const boughtRow = (set: BoughtSet, judging: Judging): Row => ({
  id: set.id,
  role: 'bought',
  title: set.name,
  detail: `${set.commonSpares ? 'spares to be had anywhere' : 'spares of its maker only'} · ${set.support ? 'maker supports it' : 'no support'}`,
  route: 'bought',
  figures: figuresOfBought(set, judging),
  rejection: null,
  advisories: [],
});

/** One option side by side; null where there is none of that id. */
export function rowBy(id: string, role: Row['role'], system: System): Row | null {
  const laid = inFull(system);
  if (!laid.ok) return null;
  const set = system.choice.bought.find((one) => one.id === id);
  if (set) return boughtRow(set, laid.value.judging);
  const plan = planBy(id, system, laid.value);
  return plan && rowOf(id, role, plan, laid.value.judging, system.units);
}

/** What is shown of a search: front, recommendation, and up to four rows side by side, each solved in full. */
export function shownOf(system: System, sifted: Sifted): Outcome<Shown> {
  const laid = inFull(system);
  if (!laid.ok) return laid;
  const full = laid.value;
  const chosen = choose(sifted.found, system.choice.tieBand);
  const todayPlan = planBy(TODAY, system, full);
  const today = todayPlan && rowOf(TODAY, 'today', todayPlan, full.judging, system.units);
  const rows: Row[] = today ? [today] : [];
  const add = (id: string | undefined, role: Row['role']): void => {
    if (id === undefined || rows.some((row) => row.id === id)) return;
    const plan = planBy(id, system, full);
    const row = plan && rowOf(id, role, plan, full.judging, system.units);
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
  rows.push(...system.choice.bought.map((set) => boughtRow(set, full.judging)));
  return ok({
    chosen,
    rows,
    today: todayPlan && today ? foundOf(TODAY, todayPlan, today.figures, today.advisories) : null,
    smallest: chosen.recommendation ? [] : smallestChanges(full, sifted),
  });
}
export const MOST_ROWS = 4;

/** By each rule that pruned, the option that only this one keeps out and that comes nearest to passing. */
function smallestChanges(comparison: Comparison, { pruned }: Sifted): Shown['smallest'] {
  const best = new Map<RuleId, { readonly miss: number; readonly rejection: Rejection; readonly title: string }>();
  for (const { space, choice } of candidates(comparison.spaces)) {
    const plan = space.planOf(choice);
    const judged = judgePlan(plan, comparison.judging);
    if (judged.admissible) continue;
    const { rejection } = judged;
    const miss = missBy(rejection);
    if (miss >= (best.get(rejection.rule)?.miss ?? Infinity)) continue;
    if (judgePlan(plan, comparison.judging, [rejection.rule]).admissible)
      best.set(rejection.rule, { miss, rejection, title: titleOf(plan) });
  }
  return (Object.keys(pruned) as RuleId[]).flatMap((rule) => best.get(rule) ?? []);
}

/** Why an option is not the one to take. */
export type Why = { readonly kind: 'pruned'; readonly rejection: Rejection; readonly others: readonly RuleId[] } | WhyNot;
export function whyNotThis(id: string, system: System, sifted: Sifted): Why | null {
  const place = sifted.found.findIndex((one) => one.id === id);
  if (place >= 0) return whyNot(sifted.found, sifted.found.map(vectorOf), id, system.choice.tieBand);
  const comparison = comparisonOf(system);
  if (!comparison.ok) return null;
  const plan = planBy(id, system, comparison.value);
  if (!plan) return null;
  const judged = judgePlan(plan, comparison.value.judging);
  if (judged.admissible) {
    const found = [...sifted.found, foundOf(id, plan, judged.figures, judged.advisories)];
    return whyNot(found, found.map(vectorOf), id, system.choice.tieBand);
  }
  // What would stand in its way besides, were this rule to give.
  const waived: RuleId[] = [judged.rejection.rule];
  for (;;) {
    const next = judgePlan(plan, comparison.value.judging, waived);
    if (next.admissible || waived.includes(next.rejection.rule)) break;
    waived.push(next.rejection.rule);
  }
  return { kind: 'pruned', rejection: judged.rejection, others: waived.slice(1) };
}

/** What would change the answer, input by input; empty where there is none. */
export function* turnsOf(system: System, recommended: string, known?: Map<string, Answers>): Generator<number, Outcome<InputTurn[]>> {
  const laid = comparisonOf(system, known);
  if (!laid.ok) return laid;
  const { spaces, judging } = laid.value;
  const plans: Plan[] = [];
  const kept: Kept[] = [];
  for (const { space, choice } of candidates(spaces)) {
    const plan = space.planOf(choice);
    plans.push(plan);
    const judged = judgePlan(plan, judging);
    if (judged.admissible) kept.push({ plan, figures: judged.figures });
    if (plans.length % 500 === 0) yield 0;
  }
  const own = planBy(recommended, system, laid.value);
  if (!own) return ok([]);
  return ok(
    yield* turns(
      kept,
      plans,
      judging,
      {
        litres: (factor) => {
          const at = comparisonOf(system, known, { litres: factor });
          return at.ok ? { ...at.value.judging, asked: judging.asked } : judging;
        },
        strength: strengthAt(system, laid.value),
      },
      own.route,
      system.choice.tieBand,
    ),
  );
}

/** Membranes on a tap so many times as strong: solved at the ends of the range, and read between by the logarithm of the strength. */
function strengthAt(system: System, { judging }: Comparison): (factor: number) => Comparison['judging'] {
  const end = (strength: number): Comparison['judging'] => {
    const at = comparisonOf(system, new Map(), { strength });
    return at.ok ? at.value.judging : judging;
  };
  const ends = [end(1 / FURTHEST_STRENGTH), judging, end(FURTHEST_STRENGTH)] as const;
  return (factor) => {
    const at = comparisonOf(system, new Map(), { strength: factor });
    if (!at.ok) return judging;
    const u = Math.log(factor) / Math.log(FURTHEST_STRENGTH);
    // A parabola through three points, in the logarithms.
    const weights = [(u * (u - 1)) / 2, 1 - u * u, (u * (u + 1)) / 2] as const;
    const blend = <T extends object>(three: readonly (T | null)[]): T | null => {
      if (three.some((one) => one === null)) return null;
      const [first] = three as readonly T[];
      return Object.fromEntries(
        Object.keys(first!).map((key) => {
          const values = (three as readonly Record<string, number>[]).map((one) => one[key]!);
          const byLog = values.every((value) => value > 0);
          const mixed = values.reduce((sum, value, i) => sum + weights[i]! * (byLog ? Math.log(value) : value), 0);
          return [key, byLog ? Math.exp(mixed) : mixed];
        }),
      ) as T;
    };
    // Each part is read between the ends once.
    const asked = remembered((membrane) => {
      const all = ends.map((one) => one.asked(membrane));
      return {
        coldOld: once(() => blend(all.map((one) => one.coldOld()))),
        coldNew: once(() => blend(all.map((one) => one.coldNew()))),
        warmNew: once(() => blend(all.map((one) => one.warmNew()))),
        warmOld: once(() => blend(all.map((one) => one.warmOld()))),
        year: once(() => blend(all.map((one) => one.year()))),
      };
    });
    return { ...at.value.judging, asked };
  };
}

/** How sure it is that the first of some costs less than each other. */
export function surenessOf(system: System, ids: readonly string[]): Outcome<Compared> {
  const laid = comparisonOf(system);
  if (!laid.ok) return laid;
  const plans = ids.map((id) => planBy(id, system, laid.value));
  if (plans.some((plan) => plan === null))
    return fail('id', ids.join(), 'options of this comparison', 'One of these options is not there any more.');
  return compareUnderDoubt(plans as Plan[], laid.value.judging, doubtsOf(system));
}

/** The train an option stands for, on this system. */
export function trainBy(id: string, system: System): Outcome<System['train']> {
  const laid = comparisonOf(system);
  if (!laid.ok) return laid;
  const plan = id === TODAY ? null : planBy(id, system, laid.value);
  if (!plan) return fail('id', id, 'an option of this comparison', 'This option is not there any more: what is tried has changed.');
  const { feed, meanC, sea } = laid.value;
  const held = plan.membrane?.recovery ? (plan.membrane.pump?.heldFeedLPerH ?? null) : null;
  const mean =
    plan.membrane && held !== null
      ? physicsOn(system, feed, sea)(plan.membrane, { temperatureC: meanC, factors: { water: 1, salt: 1 }, strength: 1 })
      : null;
  return ok(trainOf(plan, { system, feed, sea, meanC, recycleLPerH: mean && held ? Math.max(0, Math.round(held - mean.feedLPerH)) : 0 }));
}

/** What an option is called; null where there is none of that id. */
export function titleBy(id: string, spaces: Comparison['spaces']): string | null {
  const one = candidate(spaces, id);
  return one && titleOf(one.space.planOf(one.choice));
}
