import { newId } from '../store/newId';
import type { Reading, System } from '@yes-clear/core/file';
import { parseQuickLine, type QuickLine } from '@yes-clear/core/log';
import { computed, type ComputedRef, type Ref } from 'vue';
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
  const parsed = computed(() => {
    const current = system();
    return current ? parseQuickLine(text.value, current.train.probes, current.instruments) : null;
  });
  return {
    text,
    parsed,
    make: () => {
      const current = system();
      if (!current || !parsed.value || parsed.value.problem !== null) return null;
      return { ...parsed.value.reading, id: newId(), systemId: current.id, at: new Date().toISOString() };
    },
    clear: () => {
      text.value = '';
    },
  };
}
