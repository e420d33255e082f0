/** What to change on one visit: parts of their own intervals, one price for coming at all (science of options, 8). */

/** A part that is changed at the latest so many steps after its last change. */
export interface VisitedPart {
  readonly interval: number;
  readonly cost: number;
}
export interface VisitPlan {
  /** Steps at which somebody comes, with the places of what is changed then. */
  readonly visits: readonly { readonly at: number; readonly parts: readonly number[] }[];
  readonly cost: number;
  /** Whether nothing cheaper exists. */
  readonly exact: boolean;
}

const MOST_PARTS = 7;
const MOST_STEPS = 60;
const MOST_POPS = 50_000;

const planCost = (visits: VisitPlan['visits'], parts: readonly VisitedPart[], visitCost: number): number =>
  visits.reduce((sum, { parts: changed }) => sum + visitCost + changed.reduce((all, i) => all + parts[i]!.cost, 0), 0);

/** Goes through a horizon with a rule for what else is changed when something is due; nothing is due at its end. */
export function planByRule(
  parts: readonly VisitedPart[],
  visitCost: number,
  horizon: number,
  alsoNow: (part: VisitedPart, remaining: number) => boolean,
): VisitPlan {
  const due = parts.map(({ interval }) => interval);
  const visits: { at: number; parts: number[] }[] = [];
  for (;;) {
    const at = Math.min(...due);
    if (!(at < horizon)) break;
    const changed = parts.flatMap((part, i) => (due[i] === at || (due[i]! < horizon && alsoNow(part, due[i]! - at)) ? [i] : []));
    for (const i of changed) due[i] = at + parts[i]!.interval;
    visits.push({ at, parts: changed });
  }
  return { visits, cost: planCost(visits, parts, visitCost), exact: false };
}

const WINDOWS = [0, 1, 2, 3, 4, 5, 6] as const;
const THRESHOLDS = [0, 0.1, 0.2, 0.3, 0.5, 0.75, 1] as const;
/** Changes along what falls due within a window of steps. */
export const windowRule =
  (steps: number) =>
  (_: VisitedPart, remaining: number): boolean =>
    remaining <= steps;
/** Changes along what throws away no more than a share of a visit. */
export const thresholdRule =
  (share: number, visitCost: number) =>
  ({ interval, cost }: VisitedPart, remaining: number): boolean =>
    (cost * remaining) / interval <= share * visitCost;

/** The cheapest of a row of rules. */
export function bundleByRules(parts: readonly VisitedPart[], visitCost: number, horizon: number): VisitPlan {
  const plans = [
    ...WINDOWS.map((steps) => planByRule(parts, visitCost, horizon, windowRule(steps))),
    ...THRESHOLDS.map((share) => planByRule(parts, visitCost, horizon, thresholdRule(share, visitCost))),
  ];
  return plans.reduce((best, plan) => (plan.cost < best.cost ? plan : best));
}

interface Node {
  readonly due: readonly number[];
  readonly spent: number;
  readonly bound: number;
  readonly from: Node | null;
  readonly at: number;
  readonly changed: readonly number[];
}

/** A heap of nodes by their bound: the lowest comes first. */
class Queue {
  private readonly nodes: Node[] = [];
  get size(): number {
    return this.nodes.length;
  }
  push(node: Node): void {
    const { nodes } = this;
    nodes.push(node);
    for (let i = nodes.length - 1; i > 0;) {
      const parent = (i - 1) >> 1;
      if (nodes[parent]!.bound <= nodes[i]!.bound) break;
      [nodes[parent], nodes[i]] = [nodes[i]!, nodes[parent]!];
      i = parent;
    }
  }
  pop(): Node {
    const { nodes } = this;
    const first = nodes[0]!;
    const last = nodes.pop()!;
    if (nodes.length === 0) return first;
    nodes[0] = last;
    for (let i = 0; ;) {
      const [left, right] = [2 * i + 1, 2 * i + 2];
      let least = i;
      if (left < nodes.length && nodes[left]!.bound < nodes[least]!.bound) least = left;
      if (right < nodes.length && nodes[right]!.bound < nodes[least]!.bound) least = right;
      if (least === i) break;
      [nodes[least], nodes[i]] = [nodes[i]!, nodes[least]!];
      i = least;
    }
    return first;
  }
}

