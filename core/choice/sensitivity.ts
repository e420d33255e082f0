import type { Bench } from './bench';
import { drawingMore, onStronger } from './bench';
import { paretoFront } from './front';
import { capitalRecovery } from './money';
import { judgeOption, type Figures, type Look } from './option';
import { candidates, type Candidate } from './search';
import { laidOnce } from './heads';
import { routeOf, type Route, type Space } from './spaces';
import { takenByAll } from './taken';
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
/** Looked at from a fifth to five times; a tap from a third to three times as strong. */
export const FURTHEST = 5;
export const FURTHEST_STRENGTH = 3;
/** How near a turn is closed in on: by money it costs nothing, by litres and strength every step is solved. */
const WITHIN = { money: 1e-3, solved: 0.02 } as const;

type Of = Candidate<Space>;
type LookAt = (one: Of, bench: Bench) => Look;

/** What a year of an option is made of, by what it is paid for: amounts, not money. */
interface Amounts {
  readonly route: Route;
  readonly of: readonly number[];
}
const MOVED = ['resin', 'water', 'sewer', 'visits', 'energy'] as const;
const amountsOf = (route: Route, { lines, annualCost, capital }: Figures): Amounts => {
  const moved = MOVED.map((line) => lines[line] ?? 0);
  const rest = annualCost - (lines.capital ?? 0) - moved.reduce((sum, amount) => sum + amount, 0);
  return { route, of: [capital, ...moved, rest] };
};
const PRICE_OF: Readonly<Partial<Record<TurningInput, (typeof MOVED)[number]>>> = {
  resinPrice: 'resin',
  waterPrice: 'water',
  sewerPrice: 'sewer',
  visitPrice: 'visits',
  energyPrice: 'energy',
};

/** Prices and years move nothing but money: whoever costs more in every amount never wins, whatever they are. */
function byMoney(all: readonly Amounts[], { system: { choice } }: Bench): (input: TurningInput, factor: number) => Map<Route, number> {
  const thin = [...new Set(all.map(({ route }) => route))].flatMap((route) => {
    const own = all.filter((one) => one.route === route);
    return paretoFront(own.map(({ of }) => of)).map((place) => own[place]!);
  });
  return (input, factor) => {
    const share = capitalRecovery(choice.rate, choice.horizonYears * (input === 'horizon' ? factor : 1));
    const factors = [share, ...MOVED.map((line) => (PRICE_OF[input] === line ? factor : 1)), 1];
    const best = new Map<Route, number>();
    for (const { route, of } of thin) {
      const cost = of.reduce((sum, amount, k) => sum + amount * factors[k]!, 0);
      best.set(route, Math.min(best.get(route) ?? Infinity, cost));
    }
    return best;
  };
}

/** Options of a route that may win where more is drawn or the tap is stronger: so many of the cheapest at each end and as it is. */
const SHORT_LIST = 12;
/** Options judged between two words of how far it is. */
const STEP = 500;

interface Kept {
  readonly one: Of;
  readonly route: Route;
  readonly figures: Figures;
}
/** What would do, judged one by one. */
function* judgedAll(bench: Bench, lookAt: LookAt): Generator<number, Kept[]> {
  const kept: Kept[] = [];
  let tried = 0;
  for (const one of candidates(bench.spaces)) {
    const look = lookAt(one, bench);
    const judged = judgeOption(look, bench);
    if (judged.admissible) kept.push({ one, route: routeOf(look.taken), figures: judged.figures });
    if (++tried % STEP === 0) yield 0;
  }
  return kept;
}

/** The cheapest few of each route. */
export function shortList(kept: readonly Kept[]): Of[] {
  const routes = new Map<Route, Kept[]>();
  for (const one of kept) routes.set(one.route, [...(routes.get(one.route) ?? []), one]);
  return [...routes.values()].flatMap((own) =>
    own
      .toSorted((a, b) => a.figures.annualCost - b.figures.annualCost)
      .slice(0, SHORT_LIST)
      .map(({ one }) => one),
  );
}

/** The cheapest of each route among some options. */
export function cheapestByRoute(some: readonly Of[], bench: Bench, lookAt: LookAt): Map<Route, number> {
  const best = new Map<Route, number>();
  for (const one of some) {
    const look = lookAt(one, bench);
    const judged = judgeOption(look, bench);
    const route = routeOf(look.taken);
    if (judged.admissible) best.set(route, Math.min(best.get(route) ?? Infinity, judged.figures.annualCost));
  }
  return best;
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
  within: number,
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
  const range = { low: 1 / furthest, high: furthest, scale: 'geometric' } as const;
  const found: Turnings = turningsOf(ahead, 1, range, (factor) => best(factor).get(own) ?? 1, within);
  const told = (turning: Turning | 'none', beyond: number): InputTurn['below'] =>
    turning === 'none' ? null : { ...turning, wins: cheapestOther(best(turning.at * beyond), own)[0] };
  return { input, below: told(found.below, 1 - 2 * within), above: told(found.above, 1 + 2 * within) };
}

/** Inputs one after the other, each turn as it is found, for the route of one option. */
export function* turns(bench: Bench, recommended: Of, lookAt: LookAt): Generator<number, InputTurn[]> {
  const { system } = bench;
  const kept = yield* judgedAll(bench, lookAt);
  const { head, tail } = laidOnce(recommended, bench.rows);
  const own = routeOf(takenByAll([head, tail]));
  const money = byMoney(
    kept.map(({ route, figures }) => amountsOf(route, figures)),
    bench,
  );
  const benchAt = (input: 'litres' | 'strength', factor: number): Bench =>
    input === 'litres' ? drawingMore(bench, factor) : onStronger(bench, factor);
  const now = shortList(kept);
  const short: Record<'litres' | 'strength', readonly Of[]> = { litres: now, strength: now };
  for (const input of ['litres', 'strength'] as const) {
    const furthest = input === 'strength' ? FURTHEST_STRENGTH : FURTHEST;
    const all = new Map(now.map((one) => [one.id, one]));
    for (const factor of [1 / furthest, furthest]) {
      for (const one of shortList(yield* judgedAll(benchAt(input, factor), lookAt))) all.set(one.id, one);
    }
    short[input] = [...all.values()];
  }
  /** Judged anew where more is drawn, or the tap is stronger; heads of the same water are known. */
  const solved = (input: 'litres' | 'strength'): ((factor: number) => Map<Route, number>) => {
    const known = new Map<number, Map<Route, number>>();
    return (factor) => {
      const hit = known.get(factor);
      if (hit) return hit;
      const best = cheapestByRoute(short[input], benchAt(input, factor), lookAt);
      known.set(factor, best);
      return best;
    };
  };
  const found: InputTurn[] = [];
  for (const [k, input] of TURNING_INPUTS.entries()) {
    const isSolved = input === 'litres' || input === 'strength';
    const best = isSolved ? solved(input) : (factor: number) => money(input, factor);
    const furthest = input === 'strength' ? FURTHEST_STRENGTH : FURTHEST;
    found.push(turnOf(input, best, own, system.choice.tieBand, furthest, isSolved ? WITHIN.solved : WITHIN.money));
    yield (k + 1) / TURNING_INPUTS.length;
  }
  return found.sort((a, b) => nearness(a) - nearness(b));
}

/** How far an input has to move, as the logarithm of a factor; the nearer of its two sides. */
export const nearness = ({ below, above }: InputTurn): number =>
  Math.min(below ? Math.abs(Math.log(below.at)) : Infinity, above ? Math.abs(Math.log(above.at)) : Infinity);
