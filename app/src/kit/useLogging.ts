import type { Reading, System } from '@yes-clear/core/file';
import { slipsOf, typedUnits, type Doubt } from '@yes-clear/core/log';
import { ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { logReading, readingsAround } from '../store/readings';
import { useSaving } from '../store/saving';
import { useQuickLine } from './useQuickLine';

/** A line that is being logged: what of it is asked about first, and what became of it. */
export interface Logging extends Omit<ReturnType<typeof useQuickLine>, 'make'> {
  readonly busy: Ref<boolean>;
  /** What is asked about before it counts; none while nothing is. */
  readonly doubts: ShallowRef<readonly Doubt[]>;
  /** Why the store did not take it; what was typed stays in the line. */
  readonly refused: Ref<string | null>;
  /** Logs the line, or asks about what is odd in it; says what was kept, or null. */
  submit: () => Promise<Reading | null>;
  /** Takes what a figure probably was, or what was typed. */
  answer: (doubt: Doubt, how: 'probably' | 'asTyped') => Promise<Reading | null>;
}

/** Logs lines for a system. */
export function useLogging(system: () => System | null): Logging {
  const { make, ...line } = useQuickLine(system);
  const saving = useSaving();
  const busy = ref(false);
  const refused = ref<string | null>(null);
  const doubts = shallowRef<readonly Doubt[]>([]);
  /** The reading behind the doubts, and what it is held against. */
  let held: { readonly reading: Reading; readonly others: readonly Reading[] } | null = null;
  // Another figure typed is another reading.
  watch(line.text, () => {
    held = null;
    doubts.value = [];
    refused.value = null;
  });

  async function keep(reading: Reading): Promise<Reading | null> {
    busy.value = true;
    const kept = await saving.keep('the reading', () => logReading(reading));
    busy.value = false;
    refused.value = kept.ok ? null : `Not saved: ${kept.reason}. ${kept.remedy}`;
    // What is not kept stays in the line.
    if (!kept.ok) return null;
    line.clear();
    return reading;
  }

  async function look(reading: Reading, others: readonly Reading[]): Promise<Reading | null> {
    const current = system();
    if (!current) return null;
    // Asked in the units it was typed in.
    const units = line.parsed.value ? typedUnits(line.parsed.value, current.units) : current.units;
    const odd = slipsOf({ ...current, units }, reading, others);
    held = odd.length > 0 ? { reading, others } : null;
    doubts.value = odd;
    return odd.length > 0 ? null : keep(reading);
  }

  async function submit(): Promise<Reading | null> {
    const reading = busy.value || doubts.value.length > 0 ? null : make();
    if (!reading) return null;
    // Pressed twice, it is logged once: nothing is taken while the neighbours are read.
    busy.value = true;
    // A store that cannot be read does not keep a reading from being tried.
    const others = await readingsAround(reading.systemId, reading.at).catch(() => []);
    busy.value = false;
    return look(reading, others);
  }

  async function answer(doubt: Doubt, how: 'probably' | 'asTyped'): Promise<Reading | null> {
    if (!held || busy.value) return null;
    const { reading, others } = held;
    return how === 'probably' && doubt.probably
      ? look(doubt.probably.reading, others)
      : look({ ...reading, confirmed: [...reading.confirmed, doubt.field] }, others);
  }
  return { ...line, busy, doubts, refused, submit, answer };
}
