import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import { CACO3_G_PER_EQ, MOLAR_MASS, solutesMgL } from './solutes';
import { settleWater, uncompensatedUScm } from './water';

/** How an instrument turns conductivity into what it shows. */
export type MeterScale =
  | { readonly kind: 'conductivity' }
  /** ppm = factor × EC25. */
  | { readonly kind: 'factor'; readonly factor: number }
  /** ppm = mg/L of the salt that conducts as much. */
  | { readonly kind: 'curve'; readonly salt: MeterSalt };

export const METER_SALTS = ['NaCl', 'KCl', '442'] as const;
export type MeterSalt = (typeof METER_SALTS)[number];

/** What is known of an instrument: its scale, how it corrects for temperature, and its own error. */
export interface Meter {
  readonly scale: MeterScale;
  /** Shown = gain × true + offset, in the unit it shows; from comparing it. 1 and 0 when it was never compared. */
  readonly gain: number;
  readonly offset: number;
  /** Whether it corrects to 25 °C by itself. */
  readonly compensated: boolean;
  /** Its correction, share per °C; 0.02 is common. */
  readonly alphaPerC: number;
}

/** A meter as it comes: ppm by a factor or µS/cm, corrected by 2 %/°C. */
export const plainMeter = (scale: MeterScale): Meter => ({ scale, gain: 1, offset: 0, compensated: true, alphaPerC: 0.02 });

/** Conductivity at 25 °C of a solution of one salt; bicarbonate as alkalinity with equal carbon. */
export function saltConductivityUScm(salt: MeterSalt | 'NaHCO3', mgL: number): number {
  const na = (mg: number, molar: number, per: number): number => (mg / molar) * per * MOLAR_MASS.Na;
  const bicarbonate = salt === '442' ? 0.4 * mgL : salt === 'NaHCO3' ? mgL : 0;
  const sulfate = salt === '442' ? 0.4 * mgL : 0;
  const chloride = salt === '442' ? 0.2 * mgL : salt === 'NaCl' ? mgL : 0;
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
  if (reading === 0 || scale.kind === 'conductivity') return ok(reading);
  if (scale.kind === 'factor') return ok(reading / scale.factor);
  return ok(saltConductivityUScm(scale.salt, Math.min(reading, STRONGEST_MG_L)));
}

/** End of every meter's scale; beyond it the conductivity law does not hold either. */
const STRONGEST_MG_L = 5e4;

/** What a scale shows for a conductivity at 25 °C: ppm, or the conductivity itself. */
export function readingFromEc25(ec25UScm: number, scale: MeterScale): number {
  if (scale.kind === 'conductivity') return ec25UScm;
  if (scale.kind === 'factor') return ec25UScm * scale.factor;
  const salt = scale.salt;
  // Below the conductivity of pure water there is no salt to find.
  if (ec25UScm <= saltConductivityUScm(salt, 1e-3)) return 0;
  const root = findRoot(
    (ln) => Math.log(saltConductivityUScm(salt, Math.exp(ln)) / ec25UScm),
    Math.log(1e-3),
    Math.log(STRONGEST_MG_L),
    1e-9,
  );
  return root ? Math.exp(root.x) : STRONGEST_MG_L;
}

/** Conductivity at 25 °C as a linear compensator makes it from the conductivity at t. */
export function compensated(conductivityUScm: number, temperatureC: number, alphaPerC = 0.02): number {
  return conductivityUScm / (1 + alphaPerC * (temperatureC - 25));
}

/** Conductivity of pure water at a temperature, µS/cm; 0.0550 at 25 °C. */
export function pureWaterUScm(temperatureC: number): number {
  const pure = uncompensatedUScm({ mgL: solutesMgL({}), alkalinityMgL: 0, carbonMmolL: 0, temperatureC });
  return pure.ok ? pure.value : Number.NaN;
}

/** Below this a linear correction misleads: the water's own ions move by 5 % a degree. */
const PURE_BELOW_USCM = 1;

/**
 * Conductivity at 25 °C from the conductivity at t: linear for natural waters; below 1 µS/cm the water's own
 * part is taken out first and put back as it is at 25 °C.
 *
 * @returns an error when less is read than pure water conducts at that temperature
 */
export function ec25FromConductivity(conductivityUScm: number, temperatureC: number, alphaPerC = 0.02): Outcome<number> {
  if (conductivityUScm >= PURE_BELOW_USCM || conductivityUScm === 0) return ok(compensated(conductivityUScm, temperatureC, alphaPerC));
  const pureHere = pureWaterUScm(temperatureC);
  if (conductivityUScm < 0.97 * pureHere) {
    return fail(
      'reading',
      conductivityUScm,
      `at least ${pureHere.toPrecision(3)} µS/cm at ${temperatureC} °C`,
      `${conductivityUScm.toPrecision(3)} µS/cm reads below pure water at ${temperatureC} °C (${pureHere.toPrecision(3)}): check probe, cell constant or temperature.`,
    );
  }
  return ok(pureWaterUScm(25) + compensated(conductivityUScm - pureHere, temperatureC, alphaPerC));
}

/**
 * Conductivity at 25 °C behind what an instrument showed: its own error undone, its scale inverted, and the
 * temperature corrected where the instrument does not, or does it wrongly near pure water.
 *
 * @param temperatureC of the water when it was read; null when unknown, then taken as 25
 */
export function meterEc25(shown: number, meter: Meter, temperatureC: number | null): Outcome<number> {
  const behind = ec25FromReading(Math.max(0, (shown - meter.offset) / meter.gain), meter.scale);
  if (!behind.ok || behind.value === 0 || temperatureC === null) return behind;
  if (!meter.compensated) return ec25FromConductivity(behind.value, temperatureC, meter.alphaPerC);
  if (behind.value >= PURE_BELOW_USCM || Math.abs(temperatureC - 25) < 0.5) return behind;
  const here = behind.value * (1 + meter.alphaPerC * (temperatureC - 25));
  const corrected = ec25FromConductivity(here, temperatureC, meter.alphaPerC);
  // A ppm meter's last digit is coarser than this correction: what it shows stands when it cannot be corrected.
  return corrected.ok || meter.scale.kind === 'conductivity' ? corrected : behind;
}

/** Below this an open vessel's own CO2 uptake, up to 1 µS/cm within minutes, is a large part of the reading. */
export const AIR_MATTERS_BELOW_USCM = 2;

/** Conductivity of a sample into which a drop left in the cap was mixed: volumes in mL, straight by volume. */
export function withResidualDrop(sampleUScm: number, sampleMl: number, dropUScm: number, dropMl: number): number {
  return (sampleMl * sampleUScm + dropMl * dropUScm) / (sampleMl + dropMl);
}

/** Conductivity at 25 °C behind the smallest step a meter shows, µS/cm: below it a reading of 0 tells nothing. */
export function smallestStepUScm({ scale, resolution }: { readonly scale: MeterScale; readonly resolution: number }): number {
  const step = ec25FromReading(resolution, scale);
  return step.ok ? step.value : resolution;
}
