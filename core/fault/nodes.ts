import { monotoneCurve, runToEnd } from '../numeric';
import { ok, type Outcome } from '../quantity';
import type { Hypothesis } from './hypothesis';
import { KIND_IDS, READING_KINDS, ownSd, scaled, unscaled, type KindId } from './kinds';
import { plainTruth, SOLVED_KINDS, type Rig, type RigChange, type Solved, type SolvedKind, type Truth } from './rig';
import { SHARED, SOLVED_SHARED, type SharedError, type SharedSd } from './shared';

/** One cause at one severity: what each reading would be, and how what is not exactly known moves it. */
export interface Node {
  readonly hypothesis: number;
  readonly severity: number;
  /** What is expected of each kind on its scale, in the order of the kinds. */
  readonly expected: Float64Array;
  /** What one sd of each shared error does to each kind: kinds × shared, row by row. */
  readonly moved: Float64Array;
  /** What the width of the node's cell of severities does to each kind. */
  readonly cell: Float64Array;
  readonly ownSd: Float64Array;
}

/** All nodes of a system, with the causes they belong to. */
export interface NodeTable {
  readonly hypotheses: readonly Hypothesis[];
  readonly nodes: readonly Node[];
  /** Causes this system could not be solved with, and why: they are left out, and said to be. */
  readonly leftOut: readonly { readonly id: string; readonly why: string }[];
  /** How often the solver was asked, without the second solves for the line taken off. */
  readonly solves: number;
  readonly shared: SharedSd;
}

/** Severities solved, and cells they are spread over. */
const SOLVED_AT = Array.from({ length: 9 }, (_, k) => k / 8);
const CELLS = 32;
/** Severities at which the shared errors are tried. */
const TRIED_AT = [0, 0.5, 1] as const;

/** What one standard deviation of a shared error changes of a system. */
export function changedBy(error: SharedError, by: number): RigChange {
  switch (error) {
    case 'lnWater':
      return { water: Math.exp(by) };
    case 'lnSalt':
      return { salt: Math.exp(by) };
    case 'lnLine':
      return { lineShare: Math.exp(by) };
    case 'temperatureC':
      return { warmerC: by };
    case 'lnFeed':
      return { feedShare: Math.exp(by) };
    case 'lnRestrictor':
      return { defects: { restrictorFlow: Math.exp(by) } };
    default:
      return {};
  }
}

/** Two changes of one system together. */
export function together(a: RigChange, b: RigChange): RigChange {
  const times = (x = 1, y = 1): number => x * y;
  const plus = (x = 0, y = 0): number => x + y;
  return {
    lineShare: times(a.lineShare, b.lineShare),
    warmerC: plus(a.warmerC, b.warmerC),
    feedShare: times(a.feedShare, b.feedShare),
    filterShare: plus(a.filterShare, b.filterShare),
    backBar: plus(a.backBar, b.backBar),
    water: times(a.water, b.water),
    salt: times(a.salt, b.salt),
    pumpShare: times(a.pumpShare, b.pumpShare),
    recycleShare: times(a.recycleShare, b.recycleShare),
    defects: {
      ...a.defects,
      ...b.defects,
      restrictorFlow: times(a.defects?.restrictorFlow, b.defects?.restrictorFlow),
    },
  };
}

const toScale = (solved: Solved): Float64Array => Float64Array.from(SOLVED_KINDS, (kind) => scaled(kind, solved[kind]));
function fromScale(u: ArrayLike<number>): Solved {
  const solved = {} as Record<SolvedKind, number>;
  for (let i = 0; i < SOLVED_KINDS.length; i++) solved[SOLVED_KINDS[i]!] = unscaled(SOLVED_KINDS[i]!, u[i]!);
  return solved;
}

/** What the solver says over the severities of one cause: a curve of each quantity, and how the errors move it. */
interface Course {
  readonly at: (severity: number) => Float64Array;
  /** Solved kinds × solved errors, row by row. */
  readonly movedAt: (severity: number) => Float64Array;
}

