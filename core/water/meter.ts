import { findRoot } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import { solutesMgL } from './solutes';
import { settleWater } from './water';

/** How an instrument turns conductivity into what it shows. */
export type MeterScale =
  | { readonly kind: 'conductivity' }
  /** ppm = factor × EC25. */
  | { readonly kind: 'factor'; readonly factor: number }
  /** ppm = mg/L of the salt that conducts as much. */
  | { readonly kind: 'curve'; readonly salt: MeterSalt };

export const METER_SALTS = ['NaCl', 'KCl', '442'] as const;
export type MeterSalt = (typeof METER_SALTS)[number];

/** Conductivity at 25 °C of a solution of one salt; bicarbonate as alkalinity with equal carbon. */
export function saltConductivityUScm(salt: MeterSalt | 'NaHCO3', mgL: number): number {
  const na = (mg: number, molar: number, per: number): number => (mg / molar) * per * 22.99;
  const bicarbonate = salt === '442' ? 0.4 * mgL : salt === 'NaHCO3' ? mgL : 0;
  const sulfate = salt === '442' ? 0.4 * mgL : 0;
  const chloride = salt === '442' ? 0.2 * mgL : salt === 'NaCl' ? mgL : 0;
  const potassium = salt === 'KCl' ? mgL : 0;
  const bicarbonateMmolL = bicarbonate / 84.007;
  const water = {
    mgL: solutesMgL({
      Na: na(bicarbonate, 84.007, 1) + na(sulfate, 142.043, 2) + na(chloride, 58.443, 1),
      K: (potassium / 74.551) * 39.098,
      Cl: (chloride / 58.443 + potassium / 74.551) * 35.453,
      SO4: (sulfate / 142.043) * 96.063,
    }),
    alkalinityMgL: bicarbonateMmolL * 50.0435,
    carbonMmolL: bicarbonateMmolL,
    temperatureC: 25,
  };
  const state = settleWater(water);
  // The inputs are a single clean salt; the only way to fail is a strength the caller has excluded.
  return state.ok ? state.value.ec25UScm : Number.NaN;
}

/**
 * Conductivity at 25 °C behind a meter's reading.
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

/** What a meter shows for a conductivity at 25 °C: ppm by its scale, or the conductivity itself. */
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
