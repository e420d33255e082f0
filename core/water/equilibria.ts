import { daviesSlope, densityKgPerL } from './properties';

/**
 * Equilibrium constants with temperature. All are recalled from the sources named beside them; every
 * one is checked at 25 °C, and several at 10 °C, against the accepted value in `equilibria.test.ts`.
 */
export interface Equilibria {
  readonly temperatureC: number;
  /** Slope A of the Davies law at this temperature. */
  readonly slope: number;
  /** Ion product of water. */
  readonly kw: number;
  /** CO2(aq) = H + HCO3. */
  readonly k1: number;
  /** HCO3 = H + CO3. */
  readonly k2: number;
  /** Henry's law, mol/kg per atm. */
  readonly kh: number;
  readonly calcite: number;
  readonly aragonite: number;
  readonly caHco3: number;
  readonly caCo3: number;
  readonly mgHco3: number;
  readonly mgCo3: number;
  readonly naHco3: number;
  readonly caSo4: number;
  readonly mgSo4: number;
  readonly naSo4: number;
  readonly kSo4: number;
  readonly baSo4: number;
  readonly srSo4: number;
  readonly mgF: number;
  readonly caF: number;
  /** Ca + OH = CaOH. */
  readonly caOh: number;
  readonly ammonium: number;
  readonly phosphoric1: number;
  readonly phosphoric2: number;
  readonly phosphoric3: number;
  readonly silicic: number;
  readonly boric: number;
  readonly hypochlorous: number;
  readonly hydrofluoric: number;
  readonly bisulfate: number;
}

/** van 't Hoff shift of a constant known at 25 °C; enthalpy in kJ/mol. */
function shifted(logK25: number, enthalpyKJ: number, T: number): number {
  return logK25 - ((enthalpyKJ * 1000) / (8.314463 * Math.LN10)) * (1 / T - 1 / 298.15);
}

const recent = new Map<number, Equilibria>();

/**
 * All constants at a temperature in °C. A train asks for the same two temperatures dozens of times a solve, and
 * thirty powers of ten cost as much as the speciation itself, so the last few answers are remembered.
 */
export function equilibria(t: number): Equilibria {
  const known = recent.get(t);
  if (known) return known;
  if (recent.size >= 64) recent.clear();
  const computed = computeEquilibria(t);
  recent.set(t, computed);
  return computed;
}

function computeEquilibria(t: number): Equilibria {
  const T = t + 273.15;
  const logT = Math.log10(T);
  // Plummer & Busenberg's pair constants, and the shifted ones, were measured to 90 °C: held above.
  const P = Math.min(T, 363.15);
  const logP = Math.log10(P);
  const T2 = T * T;
  const logRho = Math.log10(densityKgPerL(t));
  const power = (logK: number): number => 10 ** logK;
  return {
    temperatureC: t,
    slope: daviesSlope(t),
    // Marshall & Franck 1981; 0–1000 °C
    kw: power(-4.098 - 3245.2 / T + 2.2362e5 / T2 - 3.984e7 / (T2 * T) + (13.957 - 1262.3 / T + 8.5641e5 / T2) * logRho),
    // Plummer & Busenberg 1982; 0–250 °C (calcite and aragonite 0–90)
    k1: power(-356.3094 - 0.06091964 * T + 21834.37 / T + 126.8339 * logT - 1684915 / T2),
    k2: power(-107.8871 - 0.03252849 * T + 5151.79 / T + 38.92561 * logT - 563713.9 / T2),
    kh: power(108.3865 + 0.01985076 * T - 6919.53 / T - 40.45154 * logT + 669365 / T2),
    calcite: power(-171.9065 - 0.077993 * T + 2839.319 / T + 71.595 * logT),
    aragonite: power(-171.9773 - 0.077993 * T + 2903.293 / T + 71.595 * logT),
    caHco3: power(1209.12 + 0.31294 * P - 34765.05 / P - 478.782 * logP),
    caCo3: power(-1228.732 - 0.299444 * P + 35512.75 / P + 485.818 * logP),
    // Nordstrom et al. 1990, with the others below. NaCO3 is left out: its constant belongs to another activity law, and
    // with this one the carbonate buffer would come out 0.15 too low (10.012 at 25 °C by the standard, 10.014 without it).
    mgHco3: power(-59.215 + 2537.455 / P + 20.92298 * logP),
    mgCo3: power(0.991 + 0.00667 * P),
    naHco3: power(-0.25),
    caSo4: power(shifted(2.3, 6.9, T)),
    // Its enthalpy from conductance between 0 and 45 °C (recalled as 5 to 8 kJ/mol).
    mgSo4: power(shifted(2.37, 6, T)),
    naSo4: power(shifted(0.7, 4.69, T)),
    kSo4: power(shifted(0.85, 9.41, T)),
    // Its temperature is not known: held.
    baSo4: power(2.7),
    srSo4: power(shifted(2.29, 8.7, T)),
    mgF: power(shifted(1.82, 13.4, P)),
    caF: power(shifted(0.94, 17.2, P)),
    caOh: power(shifted(1.22, 8.3, P)),
    // Emerson et al. 1975
    ammonium: power(-(0.09018 + 2729.92 / T)),
    // Bates 1951; Bates & Acree 1943
    phosphoric1: power(-(799.31 / T - 4.5535 + 0.013486 * T)),
    phosphoric2: power(-(1979.5 / T - 5.3541 + 0.01984 * T)),
    phosphoric3: power(shifted(-12.35, 14.6, T)),
    // Nordstrom et al. 1990
    silicic: power(-302.3724 - 0.050698 * T + 15669.69 / T + 108.18466 * logT - 1119669 / T2),
    // Manov et al. 1944
    boric: power(-(2237.94 / T + 0.016883 * T - 3.305)),
    // Morris 1966; 5–35 °C
    hypochlorous: power(-(3000 / T - 10.0686 + 0.0253 * T)),
    // Nordstrom et al. 1990
    hydrofluoric: power(-(-2.033 + 0.012645 * T + 429.01 / T)),
    bisulfate: power(-(-56.889 + 0.006473 * T + 2307.9 / T + 19.8858 * logT)),
  };
}
