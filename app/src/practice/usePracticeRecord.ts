import type { Declaration } from '@yes-clear/core/fault';
import { mean } from '@yes-clear/core/numeric';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import type { PracticeView } from '../worker/practiceBench';

/** One exercise that was carried to its end. */
export interface Attempt {
  readonly exercise: string;
  readonly seed: number;
  readonly at: string;
  readonly score: number;
  readonly right: boolean;
  readonly confidence: number;
  /** log2 of what was given to the truth, and what the search gave it on the same readings. */
  readonly ownBits: number;
  readonly searchBits: number;
}
/** Attempts kept; the oldest go first. */
const MOST = 500;

/** The learner's own record, kept in this browser alone. */
export function usePracticeRecord() {
  const attempts = useLocalStorage<readonly Attempt[]>('yes-clear:practice', [], { shallow: true });
  return {
    /** The best score of an exercise; null where it was never carried to its end. */
    best: (exercise: string): number | null => {
      const own = attempts.value.filter((one) => one.exercise === exercise);
      return own.length > 0 ? Math.max(...own.map(({ score }) => score)) : null;
    },
    /** How confidence kept its word; null before the first exercise. */
    kept: computed(() => {
      const all = attempts.value;
      if (all.length === 0) return null;
      return {
        count: all.length,
        right: all.filter(({ right }) => right).length,
        confidence: mean(all.map(({ confidence }) => confidence)),
        ownBits: mean(all.map(({ ownBits }) => ownBits)),
        searchBits: mean(all.map(({ searchBits }) => searchBits)),
      };
    }),
    /** Writes an exercise down once, however often its end is looked at. */
    add: ({ exercise, seed, said, view }: { exercise: string; seed: number; said: Declaration; view: PracticeView }): void => {
      const judged = view.judged;
      if (!judged || attempts.value.some((one) => one.exercise === exercise && one.seed === seed)) return;
      attempts.value = [
        ...attempts.value,
        {
          exercise,
          seed,
          at: new Date().toISOString(),
          score: judged.score,
          right: judged.credit === 1,
          confidence: said.confidence,
          ownBits: judged.surpriseBits.own,
          searchBits: judged.surpriseBits.search,
        },
      ].slice(-MOST);
    },
    forget: (): void => void (attempts.value = []),
  };
}
