import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { CACO3_G_PER_EQ, HARDNESS_PER_MG, hardnessOf, MOLAR_MASS, type Water } from '../water';
import type { Litres } from './throughput';

/** A cartridge that takes hardness tied to alkalinity, with a bypass round it. */
export interface DecarbonisingCartridge {
  /** Capacity, eq. */
  readonly capacityEq: number;
  /** Share its lane lets through, 0–0.1. */
  readonly leak: number;
  /** Share of the exchange that gives magnesium for calcium instead of acid, 0–0.7. */
  readonly magnesiumShare: number;
  /** It gives sodium for all hardness in place of acid for the part tied to alkalinity. */
  readonly softens?: boolean;
}

export interface Blend {
  readonly water: Water;
  /** Until it is spent. */
  readonly until: Litres;
  /** What its lane exchanges, mg/L as CaCO3. */
  readonly exchangedMgL: number;
}

function cartridgeError(cartridge: DecarbonisingCartridge, bypass: number): ReturnType<typeof outOfRange> {
  return firstError(
    outOfRange('capacityEq', 'Capacity', cartridge.capacityEq, 0.01, 10_000, 'eq'),
    outOfRange('leak', 'Leak of the lane', cartridge.leak, 0, 0.1),
    outOfRange('magnesiumShare', 'Magnesium share', cartridge.magnesiumShare, 0, 0.7),
    outOfRange('bypass', 'Bypass', bypass, 0, 1),
  );
}

/** What the lane exchanges, mg/L as CaCO3: hardness tied to alkalinity, or all of it where it softens. */
const exchanged = (water: Water, { leak, softens = false }: Pick<DecarbonisingCartridge, 'leak' | 'softens'>): number =>
  (1 - leak) * Math.max(0, softens ? hardnessOf(water.mgL) : Math.min(water.alkalinityMgL, hardnessOf(water.mgL)));

/**
 * Water behind a decarbonising cartridge with a bypass: hydrogen for hardness as far as alkalinity carries it, carbon
 * conserved (closed). Calcium and magnesium go in the proportion the water has them.
 *
 * @param bypass share of the water that goes round the lane, 0–1
 */
export function decarbonised(water: Water, cartridge: DecarbonisingCartridge, bypass: number): Outcome<Blend> {
  const invalid = cartridgeError(cartridge, bypass);
  if (invalid) return { ok: false, error: invalid };
  const r = exchanged(water, cartridge);
  const through = 1 - bypass;
  const magnesium = cartridge.softens ? 0 : cartridge.magnesiumShare;
  // Hydrogen takes alkalinity along; sodium does not.
  const taken = through * (1 - magnesium) * r;
  const acid = cartridge.softens ? 0 : taken;
  const hardness = hardnessOf(water.mgL);
  const kept = hardness > 0 ? 1 - taken / hardness : 1;
  const calcium = water.mgL.Ca * kept;
  // Calcium is swapped for magnesium only as far as there is any.
  const swapped = Math.min(through * magnesium * r, calcium * HARDNESS_PER_MG.Ca);
  const mgL = {
    ...water.mgL,
    Ca: calcium - swapped / HARDNESS_PER_MG.Ca,
    Mg: water.mgL.Mg * kept + swapped / HARDNESS_PER_MG.Mg,
    Na: water.mgL.Na + (cartridge.softens ? (taken / CACO3_G_PER_EQ) * MOLAR_MASS.Na : 0),
  };
  const used = r * through;
  return ok({
    water: { ...water, mgL, alkalinityMgL: water.alkalinityMgL - acid },
    until: used > 0 ? { kind: 'litres', litres: capacityLitres(cartridge.capacityEq, used) } : { kind: 'unlimited' },
    exchangedMgL: r,
  });
}

/** What a bypass is set for. */
export interface BypassTarget {
  readonly quantity: 'alkalinityMgL' | 'hardnessMgL';
  readonly value: number;
}

/** A bypass found, and whether it means no treatment at all. */
export interface BypassFound {
  readonly bypass: number;
  readonly untreated: boolean;
}

/**
 * The bypass at which alkalinity or hardness stands at a target.
 *
 * @returns an error naming the target, with what this water and lane can reach
 */
export function bypassFor(water: Water, cartridge: DecarbonisingCartridge, target: BypassTarget): Outcome<BypassFound> {
  const invalid = cartridgeError(cartridge, 0);
  if (invalid) return { ok: false, error: invalid };
  const hardness = hardnessOf(water.mgL);
  const now = target.quantity === 'alkalinityMgL' ? water.alkalinityMgL : hardness;
  if (target.value >= now) return ok({ bypass: 1, untreated: true });
  const most =
    exchanged(water, cartridge) *
    (1 - (cartridge.softens ? 0 : cartridge.magnesiumShare)) *
    (cartridge.softens && target.quantity === 'alkalinityMgL' ? 0 : 1);
  const least = now - most;
  if (!(target.value >= least - 1e-9) || most <= 0) {
    const accepted = `${least.toPrecision(3)} to ${now.toPrecision(3)} mg/L as CaCO3`;
    return fail(
      target.quantity,
      target.value,
      accepted,
      `This cartridge cannot bring it to ${target.value}: on this water it reaches ${accepted}.`,
    );
  }
  return ok({ bypass: Math.max(0, 1 - (now - target.value) / most), untreated: false });
}

/** Litres a capacity lasts when each takes so much hardness up, mg/L as CaCO3. */
export const capacityLitres = (capacityEq: number, takenMgL: number): number => (1000 * capacityEq * CACO3_G_PER_EQ) / takenMgL;

/** Capacity behind a printed rating: so many litres at a hardness with a bypass, eq. */
export const ratedCapacityEq = (litres: number, hardnessMgL: number, bypass: number): number =>
  (litres * hardnessMgL * (1 - bypass)) / CACO3_G_PER_EQ / 1000;

/** Range of capacity a litre of weak-acid resin can have; outside it rating and volume do not agree (eq/L). */
const PLAUSIBLE_EQ_PER_L = [1, 4] as const;

/** Whether a rated capacity and a resin volume can be of one cartridge. */
export const ratingAgrees = (capacityEq: number, volumeL: number): boolean =>
  capacityEq / volumeL >= PLAUSIBLE_EQ_PER_L[0] && capacityEq / volumeL <= PLAUSIBLE_EQ_PER_L[1];

/** One printed setting of a bypass dial. */
export interface BypassSetting {
  readonly label: string;
  readonly bypass: number;
}

/** Settings on either side of a bypass: the lower protects from scale, the higher keeps taste and capacity. */
export function neighbourSettings(
  settings: readonly BypassSetting[],
  bypass: number,
): { readonly lower: BypassSetting | null; readonly higher: BypassSetting | null } {
  const ascending = [...settings].sort((a, b) => a.bypass - b.bypass);
  return {
    lower: ascending.findLast((setting) => setting.bypass <= bypass + 1e-9) ?? null,
    higher: ascending.find((setting) => setting.bypass >= bypass - 1e-9) ?? null,
  };
}

/** Nine tenths of the litres, to the nearest ten: what is entered in the cartridge's water meter (common practice). */
export const meterPresetL = (litres: number): number => Math.max(10, Math.floor((0.9 * litres) / 10) * 10);

/** Flush before first use, L: 10 for small cartridges, 20 for large (common practice). */
export const flushL = (volumeL: number): number => (volumeL < 2 ? 10 : 20);
