import { balanced, MOLAR_MASS, type Solute, type Water } from '../water';
import { frontChain, type Front } from './coherence';
import type { BedUtilisation } from './film';
import { ANION_IDS, amountOf, CATION_IDS, ionMeqL, type AnionId, type CationId, type IonId } from './ions';
import { RESIN_ROWS, type ResinClassId } from './resins';
import { anionAlphas, cationAlphas } from './selectivity';

/** What polished water leaves a bed with: one function for the train, a single cartridge and a loop. */

/** What a bed never gets below, however fresh. */
export interface PolishFloor {
  /** Salt, as sodium chloride, µmol/L. */
  readonly saltUmolL: number;
  readonly carbonUmolL: number;
  readonly silicaMgL: number;
  readonly ammoniaMgL: number;
  /** Sodium alone, which leaves as hydroxide: the slip of a cation bed, mg/L. */
  readonly sodiumMgL: number;
}

/**
 * Floors by grade. The cartridge is calibrated on a measured pair (common practice), the others are product assumptions,
 * each within a factor of two. A loop's polisher comes to rest here after its rinse; recirculated for hours it reaches
 * 18.2 MΩ·cm.
 */
export const POLISH_FLOORS = {
  cartridge: { saltUmolL: 0.4, carbonUmolL: 0.05, silicaMgL: 0.012, ammoniaMgL: 0.001, sodiumMgL: 0 },
  vessel: { saltUmolL: 0.1, carbonUmolL: 0.05, silicaMgL: 0.005, ammoniaMgL: 0.0005, sodiumMgL: 0 },
  loop: { saltUmolL: 0.05, carbonUmolL: 0.02, silicaMgL: 0.001, ammoniaMgL: 0.0002, sodiumMgL: 0 },
} as const satisfies Record<string, PolishFloor>;

/** Sodium that slips through a cation bed of its own, and silica through an anion bed, mg/L (common practice: co-current). */
const TWO_BED = { sodiumMgL: 0.5, silicaMgL: 0.05 } as const;
const NO_FLOOR: PolishFloor = { saltUmolL: 0, carbonUmolL: 0, silicaMgL: 0, ammoniaMgL: 0, sodiumMgL: 0 };

/** A bed below this is a cartridge, above it a vessel, L. */
const VESSEL_L = 2;

/** Floor of a bed by what it is and where it stands. */
export function floorOf(resin: ResinClassId, volumeL: number, inLoop: boolean): PolishFloor {
  if (resin === 'cationBed') return { ...NO_FLOOR, sodiumMgL: TWO_BED.sodiumMgL };
  if (resin === 'anionBed') return { ...NO_FLOOR, silicaMgL: TWO_BED.silicaMgL };
  if (inLoop) return POLISH_FLOORS.loop;
  return volumeL < VESSEL_L ? POLISH_FLOORS.cartridge : POLISH_FLOORS.vessel;
}

/** A floor moved so that its salt alone conducts as was measured: what a person read behind a rinsed bed. */
export function measuredFloor(floor: PolishFloor, ec25UScm: number): PolishFloor {
  // Sodium chloride at infinite dilution, S·cm²/mol, and pure water, µS/cm.
  return { ...floor, saltUmolL: Math.max(0, ((ec25UScm - 0.055) / 126.45) * 1000) };
}

/** How much slower than a strong ion each is taken within the beads: shares of the transfer units (silica fitted). */
export const KINETIC: Readonly<Partial<Record<IonId, number>>> = { carbon: 0.5, SiO2: 0.245, B: 0.245 };

/** Plateaus that change less than this much of the feed are not looked for. */
const UNSEEN = 1e-9;
/** Share of its side below which an ion is a trace. */
const TRACE = 1e-6;

/** Exponent of a front's film edge: how much of what stands behind it has come through. */
const edge = (units: number, used: number, lambda: number): number =>
  used >= lambda * (1 + 1 / units) ? 1 : Math.max(Math.exp(-units), Math.exp(units * (used / lambda - 1) - 1));

