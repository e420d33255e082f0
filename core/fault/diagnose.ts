import { entropyBits, logSumExp } from '../numeric';
import { fail, ok, type Outcome } from '../quantity';
import { KIND_IDS, kindIssue, READING_KINDS, scaled, YES_NO_CHECKS, YES_NO_IDS, type KindId, type YesNoId } from './kinds';
import { robustLikelihood } from './likelihood';
import { PLACE, type Node, type NodeTable } from './nodes';
import { SHARED } from './shared';

/** A reading of a kind; two of one kind share all but the instrument's own error. */
export interface FaultReading {
  readonly kind: KindId;
  readonly value: number;
}
export interface FaultAnswer {
  readonly check: YesNoId;
  readonly yes: boolean;
}

/** How likely a cause is, and how far it has gone if it is the one. */
export interface CauseOdds {
  readonly id: string;
  readonly probability: number;
  /** Severity from 0 to 1: middle, and the span that holds eight in ten. */
  readonly severity: { readonly mean: number; readonly low: number; readonly high: number };
}

/** What the readings leave open. */
export interface Diagnosis {
  /** In the order of the table. */
  readonly causes: readonly CauseOdds[];
  /** Probability that each reading is bad, in their order. */
  readonly bad: readonly number[];
  /** Whether the readings fit no cause that is known, even the best. */
  readonly misfit: boolean;
  readonly entropyBits: number;
  /** Posterior of each node of the table, in its order. */
  readonly nodes: Float64Array;
  /** ln of the density of the readings under each cause, averaged over its severities. */
  readonly lnLikelihood: readonly number[];
  readonly readings: readonly FaultReading[];
  readonly answers: readonly FaultAnswer[];
}

/** Nodes this far below the best cannot come back, in nats. */
const HOPELESS = 25;

/** Readings on their scales, by their places: made once for all nodes. */
export interface OnScale {
  readonly place: Int32Array;
  readonly u: Float64Array;
  readonly badSpread: Float64Array;
}
export const onScale = (readings: readonly FaultReading[]): OnScale => ({
  place: Int32Array.from(readings, ({ kind }) => PLACE[kind]),
  u: Float64Array.from(readings, ({ kind, value }) => scaled(kind, value)),
  badSpread: Float64Array.from(readings, ({ kind }) => READING_KINDS[kind].badSpread),
});

/** Covariance of readings at a node, and what they miss it by. */
export function atNode(node: Node, { place, u }: OnScale): { residual: Float64Array; covariance: Float64Array } {
  const n = place.length;
  const { expected, ownSd } = node;
  const covariance = new Float64Array(n * n);
  const residual = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const a = place[i]!;
    residual[i] = u[i]! - expected[a]!;
    for (let j = 0; j < i; j++) {
      const sum = sharedAt(node, a, place[j]!);
      covariance[i * n + j] = sum;
      covariance[j * n + i] = sum;
    }
    covariance[i * n + i] = sharedAt(node, a, a) + ownSd[a]! * ownSd[a]!;
  }
  return { residual, covariance };
}

const PLACE_VARIANCE = Float64Array.from(KIND_IDS, (kind) => READING_KINDS[kind].placeSd ** 2);
const ERRORS = SHARED.length;

/** What readings at two places have in common at a node: shared errors, the cell of severities, and what nobody knows of a place. */
export function sharedAt({ cell, moved }: Node, a: number, b: number): number {
  let sum = cell[a]! * cell[b]! + (a === b ? PLACE_VARIANCE[a]! : 0);
  const [from, to] = [a * ERRORS, b * ERRORS];
  for (let k = 0; k < ERRORS; k++) sum += moved[from + k]! * moved[to + k]!;
  return sum;
}

/** How often a check says yes under a cause. */
export const yesRate = (table: NodeTable, hypothesis: number, check: YesNoId): number =>
  table.hypotheses[hypothesis]!.answers?.[check] ?? YES_NO_CHECKS[check].falseYes;

function problemOf(table: NodeTable, readings: readonly FaultReading[], answers: readonly FaultAnswer[]): Outcome<void> {
  for (const { kind, value } of readings) {
    if (!(kind in READING_KINDS)) return fail(kind, value, Object.keys(READING_KINDS).join(', '), `Nobody reads “${kind}”.`);
    const allowed = kindIssue(kind, value);
    if (allowed) return fail(kind, value, allowed, `${kind} is ${value}; accepted is ${allowed}.`);
  }
  for (const { check, yes } of answers)
    if (!(check in YES_NO_CHECKS)) return fail(check, String(yes), YES_NO_IDS.join(', '), `Nobody asks “${check}”.`);
  for (const { id, weight, answers: rates = {} } of table.hypotheses) {
    if (!(weight >= 0 && weight <= 1000))
      return fail(`catalogue.${id}.weight`, weight, '0 to 1000', `The weight of ${id} is ${weight}; accepted is 0 to 1000.`);
    for (const [check, rate] of Object.entries(rates))
      if (!(rate >= 0.01 && rate <= 0.99))
        return fail(
          `rate.${check}`,
          rate,
          '0.01 to 0.99',
          `The rate of yes of ${check} under ${id} is ${rate}; accepted is 0.01 to 0.99: nobody’s eyes are perfect.`,
        );
  }
  if (!table.hypotheses.some(({ weight }) => weight > 0))
    return fail('catalogue', 'all 0', 'at least one weight above 0', 'Every cause of the catalogue is switched off.');
  return ok(undefined);
}

