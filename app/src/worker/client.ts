import { proxy, wrap, type Remote } from 'comlink';
import type { ComputeWorker } from './compute';
import type { JobName, Jobs } from './jobs';

let remote: Remote<ComputeWorker> | null = null;
let lastId = 0;

/** The worker starts with the first job asked of it. */
function compute(): Remote<ComputeWorker> {
  remote ??= wrap<ComputeWorker>(new Worker(new URL('./compute.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** Work under way: its result (null when cancelled), and the way to stop it. */
export interface Running<T> {
  readonly result: Promise<T | null>;
  cancel(): void;
}

/** Gives a job to the worker. */
export function start<J extends JobName>(job: J, input: Jobs[J]['input'], progress: (share: number) => void): Running<Jobs[J]['output']> {
  const id = (lastId += 1);
  const worker = compute();
  return {
    // Comlink's types do not follow a generic method; the worker's own signature is the one above.
    result: worker.run(id, job, input, proxy(progress)) as Promise<Jobs[J]['output'] | null>,
    cancel: () => void worker.cancel(id),
  };
}
