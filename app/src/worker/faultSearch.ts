import type { Reading, System } from '@yes-clear/core/file';
import {
  asFaultReadings,
  calibrated,
  decide,
  diagnose,
  evidenceFor,
  foresee,
  groundAsPlanned,
  hypothesesOf,
  isKind,
  kitMinutes,
  nextChecks,
  nodeSteps,
  pairsFor,
  notExcluded,
  ownCountWeight,
  ranked,
  soundBand,
  toldApart,
  unscaled,
  type Band,
  type CausePair,
  type CauseOdds,
  type Decision,
  type Diagnosis,
  type Evidence,
  type FaultAnswer,
  type FaultReading,
  type KindId,
  type NextCheck,
  type NodeTable,
  type SearchGround,
  type SystemAsRun,
  type YesNoId,
} from '@yes-clear/core/fault';
import { ok, type Outcome } from '@yes-clear/core/quantity';
import { forgetOldest } from './forgetOldest';

/** What the search for faults is asked: a system with its log, the reading that is judged, and what was found on site since. */
export interface FaultsAsked {
  readonly system: System;
  /** Readings before the one that is judged. */
  readonly before: readonly Reading[];
  readonly judged: Reading | null;
  /** Read since, beside the log. */
  readonly entries: readonly FaultReading[];
  readonly answers: readonly FaultAnswer[];
  /** Places of what was read, judged reading first, that are struck out. */
  readonly struck: readonly number[];
  /** How often each cause was found in this workshop, as causes were confirmed. */
  readonly confirmed: Readonly<Record<string, number>>;
  /** The check somebody would rather make; the best one where null. */
  readonly wanted: KindId | YesNoId | null;
  /** The membrane's course by the log, without the reading that is judged. */
  readonly course: SystemAsRun['course'];
  readonly now: string;
}

/** Something that was read, with what it should be. */
export interface KnownReading extends FaultReading {
  readonly from: 'log' | 'entry';
  readonly struck: boolean;
  readonly band: Band | null;
  /** Probability that it is bad; null while it is struck out. */
  readonly bad: number | null;
}
/** What a check would read under a cause. */
export interface Expected {
  readonly id: string;
  readonly probability: number;
  readonly band: Band;
}

/** What the page of faults shows. */
export interface FaultsFound {
  readonly known: readonly KnownReading[];
  readonly ranking: readonly CauseOdds[];
  readonly decision: Decision['kind'];
  /** Places of what was read that should be read again, or that fit nothing. */
  readonly again: readonly number[];
  /** Two causes at once that would explain what no single one does; none where one does. */
  readonly pairs: readonly CausePair[];
  /** The likeliest cause; and the one whose remedy is called for or worth a trial. */
  readonly lead: string;
  readonly mend: { readonly id: string; readonly probability: number } | null;
  readonly check: {
    readonly id: KindId | YesNoId;
    readonly minutes: number;
    readonly bits: number;
    readonly separates: readonly [string, string] | null;
    readonly expected: readonly Expected[];
  } | null;
  readonly others: readonly NextCheck[];
  readonly evidence: readonly (Evidence & { readonly kind: KindId })[];
  readonly against: string | null;
  readonly notExcluded: ReturnType<typeof notExcluded>;
  readonly leftOut: NodeTable['leftOut'];
  readonly hasBaseline: boolean;
}

/** Tables laid down so far, by what they depend on: a new reading asks for no new one. */
const tables = new Map<string, NodeTable>();
const MOST_TABLES = 6;
/** Causes whose expected reading is drawn. */
const DRAWN = 3;
/** Causes below this are counted together. */
const LEAST_SHOWN = 0.005;

/** Searches for the fault of a system, in steps: the first of a system lays down what every cause would show. */
export function* faultSteps(asked: FaultsAsked): Generator<number, Outcome<FaultsFound>> {
  const { system, before, now } = asked;
  const ground = groundAsPlanned(system, { before, course: asked.course, now });
  if (!ground.ok) return ground;
  let laid = tables.get(ground.value.key);
  if (!laid) {
    const made = yield* nodeSteps(ground.value.rig, hypothesesOf(ground.value.faults, ground.value.rig), ground.value.shared);
    if (!made.ok) return made;
    laid = made.value;
    tables.set(ground.value.key, laid);
    forgetOldest(tables, MOST_TABLES);
  }
  return found(asked, ground.value, weighed(calibrated(laid, { system, before, now }), ground.value, asked.confirmed));
}

