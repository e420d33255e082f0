import { liveQuery } from 'dexie';
import { getCurrentScope, onScopeDispose, shallowRef, type ShallowRef } from 'vue';
import { useStoreState } from './storeState';

/** Subscribes a ref to a database query for as long as the component lives; a query that fails is told, never dropped. */
export function useLive<T>(query: () => Promise<T> | T, initial: T): ShallowRef<T> {
  const result = shallowRef(initial);
  const state = useStoreState();
  let gone = false;
  let stop = (): void => undefined;
  void state.ready.then(() => {
    if (gone) return;
    const subscription = liveQuery(query).subscribe({
      next: (value) => {
        result.value = value;
        state.works();
      },
      error: (error: unknown) => state.fails(error),
    });
    stop = () => subscription.unsubscribe();
  });
  if (getCurrentScope())
    onScopeDispose(() => {
      gone = true;
      stop();
    });
  return result;
}
