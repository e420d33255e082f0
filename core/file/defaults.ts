import type { Build, ChoiceSettings, Prices, Reading } from './schema';

/** What a file starts with where nobody has entered anything: used for new systems and for files of older versions. */

/** Placeholders until the job's own are typed; per cubic metre, kilowatt-hour, litre and piece. */
export const PLACEHOLDER_PRICES: Prices = {
  currency: 'EUR',
  waterPerM3: 2,
  sewerPerM3: 2,
  powerPerKWh: 0.25,
  resinPerL: 6,
  boosterPump: 90,
  element: 45,
  warmingCoil: 40,
  tankPerL: 0.6,
  filter: 8,
  inhibitor: 60,
  lamp: 70,
  carbonPerL: 30,
  cartridgePerL: 25,
  calcitePerL: 4,
  saltPerKg: 0.6,
};

/** Turbidity of mains water (common practice: below 1). */
export const USUAL_TURBIDITY_NTU = 0.5;

/** A system nobody has worked on yet; blue for product is the commonest scheme (common practice), the rest differ. */
export const NOTHING_BUILT: Build = {
  works: [],
  stands: { how: 'new', since: null },
  commissioned: null,
  lines: [],
  colours: { feed: null, product: null, waste: null },
  hookUp: null,
  hangs: null,
  partPrices: [],
  ownParts: [],
  markUp: 0,
  ratios: [],
  calibratedBoreMm: null,
  ports: [],
};

/** A reading nobody has taken anything from yet, beside what was read. */
export const NOTHING_SAID: Pick<Reading, 'also' | 'note' | 'counts' | 'confirmed' | 'photos' | 'editedAt'> = {
  also: [],
  note: '',
  counts: true,
  confirmed: [],
  photos: [],
  editedAt: null,
};

/** Nothing of the site is known to stand in the way; a household's ratio, six years, one's own visit. */
export const OPEN_CHOICE: ChoiceSettings = {
  wallMm: null,
  capital: null,
  power: true,
  drain: true,
  hoursPerDay: 24,
  visitsPerYear: null,
  leastWaste: 3,
  horizonYears: 6,
  rate: 0,
  tieBand: 0.05,
  visitCost: 10,
  wasteUsedShare: 0,
  wasteBarrelL: null,
  prices: [],
  kept: [],
  bought: [],
};
