import { expose } from 'comlink';
import { JOBS, type JobName, type Jobs } from './jobs';
import { runInSlices } from './slices';

/** The one compute worker: long work beside the page, cancelled by its number. */
const cancelled = new Set<number>();

const worker = {
  async run<J extends JobName>(
    id: number,
    job: J,
    input: Jobs[J]['input'],
    progress: (share: number) => void,
  ): Promise<Jobs[J]['output'] | null> {
    const result = await runInSlices<Jobs[J]['output']>(JOBS[job](input), {
      progress: (share) => void progress(share),
      cancelled: () => cancelled.has(id),
      pause: () => new Promise((done) => setTimeout(done)),
      now: () => performance.now(),
    });
    cancelled.delete(id);
    return result;
  },
  cancel(id: number): void {
    cancelled.add(id);
  },
};
export type ComputeWorker = typeof worker;
expose(worker);
