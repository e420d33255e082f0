import { fail, ok, type Outcome } from '../../quantity';
import type { FaultId } from '../../stage';
import { actionOf, decide, LEAST_BITS, remedyOdds, sureOf } from '../decide';
import { diagnose, ranked, type Diagnosis, type FaultAnswer, type FaultReading } from '../diagnose';
import { kitMinutes, minutesOf, type KindId, type YesNoId } from '../kinds';
import { isKind, nextChecks, toldApart } from '../nextCheck';
import { act, type BenchEntry } from './act';
import type { Exercise } from './exercises';
import { HARMS, type HarmId } from './harm';
import { isMendedBy, mendingEffort, repairOf, type RepairId } from './repairs';
import { startBench, type BenchState, type Hidden } from './state';
import type { Bench } from './systems';

/** What somebody says it is. */
export interface Declaration {
  readonly cause: FaultId;
  /** How likely they hold it, from 0 to 1. */
  readonly confidence: number;
  /** Up to two others it might be. */
  readonly also: readonly FaultId[];
}

/** One piece of evidence, and what it did to the question. */
export interface PathStep {
  readonly check: KindId | YesNoId;
  /** Clock when it was known, and minutes it took. */
  readonly at: number;
  readonly minutes: number;
  /** Bits it settled, and bits it was expected to. */
  readonly bits: number;
  readonly expectedBits: number;
  readonly entropyBits: number;
  readonly lead: string;
  /** Probability of what is hidden after it. */
  readonly truth: number;
}
export interface Path {
  /** Bits open before anything was read. */
  readonly startBits: number;
  readonly steps: readonly PathStep[];
  readonly last: Diagnosis;
}
/** How an exercise went. */
export interface Judgement {
  readonly score: number;
  readonly credit: number;
  readonly hidden: readonly Hidden[];
  /** Minutes of work, of parts, of harm, and of mending what was named and is not mended yet. */
  readonly effort: {
    readonly minutes: number;
    readonly parts: number;
    readonly harm: number;
    readonly mending: number;
    readonly total: number;
  };
  readonly effortRef: number;
  readonly harm: readonly HarmId[];
  /** log2 of the probability given to what was hidden: by the person and by the search on what they had read. */
  readonly surpriseBits: { readonly own: number; readonly search: number };
  readonly path: Path;
  readonly optimal: ShortestWay;
  /** The best check of the shortest way that was not made, and the causes it would have told apart. */
  readonly missed: { readonly check: KindId | YesNoId; readonly separates: readonly [string, string] | null } | null;
  /** Step from which on what is hidden led for the first time; null where it never did. */
  readonly firstLed: number | null;
  /** Parts bought before what they mend was sure. */
  readonly boughtEarly: readonly RepairId[];
}

/** Credit: the right cause, another with the same remedy, the right one among those named. */
const CREDIT = { right: 1, sameRemedy: 0.6, among: 0.3, none: 0 } as const;
/** Minutes that count for nothing against the shortest way. */
const FREE_MINUTES = 10;

/** Points of 100 for an effort against that of the shortest way (science of faults, 6). */
export const scoreOf = (effort: number, effortRef: number, credit: number): number =>
  Math.round(100 * credit * Math.min(1, (effortRef + FREE_MINUTES) / (effort + FREE_MINUTES)));

/** log2 of a probability, as it is told of a forecast that came true. */
export const surpriseOf = (probability: number): number => Math.log2(Math.max(probability, 1e-4));

/** Of what is not given to the first cause, what the others that were named share (product assumption). */
const ALSO_SHARE = 0.7;

/** Probability a declaration gives to a cause, of so many there are. */
export function givenTo({ cause, confidence, also }: Declaration, id: string, causes: number): number {
  if (cause === id) return confidence;
  const others = also.filter((one) => one !== cause);
  const rest = 1 - confidence;
  if (others.includes(id as FaultId)) return (rest * ALSO_SHARE) / others.length;
  return (rest * (others.length > 0 ? 1 - ALSO_SHARE : 1)) / Math.max(1, causes - 1 - others.length);
}

