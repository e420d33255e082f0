import { findRoot } from '../numeric';
import { fail, L_PER_US_GALLON, ok, outOfRange, type Outcome } from '../quantity';
import { balanced, eachSolute, type Water } from '../water';
import type { MembraneUnit, UnitConditions, UnitFlows } from './model';
import { solveUnitFlows, type NearPoint } from './operation';
import { permeabilityOf } from './derive';
import { marchProtons, protonsMatter } from './protons';
import { restrictorFlowLPerH } from './restrictor';
import { SPECIES_ROWS, speciesOfWater, waterOfSpecies, type FeedSpecies } from './species';
import { waterFactor } from './temperature';

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
  /** What each rank's vessels leave at their product ports, rank by rank; empty for an element alone. */
  readonly portWaters: readonly Water[];
  /** What meets the membrane: the feed, or its mixture with the recycle. */
  readonly mixedFeed: Water;
  /** Share of the salt held back, on feed and mass of dissolved ions; null when nothing is made. */
  readonly rejection: number | null;
}

/** Solves a unit on a water at its temperature. */
export function solveMembraneUnit(
  unit: MembraneUnit,
  water: Water,
  at: Omit<UnitConditions, 'temperatureC'>,
  near?: NearPoint,
): Outcome<UnitSolution> {
  const species = speciesOfWater(water);
  if (!species.ok) return species;
  const feed = species.value;
  const flows = solveUnitFlows(unit, feed, { ...at, temperatureC: water.temperatureC }, undefined, near);
  if (!flows.ok) return flows;
  const { permeateMmolL, concentrateMmolL, mixedFeedMmolL, recycleLPerH, ranks } = flows.value;
  const ports = unit.ranks.length > 1 || unit.ranks.some(({ vessels }) => vessels > 1) ? ranks : [];
  return ok({
    ...flows.value,
    permeate: permeateMmolL && waterOfSpecies(feed.ids, permeateMmolL, water.temperatureC),
    portWaters: ports.flatMap((rank) => (rank.permeateMmolL ? [waterOfSpecies(feed.ids, rank.permeateMmolL, water.temperatureC)] : [])),
    concentrate: waterOfSpecies(feed.ids, concentrateMmolL, water.temperatureC),
    mixedFeed: recycleLPerH > 0 ? waterOfSpecies(feed.ids, mixedFeedMmolL, water.temperatureC) : water,
    rejection: permeateMmolL && ionRejection(feed, permeateMmolL),
  });
}

/**
 * A solved unit with hydroxide and hydrogen crossing its skin, where that shows: what it makes and leaves, at the point
 * already found. See `protons.ts`.
 *
 * @param feed what is led to it, without what is led back
 */
export function withProtons(unit: MembraneUnit, solved: UnitSolution, feed: Water, at: Omit<UnitConditions, 'temperatureC'>): UnitSolution {
  if (!solved.permeate || !protonsMatter(solved.mixedFeed)) return solved;
  const permeability = permeabilityOf(unit.row, at.law);
  const permeate =
    permeability.ok && marchProtons(unit.row, unit.ranks, permeability.value, unit.factors, at.law, solved.mixedFeed, { ...solved, ...at });
  return permeate ? { ...solved, permeate, concentrate: leftBehind(solved, feed, permeate) } : solved;
}

/** What a permeate leaves of the feed, by balance: nothing is made or lost between two marches. */
function leftBehind({ feedLPerH, permeateLPerH, concentrateLPerH }: UnitSolution, feed: Water, permeate: Water): Water {
  const left = (fed: number, made: number): number => Math.max(0, (feedLPerH * fed - permeateLPerH * made) / concentrateLPerH);
  const mgL = eachSolute((solute) => left(feed.mgL[solute], permeate.mgL[solute]));
  return balanced(mgL, left(feed.carbonMmolL, permeate.carbonMmolL), feed.temperatureC);
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
  if (unit.valve)
    return fail(
      'targetWasteToProduct',
      targetWasteToProduct,
      'a unit with a restrictor',
      'The waste of this unit is held by a valve: turn the valve, there is nothing to cut.',
    );
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

/** Bores between which one is looked for, mm. */
const BORES_MM = { low: 0.2, high: 3 } as const;

/** Bore of a restrictor of this length with which a unit runs at a waste : product ratio, mm; null where no bore does. */
export function boreForRatio(unit: MembraneUnit, feed: FeedSpecies, at: UnitConditions, wasteToProduct: number): number | null {
  const miss = (lnBore: number): number => {
    const solved = solveUnitFlows({ ...unit, restrictor: { ...unit.restrictor, boreMm: Math.exp(lnBore) } }, feed, at);
    return solved.ok && solved.value.wasteToProduct !== null ? Math.log(solved.value.wasteToProduct / wasteToProduct) : Number.NaN;
  };
  const near = Math.log(unit.restrictor.boreMm);
  const root = findRoot(miss, near - 0.3, near + 0.3, 1e-6) ?? findRoot(miss, Math.log(BORES_MM.low), Math.log(BORES_MM.high), 1e-6);
  return root && Math.exp(root.x);
}
