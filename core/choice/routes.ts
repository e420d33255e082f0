import { demandLPerDay, productDemand } from '../goal';
import type { System, Train } from '../file';
import { perM3, type Costs } from '../ledger';
import { timesPerYear, trainYear } from '../life';
import { findRoot } from '../numeric';
import { DAYS_PER_YEAR, ok, type Outcome } from '../quantity';
import { newStage, type Stage, type TrainUse } from '../stage';
import { quickTrain, wornTrain } from '../train';
import { strengthened } from '../water';
import { benchOf, type Bench } from './bench';
import { once } from './heads';
import { todayLook, trainWith } from './look';
import { figuresOf, type Figures, type Look } from './option';
import { takenByAll } from './taken';

/**
 * Resin alone, or a membrane first: the same train with and without its membrane, or with a usual one where it has none.
 * Both are costed by the ledger, with what each takes to buy: like with like.
 */

/** A way to the water, by the cubic metre. */
export interface RouteCost {
  readonly lines: Costs;
  readonly totalPerM3: number;
  readonly resinLPerWeek: number;
}
export interface RoutesCompared {
  /** The membrane is the train's own; otherwise a usual one that makes what is needed. */
  readonly own: boolean;
  readonly alone: RouteCost;
  readonly first: RouteCost;
  readonly litresPerWeek: number;
  /** Litres a week from which the membrane is the cheaper on this tap; null where it never is. */
  readonly turnLPerWeek: number | null;
  /** Strength, as a factor on this tap, from which it is at this volume; or which of the two is on any tap. */
  readonly turnStrength: number | 'membrane' | 'resin';
  /** Litres a week at which both cost the same, by strength as a factor on this tap. */
  readonly curve: readonly (readonly [factor: number, litresPerWeek: number])[];
}

/** Stages that serve a membrane alone. */
const OF_MEMBRANE: readonly Stage['kind'][] = ['membrane', 'pump', 'inhibitor', 'softener'];
/** Membranes that are usual before resin, the smallest first. */
const USUAL: readonly (readonly Stage[])[] = [
  [newStage('membrane', 'membrane')],
  [{ ...newStage('membrane', 'membrane'), elementClass: 'household150', arrangement: 'parallel' }],
  [
    { ...newStage('pump', 'pump'), pump: { kind: 'booster', riseBar: 24, openFlowLPerH: 4000, bypassBar: 8 } },
    { ...newStage('membrane', 'membrane'), elementClass: 'in4Low', valve: { kind: 'recovery', recovery: 0.5 } },
  ],
];
/** Weekly litres and strengths searched, by steps in proportion. */
const LITRES = [5, 5e6] as const;
const FACTORS = [0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8, 1, 1.6, 2.6, 4, 7, 12] as const;
const SCAN = 40;

/** The train at another strength of the tap, solved quickly: its year alone is asked for. */
const atStrength = (bench: Bench, train: Train, factor: number): Look => ({
  system: { ...bench.system, train },
  rows: [train.stages],
  taken: takenByAll([train.stages]),
  wasteToProduct: null,
  owned: false,
  unitOn: () => null,
  on: () => null,
  year: once(() => {
    const feed = strengthened(bench.feed, factor);
    const found = trainYear({ train }, (water) => quickTrain(train, bench.system.source, water), feed, bench.seasons);
    return found.ok ? found.value : null;
  }),
  goesOn: 1,
  eased: () => 1,
  ofUnit: (_, of) => of(),
  shared: (_, of) => of(),
  sure: null,
});

function membraneBefore(bench: Bench): Train | null {
  const { system, need } = bench;
  const { stages } = system.train;
  const at = stages.findIndex(({ kind }) => kind === 'resin');
  const ahead = stages.slice(0, at);
  const carbon = ahead.some(({ kind }) => kind === 'carbon') ? [] : [newStage('carbon', 'carbon-before')];
  for (const usual of USUAL) {
    const train = trainWith(system, [...ahead, ...carbon, ...usual, ...stages.slice(at)], null);
    const solved = quickTrain({ ...train, branches: [] }, system.source, bench.feed);
    if (solved.ok && solved.value.productLPerH * need.hoursPerDay >= need.litresPerDay) return train;
  }
  return null;
}

/** What a look costs at some litres a week. */
const costAt = (look: Look, bench: Bench, litresPerWeek: number): Figures | null =>
  figuresOf(look, { ...bench, need: { ...bench.need, litresPerYear: (litresPerWeek * DAYS_PER_YEAR) / 7 } });

