import { useIntervalFn } from '@vueuse/core';
import { computed, ref } from 'vue';

/** A countdown that survives a busy tab: it counts by the clock, not by its own ticks. */
export function useCountdown(seconds: () => number) {
  const endsAt = ref<number | null>(null);
  const left = ref(0);
  const ticker = useIntervalFn(tick, 200, { immediate: false });

  function tick(): void {
    if (endsAt.value === null) return;
    left.value = Math.max(0, Math.ceil((endsAt.value - Date.now()) / 1000));
    if (left.value > 0) return;
    stop();
    finished.value = true;
    navigator.vibrate?.([200, 100, 200]);
  }
  const finished = ref(false);
  function start(): void {
    finished.value = false;
    endsAt.value = Date.now() + seconds() * 1000;
    left.value = Math.ceil(seconds());
    ticker.resume();
  }
  function stop(): void {
    endsAt.value = null;
    ticker.pause();
  }
  const running = computed(() => endsAt.value !== null);
  return { running, left, finished, start, stop, toggle: () => (running.value ? stop() : start()) };
}