/**
 * The cheapest plan of visits: exact for a few parts over some years, by the best of two rules for more.
 *
 * There is a best plan in which every visit falls on the due date of some part (any other visit can be moved later), so
 * at each visit what is due is changed with some of the rest. The lower bound of a state is what its changes cost at
 * least, with as many visits as the part that needs most.
 */
export function bundleVisits(parts: readonly VisitedPart[], visitCost: number, horizon: number): VisitPlan {
  if (parts.length === 0) return { visits: [], cost: 0, exact: true };
  const fallback = bundleByRules(parts, visitCost, horizon);
  if (parts.length > MOST_PARTS || horizon > MOST_STEPS) return fallback;
  const least = (due: readonly number[]): number => {
    let sum = 0;
    let visits = 0;
    due.forEach((at, i) => {
      const changes = at < horizon ? Math.ceil((horizon - at) / parts[i]!.interval) : 0;
      sum += parts[i]!.cost * changes;
      visits = Math.max(visits, changes);
    });
    return sum + visitCost * visits;
  };
  const capped = (at: number): number => Math.min(horizon, at);
  const first = parts.map(({ interval }) => capped(interval));
  const queue = new Queue();
  queue.push({ due: first, spent: 0, bound: least(first), from: null, at: 0, changed: [] });
  const seen = new Map<string, number>();
  for (let pops = 0; queue.size > 0 && pops < MOST_POPS; pops++) {
    const node = queue.pop();
    const at = Math.min(...node.due);
    if (at >= horizon) return { visits: visitsTo(node), cost: node.spent, exact: true };
    const key = node.due.join(' ');
    if ((seen.get(key) ?? Infinity) < node.spent) continue;
    const isDue = node.due.flatMap((due, i) => (due === at ? [i] : []));
    const rest = node.due.flatMap((due, i) => (due > at && due < horizon ? [i] : []));
    for (let subset = 0; subset < 1 << rest.length; subset++) {
      const changed = [...isDue, ...rest.filter((_, k) => (subset >> k) & 1)];
      const due = [...node.due];
      let spent = node.spent + visitCost;
      for (const i of changed) {
        due[i] = capped(at + parts[i]!.interval);
        spent += parts[i]!.cost;
      }
      const name = due.join(' ');
      if ((seen.get(name) ?? Infinity) <= spent) continue;
      seen.set(name, spent);
      queue.push({ due, spent, bound: spent + least(due), from: node, at, changed });
    }
  }
  return fallback;
}

function visitsTo(last: Node): VisitPlan['visits'] {
  const visits: { at: number; parts: readonly number[] }[] = [];
  for (let node: Node | null = last; node?.from; node = node.from)
    visits.unshift({ at: node.at, parts: [...node.changed].sort((a, b) => a - b) });
  return visits;
}

/** A fixed calendar: somebody comes every so many steps, and each part is changed every so many visits. */
export interface FixedCalendar {
  readonly every: number;
  /** Visits between changes of each part. */
  readonly multiples: readonly number[];
  /** Cost a step, kept up for ever. */
  readonly costPerStep: number;
}

/** The cheapest fixed calendar, of those whose stride is a whole part of some interval. */
export function bestCalendar(parts: readonly VisitedPart[], visitCost: number): FixedCalendar {
  const shortest = Math.min(...parts.map(({ interval }) => interval));
  const strides = parts.flatMap(({ interval }) =>
    Array.from({ length: interval }, (_, k) => interval / (k + 1)).filter((stride) => stride <= shortest && stride >= 1),
  );
  const calendars = strides.map((every): FixedCalendar => {
    const multiples = parts.map(({ interval }) => Math.floor(interval / every + 1e-9));
    const costPerStep = visitCost / every + parts.reduce((sum, { cost }, i) => sum + cost / (multiples[i]! * every), 0);
    return { every, multiples, costPerStep };
  });
  return calendars.reduce((best, one) => (one.costPerStep < best.costPerStep - 1e-12 ? one : best));
}