/** Credit for what was named. Of two faults both are to be named, or the other one mended. */
export function creditOf({ cause, also }: Declaration, state: Pick<BenchState, 'hidden' | 'mended'>): number {
  const ids = state.hidden.map(({ id }) => id);
  if (ids.includes(cause))
    return ids.every((id) => id === cause || also.includes(id) || isMendedBy(state.mended, id)) ? CREDIT.right : CREDIT.sameRemedy;
  if (ids.some((id) => actionOf(id) === actionOf(cause))) return CREDIT.sameRemedy;
  return ids.some((id) => also.includes(id)) ? CREDIT.among : CREDIT.none;
}

interface Evidence {
  readonly check: KindId | YesNoId;
  readonly reading: FaultReading | null;
  readonly answer: FaultAnswer | null;
  readonly at: number;
  readonly minutes: number;
}

/** What entries say of the cause, one after the other. */
function evidenceOf(entries: readonly BenchEntry[]): Evidence[] {
  return entries.flatMap(({ readings, answer, at, minutes }): Evidence[] => [
    ...readings.flatMap(({ countsAs, value }): Evidence[] =>
      countsAs ? [{ check: countsAs, reading: { kind: countsAs, value }, answer: null, at, minutes: minutes / readings.length }] : [],
    ),
    ...(answer?.counts ? [{ check: answer.check, reading: null, answer: { check: answer.check, yes: answer.yes }, at, minutes }] : []),
  ]);
}

/** A question as it stands before anything is known. */
function begunPath({ table }: Bench): Outcome<Path> {
  const begun = diagnose(table, []);
  return begun.ok ? ok({ startBits: begun.value.entropyBits, steps: [], last: begun.value }) : begun;
}

/** A path with what one more entry says. */
function extended({ table }: Bench, hidden: readonly Hidden[], path: Path, entry: BenchEntry): Outcome<Path> {
  const steps = [...path.steps];
  let { last } = path;
  for (const { check, reading, answer, at, minutes } of evidenceOf([entry])) {
    const asked = isKind(check) ? { kinds: [check], checks: [] } : { kinds: [], checks: [check] };
    const expectedBits = nextChecks(table, last, asked)[0]?.informationBits ?? 0;
    const next = diagnose(table, reading ? [...last.readings, reading] : last.readings, answer ? [...last.answers, answer] : last.answers);
    if (!next.ok) return next;
    const { entropyBits } = next.value;
    steps.push({
      check,
      at,
      minutes,
      bits: last.entropyBits - entropyBits,
      expectedBits,
      entropyBits,
      lead: ranked(next.value)[0]!.id,
      truth: chanceOfHidden(next.value, hidden),
    });
    last = next.value;
  }
  return ok({ ...path, steps, last });
}

/** What was open after each piece of evidence. */
export function pathOf(bench: Bench, hidden: readonly Hidden[], entries: readonly BenchEntry[]): Outcome<Path> {
  let path = begunPath(bench);
  for (const entry of entries) if (path.ok) path = extended(bench, hidden, path.value, entry);
  return path;
}

const chanceOfHidden = ({ causes }: Diagnosis, hidden: readonly Hidden[]): number =>
  causes.reduce((sum, { id, probability }) => sum + (hidden.some((one) => one.id === id) ? probability : 0), 0);

/** Checks after which the search stops on the shortest way, whatever is open. */
const MOST_STEPS = 16;

/** The way of the best checks: where it ends, how long it takes, and what each of its checks was to tell apart. */
export interface ShortestWay extends Path {
  readonly cause: string;
  readonly minutes: number;
  readonly told: readonly (readonly [string, string] | null)[];
}

/** The way of the best checks, on the same rig and seed, until what is to be done is plain. */
export function optimalPath(bench: Bench, exercise: Exercise, seed: number): Outcome<ShortestWay> {
  const begun = begunPath(bench);
  if (!begun.ok) return begun;
  let state = startBench(bench, exercise, seed);
  const { hidden } = state;
  let path = begun.value;
  const told: (readonly [string, string] | null)[] = [];
  for (let i = 0; i < MOST_STEPS; i++) {
    const hint = hintOf(bench, path.last);
    if (!hint) break;
    const done = act(bench, exercise, state, { kind: 'check', check: hint });
    if (!done.ok) break;
    state = done.value.state;
    told.push(toldApart(bench.table, path.last, hint));
    const further = extended(bench, hidden, path, done.value.entry);
    if (!further.ok) return further;
    path = further.value;
  }
  return ok({ ...path, told, cause: ranked(path.last)[0]!.id, minutes: state.minutes });
}

