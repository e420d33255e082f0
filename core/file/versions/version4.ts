import { asItWas, type FileVersion } from './raw';

/** Version 4: a spin-down filter among the stages, and samples of which nothing was measured. Older files hold neither. */
export const version4: FileVersion = { version: 4, system: asItWas, reading: asItWas };
