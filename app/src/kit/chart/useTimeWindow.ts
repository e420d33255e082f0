import { computed, ref, type ComputedRef, type Ref } from 'vue';

/** A stretch of time that several charts show together, and the moment a pointer rests on in any of them. */
export interface TimeWindow {
  readonly from: ComputedRef<number>;
  readonly until: ComputedRef<number>;
  /** Whether less than the whole is shown. */
  readonly zoomed: ComputedRef<boolean>;
  readonly hover: Readonly<Ref<number | null>>;
  readonly point: (at: number | null) => void;
  /** Shows a stretch; one that leaves the whole is moved back into it. */
  readonly show: (from: number, until: number) => void;
  readonly reset: () => void;
}

/** No closer than an hour: nobody reads a log finer. */
const LEAST_MS = 3_600_000;

/** @param whole all there is to be seen; it may grow while a part of it is looked at */
export function useTimeWindow(whole: () => { readonly from: number; readonly until: number }): TimeWindow {
  const part = ref<{ readonly from: number; readonly until: number } | null>(null);
  const hover = ref<number | null>(null);
  function show(from: number, until: number): void {
    const all = whole();
    const span = Math.max(LEAST_MS, until - from);
    if (span >= all.until - all.from) {
      part.value = null;
      return;
    }
    const start = Math.min(Math.max(from, all.from), all.until - span);
    part.value = { from: start, until: start + span };
  }
  return {
    from: computed(() => part.value?.from ?? whole().from),
    until: computed(() => part.value?.until ?? whole().until),
    zoomed: computed(() => part.value !== null),
    hover,
    point: (at) => (hover.value = at),
    show,
    reset: () => (part.value = null),
  };
}
