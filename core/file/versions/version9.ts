import { asItWas, isData, type FileVersion } from './raw';

/** A membrane is paid by its life: what it had cost a year said the same a second time. */
function pricesFrom8(prices: unknown): unknown {
  if (!isData(prices)) return prices;
  const { membranePerYear: _, ...rest } = prices;
  return rest;
}
/** The scale of mixed salts was named by its proportions. */
function instrumentFrom8(instrument: unknown): unknown {
  if (!isData(instrument) || !isData(instrument['scale']) || instrument['scale']['salt'] !== '442') return instrument;
  return { ...instrument, scale: { ...instrument['scale'], salt: 'mixedSalts' } };
}
/** Nobody had been asked whether the waste is used: all of it went down the drain. */
const systemFrom8 = (system: unknown): unknown =>
  isData(system) && isData(system['choice'])
    ? {
        ...system,
        instruments: Array.isArray(system['instruments']) ? system['instruments'].map(instrumentFrom8) : system['instruments'],
        prices: pricesFrom8(system['prices']),
        choice: { ...system['choice'], wasteUsedShare: 0 },
      }
    : system;

/** Version 9: what of the waste is used for something else; a membrane has one price, a scale its word. */
export const version9: FileVersion = { version: 9, system: systemFrom8, reading: asItWas };
