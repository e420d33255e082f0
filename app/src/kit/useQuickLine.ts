import { newId } from '../store/newId';
import type { Reading, System } from '@yes-clear/core/file';
import { parseQuickLine, type QuickLine } from '@yes-clear/core/log';
import { useNow } from '@vueuse/core';
import { computed, type ComputedRef, type Ref } from 'vue';
import { localClock } from '../time/localClock';
import { useDraft } from './useDraft';

/** A line being typed for a system, and the reading it makes. */
export function useQuickLine(system: () => System | null): {
  text: Ref<string>;
  parsed: ComputedRef<QuickLine | null>;
  /** The reading as it will be stored, or null while something is wrong. */
  make: () => Reading | null;
  clear: () => void;
} {
  const text = useDraft(() => system()?.id ?? null);
  // What “today” and a day without a year mean moves on with the clock.
  const clock = useNow({ interval: 60_000 });
  const parsed = computed(() => {
    const current = system();
    return current ? parseQuickLine(text.value, current, localClock(clock.value, current.units.temperature === '°F')) : null;
  });
  return {
    text,
    parsed,
    make: () => {
      const current = system();
      if (!current || !parsed.value || parsed.value.problem !== null) return null;
      return { ...parsed.value.reading, id: newId(), systemId: current.id, at: parsed.value.at ?? new Date().toISOString() };
    },
    clear: () => {
      text.value = '';
    },
  };
}
