import { findRoot } from '../numeric';
import { fail, firstError, ok, outOfRange, type Outcome } from '../quantity';
import { CHARACTER_ROWS, characterWater, scaledSolutes, type Character } from './characters';
import { lowestEc25, type KnownOfWater } from './consistency';
import { sequentialLeastSquares, type LinearRow } from './leastSquares';
import { CACO3_G_PER_EQ, MOLAR_MASS, SOLUTES, solutesMgL, type Solute } from './solutes';
import { alkalinityByBalance, settleWater, waterFromPH, type Water } from './water';

/** How sure a number is: entered, fixed by what was entered, or filled in from the kind of supply. */
export type Origin = 'measured' | 'derived' | 'assumed';

/** What a person knows of a water. All optional but the kind of supply. */
export interface PartialAnalysis {
  readonly character: Character;
  readonly temperatureC: number;
  readonly ec25UScm?: number;
  readonly hardnessMgL?: number;
  readonly alkalinityMgL?: number;
  readonly pH?: number;
  readonly mgL?: Partial<Record<Solute, number>>;
}

export interface CompletedWater {
  readonly water: Water;
  readonly origins: Readonly<Record<Solute | 'alkalinity' | 'pH', Origin>>;
  /** Strength of the assumed part against the listed character. */
  readonly factor: number;
  /** A contradiction small enough to work with, in one sentence. */
  readonly warning: string | null;
}

/** The quantities rung (b) may move, in meq/L; charge of each. */
const MOVABLE = ['Ca', 'Mg', 'Na', 'K', 'Cl', 'SO4', 'NO3', 'alkalinity'] as const;
type Movable = (typeof MOVABLE)[number];
const SIGN: Readonly<Record<Movable, 1 | -1>> = { Ca: 1, Mg: 1, Na: 1, K: 1, Cl: -1, SO4: -1, NO3: -1, alkalinity: -1 };
const VALENCE: Readonly<Record<Movable, number>> = { Ca: 2, Mg: 2, Na: 1, K: 1, Cl: 1, SO4: 2, NO3: 1, alkalinity: 1 };

const toMeq = (key: Movable, mgL: number): number => (key === 'alkalinity' ? mgL / CACO3_G_PER_EQ : (mgL * VALENCE[key]) / MOLAR_MASS[key]);
const toMgL = (key: Movable, meq: number): number => (key === 'alkalinity' ? meq * CACO3_G_PER_EQ : (meq * MOLAR_MASS[key]) / VALENCE[key]);

/** Checks every entered number against its own range before any chemistry. */
function analysisError(a: PartialAnalysis): ReturnType<typeof outOfRange> {
  const optional = (
    field: string,
    label: string,
    value: number | undefined,
    low: number,
    high: number,
    unit: string,
  ): ReturnType<typeof outOfRange> => (value === undefined ? null : outOfRange(field, label, value, low, high, unit));
  return firstError(
    outOfRange('temperatureC', 'Temperature', a.temperatureC, 0, 60, '°C'),
    optional('ec25UScm', 'Conductivity', a.ec25UScm, 0.055, 200_000, 'µS/cm'),
    optional('hardnessMgL', 'Hardness', a.hardnessMgL, 0, 20_000, 'mg/L as CaCO₃'),
    optional('alkalinityMgL', 'Alkalinity', a.alkalinityMgL, 0, 20_000, 'mg/L as CaCO₃'),
    optional('pH', 'pH', a.pH, 0, 14, ''),
    ...SOLUTES.map((s) => optional(`mgL.${s}`, s, a.mgL?.[s], 0, 300_000, 'mg/L')),
  );
}

/**
 * The strength at which a character conducts as measured (rung a).
 * Conductivity rises with strength, so a bracket on its logarithm always works.
 */