function courseOf(rig: Rig, change: (severity: number) => RigChange, sd: SharedSd, severities: readonly number[]): Outcome<Course> {
  const answers: Solved[] = [];
  for (const severity of severities) {
    const one = rig.solve(change(severity), undefined, answers.at(-1));
    if (!one.ok) return one;
    answers.push(one.value);
  }
  const solved = answers.map(toScale);
  const tried: Float64Array[] = [];
  for (const severity of severities.length > 1 ? TRIED_AT : ([0] as const)) {
    const moved = new Float64Array(SOLVED_KINDS.length * SOLVED_SHARED.length);
    for (const [j, error] of SOLVED_SHARED.entries()) {
      const [up, down] = [1, -1].map((way) =>
        rig.solve(together(change(severity), changedBy(error, way * sd[error])), answers[severities.indexOf(severity)]),
      );
      if (!up!.ok) return up!;
      if (!down!.ok) return down!;
      const [high, low] = [toScale(up!.value), toScale(down!.value)];
      for (let i = 0; i < SOLVED_KINDS.length; i++) moved[i * SOLVED_SHARED.length + j] = (high[i]! - low[i]!) / 2;
    }
    tried.push(moved);
  }
  if (severities.length === 1) return ok({ at: () => solved[0]!, movedAt: () => tried[0]! });
  const curves = SOLVED_KINDS.map((_, i) =>
    monotoneCurve(
      severities,
      solved.map((one) => one[i]!),
    ),
  );
  return ok({
    at: (severity) => Float64Array.from(curves, (curve) => curve(severity)),
    movedAt: (severity) => {
      const first = severity < 0.5 ? 0 : 1;
      const share = (severity - TRIED_AT[first]) / 0.5;
      return tried[first]!.map((value, i) => value + share * (tried[first + 1]![i]! - value));
    },
  });
}

/**
 * Lays down what every cause would show of a system: the solver is asked at nine severities of each that changes the
 * hydraulics, and everything between is read off a smooth curve.
 *
 * @returns an error where not even the sound system could be solved
 */
export const buildNodes = (rig: Rig, hypotheses: readonly Hypothesis[], shared: SharedSd): Outcome<NodeTable> =>
  runToEnd(nodeSteps(rig, hypotheses, shared));

/** The same in steps, each yielding the share of the causes that is done. */
export function* nodeSteps(rig: Rig, hypotheses: readonly Hypothesis[], shared: SharedSd): Generator<number, Outcome<NodeTable>> {
  const sound = courseOf(rig, () => ({}), shared, [0]);
  if (!sound.ok) return sound;
  const nodes: Node[] = [];
  const kept: Hypothesis[] = [];
  const leftOut: NodeTable['leftOut'][number][] = [];
  let solves = 1 + 2 * SOLVED_SHARED.length;
  for (const [done, hypothesis] of hypotheses.entries()) {
    yield done / hypotheses.length;
    const { change } = hypothesis;
    const course = change ? courseOf(rig, (s) => change(s, rig), shared, SOLVED_AT) : sound;
    if (!course.ok) {
      leftOut.push({ id: hypothesis.id, why: course.error.message });
      continue;
    }
    if (change) solves += SOLVED_AT.length + TRIED_AT.length * 2 * SOLVED_SHARED.length;
    nodes.push(...nodesOf(rig, hypothesis, kept.length, course.value, shared));
    kept.push(hypothesis);
  }
  return ok({ hypotheses: kept, nodes, leftOut, solves, shared });
}

/** The nodes of one cause, with their cells. */
function nodesOf(rig: Rig, hypothesis: Hypothesis, index: number, course: Course, shared: SharedSd): Node[] {
  // What shows in no figure is the same at every severity.
  const cells = hypothesis.change || hypothesis.reads ? CELLS : 1;
  const drawn = Array.from({ length: cells }, (_, k) => {
    const severity = (k + 0.5) / cells;
    return nodeAt(hypothesis.reads ?? null, index, severity, plainOf(rig, course.at(severity), course.movedAt(severity)), shared);
  });
  return drawn.map((node, k) => ({ ...node, cell: cellOf(drawn, k, hypothesis.jumpAt) }));
}

