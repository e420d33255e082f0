import { BALANCE_CHARGE, CACO3_G_PER_EQ, MOLAR_MASS, SOLUTES, type SolutesMgL } from './solutes';

/** One test of an analysis against itself. */
export interface AnalysisCheck {
  readonly id: 'balance' | 'tds' | 'conductivity' | 'cations' | 'anions' | 'tdsPerConductivity';
  readonly label: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly unit: string;
  readonly passed: boolean;
}

/** Charges of an analysis, meq/L; alkalinity counts as an anion. */
export interface ChargeBalance {
  readonly cationsMeqL: number;
  readonly anionsMeqL: number;
  /** 100(Σc − Σa)/(Σc + Σa). */
  readonly differencePercent: number;
}

/** Sums of cations and anions; chlorine, silica and boron count as neutral. */
export function chargeBalance(mgL: SolutesMgL, alkalinityMgL: number): ChargeBalance {
  let cationsMeqL = 0;
  let anionsMeqL = alkalinityMgL / CACO3_G_PER_EQ;
  for (const solute of SOLUTES) {
    const meq = (BALANCE_CHARGE[solute] * mgL[solute]) / MOLAR_MASS[solute];
    if (meq > 0) cationsMeqL += meq;
    else anionsMeqL -= meq;
  }
  const sum = cationsMeqL + anionsMeqL;
  return { cationsMeqL, anionsMeqL, differencePercent: sum === 0 ? 0 : (100 * (cationsMeqL - anionsMeqL)) / sum };
}

/**
 * Largest |difference| in % that an anion sum allows: 0.2 meq/L up to 3 meq/L, 2 % to 10, 5 % above.
 * Standard Methods 1030E (recalled).
 */
export function allowedDifferencePercent({ cationsMeqL, anionsMeqL }: ChargeBalance): number {
  if (anionsMeqL <= 3) return cationsMeqL + anionsMeqL === 0 ? 100 : (100 * 0.2) / (cationsMeqL + anionsMeqL);
  return anionsMeqL <= 10 ? 2 : 5;
}

const check = (id: AnalysisCheck['id'], label: string, value: number, low: number, high: number, unit: string): AnalysisCheck => ({
  id,
  label,
  value,
  low,
  high,
  unit,
  passed: value >= low && value <= high,
});

/** What was measured beside the ions. */
export interface MeasuredSums {
  readonly ec25UScm?: number | undefined;
  readonly tdsMgL?: number | undefined;
}

/**
 * The tests a complete analysis must pass: Standard Methods 1030E (recalled). Those whose figure was not
 * measured are left out.
 *
 * @param calculatedEc25UScm conductivity the composition should have
 */
export function standardChecks(
  mgL: SolutesMgL,
  alkalinityMgL: number,
  measured: MeasuredSums,
  calculatedEc25UScm: number,
): AnalysisCheck[] {
  const balance = chargeBalance(mgL, alkalinityMgL);
  const allowed = allowedDifferencePercent(balance);
  // Silica counts as SiO3, which is what is left of it in the dish.
  const silicate = (mgL.SiO2 * 76.083) / 60.084;
  const dissolved = 0.6 * alkalinityMgL + mgL.Na + mgL.K + mgL.Ca + mgL.Mg + mgL.Cl + mgL.SO4 + silicate + mgL.NO3 + mgL.F;
  const { ec25UScm, tdsMgL } = measured;
  return [
    check('balance', 'Cations against anions', balance.differencePercent, -allowed, allowed, '%'),
    ...(tdsMgL === undefined || dissolved <= 0
      ? []
      : [check('tds', 'Measured over calculated dissolved solids', tdsMgL / dissolved, 1, 1.2, '')]),
    ...(ec25UScm === undefined
      ? []
      : [
          check('conductivity', 'Calculated over measured conductivity', calculatedEc25UScm / ec25UScm, 0.9, 1.1, ''),
          check('cations', '100 × cations over conductivity', (100 * balance.cationsMeqL) / ec25UScm, 0.9, 1.1, ''),
          check('anions', '100 × anions over conductivity', (100 * balance.anionsMeqL) / ec25UScm, 0.9, 1.1, ''),
        ]),
    ...(ec25UScm === undefined || tdsMgL === undefined
      ? []
      : [check('tdsPerConductivity', 'Dissolved solids over conductivity', tdsMgL / ec25UScm, 0.55, 0.7, '')]),
  ];
}

/** Per-mole conductivities of the hand method, S·cm²/mol. */
const HAND_LAMBDA = { Ca: 119, Mg: 106.2, Na: 50.1, K: 73.5, SO4: 160, Cl: 76.4, NO3: 71.4, HCO3: 44.5, CO3: 138.6 } as const;
const HAND_CHARGE = { Ca: 2, Mg: 2, Na: 1, K: 1, SO4: 2, Cl: 1, NO3: 1, HCO3: 1, CO3: 2 } as const;
const HAND_MASS = { ...MOLAR_MASS, HCO3: 61.017, CO3: 60.009 };

/**
 * Conductivity at 25 °C worked by hand: Standard Methods 2510 (recalled). No ion pairs; ionic strength below 0.1.
 *
 * @returns k°, and k after the activity factor, both µS/cm
 */
export function conductivityByHand(mgL: Partial<Record<keyof typeof HAND_LAMBDA, number>>): { readonly k0: number; readonly k: number } {
  let k0 = 0;
  let ionic = 0;
  for (const [ion, lambda] of Object.entries(HAND_LAMBDA) as [keyof typeof HAND_LAMBDA, number][]) {
    const mM = (mgL[ion] ?? 0) / HAND_MASS[ion];
    k0 += mM * lambda;
    ionic += (mM * HAND_CHARGE[ion] ** 2) / 2000;
  }
  const root = Math.sqrt(ionic);
  const y = 10 ** (-0.5 * (root / (1 + root) - 0.3 * ionic));
  return { k0, k: k0 * y * y };
}
