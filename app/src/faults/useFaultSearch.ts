import type { Reading } from '@yes-clear/core/file';
import { asFaultReadings, type FaultAnswer, type FaultReading, type KindId, type YesNoId } from '@yes-clear/core/fault';
import { useLocalStorage } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import { confirmedCauses, type ConfirmedCauses } from '../store/confirmed';
import type { OpenSystem } from '../system/openSystem';
import { start, type Running } from '../worker/client';
import { newest } from '../worker/newest';
import type { FaultsAsked, FaultsFound } from '../worker/faultSearch';

/** What was found on site since the last reading, kept in this browser until the search is ended. */
interface OnSite {
  readonly entries: readonly FaultReading[];
  readonly answers: readonly FaultAnswer[];
  /** What is struck out: `log:kind` of the reading judged, `entry:place` of what was read since. */
  readonly struck: readonly string[];
}
const NOTHING: OnSite = { entries: [], answers: [], struck: [] };

/** The search for what is wrong with the open system: what is known, and what follows from it, worked out beside the page. */
export function useFaultSearch({ id, system, readings, solved, error, now }: OpenSystem) {
  const onSite = useLocalStorage<OnSite>(`yes-clear:faults:${id}`, NOTHING, { shallow: true });
  const counted = computed((): readonly Reading[] =>
    readings.value.filter(({ counts }) => counts).toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at)),
  );
  /** The newest reading that says anything of the water. */
  const judged = computed((): Reading | null => {
    const current = system.value;
    return (current && counted.value.findLast((reading) => asFaultReadings(current, reading).length > 1)) ?? null;
  });
  const wanted = ref<KindId | YesNoId | null>(null);
  const confirmed = shallowRef<ConfirmedCauses>({});
  const countAnew = async (): Promise<void> => void (confirmed.value = await confirmedCauses());
  void countAnew();

  const found = shallowRef<FaultsFound | null>(null);
  const problem = ref<string | null>(null);
  const progress = ref<number | null>(null);
  let running: Running<unknown> | null = null;
  let gone = false;
  onScopeDispose(() => {
    gone = true;
    running?.cancel();
  });

  const asked = computed((): FaultsAsked | null => {
    const current = system.value;
    // A log that has not been read yet is not an empty one: it has been once the train stands solved with it.
    if (!current || (!solved.value && !error.value)) return null;
    const reading = judged.value;
    const fromLog = reading ? asFaultReadings(current, reading) : [];
    const keys = [...fromLog.map(({ kind }) => `log:${kind}`), ...onSite.value.entries.map((_, i) => `entry:${i}`)];
    return {
      system: current,
      before: counted.value.filter((one) => !reading || Date.parse(one.at) < Date.parse(reading.at)),
      judged: reading,
      entries: onSite.value.entries,
      answers: onSite.value.answers,
      struck: keys.flatMap((key, i) => (onSite.value.struck.includes(key) ? [i] : [])),
      confirmed: confirmed.value,
      wanted: wanted.value,
      course: (solved.value?.membrane?.points ?? []).filter(({ readingId }) => readingId !== reading?.id),
      now: now.value.slice(0, 13) + ':00:00Z',
    };
  });
  const search = newest<FaultsAsked | null>(async (input) => {
    if (gone || !input) return;
    const job = start('faults', input, (share) => (progress.value = share));
    running = job;
    try {
      const outcome = await job.result;
      if (outcome === null) return;
      problem.value = outcome.ok ? null : outcome.error.message;
      if (outcome.ok) found.value = outcome.value;
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : String(failure);
    } finally {
      running = null;
      progress.value = null;
    }
  });
  const cancelled = ref(false);
  watch(
    () =>
      JSON.stringify([
        asked.value?.entries,
        asked.value?.answers,
        asked.value?.struck,
        asked.value?.wanted,
        asked.value?.judged,
        asked.value?.confirmed,
        asked.value?.course.length,
        asked.value?.system.updatedAt,
        asked.value?.now,
      ]),
    () => {
      cancelled.value = false;
      search(asked.value);
    },
    { immediate: true },
  );

  const change = (next: Partial<OnSite>): void => {
    wanted.value = null;
    onSite.value = { ...onSite.value, ...next };
  };
  return {
    found,
    problem,
    progress,
    judged,
    wanted,
    cancelled,
    onSite,
    countAnew,
    read: (reading: FaultReading) => change({ entries: [...onSite.value.entries, reading] }),
    answer: (one: FaultAnswer) => change({ answers: [...onSite.value.answers.filter(({ check }) => check !== one.check), one] }),
    takeBackAnswer: (check: YesNoId) => change({ answers: onSite.value.answers.filter((one) => one.check !== check) }),
    /** Removes what was read since; a reading of the log stays where it is. */
    takeBackEntry: (place: number) =>
      change({
        entries: onSite.value.entries.filter((_, i) => i !== place),
        struck: onSite.value.struck.filter((key) => !key.startsWith('entry:')),
      }),
    strike: (key: string) =>
      change({
        struck: onSite.value.struck.includes(key) ? onSite.value.struck.filter((one) => one !== key) : [...onSite.value.struck, key],
      }),
    startAnew: () => change(NOTHING),
    choose: (check: KindId | YesNoId) => void (wanted.value = check),
    stop: () => {
      cancelled.value = true;
      running?.cancel();
    },
    again: () => {
      cancelled.value = false;
      search(asked.value);
    },
  };
}
export type FaultSearch = ReturnType<typeof useFaultSearch>;
