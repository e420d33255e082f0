import { DAY_MS } from '@yes-clear/core/quantity';
import { AS_USUAL, daysOfYears, USUAL_POLICY, type Outlook, type WhatIf, type YearBands, type YearPolicy } from '@yes-clear/core/year';
import { computed, onScopeDispose, ref, shallowRef, toRaw, watch } from 'vue';
import { useCountVisits } from '../kit/useCountVisits';
import type { OpenSystem } from '../system/openSystem';
import { askBeside, start, type Running } from '../worker/client';
import { newest } from '../worker/newest';
import type { YearAsked } from '../worker/yearAhead';

/** Which years: of the system as its log has it today, or as if it were new. */
export type YearState = 'today' | 'new';
export const YEARS = [1, 3, 5] as const;
export type Years = (typeof YEARS)[number];
/** Weeks within which changes are made together, until somebody pulls. */
export const USUAL_WEEKS = USUAL_POLICY.bundleDays / 7;
/** How long the hand must rest before the bands are worked out, ms. */
const REST_MS = 500;

/** The coming years of the open system: run again at every pull of a slider, the bands when the hand rests. */
export function useYear({ system, solved, error, now }: OpenSystem, state: () => YearState) {
  const years = ref<Years>(1);
  const whatIf = ref<WhatIf>({ ...AS_USUAL });
  const bundleWeeks = ref(USUAL_WEEKS);
  const countVisits = useCountVisits();
  const missed = ref<{ readonly part: string; readonly weeks: number } | null>(null);
  const outlook = shallowRef<Outlook | null>(null);
  const bands = shallowRef<YearBands | null>(null);
  const problem = ref<string | null>(null);
  const working = ref<number | null>(null);
  let running: Running<unknown> | null = null;
  let gone = false;
  onScopeDispose(() => {
    gone = true;
    running?.cancel();
  });

  const asked = computed((): YearAsked | null => {
    const current = solved.value;
    if (!current || !system.value) return null;
    const policy: YearPolicy = {
      bundleDays: 7 * bundleWeeks.value,
      missed: missed.value && { part: missed.value.part, which: 1, daysLate: 7 * missed.value.weeks },
    };
    const isNew = state() === 'new';
    return {
      system: toRaw(current.system),
      asNew: isNew,
      use: isNew ? {} : toRaw(current.use),
      tracking: isNew ? null : toRaw(current.tracking),
      membrane: isNew ? null : toRaw(current.membrane),
      countVisits: countVisits.value,
      nowMs: Date.parse(now.value),
      days: daysOfYears(years.value),
      whatIf: { ...whatIf.value },
      policy,
    };
  });

  const run = newest<YearAsked>(async (input) => {
    if (gone) return;
    try {
      const answer = await askBeside('yearRun', input);
      problem.value = answer.ok ? null : answer.error.message;
      outlook.value = answer.ok ? answer.value : null;
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : String(failure);
    }
  });
  const sure = newest<YearAsked>(async (input) => {
    if (gone) return;
    working.value = 0;
    const job = start('yearBands', input, (share) => (working.value = share), 'pool 0');
    running = job;
    try {
      const answer = await job.result;
      if (answer?.ok) bands.value = answer.value;
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : String(failure);
    } finally {
      running = null;
      working.value = null;
    }
  });
  let resting: ReturnType<typeof setTimeout> | undefined;
  onScopeDispose(() => clearTimeout(resting));
  watch(
    () =>
      asked.value &&
      JSON.stringify([
        asked.value.system.updatedAt,
        asked.value.asNew,
        asked.value.use,
        asked.value.countVisits,
        asked.value.days,
        asked.value.whatIf,
        asked.value.policy,
        Math.floor(asked.value.nowMs / DAY_MS),
      ]),
    () => {
      const input = asked.value;
      if (!input) return;
      // Bands of other years would stand beside the run of these.
      bands.value = null;
      running?.cancel();
      run(input);
      clearTimeout(resting);
      resting = setTimeout(() => sure(input), REST_MS);
    },
    { immediate: true },
  );
  return {
    years,
    whatIf,
    bundleWeeks,
    missed,
    countVisits,
    outlook,
    bands,
    problem: computed(() => problem.value ?? error.value?.message ?? null),
    working,
    narrows: computed(() => solved.value?.report.resin?.narrows ?? null),
    pull: (change: Partial<WhatIf>) => void (whatIf.value = { ...whatIf.value, ...change }),
    bundle: (count: number) => void (bundleWeeks.value = count),
    /** One change that comes late; none where no part is named. */
    miss: (part: string, weeks: number) => void (missed.value = part === '' ? null : { part, weeks }),
    asUsual: () => {
      whatIf.value = { ...AS_USUAL };
      bundleWeeks.value = USUAL_WEEKS;
      missed.value = null;
    },
  };
}
export type Year = ReturnType<typeof useYear>;
