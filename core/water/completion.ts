import { findRoot } from '../numeric';
import { fail, firstError, listed, ok, outOfRange, percent, type Outcome } from '../quantity';
import { CHARACTER_ROWS, characterWater, scaledSolutes, type Character } from './characters';
import { conductivityAtPH } from './conductivityAtPH';
import type { LowestWater } from './consistency';
import { consistentEc, consistentHardness, ION_WORDS, plain } from './contradictions';
import { equilibria } from './equilibria';
import { conductivityGradient, sequentialLeastSquares, type LinearRow } from './leastSquares';
import { fromLowest, nearest } from './likeliest';
import { MOVABLE, signOf, toMeq, toMgL, type Movable } from './movable';
import { chargeBalance, type ChargeBalance } from './standardChecks';
import { CACO3_G_PER_EQ, HARDNESS_PER_MG, MOLAR_MASS, SOLUTES, solutesMgL, type Solute, type SolutesMgL } from './solutes';
import { conditionedSpread, MEASURED_SHARE, METER_SHARE, meterSpread, priorSpread, type NoisyRow } from './uncertainty';
import { completeAcid, isAcid } from './acid';
import type { PartialAnalysis } from './analysis';
import { alkalinityByBalance, settleWater, waterFromPH, type Water } from './water';

/** How sure a number is: entered, fixed by what was entered, or filled in from the kind of supply. */
export type Origin = 'measured' | 'derived' | 'assumed';

/** Whether a hardness rests on what nobody measured. */
export const isHardnessAssumed = ({ Ca, Mg }: { readonly Ca: Origin; readonly Mg: Origin }): boolean =>
  Ca === 'assumed' || Mg === 'assumed';

/** From what a water was completed: nothing but its kind, one reading, some measured values, or a whole analysis. */
export type Rung = 'usual' | 'reading' | 'kit' | 'report';

export interface CompletedWater {
  readonly water: Water;
  readonly rung: Rung;
  readonly origins: Readonly<Record<Solute | 'alkalinity' | 'pH', Origin>>;
  /** One standard deviation, mg/L (alkalinity as CaCO3). */
  readonly plusMinusMgL: Readonly<Record<Solute | 'alkalinity', number>>;
  /** Conductivity it was read at, µS/cm at 25 °C; null where none was given. */
  readonly readUScm: number | null;
  /** Strength of the assumed part against the listed character. */
  readonly factor: number;
  /** Charges as entered, before any closing. */
  readonly balance: ChargeBalance;
  /** Ion the balance of a whole analysis was closed on, if asked for. */
  readonly closedOn: 'Na' | 'Cl' | null;
  /** A contradiction small enough to work with, in one sentence. */
  readonly warning: string | null;
  /** By how much more it conducts than was read, as a share, where meter and kit do not fit one likely water; else null. */
  readonly misfit: number | null;
}

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
  const total = SOLUTES.reduce((sum, s) => sum + (a.mgL?.[s] ?? 0), 0);
  return firstError(
    outOfRange('temperatureC', 'Temperature', a.temperatureC, 0, 60, '°C'),
    optional('ec25UScm', 'Conductivity', a.ec25UScm, 0.055, 200_000, 'µS/cm'),
    optional('hardnessMgL', 'Hardness', a.hardnessMgL, 0, 20_000, 'mg/L as CaCO₃'),
    optional('alkalinityMgL', 'Alkalinity', a.alkalinityMgL, 0, 20_000, 'mg/L as CaCO₃'),
    optional('pH', 'pH', a.pH, 0, 14, ''),
    ...SOLUTES.map((s) => optional(`mgL.${s}`, s, a.mgL?.[s], 0, 300_000, 'mg/L')),
    ...SOLUTES.map((s) => optional(`below.${s}`, `${s} below`, a.below?.[s], 0, 300_000, 'mg/L')),
    outOfRange('mgL', 'The sum of all ions', total, 0, 200_000, 'mg/L'),
  );
}

/**
 * The strength at which a character conducts as measured (rung a).
 * Conductivity rises with strength, so a bracket on its logarithm always works.
 */
