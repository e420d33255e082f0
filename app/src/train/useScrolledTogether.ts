import { useEventListener } from '@vueuse/core';
import { watch, type Ref } from 'vue';

/** Keeps an element scrolled sideways to where its fellows are: a long train and its ledger move as one. */
export function useScrolledTogether(element: Readonly<Ref<HTMLElement | null>>, scrolled: Ref<number>): void {
  useEventListener(element, 'scroll', () => {
    if (element.value) scrolled.value = element.value.scrollLeft;
  });
  watch(
    [element, scrolled],
    () => {
      if (element.value && Math.abs(element.value.scrollLeft - scrolled.value) > 1) element.value.scrollLeft = scrolled.value;
    },
    { flush: 'post' },
  );
}
