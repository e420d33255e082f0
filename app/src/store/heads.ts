import { shallowRef, watch, type ShallowRef } from 'vue';
import { database, systemRevisions } from './database';
import { useLive } from './live';
import { useStoreState } from './storeState';

/** What a list of systems needs to know of each. */
export interface SystemHead {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly demo: boolean;
  readonly createdAt: string;
  /** Grows with every write to the system or its readings. */
  readonly revision: number;
}

/**
 * Every system by name, oldest first; null until they have been read. Watches ids and revisions alone, and reads whole
 * systems only where one has changed: an edit of one of a hundred costs no more than of one.
 */
export function useSystemHeads(): ShallowRef<readonly SystemHead[] | null> {
  const heads = shallowRef<readonly SystemHead[] | null>(null);
  const state = useStoreState();
  const revisions = useLive<readonly [string, number][] | null>(systemRevisions, null);
  let asked = 0;
  watch(revisions, async (pairs) => {
    if (!pairs) return;
    const mine = (asked += 1);
    try {
      const known = new Map(heads.value?.map((head) => [head.id, head]));
      const changed = pairs.flatMap(([id, revision]) => (known.get(id)?.revision === revision ? [] : [id]));
      for (const row of changed.length > 0 ? await database.systems.bulkGet(changed) : []) {
        if (!row) continue;
        const { name, site, demo, createdAt } = row.system;
        known.set(row.id, { id: row.id, name, site, demo, createdAt, revision: row.revision });
      }
      if (mine !== asked) return;
      heads.value = pairs
        .flatMap(([id]) => known.get(id) ?? [])
        .sort((a, b) => (a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0));
    } catch (error) {
      state.fails(error);
    }
  });
  return heads;
}
