import type { ElementClass } from '../../membrane';
import { PIECE_PRICES } from '../../stage';

/** What the parts of a train cost where nobody has entered anything: made-up amounts, every one to be replaced (science of options, 10). */

/** All that a comparison is paid with, in the currency of the job. */
export interface PriceList {
  readonly waterPerM3: number;
  readonly sewerPerM3: number;
  readonly energyPerKWh: number;
  readonly saltPerKg: number;
  readonly resinPerL: number;
  /** A visit: one's own, or one that is called. */
  readonly visit: number;
  readonly tankPerL: (litres: number) => number;
  readonly part: (part: Priced) => number;
}

/** What is bought once, or again and again, with placeholders; no shop's. Where the chapter has none (from the energy recovery on), ours. */
export const PART_PRICES = {
  ...PIECE_PRICES,
  sediment: 6,
  carbonBlock: 14,
  booster: 110,
  cartPump: 380,
  skidPump: 900,
  highPressurePump: 2200,
  resinHousing: 18,
  vessel7: 110,
  vessel11: 140,
  vessel25: 230,
  bypassHead: 90,
  'cartridge1.9': 70,
  'cartridge4.7': 110,
  'cartridge9.4': 160,
  cartridge15: 220,
  beverageUnit: 1900,
  beverageMembrane: 260,
  beverageFilters: 45,
  softener: 600,
  energyRecovery: 1800,
  vessel40: 340,
  inhibitor: 60,
  uvUnit: 240,
  uvLamp: 70,
  degasser: 650,
  electro: 3200,
  calcite: 12,
  polishFilter: 28,
} as const satisfies Readonly<Record<ElementClass, number> & Record<string, number>>;
export type Priced = keyof typeof PART_PRICES;

/** Tanks as they are sold, L and price; others between and beyond by their litres. */
const TANKS: readonly (readonly [litres: number, price: number])[] = [
  [0, 0],
  [60, 45],
  [120, 70],
  [200, 100],
  [250, 120],
  [400, 170],
  [650, 240],
  [1000, 340],
];
export function tankPrice(litres: number): number {
  const found = TANKS.findIndex(([size]) => size >= litres);
  const above = found < 0 ? TANKS.length - 1 : Math.max(1, found);
  const [[low, cheap], [high, dear]] = [TANKS[above - 1]!, TANKS[above]!];
  return cheap + ((litres - low) / (high - low)) * (dear - cheap);
}

export const SILICA_RESIN_FACTOR = 1.5;

export const USUAL_PRICES: PriceList = {
  waterPerM3: 2,
  sewerPerM3: 2,
  energyPerKWh: 0.25,
  saltPerKg: 0.6,
  resinPerL: 6,
  visit: 10,
  tankPerL: tankPrice,
  part: (part) => PART_PRICES[part],
};