/** Where the first of two becomes the dearer, going up; null where it never does. */
function turnOf(saved: (at: number) => number | null, from: number, to: number): number | null {
  const at = (k: number): number => from * (to / from) ** (k / SCAN);
  let before = saved(from);
  if (before !== null && before >= 0) return from;
  for (let k = 1; k <= SCAN; k++) {
    const now = saved(at(k));
    if (before !== null && now !== null && before < 0 && now >= 0)
      return Math.exp(findRoot((x) => saved(Math.exp(x)) ?? 0, Math.log(at(k - 1)), Math.log(at(k)), 1e-3)!.x);
    before = now;
  }
  return null;
}

/** @returns null where there is no resin, or no membrane that makes what is needed */
export function routesOf(system: System, use: TrainUse): Outcome<RoutesCompared> | null {
  const resin = system.train.stages.some(({ kind }) => kind === 'resin');
  const laid = benchOf(system);
  if (!laid.ok) return laid;
  const bench = laid.value;
  const own = system.train.stages.some(({ kind }) => kind === 'membrane');
  const worn = wornTrain(system.train, system.source.turbidityNTU, use);
  const firstTrain = own ? worn : membraneBefore(bench);
  if (!resin || !firstTrain) return null;
  const aloneTrain = own
    ? trainWith(
        system,
        worn.stages.filter(({ kind }) => !OF_MEMBRANE.includes(kind)),
        null,
      )
    : worn;
  // The train as it stands is costed as every other page costs it; and what it took to buy, as the other.
  const today: Look = { ...todayLook(bench, use), owned: false };
  const here = (train: Train): Look => (train === worn ? today : atStrength(bench, train, 1));
  const saves =
    (alone: Look, first: Look) =>
    (litresPerWeek: number): number | null => {
      const [a, b] = [costAt(alone, bench, litresPerWeek), costAt(first, bench, litresPerWeek)];
      return a && b ? a.annualCost - b.annualCost : null;
    };
  const [alone, first] = [here(aloneTrain), here(firstTrain)];
  const litresPerWeek = 7 * demandLPerDay(productDemand(system.goal));
  const [aloneNow, firstNow] = [costAt(alone, bench, litresPerWeek), costAt(first, bench, litresPerWeek)];
  if (!aloneNow || !firstNow) return null;
  const priced = (figures: Figures): RouteCost => {
    const made = { productL: bench.need.litresPerYear };
    const lines = Object.fromEntries(Object.entries(figures.lines).map(([line, amount]) => [line, perM3(amount, made)])) as Costs;
    return { lines, totalPerM3: perM3(figures.annualCost, made), resinLPerWeek: resinOf(figures) };
  };
  const strengths = FACTORS.map((factor) => ({
    factor,
    saved: factor === 1 ? saves(alone, first) : saves(atStrength(bench, aloneTrain, factor), atStrength(bench, firstTrain, factor)),
  }));
  const curve = strengths.flatMap(({ factor, saved }) => {
    const at = turnOf(saved, ...LITRES);
    return at === null ? [] : [[factor, at] as const];
  });
  return ok({
    own,
    alone: priced(aloneNow),
    first: priced(firstNow),
    litresPerWeek,
    turnLPerWeek: turnOf(saves(alone, first), ...LITRES),
    turnStrength: strengthTurn(strengths.map(({ factor, saved }) => [factor, saved(litresPerWeek)])),
    curve,
  });
}

/** Where the membrane begins to save, between strengths worked out. */
function strengthTurn(saved: readonly (readonly [factor: number, saves: number | null])[]): RoutesCompared['turnStrength'] {
  const told = saved.filter((one): one is readonly [number, number] => one[1] !== null);
  const k = told.findIndex(([, amount]) => amount >= 0);
  if (k <= 0) return k === 0 ? 'membrane' : 'resin';
  const [[f0, s0], [f1, s1]] = [told[k - 1]!, told[k]!];
  return f0 * (f1 / f0) ** (-s0 / (s1 - s0));
}

/** Litres of resin a week: by the part it is changed with. */
const resinOf = ({ parts }: Figures): number =>
  parts.reduce((sum, { line, life }) => {
    const litres = life.pays.reduce((all, stage) => all + (stage.kind === 'resin' ? stage.volumeL : 0), 0);
    return line === 'resin' ? sum + (7 * litres * timesPerYear(life)) / DAYS_PER_YEAR : sum;
  }, 0);
