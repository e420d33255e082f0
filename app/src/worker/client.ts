import type { Reading, System } from '@yes-clear/core/file';
import type { BedLife } from '@yes-clear/core/exchange';
import type { Outcome } from '@yes-clear/core/quantity';
import type { VanShare } from '@yes-clear/core/year';
import { proxy, wrap, type Remote } from 'comlink';
import type { Solved } from './solved';
import type { BroughtIn, MeterFile } from './bringIn';
import type { ComputeWorker } from './compute';
import type { JobName, Jobs } from './jobs';
import type { Answer, Asked, Question } from './questions';
import type { Round } from '../store/round';

/** A worker of its own for what a page waits for, so that long work beside it never holds it up. */
type Lane = 'page' | 'long' | 'rounds' | `pool ${number}`;

interface Staffed {
  readonly remote: Remote<ComputeWorker>;
  /** Fails when the worker itself does: it could not be loaded, or fell over. */
  readonly failure: Promise<never>;
}
const lanes = new Map<Lane, Staffed>();

/** A lane's worker starts with the first job asked of it; one that fell over is replaced at the next. */
function staffed(lane: Lane): Staffed {
  const known = lanes.get(lane);
  if (known) return known;
  const worker = new Worker(new URL('./compute.ts', import.meta.url), { type: 'module' });
  const failure = new Promise<never>((_, reject) => {
    worker.addEventListener('error', (event) => {
      lanes.delete(lane);
      reject(new Error(event.message || 'the worker could not be loaded'));
    });
  });
  failure.catch(() => undefined);
  const fresh = { remote: wrap<ComputeWorker>(worker), failure };
  lanes.set(lane, fresh);
  return fresh;
}

/** An answer of a lane, or the lane's own failure. */
const answer = <T>({ failure }: Staffed, asked: Promise<T>): Promise<T> => Promise.race([asked, failure]);

/** Readings each lane's worker has already, so that they are not copied at every edit. */
const sent = new WeakMap<Staffed, readonly Reading[]>();

/** Solves a system beside the page; see `solveSystem`. */
export async function solveBeside(
  system: System,
  readings: readonly Reading[],
  now: string,
  settled: boolean,
): Promise<Outcome<Omit<Solved, 'system'>>> {
  const lane = staffed('page');
  if (sent.get(lane) !== readings) {
    sent.set(lane, readings);
    void lane.remote.keepReadings(system.id, readings).catch(() => undefined);
  }
  return answer(lane, lane.remote.solve(system, now, settled) as Promise<Outcome<Omit<Solved, 'system'>>>);
}

/** Gives the worker that solves the life of a row of resin. */
export const keepLifeBeside = (key: string, life: BedLife): Promise<void> => staffed('page').remote.keepLife(key, life);

/** How one system stands, read from the database by the worker itself; null when it is not there. */
export async function roundBeside(id: string, now: string): Promise<{ readonly revision: number; readonly round: Round } | null> {
  const lane = staffed('rounds');
  return answer(lane, lane.remote.round(id, now));
}

/** A system's share of the van's year, read and run by the worker itself; null when it is not there. */
export async function vanShareBeside(id: string, now: string, bundleDays: number): Promise<Outcome<VanShare> | null> {
  const lane = staffed('rounds');
  return answer(lane, lane.remote.vanShare(id, now, bundleDays) as Promise<Outcome<VanShare> | null>);
}

/** Puts a question that takes many solves, beside the page and beside its own solve. */
export async function askBeside<Q extends Question>(question: Q, asked: Asked<Q>): Promise<Answer<Q>> {
  const lane = staffed('long');
  return answer(lane, lane.remote.ask(question, asked) as Promise<Answer<Q>>);
}

/** Work under way: its result (null when cancelled), and the way to stop it. */
export interface Running<T> {
  readonly result: Promise<T | null>;
  cancel(): void;
}
let lastId = 0;

/** Gives a long job to the worker. */
export function start<J extends JobName>(
  job: J,
  input: Jobs[J]['input'],
  progress: (share: number) => void,
  on: Lane = 'long',
): Running<Jobs[J]['output']> {
  const id = (lastId += 1);
  const lane = staffed(on);
  return {
    // Comlink's types do not follow a generic method; the worker's own signature is the one above.
    result: answer(lane, lane.remote.run(id, job, input, proxy(progress)) as Promise<Jobs[J]['output'] | null>),
    cancel: () => void lane.remote.cancel(id),
  };
}

/** Workers a job is spread over: as many as the machine offers, and not so many that starting them costs more than they bring. */
const MOST_WORKERS = 8;
export const workersOffered = (): number => Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 1));

/**
 * Spreads a job over as many workers as the machine offers, each taking its inputs one after the other. Null when cancelled.
 *
 * @param came told of each result as it comes, in whatever order
 */
export function spread<J extends JobName>(
  job: J,
  inputs: readonly Jobs[J]['input'][],
  progress: (share: number) => void,
  came: (output: Jobs[J]['output']) => void,
): Running<readonly Jobs[J]['output'][]> {
  const shares = inputs.map(() => 0);
  const outputs: (Jobs[J]['output'] | null)[] = inputs.map(() => null);
  let cancelled = false;
  let running: Running<Jobs[J]['output']>[] = [];
  const workers = workersOffered();
  async function lane(worker: number): Promise<void> {
    for (let k = worker; k < inputs.length && !cancelled; k += workers) {
      const told = (share: number): void => {
        shares[k] = share;
        progress(shares.reduce((sum, one) => sum + one, 0) / shares.length);
      };
      const run = start(job, inputs[k]!, told, `pool ${worker}`);
      running.push(run);
      const output = await run.result;
      running = running.filter((one) => one !== run);
      if (output === null) {
        cancelled = true;
        return;
      }
      outputs[k] = output;
      told(1);
      came(output);
    }
  }
  const all = Promise.all(Array.from({ length: Math.min(workers, inputs.length) }, (_, worker) => lane(worker)));
  return {
    result: all.then(() => (cancelled ? null : (outputs as Jobs[J]['output'][]))),
    cancel: () => {
      cancelled = true;
      running.forEach((run) => run.cancel());
    },
  };
}

/** Takes a file of a meter into the database, beside the page. */
export function bringInBeside(asked: MeterFile, progress: (share: number) => void): Running<BroughtIn> {
  const id = (lastId += 1);
  const lane = staffed('long');
  return {
    result: answer(lane, lane.remote.bringIn(id, asked, proxy(progress)) as Promise<BroughtIn | null>),
    cancel: () => void lane.remote.cancel(id),
  };
}
