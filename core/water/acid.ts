import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import type { PartialAnalysis } from './analysis';
import { CHARACTER_ROWS, scaledSolutes, type Character } from './characters';
import { equilibria } from './equilibria';
import { BALANCE_CHARGE, CACO3_G_PER_EQ, HARDNESS_PER_MG, MOLAR_MASS, type Solute } from './solutes';
import { speciateAtPH } from './speciation';
import { AIR_CO2_ATM, alkalinityByBalance, molalWater, settleWater, type Water } from './water';

/**
 * Waters below pH 5.5: rain, moors, waters open to acid. Their alkalinity is not taken from the charge balance, where a
 * few µeq of error become tens of mg/L of carbon dioxide; it follows from pH and the carbon dioxide they stand under, and
 * the charge is closed on a free strong anion.
 */

/** Below this a water is acid. */
export const ACID_PH = 5.5;

/** Carbon dioxide an acid water stands under, atm (product assumptions): the open air, a moor, a well. */
const PCO2_ATM: Readonly<Record<Character, number>> = {
  rain: AIR_CO2_ATM,
  seawater: AIR_CO2_ATM,
  softSurface: 1.3e-3,
  municipal: 1.3e-3,
  softened: 1.3e-3,
  chalk: 1e-2,
  brackish: 1e-2,
};

/** The free strong anion of a kind of acid water. */
const CLOSED_ON: Readonly<Partial<Record<Character, 'SO4' | 'organic'>>> = { rain: 'SO4', softSurface: 'organic' };
const closingAnion = (character: Character): 'SO4' | 'organic' | 'Cl' => CLOSED_ON[character] ?? 'Cl';

/**
 * Charge that dissolved organic carbon carries as humic anions, mg of the stored basis: 10 µeq/mg, ionised by pH.
 * Oliver et al. 1983 (recalled).
 */
export function humicAnions(docMgL: number, pH: number): number {
  const K = 10 ** -(0.96 + 0.9 * pH - 0.039 * pH * pH);
  return (docMgL * K) / (K + 10 ** -pH);
}

/** Whether an analysis is of an acid water whose alkalinity nobody measured, or found to be nothing. */
export const isAcid = ({ pH, alkalinityMgL }: PartialAnalysis): boolean =>
  pH !== undefined && pH < ACID_PH && !(alkalinityMgL && alkalinityMgL > 0);

export interface AcidWater {
  readonly water: Water;
  readonly factor: number;
  readonly closedOn: Solute | null;
}

/** Salts of the kind of supply at a strength, with what was measured in their place. */
function saltsOf(a: PartialAnalysis, factor: number): Record<Solute, number> {
  const scaled = scaledSolutes(a.character, factor);
  const mgL: Record<Solute, number> = { ...scaled, ...a.mgL };
  if (a.mgL?.organic !== undefined) mgL.organic = humicAnions(a.mgL.organic, a.pH!);
  if (a.hardnessMgL !== undefined) {
    const listed = CHARACTER_ROWS[a.character].mgL;
    const [ca, mg] = [(listed.Ca ?? 0) * HARDNESS_PER_MG.Ca, (listed.Mg ?? 0) * HARDNESS_PER_MG.Mg];
    const open = a.hardnessMgL - (a.mgL?.Ca ?? 0) * HARDNESS_PER_MG.Ca - (a.mgL?.Mg ?? 0) * HARDNESS_PER_MG.Mg;
    if (a.mgL?.Ca === undefined) mgL.Ca = (Math.max(0, open) * (a.mgL?.Mg === undefined ? ca / (ca + mg) : 1)) / HARDNESS_PER_MG.Ca;
    if (a.mgL?.Mg === undefined) mgL.Mg = (Math.max(0, open) * (a.mgL?.Ca === undefined ? mg / (ca + mg) : 1)) / HARDNESS_PER_MG.Mg;
  }
  return mgL;
}

/** What a charge balance may be left with, meq/L: the last digit of an ion. */
const NEUTRAL_MEQ_L = 5e-4;

