import { entropyBits, normalPoints } from '../numeric';
import { atNode, onScale, sharedAt, yesRate, type Diagnosis } from './diagnose';
import { KIND_IDS, READING_KINDS, YES_NO_CHECKS, YES_NO_IDS, type KindId, type YesNoId } from './kinds';
import { BAD_SHARE, robustLikelihood, symmetricInverse } from './likelihood';
import { PLACE, type Node, type NodeTable } from './nodes';

/** What a reading not yet taken would show at a node. */
export interface Foreseen {
  readonly hypothesis: number;
  readonly probability: number;
  readonly mean: number;
  readonly variance: number;
}

/** A check that could be made, with what it would tell of the cause. */
export interface NextCheck {
  readonly id: KindId | YesNoId;
  readonly informationBits: number;
  readonly minutes: number;
  /** Bits a minute, a minute of getting there included. */
  readonly score: number;
}

/** Nodes below this do not count towards a check. */
const LEAST_NODE = 2e-5;
/** Getting to a check, minutes (science of faults, 3). */
export const SETTING_UP = 1;
const LN2 = Math.LN2;

/** Entropy of a yes or no, bits. */
const yesNoBits = (q: number): number => entropyBits([q, 1 - q]);

/** What a yes or no would tell of the cause, bits. */
export function yesNoInformation(probabilities: readonly number[], rates: readonly number[]): number {
  const yes = probabilities.reduce((sum, p, h) => sum + p * rates[h]!, 0);
  return Math.max(0, yesNoBits(yes) - probabilities.reduce((sum, p, h) => sum + p * yesNoBits(rates[h]!), 0));
}

/** What a figure would tell of the cause, and how far apart it would set each pair of causes. */
export interface FigureInformation {
  readonly bits: number;
  /** How far apart two causes would be set, by their places in the table; 0 unless it was asked for. */
  readonly apart: (a: number, b: number) => number;
}

/**
 * What a figure would tell of the cause: the mean, over what it may turn out to be, of the ln of what its cause lets
 * expect against what all do.
 *
 * @param badSpread what a bad reading is off by
 * @param points of the Gauss and Hermite rule
 * @param apart whether it is asked how far apart each pair of causes would be set
 */
export function figureInformation(
  foreseen: readonly Foreseen[],
  badSpread: number,
  badShare = BAD_SHARE,
  points = 5,
  apart = false,
): FigureInformation {
  const { z, weight } = normalPoints(points);
  const nodes = gathered(foreseen);
  const total = nodes.reduce((sum, { probability }) => sum + probability, 0);
  const places = [...new Set(nodes.map(({ hypothesis }) => hypothesis))];
  const n = places.length;
  const place = Int32Array.from(nodes, ({ hypothesis }) => places.indexOf(hypothesis));
  const own = new Float64Array(n);
  nodes.forEach(({ probability }, k) => (own[place[k]!]! += probability));
  // Middle, peak and half precision of a good reading at each node; of a bad one, which is spread widely, at each cause.
  const middle = Float64Array.from(nodes, ({ mean }) => mean);
  const peak = Float64Array.from(nodes, ({ probability, variance }) => ((1 - badShare) * probability) / Math.sqrt(2 * Math.PI * variance));
  const half = Float64Array.from(nodes, ({ variance }) => 0.5 / variance);
  const wide = badShare > 0 ? widened(nodes, place, own, badSpread) : [];
  const density = new Float64Array(n);
  /** Of each node and point, what the first cause's ln density is against every other's: asked for one check only. */
  const crossed = apart ? new Float64Array(n * n) : null;
  let bits = 0;
  nodes.forEach((node, k) => {
    const sd = Math.sqrt(node.variance);
    const home = place[k]!;
    for (let j = 0; j < points; j++) {
      const x = node.mean + sd * z[j]!;
      for (let i = 0; i < n; i++) {
        const one = wide[i];
        density[i] = one ? badShare * one.peak * Math.exp(-one.half * (x - one.middle) ** 2) : 0;
      }
      for (let i = 0; i < middle.length; i++) {
        const off = x - middle[i]!;
        const near = off * off * half[i]!;
        if (near < 40) density[place[i]!]! += peak[i]! * Math.exp(-near);
      }
      let all = 0;
      for (let i = 0; i < n; i++) all += density[i]!;
      const share = (node.probability / total) * weight[j]!;
      const here = Math.max(density[home]! / own[home]!, 1e-300);
      bits += (share * Math.log((here * total) / all)) / LN2;
      if (crossed) for (let i = 0; i < n; i++) crossed[home * n + i]! += share * Math.log(here / Math.max(density[i]! / own[i]!, 1e-300));
    }
  });
  return {
    bits: Math.max(0, bits),
    apart: (a, b) => {
      const [i, k] = [places.indexOf(a), places.indexOf(b)];
      if (!crossed || i < 0 || k < 0 || i === k) return 0;
      const mean = (from: number, to: number): number => (crossed[from * n + to]! * total) / own[from]!;
      return mean(i, k) + mean(k, i);
    },
  };
}

