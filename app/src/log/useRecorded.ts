import { DAY_MS } from '@yes-clear/core/quantity';
import { probeOf, trace, type Samples } from '@yes-clear/core/recording';
import { computed, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue';
import type { TimeWindow } from '../kit/chart/useTimeWindow';
import type { RecordingRow } from '../store/database';
import { useLive } from '../store/live';
import { recordingsOf } from '../store/recordingRows';
import { asFineAsKept, blocksIn } from '../store/recordings';
import { newest } from '../worker/newest';
import type { Traced } from './useLogSeries';

/** A stretch no longer than this is drawn from what was recorded, not from its days. */
const CLOSE_MS = 45 * DAY_MS;
/** Stretches a screen's width is cut into: each gives its lowest and its highest figure. */
const STRETCHES = 360;

/** What is held of a probe: more than is looked at, so that panning has it at hand. */
interface Held {
  readonly instrumentId: string;
  readonly samples: Samples;
}

/** Recordings of a system, and their figures where the log is looked at closely. */
export function useRecorded(
  systemId: string,
  { from, until }: Pick<TimeWindow, 'from' | 'until'>,
): { readonly recordings: ShallowRef<readonly RecordingRow[]>; readonly traces: ComputedRef<ReadonlyMap<string, Traced>> } {
  const recordings = useLive<readonly RecordingRow[]>(() => recordingsOf(systemId), []);
  const held = shallowRef<ReadonlyMap<string, Held>>(new Map());
  const close = computed(() => until.value - from.value <= CLOSE_MS);
  /** What is fetched: whole spans of the window, so that a small move fetches nothing. */
  const reach = computed(() => {
    if (!close.value || recordings.value.length === 0) return null;
    const span = 2 ** Math.ceil(Math.log2(until.value - from.value));
    return { from: (Math.floor(from.value / span) - 1) * span, until: (Math.ceil(until.value / span) + 1) * span };
  });
  // One fetch at a time, and of those that wait the newest: what comes late never stands over what was asked since.
  const fetch = newest<{ readonly from: number; readonly until: number } | null>(async (asked) => {
    const found = new Map<string, Held>();
    for (const row of asked ? recordings.value : [])
      for (const channel of row.channels) {
        const probeId = probeOf(channel);
        const instrumentId = probeId === null ? undefined : row.instruments[probeId];
        if (!asked || probeId === null || instrumentId === undefined || found.has(probeId)) continue;
        const samples = asFineAsKept(await blocksIn(row.id, channel, asked.from, asked.until));
        if (samples.at.length > 0) found.set(probeId, { instrumentId, samples });
      }
    held.value = found;
  });
  watch([() => reach.value?.from, () => reach.value?.until, recordings], () => fetch(reach.value), { immediate: true });
  const traces = computed(
    () =>
      new Map(
        close.value
          ? [...held.value].map(([probeId, { instrumentId, samples }]): [string, Traced] => [
              probeId,
              { instrumentId, points: trace(samples, from.value, until.value, STRETCHES) },
            ])
          : [],
      ),
  );
  return { recordings, traces };
}
