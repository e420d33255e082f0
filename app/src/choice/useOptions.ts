import { MOST_ROWS, type Compared, type Found, type InputTurn, type Row, type Why } from '@yes-clear/core/choice';
import type { ChoiceSettings, System } from '@yes-clear/core/file';
import type { TrainUse } from '@yes-clear/core/stage';
import { computed, onScopeDispose, ref, shallowRef, toRaw, watch } from 'vue';
import type { OpenSystem } from '../system/openSystem';
import { askBeside, spread, start, workersOffered, type Running } from '../worker/client';
import { newest } from '../worker/newest';
import type { Whole } from '../worker/optionSearch';

/** Parts a worker takes one after the other: the picture fills as they come. */
const PARTS_A_WORKER = 3;

/** The comparison of the open system: searched beside the page, asked again when anything it rests on changes. */
export function useOptions(open: OpenSystem) {
  const { system } = open;
  const whole = shallowRef<Whole | null>(null);
  const turns = shallowRef<readonly InputTurn[] | null>(null);
  const sure = shallowRef<{ readonly ids: readonly string[]; readonly compared: Compared } | null>(null);
  const extra = shallowRef<readonly Row[]>([]);
  /** What would do of what was solved so far: the picture fills with it. */
  const sofar = shallowRef<readonly Found[]>([]);
  const problem = ref<string | null>(null);
  const progress = ref<number | null>(null);
  const turning = ref<number | null>(null);
  const tookMs = ref<number | null>(null);
  const stopped = ref(false);
  /** Rows side by side that were put there or taken away by hand. */
  const hidden = ref<readonly string[]>([]);
  let running: Running<unknown> | null = null;
  let round = 0;
  let gone = false;
  onScopeDispose(() => {
    gone = true;
    running?.cancel();
  });

  /** Four side by side: today's, the recommended one, and what was asked for last. */
  const rows = computed(() => {
    const all = [...(whole.value?.shown.rows ?? []), ...extra.value].filter(({ id }) => !hidden.value.includes(id));
    const first = all.filter(({ role }) => role === 'today' || role === 'recommended');
    const others = all.filter((row) => !first.includes(row));
    return [...first, ...others.slice(-Math.max(0, MOST_ROWS - first.length))];
  });
  const recommended = computed(() => whole.value?.shown.chosen.recommendation ?? null);

  /** What the log says the stages of today's train have been through. */
  const use = (): TrainUse => toRaw(open.solved.value?.use ?? {});

  const search = newest<System>(async (asked) => {
    if (gone) return;
    const mine = (round += 1);
    const began = performance.now();
    problem.value = null;
    progress.value = 0;
    const parts = PARTS_A_WORKER * workersOffered();
    sofar.value = [];
    const job = spread(
      'options',
      Array.from({ length: parts }, (_, part) => ({ system: asked, part, parts })),
      (share) => (progress.value = share),
      (part) => {
        if (part.ok && mine === round) sofar.value = [...sofar.value, ...part.value.found];
      },
    );
    running = job;
    try {
      const done = await job.result;
      if (!done) return;
      const failed = done.find((part) => !part.ok);
      if (failed && !failed.ok) {
        problem.value = failed.error.message;
        whole.value = null;
        return;
      }
      const answer = await askBeside('optionsWhole', {
        system: asked,
        use: use(),
        parts: done.flatMap((part) => (part.ok ? [part.value] : [])),
      });
      if (!answer.ok) {
        problem.value = answer.error.message;
        return;
      }
      tookMs.value = performance.now() - began;
      extra.value = (await Promise.all(extra.value.map(({ id }) => askBeside('optionRow', { system: asked, use: use(), id })))).filter(
        (row): row is Row => row !== null,
      );
      whole.value = answer.value;
      progress.value = null;
      void follow(asked, answer.value, mine);
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : String(failure);
    } finally {
      running = null;
      progress.value = null;
    }
  });

  /** What comes after the search: how sure it is, then what would change it. */
  async function follow(asked: System, answer: Whole, mine: number): Promise<void> {
    const best = answer.shown.chosen.recommendation;
    sure.value = null;
    turns.value = null;
    if (!best) return;
    try {
      const rivals = answer.shown.rows.filter(({ id, route }) => id !== best.id && route !== 'bought').map(({ id }) => id);
      const ids = [best.id, ...rivals];
      const compared = await askBeside('optionsSure', { system: asked, use: use(), ids });
      if (gone || mine !== round) return;
      if (compared.ok) sure.value = { ids, compared: compared.value };
      turning.value = 0;
      const job = start('turns', { system: asked, id: best.id }, (share) => (turning.value = share), 'pool 0');
      running = job;
      const found = await job.result;
      if (gone || mine !== round) return;
      if (found?.ok) turns.value = found.value;
    } catch (failure) {
      problem.value = failure instanceof Error ? failure.message : String(failure);
    } finally {
      if (mine === round) turning.value = null;
    }
  }

  watch(
    () =>
      system.value &&
      JSON.stringify([
        open.solved.value?.use,
        system.value.source,
        system.value.instruments,
        system.value.goal,
        system.value.train,
        system.value.prices,
        system.value.choice,
        system.value.units,
      ]),
    (now) => {
      if (!now || !system.value) return;
      running?.cancel();
      stopped.value = false;
      search(toRaw(system.value));
    },
    { immediate: true },
  );

  return {
    whole,
    rows,
    recommended,
    turns,
    turning,
    use,
    sure,
    problem,
    progress,
    sofar,
    tookMs,
    stopped,
    set: (label: string, change: Partial<ChoiceSettings>) =>
      open.edit(`options ${label}`, (s) => ({ ...s, choice: { ...s.choice, ...change } })),
    stop: () => {
      stopped.value = true;
      running?.cancel();
    },
    again: () => {
      stopped.value = false;
      if (system.value) search(toRaw(system.value));
    },
    hide: (id: string) => {
      hidden.value = [...hidden.value, id];
      extra.value = extra.value.filter((row) => row.id !== id);
    },
    async compare(id: string): Promise<void> {
      hidden.value = hidden.value.filter((one) => one !== id);
      if (!system.value || rows.value.some((row) => row.id === id)) return;
      const row = await askBeside('optionRow', { system: toRaw(system.value), use: use(), id });
      if (row) extra.value = [...extra.value, row];
    },
    async why(id: string): Promise<Why | null> {
      return system.value && whole.value ? askBeside('optionWhy', { system: toRaw(system.value), id, sifted: whole.value.sifted }) : null;
    },
    async train(id: string) {
      return system.value ? askBeside('optionTrain', { system: toRaw(system.value), id }) : null;
    },
  };
}
export type Options = ReturnType<typeof useOptions>;
