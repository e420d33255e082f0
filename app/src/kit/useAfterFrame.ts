import { whenever } from '@vueuse/core';
import { ref, type Ref } from 'vue';

/** Turns true once a frame was seen after something is there: what stands below the first sight is made then. */
export function useAfterFrame(isThere: () => boolean): Ref<boolean> {
  const seen = ref(false);
  whenever(isThere, () => requestAnimationFrame(() => setTimeout(() => (seen.value = true))), {
    immediate: true,
    flush: 'post',
    once: true,
  });
  return seen;
}
