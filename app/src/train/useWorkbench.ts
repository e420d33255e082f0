import type { TrainReport } from '@yes-clear/core/advice';
import { allStages, type System } from '@yes-clear/core/file';
import type { Stage } from '@yes-clear/core/stage';
import { computed, inject, provide, ref, watch, type ComputedRef, type InjectionKey, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { DescentInput } from '../descent/drawing';
import { descentInput } from '../descent/descentInput';
import { useOpenSystem } from '../system/openSystem';
import type { Lens } from './lens';
import { lensesOf, lensOf, stageOf } from './lenses';

/** What the parts of the workbench share: the train as drawn, the chosen stage, the lens, and where the picture is scrolled to. */
export interface Workbench {
  /** What was solved and what is drawn are one: an edit is drawn once its answer is there, in the units chosen now. */
  readonly drawn: ComputedRef<System | null>;
  readonly report: ComputedRef<TrainReport | null>;
  readonly input: ComputedRef<DescentInput | null>;
  readonly lenses: ComputedRef<readonly Lens[]>;
  readonly lens: ComputedRef<Lens | null>;
  /** The stage the lens looks at, where it belongs to a kind. */
  readonly lensStage: ComputedRef<Stage | null>;
  readonly selected: ComputedRef<string | null>;
  readonly stage: ComputedRef<Stage | null>;
  /** Chooses a stage and opens its lens; null lets go of it. */
  select(id: string | null): void;
  open(lensId: string): void;
  /** Room for the axis, and width of a column: the same in the picture and under it, px. */
  readonly left: number;
  readonly columnWidth: Ref<number>;
  /** How far picture and ledger are scrolled sideways together, px. */
  readonly scrolled: Ref<number>;
  /** Whether the lens of the membrane shows ways to more water, in place of its valves. */
  readonly watering: Ref<boolean>;
}

const KEY: InjectionKey<Workbench> = Symbol('workbench');
const LEFT = 116;

/** Sets the workbench up for its page; the address keeps the lens and the stage. */
export function provideWorkbench(): Workbench {
  const current = useOpenSystem();
  const route = useRoute();
  const router = useRouter();
  const { system, readings, solved } = current;
  const drawn = computed(() => solved.value && { ...solved.value.system, units: current.units.value });
  const report = computed(() => solved.value?.report ?? null);
  const input = computed(() =>
    drawn.value && report.value ? descentInput(drawn.value, report.value, readings.value, solved.value?.tracking ?? null) : null,
  );
  const asked = (key: 'lens' | 'stage'): string | null => {
    const value = route.query[key];
    return typeof value === 'string' ? value : null;
  };
  const lenses = computed(() => (system.value ? lensesOf(system.value) : []));
  const lens = computed(() => lenses.value.find(({ id }) => id === asked('lens')) ?? lenses.value[0] ?? null);
  const stage = computed(() => (system.value ? (allStages(system.value.train).find(({ id }) => id === asked('stage')) ?? null) : null));
  const selected = computed(() => stage.value?.id ?? system.value?.train.branches.find(({ id }) => id === asked('stage'))?.id ?? null);
  const lensStage = computed(() => (system.value && lens.value ? stageOf(system.value, lens.value, selected.value) : null));
  const go = (lensId: string | null, stageId: string | null): void =>
    void router.replace({ query: { ...(lensId === null ? {} : { lens: lensId }), ...(stageId === null ? {} : { stage: stageId }) } });
  const bench: Workbench = {
    drawn,
    report,
    input,
    lenses,
    lens,
    lensStage,
    selected,
    stage,
    select: (id) => {
      const own = id !== null && system.value ? lensOf(system.value, id) : null;
      go(own?.id ?? lens.value?.id ?? null, id);
    },
    open: (lensId) => {
      const next = lenses.value.find(({ id }) => id === lensId);
      // The lens of a kind brings a stage of that kind with it.
      const one = next?.kind && system.value ? stageOf(system.value, next, selected.value) : null;
      go(lensId, one?.id ?? selected.value);
    },
    left: LEFT,
    columnWidth: ref(94),
    scrolled: ref(0),
    watering: ref(false),
  };
  watch(lens, (now) => {
    if (now?.kind !== 'membrane') bench.watering.value = false;
  });
  provide(KEY, bench);
  return bench;
}

/** The workbench of the page one stands in. */
export function useWorkbench(): Workbench {
  const bench = inject(KEY);
  if (!bench) throw new Error('There is no workbench here: this part belongs on the Train page.');
  return bench;
}
