import { asItWas, isData, type FileVersion } from './raw';

/** What version 8 started with; a later default changes nothing here. */
const CHOICE = {
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
  prices: [],
  kept: [],
  bought: [],
};

/** Nobody had been asked what the site allows. */
const systemFrom7 = (system: unknown): unknown => (isData(system) ? { ...system, choice: CHOICE } : system);

/** Version 8: what options are held against on a job. */
export const version8: FileVersion = { version: 8, system: systemFrom7, reading: asItWas };
