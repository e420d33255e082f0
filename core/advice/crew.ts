import { bedCapacityEq, ionicLoad, polishedWater } from '../exchange';
import type { System } from '../file';
import { ecOfShownPpm, productLPerDay } from '../goal';
import { resinFloor, stageBed, type StageOf } from '../stage';
import { dryResidueMgL, settleWater } from '../water';
import { fillingOf, priceList } from '../ledger';
import type { TrainReport } from './report';

/** What a crew's own limit comes to: when the resin is changed, what that costs, and what stays on the glass. */
export interface CrewRow {
  /** What the meter may read at the brush. */
  readonly ppm: number;
  /** Litres to that reading; null where new resin never comes to it. */
  readonly litres: number | null;
  /** Resin for a cubic metre, and for a week, in the job's currency. */
  readonly resinPerM3: number;
  readonly resinPerWeek: number;
  /** Mineral that dries on a square metre, mg: over the life of the resin, and at its worst before it is changed. */
  readonly filmMgPerM2: { readonly mean: number; readonly worst: number };
}

/** The limits crews argue about (common practice). */
export const CREW_LIMITS = [0, 10, 20] as const;
/** Water left on a pane after rinsing: a film of 0.03 mm (our assumption), so 30 mL on a square metre. */
export const FILM_ML_PER_M2 = 30;
const LEFT_L_PER_M2 = FILM_ML_PER_M2 / 1000;
/** How far and how finely the life of the resin is followed, as shares of the side that ends first. */
const FARTHEST = 4;
const STEP = 0.02;

/** What comes into the resin, as a meter shows it, whole ppm: changed at that, out equals in. Null without resin. */
export function equalsInPpm({ units }: Pick<System, 'units'>, { solved }: Pick<TrainReport, 'solved'>): number | null {
  const feed = solved.resins[0]?.feed;
  const state = feed && settleWater(feed);
  return state?.ok ? Math.floor(state.value.ec25UScm * units.ppmFactor) : null;
}

/**
 * The limits beside each other, on the resins of this train taken as one row, from new.
 *
 * @returns null where there is no resin or nothing is made
 */
export function crewRows(system: System, { solved }: TrainReport, limits: readonly number[] = CREW_LIMITS): CrewRow[] | null {
  const first = solved.resins[0];
  const stages = system.train.stages.filter(
    (stage): stage is StageOf<'resin'> => stage.kind === 'resin' && solved.resins.some(({ stageId }) => stageId === stage.id),
  );
  const last = stages.at(-1);
  if (!first || !last || solved.productLPerH <= 0) return null;
  const capacities = stages.map((stage) => bedCapacityEq(stageBed(stage)));
  const held = {
    cation: capacities.reduce((sum, { cationEq }) => sum + cationEq, 0),
    anion: capacities.reduce((sum, { anionEq }) => sum + anionEq, 0),
  };
  const units = (side: 'cation' | 'anion'): number =>
    solved.resins.reduce((sum, { utilisation }) => sum + utilisation[side].transferUnits, 0);
  const row = {
    ...first.utilisation,
    cation: { ...first.utilisation.cation, transferUnits: units('cation') },
    anion: { ...first.utilisation.anion, transferUnits: units('anion') },
  };
  const { cationMeqL: cation, anionMeqL: anion } = ionicLoad(first.feed);
  const loads = { cation, anion };
  const litresAtOne = Math.min(
    ...(['cation', 'anion'] as const).map((side) => (loads[side] > 0 ? (1000 * held[side]) / loads[side] : Infinity)),
  );
  const after = (litres: number): { readonly ec25UScm: number; readonly dryMgL: number } | null => {
    const used = (side: 'cation' | 'anion'): number => (held[side] > 0 ? (litres * loads[side]) / 1000 / held[side] : 0);
    const water = polishedWater(
      first.feed,
      last.resinClass,
      row,
      { cation: used('cation'), anion: used('anion') },
      resinFloor(last, false),
    );
    const settled = settleWater(water);
    return settled.ok ? { ec25UScm: settled.value.ec25UScm, dryMgL: dryResidueMgL(water) } : null;
  };
  const filling = fillingOf(stages, priceList(system));
  const perWeek = 7 * productLPerDay(system.goal);
  const highest = ecOfShownPpm(Math.max(0, ...limits), system.units.ppmFactor);
  const life: { readonly litres: number; readonly out: { readonly ec25UScm: number; readonly dryMgL: number } }[] = [];
  for (let share = STEP; Number.isFinite(litresAtOne) && share <= FARTHEST; share += STEP) {
    const out = after(share * litresAtOne);
    if (out) life.push({ litres: share * litresAtOne, out });
    const before = life.at(-2)?.out.ec25UScm ?? 0;
    if (out && out.ec25UScm > highest && before > highest) break;
  }
  return limits.map((ppm): CrewRow => {
    const most = ecOfShownPpm(ppm, system.units.ppmFactor);
    // A pulse between two fronts is narrower than a step: what is told is where the meter stays past it.
    const past = life.find(({ out }, i) => out.ec25UScm > most && (life[i + 1] ?? { out }).out.ec25UScm > most);
    const litres = past?.litres ?? null;
    const cost = litres === null ? 0 : (1000 * filling) / litres;
    // Silica comes through before the meter moves: what it shows and what dries on the glass do not rise together.
    const until = life.slice(0, past ? Math.max(1, life.indexOf(past)) : life.length).map(({ out }) => out.dryMgL);
    const mean = past ? until.reduce((sum, dry) => sum + dry, 0) / Math.max(1, until.length) : dryResidueMgL(first.feed);
    return {
      ppm,
      litres,
      resinPerM3: cost,
      resinPerWeek: (cost * perWeek) / 1000,
      filmMgPerM2: { mean: LEFT_L_PER_M2 * mean, worst: LEFT_L_PER_M2 * Math.max(mean, ...until) },
    };
  });
}
