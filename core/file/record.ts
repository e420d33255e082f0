import type { Beside } from './beside';
import type { Reading, System } from './schema';

/** A system with everything that was read on it. */
export interface SystemRecord {
  readonly system: System;
  readonly readings: readonly Reading[];
  /** Records of meters and pictures, packed; left out where nobody needs them. */
  readonly beside?: Beside | undefined;
}