function characterFactor(character: Character, ec25UScm: number): Outcome<number> {
  const { pH } = CHARACTER_ROWS[character];
  const atPH = pH === null ? null : conductivityAtPH(pH);
  const ec25 = (factor: number): number => {
    if (atPH) {
      const mgL = scaledSolutes(character, factor);
      return atPH(mgL, alkalinityByBalance(mgL));
    }
    const water = characterWater(character, factor);
    const state = water.ok ? settleWater(water.value) : water;
    return state.ok ? state.value.ec25UScm : Number.NaN;
  };
  const ecAt = (lnFactor: number): number => Math.log(ec25(Math.exp(lnFactor)) / ec25UScm);
  // Listed waters conduct close to in proportion: a narrow bracket is nearly always enough. A wide one may reach
  // brines beyond the law, where there is no figure at all, so it is widened downwards first.
  const guess = -ecAt(0);
  const brackets = [
    [guess - 0.3, guess + 0.3],
    [guess - 1.5, guess + 0.3],
    [Math.log(1e-5), guess],
    [guess, guess + 1.5],
  ] as const;
  const root = brackets.reduce<ReturnType<typeof findRoot>>((found, [low, high]) => found ?? findRoot(ecAt, low, high, 1e-9), null);
  if (!root || !characterWater(character, Math.exp(root.x)).ok) {
    if (ec25UScm < 10)
      return fail(
        'ec25UScm',
        ec25UScm,
        'a reading above pure water',
        'This reading is too pure to be a supply: enter it as product water.',
      );
    const kind = CHARACTER_ROWS[character].label.toLowerCase();
    return fail(
      'ec25UScm',
      ec25UScm,
      `a conductivity a ${kind} supply can have`,
      `No ${kind} water conducts ${plain(ec25UScm)} µS/cm. Choose the kind of supply: brackish or seawater? Or was the reading in another unit?`,
    );
  }
  return ok(Math.exp(root.x));
}

/** Factor when no conductivity was measured: by hardness, or failing that by alkalinity. */
function factorWithoutEc(a: PartialAnalysis): Outcome<number> {
  const listed = scaledSolutes(a.character, 1);
  const listedHardness = listed.Ca * HARDNESS_PER_MG.Ca + listed.Mg * HARDNESS_PER_MG.Mg;
  const ions = (a.mgL?.Ca ?? 0) * HARDNESS_PER_MG.Ca + (a.mgL?.Mg ?? 0) * HARDNESS_PER_MG.Mg;
  const hardness = a.hardnessMgL ?? ions;
  if (hardness > 0) return ok(hardness / listedHardness);
  if (a.alkalinityMgL !== undefined && a.alkalinityMgL > 0) return ok(a.alkalinityMgL / alkalinityByBalance(listed));
  return fail(
    'ec25UScm',
    null,
    'a conductivity, a hardness or an alkalinity',
    'Enter a meter reading, a hardness or an alkalinity: at least one is needed to know this water.',
  );
}

/** The analysis with every "<x" counted as half of it. */
const withHalves = (a: PartialAnalysis): PartialAnalysis => ({
  ...a,
  mgL: { ...Object.fromEntries(Object.entries(a.below ?? {}).map(([solute, limit]) => [solute, limit / 2])), ...a.mgL },
});

/** Whether every major ion is known, so that nothing is left to close the charge with. */
function isWhole(a: PartialAnalysis): boolean {
  const has = (solute: Solute): boolean => a.mgL?.[solute] !== undefined;
  const hardnessKnown = (has('Ca') && has('Mg')) || a.hardnessMgL !== undefined;
  return hardnessKnown && a.alkalinityMgL !== undefined && has('Na') && has('Cl') && has('SO4');
}

/**
 * Completes what is known to one water.
 *
 * One meter reading alone scales the kind of supply to it. With hardness, alkalinity, pH or single ions, measured
 * values are kept as they are and the rest moves as little as possible from the scaled supply so that charge,
 * hardness and conductivity all hold (least squares with bounds). A whole analysis is kept as it stands: what does
 * not fit in it is said by `standardChecks`, and closed only on request.
 *
 * @returns an error naming exactly the numbers that contradict each other, when they do
 */
