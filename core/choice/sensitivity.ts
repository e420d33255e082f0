import { lifeYears } from './answers';
import { boundedFront, paretoFront } from './front';
import { judgePlan } from './judge';
import type { Judging } from './judging';
import { capitalRecovery } from './money';
import type { Figures } from './figures';
import { capitalOf, type Plan, type Route } from './plan';
import { turningsOf, type Turning, type Turnings } from './turning';

/** What would change the answer: each input moved until another route wins (science of options, 6). */

export const TURNING_INPUTS = [
  'litres',
  'strength',
  'horizon',
  'resinPrice',
  'waterPrice',
  'sewerPrice',
  'visitPrice',
  'energyPrice',
] as const;
export type TurningInput = (typeof TURNING_INPUTS)[number];
/** Where an input turns the answer, as a factor on what was entered, and the route that wins beyond. */
export interface InputTurn {
  readonly input: TurningInput;
  readonly below: (Turning & { readonly wins: Route | null }) | null;
  readonly above: (Turning & { readonly wins: Route | null }) | null;
}
/** Looked at from a fifth to five times. */
export const FURTHEST = 5;
const WITHIN = 1e-3;

/** What a year of an option is made of, by what it is paid for: amounts, not money. */
interface Amounts {
  readonly route: Route;
  readonly capital: number;
  readonly resin: number;
  readonly waterM3: number;
  readonly sewerM3: number;
  readonly visits: number;
  readonly energy: number;
  readonly rest: number;
}
const amountsOf = (route: Route, figures: Figures, resinPart: boolean): Amounts => {
  const { lines } = figures;
  const resin = resinPart ? (lines.resin ?? 0) : 0;
  const moved = ['capital', 'water', 'sewer', 'visits', 'energy'] as const;
  const rest = figures.annualCost - moved.reduce((sum, line) => sum + (lines[line] ?? 0), 0) - resin;
  return {
    route,
    capital: figures.capital,
    resin,
    waterM3: lines.water ?? 0,
    sewerM3: lines.sewer ?? 0,
    visits: lines.visits ?? 0,
    energy: lines.energy ?? 0,
    rest,
  };
};

/** An option that would do, with its plan: what the search keeps for the questions after it. */
export interface Kept {
  readonly plan: Plan;
  readonly figures: Figures;
}

/** Prices and years move nothing but money: whoever costs more in every amount never wins, whatever they are. */
function byMoney(kept: readonly Kept[], judging: Judging): (input: TurningInput, factor: number) => Map<Route, number> {
  const all = kept.map(({ plan, figures }) => amountsOf(plan.route, figures, plan.resin !== null));
  const routes = [...new Set(all.map(({ route }) => route))];
  const thin = routes.flatMap((route) => {
    const own = all.filter((one) => one.route === route);
    const front = paretoFront(
      own.map(({ capital, resin, waterM3, sewerM3, visits, energy, rest }) => [capital, resin, waterM3, sewerM3, visits, energy, rest]),
    );
    return front.map((place) => own[place]!);
  });
  return (input, factor) => {
    const share = capitalRecovery(judging.rate, judging.horizonYears * (input === 'horizon' ? factor : 1));
    const of = (name: TurningInput): number => (input === name ? factor : 1);
    const best = new Map<Route, number>();
    for (const one of thin) {
      const cost =
        one.capital * share +
        one.resin * of('resinPrice') +
        one.waterM3 * of('waterPrice') +
        one.sewerM3 * of('sewerPrice') +
        one.visits * of('visitPrice') +
        one.energy * of('energyPrice') +
        one.rest;
      best.set(one.route, Math.min(best.get(one.route) ?? Infinity, cost));
    }
    return best;
  };
}

/** What a plan costs a year at the least, whatever is drawn: what is bought, and what is changed by the calendar. */
export function leastCost(
  plan: Plan,
  { prices, ageing, horizonYears, rate }: Pick<Judging, 'prices' | 'ageing' | 'horizonYears' | 'rate'>,
): number {
  const upkeep = plan.upkeep.reduce((sum, { part, count, timesAYear }) => sum + timesAYear * count * prices.part(part), 0);
  const visits = Math.max(0, ...plan.upkeep.map(({ timesAYear }) => timesAYear)) * prices.visit;
  const change = plan.membraneChange;
  const membrane = change ? (change.count * prices.part(change.part)) / (change.years ?? lifeYears(ageing)) : 0;
  return capitalOf(plan, prices) * capitalRecovery(rate, horizonYears) + upkeep + visits + membrane;
}

