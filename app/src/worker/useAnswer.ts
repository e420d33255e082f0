import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { askBeside } from './client';
import type { Answer, Asked, Question } from './questions';

/**
 * The answer to a question that takes many solves, worked out beside the page whenever what is asked changes. The last
 * answer stands until the next one comes; while one is being worked out, only the newest question waits.
 *
 * @param input what is asked; null asks nothing and empties the answer
 * @param restMs how long the hand must rest before it is asked: what is dear is not asked at every key
 */
export function useAnswer<Q extends Question>(
  question: Q,
  input: () => Asked<Q> | null,
  restMs = 0,
): { readonly answer: ShallowRef<Answer<Q> | null>; readonly working: Ref<boolean>; readonly failed: Ref<string | null> } {
  const answer = shallowRef(null) as ShallowRef<Answer<Q> | null>;
  const working = ref(false);
  const failed = ref<string | null>(null);
  let next: { readonly asked: Asked<Q> | null } | null = null;
  let gone = false;
  onScopeDispose(() => (gone = true));

  async function run(): Promise<void> {
    if (working.value) return;
    working.value = true;
    while (next && !gone) {
      const { asked } = next;
      next = null;
      try {
        answer.value = asked === null ? null : await askBeside(question, asked);
        failed.value = null;
      } catch (error) {
        failed.value = error instanceof Error ? error.message : String(error);
      }
    }
    working.value = false;
  }
  let resting: ReturnType<typeof setTimeout> | undefined;
  watch(input, (asked) => {
    next = { asked };
    clearTimeout(resting);
    if (restMs > 0) resting = setTimeout(() => void run(), restMs);
    else void run();
  });
  next = { asked: input() };
  void run();
  return { answer, working, failed };
}
