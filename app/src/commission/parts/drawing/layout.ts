import { piecesOf, type PortEnd, type TubeLine } from '@yes-clear/core/commission';
import type { System } from '@yes-clear/core/file';
import { kindOf, unitRanks, type Stage } from '@yes-clear/core/stage';

/** A piece of the system where it is drawn. */
export interface Piece {
  readonly id: string;
  readonly form: 'cartridge' | 'vessel' | 'tank' | 'machine' | 'membrane' | 'valve';
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
export interface Spot {
  readonly x: number;
  readonly y: number;
}
/** A line of tubing as it runs: its strokes, the spots where tees sit, and where its name stands. */
export interface Run {
  readonly line: TubeLine;
  readonly strokes: readonly (readonly Spot[])[];
  readonly tees: readonly Spot[];
  readonly label: Spot;
  /** Where a restrictor or valve sits. */
  readonly held: Spot | null;
}
export interface Drawing {
  readonly w: number;
  readonly h: number;
  readonly pieces: readonly Piece[];
  readonly runs: readonly Run[];
  readonly ends: readonly { readonly text: string; readonly x: number; readonly y: number; readonly anchor: 'start' | 'middle' | 'end' }[];
}

/** Room between two pieces, for the name of the line that joins them. */
const GAP = 70;
const VESSEL_ROW = 66;
const MEMBRANE_W = 226;
/** Where a membrane's cap end stands behind the piece before it. */
const MEMBRANE_IN = 40;
const MAIN_IN = 14;
/** A line's name stands over the heads of the pieces it joins. */
const ABOVE = 27;
/** Heads of cartridges: where water goes in and out, from their top. */
const HEAD = 16;

const formOf = (stage: Stage): Piece['form'] => {
  if (stage.kind === 'membrane') return 'membrane';
  const { form } = kindOf(stage);
  return form === 'line' ? 'machine' : form;
};

/**
 * Every piece and line of a train in its true place: water runs left to right, membranes lie above the row with the feed
 * port alone at their cap end, the product port on their axis and the waste port beside it; waste goes down to the drain.
 */
export function drawingOf(system: Pick<System, 'train'>, lines: readonly TubeLine[]): Drawing {
  const stages = piecesOf(system.train.stages);
  const most = Math.max(1, ...stages.map((stage) => (stage.kind === 'membrane' ? vesselsOf(stage) : 1)));
  const hasMembrane = stages.some(({ kind }) => kind === 'membrane');
  // Water led past a membrane runs over it.
  const over = stages.some((stage) => stage.kind === 'membrane' && stage.bypassShare > 0) ? 34 : 0;
  const mainY = hasMembrane ? 40 + over + most * VESSEL_ROW : 40;
  const pieces: Piece[] = [];
  const ports = new Map<string, Spot>();
  const key = (at: string, port: string, rank = 0, index = 0): string => `${at}.${port}.${rank}.${index}`;
  let x = 108;
  const put = (stage: Stage, y: number): void => {
    const form = formOf(stage);
    if (stage.kind === 'membrane') {
      let row = 0;
      const count = vesselsOf(stage);
      unitRanks(stage).forEach(({ vessels }, rank) => {
        for (let index = 0; index < vessels; index++, row++) {
          const top = 26 + over + (most - count) * VESSEL_ROW + row * VESSEL_ROW;
          pieces.push({
            id: stage.id,
            form,
            name: count > 1 ? vesselName(stage.name, row) : stage.name,
            x: x + 34,
            y: top,
            w: MEMBRANE_W,
            h: 36,
          });
          ports.set(key(stage.id, 'feed', rank, index), { x: x + MEMBRANE_IN, y: top + 18 });
          ports.set(key(stage.id, 'product', rank, index), { x: x + MEMBRANE_IN + MEMBRANE_W, y: top + 18 });
          ports.set(key(stage.id, 'waste', rank, index), { x: x + MEMBRANE_IN + MEMBRANE_W, y: top + 30 });
        }
      });
      if (stage.bypassShare > 0) {
        const middle = x + MEMBRANE_IN + MEMBRANE_W / 2;
        pieces.push({ id: `blend-${stage.id}`, form: 'valve', name: 'blend', x: middle - 12, y: 12, w: 24, h: 24 });
        ports.set(key(`blend-${stage.id}`, 'in'), { x: middle - 12, y: 24 });
        ports.set(key(`blend-${stage.id}`, 'out'), { x: middle + 12, y: 24 });
      }
      x += MEMBRANE_IN + MEMBRANE_W + 108;
      return;
    }
    const [w, h] = form === 'tank' ? [84, 104] : form === 'machine' ? [50, 50] : form === 'vessel' ? [50, 112] : [52, 96];
    const top = form === 'machine' ? y - 25 : y - HEAD;
    pieces.push({ id: stage.id, form, name: stage.name, x, y: top, w, h });
    ports.set(key(stage.id, 'in'), { x, y });
    ports.set(key(stage.id, 'out'), form === 'tank' ? { x: x + w, y: top + h - 14 } : { x: x + w, y });
    ports.set(key(stage.id, 'drain'), { x: x + w, y: top + h - 16 });
    x += w + GAP;
  };
  for (const stage of stages) put(stage, mainY + MAIN_IN);
  const right = x + 20;
  ports.set(key('tap', 'out'), { x: 22, y: mainY + MAIN_IN });
  const lastOut = stages.at(-1) ? lastPort(ports, stages.at(-1)!, key) : { x: 60, y: mainY };
  ports.set(key('use', 'in'), { x: right + 40, y: stages.at(-1)?.kind === 'membrane' ? mainY + MAIN_IN : lastOut.y });
  let widest = right + 110;
  // Uses taken off stand below, each on its own row, from the left.
  const drainY = mainY + 158;
  let rowY = drainY + 56;
  for (const branch of system.train.branches) {
    const from = pieces.find(({ id }) => id === branch.after);
    x = Math.min((from ? from.x + from.w : 60) + 60, right);
    const own = piecesOf(branch.stages);
    for (const stage of own) put(stage, rowY + MAIN_IN);
    ports.set(key(`use-${branch.id}`, 'in'), { x: x + 30, y: rowY + MAIN_IN });
    widest = Math.max(widest, x + 150);
    rowY += own.length > 0 ? 134 : 60;
  }
  const runs = lines.map((line) => runOf(line, (end) => spotOf(end, ports, key), drainY));
  const uses = system.train.branches.map((branch) => ({ branch, spot: ports.get(key(`use-${branch.id}`, 'in'))! }));
  const use = ports.get(key('use', 'in'))!;
  return {
    w: widest,
    h: Math.max(rowY - 20, drainY + 40),
    pieces,
    runs,
    ends: [
      { text: 'tap', x: 22, y: mainY + MAIN_IN + 18, anchor: 'start' },
      ...(stages.length > 0 ? [{ text: 'to use', x: use.x + 6, y: use.y + 4, anchor: 'start' as const }] : []),
      ...uses.map(({ branch, spot }) => ({ text: branch.name, x: spot.x + 6, y: spot.y + 4, anchor: 'start' as const })),
    ],
  };
}

/** One of several vessels: "Membrane 2", and "Array 2:2, 2" where the name ends in a figure. */
function vesselName(name: string, row: number): string {
  const plain = name.replace(/\s*×\d+$/, '');
  return `${plain}${/\d$/.test(plain) ? ',' : ''} ${row + 1}`;
}

const vesselsOf = (stage: Extract<Stage, { kind: 'membrane' }>): number => unitRanks(stage).reduce((sum, { vessels }) => sum + vessels, 0);

function lastPort(ports: ReadonlyMap<string, Spot>, stage: Stage, key: (at: string, port: string) => string): Spot {
  return ports.get(key(stage.id, stage.kind === 'membrane' ? 'product' : 'out')) ?? { x: 0, y: 0 };
}

/** Where an end is drawn; null where it is the drain, which a line reaches where it will. */
function spotOf(
  end: PortEnd,
  ports: ReadonlyMap<string, Spot>,
  key: (at: string, port: string, rank?: number, index?: number) => string,
): Spot | null {
  return ports.get(key(end.at, end.port, end.vessel?.rank, end.vessel?.index)) ?? null;
}

/** How a line runs between its ends: one upright between those on its left and those on its right, waste down to the drain. */
function runOf(line: TubeLine, spot: (end: PortEnd) => Spot | null, drainY: number): Run {
  const known = line.ends.map((one) => ({ one, at: spot(one) })).filter((found): found is { one: PortEnd; at: Spot } => found.at !== null);
  const starts = known.filter(({ one }) => ['out', 'product', 'waste', 'drain'].includes(one.port));
  const stops = known.filter(({ one }) => ['in', 'feed'].includes(one.port));
  const drained = line.ends.some(({ at }) => at === 'drain');
  if (line.carries === 'waste') return wasteRun(line, starts, stops, drained, drainY);
  if (starts.length === 0) return { line, strokes: [], tees: [], label: { x: 0, y: 0 }, held: null };
  const left = Math.max(...starts.map(({ at }) => at.x));
  const ahead = stops.filter(({ at }) => at.x > left);
  // Between the last of its starts and the first of its ends; what comes back goes round below.
  const near = ahead.length > 0 ? Math.min(...ahead.map(({ at }) => at.x)) : left + 60;
  const product = starts.some(({ one }) => one.port === 'product');
  const cap = ahead.some(({ one }) => one.port === 'feed');
  const bus = product ? left + 46 : cap ? near - 52 : Math.min(left + Math.max(14, (near - left) / 2), near - 12);
  const straight = starts.length === 1 && ahead.length === 1 && Math.abs(starts[0]!.at.y - ahead[0]!.at.y) < 0.5;
  const strokes: Spot[][] = straight
    ? [[starts[0]!.at, ahead[0]!.at]]
    : [...starts.map(({ at }) => [at, { x: bus, y: at.y }]), ...ahead.map(({ at }) => [{ x: bus, y: at.y }, at])];
  const back = stops.filter(({ at }) => at.x <= left);
  const levels = [...starts, ...ahead].map(({ at }) => at.y);
  if (!straight)
    strokes.push([
      { x: bus, y: Math.min(...levels) },
      { x: bus, y: Math.max(...levels) },
    ]);
  for (const { at } of back) {
    const below = drainY - 26;
    strokes.push([{ x: bus, y: Math.max(...levels) }, { x: bus, y: below }, { x: at.x - 14, y: below }, { x: at.x - 14, y: at.y }, at]);
  }
  const main = starts[0]!.at;
  const longest = ahead[0] ?? starts[0]!;
  // On an upright its name stands where nothing joins it: between its two lowest ends.
  const [lowest, next] = [...new Set(levels)].sort((a, b) => b - a) as [number, number | undefined];
  const label = straight
    ? { x: (main.x + longest.at.x) / 2, y: main.y - ABOVE }
    : next !== undefined && lowest - next > 44
      ? { x: bus, y: lowest - 0.35 * (lowest - next) }
      : { x: (bus + longest.at.x) / 2, y: longest.at.y - ABOVE };
  return { line, strokes, tees: teesOf(line, bus, [...starts, ...ahead]), label, held: null };
}

const teesOf = (line: TubeLine, bus: number, ends: readonly { readonly at: Spot }[]): Spot[] =>
  line.tees > 0
    ? [...new Set(ends.map(({ at }) => at.y))]
        .sort((a, b) => a - b)
        .slice(0, Math.max(1, line.tees))
        .map((y) => ({ x: bus, y }))
    : [];

type Ended = { readonly one: PortEnd; readonly at: Spot };

/** Waste: from rank to rank between the vessels, or down to the drain, past what holds it back. */
function wasteRun(line: TubeLine, starts: readonly Ended[], stops: readonly Ended[], drained: boolean, drainY: number): Run {
  if (starts.length === 0 && !drained) return { line, strokes: [], tees: [], label: { x: 0, y: 0 }, held: null };
  const from = starts[0]?.at ?? { x: 60, y: drainY - 60 };
  const bus = (starts.length > 0 ? Math.max(...starts.map(({ at }) => at.x)) : from.x) + 20;
  const low = Math.max(...starts.map(({ at }) => at.y), from.y);
  const strokes: Spot[][] = starts.map(({ at }) => [at, { x: bus, y: at.y }]);
  if (starts.length > 1)
    strokes.push([
      { x: bus, y: Math.min(...starts.map(({ at }) => at.y)) },
      { x: bus, y: low },
    ]);
  const feeds = stops.filter(({ one }) => one.port === 'feed');
  if (feeds.length > 0) {
    const first = Math.min(...feeds.map(({ at }) => at.y));
    const between = (low + first) / 2 + 1;
    const left = Math.min(...feeds.map(({ at }) => at.x)) - 22;
    strokes.push([
      { x: bus, y: low },
      { x: bus, y: between },
      { x: left, y: between },
      { x: left, y: Math.max(...feeds.map(({ at }) => at.y)) },
    ]);
    for (const { at } of feeds) strokes.push([{ x: left, y: at.y }, at]);
    return { line, strokes, tees: teesOf(line, bus, [...starts]), label: { x: (bus + left) / 2, y: between }, held: null };
  }
  const end = { x: drained ? Math.max(40, bus - 150) : (stops[0]?.at.x ?? 60), y: drainY };
  strokes.push([{ x: bus, y: low }, { x: bus, y: drainY }, end]);
  const back = stops.filter(({ one }) => one.port === 'in');
  for (const { at } of back)
    strokes.push([end.x > at.x ? end : { x: bus, y: drainY }, { x: at.x - 16, y: drainY }, { x: at.x - 16, y: at.y }, at]);
  return {
    line,
    strokes,
    tees: back.length > 0 && drained ? [end] : [],
    label: { x: bus - 72, y: drainY - 13 },
    held: line.holds === null ? null : { x: bus, y: (Math.max(low, drainY - 120) + drainY) / 2 },
  };
}
