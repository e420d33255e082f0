import { comparisonOf, comparisonPage, shownOf, sift } from '@yes-clear/core/choice';
import type { Block } from '@yes-clear/core/commission';
import type { System } from '@yes-clear/core/file';
import { runToEnd } from '@yes-clear/core/numeric';
import { ok, type Outcome } from '@yes-clear/core/quantity';
import { AS_USUAL, PLAIN_POLICY, yearPage } from '@yes-clear/core/year';
import { yearRun, yearSteps } from './yearAhead';

/** Pages an offer may carry beside its own: the year ahead of the new system, and what it was chosen among. */
export function offerPages({
  system,
  nowMs,
  year,
  options,
}: {
  readonly system: System;
  readonly nowMs: number;
  readonly year: boolean;
  readonly options: boolean;
}): Outcome<readonly Block[]> {
  const blocks: Block[] = [];
  const { units, prices } = system;
  if (options) {
    const laid = comparisonOf(system);
    if (!laid.ok) return laid;
    const sifted = runToEnd(sift(laid.value.spaces, laid.value.judging));
    const shown = shownOf(system, sifted);
    if (!shown.ok) return shown;
    blocks.push(...comparisonPage(system, sifted, shown.value));
  }
  if (year) {
    const asked = {
      system,
      use: {},
      tracking: null,
      nowMs,
      days: 365,
      whatIf: AS_USUAL,
      policy: { ...PLAIN_POLICY, bundleDays: BUNDLED_DAYS },
    };
    const outlook = yearRun(asked);
    if (!outlook.ok) return outlook;
    const bands = runToEnd(yearSteps(asked));
    blocks.push(...yearPage(outlook.value, bands.ok ? bands.value : null, units, prices.currency));
  }
  return ok(blocks);
}
/** What falls due within three weeks is changed along, as the page of the year begins with. */
const BUNDLED_DAYS = 21;
