import { diagnose, ranked, type Diagnosis, type FaultAnswer, type FaultReading } from '../fault/diagnose';
import { drawnCause, drawnErrors, readWithErrors, truthWith } from '../fault/bench/instruments';
import { YES_NO_CHECKS, type KindId, type YesNoId } from '../fault/kinds';
import { nextChecks, type Available, type NextCheck } from '../fault/nextCheck';
import type { NodeTable } from '../fault/nodes';
import type { Rig, Truth } from '../fault/rig';
import { seeded, type Seeded } from '../numeric';

/** Systems with one hidden cause, drawn from the catalogue as a search for faults believes the world to be. */
export interface HiddenFault {
  readonly hypothesis: number;
  readonly severity: number;
  /** What instruments without error would show. */
  readonly truth: Truth;
  /** Reads a kind, with the errors of instrument and hand; each time anew. */
  readonly read: (kind: KindId) => FaultReading;
  readonly ask: (check: YesNoId) => FaultAnswer;
}

/** Draws a cause, its severity and every error; the train is solved in full. */
export function hiddenFault(rig: Rig, table: NodeTable, chance: Seeded): HiddenFault {
  const { hypotheses, shared } = table;
  const hypothesis = drawnCause(hypotheses, chance);
  const severity = chance.next();
  const errors = drawnErrors(chance);
  const cause = hypotheses[hypothesis]!;
  const solved = truthWith(rig, [{ ...cause, severity }], errors, shared);
  if (!solved.ok) throw new Error(`${cause.id} at ${severity}: ${solved.error.message}`);
  const truth = solved.value;
  return {
    hypothesis,
    severity,
    truth,
    read: (kind) => ({ kind, value: readWithErrors(kind, truth, errors, shared, chance) }),
    ask: (check) => ({ check, yes: chance.next() < (cause.answers?.[check] ?? YES_NO_CHECKS[check].falseYes) }),
  };
}

/** What everybody reads first. */
export const FIRST_LOOK = [
  'tap',
  'membrane',
  'product',
  'line',
  'temperature',
  'productFlow',
  'wasteFlow',
] as const satisfies readonly KindId[];

/** How often a search names the hidden cause, and how well its probabilities keep their word. */
export interface FaultTally {
  cases: number;
  /** First, and among the first three, after the first look and after each check. */
  readonly first: number[];
  readonly three: number[];
  readonly bits: number[];
  minutes: number;
  /** Stated probability by tenths: sum, number, and how many were true; after the first look and after the last check. */
  readonly bins: readonly { readonly stated: number[]; readonly count: number[]; readonly true: number[] }[];
}
export const CHECKS_MADE = 3;
const STOP_AT = 0.97;
const LEAST_STATED = 0.005;
const TENTHS = 10;
const zeros = (count: number): number[] => new Array<number>(count).fill(0);

export const noTally = (): FaultTally => ({
  cases: 0,
  first: zeros(CHECKS_MADE + 1),
  three: zeros(CHECKS_MADE + 1),
  bits: zeros(CHECKS_MADE + 1),
  minutes: 0,
  bins: [0, 1].map(() => ({ stated: zeros(TENTHS), count: zeros(TENTHS), true: zeros(TENTHS) })),
});

/** Searches for the hidden cause of each seed with the best checks, as the page proposes them. */
export function faultTally(rig: Rig, table: NodeTable, available: Available, seeds: readonly number[]): FaultTally {
  const tally = noTally();
  for (const seed of seeds) {
    const hidden = hiddenFault(rig, table, seeded(seed));
    const readings = FIRST_LOOK.filter((kind) => available.kinds.includes(kind)).map(hidden.read);
    const answers: FaultAnswer[] = [];
    let found = diagnosed(table, readings, answers);
    tally.cases += 1;
    counted(tally, 0, found, hidden);
    binned(tally.bins[0]!, found, hidden);
    for (let check = 1; check <= CHECKS_MADE; check++) {
      if (ranked(found)[0]!.probability <= STOP_AT) {
        const next = nextChecks(table, found, available)[0]!;
        tally.minutes += next.minutes;
        if (isYesNo(next)) answers.push(hidden.ask(next.id as YesNoId));
        else readings.push(hidden.read(next.id as KindId));
        found = diagnosed(table, readings, answers, found);
      }
      counted(tally, check, found, hidden);
    }
    binned(tally.bins[1]!, found, hidden);
  }
  return tally;
}

const isYesNo = ({ id }: NextCheck): boolean => id in YES_NO_CHECKS;

function diagnosed(
  table: NodeTable,
  readings: readonly FaultReading[],
  answers: readonly FaultAnswer[],
  before: Diagnosis | null = null,
): Diagnosis {
  const outcome = diagnose(table, [...readings], [...answers], before);
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}

function counted(tally: FaultTally, at: number, found: Diagnosis, { hypothesis }: HiddenFault): void {
  const order = ranked(found).map(({ id }) => id);
  const rank = order.indexOf(found.causes[hypothesis]!.id);
  if (rank === 0) tally.first[at]! += 1;
  if (rank < 3) tally.three[at]! += 1;
  tally.bits[at]! += found.entropyBits;
}

function binned(bins: FaultTally['bins'][number], { causes }: Diagnosis, { hypothesis }: HiddenFault): void {
  causes.forEach(({ probability }, h) => {
    if (probability < LEAST_STATED) return;
    const bin = Math.min(TENTHS - 1, Math.floor(probability * TENTHS));
    bins.stated[bin]! += probability;
    bins.count[bin]! += 1;
    if (h === hypothesis) bins.true[bin]! += 1;
  });
}

/** Two tallies as one. */
export function joined(a: FaultTally, b: FaultTally): FaultTally {
  const sum = (x: readonly number[], y: readonly number[]): number[] => x.map((value, i) => value + y[i]!);
  return {
    cases: a.cases + b.cases,
    first: sum(a.first, b.first),
    three: sum(a.three, b.three),
    bits: sum(a.bits, b.bits),
    minutes: a.minutes + b.minutes,
    bins: a.bins.map((bins, i) => ({
      stated: sum(bins.stated, b.bins[i]!.stated),
      count: sum(bins.count, b.bins[i]!.count),
      true: sum(bins.true, b.bins[i]!.true),
    })),
  };
}