/** The table with the odds of today: of the log and of the workshop's own count. */
function weighed(table: NodeTable, { faults }: SearchGround, confirmed: Readonly<Record<string, number>>): NodeTable {
  const total = Object.values(confirmed).reduce((sum, count) => sum + count, 0);
  const weights = new Map(faults.map(({ id, weight }) => [id as string, weight]));
  return {
    ...table,
    hypotheses: table.hypotheses.map((one) => ({
      ...one,
      weight: Math.min(1000, ownCountWeight(weights.get(one.id) ?? one.weight, confirmed[one.id] ?? 0, total)),
    })),
  };
}

function found(asked: FaultsAsked, ground: SearchGround, table: NodeTable): Outcome<FaultsFound> {
  const fromLog = asked.judged ? asFaultReadings(asked.system, asked.judged) : [];
  const all = [...fromLog, ...asked.entries];
  const struck = new Set(asked.struck);
  const standingReadings = all.filter((_, i) => !struck.has(i));
  const outcome = diagnose(table, standingReadings, asked.answers);
  if (!outcome.ok) return outcome;
  const diagnosis = outcome.value;
  const checks = nextChecks(table, diagnosis, ground.available, kitMinutes);
  const decision = decide(table, diagnosis, checks);
  const pairs = decision.kind === 'nothingFits' ? pairsFor(table, diagnosis) : ok([]);
  if (!pairs.ok) return pairs;
  const order = ranked(diagnosis);
  const place = (id: string): number => table.hypotheses.findIndex((one) => one.id === id);
  const lead = order[0]!.id;
  const against = lead === 'healthy' ? (order[1]?.id ?? null) : 'healthy';
  const wanted = asked.wanted === null ? undefined : checks.find(({ id }) => id === asked.wanted);
  const next = wanted ?? (decision.kind === 'check' ? decision.check : null);
  const places = all.flatMap((_, i) => (struck.has(i) ? [] : [i]));
  const again = decision.kind === 'readAgain' ? [decision.reading] : decision.kind === 'nothingFits' ? decision.readings : [];
  let seen = -1;
  return ok({
    known: all.map((reading, i) => {
      if (!struck.has(i)) seen += 1;
      return {
        ...reading,
        from: i < fromLog.length ? 'log' : 'entry',
        struck: struck.has(i),
        band: soundBand(table, reading.kind, standingReadings),
        bad: struck.has(i) ? null : diagnosis.bad[seen]!,
      };
    }),
    ranking: order.filter(({ probability }) => probability >= LEAST_SHOWN),
    decision: decision.kind,
    pairs: pairs.value,
    again: again.map((i) => places[i]!),
    lead,
    mend:
      decision.kind === 'remedy' || decision.kind === 'trial'
        ? { id: table.hypotheses[decision.cause]!.id, probability: decision.probability }
        : null,
    check: next && {
      id: next.id,
      minutes: next.minutes,
      bits: next.informationBits,
      separates: toldApart(table, diagnosis, next.id),
      expected: isKind(next.id)
        ? expectedBy(
            table,
            diagnosis,
            next.id,
            order.slice(0, DRAWN).map(({ id }) => id),
          )
        : [],
    },
    others: checks.filter(({ id }) => id !== next?.id),
    evidence: against
      ? evidenceFor(table, place(lead), place(against), standingReadings).map((one) => ({
          ...one,
          kind: standingReadings[one.reading]!.kind,
        }))
      : [],
    against,
    notExcluded: notExcluded(diagnosis),
    leftOut: table.leftOut,
    hasBaseline: ground.hasBaseline,
  });
}

/** What a kind would read under some causes: middle and one standard deviation over their severities. */
function expectedBy(table: NodeTable, diagnosis: Diagnosis, kind: KindId, ids: readonly string[]): Expected[] {
  const foreseen = foresee(table, diagnosis, kind);
  return ids.flatMap((id) => {
    const own = foreseen.filter(({ hypothesis }) => table.hypotheses[hypothesis]!.id === id);
    const probability = own.reduce((sum, one) => sum + one.probability, 0);
    if (probability <= 0) return [];
    const mean = own.reduce((sum, one) => sum + one.probability * one.mean, 0) / probability;
    const variance = own.reduce((sum, one) => sum + one.probability * (one.variance + (one.mean - mean) ** 2), 0) / probability;
    const sd = Math.sqrt(variance);
    return [{ id, probability, band: { middle: unscaled(kind, mean), low: unscaled(kind, mean - sd), high: unscaled(kind, mean + sd) } }];
  });
}
