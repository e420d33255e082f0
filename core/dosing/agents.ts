import { ok, type Outcome } from '../quantity';
import { alkalinityAtPH, CACO3_G_PER_EQ, eachSolute, MOLAR_MASS, NITROGEN_PER_CHLORAMINE, type Solute, type Water } from '../water';

/** What a dosing pump puts into water, and what it does to it: as strong ions, the rest follows from the water. */

export const AGENTS = ['antiscalant', 'hydrochloricAcid', 'sulfuricAcid', 'causticSoda', 'bisulfite'] as const;
export type Agent = (typeof AGENTS)[number];

/** mg of the pure agent for a milliequivalent; bisulfite as Na2S2O5 for a millimole of sulfite. */
export const MG_PER_MEQ = { hydrochloricAcid: 36.46, sulfuricAcid: 49.04, causticSoda: 40, bisulfite: 190.107 / 2 } as const;

/** A water with ions and an alkalinity put to it; carbon stays: closed. */
const withIons = (water: Water, added: Partial<Record<Solute, number>>, alkalinityMeqL: number): Water => ({
  ...water,
  mgL: eachSolute((solute) => Math.max(0, water.mgL[solute] + (added[solute] ?? 0))),
  alkalinityMgL: water.alkalinityMgL + alkalinityMeqL * CACO3_G_PER_EQ,
});

/** Sulfite takes free chlorine in seconds, chloramine in a minute or more; what is over takes oxygen. */
function withSulfite(water: Water, mmolL: number): Water {
  const chlorine = water.mgL.chlorine / MOLAR_MASS.chlorine;
  const chloramine = water.mgL.chloramine / MOLAR_MASS.chloramine;
  const byChlorine = Math.min(mmolL, chlorine);
  const byChloramine = Math.min(mmolL - byChlorine, chloramine);
  const over = mmolL - byChlorine - byChloramine;
  return withIons(
    water,
    {
      Na: mmolL * MOLAR_MASS.Na,
      SO4: mmolL * MOLAR_MASS.SO4,
      Cl: (byChlorine + byChloramine) * MOLAR_MASS.Cl,
      chlorine: -byChlorine * MOLAR_MASS.chlorine,
      chloramine: -byChloramine * MOLAR_MASS.chloramine,
      NH4N: byChloramine * MOLAR_MASS.chloramine * NITROGEN_PER_CHLORAMINE,
    },
    -2 * byChlorine - byChloramine - over,
  );
}

/** The water with so much of an agent in it, mg/L as 100 %, well mixed. */
export function withAgent(water: Water, agent: Agent, mgL: number): Water {
  switch (agent) {
    // A few milligrams of phosphonate: nothing a meter or a kit would show.
    case 'antiscalant':
      return water;
    case 'hydrochloricAcid': {
      const meqL = mgL / MG_PER_MEQ.hydrochloricAcid;
      return withIons(water, { Cl: meqL * MOLAR_MASS.Cl }, -meqL);
    }
    case 'sulfuricAcid': {
      const meqL = mgL / MG_PER_MEQ.sulfuricAcid;
      return withIons(water, { SO4: (meqL * MOLAR_MASS.SO4) / 2 }, -meqL);
    }
    case 'causticSoda': {
      const meqL = mgL / MG_PER_MEQ.causticSoda;
      return withIons(water, { Na: meqL * MOLAR_MASS.Na }, meqL);
    }
    case 'bisulfite':
      return withSulfite(water, mgL / MG_PER_MEQ.bisulfite);
  }
}

/**
 * Acid or caustic that brings a water to a pH, mg/L as 100 %; carbon stays, closed.
 *
 * @returns 0 where the water is past that pH already; an error where no carbon system has that pH
 */
export function doseForPH(water: Water, agent: 'hydrochloricAcid' | 'sulfuricAcid' | 'causticSoda', pH: number): Outcome<number> {
  const there = alkalinityAtPH(water, pH);
  if (!there.ok) return there;
  const meqL = (water.alkalinityMgL - there.value) / CACO3_G_PER_EQ;
  return ok(Math.max(0, agent === 'causticSoda' ? -meqL : meqL) * MG_PER_MEQ[agent]);
}

/** Na2S2O5 for all the chlorine and chloramine of a water, and for its oxygen, mg/L. */
export const sulfiteForChlorine = ({ chlorine, chloramine }: Water['mgL']): number =>
  (chlorine / MOLAR_MASS.chlorine + chloramine / MOLAR_MASS.chloramine) * MG_PER_MEQ.bisulfite;
export const sulfiteForOxygen = (oxygenMgL: number): number => ((2 * oxygenMgL) / 31.998) * MG_PER_MEQ.bisulfite;
