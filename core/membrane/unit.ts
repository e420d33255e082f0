import { findRoot, findRootNear } from '../numeric';
import { fail, firstError, L_PER_US_GALLON, ok, outOfRange, type Outcome } from '../quantity';
import type { Water } from '../water';
import type { ElementRow } from './classes';
import { permeabilityOf } from './derive';
import { marchElement, marchSetup, SLICES, type FoulingFactors, type MarchResult, type MarchSetup } from './march';
import { massMgL, type OsmoticLaw } from './osmosis';
import { restrictorFlowLPerH, restrictorPressureBar, type Restrictor } from './restrictor';
import { waterFactor } from './temperature';
import { SPECIES_ROWS, speciesOfWater, waterOfSpecies, type FeedSpecies } from './species';

/** One rank of a membrane unit: so many vessels side by side, so many elements end to end in each. */
export interface VesselRank {
  readonly vessels: number;
  readonly elementsPerVessel: number;
}

/** A membrane unit with its waste restrictor. Ranks follow one another on the concentrate; permeates join. */
export interface MembraneUnit {
  readonly row: ElementRow;
  readonly ranks: readonly VesselRank[];
  readonly factors: FoulingFactors;
  readonly restrictor: Restrictor;
}

/** What the unit is given. */
export interface UnitConditions {
  readonly linePressureBar: number;
  /** Pressure the stages before the unit take per L/h of feed; they are laminar, so it is a slope. */
  readonly prefilterBarPerLPerH: number;
  readonly permeatePressureBar: number;
  readonly temperatureC: number;
  readonly law: OsmoticLaw;
}

/** State of one rank, per element where it matters. */
export interface RankState {
  readonly fluxLmh: number;
  readonly recoveryPerElement: number;
  readonly concentrateLPerMin: number;
  readonly pressureDropBar: number;
  /** Highest ratio of salt at the wall to salt in the bulk. */
  readonly betaMax: number;
}

/** The operating point in flows and amounts. */
export interface UnitFlows {
  readonly feedLPerH: number;
  readonly feedPressureBar: number;
  readonly permeateLPerH: number;
  readonly concentrateLPerH: number;
  readonly concentratePressureBar: number;
  readonly recovery: number;
  readonly wasteToProduct: number | null;
  readonly ranks: readonly RankState[];
  readonly noProduction: boolean;
  /** How the unknown flow was found. */
  readonly iterations: number;
  /** Pressure left unexplained at the drain, bar. */
  readonly residualBar: number;
  /** mmol/L in the feed's species order; permeate null when there is none. */
  readonly permeateMmolL: readonly number[] | null;
  readonly concentrateMmolL: readonly number[];
}

interface UnitRun {
  readonly permeateLPerH: number;
  readonly permeateMmolH: Float64Array;
  readonly concentrateLPerH: number;
  readonly concentrateMmolL: ArrayLike<number>;
  readonly concentratePressureBar: number;
  readonly ranks: readonly RankState[];
}

/** Below a millibar no gauge shows anything and nothing flows worth computing. */
const LEAST_PRESSURE_BAR = 1e-3;

