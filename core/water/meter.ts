import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import { limitingNaCl, limitingWater } from './conductivity';
import { equilibria } from './equilibria';
import { densityKgPerL } from './properties';
import { SEA_SALINITY, practicalSalinity, salinityFrom, seaConductivityMScm } from './salinity';
import { CACO3_G_PER_EQ, MOLAR_MASS, solutesMgL } from './solutes';
import { settleWater } from './water';

/** How an instrument turns conductivity into what it shows. */
export type MeterScale =
  | { readonly kind: 'conductivity' }
  /** ppm = factor × EC25. */
  | { readonly kind: 'factor'; readonly factor: number }
  /** ppm = mg/L of the salt that conducts as much. */
  | { readonly kind: 'curve'; readonly salt: MeterSalt }
  /** Practical salinity, g/kg: a refractometer, or a pen for sea water. */
  | { readonly kind: 'salinity' }
  /** MΩ·cm at 25 °C: a cell for the purest water. */
  | { readonly kind: 'resistivity' };

/** Salts a ppm meter is scaled by; the mixture is of sodium sulfate, bicarbonate and chloride, 4 : 4 : 2 by mass. */
export const METER_SALTS = ['NaCl', 'KCl', 'mixedSalts'] as const;
export type MeterSalt = (typeof METER_SALTS)[number];

/**
 * How an instrument corrects for temperature: not at all, by a share per degree, or by taking the water's own ions apart
 * from the salt's, as line monitors of pure water do (common practice).
 */
export const COMPENSATIONS = ['none', 'linear', 'pure'] as const;
export type Compensation = (typeof COMPENSATIONS)[number];

/** What is known of an instrument: its scale, how it corrects for temperature, and its own error. */
export interface Meter {
  readonly scale: MeterScale;
  /** Shown = gain × true + offset, in the unit it shows; from comparing it. 1 and 0 when it was never compared. */
  readonly gain: number;
  readonly offset: number;
  readonly compensation: Compensation;
  /** A linear correction's share per °C; 0.02 is common. */
  readonly alphaPerC: number;
}

/** A meter as it comes: ppm by a factor or µS/cm, corrected by 2 %/°C. */
export const plainMeter = (scale: MeterScale): Meter => ({ scale, gain: 1, offset: 0, compensation: 'linear', alphaPerC: 0.02 });

/** Conductivity at 25 °C of a solution of one salt; bicarbonate as alkalinity with equal carbon. */
export function saltConductivityUScm(salt: MeterSalt | 'NaHCO3', mgL: number): number {
  const na = (mg: number, molar: number, per: number): number => (mg / molar) * per * MOLAR_MASS.Na;
  const bicarbonate = salt === 'mixedSalts' ? 0.4 * mgL : salt === 'NaHCO3' ? mgL : 0;
  const sulfate = salt === 'mixedSalts' ? 0.4 * mgL : 0;
  const chloride = salt === 'mixedSalts' ? 0.2 * mgL : salt === 'NaCl' ? mgL : 0;
  const potassium = salt === 'KCl' ? mgL : 0;
  const bicarbonateMmolL = bicarbonate / 84.007;
  const water = {
    mgL: solutesMgL({
      Na: na(bicarbonate, 84.007, 1) + na(sulfate, 142.043, 2) + na(chloride, 58.443, 1),
      K: (potassium / 74.551) * MOLAR_MASS.K,
      Cl: (chloride / 58.443 + potassium / 74.551) * MOLAR_MASS.Cl,
      SO4: (sulfate / 142.043) * MOLAR_MASS.SO4,
    }),
    alkalinityMgL: bicarbonateMmolL * CACO3_G_PER_EQ,
    carbonMmolL: bicarbonateMmolL,
    temperatureC: 25,
  };
  const state = settleWater(water);
  // The inputs are a single clean salt; the only way to fail is a strength the caller has excluded.
  return state.ok ? state.value.ec25UScm : Number.NaN;
}

/**
 * Conductivity behind a figure on a scale, at whatever temperature the figure stands for.
 *
 * @param reading ppm, or µS/cm for a conductivity scale
 */
