import { logSumExp } from '../numeric';
import { atNode, onScale, sharedAt, type FaultReading } from './diagnose';
import { ownSd, unscaled, type KindId } from './kinds';
import { robustLikelihood, symmetricInverse } from './likelihood';
import { PLACE, type Node, type NodeTable } from './nodes';

/** What one reading adds for a cause against another, all the others given. */
export interface Evidence {
  /** Place of the reading. */
  readonly reading: number;
  /** ln of how much more likely the one is by it than the other. */
  readonly nats: number;
  readonly words: 'points to' | 'speaks strongly for' | 'all but rules out the other';
}

/** ln of the density of readings under a cause, over all its severities. */
function lnUnder(table: NodeTable, hypothesis: number, readings: readonly FaultReading[]): number {
  const own = table.nodes.filter((node) => node.hypothesis === hypothesis);
  const there = onScale(readings);
  const lns = own.map((node) => {
    const { residual, covariance } = atNode(node, there);
    return robustLikelihood(residual, covariance, there.badSpread).ln;
  });
  return logSumExp(lns) - Math.log(own.length);
}

/** Ratios at which evidence is called by the next word (after Kass and Raftery 1995, recalled). */
const STEPS = { shown: Math.log(3), strong: Math.log(20), ruling: Math.log(150) } as const;

/**
 * What each reading says for a cause against another, given all the others, the strongest first; those that say little
 * are left out.
 */
export function evidenceFor(table: NodeTable, cause: number, against: number, readings: readonly FaultReading[]): Evidence[] {
  const ratio = (some: readonly FaultReading[]): number => lnUnder(table, cause, some) - lnUnder(table, against, some);
  const all = ratio(readings);
  return readings
    .map((_, i) => ({ reading: i, nats: all - ratio(readings.filter((__, k) => k !== i)) }))
    .filter(({ nats }) => Math.abs(nats) >= STEPS.shown)
    .sort((a, b) => Math.abs(b.nats) - Math.abs(a.nats))
    .map(({ reading, nats }) => ({ reading, nats, words: wordsOf(Math.abs(nats)) }));
}

const wordsOf = (nats: number): Evidence['words'] =>
  nats >= STEPS.ruling ? 'all but rules out the other' : nats >= STEPS.strong ? 'speaks strongly for' : 'points to';

/** What a reading should be under a cause: middle, and one standard deviation to either side. */
export interface Band {
  readonly middle: number;
  readonly low: number;
  readonly high: number;
}

/**
 * What a kind of reading should be at a node, given readings of the day's conditions: its own error is not part of it.
 *
 * @param given readings of line, temperature and tap
 */
export function bandAt(node: Node, kind: KindId, given: readonly FaultReading[]): Band {
  const at = PLACE[kind];
  let mean = node.expected[at]!;
  let variance = sharedAt(node, at, at) + ownSd(kind, unscaled(kind, mean)) ** 2;
  if (given.length > 0) {
    const there = onScale(given);
    const { residual, covariance } = atNode(node, there);
    const { rows } = symmetricInverse(covariance, given.length);
    const c = Array.from(there.place, (place) => sharedAt(node, at, place));
    c.forEach((ci, i) =>
      c.forEach((cj, j) => {
        mean += ci * rows[i * given.length + j]! * residual[j]!;
        variance -= ci * rows[i * given.length + j]! * cj;
      }),
    );
  }
  const sd = Math.sqrt(Math.max(variance, 0));
  return { middle: unscaled(kind, mean), low: unscaled(kind, mean - sd), high: unscaled(kind, mean + sd) };
}

/** Kinds of the day's conditions, against which the others are held. */
export const CONDITIONS: readonly KindId[] = ['tap', 'line', 'inlet', 'temperature'];

/** What each reading should be where nothing is wrong, by the conditions that were read. */
export function soundBand(table: NodeTable, kind: KindId, readings: readonly FaultReading[]): Band | null {
  const sound = table.hypotheses.findIndex(({ id }) => id === 'healthy');
  const node = table.nodes.find(({ hypothesis }) => hypothesis === sound);
  return node
    ? bandAt(
        node,
        kind,
        readings.filter((one) => CONDITIONS.includes(one.kind) && one.kind !== kind),
      )
    : null;
}