function characterFactor(character: Character, ec25UScm: number): Outcome<number> {
  const ecAt = (lnFactor: number): number => {
    const water = characterWater(character, Math.exp(lnFactor));
    if (!water.ok) return Number.NaN;
    const state = settleWater(water.value);
    return state.ok ? Math.log(state.value.ec25UScm / ec25UScm) : Number.NaN;
  };
  // Listed waters conduct close to in proportion: a narrow bracket is nearly always enough.
  const listed = ecAt(0);
  const near = findRoot(ecAt, -listed - 0.3, -listed + 0.3, 1e-10);
  const root = near ?? findRoot(ecAt, Math.log(1e-5), Math.log(1e3), 1e-10);
  if (!root) {
    return fail('ec25UScm', ec25UScm, 'a reading above pure water', 'This reading is too pure to be a supply: enter it as product water.');
  }
  return ok(Math.exp(root.x));
}

/** Factor when no conductivity was measured: by hardness, or failing that by alkalinity. */
function factorWithoutEc(a: PartialAnalysis): Outcome<number> {
  const listed = scaledSolutes(a.character, 1);
  const listedHardness = CACO3_G_PER_EQ * (toMeq('Ca', listed.Ca) + toMeq('Mg', listed.Mg));
  if (a.hardnessMgL !== undefined && a.hardnessMgL > 0) return ok(a.hardnessMgL / listedHardness);
  if (a.alkalinityMgL !== undefined && a.alkalinityMgL > 0) return ok(a.alkalinityMgL / alkalinityByBalance(listed));
  return fail(
    'ec25UScm',
    null,
    'a conductivity, a hardness or an alkalinity',
    'Enter a meter reading, a hardness or an alkalinity: at least one is needed to know this water.',
  );
}

/**
 * Completes what is known to an electroneutral water.
 *
 * One meter reading alone scales the kind of supply to it (rung a). With hardness, alkalinity, pH or single
 * ions, measured values are kept as they are and the rest moves as little as possible from the scaled supply
 * so that charge, hardness and conductivity all hold (rung b: least squares with bounds).
 *
 * @returns an error naming exactly the numbers that contradict each other, when they do
 */
export function completeWater(analysis: PartialAnalysis): Outcome<CompletedWater> {
  const invalid = analysisError(analysis);
  if (invalid) return { ok: false, error: invalid };
  const consistent = consistentEc(analysis);
  if (!consistent.ok) return consistent;
  const { ec25UScm, warning } = consistent.value;

  const factor = ec25UScm === undefined ? factorWithoutEc(analysis) : characterFactor(analysis.character, ec25UScm);
  if (!factor.ok) return factor;

  const measured = measuredMeq(analysis);
  const nothingElse = Object.keys(measured).length === 0 && analysis.hardnessMgL === undefined && analysis.pH === undefined;
  if (nothingElse && Object.keys(analysis.mgL ?? {}).length === 0) {
    const water = characterWater(analysis.character, factor.value);
    if (!water.ok) return water;
    return ok({
      water: { ...water.value, temperatureC: analysis.temperatureC },
      origins: originsOf(analysis, measured, null),
      factor: factor.value,
      warning,
    });
  }
  return completeByLeastSquares(analysis, measured, factor.value, ec25UScm, warning);
}

/** One set of entered numbers and the least conductivity a water with them can have. */
interface Demand {
  readonly says: string;
  readonly names: string;
  readonly leastUScm: number;
}