export function ec25FromReading(reading: number, scale: MeterScale): Outcome<number> {
  if (!Number.isFinite(reading) || reading < 0 || reading > 200_000) {
    return fail('reading', reading, '0 to 200000', `The meter reads ${reading}; accepted is 0 to 200000.`);
  }
  if (scale.kind === 'resistivity')
    return reading > 0
      ? ok(1 / reading)
      : fail(
          'reading',
          reading,
          'more than 0 MΩ·cm',
          'A resistivity of 0 is no water: it would conduct without end. Enter more than 0 MΩ·cm.',
        );
  if (reading === 0 || scale.kind === 'conductivity') return ok(reading);
  if (scale.kind === 'factor') return ok(reading / scale.factor);
  if (scale.kind === 'salinity') return seaEc25(reading);
  if (reading > STRONGEST_MG_L)
    return fail(
      'reading',
      reading,
      `at most ${STRONGEST_MG_L} ppm on this scale`,
      'This scale ends at 100,000 ppm: enter conductivity or salinity.',
    );
  return ok(saltConductivityUScm(scale.salt, reading));
}

/** Conductivity at 25 °C of sea water of a salinity, µS/cm; below what the scale speaks for in proportion. */
function seaEc25(salinity: number): Outcome<number> {
  const { low, extended } = SEA_SALINITY;
  if (salinity > extended)
    return fail(
      'reading',
      salinity,
      `at most ${extended} g/kg on this scale`,
      `Salinity ${salinity} is beyond the scale, which ends at ${extended} g/kg: enter conductivity.`,
    );
  const at = Math.max(low, salinity);
  return ok((salinity / at) * 1000 * seaConductivityMScm(at, 25));
}

/** End of every curve of a salt, ppm; beyond it the conductivity law does not hold either. */
export const STRONGEST_MG_L = 1e5;

/** What a scale shows for a conductivity at 25 °C: ppm, or the conductivity itself; null beyond the end of a salt's curve, where it shows nothing. */
export function readingFromEc25(ec25UScm: number, scale: MeterScale): number | null {
  if (scale.kind === 'conductivity') return ec25UScm;
  if (scale.kind === 'resistivity') return ec25UScm > 0 ? 1 / ec25UScm : null;
  if (scale.kind === 'factor') return ec25UScm * scale.factor;
  if (scale.kind === 'salinity') {
    const weakest = 1000 * seaConductivityMScm(SEA_SALINITY.low, 25);
    return ec25UScm <= weakest ? (ec25UScm / weakest) * SEA_SALINITY.low : practicalSalinity(ec25UScm / 1000, 25);
  }
  const salt = scale.salt;
  // Below the conductivity of pure water there is no salt to find.
  if (ec25UScm <= saltConductivityUScm(salt, 1e-3)) return 0;
  const root = findRoot(
    (ln) => Math.log(saltConductivityUScm(salt, Math.exp(ln)) / ec25UScm),
    Math.log(1e-3),
    Math.log(STRONGEST_MG_L),
    1e-9,
  );
  return root ? Math.exp(root.x) : null;
}

/** Conductivity at 25 °C as a linear compensator makes it from the conductivity at t. */
export function compensated(conductivityUScm: number, temperatureC: number, alphaPerC = 0.02): number {
  return conductivityUScm / (1 + alphaPerC * (temperatureC - 25));
}

/** Conductivity of pure water at a temperature, µS/cm; 0.0550 at 25 °C. */
export function pureWaterUScm(temperatureC: number): number {
  // So few ions hold nothing back: their limiting conductivities and the ion product are all it takes.
  return 1000 * densityKgPerL(temperatureC) * limitingWater(temperatureC) * Math.sqrt(equilibria(temperatureC).kw);
}

/** Below the first the water's own ions are told apart from the salt's, above the second they are lost in it, µS/cm. */
const PURE_USCM = { below: 10, gone: 20 } as const;
/** Pure water at 25 °C, µS/cm. */
const PURE_25_USCM = 0.05501;
/** A reading may lie this far under pure water before it cannot be. */
const UNDER_PURE = 0.97;

/** How the salt's part of a conductivity goes with temperature: as sodium chloride's, and from 10 to 20 µS/cm over to a meter's share per degree. */
function saltPart(temperatureC: number, conductivityUScm: number, alphaPerC: number): number {
  const own = limitingNaCl(temperatureC) / limitingNaCl(25);
  const share = Math.min(1, Math.max(0, (conductivityUScm - PURE_USCM.below) / (PURE_USCM.gone - PURE_USCM.below)));
  return (1 - share) * own + share * (1 + alphaPerC * (temperatureC - 25));
}

/** Less than pure water was read. */
function underPure(field: number, temperatureC: number): Outcome<never> {
  const pureHere = pureWaterUScm(temperatureC);
  const megohm = (1 / pureHere).toFixed(1);
  return fail(
    'reading',
    field,
    `at least ${pureHere.toPrecision(3)} µS/cm at ${temperatureC} °C`,
    `Reads below pure water at ${temperatureC} °C (${megohm} MΩ·cm): set the meter's compensation or check probe and temperature.`,
  );
}

