import type { Reading, System } from '@yes-clear/core/file';
import type { BedLife } from '@yes-clear/core/exchange';
import type { UnitMaps } from '@yes-clear/core/log';
import type { Outcome } from '@yes-clear/core/quantity';
import type { VanShare } from '@yes-clear/core/year';
import { expose } from 'comlink';
import { config } from 'zod';
import { database, openDatabase } from '../store/database';
import { logOf } from '../store/recordings';
import { asKnown } from '../store/whyNotKept';
import type { BroughtIn, MeterFile } from './bringIn';
import { forgetOldest } from './forgetOldest';
import { solveSystem, type Solved } from './solved';
import type { JobName, Jobs } from './jobs';
import type { Answer, Asked, Question } from './questions';
import { roundOf } from './round';
import type { Round } from '../store/round';
import { runInSlices } from './slices';

// The security policy lets no code be made out of text, which the schema library would try first.
config({ jitless: true });

/**
 * What the page asks to be computed beside it. A system solved and Rounds stand here; what takes long comes with its first
 * job, so that the first page is not held up by it.
 */
const cancelled = new Set<number>();
/** The page has opened the database before it asks; a failure is told with the first question. */
const opened = openDatabase();
opened.catch(() => undefined);
/** Lives of resin found so far, by their key. */
const lives = new Map<string, BedLife>();
const MOST_LIVES = 40;
/** Answers of membrane units laid down so far, for the logs held against them. */
const maps: UnitMaps = new Map();
const MOST_MAPS = 250;
/** The course of the system that was solved last, and the readings it rests on. */
let course: { readonly id: string; readonly readings: readonly Reading[]; readonly membrane: Solved['membrane'] } | null = null;
let kept: { readonly id: string; readonly readings: readonly Reading[] } = { id: '', readings: [] };

const worker = {
  /** Holds a system's readings for the solves that follow. */
  keepReadings(id: string, readings: readonly Reading[]): void {
    kept = { id, readings };
  },
  /** Holds the life of a row of resin for the solves that follow; of many the newest stay. */
  keepLife(key: string, life: BedLife): void {
    lives.set(key, life);
    forgetOldest(lives, MOST_LIVES);
  },
  /** @param settled whether the log's course is worked out anew; while somebody types, the one of a moment ago stands */
  solve(system: System, now: string, settled: boolean): Outcome<Omit<Solved, 'system'>> {
    const readings = kept.id === system.id ? kept.readings : [];
    const known = !settled && course && course.id === system.id && course.readings === readings ? course.membrane : undefined;
    const solved = solveSystem(system, readings, now, lives, maps, known);
    if (solved.ok && known === undefined) course = { id: system.id, readings, membrane: solved.value.membrane };
    forgetOldest(maps, MOST_MAPS);
    if (!solved.ok) return solved;
    // The page has the system that it asked for.
    const { system: _, ...answer } = solved.value;
    return { ok: true, value: answer };
  },
  async round(id: string, now: string): Promise<{ readonly revision: number; readonly round: Round } | null> {
    await opened;
    const [row, readings] = await Promise.all([database.systems.get(id), logOf(id)]);
    if (!row) return null;
    const round = roundOf({ system: row.system, readings }, now, maps);
    forgetOldest(maps, MOST_MAPS);
    return { revision: row.revision, round };
  },
  /** A system's share of the van's year, read from the database by the worker itself; null when it is not there. */
  async vanShare(id: string, now: string, bundleDays: number): Promise<Outcome<VanShare> | null> {
    await opened;
    const [row, readings] = await Promise.all([database.systems.get(id), logOf(id)]);
    if (!row) return null;
    const { shareOf } = await import('./yearAhead');
    return shareOf({ system: row.system, readings }, now, bundleDays, maps);
  },
  async ask<Q extends Question>(question: Q, asked: Asked<Q>): Promise<Answer<Q>> {
    const { QUESTIONS } = await import('./questions');
    return (QUESTIONS[question] as (input: Asked<Q>) => Answer<Q>)(asked);
  },
  /** Long work, told of as it goes on and cancelled by its number. */
  async run<J extends JobName>(
    id: number,
    job: J,
    input: Jobs[J]['input'],
    progress: (share: number) => void,
  ): Promise<Jobs[J]['output'] | null> {
    const { JOBS } = await import('./jobs');
    const result = await runInSlices<Jobs[J]['output']>(JOBS[job](input), {
      progress: (share) => void progress(share),
      cancelled: () => cancelled.has(id),
      pause: () => new Promise((done) => setTimeout(done)),
      now: () => performance.now(),
    });
    cancelled.delete(id);
    return result;
  },
  /** Takes a file of a meter into the database, see `bringIn`. */
  async bringIn(id: number, asked: MeterFile, progress: (share: number) => void): Promise<BroughtIn | null> {
    await opened;
    try {
      const { bringIn } = await import('./bringIn');
      return await bringIn(
        asked,
        (share) => void progress(share),
        () => cancelled.has(id),
      );
    } catch (error) {
      throw asKnown(error);
    } finally {
      cancelled.delete(id);
    }
  },
  cancel(id: number): void {
    cancelled.add(id);
  },
};
export type ComputeWorker = typeof worker;
expose(worker);