/** Runs all ranks at a feed flow and pressure; null when a vessel runs dry. */
function runRanks(
  setup: MarchSetup,
  ranks: readonly VesselRank[],
  feedLPerH: number,
  feedBar: number,
  permeateBar: number,
): UnitRun | null {
  let flow = feedLPerH;
  let concentration: ArrayLike<number> = setup.feed.mmolL;
  let pressure = feedBar;
  let permeateLPerH = 0;
  const permeateMmolH = new Float64Array(concentration.length);
  const states: RankState[] = [];
  for (const rank of ranks) {
    let perVessel = flow / rank.vessels;
    const inletBar = pressure;
    const vesselFeed = perVessel;
    let betaMax = 1;
    let made = 0;
    for (let element = 0; element < rank.elementsPerVessel; element++) {
      const run: MarchResult | null = marchElement(setup, perVessel, concentration, pressure, permeateBar);
      if (!run) return null;
      perVessel = run.concentrateLPerH;
      concentration = run.concentrateMmolL;
      pressure = run.concentratePressureBar;
      made += run.permeateLPerH;
      betaMax = Math.max(betaMax, run.betaMax);
      for (let i = 0; i < permeateMmolH.length; i++) permeateMmolH[i]! += run.permeateMmolH[i]! * rank.vessels;
    }
    permeateLPerH += made * rank.vessels;
    flow = perVessel * rank.vessels;
    states.push({
      fluxLmh: made / (rank.elementsPerVessel * setup.row.areaM2),
      recoveryPerElement: 1 - (1 - made / vesselFeed) ** (1 / rank.elementsPerVessel),
      concentrateLPerMin: perVessel / 60,
      pressureDropBar: (inletBar - pressure) / rank.elementsPerVessel,
      betaMax,
    });
  }
  return {
    permeateLPerH,
    permeateMmolH,
    concentrateLPerH: flow,
    concentrateMmolL: concentration,
    concentratePressureBar: pressure,
    ranks: states,
  };
}

function conditionsError(unit: MembraneUnit, at: UnitConditions): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange('linePressureBar', 'Line pressure', at.linePressureBar, 0, 100, 'bar'),
    outOfRange('temperatureC', 'Temperature', at.temperatureC, 0.1, 60, '°C'),
    outOfRange('permeatePressureBar', 'Back-pressure on the product', at.permeatePressureBar, 0, 100, 'bar'),
    outOfRange('boreMm', 'Restrictor bore', unit.restrictor.boreMm, 0.2, 3, 'mm'),
    outOfRange('lengthMm', 'Restrictor length', unit.restrictor.lengthMm, 10, 2000, 'mm'),
    outOfRange('factors.water', 'Membrane output factor', unit.factors.water, 0.05, 5),
    outOfRange('factors.salt', 'Membrane salt factor', unit.factors.salt, 0.05, 100),
    ...unit.ranks.flatMap((rank, i) => [
      outOfRange(`ranks[${i}].vessels`, 'Number of vessels', rank.vessels, 1, 100),
      outOfRange(`ranks[${i}].elementsPerVessel`, 'Elements in a vessel', rank.elementsPerVessel, 1, 10),
    ]),
  );
}

/**
 * Finds the flow at which the pressure left at the drain end is what the restrictor takes.
 *
 * Pressure at the concentrate end falls and the restrictor's demand rises with feed flow, so the
 * difference has one root on a bracket that always exists; running dry counts as too little flow.
 */
