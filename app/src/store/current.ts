import type { Reading, System } from '@yes-clear/core/file';
import { logFindings, standing, type ResinTracking } from '@yes-clear/core/log';
import type { InputError, Outcome, UnitPreference } from '@yes-clear/core/quantity';
import { membraneOperation, tapWater, type Finding, type MembraneOperation, type TrainReport, type TrainUse } from '@yes-clear/core/train';
import { settleWater, type CompletedWater, type WaterState } from '@yes-clear/core/water';
import { useNow } from '@vueuse/core';
import { computed, inject, provide, shallowRef, watch, type ComputedRef, type InjectionKey, type ShallowRef } from 'vue';
import { useHistory } from './history';
import { oneRecord, useLive, writeSystem } from './systems';

/** The system being worked on, everything computed from it, and the ways to change it. */
export interface CurrentSystem {
  readonly system: ShallowRef<System | null>;
  readonly readings: ComputedRef<readonly Reading[]>;
  readonly units: ComputedRef<UnitPreference>;
  readonly water: ComputedRef<Outcome<CompletedWater> | null>;
  /** What the tap water is like; null while it cannot be computed. */
  readonly tapState: ComputedRef<WaterState | null>;
  readonly report: ComputedRef<Outcome<TrainReport> | null>;
  readonly tracking: ComputedRef<ResinTracking | null>;
  /** The membrane unit as it runs today, to be asked alone; null without one. */
  readonly operation: ComputedRef<MembraneOperation | null>;
  /** What the log says each stage has been through. */
  readonly use: ComputedRef<TrainUse>;
  readonly logFindings: ComputedRef<readonly Finding[]>;
  /** What stops the train from being solved, if anything. */
  readonly error: ComputedRef<InputError | null>;
  readonly now: ComputedRef<string>;
  readonly missing: ShallowRef<boolean>;
  /** Changes the system; saved at once, undoable under the label. */
  edit(label: string, change: (system: System) => System): void;
}

const KEY: InjectionKey<CurrentSystem> = Symbol('current system');

const DEFAULT_UNITS: UnitPreference = { system: 'metric', hardness: 'mg/L CaCO₃', ppmFactor: 0.5 };

/** Opens a system for the component below which the phases live. */
export function provideCurrentSystem(id: () => string): CurrentSystem {
  const history = useHistory();
  const system = shallowRef<System | null>(null);
  const missing = shallowRef(false);
  const stored = useLive(async () => ({ id: id(), record: await oneRecord(id()) }), { id: '', record: null });
  /** Writes on their way to the database; while there are any, what is on screen is newer than what is stored. */
  let pending = 0;
  watch(stored, ({ id: loadedId, record }) => {
    if (loadedId !== id() || pending > 0) return;
    missing.value = record === null;
    if (record) system.value = record.system;
  });
  const clock = useNow({ interval: 60_000 });
  const now = computed(() => clock.value.toISOString());
  const readings = computed<readonly Reading[]>(() => stored.value.record?.readings ?? []);
  const units = computed(() => system.value?.units ?? DEFAULT_UNITS);
  const water = computed(() => (system.value ? tapWater(system.value.source, system.value.instruments) : null));
  const tapState = computed(() => {
    const settled = water.value?.ok ? settleWater(water.value.value.water) : null;
    return settled?.ok ? settled.value : null;
  });

  const today = computed(() =>
    system.value && water.value?.ok ? standing(system.value, readings.value, water.value.value.water, now.value) : null,
  );
  const tracking = computed(() => (today.value?.ok ? today.value.value.tracking : null));
  const report = computed<Outcome<TrainReport> | null>(() =>
    today.value?.ok ? { ok: true, value: today.value.value.report } : today.value,
  );
  const error = computed<InputError | null>(() => {
    if (water.value && !water.value.ok) return water.value.error;
    return report.value && !report.value.ok ? report.value.error : null;
  });

  function edit(label: string, change: (system: System) => System): void {
    const before = system.value;
    if (!before) return;
    const at = Date.now();
    const stamped = (state: System): System => ({ ...change(state), updatedAt: new Date(at).toISOString() });
    const after = stamped(before);
    system.value = after;
    pending += 1;
    history.record({ kind: 'system', systemId: before.id, label, before, after, at });
    void writeSystem(before.id, stamped)
      .then((row) => {
        // The stored state may hold another tab's change as well; show it once nothing of ours is on its way.
        if (pending === 1 && row && system.value?.id === row.id) system.value = row.system;
      })
      .finally(() => {
        pending -= 1;
      });
  }

  const current: CurrentSystem = {
    system,
    readings,
    units,
    water,
    tapState,
    report,
    tracking,
    operation: computed(() =>
      system.value && report.value?.ok ? membraneOperation(report.value.value.train, system.value.source, report.value.value.solved) : null,
    ),
    use: computed(() => (today.value?.ok ? today.value.value.use : {})),
    error,
    now,
    missing,
    logFindings: computed(() =>
      system.value && report.value?.ok
        ? logFindings(system.value, readings.value, report.value.value.solved, tracking.value, now.value)
        : [],
    ),
    edit,
  };
  provide(KEY, current);
  return current;
}

/** The system opened by the layout above. */
export function useCurrentSystem(): CurrentSystem {
  const current = inject(KEY);
  if (!current) throw new Error('No system is open here.');
  return current;
}
