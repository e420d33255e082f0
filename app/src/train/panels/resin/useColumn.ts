import type { ColumnRun } from '@yes-clear/core/exchange';
import type { InputError } from '@yes-clear/core/quantity';
import type { ResinChain } from '@yes-clear/core/advice';
import { refDebounced } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { start, type Running } from '../../../worker/client';
import type { Jobs } from '../../../worker/jobs';

/** The life of a resin row, run in the worker whenever what it is run with changes; the one before is cancelled. */
export function useColumn(chain: ComputedRef<ResinChain | null>): {
  readonly run: Ref<ColumnRun | null>;
  readonly error: Ref<InputError | null>;
  /** Share done while it runs; null at rest. */
  readonly progress: Ref<number | null>;
  cancel(): void;
  again(): void;
} {
  const run = shallowRef<ColumnRun | null>(null);
  const error = shallowRef<InputError | null>(null);
  const progress = ref<number | null>(null);
  let running: Running<Jobs['column']['output']> | null = null;
  // The same chain is computed anew with every tick of the clock; only another one is run.
  const key = computed(() => JSON.stringify(chain.value));
  const settled = refDebounced(key, 150);

  function cancel(): void {
    running?.cancel();
    running = null;
    progress.value = null;
  }
  function again(): void {
    cancel();
    const input = chain.value;
    if (!input) {
      run.value = null;
      return;
    }
    progress.value = 0;
    const mine = start('column', { beds: [...input.beds], water: input.water, flowLPerH: input.flowLPerH, options: {} }, (share) => {
      if (running === mine) progress.value = share;
    });
    running = mine;
    void mine.result.then((outcome) => {
      if (running !== mine || outcome === null) return;
      running = null;
      progress.value = null;
      run.value = outcome.ok ? outcome.value : null;
      error.value = outcome.ok ? null : outcome.error;
    });
  }
  watch(settled, again, { immediate: true });
  onScopeDispose(cancel);
  return { run, error, progress, cancel, again };
}