export function completeWater(entered: PartialAnalysis): Outcome<CompletedWater> {
  const invalid = analysisError(entered);
  if (invalid) return { ok: false, error: invalid };
  if (entered.usual) return usualWater(entered);
  const halved = withHalves(entered);
  const hardness = consistentHardness(halved);
  if (!hardness.ok) return hardness;
  const whole = isWhole(halved);
  const { hardnessMgL: _typed, ...rest } = halved;
  const analysis: PartialAnalysis = hardness.value.hardnessMgL === undefined ? rest : { ...rest, hardnessMgL: hardness.value.hardnessMgL };

  if (isAcid(analysis)) return acidWater(entered, analysis);

  const consistent = whole ? ok({ ec25UScm: analysis.ec25UScm, warning: null, lowest: null }) : consistentEc(analysis);
  if (!consistent.ok) return consistent;
  const { ec25UScm, warning, lowest } = consistent.value;
  const factor = ec25UScm === undefined ? factorWithoutEc(analysis) : characterFactor(analysis.character, ec25UScm);
  // A whole analysis needs the kind of supply for its traces only: as listed will do.
  if (whole) return completeWhole(entered, analysis, factor.ok ? factor.value : 1);
  if (!factor.ok) return factor;
  const nothingElse = hardness.value.hardnessMgL === undefined && analysis.alkalinityMgL === undefined && analysis.pH === undefined;
  if (nothingElse && Object.keys(analysis.mgL ?? {}).length === 0) {
    const water = characterWater(analysis.character, factor.value);
    if (!water.ok) return water;
    return ok(finish(entered, { ...water.value, temperatureC: analysis.temperatureC }, 'reading', factor.value, null, warning));
  }
  return completeByLeastSquares(entered, analysis, factor.value, ec25UScm, warning, lowest);
}

/** A usual water of its kind, where nobody measured anything. */
function usualWater({ character, temperatureC }: PartialAnalysis): Outcome<CompletedWater> {
  const water = characterWater(character, 1);
  return water.ok ? ok(finish({ character, temperatureC }, { ...water.value, temperatureC }, 'usual', 1, null, null)) : water;
}

/** A water below pH 5.5 whose alkalinity nobody measured: what it lacks follows from its pH and the air, not from its charges. */
function acidWater(entered: PartialAnalysis, a: PartialAnalysis): Outcome<CompletedWater> {
  const found = completeAcid(a);
  if (!found.ok) return found;
  const { water, factor, closedOn } = found.value;
  const completed = finish(
    entered,
    { ...water, temperatureC: a.temperatureC },
    a.hardnessMgL === undefined && !a.mgL ? 'reading' : 'kit',
    factor,
    null,
    null,
  );
  if (!closedOn || completed.origins[closedOn] === 'measured') return ok(completed);
  return ok({ ...completed, origins: { ...completed.origins, [closedOn]: 'derived', alkalinity: 'derived' } });
}

/** Keeps a whole analysis as measured; what it leaves out is filled from the kind of supply. */
function completeWhole(entered: PartialAnalysis, a: PartialAnalysis, factor: number): Outcome<CompletedWater> {
  const scaled = scaledSolutes(a.character, factor);
  const mgL: Record<Solute, number> = { ...scaled, ...a.mgL };
  if (a.hardnessMgL !== undefined) splitHardness(mgL, a, scaled);
  const alkalinityMgL = a.alkalinityMgL!;
  const balance = chargeBalance(mgL, alkalinityMgL);
  const missing = balance.anionsMeqL - balance.cationsMeqL;
  const closedOn = a.closeBalance && Math.abs(missing) > 1e-9 ? (missing > 0 ? 'Na' : 'Cl') : null;
  if (closedOn) mgL[closedOn] += Math.abs(missing) * MOLAR_MASS[closedOn];
  const pH = a.pH ?? CHARACTER_ROWS[a.character].pH ?? 7;
  const water = waterFromPH(mgL, alkalinityMgL, pH, a.pH === undefined ? 25 : a.temperatureC);
  if (!water.ok) return water;
  const completed = finish(entered, { ...water.value, temperatureC: a.temperatureC }, 'report', factor, closedOn, null);
  return ok({ ...completed, balance, closedOn });
}

/** Shares a hardness between calcium and magnesium: what one of them leaves, or as the kind of supply has it. */
function splitHardness(mgL: Record<Solute, number>, a: PartialAnalysis, scaled: SolutesMgL): void {
  const ca = a.mgL?.Ca;
  const mg = a.mgL?.Mg;
  const hardness = a.hardnessMgL!;
  if (ca !== undefined) mgL.Mg = Math.max(0, hardness - ca * HARDNESS_PER_MG.Ca) / HARDNESS_PER_MG.Mg;
  else if (mg !== undefined) mgL.Ca = Math.max(0, hardness - mg * HARDNESS_PER_MG.Mg) / HARDNESS_PER_MG.Ca;
  else {
    const listed = scaled.Ca * HARDNESS_PER_MG.Ca + scaled.Mg * HARDNESS_PER_MG.Mg;
    mgL.Ca = (scaled.Ca * hardness) / listed;
    mgL.Mg = (scaled.Mg * hardness) / listed;
  }
}

