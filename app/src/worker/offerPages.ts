import { comparisonPage } from '@yes-clear/core/choice';
import type { Block } from '@yes-clear/core/commission';
import type { System } from '@yes-clear/core/file';
import { runToEnd } from '@yes-clear/core/numeric';
import { ok, type Outcome } from '@yes-clear/core/quantity';
import { AS_USUAL, daysOfYears, USUAL_POLICY, yearPage } from '@yes-clear/core/year';
import { partSteps, wholeOf } from './optionSearch';
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
    const sifted = runToEnd(partSteps({ system, part: 0, parts: 1 }));
    if (!sifted.ok) return sifted;
    const whole = wholeOf({ system, use: {}, parts: [sifted.value] });
    if (!whole.ok) return whole;
    blocks.push(...comparisonPage(system, whole.value.sifted, whole.value.shown));
  }
  if (year) {
    const asked = {
      system,
      asNew: true,
      use: {},
      tracking: null,
      membrane: null,
      countVisits: true,
      nowMs,
      days: daysOfYears(1),
      whatIf: AS_USUAL,
      policy: USUAL_POLICY,
    };
    const outlook = yearRun(asked);
    if (!outlook.ok) return outlook;
    const bands = runToEnd(yearSteps(asked));
    blocks.push(...yearPage(outlook.value, bands.ok ? bands.value : null, units, prices.currency));
  }
  return ok(blocks);
}
