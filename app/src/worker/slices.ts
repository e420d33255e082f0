/** What a run of steps needs of its surroundings. */
export interface SliceOptions {
  readonly progress: (share: number) => void;
  readonly cancelled: () => boolean;
  /** Lets messages in between slices. */
  readonly pause: () => Promise<void>;
  readonly now: () => number;
}

/** Longest time between two looks at whether to stop, ms. */
const SLICE_MS = 40;

/** Runs steps in slices, so that progress goes out and a cancel comes in; null when it was cancelled. */
export async function runInSlices<T>(steps: Generator<number, T>, { progress, cancelled, pause, now }: SliceOptions): Promise<T | null> {
  let since = now();
  for (let next = steps.next(); ; next = steps.next()) {
    if (next.done) return next.value;
    if (now() - since < SLICE_MS) continue;
    progress(next.value);
    await pause();
    if (cancelled()) return null;
    since = now();
  }
}
