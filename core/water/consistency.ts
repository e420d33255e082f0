import { conductivityAtPH } from './conductivityAtPH';
import { CACO3_G_PER_EQ, MOLAR_MASS, solutesMgL, type Solute, type SolutesMgL } from './solutes';
import { alkalinityByBalance } from './water';

/** What is known of a water, to be held against its conductivity. */
export interface KnownOfWater {
  readonly mgL?: Partial<Record<Solute, number>>;
  readonly hardnessMgL?: number | undefined;
  readonly alkalinityMgL?: number | undefined;
  readonly pH: number;
}

/** The water that conducts least of all with what is known, and what it was filled with. */
export interface LowestWater {
  readonly ec25UScm: number;
  readonly mgL: SolutesMgL;
  readonly alkalinityMgL: number;
  readonly filledWith: readonly (Solute | 'alkalinity')[];
}

const meqL = (solute: Solute, mgL: number, charge: number): number => (mgL * charge) / MOLAR_MASS[solute];
const mgLOf = (solute: Solute, meq: number, charge: number): number => (meq * MOLAR_MASS[solute]) / charge;

/** Ways to make up a hardness that was measured without its two ions. */
function hardnessFills(known: KnownOfWater): { readonly ion: 'Ca' | 'Mg'; readonly meq: number }[] {
  const { hardnessMgL } = known;
  if (hardnessMgL === undefined) return [];
  const missing = hardnessMgL / CACO3_G_PER_EQ - meqL('Ca', known.mgL?.Ca ?? 0, 2) - meqL('Mg', known.mgL?.Mg ?? 0, 2);
  if (missing <= 0) return [];
  return (['Ca', 'Mg'] as const).filter((ion) => known.mgL?.[ion] === undefined).map((ion) => ({ ion, meq: missing }));
}

const POSITIVE = { Na: 1, K: 1, Ca: 2, Mg: 2 } as const;
const NEGATIVE = { SO4: 2, NO3: 1, Cl: 1 } as const;

/**
 * The lowest conductivity at 25 °C any neutral water with these values can have, with that water; null where nothing is
 * left open to fill up with. It lies at a corner: conductivity falls as charge goes to the slower or the better paired
 * ion, so it is never lowest in between (400 random mixtures a case: none below the corners).
 */
export function lowestWater(known: KnownOfWater): LowestWater | null {
  const ecOf = conductivityAtPH(known.pH);
  const open = (solute: Solute): boolean => known.mgL?.[solute] === undefined;
  const hardness = hardnessFills(known);
  let lowest: LowestWater | null = null;
  const look = (mgL: Partial<Record<Solute, number>>, alkalinityMgL: number, filledWith: LowestWater['filledWith']): void => {
    const all = solutesMgL(mgL);
    const ec25UScm = ecOf(all, alkalinityMgL);
    if (ec25UScm < (lowest?.ec25UScm ?? Infinity)) lowest = { ec25UScm, mgL: all, alkalinityMgL, filledWith };
  };
  for (const fill of hardness.length > 0 ? hardness : [null]) {
    const mgL: Partial<Record<Solute, number>> = { ...known.mgL };
    if (fill) mgL[fill.ion] = (mgL[fill.ion] ?? 0) + mgLOf(fill.ion, fill.meq, 2);
    const made = fill ? [fill.ion] : [];
    // Cations left without an anion, meq/L.
    const spare = (alkalinityByBalance(solutesMgL(mgL)) - (known.alkalinityMgL ?? 0)) / CACO3_G_PER_EQ;
    if (Math.abs(spare) < 1e-9) {
      if (made.length > 0) look(mgL, known.alkalinityMgL ?? 0, made);
    } else if (spare < 0) {
      for (const [ion, charge] of Object.entries(POSITIVE) as [keyof typeof POSITIVE, number][]) {
        if (!open(ion) || (charge === 2 && known.hardnessMgL !== undefined)) continue;
        look({ ...mgL, [ion]: (mgL[ion] ?? 0) + mgLOf(ion, -spare, charge) }, known.alkalinityMgL ?? 0, [...made, ion]);
      }
    } else {
      if (known.alkalinityMgL === undefined) look(mgL, spare * CACO3_G_PER_EQ, [...made, 'alkalinity']);
      for (const [ion, charge] of Object.entries(NEGATIVE) as [keyof typeof NEGATIVE, number][])
        if (open(ion)) look({ ...mgL, [ion]: (mgL[ion] ?? 0) + mgLOf(ion, spare, charge) }, known.alkalinityMgL ?? 0, [...made, ion]);
    }
  }
  return lowest;
}

/** The lowest conductivity alone, µS/cm; 0 where nothing is left open. */
export const lowestEc25 = (known: KnownOfWater): number => lowestWater(known)?.ec25UScm ?? 0;
