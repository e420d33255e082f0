import type { Prices } from '@yes-clear/core/file';

/** Prices of a job as their fields are called, in the order of the form. */
export const PRICE_WORDS: Readonly<Record<Exclude<keyof Prices, 'currency'>, string>> = {
  waterPerM3: 'Water, a m³',
  sewerPerM3: 'Sewer, a m³',
  powerPerKWh: 'Power, a kWh',
  resinPerL: 'Resin, a litre',
  filter: 'Sediment cartridge',
  carbonPerL: 'Carbon, a litre',
  cartridgePerL: 'Lime cartridge, a litre',
  inhibitor: 'Inhibitor cartridge',
  calcitePerL: 'Calcite, a litre',
  saltPerKg: 'Salt, a kg',
  lamp: 'UV lamp',
  boosterPump: 'Booster pump',
  element: 'Membrane and housing',
  warmingCoil: 'Coil to warm the feed',
  tankPerL: 'Tank, a litre',
};
export const PRICE_KEYS = Object.keys(PRICE_WORDS) as (keyof typeof PRICE_WORDS)[];
