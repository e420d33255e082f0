import type { Reading, System } from './schema';

/** A system with everything that was read on it. */
export interface SystemRecord {
  readonly system: System;
  readonly readings: readonly Reading[];
}
