import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { askBeside } from './client';
import { newest } from './newest';
import type { Answer, Asked, Question } from './questions';

/** How long the hand must rest before it is asked, ms: the page's own answer goes first. */
const REST_MS = 150;

/**
 * The answer to a question that takes many solves, worked out beside the page whenever what is asked changes. The last
 * answer stands until the next one comes.
 *
 * @param input what is asked; null asks nothing and empties the answer
 */
export function useAnswer<Q extends Question>(
  question: Q,
  input: () => Asked<Q> | null,
): { readonly answer: ShallowRef<Answer<Q> | null>; readonly working: Ref<boolean>; readonly failed: Ref<string | null> } {
  const answer = shallowRef(null) as ShallowRef<Answer<Q> | null>;
  const working = ref(false);
  const failed = ref<string | null>(null);
  let gone = false;
  onScopeDispose(() => (gone = true));

  const ask = newest<Asked<Q> | null>(async (asked) => {
    if (gone) return;
    working.value = true;
    try {
      answer.value = asked === null ? null : await askBeside(question, asked);
      failed.value = null;
    } catch (error) {
      failed.value = error instanceof Error ? error.message : String(error);
    }
    working.value = false;
  });
  let resting: ReturnType<typeof setTimeout> | undefined;
  watch(input, (asked) => {
    clearTimeout(resting);
    resting = setTimeout(() => ask(asked), REST_MS);
  });
  ask(input());
  return { answer, working, failed };
}