export function solveUnitFlows(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, slices = SLICES): Outcome<UnitFlows> {
  const invalid = conditionsError(unit, at);
  if (invalid) return { ok: false, error: invalid };
  const permeability = permeabilityOf(unit.row, at.law);
  if (!permeability.ok) return permeability;
  const setup = marchSetup(unit.row, permeability.value, unit.factors, feed, at.temperatureC, at.law, slices);
  const mass = massMgL(feed.ids);
  const pressureAt = (q: number): number => at.linePressureBar - at.prefilterBarPerLPerH * q;
  let last: { q: number; run: UnitRun | null } = { q: -1, run: null };
  const run = (q: number): UnitRun | null => {
    if (last.q !== q) last = { q, run: runRanks(setup, unit.ranks, q, pressureAt(q), at.permeatePressureBar) };
    return last.run;
  };
  const spare = (q: number): number => {
    const result = run(q);
    if (!result) return at.linePressureBar;
    return (
      result.concentratePressureBar -
      restrictorPressureBar(unit.restrictor, result.concentrateLPerH, at.temperatureC, mass(result.concentrateMmolL))
    );
  };

  if (at.linePressureBar < LEAST_PRESSURE_BAR) return ok(standstill(feed, 0, at));
  const drain = restrictorFlowLPerH(unit.restrictor, at.linePressureBar, at.temperatureC, mass(feed.mmolL));
  if (!drain.ok) return drain;
  const area = unit.ranks.reduce((sum, rank) => sum + rank.vessels * rank.elementsPerVessel, 0) * unit.row.areaM2;
  const drive = Math.max(0, at.linePressureBar - at.permeatePressureBar);
  const produced = setup.membrane.aLmhPerBar * area * drive;
  // The whole line pressure on the restrictor and on the membrane cannot be exceeded.
  const most = Math.min(drain.value + produced, at.prefilterBarPerLPerH > 0 ? at.linePressureBar / at.prefilterBarPerLPerH : Infinity);
  const guess = Math.min(0.95 * (drain.value + 0.95 * produced), 0.95 * most);
  // Turbulent restrictor: its pressure goes with flow to the power 1.8.
  const slope = (-1.8 * at.linePressureBar) / drain.value;
  const root = findRootNear(spare, guess, slope, 1e-6 * most, most, 1e-7 * most) ?? findRoot(spare, 1e-6 * most, most, 1e-10 * most);
  if (!root) {
    return fail(
      'linePressureBar',
      at.linePressureBar,
      'a pressure and restrictor that let water through',
      'No flow balances this line pressure and this restrictor.',
    );
  }
  const solved = run(root.x);
  if (!solved)
    return fail(
      'lengthMm',
      unit.restrictor.lengthMm,
      'a restrictor that passes more',
      'The membrane takes all the feed: the restrictor passes too little.',
    );
  if (solved.permeateLPerH <= 0) return ok(standstill(feed, root.x, at));
  return ok({
    feedLPerH: root.x,
    feedPressureBar: pressureAt(root.x),
    permeateLPerH: solved.permeateLPerH,
    concentrateLPerH: solved.concentrateLPerH,
    concentratePressureBar: solved.concentratePressureBar,
    recovery: solved.permeateLPerH / root.x,
    wasteToProduct: solved.concentrateLPerH / solved.permeateLPerH,
    ranks: solved.ranks,
    noProduction: false,
    iterations: root.iterations,
    residualBar: root.residual,
    permeateMmolL: Array.from(solved.permeateMmolH, (n) => n / solved.permeateLPerH),
    concentrateMmolL: Array.from(solved.concentrateMmolL),
  });
}

/** A unit with water in it and nothing made: not an error, but a state to show. */
function standstill(feed: FeedSpecies, drainLPerH: number, at: UnitConditions): UnitFlows {
  return {
    feedLPerH: drainLPerH,
    feedPressureBar: at.linePressureBar - at.prefilterBarPerLPerH * drainLPerH,
    permeateLPerH: 0,
    concentrateLPerH: drainLPerH,
    concentratePressureBar: Math.max(0, at.linePressureBar - at.prefilterBarPerLPerH * drainLPerH),
    recovery: 0,
    wasteToProduct: null,
    ranks: [],
    noProduction: true,
    iterations: 0,
    residualBar: 0,
    permeateMmolL: null,
    concentrateMmolL: Array.from(feed.mmolL),
  };
}

/** Flows to start an iteration from: nominal output scaled to pressure and temperature, restrictor at line pressure. */
export function roughFlows(unit: MembraneUnit, linePressureBar: number, temperatureC: number): { feedLPerH: number; productLPerH: number } {
  const elements = unit.ranks.reduce((sum, rank) => sum + rank.vessels * rank.elementsPerVessel, 0);
  const nominal = (unit.row.nominalFlowGpd * L_PER_US_GALLON) / 24;
  const productLPerH = Math.max(
    0.1,
    (elements * nominal * unit.factors.water * waterFactor(temperatureC) * linePressureBar) / unit.row.testPressureBar,
  );
  const drain = restrictorFlowLPerH(unit.restrictor, linePressureBar, temperatureC);
  return { feedLPerH: productLPerH + (drain.ok ? Math.max(1, drain.value) : 50), productLPerH };
}

