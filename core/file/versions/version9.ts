import { asItWas, isData, type FileVersion } from './raw';

/** Nobody had been asked whether the waste is used: all of it went down the drain. */
const systemFrom8 = (system: unknown): unknown =>
  isData(system) && isData(system['choice']) ? { ...system, choice: { ...system['choice'], wasteUsedShare: 0 } } : system;

/** Version 9: what of the waste is used for something else. */
export const version9: FileVersion = { version: 9, system: systemFrom8, reading: asItWas };