/** A water at its pH under its carbon dioxide, the charge closed on its strong anion, or on sodium where acids are short of it. */
function closedAt(a: PartialAnalysis, factor: number): Outcome<AcidWater> {
  const pH = a.pH!;
  const mgL = saltsOf(a, factor);
  const pCO2Atm = a.pCO2Atm ?? PCO2_ATM[a.character];
  const speciate = (): Outcome<{ alkalinityMgL: number; carbonMmolL: number }> => {
    const molal = molalWater({ mgL, alkalinityMgL: 0, carbonMmolL: 0 });
    const species = speciateAtPH(molal.totals, pH, { by: 'air', pCO2Atm }, equilibria(25));
    if (!species.ok) return species;
    const perLitre = 1000 * molal.waterKgPerL25;
    return ok({ alkalinityMgL: species.value.alkalinity * perLitre * CACO3_G_PER_EQ, carbonMmolL: species.value.carbon * perLitre });
  };
  let known = speciate();
  let closedOn: Solute | null = null;
  // The closing ion moves the activities a hair: three rounds are more than enough.
  for (let round = 0; round < 3; round++) {
    if (!known.ok) return known;
    // Cations that no anion answers, meq/L.
    const spare = (alkalinityByBalance(mgL) - known.value.alkalinityMgL) / CACO3_G_PER_EQ;
    closedOn = closeWith(mgL, spare, a) ?? closedOn;
    known = speciate();
  }
  if (known.ok) {
    const left = (alkalinityByBalance(mgL) - known.value.alkalinityMgL) / CACO3_G_PER_EQ;
    if (Math.abs(left) > NEUTRAL_MEQ_L)
      return fail(
        left > 0 ? 'mgL.Cl' : 'mgL.Na',
        Number(left.toPrecision(3)),
        'ions that balance at this pH',
        `At pH ${pH} the ions entered leave ${Number(Math.abs(left).toPrecision(3))} meq/L of ${left > 0 ? 'cations' : 'anions'} over, and nothing left open can take up the difference. Check pH and ions.`,
      );
  }
  return known.ok ? ok({ water: { mgL, ...known.value, temperatureC: 25 }, factor, closedOn }) : known;
}

/**
 * Closes the charge: on the free strong anion of the kind, or another nobody measured; where acids are short of cations,
 * on sodium or potassium, or by taking back anions that were only assumed. Returns the ion that moved most.
 */
function closeWith(mgL: Record<Solute, number>, spare: number, { character, hardnessMgL, mgL: measured }: PartialAnalysis): Solute | null {
  if (Math.abs(spare) < 1e-12) return null;
  const open = (ions: readonly Solute[]): Solute[] => ions.filter((ion) => measured?.[ion] === undefined);
  const perMeq = (ion: Solute): number => MOLAR_MASS[ion] / Math.abs(BALANCE_CHARGE[ion]);
  const anions = open([closingAnion(character), 'Cl', 'SO4', 'NO3', 'organic', 'F']);
  const cation = open(hardnessMgL === undefined ? ['Na', 'K', 'Ca', 'Mg'] : ['Na', 'K'])[0];
  const added = spare > 0 ? anions[0] : cation;
  if (added) {
    mgL[added] = Math.max(0, mgL[added] + Math.abs(spare) * perMeq(added));
    return added;
  }
  let left = Math.abs(spare);
  let first: Solute | null = null;
  for (const ion of spare < 0 ? anions : []) {
    const taken = Math.min(left, mgL[ion] / perMeq(ion));
    mgL[ion] -= taken * perMeq(ion);
    left -= taken;
    if (taken > 0) first ??= ion;
  }
  return first;
}

/**
 * Completes an acid water: salts scaled so that it conducts as measured, alkalinity and carbon from pH and air.
 *
 * @returns an error when the acid, or what was measured beside it, alone conducts more than was entered
 */
export function completeAcid(a: PartialAnalysis): Outcome<AcidWater> {
  const target = a.ec25UScm;
  if (target === undefined) return closedAt(a, 1);
  const ec = (factor: number): number => {
    const water = closedAt(a, factor);
    const state = water.ok ? settleWater(water.value.water, a.pH) : water;
    return state.ok ? state.value.ec25UScm : Number.NaN;
  };
  const floor = ec(1e-6);
  if (target < floor) {
    const alone = Object.keys(a.mgL ?? {}).length > 0 || a.hardnessMgL !== undefined ? 'with what was measured beside it' : 'alone';
    const least = Number(floor.toPrecision(2));
    return fail(
      'pH',
      a.pH!,
      `a conductivity of at least ${least} µS/cm`,
      `pH ${a.pH!} ${alone} conducts at least ${least} µS/cm; ${Number(target.toPrecision(3))} was entered. Check pH and conductivity.`,
    );
  }
  let high = 1;
  while (ec(high) < target && high < 1e4) high *= 2;
  const root = findRoot((factor) => ec(factor) - target, 1e-6, high, 1e-9);
  // Where everything that conducts was measured there is nothing left to scale.
  return closedAt(a, root?.x ?? 1);
}
