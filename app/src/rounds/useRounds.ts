import { computed, onScopeDispose, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { database, type RoundRow } from '../store/database';
import { useSystemHeads, type SystemHead } from '../store/heads';
import { useStoreState } from '../store/storeState';
import { roundBeside } from '../worker/client';
import { ROUND_SHAPE, type Round, type Urgency } from '../store/round';

/** A system in Rounds: by name at once, with how it stands as soon as that is known. */
export interface RoundLine {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly demo: boolean;
  /** As last worked out; null before the first time. */
  readonly round: Round | null;
}

export const GROUPS: readonly { readonly key: Urgency | 'unknown'; readonly label: string }[] = [
  { key: 'now', label: 'Act now' },
  { key: 'month', label: 'This month' },
  { key: 'fine', label: 'Fine' },
  { key: 'unknown', label: 'Being worked out' },
];

/** Answers are shown and stored in batches this far apart, ms: a hundred rows are not drawn a hundred times. */
const BATCH_MS = 120;

/** What an answer rests on: the system and its readings as they are, and the hour. */
const keyOf = (row: Pick<SystemHead, 'revision'>, now: Date): string => `${ROUND_SHAPE}:${row.revision}@${now.toISOString().slice(0, 13)}`;

/** Every system with how it stands: the last answer at once, a new one from the worker where something has changed. */
export function useRounds(now: Ref<Date>): {
  readonly lines: ComputedRef<readonly RoundLine[]>;
  /** Whether the systems have been read at all. */
  readonly loaded: ComputedRef<boolean>;
} {
  const rows = useSystemHeads();
  const answers = shallowRef<ReadonlyMap<string, RoundRow> | null>(null);
  let gone = false;
  onScopeDispose(() => (gone = true));

  void useStoreState()
    .ready.then(() => database.rounds.toArray())
    .catch(() => [])
    .then((known) => (answers.value = new Map(known.map((row) => [row.id, row]))));

  let fresh: RoundRow[] = [];
  let flushing: ReturnType<typeof setTimeout> | null = null;
  function flush(): void {
    flushing = null;
    const batch = fresh;
    fresh = [];
    answers.value = new Map([...(answers.value ?? []), ...batch.map((row) => [row.id, row] as const)]);
    // Only a shortcut for the next start: where the store is full, it is worked out again.
    void database.rounds.bulkPut(batch).catch(() => undefined);
  }

  /** One question at a time, the systems that changed first asked first. */
  const asked = new Set<string>();
  let asking = false;
  async function askAll(): Promise<void> {
    if (asking) return;
    asking = true;
    for (const id of asked) {
      if (gone) break;
      asked.delete(id);
      const at = now.value;
      try {
        const answer = await roundBeside(id, at.toISOString());
        if (answer) fresh.push({ id, key: keyOf(answer, at), round: answer.round });
      } catch (error) {
        const row = rows.value?.find((one) => one.id === id);
        if (row) fresh.push({ id, key: keyOf(row, at), round: failed(row, error) });
      }
      flushing ??= setTimeout(flush, BATCH_MS);
    }
    asking = false;
  }
  watch([rows, answers, () => now.value.toISOString().slice(0, 13)], () => {
    if (!rows.value || !answers.value) return;
    const waiting = new Set(fresh.map(({ id, key }) => `${id} ${key}`));
    for (const row of rows.value) {
      const key = keyOf(row, now.value);
      if (answers.value.get(row.id)?.key !== key && !waiting.has(`${row.id} ${key}`)) asked.add(row.id);
    }
    void askAll();
  });

  /** A line that says what it said keeps its place, so that an edit of one system redraws one row. */
  let drawn = new Map<string, RoundLine>();
  const lines = computed(() => {
    const next = (rows.value ?? []).map(({ id, name, site, demo }): RoundLine => {
      const round = answers.value?.get(id)?.round ?? null;
      const before = drawn.get(id);
      const said = before && before.name === name && before.site === site && before.demo === demo && before.round === round;
      return said ? before : { id, name, site, demo, round };
    });
    drawn = new Map(next.map((line) => [line.id, line]));
    return next;
  });
  return { lines, loaded: computed(() => rows.value !== null) };
}

/** A system that could not be worked out stands at the top with the reason; the others go on. */
function failed({ id }: SystemHead, error: unknown): Round {
  const why = `It could not be worked out (${error instanceof Error ? error.message : String(error)}). What is entered is kept.`;
  return {
    urgency: 'now',
    finding: { id: 'error', severity: 'bad', title: 'Cannot be computed', why },
    resinLeft: null,
    saltRemoved: null,
    output: null,
    newest: null,
    picture: null,
    due: [],
    away: false,
    hasReadings: false,
    id,
  };
}
