import { ok, type Outcome } from '../quantity';
import { diagnose, yesRate, type Diagnosis } from './diagnose';
import type { Hypothesis } from './hypothesis';
import { KIND_IDS, unscaled, YES_NO_IDS, type KindId } from './kinds';
import { nodeOf, type Node, type NodeTable } from './nodes';
import type { Truth } from './rig';
import { SHARED } from './shared';

/** Two causes at once, and how likely they are among the pairs that were tried. */
export interface CausePair {
  readonly ids: readonly [water: string, reading: string];
  readonly probability: number;
}

/** Causes of either side that are paired (science of faults, 1.6). */
const PAIRED = 6;
/** Every so manieth severity of what changes the water, with a wider cell; and of what changes a reading alone, without one. */
const EVERY = 4;
const EVERY_READING = 2;
/** Pairs below this are not named. */
const LEAST_NAMED = 0.05;

/**
 * Pairs of one cause that changes the water and one that changes what is read of it, for readings that fit no cause by
 * itself; the likeliest first. The prior of a pair is the product of its causes' own.
 *
 * @param diagnosis what single causes make of the readings: the likeliest of either side are paired
 */
export function pairsFor(table: NodeTable, diagnosis: Diagnosis): Outcome<CausePair[]> {
  const places = table.hypotheses
    .map((one, h) => ({ one, h, ln: diagnosis.lnLikelihood[h]! + Math.log(Math.max(one.weight, 1e-12)) }))
    .sort((a, b) => b.ln - a.ln);
  const ofWater = places.filter(({ one }) => one.change).slice(0, PAIRED);
  const ofReading = places.filter(({ one }) => !one.change && one.reads).slice(0, PAIRED);
  const kinds = new Set(diagnosis.readings.map(({ kind }) => kind));
  const most = Math.max(1, ...table.hypotheses.map(({ weight }) => weight));
  const hypotheses: Hypothesis[] = [];
  const nodes: Node[] = [];
  const ids: CausePair['ids'][] = [];
  for (const water of ofWater)
    for (const reading of ofReading) {
      const index = hypotheses.length;
      ids.push([water.one.id, reading.one.id]);
      hypotheses.push({
        id: `${water.one.id} ${reading.one.id}`,
        weight: (water.one.weight * reading.one.weight) / most,
        answers: Object.fromEntries(
          YES_NO_IDS.map((check) => [check, Math.max(yesRate(table, water.h, check), yesRate(table, reading.h, check))]),
        ),
      });
      const severities = table.nodes
        .filter(({ hypothesis }) => hypothesis === reading.h)
        .filter((_, k) => k % EVERY_READING === 0)
        .map(({ severity }) => severity);
      const solved = table.nodes.filter(({ hypothesis }) => hypothesis === water.h).filter((_, k) => k % EVERY === EVERY >> 1);
      for (const node of solved)
        for (const severity of severities) nodes.push(pairNode(node, index, severity, reading.one.reads!, table.shared, kinds));
    }
  if (hypotheses.length === 0) return ok([]);
  const found = diagnose({ ...table, hypotheses, nodes }, [...diagnosis.readings], [...diagnosis.answers]);
  if (!found.ok) return found;
  return ok(
    found.value.causes
      .map(({ probability }, i) => ({ ids: ids[i]!, probability }))
      .filter(({ probability }) => probability >= LEAST_NAMED)
      .sort((a, b) => b.probability - a.probability),
  );
}

/** A node of one cause with another one's readings on top: what is solved stays, what is read follows. */
function pairNode(
  node: Node,
  hypothesis: number,
  severity: number,
  reads: NonNullable<Hypothesis['reads']>,
  shared: NodeTable['shared'],
  kinds: ReadonlySet<KindId>,
): Node {
  const truthOf = (u: (i: number) => number): Truth => {
    const truth = Object.fromEntries(KIND_IDS.map((kind, i) => [kind, unscaled(kind, u(i))])) as Record<KindId, number>;
    return { ...truth, ...reads(severity, truth) };
  };
  const paired = nodeOf(
    hypothesis,
    node.severity,
    truthOf((i) => node.expected[i]!),
    shared,
    (error, way) => truthOf((i) => node.expected[i]! + way * node.moved[i * SHARED.length + error]!),
    kinds,
  );
  // Its cell is that of as many nodes as are left out.
  return { ...paired, cell: node.cell.map((step) => EVERY * step) };
}
