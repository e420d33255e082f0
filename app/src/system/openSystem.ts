import { answered, same, systemIssue, type Change, type Reading, type System, type SystemRecord } from '@yes-clear/core/file';
import { type InputError, METRIC_UNITS, type Outcome, type UnitPreference } from '@yes-clear/core/quantity';
import { tapWater } from '@yes-clear/core/train';
import { settleWater, type CompletedWater, type WaterState } from '@yes-clear/core/water';
import { useEventListener, useNow } from '@vueuse/core';
import {
  computed,
  inject,
  onScopeDispose,
  provide,
  shallowRef,
  watch,
  type ComputedRef,
  type InjectionKey,
  type Ref,
  type ShallowRef,
} from 'vue';
import { database, type SystemRow } from '../store/database';
import { changedPart, commit } from '../store/edits';
import { writeDown } from '../store/journal';
import { recordedReadings, together } from '../store/recordings';
import { useLive } from '../store/live';
import { useSaving, type Holder } from '../store/saving';
import { bringBack } from '../store/systems';
import type { Solved } from '../worker/solved';
import { useSolved } from './useSolved';

/** The system of the address: what is loaded, solved, edited and being saved. Made anew for each address. */
export interface OpenSystem {
  readonly id: string;
  readonly system: ShallowRef<System | null>;
  /** The log: what was typed and, day by day, what was recorded. */
  readonly readings: ComputedRef<readonly Reading[]>;
  readonly units: ComputedRef<UnitPreference>;
  readonly water: ComputedRef<Outcome<CompletedWater> | null>;
  /** What the tap water is like; null while it cannot be computed. */
  readonly tapState: ComputedRef<WaterState | null>;
  /** The system as it stands today, with the train it was solved for; null while that cannot be had. */
  readonly solved: ComputedRef<Solved | null>;
  /** What stops the train from being solved, if anything. */
  readonly error: ComputedRef<InputError | null>;
  /** Whether a new answer is a while in coming; the last one stands. */
  readonly working: Ref<boolean>;
  /** Whether the answer that stands knows every reading there is. */
  readonly upToDate: ComputedRef<boolean>;
  readonly now: ComputedRef<string>;
  /** Not in this browser, or not any more. */
  readonly missing: ShallowRef<boolean>;
  /** What was seen last of a system that was removed elsewhere, to be brought back. */
  readonly removed: ShallowRef<SystemRecord | null>;
  readonly unsaved: ComputedRef<SystemRecord | null>;
  /** Changes the system; saved at once, undoable under the label. */
  edit(label: string, change: (system: System) => System): void;
  restore(): Promise<void>;
}

const KEY: InjectionKey<OpenSystem> = Symbol('open system');