/** Whether a conductivity still tells something: a major cation and a major anion must both be free to move. */
function conductivityTells(a: PartialAnalysis): boolean {
  const free = (solute: Solute): boolean => a.mgL?.[solute] === undefined;
  const cation = free('Na') || (a.hardnessMgL === undefined && (free('Ca') || free('Mg')));
  return cation && (free('Cl') || free('SO4') || a.alkalinityMgL === undefined);
}

function completeByLeastSquares(
  entered: PartialAnalysis,
  a: PartialAnalysis,
  factor: number,
  ec25UScm: number | undefined,
  warning: string | null,
  lowest: LowestWater | null,
): Outcome<CompletedWater> {
  const scaled = scaledSolutes(a.character, factor);
  const scaledAlkalinity = alkalinityByBalance(scaled);
  const pH = a.pH ?? CHARACTER_ROWS[a.character].pH ?? 7;
  const measured = measuredMeq(a);
  const reference = MOVABLE.map((key) => toMeq(key, key === 'alkalinity' ? Math.max(0, scaledAlkalinity) : scaled[key]));
  const start = MOVABLE.map((key, i) => measured[key] ?? reference[i]!);
  const free = MOVABLE.map((key) => measured[key] === undefined);

  const solutesFrom = (e: readonly number[]): SolutesMgL => {
    const mgL: Record<Solute, number> = { ...scaled, ...a.mgL };
    MOVABLE.forEach((key, i) => {
      if (key !== 'alkalinity' && free[i]) mgL[key] = toMgL(key, Math.max(0, e[i]!));
    });
    return mgL;
  };
  const alkalinityFrom = (e: readonly number[]): number => a.alkalinityMgL ?? toMgL('alkalinity', e[MOVABLE.indexOf('alkalinity')]!);
  // What the immovable ions (fluoride, ammonium, strontium …) leave to be balanced by the movable ones.
  const immovable = MOVABLE.reduce(
    (sum, key, i) => (key === 'alkalinity' ? sum : sum - signOf(key) * start[i]!),
    alkalinityByBalance(solutesMgL(solutesFrom(start))) / CACO3_G_PER_EQ,
  );
  const charge: LinearRow = { coefficients: MOVABLE.map(signOf), right: -immovable };
  const hardness: LinearRow | null =
    a.hardnessMgL === undefined
      ? null
      : { coefficients: MOVABLE.map((key) => (key === 'Ca' || key === 'Mg' ? 1 : 0)), right: a.hardnessMgL / CACO3_G_PER_EQ };
  const ecOf = conductivityAtPH(pH);
  const bound =
    ec25UScm === undefined || !conductivityTells(a)
      ? null
      : { target: ec25UScm, of: (e: readonly number[]) => ecOf(solutesFrom(e), alkalinityFrom(e)) };
  const rows = hardness ? [charge, hardness] : [charge];
  const kept = nearest(start, reference, free, rows, bound, a.hardnessMgL !== undefined);
  const e =
    kept ??
    sequentialLeastSquares(start, reference, free, rows, bound) ??
    (bound && lowest && fromLowest(lowest, reference, free, rows, bound));
  if (!e) return impossible(a, bound !== null, start, immovable);

  const water = waterFromPH(solutesFrom(e), alkalinityFrom(e), pH, a.pH === undefined ? 25 : a.temperatureC);
  if (!water.ok) return water;
  const closing = closingIon(e, reference, free);
  const off = kept && entered.ec25UScm !== undefined && bound ? bound.of(kept) / entered.ec25UScm - 1 : 0;
  const misfit = Math.abs(off) > (entered.ec25Doubt ?? METER_SHARE) ? off : null;
  const says = misfit === null ? warning : misfitText(a, misfit, entered.ec25UScm!);
  return ok(finish(entered, { ...water.value, temperatureC: a.temperatureC }, 'kit', factor, closing, says, misfit));
}

/** What does not fit the reading, and by how much. */
function misfitText(a: PartialAnalysis, misfit: number, readUScm: number): string {
  const by = `${percent(Math.abs(misfit))} ${misfit > 0 ? 'more' : 'less'}`;
  const used = plain(readUScm * (1 + misfit));
  const names = listed([
    ...(a.hardnessMgL === undefined ? [] : ['hardness']),
    ...(a.alkalinityMgL === undefined ? [] : ['alkalinity']),
    ...Object.keys(a.mgL ?? {}).flatMap((ion) => ION_WORDS[ion as Solute] ?? []),
  ]);
  const both = a.mgL?.Ca === undefined ? ' If both are right, measure calcium.' : '';
  return `With ${names === '' ? 'these figures' : `this ${names}`} a ${CHARACTER_ROWS[a.character].label.toLowerCase()} supply conducts about ${used} µS/cm, ${by} than the ${plain(readUScm)} read; worked with ${used}. Check the meter and the kit.${both}`;
}

