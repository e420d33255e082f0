import { ref, watch, type Ref } from 'vue';

/** Turns true once a frame was seen after something is there: what stands below the first sight is made then. */
export function useAfterFrame(isThere: () => boolean): Ref<boolean> {
  const seen = ref(false);
  const stop = watch(
    isThere,
    (there) => {
      if (!there) return;
      requestAnimationFrame(() => setTimeout(() => (seen.value = true)));
      queueMicrotask(() => stop());
    },
    { immediate: true, flush: 'post' },
  );
  return seen;
}
