import { asItWas, isData, without, type FileVersion } from './raw';

/** Version 4 knew meters that correct and meters that do not. */
const instrumentFrom4 = (instrument: unknown): unknown =>
  isData(instrument)
    ? { ...without(instrument, 'compensated'), compensation: instrument['compensated'] === false ? 'none' : 'linear' }
    : instrument;

/** A system of version 4 as one of version 5. */
function systemFrom4(system: unknown): unknown {
  if (!isData(system)) return system;
  const { instruments } = system;
  return { ...system, instruments: Array.isArray(instruments) ? instruments.map(instrumentFrom4) : instruments };
}

/** Version 5: meters of pure water, which take the water's own ions apart from the salt's. */
export const version5: FileVersion = { version: 5, system: systemFrom4, reading: asItWas };