/**
 * Causes with their probabilities after what was read and answered.
 *
 * @param table see `buildNodes`
 * @param before what fewer of these readings left open: nodes they ruled out are not looked at again
 * @returns an error naming a reading or check that cannot be
 */
export function diagnose(
  table: NodeTable,
  readings: readonly FaultReading[],
  answers: readonly FaultAnswer[] = [],
  before: Diagnosis | null = null,
): Outcome<Diagnosis> {
  const problem = problemOf(table, readings, answers);
  if (!problem.ok) return problem;
  const { hypotheses, nodes } = table;
  const counts = hypotheses.map(() => 0);
  for (const { hypothesis } of nodes) counts[hypothesis]! += 1;
  const weights = hypotheses.reduce((sum, { weight }) => sum + weight, 0);
  const lnPrior = hypotheses.map(
    ({ weight }, h) =>
      Math.log(weight / weights) +
      answers.reduce((sum, { check, yes }) => sum + Math.log(yes ? yesRate(table, h, check) : 1 - yesRate(table, h, check)), 0),
  );
  // In an order of their own, so that the order of typing cannot move the last bit.
  const ordered = readings.map((_, i) => i).sort((a, b) => comparePair(readings[a]!, readings[b]!) || a - b);
  const sorted = ordered.map((i) => readings[i]!);
  const there = onScale(sorted);
  const lns = new Float64Array(nodes.length);
  const squares = new Float64Array(nodes.length);
  const bads: (Float64Array | null)[] = nodes.map((node, k) => {
    if (hypotheses[node.hypothesis]!.weight === 0 || before?.nodes[k] === 0) {
      lns[k] = -Infinity;
      return null;
    }
    const { residual, covariance } = atNode(node, there);
    const found = robustLikelihood(residual, covariance, there.badSpread);
    lns[k] = found.ln;
    squares[k] = found.squares;
    return found.bad;
  });
  const joint = lns.map((ln, k) => ln + lnPrior[nodes[k]!.hypothesis]! - Math.log(counts[nodes[k]!.hypothesis]!));
  const best = joint.reduce((most, ln) => Math.max(most, ln), -Infinity);
  const all = logSumExp(joint.map((ln) => (ln < best - HOPELESS ? -Infinity : ln)));
  const shares = joint.map((ln) => (ln < best - HOPELESS ? 0 : Math.exp(ln - all)));
  const badSorted = sorted.map((_, i) => bads.reduce((sum, bad, k) => sum + (bad ? shares[k]! * bad[i]! : 0), 0));
  const bad = readings.map((_, i) => badSorted[ordered.indexOf(i)]!);
  const own: { severity: number; share: number }[][] = hypotheses.map(() => []);
  nodes.forEach(({ hypothesis, severity }, k) => own[hypothesis]!.push({ severity, share: shares[k]! }));
  const causes = hypotheses.map(({ id }, h) => oddsOf(id, own[h]!));
  const k = joint.indexOf(best);
  return ok({
    causes,
    bad,
    misfit: squares[k]! > unlikelySquares(readings.length) && bad.filter((p) => p > 0.5).length >= 2,
    entropyBits: entropyBits(causes.map(({ probability }) => probability)),
    nodes: shares,
    lnLikelihood: lnAverages(hypotheses.length, nodes, lns),
    readings,
    answers,
  });
}

/** ln of the mean density over the nodes of each cause. */
function lnAverages(count: number, nodes: readonly Node[], lns: Float64Array): number[] {
  const own: number[][] = Array.from({ length: count }, () => []);
  nodes.forEach(({ hypothesis }, k) => own[hypothesis]!.push(lns[k]!));
  return own.map((terms) => logSumExp(terms) - Math.log(terms.length));
}

const comparePair = (a: FaultReading, b: FaultReading): number => PLACE[a.kind] - PLACE[b.kind] || a.value - b.value;

function oddsOf(id: string, own: readonly { readonly severity: number; readonly share: number }[]): CauseOdds {
  const probability = own.reduce((sum, { share }) => sum + share, 0);
  const quantile = (p: number): number => {
    let below = 0;
    for (const { severity, share } of own) {
      if (below + share >= p * probability && share > 0) return severity + ((p * probability - below) / share - 0.5) / own.length;
      below += share;
    }
    return 1;
  };
  return {
    id,
    probability,
    severity: {
      mean: probability > 0 ? own.reduce((sum, { severity, share }) => sum + severity * share, 0) / probability : 0.5,
      low: quantile(0.1),
      high: quantile(0.9),
    },
  };
}

/** Sum of squares that n readings exceed once in a thousand (Wilson and Hilferty 1931, recalled). */
export const unlikelySquares = (n: number): number => (n === 0 ? 0 : n * (1 - 2 / (9 * n) + 3.0902 * Math.sqrt(2 / (9 * n))) ** 3);

/** Causes that may be true, the likeliest first; of the same odds in the order of the catalogue. */
export const ranked = ({ causes }: Diagnosis): CauseOdds[] => [...causes].sort((a, b) => b.probability - a.probability);
