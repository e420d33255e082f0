import { asItWas, isData, type FileVersion } from './raw';

/** Nobody wrote down when a reading was changed. */
const readingFrom6 = (reading: unknown): unknown => (isData(reading) ? { ...reading, editedAt: null } : reading);

/** Version 7: a record may hold records of meters and pictures beside its readings; a reading says when it was changed. */
export const version7: FileVersion = { version: 7, system: asItWas, reading: readingFrom6 };