/** What each set of entered numbers demands, smallest set first. */
function conductivityDemands(a: PartialAnalysis): Demand[] {
  const pH = a.pH ?? CHARACTER_ROWS[a.character].pH ?? 7;
  const { hardnessMgL, alkalinityMgL } = a;
  const demands: Demand[] = [];
  const add = (says: string, names: string, known: Omit<KnownOfWater, 'pH'>): void => {
    demands.push({ says, names, leastUScm: lowestEc25({ ...known, pH }) });
  };
  if (alkalinityMgL !== undefined) add(`Alkalinity ${round(alkalinityMgL)} mg/L as CaCO₃ needs`, 'alkalinity', { alkalinityMgL });
  if (hardnessMgL !== undefined) add(`Hardness ${round(hardnessMgL)} mg/L as CaCO₃ needs`, 'hardness', { hardnessMgL });
  if (hardnessMgL !== undefined && alkalinityMgL !== undefined) {
    const says = `Hardness ${round(hardnessMgL)} and alkalinity ${round(alkalinityMgL)} mg/L as CaCO₃ need`;
    add(says, 'hardness, alkalinity', { hardnessMgL, alkalinityMgL });
  }
  if (a.mgL && Object.keys(a.mgL).length > 0) add('The ions entered need', 'the ions', { mgL: a.mgL, hardnessMgL, alkalinityMgL });
  return demands;
}

/** Tests the entered numbers for contradiction; nudges the conductivity up when they miss by less than 5 %. */
function consistentEc(a: PartialAnalysis): Outcome<{ ec25UScm: number | undefined; warning: string | null }> {
  if (a.ec25UScm === undefined) return ok({ ec25UScm: undefined, warning: null });
  const entered = a.ec25UScm;
  const demands = conductivityDemands(a);
  // The largest demand is what would have to be met; the smallest set that fails is where to look.
  const largest = demands.reduce<Demand | null>((most, demand) => (most && most.leastUScm >= demand.leastUScm ? most : demand), null);
  if (!largest || largest.leastUScm <= entered) return ok({ ec25UScm: entered, warning: null });
  const least = `at least ${round(largest.leastUScm)} µS/cm`;
  if (largest.leastUScm > entered * 1.05) {
    const alone = demands.find((demand) => demand !== largest && demand.leastUScm > entered * 1.05);
    const also = alone ? ` (${alone.names} alone ${round(alone.leastUScm)})` : '';
    return fail(
      'ec25UScm',
      entered,
      least,
      `${largest.says} ${least}${also}; the conductivity entered is ${round(entered)}. Check ${largest.names}, conductivity (was it ppm?).`,
    );
  }
  const used = largest.leastUScm * 1.001;
  return ok({ ec25UScm: used, warning: `${largest.says} ${least}; ${round(entered)} was entered. Worked with ${round(used)}.` });
}

const round = (value: number): string => String(Math.abs(value) >= 100 ? Math.round(value) : Number(value.toPrecision(3)));

/** The measured ones of the movable quantities, meq/L. */
function measuredMeq(a: PartialAnalysis): Partial<Record<Movable, number>> {
  const meq: Partial<Record<Movable, number>> = {};
  for (const key of MOVABLE) {
    const mgL = key === 'alkalinity' ? a.alkalinityMgL : a.mgL?.[key];
    if (mgL !== undefined) meq[key] = toMeq(key, mgL);
  }
  return meq;
}