/** A solved unit with its waters. */
export interface UnitSolution extends UnitFlows {
  readonly permeate: Water | null;
  readonly concentrate: Water;
  /** Share of the salt held back, on feed and mass of dissolved ions; null when nothing is made. */
  readonly rejection: number | null;
}

/** Solves a unit on a water at its temperature. */
export function solveMembraneUnit(unit: MembraneUnit, water: Water, at: Omit<UnitConditions, 'temperatureC'>): Outcome<UnitSolution> {
  const species = speciesOfWater(water);
  if (!species.ok) return species;
  const feed = species.value;
  const flows = solveUnitFlows(unit, feed, { ...at, temperatureC: water.temperatureC });
  if (!flows.ok) return flows;
  const { permeateMmolL, concentrateMmolL } = flows.value;
  return ok({
    ...flows.value,
    permeate: permeateMmolL && waterOfSpecies(feed.ids, permeateMmolL, water.temperatureC),
    concentrate: waterOfSpecies(feed.ids, concentrateMmolL, water.temperatureC),
    rejection: permeateMmolL && ionRejection(feed, permeateMmolL),
  });
}

/** Rejection of charged mass: what a meter before and after would report. */
function ionRejection(feed: FeedSpecies, permeateMmolL: readonly number[]): number | null {
  let before = 0;
  let after = 0;
  feed.ids.forEach((id, i) => {
    const row = SPECIES_ROWS[id];
    if (row.charge === 0) return;
    before += row.gPerMol * feed.mmolL[i]!;
    after += row.gPerMol * permeateMmolL[i]!;
  });
  return before === 0 ? null : 1 - after / before;
}

/**
 * Length of restrictor at which the whole unit stands at a wanted waste : product ratio.
 * Never scaled by hand: cutting also lowers the pressure along the membrane and its salt.
 *
 * @returns mm, or an error naming `targetWasteToProduct` when no length between 10 mm and five times the
 *   present one gives it
 */
export function lengthForRatio(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, targetWasteToProduct: number): Outcome<number> {
  const invalid = outOfRange('targetWasteToProduct', 'Wanted waste : product', targetWasteToProduct, 0.2, 50);
  if (invalid) return { ok: false, error: invalid };
  const ratioAt = (lengthMm: number): number => {
    const solved = solveUnitFlows({ ...unit, restrictor: { ...unit.restrictor, lengthMm } }, feed, at);
    return solved.ok && solved.value.wasteToProduct !== null ? solved.value.wasteToProduct : Number.NaN;
  };
  const shortest = 10;
  const longest = Math.min(2000, 5 * unit.restrictor.lengthMm);
  const miss = (lnLength: number): number => Math.log(ratioAt(Math.exp(lnLength)) / targetWasteToProduct);
  const atShortest = miss(Math.log(shortest));
  const atLongest = miss(Math.log(longest));
  const root = findRoot(miss, Math.log(shortest), Math.log(longest), 1e-7, atShortest, atLongest);
  if (root) return ok(Math.exp(root.x));
  if (!Number.isFinite(atShortest) || !Number.isFinite(atLongest)) {
    return fail(
      'targetWasteToProduct',
      targetWasteToProduct,
      'a unit that makes water',
      'This unit makes no water, so it has no ratio to set.',
    );
  }
  const reach = (m: number): string => (targetWasteToProduct * Math.exp(m)).toFixed(1);
  return fail(
    'targetWasteToProduct',
    targetWasteToProduct,
    `${reach(atLongest)} to ${reach(atShortest)} with this bore`,
    atShortest < 0
      ? `Even 1 cm of this restrictor gives only ${reach(atShortest)} : 1. Fit a larger one.`
      : `Even ${Math.round(longest / 10)} cm of this restrictor gives ${reach(atLongest)} : 1. Fit a smaller one.`,
  );
}