/** Opens a system for the component below which the phases live; that component is made anew for another id. */
export function provideOpenSystem(id: string): OpenSystem {
  const system = shallowRef<System | null>(null);
  const missing = shallowRef(false);
  const removed = shallowRef<SystemRecord | null>(null);
  const row = useLive<SystemRow | null | undefined>(async () => (await database.systems.get(id)) ?? null, undefined);
  /** Null until they have been read: a log that is not there yet is not an empty one. */
  const stored = useLive<readonly Reading[] | null>(() => database.readings.where('systemId').equals(id).sortBy('at'), null);
  const recorded = useLive<readonly Reading[] | null>(() => recordedReadings(id), null);
  const log = computed((): readonly Reading[] | null => {
    if (!stored.value || !recorded.value) return null;
    if (recorded.value.length === 0) return stored.value;
    return together(stored.value, recorded.value);
  });
  const { edit, waiting, forget, keepAll } = useEdits(system, async () => show(await database.systems.get(id).catch(() => undefined)));
  let newest = 0;
  /** Shows what is stored, unless what is on the screen is newer; a state that is the same keeps its place. */
  function show(now: SystemRow | undefined): void {
    if (!now || now.revision < newest || waiting.value.length > 0) return;
    newest = now.revision;
    if (!sameSystem(system.value, now.system)) system.value = now.system;
  }
  watch(row, (now) => {
    if (now === undefined) return;
    if (now) removed.value = null;
    else newest = 0;
    if (now === null && system.value) removed.value = { system: system.value, readings: lastReadings };
    if (!now) system.value = null;
    missing.value = now === null;
    show(now ?? undefined);
  });
  /** Readings leave with their system; those seen last come back with it. */
  let lastReadings: readonly Reading[] = [];
  watch(stored, (readings) => {
    if (readings && readings.length > 0) lastReadings = readings;
  });
  const clock = useNow({ interval: 60_000 });
  const now = computed(() => clock.value.toISOString());
  // An edit of the train leaves source and meters as they are, and with them the water.
  const source = computed(() => system.value?.source);
  const instruments = computed(() => system.value?.instruments);
  const water = computed(() => (source.value && instruments.value ? tapWater(source.value, instruments.value) : null));
  const tapState = computed(() => {
    const settled = water.value?.ok ? settleWater(water.value.value.water) : null;
    return settled?.ok ? settled.value : null;
  });
  const open: OpenSystem = {
    id,
    system,
    readings: computed(() => log.value ?? []),
    units: computed(() => system.value?.units ?? METRIC_UNITS),
    water,
    tapState,
    ...useSolved(id, system, log, now),
    now,
    missing,
    removed,
    unsaved: computed(() =>
      system.value && waiting.value.length > 0 ? { system: system.value, readings: stored.value ?? [] } : removed.value,
    ),
    edit,
    restore: async () => {
      const record = removed.value;
      if (!record) return;
      const kept = await useSaving().keep('the system', () => bringBack(record));
      // What waited to be kept is in what was brought back.
      if (kept.ok) forget();
    },
  };
  const saving = useSaving();
  const holder: Holder = { unsaved: () => open.unsaved.value, again: keepAll };
  saving.hold(holder);
  onScopeDispose(() => {
    // What is on its way, or was refused, is held and can be tried again after its page has gone.
    const leave = (): void => (waiting.value.length === 0 ? saving.letGo(holder) : undefined);
    leave();
    watch(waiting, leave, { flush: 'sync' });
  });
  provide(KEY, open);
  return open;
}

/** An edit on its way to the database. */
interface Waiting {
  readonly label: string;
  readonly systemId: string;
  readonly changes: readonly Change[];
  readonly at: number;
  readonly kept: () => void;
}

/** Edits: shown at once, written down at once, kept one after the other; what the store refuses waits and is tried again. */
function useEdits(system: ShallowRef<System | null>, settled: () => Promise<void>) {
  const saving = useSaving();
  const waiting = shallowRef<readonly Waiting[]>([]);
  let keeping = false;

  async function keepAll(): Promise<void> {
    if (keeping) return;
    keeping = true;
    try {
      while (waiting.value.length > 0) {
        for (let next = waiting.value[0]; next; next = waiting.value[0]) {
          const { label, systemId, changes, at, kept } = next;
          const outcome = await saving.keep(label, () => commit(label, [{ kind: 'changed', systemId, changes }], at));
          if (!outcome.ok) return;
          kept();
          waiting.value = waiting.value.slice(1);
        }
        // The stored state may hold another tab's change as well; while it is read, another edit may come.
        await settled();
      }
    } finally {
      keeping = false;
    }
  }

  function edit(label: string, change: (system: System) => System): void {
    const before = system.value;
    if (!before) return;
    const after = answered(before, change(before));
    const part = changedPart(before, after);
    if (part.kind !== 'changed' || part.changes.length === 0) return;
    const issue = systemIssue(after);
    if (issue) {
      saving.refuse(label, issue);
      return;
    }
    const at = Date.now();
    system.value = after;
    const { systemId, changes } = part;
    waiting.value = [...waiting.value, { label, systemId, changes, at, kept: writeDown({ systemId, label, changes, at }) }];
    void keepAll();
  }
  useEventListener(window, 'beforeunload', (event: BeforeUnloadEvent) => {
    if (waiting.value.length > 0 && saving.failed) event.preventDefault();
  });
  function forget(): void {
    for (const { kept } of waiting.value) kept();
    waiting.value = [];
  }
  return { edit, waiting, forget, keepAll };
}

/** Whether two states of a system say the same; when it was last edited is not part of it. */
const sameSystem = (a: System | null, b: System): boolean => a !== null && same({ ...a, updatedAt: b.updatedAt }, b);

/** The system opened by the layout above. */
export function useOpenSystem(): OpenSystem {
  const open = inject(KEY);
  if (!open) throw new Error('No system is open here.');
  return open;
}