function completeByLeastSquares(
  a: PartialAnalysis,
  measured: Partial<Record<Movable, number>>,
  factor: number,
  ec25UScm: number | undefined,
  warning: string | null,
): Outcome<CompletedWater> {
  const scaled = scaledSolutes(a.character, factor);
  const scaledAlkalinity = alkalinityByBalance(scaled);
  const pH = a.pH ?? CHARACTER_ROWS[a.character].pH ?? 7;
  const reference = MOVABLE.map((key) => toMeq(key, key === 'alkalinity' ? Math.max(0, scaledAlkalinity) : scaled[key]));
  const start = MOVABLE.map((key, i) => measured[key] ?? reference[i]!);
  const free = MOVABLE.map((key) => measured[key] === undefined);

  const solutesFrom = (e: readonly number[]): Partial<Record<Solute, number>> => {
    const mgL: Partial<Record<Solute, number>> = { ...scaled, ...a.mgL };
    MOVABLE.forEach((key, i) => {
      if (key !== 'alkalinity') mgL[key] = toMgL(key, Math.max(0, e[i]!));
    });
    return mgL;
  };
  const alkalinityFrom = (e: readonly number[]): number => toMgL('alkalinity', e[MOVABLE.indexOf('alkalinity')]!);
  // What the immovable ions (fluoride, ammonium, strontium …) leave to be balanced by the movable ones.
  const immovable = MOVABLE.reduce(
    (sum, key) => (key === 'alkalinity' ? sum : sum - SIGN[key] * toMeq(key, solutesFrom(start)[key] ?? 0)),
    alkalinityByBalance(solutesMgL(solutesFrom(start))) / CACO3_G_PER_EQ,
  );
  const ecOf = (e: readonly number[]): number => {
    const water = waterFromPH(solutesFrom(e), alkalinityFrom(e), pH, 25);
    if (!water.ok) return Number.NaN;
    const state = settleWater(water.value, pH);
    return state.ok ? state.value.ec25UScm : Number.NaN;
  };

  const rows: LinearRow[] = [{ coefficients: MOVABLE.map((key) => SIGN[key]), right: -immovable }];
  if (a.hardnessMgL !== undefined) {
    rows.push({ coefficients: MOVABLE.map((key) => (key === 'Ca' || key === 'Mg' ? 1 : 0)), right: a.hardnessMgL / CACO3_G_PER_EQ });
  }
  const e = sequentialLeastSquares(start, reference, free, rows, ec25UScm === undefined ? null : { target: ec25UScm, of: ecOf });
  if (!e) {
    return fail(
      'ec25UScm',
      a.ec25UScm ?? null,
      'numbers that fit one water',
      `No electrically neutral water has all these values at once. Check ${namesOf(a)}.`,
    );
  }
  const water = waterFromPH(solutesFrom(e), alkalinityFrom(e), pH, a.pH === undefined ? 25 : a.temperatureC);
  if (!water.ok) return water;
  return ok({
    water: { ...water.value, temperatureC: a.temperatureC },
    origins: originsOf(a, measured, closingIon(e, reference, free)),
    factor,
    warning,
  });
}

const namesOf = (a: PartialAnalysis): string =>
  [
    a.ec25UScm !== undefined ? 'conductivity' : '',
    a.hardnessMgL !== undefined ? 'hardness' : '',
    a.alkalinityMgL !== undefined ? 'alkalinity' : '',
    a.pH !== undefined ? 'pH' : '',
    ...Object.keys(a.mgL ?? {}),
  ]
    .filter((name) => name !== '')
    .join(', ');

/** The free ion that moved most, meq/L: it is the one the charge balance closed on. */
function closingIon(e: readonly number[], reference: readonly number[], free: readonly boolean[]): Movable | null {
  let closing: Movable | null = null;
  let most = 0;
  MOVABLE.forEach((key, i) => {
    const shift = Math.abs(e[i]! - reference[i]!);
    if (free[i] && key !== 'Ca' && key !== 'Mg' && shift > most) {
      most = shift;
      closing = key;
    }
  });
  return closing;
}

function originsOf(a: PartialAnalysis, measured: Partial<Record<Movable, number>>, closing: Movable | null): CompletedWater['origins'] {
  const origins = { alkalinity: 'assumed', pH: a.pH === undefined ? 'assumed' : 'measured' } as Record<
    Solute | 'alkalinity' | 'pH',
    Origin
  >;
  for (const solute of SOLUTES) origins[solute] = a.mgL?.[solute] === undefined ? 'assumed' : 'measured';
  if (a.hardnessMgL !== undefined) {
    if (origins.Ca === 'assumed') origins.Ca = 'derived';
    if (origins.Mg === 'assumed') origins.Mg = 'derived';
  }
  if (measured.alkalinity !== undefined) origins.alkalinity = 'measured';
  if (closing !== null && origins[closing] === 'assumed') origins[closing] = 'derived';
  return origins;
}
