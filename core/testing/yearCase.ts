import { saltFactor, waterFactor } from '../membrane';
import { SMALL_ELEMENT_L } from '../storage';
import { DAYS_PER_YEAR } from '../quantity';
import type { YearPlant } from '../year';

/** The year case of the science of options (11.1): a household unit with tank, creep, season and ageing. */

const AGEING = { water: 0.12, salt: 0.2 } as const;
/** Odds of passage of the unit, clean at 25 °C. */
const ODDS = 0.03 / 0.97;
const BATCH_L = 100;
const BATCH_HOUR = 18;

/** @param changes what is otherwise */
export const yearCase = (changes: Partial<YearPlant> = {}): YearPlant => ({
  response: (temperatureC, ageYears) => {
    const water = waterFactor(temperatureC) * (1 - AGEING.water) ** ageYears;
    const odds = (ODDS * saltFactor(temperatureC) * (1 + AGEING.salt) ** ageYears) / water;
    return { productionLPerH: 8 * water, passage: odds / (1 + odds), feedPerL: 5, kWhPerM3: 0, servedPpm: null, resin: null };
  },
  goal: { highPpm: 1, lowPpm: null },
  drainedPerL: 0,
  chemicalsPerL: 0,
  wasteUsedShare: 0,
  temperature: { mean: 12, amplitude: 6, highDay: 205 },
  strength: { mean: 1, amplitude: 0.2, highDay: 20 },
  tapPpm: 180,
  tapMeqL: 3.6501,
  // Carbon dioxide passes whole, and of the silica one part in twenty.
  gasMeqL: 0.15 + 0.05 * 0.15,
  demand: (day) => {
    const hours = new Array<number>(24).fill(30 / 24);
    const away = day % 365 >= 210 && day % 365 <= 230;
    if (day % 7 === 6 && !away) hours[BATCH_HOUR]! += BATCH_L;
    return hours;
  },
  tank: { volumeL: 120, onFraction: 0.7, offFraction: 0.95, startFraction: 0.95 },
  resin: { id: 'resin', capacityMeq: 1.2 * 600 * 0.9, plates: 30, goalPpm: 1, cost: 7.2 },
  membranePartId: 'membrane',
  membraneAgedDays: 0,
  parts: [
    {
      id: 'carbon',
      line: 'carbon',
      cost: 14,
      limits: [
        { unit: 'feedL', limit: 40_000 },
        { unit: 'days', limit: 365 },
      ],
    },
    { id: 'sediment', line: 'prefilters', cost: 6, limits: [{ unit: 'days', limit: 180 }] },
    {
      id: 'membrane',
      line: 'membrane',
      cost: 30,
      limits: [{ unit: 'days', limit: DAYS_PER_YEAR * Math.min(4, Math.log(0.7) / Math.log(1 - AGEING.water)) }],
    },
  ],
  creep: { ...SMALL_ELEMENT_L, saltLPerH: 0.2066 },
  prices: { waterPerM3: 2, sewerPerM3: 2, energyPerKWh: 0.25, visit: 10, penaltyPerDay: 0, penaltyPerEvent: 0 },
  ...changes,
});
export const YEAR_CASE_DAYS = 1096;
