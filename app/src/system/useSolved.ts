import type { Reading, System } from '@yes-clear/core/file';
import { lifeOf } from '@yes-clear/core/exchange';
import type { InputError, Outcome } from '@yes-clear/core/quantity';
import { useDebounceFn } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { keepLifeBeside, solveBeside, start, type Running } from '../worker/client';
import type { Jobs } from '../worker/jobs';
import { newest } from '../worker/newest';
import type { Solved } from '../worker/solved';

/** Answers of this visit by system, so that coming back shows the last one at once. */
const lastAnswers = new Map<string, Outcome<Solved>>();
/** How far past where it stands a row is run. */
const FURTHER = 1.2;
/** A solve that takes longer is said to be under way, ms. */
const NOTICED_MS = 300;
/** Without a key pressed for so long, what was typed has settled, ms. */
const SETTLED_MS = 700;

/**
 * The solved system, from the worker: the last answer stands until the next one comes. While one is being worked out,
 * only the newest question waits.
 */
export function useSolved(
  id: string,
  system: Ref<System | null>,
  readings: Ref<readonly Reading[] | null>,
  now: Ref<string>,
): {
  readonly solved: ComputedRef<Solved | null>;
  readonly error: ComputedRef<InputError | null>;
  readonly working: Ref<boolean>;
  readonly upToDate: ComputedRef<boolean>;
} {
  const answer = shallowRef<Outcome<Solved> | null>(lastAnswers.get(id) ?? null);
  const working = ref(false);
  /** The readings the answer that stands was asked for with. */
  const answeredFor = shallowRef<readonly Reading[] | null>(null);
  let gone = false;
  onScopeDispose(() => (gone = true));

  /** The state of the system that the log's course was worked out for last. */
  let courseOf: System | null = null;
  /** Once nobody has typed for a while, the course is worked out for what stands then. */
  const settle = useDebounceFn(() => solve({ asked: system.value, settled: true }), SETTLED_MS);
  const solve = newest<{ readonly asked: System | null; readonly settled: boolean }>(async ({ asked, settled }) => {
    // Solved without its log a system would say for a moment that there is none.
    if (!asked || gone || readings.value === null) return;
    const noticed = setTimeout(() => (working.value = true), NOTICED_MS);
    try {
      const read = readings.value;
      const outcome = await solveBeside(asked, read, now.value, settled);
      // What was asked comes back as it was, so that it is not copied to and fro.
      const whole: Outcome<Solved> = outcome.ok ? { ok: true, value: { ...outcome.value, system: asked } } : outcome;
      if (outcome.ok && outcome.value.courseIsNew) courseOf = asked;
      else if (outcome.ok && courseOf !== asked) void settle();
      lastAnswers.set(id, whole);
      answer.value = whole;
      answeredFor.value = read;
    } catch (failure) {
      // The worker is gone, or what it was given broke it: said in place of an answer, never a blank page.
      const message = `This could not be worked out (${failure instanceof Error ? failure.message : String(failure)}). What is entered is kept.`;
      answer.value = { ok: false, error: { field: 'system', value: '', accepted: '', message } };
    } finally {
      clearTimeout(noticed);
      working.value = false;
    }
  });
  watch([system, readings, now], () => solve({ asked: system.value, settled: false }), { immediate: true });
  // What is a first estimate yet is run in the cells, one row at a time, and read from then on: not for every state passed through.
  const tried = new Set<string>();
  let running: Running<Jobs['column']['output']> | null = null;
  const refine = useDebounceFn(async () => {
    const outcome = answer.value;
    const asked = outcome?.ok ? outcome.value.estimated.find(({ key }) => !tried.has(key)) : undefined;
    if (!asked || running || gone) return;
    tried.add(asked.key);
    const { beds, water, flowLPerH } = asked.chain;
    // Far past its fronts the run goes on as far as the bed has.
    const options = asked.litres > 0 ? { least: FURTHER * asked.litres } : {};
    running = start('column', { beds: [...beds], water, flowLPerH, options }, () => undefined);
    const found = await running.result.catch(() => null);
    running = null;
    if (gone || !found?.ok) return;
    await keepLifeBeside(asked.key, lifeOf(found.value));
    solve({ asked: system.value, settled: false });
  }, SETTLED_MS);
  watch(answer, () => void refine());
  onScopeDispose(() => running?.cancel());
  return {
    solved: computed(() => (answer.value?.ok ? answer.value.value : null)),
    error: computed(() => (answer.value && !answer.value.ok ? answer.value.error : null)),
    working,
    upToDate: computed(() => answeredFor.value !== null && answeredFor.value === readings.value),
  };
}
