import { atRestMmolL, ATM_BAR, filmShare, gasOverWater, shareLeft } from './strip';

/** Aeration in the open: a packed tower by the law of the exchange, drums and sprays by how often their water is turned over. */

/** Height of a transfer unit of a packed tower at 60 m³ an hour and m² (fit), m, and how it grows with the loading. */
const HTU = { metres: 0.75, atMPerH: 60, exponent: 0.3 } as const;

/** Devices without a height: transfer units for CO2 (common practice; cascade 0.7–1.4, spray 0.5–1.2, float 0.1–0.4). */
export const OPEN_DEVICES = { cascade: 1, spray: 0.8, splash: 0.2 } as const;
/** What an air stone makes of its air: how far the air leaves saturated (coarse 0.3, fine and deep 0.8; common practice). */
export const AIR_STONE_SHARE = 0.5;

/** Transfer units of a packed tower. */
export const towerUnits = (packingM: number, loadingMPerH: number, temperatureC: number): number =>
  (packingM / (HTU.metres * (loadingMPerH / HTU.atMPerH) ** HTU.exponent)) * filmShare(temperatureC);

/** Stripping factor of a tower blown with so many volumes of air for each of water. */
export const towerFactor = (airToWater: number, temperatureC: number): number => gasOverWater(temperatureC) * airToWater;

/** Free CO2 behind a packed tower, mmol/L. */
export function towerMmolL(
  co2MmolL: number,
  tower: { readonly packingM: number; readonly loadingMPerH: number; readonly airToWater: number; readonly ppm: number },
  temperatureC: number,
): number {
  const rest = atRestMmolL(tower.ppm, ATM_BAR, temperatureC);
  const left = shareLeft(towerUnits(tower.packingM, tower.loadingMPerH, temperatureC), towerFactor(tower.airToWater, temperatureC));
  return rest + (co2MmolL - rest) * left;
}

/** Free CO2 behind a device in the open with so many transfer units, mmol/L: the room is not used up. */
export function openMmolL(co2MmolL: number, units: number, ppm: number, temperatureC: number): number {
  const rest = atRestMmolL(ppm, ATM_BAR, temperatureC);
  return rest + (co2MmolL - rest) * Math.exp(-units);
}

/** Transfer units of a drum with air stones. */
export const drumUnits = (litres: number, airLPerMin: number, minutes: number, temperatureC: number, share = AIR_STONE_SHARE): number =>
  (share * gasOverWater(temperatureC) * airLPerMin * minutes) / litres;

/** Minutes of air until free CO2 is so low, mmol/L; null where the room's air holds more. */
export function drumMinutes(
  fromMmolL: number,
  toMmolL: number,
  drum: { readonly litres: number; readonly airLPerMin: number; readonly ppm: number },
  temperatureC: number,
): number | null {
  const rest = atRestMmolL(drum.ppm, ATM_BAR, temperatureC);
  if (toMmolL <= rest) return null;
  return Math.log((fromMmolL - rest) / (toMmolL - rest)) / drumUnits(drum.litres, drum.airLPerMin, 1, temperatureC);
}