/** What a bad reading would show under each cause, its severities taken together by mean and variance. */
function widened(
  nodes: readonly Foreseen[],
  place: Int32Array,
  own: Float64Array,
  badSpread: number,
): { readonly middle: number; readonly peak: number; readonly half: number }[] {
  const sums = Array.from(own, () => ({ mean: 0, square: 0 }));
  nodes.forEach(({ probability, mean, variance }, k) => {
    const sum = sums[place[k]!]!;
    const share = probability / own[place[k]!]!;
    sum.mean += share * mean;
    sum.square += share * (variance + mean * mean);
  });
  return sums.map(({ mean, square }, i) => {
    const variance = square - mean * mean + badSpread * badSpread;
    return { middle: mean, peak: own[i]! / Math.sqrt(2 * Math.PI * variance), half: 0.5 / variance };
  });
}

/** Neighbours of one cause nearer than this, in their own sd, show as one. */
const SAME_SD = 0.5;

/** Nodes of each cause, in their order, with neighbours that would show the same taken together by mean and variance. */
function gathered(foreseen: readonly Foreseen[]): Foreseen[] {
  const out: Foreseen[] = [];
  for (const node of foreseen) {
    const last = out.at(-1);
    const together =
      last?.hypothesis === node.hypothesis &&
      Math.abs(node.mean - last.mean) < SAME_SD * Math.sqrt(Math.min(node.variance, last.variance)) &&
      Math.abs(Math.log(node.variance / last.variance)) < SAME_SD;
    if (!last || !together) {
      out.push(node);
      continue;
    }
    const probability = last.probability + node.probability;
    const share = node.probability / probability;
    const mean = last.mean + share * (node.mean - last.mean);
    const variance = (1 - share) * (last.variance + (last.mean - mean) ** 2) + share * (node.variance + (node.mean - mean) ** 2);
    out[out.length - 1] = { hypothesis: node.hypothesis, probability, mean, variance };
  }
  return out;
}

/**
 * What a reading of a kind would show at each node that is still open, given what was read.
 *
 * @returns means and variances on the kind's scale; the variance is never below the reading's own
 */
export function foresee(table: NodeTable, diagnosis: Diagnosis, kind: KindId): Foreseen[] {
  const { place } = onScale(diagnosis.readings);
  const n = place.length;
  const at = PLACE[kind];
  const c = new Float64Array(n);
  return openNodes(table, diagnosis).map(({ node, probability, inverse, pull }) => {
    const own = node.ownSd[at]! ** 2;
    let mean = node.expected[at]!;
    let variance = sharedAt(node, at, at) + own;
    for (let i = 0; i < n; i++) c[i] = sharedAt(node, at, place[i]!);
    for (let i = 0; i < n; i++) {
      let kc = 0;
      for (let j = 0; j < n; j++) kc += inverse[i * n + j]! * c[j]!;
      mean += c[i]! * pull[i]!;
      variance -= c[i]! * kc;
    }
    return { hypothesis: node.hypothesis, probability, mean, variance: Math.max(variance, own) };
  });
}

/** A node that is still open, with the inverse covariance of what was read and what that pulls on. */
interface OpenNode {
  readonly node: Node;
  readonly probability: number;
  readonly inverse: Float64Array;
  readonly pull: Float64Array;
}
/** Nodes are conditioned once on a set of readings, whichever check is asked about. */
const CONDITIONED = new WeakMap<Diagnosis, OpenNode[]>();

