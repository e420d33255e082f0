import { seeded, type Seeded } from '../../numeric';
import type { FaultId } from '../../stage';
import type { Exercise } from './exercises';
import type { HarmId } from './harm';
import { drawnCause, drawnErrors, type SharedErrors } from './instruments';
import type { RepairId } from './repairs';
import { AT_START, type Bench, type Valves } from './systems';

/** Something hidden in a rig. */
export interface Hidden {
  readonly id: FaultId;
  /** From 0 to 1, see the catalogue. */
  readonly severity: number;
}

/** A rig in use: plain data, the same for the same exercise, seed and actions on every machine. */
export interface BenchState {
  readonly exercise: string;
  readonly seed: number;
  readonly hidden: readonly Hidden[];
  /** Errors of unit, day and instruments, in standard deviations. */
  readonly errors: SharedErrors;
  readonly minutes: number;
  /** Money for parts, EUR. */
  readonly spent: number;
  readonly harm: readonly HarmId[];
  readonly valves: Valves;
  readonly mended: readonly RepairId[];
  /** Cartridges that are taken out of their housings. */
  readonly out: 'none' | 'sediment' | 'all';
  /** Temperature the feed is mixed to, °C; null where it comes as it is. */
  readonly feedC: number | null;
  /** Whether the housings stand under pressure. */
  readonly pressed: boolean;
  /** Minutes of running without a rest. */
  readonly ranMinutes: number;
  /** Minutes of rinsing that what is in the membrane still needs. */
  readonly toRinseMinutes: number;
  /** Minutes on chlorinated water, and of poor water led to where it is used. */
  readonly chlorineMinutes: number;
  readonly poorMinutes: number;
  /** What chlorine has done to the salt that passes, as a factor. */
  readonly saltAged: number;
  readonly tipsCleaned: boolean;
  /** How often each kind was read: every reading has an error of its own. */
  readonly read: Readonly<Partial<Record<string, number>>>;
}

/** Chance of one purpose: order of actions does not matter to it. */
export const chanceOf = (seed: number, purpose: string, count = 0): Seeded => {
  let hash = Math.imul(seed ^ 0x5bd1e995, 0x9e3779b1);
  for (const letter of `${purpose}#${count}`) hash = Math.imul(hash ^ letter.charCodeAt(0), 0x01000193);
  const chance = seeded(hash);
  // Neighbouring seeds begin alike.
  chance.next();
  return chance;
};

/** A rig at the start of an exercise. */
export function startBench(bench: Bench, exercise: Exercise, seed: number): BenchState {
  return {
    exercise: exercise.id,
    seed,
    hidden: hiddenIn(bench, exercise, seed),
    errors: drawnErrors(chanceOf(seed, 'errors')),
    minutes: 0,
    spent: 0,
    harm: [],
    valves: AT_START,
    mended: [],
    out: 'none',
    feedC: null,
    pressed: true,
    ranMinutes: 0,
    toRinseMinutes: 0,
    chlorineMinutes: 0,
    poorMinutes: 0,
    saltAged: 1,
    tipsCleaned: false,
    read: {},
  };
}

function hiddenIn(bench: Bench, { hidden, severity }: Exercise, seed: number): Hidden[] {
  const chance = chanceOf(seed, 'hidden');
  const { hypotheses } = bench.table;
  const ids = hidden ? chance.one(hidden) : [hypotheses[drawnCause(hypotheses, chance)]!.id as FaultId];
  return ids.map((id) => ({ id, severity: chance.between(severity[0], severity[1]) }));
}
