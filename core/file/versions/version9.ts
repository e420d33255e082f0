import { asItWas, isData, type FileVersion } from './raw';

/** A membrane is paid by its life: what it had cost a year said the same a second time. */
function pricesFrom8(prices: unknown): unknown {
  if (!isData(prices)) return prices;
  const { membranePerYear: _, ...rest } = prices;
  return rest;
}
/** Nobody had been asked whether the waste is used: all of it went down the drain. */
const systemFrom8 = (system: unknown): unknown =>
  isData(system) && isData(system['choice'])
    ? { ...system, prices: pricesFrom8(system['prices']), choice: { ...system['choice'], wasteUsedShare: 0 } }
    : system;

/** Version 9: what of the waste is used for something else; a membrane has one price. */
export const version9: FileVersion = { version: 9, system: systemFrom8, reading: asItWas };