function openNodes({ nodes }: NodeTable, diagnosis: Diagnosis): OpenNode[] {
  const known = CONDITIONED.get(diagnosis);
  if (known) return known;
  const there = onScale(diagnosis.readings);
  const n = there.place.length;
  const open = nodes.flatMap((node, k): OpenNode[] => {
    const probability = diagnosis.nodes[k]!;
    if (probability < LEAST_NODE) return [];
    const { residual, covariance } = atNode(node, there);
    const { bad } = robustLikelihood(residual, covariance, there.badSpread);
    // A reading that is rather bad than not is given its spread.
    for (let i = 0; i < n; i++) if (bad[i]! > 0.5) covariance[i * n + i]! += there.badSpread[i]! ** 2;
    const { rows: inverse } = symmetricInverse(covariance, n);
    const pull = new Float64Array(n);
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) pull[i]! += inverse[i * n + j]! * residual[j]!;
    return [{ node, probability, inverse, pull }];
  });
  CONDITIONED.set(diagnosis, open);
  return open;
}

/** The two causes a check sets apart most, weighted by how likely both are, by their places in the table. */
export function separatedBy(table: NodeTable, diagnosis: Diagnosis, check: KindId | YesNoId): readonly [number, number] | null {
  const apart = apartBy(table, diagnosis, check);
  const { causes } = diagnosis;
  let most = 0;
  let pair: readonly [number, number] | null = null;
  for (let a = 0; a < causes.length; a++)
    for (let b = a + 1; b < causes.length; b++) {
      const value = causes[a]!.probability * causes[b]!.probability * apart(a, b);
      if (value > most) [most, pair] = [value, causes[a]!.probability >= causes[b]!.probability ? [a, b] : [b, a]];
    }
  return pair;
}

/** The same two causes by their names. */
export function toldApart(table: NodeTable, diagnosis: Diagnosis, check: KindId | YesNoId): readonly [string, string] | null {
  const pair = separatedBy(table, diagnosis, check);
  return pair && [table.hypotheses[pair[0]]!.id, table.hypotheses[pair[1]]!.id];
}

function apartBy(table: NodeTable, diagnosis: Diagnosis, check: KindId | YesNoId): (a: number, b: number) => number {
  if (isKind(check)) return figureInformation(foresee(table, diagnosis, check), READING_KINDS[check].badSpread, BAD_SHARE, 5, true).apart;
  const rates = table.hypotheses.map((_, h) => yesRate(table, h, check));
  return (a, b) => {
    const [p, q] = [rates[a]!, rates[b]!];
    return (p - q) * Math.log(p / q) + (q - p) * Math.log((1 - q) / (1 - p));
  };
}

/** Whether a check is read as a figure, not answered yes or no. */
export const isKind = (check: KindId | YesNoId): check is KindId => check in READING_KINDS;

/** Kinds and checks a system has. */
export interface Available {
  readonly kinds: readonly KindId[];
  readonly checks: readonly YesNoId[];
}
const ALL: Available = { kinds: KIND_IDS, checks: YES_NO_IDS };

/**
 * Checks that could be made next, the most telling a minute first. A reading can be taken again; an answer stands.
 *
 * @param costMinutes what a check's consumables cost, in minutes of work
 */
export function nextChecks(
  table: NodeTable,
  diagnosis: Diagnosis,
  available: Available = ALL,
  costMinutes: (check: KindId | YesNoId) => number = () => 0,
): NextCheck[] {
  const open = diagnosis.entropyBits;
  const probabilities = diagnosis.causes.map(({ probability }) => probability);
  const scored = (id: KindId | YesNoId, minutes: number, bits: number): NextCheck => {
    const informationBits = Math.min(open, Math.max(0, bits));
    return { id, informationBits, minutes, score: informationBits / (minutes + SETTING_UP + costMinutes(id)) };
  };
  const figures = available.kinds.map((kind) =>
    scored(kind, READING_KINDS[kind].minutes, figureInformation(foresee(table, diagnosis, kind), READING_KINDS[kind].badSpread).bits),
  );
  const answers = available.checks
    .filter((check) => !diagnosis.answers.some((one) => one.check === check))
    .map((check) => {
      const rates = table.hypotheses.map((_, h) => yesRate(table, h, check));
      return scored(check, YES_NO_CHECKS[check].minutes, yesNoInformation(probabilities, rates));
    });
  return [...figures, ...answers].sort((a, b) => b.score - a.score);
}
