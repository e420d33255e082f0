import { MOLAR_MASS, vogelPaS } from '../water';

/**
 * Continuous electrodeionization: a direct current moves ions through cells filled with resin and, where salt runs out,
 * splits water, which keeps the resin regenerated. Faraday's law is exact; the shares are a fit to few facts (silica
 * removal 90–97 %, boron 80–92 % at full duty, 16 MΩ·cm on a feed of 20 µS/cm; recalled).
 */

const FARADAY = 96_485;
/** Share of the current that carries salt (fit); what regenerates resin after a fault (fit). */
export const CURRENT_SHARE = 0.4;
const REGENERATES_SHARE = 0.3;
/** Transfer units at nominal flow (film law of a bed, a cell of 0.4 m at 40 m/h), and how they fall with the flow. */
const NOMINAL = { units: 12, exponent: -2 / 3 } as const;
/** How much harder weak acids are held than strong ions (fit). */
export const WEAK_FACTORS = { carbon: 1.2, SiO2: 0.5, B: 0.38 } as const;
/** Least it leaves: salt and carbon, µmol/L, silica, mg/L. */
const FLOOR = { saltUmolL: 0.02, carbonUmolL: 0.01, silicaMgL: 0.001 } as const;
/** Share of the resin salt occupies that a design aims at, and where silica begins to pass. */
export const LOADED = { design: 0.45, most: 0.6 } as const;
/** Volts the electrodes take, resistance that grows by the year (0.03–0.15) and falls with warmth (fits). */
const ELECTRODE_V = 5;
const AGES = 0.08;
const WARMS = 0.02;
const RECTIFIER = 0.9;
/** Makers' conversion to the conductivity a feed counts as, µS/cm per mg/L (makers' guides, recalled). */
const COUNTS = { co2: 2.66, SiO2: 1.94 } as const;

/** What a feed counts as: conductivity with what CO2 and silica add, as makers' sheets name it, µS/cm. */
export const feedCountsUScm = (ec25UScm: number, co2MgL: number, silicaMgL: number): number =>
  ec25UScm + COUNTS.co2 * co2MgL + COUNTS.SiO2 * silicaMgL;

/** Hardness a feed may have by its recovery, mg/L as CaCO3 (ours; makers print 0.5 to 2). */
export const mostHardnessMgL = (recovery: number): number => 10 * (1 - recovery);

/** Cells of a stack in their flow. */
export interface Stack {
  readonly cells: number;
  readonly nominalLPerH: number;
  /** Share of the current that carries salt; calibrated where silica or resistivity was measured. */
  readonly currentShare?: number;
}

/** Share of the resin that salt occupies: below 1 water is split. No current: infinite. */
export const saltShare = (loadMeqL: number, flowLPerH: number, amp: number, { cells, currentShare = CURRENT_SHARE }: Stack): number =>
  amp > 0 ? (FARADAY * (flowLPerH / 3600) * (loadMeqL / 1000)) / (cells * amp * currentShare) : loadMeqL > 0 ? Infinity : 0;

/** Current for a share, A. */
export const ampsFor = (share: number, loadMeqL: number, flowLPerH: number, { cells, currentShare = CURRENT_SHARE }: Stack): number =>
  (FARADAY * (flowLPerH / 3600) * (loadMeqL / 1000)) / (cells * currentShare * share);

/** Transfer units at a flow and temperature. */
export const stackUnits = (flowLPerH: number, { nominalLPerH }: Stack, temperatureC: number): number =>
  NOMINAL.units *
  (flowLPerH / nominalLPerH) ** NOMINAL.exponent *
  (((temperatureC + 273.15) / 298.15) * (vogelPaS(25) / vogelPaS(temperatureC))) ** (2 / 3);

/** Load of a feed by what carries it, meq/L. */
export interface StackLoad {
  /** Strong anions. */
  readonly strongMeqL: number;
  /** Carbon, silica and boron, each an equivalent a mole. */
  readonly carbonMeqL: number;
  readonly silicaMeqL: number;
  readonly boronMeqL: number;
}
export const loadOf = ({ strongMeqL, carbonMeqL, silicaMeqL, boronMeqL }: StackLoad): number =>
  strongMeqL + carbonMeqL + silicaMeqL + boronMeqL;

/** Shares that come through. */
export interface StackPasses {
  readonly strong: number;
  readonly carbon: number;
  readonly silica: number;
  readonly boron: number;
}
/** What a stack lets through, without its floor. */
export function stackPasses(load: StackLoad, share: number, units: number): StackPasses {
  const least = Math.exp(-units);
  if (share < 1) {
    const weak = (factor: number): number => Math.exp(-factor * units * (1 - share));
    return { strong: least, carbon: weak(WEAK_FACTORS.carbon), silica: weak(WEAK_FACTORS.SiO2), boron: weak(WEAK_FACTORS.B) };
  }
  const weakMeqL = load.carbonMeqL + load.silicaMeqL + load.boronMeqL;
  const over = load.strongMeqL > 0 ? (loadOf(load) * (1 - 1 / share) - weakMeqL) / load.strongMeqL : 0;
  return { strong: Math.min(1, Math.max(least, over)), carbon: 1, silica: 1, boron: 1 };
}
/** What it leaves at the least, put to what comes through. */
export const STACK_FLOOR = {
  Na: (FLOOR.saltUmolL / 1000) * MOLAR_MASS.Na,
  Cl: (FLOOR.saltUmolL / 1000) * MOLAR_MASS.Cl,
  SiO2: FLOOR.silicaMgL,
  carbonMmolL: FLOOR.carbonUmolL / 1000,
} as const;

/** Resistance of a stack at 25 °C from what its plate says, Ω. */
export const ohms = (volt: number, amp: number): number => (volt - ELECTRODE_V) / amp;
const ohmsAt = (ohm25: number, temperatureC: number, years: number): number =>
  (ohm25 * (1 + AGES) ** years) / (1 + WARMS * (temperatureC - 25));
/** Volts for a current, cold and after years. */
export const voltsFor = (amp: number, ohm25: number, temperatureC: number, years = 0): number =>
  ELECTRODE_V + amp * ohmsAt(ohm25, temperatureC, years);
/** Most current a supply of so many volts drives, A. */
export const mostAmps = (volt: number, ohm25: number, temperatureC: number, years = 0): number =>
  Math.max(0, (volt - ELECTRODE_V) / ohmsAt(ohm25, temperatureC, years));
/** Electricity of a stack with its rectifier, W. */
export const stackW = (volt: number, amp: number): number => (volt * amp) / RECTIFIER;
/** Hydrogen at the cathode, L an hour at a temperature: vented outside. */
export const hydrogenLPerH = (amp: number, temperatureC: number): number =>
  ((amp * 3600) / (2 * FARADAY)) * 0.082057 * (temperatureC + 273.15);
/** Hours to regenerate so many equivalents of resin after a fault or a rest. */
export const regeneratesH = (eq: number, amp: number, cells: number): number => (eq * FARADAY) / (cells * amp * REGENERATES_SHARE * 3600);
/** Loss of the diluting cells at a flow and temperature, from the one printed at 25 °C, bar. */
export const stackLossBar = (
  printed: { readonly bar: number; readonly atLPerH: number },
  flowLPerH: number,
  temperatureC: number,
): number => (printed.bar * (flowLPerH / printed.atLPerH) * vogelPaS(temperatureC)) / vogelPaS(25);