/** The check to be made next on what is known; null where what is to be done is plain. */
export function hintOf({ table, ground }: Bench, known: Diagnosis): KindId | YesNoId | null {
  const decision = decide(table, known, nextChecks(table, known, ground.available, kitMinutes));
  switch (decision.kind) {
    case 'remedy':
    case 'trial':
      return null;
    case 'check':
      return decision.check.id;
    case 'readAgain':
      return known.readings[decision.reading]!.kind;
    case 'nothingFits':
      return known.readings[decision.readings[0]!]!.kind;
  }
}

/**
 * Judges what was done and named, against the shortest way on the same rig.
 *
 * @returns an error naming a cause or a confidence that cannot be
 */
export function judge(
  bench: Bench,
  exercise: Exercise,
  state: BenchState,
  entries: readonly BenchEntry[],
  said: Declaration,
): Outcome<Judgement> {
  const { table } = bench;
  const known = table.hypotheses.map(({ id }) => id);
  for (const id of [said.cause, ...said.also])
    if (!known.includes(id)) return fail('cause', id, known.join(', '), `This rig cannot have “${id}”.`);
  if (!(said.confidence > 0 && said.confidence <= 1))
    return fail('confidence', said.confidence, 'above 0 to 1', `The confidence is ${said.confidence}; accepted is above 0 to 1.`);
  // What harm has added is no part of the question.
  const { hidden } = startBench(bench, exercise, state.seed);
  const path = pathOf(bench, hidden, entries);
  if (!path.ok) return path;
  const optimal = optimalPath(bench, exercise, state.seed);
  if (!optimal.ok) return optimal;
  const { elements } = bench.ground.rig;
  const harm = state.harm.reduce((sum, id) => sum + HARMS[id].minutes, 0);
  const mending = isMendedBy(state.mended, said.cause) ? 0 : mendingEffort(said.cause, elements);
  const parts = minutesOf(state.spent);
  const total = state.minutes + parts + harm + mending;
  const effortRef = optimal.value.minutes + mendingEffort(optimal.value.cause as FaultId, elements);
  const credit = creditOf(said, { hidden, mended: state.mended });
  const led = path.value.steps.findIndex(({ lead }) => hidden.some(({ id }) => id === lead));
  return ok({
    score: scoreOf(total, effortRef, credit),
    credit,
    hidden,
    effort: { minutes: state.minutes, parts, harm, mending, total },
    effortRef,
    harm: state.harm,
    surpriseBits: {
      own: surpriseOf(hidden.reduce((sum, { id }) => sum + givenTo(said, id, known.length), 0)),
      search: surpriseOf(chanceOfHidden(path.value.last, hidden)),
    },
    path: path.value,
    optimal: optimal.value,
    missed: missedOf(path.value, optimal.value),
    firstLed: led < 0 ? null : led,
    boughtEarly: boughtEarly(bench, entries),
  });
}

/** The most telling check of the shortest way that was not made, and what it was to tell apart there. */
function missedOf(path: Path, { steps, told }: ShortestWay): Judgement['missed'] {
  const made = new Set(path.steps.map(({ check }) => check));
  const open = steps.map((step, i) => ({ ...step, separates: told[i] ?? null })).filter(({ check }) => !made.has(check));
  const best = open.sort((a, b) => b.expectedBits - a.expectedBits)[0];
  return best && best.expectedBits >= LEAST_BITS ? { check: best.check, separates: best.separates } : null;
}

/** Repairs with parts that were made before the odds of their remedy were sure. */
function boughtEarly(bench: Bench, entries: readonly BenchEntry[]): RepairId[] {
  const { table } = bench;
  return entries.flatMap(({ action }, i): RepairId[] => {
    if (action.kind !== 'repair' || repairOf(action.repair).price === 0) return [];
    const before = pathOf(bench, [], entries.slice(0, i));
    if (!before.ok) return [];
    const odds = remedyOdds(table, before.value.last);
    const { mends } = repairOf(action.repair);
    const sure = table.hypotheses.some(({ id }, h) => mends.includes(id as FaultId) && odds[h]! >= sureOf(id));
    return sure ? [] : [action.repair];
  });
}

/** Checks that could not have told anything where they were made. */
export const isIdle = ({ expectedBits }: PathStep): boolean => expectedBits < LEAST_BITS;