/** Equivalents of each ion of a side that leave a bed of which so much is used, meq/L: exact fronts with film edges. */
function sideOut<Id extends IonId>(
  ids: readonly Id[],
  meqL: readonly number[],
  units: number,
  used: number,
  factors: (ids: readonly Id[], fractions: readonly number[], totalEqPerL: number) => readonly number[] | null,
): number[] {
  const total = meqL.reduce((sum, amount) => sum + amount, 0);
  // No resin for this side, no hold on it.
  if (units <= 0 || total <= 0) return [...meqL];
  const least = ids.map((id) => Math.exp(-units * (KINETIC[id] ?? 1)));
  // Of a fresh bed every front stands at its inlet: all leak alike, whatever holds them.
  if (used === 0 || Math.exp(units * (used - 1) - 1) < UNSEEN)
    return meqL.map((amount, i) => amount * Math.max(least[i]!, Math.exp(-units)));
  // Traces that no band can be made of go with the first front.
  const matters = ids.map((_, i) => i).filter((i) => meqL[i]! > TRACE * total);
  const part = matters.reduce((sum, i) => sum + meqL[i]!, 0);
  const fractions = matters.map((i) => meqL[i]! / part);
  const alpha = factors(
    matters.map((i) => ids[i]!),
    fractions,
    part / 1000,
  );
  const chain = alpha && frontChain(alpha, fractions);
  const fronts: readonly Front[] = chain?.ok ? chain.value : [{ lambda: 1, ion: 0, behind: fractions }];
  const weights = fronts.map(({ lambda }) => edge(units, used, lambda));
  const out = meqL.map((amount, i) => amount * Math.max(least[i]!, edge(units, used, 1)));
  matters.forEach((i, place) => {
    let share = 0;
    fronts.forEach(({ behind }, k) => (share += (behind[place]! - (fronts[k - 1]?.behind[place] ?? 0)) * weights[k]!));
    out[i] = Math.max(share * part, meqL[i]! * least[i]!);
  });
  return out;
}

/** Ions of a side that are there at all. */
const there = <Id extends IonId>(ids: readonly Id[], water: Water): Id[] => ids.filter((id) => ionMeqL(water, id) > 0);

/**
 * The water leaving a bed of which a share of each side is used: the exact fronts of its ions with the film's edges, what
 * slips within the beads, and the floor. About 20 % off the cells of the column on a rising edge, exact on plateaus.
 *
 * @param outlet what the cells of the column found for so many litres, ion by ion: it stands in place of the fronts
 */
export function polishedWater(
  water: Water,
  resin: ResinClassId,
  state: BedUtilisation,
  used: { readonly cation: number; readonly anion: number },
  floor: PolishFloor,
  outlet: ReadonlyMap<IonId, number> | null = null,
): Water {
  const row = RESIN_ROWS[resin];
  const resinEqPerL = row.cationShare > 0 ? row.cationEqPerL / row.cationShare : 1;
  const mgL: Record<Solute, number> = { ...water.mgL };
  let { carbonMmolL } = water;
  const cations = there<CationId>(CATION_IDS, water);
  sideOut(
    cations,
    cations.map((id) => ionMeqL(water, id)),
    state.cation.transferUnits,
    used.cation,
    (ids, fractions, totalEqPerL) => {
      const alphas = cationAlphas(ids, fractions, totalEqPerL, resinEqPerL);
      return alphas.ok ? alphas.value : null;
    },
  ).forEach((meqL, i) => (mgL[cations[i]!] = amountOf(cations[i]!, meqL)));
  const anions = there<AnionId>(ANION_IDS, water);
  sideOut(
    anions,
    anions.map((id) => ionMeqL(water, id)),
    state.anion.transferUnits,
    used.anion,
    (ids) => anionAlphas(ids),
  ).forEach((meqL, i) => {
    const id = anions[i]!;
    if (id === 'carbon') carbonMmolL = amountOf(id, meqL);
    else mgL[id] = amountOf(id, meqL);
  });
  // What the cells found, and no less than slips through within the beads.
  outlet?.forEach((amount, id) => {
    if (id === 'carbon') carbonMmolL = amount;
    else mgL[id] = amount;
  });
  mgL.Na += (floor.saltUmolL / 1000) * MOLAR_MASS.Na + floor.sodiumMgL;
  mgL.Cl += (floor.saltUmolL / 1000) * MOLAR_MASS.Cl;
  mgL.SiO2 += floor.silicaMgL;
  mgL.NH4N += floor.ammoniaMgL;
  return balanced(mgL, carbonMmolL + floor.carbonUmolL / 1000, water.temperatureC);
}