/**
 * Conductivity at 25 °C from the conductivity at t: the water's own part taken out and put back as it is at 25 °C, the
 * salt's corrected.
 *
 * @returns an error when less is read than pure water conducts at that temperature
 */
export function ec25FromConductivity(conductivityUScm: number, temperatureC: number, alphaPerC = 0.02): Outcome<number> {
  if (conductivityUScm === 0) return ok(0);
  if (conductivityUScm >= PURE_USCM.gone) return ok(compensated(conductivityUScm, temperatureC, alphaPerC));
  const pureHere = pureWaterUScm(temperatureC);
  if (conductivityUScm < UNDER_PURE * pureHere) return underPure(conductivityUScm, temperatureC);
  return ok(PURE_25_USCM + (conductivityUScm - pureHere) / saltPart(temperatureC, conductivityUScm, alphaPerC));
}

/** Conductivity at its own temperature of a water of a conductivity at 25 °C: the way back of `ec25FromConductivity`. */
export function conductivityAt(ec25UScm: number, temperatureC: number, alphaPerC = 0.02): number {
  if (ec25UScm >= PURE_USCM.gone) return ec25UScm * (1 + alphaPerC * (temperatureC - 25));
  return pureWaterUScm(temperatureC) + (ec25UScm - PURE_25_USCM) * saltPart(temperatureC, ec25UScm, alphaPerC);
}

/** Conductivity of the water at its own temperature behind what an instrument showed on a scale of conductivity. */
const atTemperature = (shownUScm: number, { compensation, alphaPerC }: Meter, temperatureC: number): number =>
  compensation === 'linear' ? shownUScm * (1 + alphaPerC * (temperatureC - 25)) : shownUScm;

/**
 * Conductivity at 25 °C behind what an instrument showed: its own error undone, its scale inverted, and the
 * temperature corrected where the instrument does not, or does it wrongly near pure water.
 *
 * @param temperatureC of the water when it was read; null when unknown, then taken as 25
 */
export function meterEc25(shown: number, meter: Meter, temperatureC: number | null): Outcome<number> {
  const behind = ec25FromReading(Math.max(0, (shown - meter.offset) / meter.gain), meter.scale);
  if (!behind.ok || behind.value === 0) return behind;
  // A salinity has its temperature in it.
  if (meter.scale.kind === 'salinity') return behind;
  if (meter.compensation === 'pure')
    return behind.value < UNDER_PURE * PURE_25_USCM ? underPure(behind.value, 25) : ok(Math.max(behind.value, PURE_25_USCM));
  if (temperatureC === null) return behind;
  if (meter.compensation === 'linear' && (behind.value >= PURE_USCM.gone || Math.abs(temperatureC - 25) < 0.5)) return behind;
  const corrected = ec25FromConductivity(atTemperature(behind.value, meter, temperatureC), temperatureC, meter.alphaPerC);
  // A ppm meter's last digit is coarser than this correction: what it shows stands when it cannot be corrected.
  return corrected.ok || meter.scale.kind === 'conductivity' || meter.scale.kind === 'resistivity' ? corrected : behind;
}

/**
 * Practical salinity of sea water behind what an instrument showed: the pen's own correction undone, for sea water
 * changes by 1.9 % a degree, then the salinity scale at the temperature of the water.
 */
export function meterSalinity(shown: number, meter: Meter, temperatureC: number): Outcome<number> {
  const own = Math.max(0, (shown - meter.offset) / meter.gain);
  const behind = ec25FromReading(own, meter.scale);
  if (meter.scale.kind === 'salinity') return behind.ok ? ok(own) : behind;
  return behind.ok ? salinityFrom(atTemperature(behind.value, meter, temperatureC), temperatureC) : behind;
}

/** Below this an open vessel's own CO2 uptake, up to 1 µS/cm within minutes, is a large part of the reading. */
export const AIR_MATTERS_BELOW_USCM = 2;

/** Conductivity of a sample into which a drop left in the cap was mixed: volumes in mL, straight by volume. */
export function withResidualDrop(sampleUScm: number, sampleMl: number, dropUScm: number, dropMl: number): number {
  return (sampleMl * sampleUScm + dropMl * dropUScm) / (sampleMl + dropMl);
}

/** Conductivity at 25 °C behind the smallest step a meter shows, µS/cm: below it a reading of 0 tells nothing. */
export function smallestStepUScm({ scale, resolution }: { readonly scale: MeterScale; readonly resolution: number }): number {
  // A resistivity cell sees finest where water is purest.
  if (scale.kind === 'resistivity') return resolution * PURE_25_USCM ** 2;
  const step = ec25FromReading(resolution, scale);
  return step.ok ? step.value : resolution;
}