/** The cheapest of each route: a plan that costs more at the least than one that would do is not judged. */
export function cheapestByRoute(plans: BoundedPlans, judging: Judging): Map<Route, number> {
  const best = new Map<Route, number>();
  for (const [route, { own, bounds }] of plans) {
    const costs = new Map<number, number>();
    const { front } = boundedFront(bounds, (place) => {
      const judged = judgePlan(own[place]!, judging);
      if (!judged.admissible) return null;
      costs.set(place, judged.figures.annualCost);
      return [judged.figures.annualCost];
    });
    if (front.length > 0) best.set(route, costs.get(front[0]!)!);
  }
  return best;
}
/** Plans by their route, each with the least it can cost. */
export type BoundedPlans = ReadonlyMap<Route, { readonly own: readonly Plan[]; readonly bounds: readonly (readonly number[])[] }>;
export function bounded(plans: readonly Plan[], judging: Judging): BoundedPlans {
  const routes = new Map<Route, { own: Plan[]; bounds: number[][] }>();
  for (const plan of plans) {
    const known = routes.get(plan.route) ?? { own: [], bounds: [] };
    known.own.push(plan);
    known.bounds.push([leastCost(plan, judging)]);
    routes.set(plan.route, known);
  }
  return routes;
}

/** When more is drawn, or the tap is stronger, everything is judged anew. */
function byJudging(plans: BoundedPlans, judgingAt: (factor: number) => Judging): (factor: number) => Map<Route, number> {
  const known = new Map<number, Map<Route, number>>();
  return (factor) => {
    const hit = known.get(factor);
    if (hit) return hit;
    const best = cheapestByRoute(plans, judgingAt(factor));
    known.set(factor, best);
    return best;
  };
}

const cheapestOther = (best: ReadonlyMap<Route, number>, own: Route): readonly [Route | null, number] => {
  let found: readonly [Route | null, number] = [null, Infinity];
  for (const [route, cost] of best) if (route !== own && cost < found[1]) found = [route, cost];
  return found;
};

function turnOf(
  input: TurningInput,
  best: (factor: number) => Map<Route, number>,
  own: Route,
  tieBand: number,
  furthest: number,
): InputTurn {
  // A dearer route that was taken for its sturdiness stands as long as it costs within the band.
  const [, rival] = cheapestOther(best(1), own);
  const grace = rival < (best(1).get(own) ?? Infinity) ? 1 + tieBand : 1;
  const ahead = (factor: number): number => {
    const at = best(factor);
    const other = grace * cheapestOther(at, own)[1];
    const mine = at.get(own) ?? Infinity;
    // Where neither would do, nothing is said of either.
    return mine === Infinity && other === Infinity ? 1 : other - mine;
  };
  const found: Turnings = turningsOf(
    ahead,
    1,
    { low: 1 / furthest, high: furthest, scale: 'geometric' },
    (factor) => best(factor).get(own) ?? 1,
    WITHIN,
  );
  const told = (turning: Turning | 'none', beyond: number): InputTurn['below'] =>
    turning === 'none' ? null : { ...turning, wins: cheapestOther(best(turning.at * beyond), own)[0] };
  return { input, below: told(found.below, 1 - 2 * WITHIN), above: told(found.above, 1 + 2 * WITHIN) };
}

/**
 * Inputs one after the other, each turn as it is found.
 *
 * @param kept what would do, with its figures
 * @param plans every plan of the spaces
 * @param at the judging with more or less drawn, or with a tap so many times as strong
 * @param own route of the recommended one
 * @param tieBand share within which it may cost more
 */
export function* turns(
  kept: readonly Kept[],
  plans: readonly Plan[],
  judging: Judging,
  at: { readonly litres: (factor: number) => Judging; readonly strength: (factor: number) => Judging },
  own: Route,
  tieBand: number,
): Generator<number, InputTurn[]> {
  const money = byMoney(kept, judging);
  const sorted = bounded(plans, judging);
  const found: InputTurn[] = [];
  for (const [k, input] of TURNING_INPUTS.entries()) {
    const best =
      input === 'litres'
        ? byJudging(sorted, at.litres)
        : input === 'strength'
          ? byJudging(sorted, at.strength)
          : (factor: number) => money(input, factor);
    found.push(turnOf(input, best, own, tieBand, input === 'strength' ? FURTHEST_STRENGTH : FURTHEST));
    yield (k + 1) / TURNING_INPUTS.length;
  }
  return found.sort((a, b) => nearness(a) - nearness(b));
}
/** A tap is looked at from a third to three times as strong: membranes are solved at the ends and read between. */
export const FURTHEST_STRENGTH = 3;

/** How far an input has to move, as the logarithm of a factor; the nearer of its two sides. */
export const nearness = ({ below, above }: InputTurn): number =>
  Math.min(below ? Math.abs(Math.log(below.at)) : Infinity, above ? Math.abs(Math.log(above.at)) : Infinity);