/** The measured ones of the movable quantities, meq/L. */
function measuredMeq(a: PartialAnalysis): Partial<Record<Movable, number>> {
  const meq: Partial<Record<Movable, number>> = {};
  for (const key of MOVABLE) {
    const mgL = key === 'alkalinity' ? a.alkalinityMgL : a.mgL?.[key];
    if (mgL !== undefined) meq[key] = toMeq(key, mgL);
  }
  return meq;
}

/** Why no neutral water has the entered values, in the numbers a person can check. */
function impossible(a: PartialAnalysis, withConductivity: boolean, start: readonly number[], immovable: number): Outcome<never> {
  const names = namesOf(a);
  if (withConductivity)
    return fail(
      'ec25UScm',
      a.ec25UScm ?? null,
      'numbers that fit one water',
      `No electrically neutral water has all these values at once. Check ${names}.`,
    );
  const side = (sign: 1 | -1): number =>
    MOVABLE.reduce((sum, key, i) => (signOf(key) === sign && isMeasured(a, key) ? sum + start[i]! : sum), Math.max(0, sign * immovable));
  const [cations, anions] = [side(1), side(-1)];
  return fail(
    cations > anions ? 'mgL.Cl' : 'mgL.Na',
    Number((cations - anions).toPrecision(3)),
    'cations and anions that can balance',
    `Cations entered sum to ${plain(cations)} meq/L and anions to ${plain(anions)} meq/L, and nothing left open can take up the difference. Check ${names}.`,
  );
}