/** What would be read of a course at one severity, before a cause changes what is read: as it is, and with each error up and down. */
interface Plain {
  readonly at: Truth;
  readonly shifted: readonly (readonly [up: Truth, down: Truth])[];
}
/** A cause that leaves the water alone stands on the sound course at every severity: it is worked out once. */
const PLAIN = new WeakMap<Float64Array, Plain>();

function plainOf(rig: Rig, solved: Float64Array, moved: Float64Array): Plain {
  const known = PLAIN.get(solved);
  if (known) return known;
  const truthOf = (u: ArrayLike<number>): Truth => plainTruth(rig, fromScale(u));
  const plain = {
    at: truthOf(solved),
    shifted: SOLVED_SHARED.map((_, j) => {
      const along = (way: number): Truth => truthOf(solved.map((u, i) => u + way * moved[i * SOLVED_SHARED.length + j]!));
      return [along(1), along(-1)] as const;
    }),
  };
  PLAIN.set(solved, plain);
  return plain;
}

/** A node on what the solver says at its severity. */
function nodeAt(reads: Hypothesis['reads'] | null, index: number, severity: number, plain: Plain, shared: SharedSd): Node {
  const read = (truth: Truth): Truth => (reads ? { ...truth, ...reads(severity, truth) } : truth);
  return nodeOf(index, severity, read(plain.at), shared, (error, way) => read(plain.shifted[error]![way === 1 ? 0 : 1]));
}

/**
 * A node on what would be read at it; its cell is not laid down yet.
 *
 * @param shifted what would be read with one of the solved errors a standard deviation up or down, by its place
 * @param wanted kinds that are asked for; the others are left at nothing
 */
export function nodeOf(
  hypothesis: number,
  severity: number,
  truth: Truth,
  shared: SharedSd,
  shifted: (error: number, way: 1 | -1) => Truth,
  wanted: ReadonlySet<KindId> | null = null,
): Node {
  const places = KIND_IDS.flatMap((kind, i) => (wanted && !wanted.has(kind) ? [] : [[kind, i] as const]));
  const each = (of: (kind: KindId) => number): Float64Array => {
    const list = new Float64Array(KIND_IDS.length);
    for (const [kind, i] of places) list[i] = of(kind);
    return list;
  };
  const moved = new Float64Array(KIND_IDS.length * SHARED.length);
  for (let j = 0; j < SOLVED_SHARED.length; j++) {
    const [high, low] = [shifted(j, 1), shifted(j, -1)];
    for (const [kind, i] of places) moved[i * SHARED.length + j] = (scaled(kind, high[kind]) - scaled(kind, low[kind])) / 2;
  }
  for (const [kind, i] of places) {
    const { instrument, floor } = READING_KINDS[kind];
    if (!instrument || floor === null) continue;
    const x = truth[kind];
    moved[i * SHARED.length + SHARED.indexOf(instrument)] = (shared[instrument] * x) / Math.max(x + floor, 1e-9);
  }
  return {
    hypothesis,
    severity,
    expected: each((kind) => scaled(kind, truth[kind])),
    moved,
    cell: new Float64Array(KIND_IDS.length),
    ownSd: each((kind) => ownSd(kind, truth[kind])),
  };
}

/** How far a node's cell of severities reaches: the mean of the steps to its neighbours, as the sd of an even spread. */
function cellOf(nodes: readonly Node[], k: number, jumpAt: number | undefined): Float64Array {
  const jumps = (a: Node, b: Node): boolean => jumpAt !== undefined && a.severity < jumpAt !== b.severity < jumpAt;
  const here = nodes[k]!;
  const steps = [
    ...(k > 0 && !jumps(nodes[k - 1]!, here) ? [[nodes[k - 1]!, here] as const] : []),
    ...(k < nodes.length - 1 && !jumps(here, nodes[k + 1]!) ? [[here, nodes[k + 1]!] as const] : []),
  ];
  return Float64Array.from(here.expected, (_, i) =>
    steps.length === 0 ? 0 : steps.reduce((sum, [a, b]) => sum + b.expected[i]! - a.expected[i]!, 0) / steps.length / Math.sqrt(12),
  );
}

/** Place of a kind in a node's lists. */
export const PLACE = Object.fromEntries(KIND_IDS.map((kind, i) => [kind, i])) as Readonly<Record<KindId, number>>;
