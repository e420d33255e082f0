import type { BenchAction, Declaration } from '@yes-clear/core/fault';
import { useLocalStorage } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import { usualUnits } from '../kit/usualUnits';
import { start, type Running } from '../worker/client';
import type { PracticeView } from '../worker/practiceBench';
import { usePracticeRecord } from './usePracticeRecord';

/** What was done in the exercise under way, kept in this browser: a reload goes on where it stood. */
interface UnderWay {
  readonly exercise: string;
  readonly seed: number;
  readonly actions: readonly BenchAction[];
  readonly said: Declaration | null;
}

/** Whether what is kept is this very exercise, and whole. */
const isKept = ({ exercise, seed, actions }: UnderWay, wanted: UnderWay): boolean =>
  exercise === wanted.exercise && seed === wanted.seed && Array.isArray(actions);

/** An exercise under way: everything is worked out beside the page from what was done so far. */
export function usePractice(exercise: string, seed: number) {
  const anew: UnderWay = { exercise, seed, actions: [], said: null };
  const kept = useLocalStorage<UnderWay>('yes-clear:bench', anew, { shallow: true });
  // Another tab may be at another exercise: what is kept is read once, and written as this one goes on.
  let underWay: UnderWay = isKept(kept.value, anew) ? kept.value : anew;
  const record = usePracticeRecord();
  const units = usualUnits();
  const view = shallowRef<PracticeView | null>(null);
  const problem = ref<string | null>(null);
  /** What stood in the way of the last thing asked; nothing came of it and no time passed. */
  const refused = ref<string | null>(null);
  const progress = ref<number | null>(null);
  const busy = ref(false);
  let running: Running<unknown> | null = null;
  let gone = false;
  onScopeDispose(() => {
    gone = true;
    running?.cancel();
  });

  /** Plays what was done with one thing more; kept only where it could be done. */
  async function play(next: UnderWay): Promise<void> {
    busy.value = true;
    try {
      const job = start('practice', { ...next, units }, (share) => (progress.value = share));
      running = job;
      const outcome = await job.result;
      if (outcome === null || gone) return;
      problem.value = outcome.ok ? null : outcome.error.message;
      if (!outcome.ok) return;
      refused.value = outcome.value.refused;
      if (outcome.value.refused === null) kept.value = underWay = next;
      view.value = outcome.value;
      if (outcome.value.judged && next.said) record.add({ exercise, seed, said: next.said, view: outcome.value });
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : String(failure);
    } finally {
      running = null;
      progress.value = null;
      busy.value = false;
    }
  }
  /** One after the other, in the order in which they were asked for: none is lost while another is worked out. */
  let last: Promise<void> = Promise.resolve();
  const inTurn = (next: () => UnderWay): Promise<void> => (last = last.then(() => (gone ? undefined : play(next()))));
  void inTurn(() => underWay);
  return {
    view,
    units,
    problem,
    refused,
    progress,
    busy,
    act: (action: BenchAction) => inTurn(() => ({ ...underWay, actions: [...underWay.actions, action] })),
    /** From its beginning, whatever was kept of it. */
    restart: () => inTurn(() => anew),
    declare: (said: Declaration) => inTurn(() => ({ ...underWay, said })),
    over: computed(() => view.value?.judged != null),
  };
}