function isMeasured(a: PartialAnalysis, key: Movable): boolean {
  if (key === 'alkalinity') return a.alkalinityMgL !== undefined;
  return a.mgL?.[key] !== undefined || ((key === 'Ca' || key === 'Mg') && a.hardnessMgL !== undefined);
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

/** Carbon dioxide above which a water is a gassy well, or its pH is wrong, atm. */
const GASSY_ATM = 0.1;

/** What is said where a typed pH needs more carbon dioxide than a supply has. */
function gassy({ pH, alkalinityMgL }: PartialAnalysis, water: Water): string | null {
  if (pH === undefined || alkalinityMgL === undefined) return null;
  const state = settleWater(water, pH);
  if (!state.ok || state.value.co2MgL / 44_010 / equilibria(water.temperatureC).kh < GASSY_ATM) return null;
  return `pH ${plain(pH)} with alkalinity ${plain(alkalinityMgL)} mg/L as CaCO₃ needs ${plain(state.value.co2MgL)} mg/L of CO₂: is it a gassy well?`;
}

/** Marks and spreads of a completed water. */
function finish(
  entered: PartialAnalysis,
  water: Water,
  rung: Rung,
  factor: number,
  closing: Movable | null,
  warning: string | null,
  misfit: number | null = null,
): CompletedWater {
  const origins =
    rung === 'reading' && entered.character === 'seawater' ? seaOrigins(originsOf(entered, closing)) : originsOf(entered, closing);
  warning ??= gassy(entered, water);
  return {
    water,
    rung,
    origins,
    plusMinusMgL: {
      ...spreads(entered, water, origins, misfit ?? 0),
      ...(rung === 'reading' && entered.character === 'seawater' ? seaSpreads(entered, water) : {}),
    },
    readUScm: entered.ec25UScm ?? null,
    factor,
    balance: chargeBalance(water.mgL, water.alkalinityMgL),
    closedOn: null,
    warning,
    misfit,
  };
}

function originsOf(a: PartialAnalysis, closing: Movable | null): CompletedWater['origins'] {
  const origins = { alkalinity: 'assumed', pH: a.pH === undefined ? 'assumed' : 'measured' } as Record<
    Solute | 'alkalinity' | 'pH',
    Origin
  >;
  for (const solute of SOLUTES) origins[solute] = a.mgL?.[solute] === undefined ? 'assumed' : 'measured';
  if (a.hardnessMgL !== undefined) {
    if (origins.Ca === 'assumed') origins.Ca = 'derived';
    if (origins.Mg === 'assumed') origins.Mg = 'derived';
  }
  if (a.alkalinityMgL !== undefined) origins.alkalinity = 'measured';
  if (closing !== null && (origins[closing] === 'assumed' || a.closeBalance)) origins[closing] = 'derived';
  return origins;
}

/** Salts that stand in the same proportion in all the seas: salinity gives every one of them (Dittmar 1884; Millero 2008). */
const OF_THE_SEA = ['Ca', 'Mg', 'Na', 'K', 'Sr', 'Cl', 'SO4', 'F', 'B'] as const satisfies readonly Solute[];
/** How far those proportions are from constant, and the alkalinity's from salinity (Lee and others 2006: some 2 % in the open sea, more at coasts). */
const SEA_SHARE = { salt: 0.01, alkalinity: 0.05 } as const;

/** What follows from the salinity of a sea water that nobody looked at further. */
function seaOrigins(origins: CompletedWater['origins']): CompletedWater['origins'] {
  const derived = Object.fromEntries([...OF_THE_SEA, 'alkalinity'].map((key) => [key, 'derived'] as const));
  return { ...origins, ...derived };
}

/** The same spreads for a sea water of a known strength: its salts are known as well as its salinity. */
function seaSpreads(a: PartialAnalysis, water: Water): Partial<CompletedWater['plusMinusMgL']> {
  const reading = a.ec25Doubt ?? METER_SHARE;
  const salts = OF_THE_SEA.map((key) => [key, Math.hypot(reading, SEA_SHARE.salt) * water.mgL[key]] as const);
  return { ...Object.fromEntries(salts), alkalinity: Math.hypot(reading, SEA_SHARE.alkalinity) * water.alkalinityMgL };
}

/** One standard deviation of each amount, from what was measured and what charge, hardness and conductivity leave open. */
function spreads(a: PartialAnalysis, water: Water, origins: CompletedWater['origins'], misfit: number): CompletedWater['plusMinusMgL'] {
  const all = {} as Record<Solute | 'alkalinity', number>;
  for (const solute of SOLUTES) {
    all[solute] = a.mgL?.[solute] === undefined ? 0.5 * water.mgL[solute] : MEASURED_SHARE * water.mgL[solute];
    if (a.below?.[solute] !== undefined) all[solute] = a.below[solute] / 2;
  }
  const e = MOVABLE.map((key) => Math.max(0, toMeq(key, key === 'alkalinity' ? water.alkalinityMgL : water.mgL[key])));
  const prior = MOVABLE.map((key, i) => {
    const known = key === 'alkalinity' ? a.plusMinus?.alkalinityMgL : undefined;
    if (known !== undefined) return known / CACO3_G_PER_EQ;
    return a.below?.[key as Solute] !== undefined ? toMeq(key, all[key]) : priorSpread(e[i]!, origins[key] === 'measured');
  });
  const rows: NoisyRow[] = [{ coefficients: MOVABLE.map(signOf), spread: 0.005 }];
  if (a.hardnessMgL !== undefined) {
    // Which of kit and meter is off by as much is not known: either may be.
    const plusMinus = Math.hypot(a.plusMinus?.hardnessMgL ?? MEASURED_SHARE * a.hardnessMgL, misfit * a.hardnessMgL);
    rows.push({ coefficients: MOVABLE.map((key) => (key === 'Ca' || key === 'Mg' ? 1 : 0)), spread: plusMinus / CACO3_G_PER_EQ });
  }
  if (a.ec25UScm !== undefined) {
    const state = settleWater(water);
    const pH = state.ok ? state.value.pH : 7;
    const ecOf = conductivityAtPH(pH);
    const of = (amounts: readonly number[]): number => {
      const mgL: Record<Solute, number> = { ...water.mgL };
      MOVABLE.forEach((key, i) => {
        if (key !== 'alkalinity') mgL[key] = toMgL(key, amounts[i]!);
      });
      return ecOf(mgL, toMgL('alkalinity', amounts[MOVABLE.indexOf('alkalinity')]!));
    };
    const coefficients = conductivityGradient(
      e,
      e.map(() => true),
      of,
    );
    if (coefficients.every(Number.isFinite)) rows.push({ coefficients, spread: Math.hypot(meterSpread(a.ec25UScm), misfit * a.ec25UScm) });
  }
  conditionedSpread(prior, rows).forEach((spread, i) => {
    all[MOVABLE[i]!] = toMgL(MOVABLE[i]!, spread);
  });
  return all;
}
