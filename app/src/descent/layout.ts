import type { Stage } from '@yes-clear/core/file';
import { BAR_PER_PSI } from '@yes-clear/core/quantity';
import { scaleLinear, scaleLog } from 'd3-scale';
import type { DescentInput, DescentSize, Drawing, Frame, Pipe, ProbeMark, Vessel } from './drawing';
import type { Box } from './labels';
import { waterColour } from './waterColour';
import { largeLabels } from './words';

interface Sizes {
  readonly pipe: number;
  readonly vessel: number;
  readonly wide: number;
  readonly level: number;
  readonly top: number;
  readonly bottom: number;
}

const SIZES: Record<DescentSize, Sizes> = {
  large: { pipe: 8, vessel: 30, wide: 38, level: 58, top: 62, bottom: 32 },
  strip: { pipe: 4, vessel: 11, wide: 14, level: 24, top: 14, bottom: 12 },
  thumb: { pipe: 4, vessel: 0, wide: 0, level: 0, top: 6, bottom: 6 },
};

/** Level of what the height stands for, and the range the axis shows. */
interface LevelScale {
  (value: number): number;
  readonly low: number;
  readonly high: number;
}

/** The level scale: conductivity on a log axis, saltier upwards, with room around what is drawn. */
function levelScale(input: DescentInput, frame: Frame): LevelScale {
  const s = SIZES[frame.size];
  const levels = [...input.stations.map((station) => station.state.ec25UScm), ...(input.waste ? [input.waste.ec25UScm] : [])];
  const high = Math.min(1e5, Math.max(...levels, 10) * 1.6);
  const goalHigh = input.goal?.high ?? Infinity;
  const low = Math.max(0.035, Math.min(...levels, goalHigh / 1.6) * 0.62);
  const bottom = Math.min(low, high / 30);
  const scale = scaleLog()
    .domain([high, bottom])
    .range([s.top, frame.height - s.bottom])
    .clamp(true);
  return Object.assign((ec: number) => scale(Math.max(ec, 1e-3)), { low: bottom, high });
}

/** The level scale of the pressure view: bar in proportion, from nothing at the foot. */
function pressureScale(input: DescentInput, frame: Frame): LevelScale {
  const s = SIZES[frame.size];
  const high = Math.max(1, ...input.stations.map((station) => station.pressureBar ?? 0), input.waste?.pressureBar ?? 0) * 1.12;
  const scale = scaleLinear()
    .domain([high, 0])
    .range([s.top, frame.height - s.bottom])
    .clamp(true);
  return Object.assign((bar: number) => scale(bar), { low: 0, high });
}

/** Draws the train: lines first, vessels over them, words last. Pure: the same input gives the same picture. */
export function drawDescent(input: DescentInput, frame: Frame): Drawing {
  const s = SIZES[frame.size];
  const pressure = input.height === 'pressure';
  const y = pressure ? pressureScale(input, frame) : levelScale(input, frame);
  /** What a station's height stands for. */
  const heightOf = (station: DescentInput['stations'][number]): number => (pressure ? (station.pressureBar ?? 0) : station.state.ec25UScm);
  const x = (column: number): number => frame.left + frame.columnWidth * (column + 0.5);
  const levelAfter = new Map(input.stations.map((station) => [station.after, heightOf(station)]));
  const strengthAfter = new Map(input.stations.map((station) => [station.after, station.state.ec25UScm]));
  const end = frame.left + frame.columnWidth * (input.stages.length + 1);

  const vessels: Vessel[] = [];
  const pipes: Pipe[] = [];
  let level = levelAfter.get('tap') ?? 1;
  let ec = strengthAfter.get('tap') ?? 1;
  let from = frame.size === 'thumb' ? frame.left : x(0) - frame.columnWidth * 0.36;
  let wet = levelAfter.has('tap');
  const line = (id: string, points: Pipe['points'], strength: number, open: Pipe['open'] = 'none'): void => {
    pipes.push({ id, points, colour: waterColour(strength), width: s.pipe, open });
  };

  input.stages.forEach((stage, i) => {
    const centre = x(i + 1);
    const next = levelAfter.get(stage.id);
    const width = stage.kind === 'membrane' || stage.kind === 'resin' ? s.wide : stage.kind === 'tank' ? s.wide * 1.25 : s.vessel;
    const nextEc = strengthAfter.get(stage.id);
    const inY = y(level);
    const outY = y(next ?? level);
    const box = vesselBox(stage.kind, centre, width, inY, outY, wasteLevel(input, stage.id, y), s);
    if (wet)
      line(
        `to-${stage.id}`,
        [
          [from, inY],
          [frame.size === 'thumb' ? frame.left + frame.columnWidth * (i + 1) : box.x + 2, inY],
        ],
        ec,
        i === 0 ? 'left' : 'none',
      );
    // A pump lifts its water: the line climbs through it.
    if (wet && stage.kind === 'pump' && Math.abs(inY - outY) > s.pipe && frame.size !== 'thumb')
      line(
        `through-${stage.id}`,
        [
          [box.x, inY],
          [centre, inY],
          [centre, outY],
          [box.x + box.width, outY],
        ],
        nextEc ?? ec,
      );
    vessels.push({
      stageId: stage.id,
      kind: stage.kind,
      name: stage.name,
      box,
      from: waterColour(inY <= outY ? ec : (nextEc ?? ec)),
      to: waterColour(inY <= outY ? (nextEc ?? ec) : ec),
      fill: input.fill[stage.id] ?? 0,
      dry: !wet || next === undefined,
    });
    if (next === undefined) wet = false;
    from = frame.size === 'thumb' ? frame.left + frame.columnWidth * (i + 1) : box.x + box.width - 2;
    level = next ?? level;
    ec = nextEc ?? ec;
  });
  if (wet)
    line(
      'out',
      [
        [from, y(level)],
        [end, y(level)],
      ],
      ec,
      'right',
    );

  const { waste, trueLevels } = wasteLine(input, vessels, frame, y, s);
  if (waste) pipes.unshift(waste);
  if (frame.size !== 'thumb' && !pressure) pipes.unshift(...branches(input, vessels, y, s));
  const band = pressure ? null : goalBand(input, frame, y, end);
  const probes = frame.size === 'large' && !pressure ? probeMarks(input, frame, x, y, levelAfter) : [];
  const labels = frame.size === 'large' ? largeLabels(input, frame, { vessels, pipes, probes, band, waste }, x, y) : [];
  return { ticks: frame.size !== 'large' ? [] : pressure ? pressureTicks(y, input.pressureUnit) : decadeTicks(y), band, pipes, vessels, probes, labels, trueLevels };
}

/** What the waste's height stands for. */
const wasteHeight = (input: DescentInput): number => (input.height === 'pressure' ? input.waste?.pressureBar : input.waste?.ec25UScm) ?? 0;

function wasteLevel(input: DescentInput, stageId: string, y: (ec: number) => number): number | null {
  if (input.secondWaste?.after === stageId)
    return y(input.height === 'pressure' ? input.secondWaste.pressureBar : input.secondWaste.ec25UScm);
  return input.waste?.after === stageId ? y(wasteHeight(input)) : null;
}

/** A vessel spans the fall of its line; what does not change the water stands centred on it. */
function vesselBox(kind: Stage['kind'], centre: number, width: number, inY: number, outY: number, wasteY: number | null, s: Sizes): Box {
  const x = centre - width / 2;
  const upper = Math.min(inY, outY, wasteY ?? Infinity);
  const lower = Math.max(inY, outY);
  if (kind === 'tank') return { x, y: upper - s.level * 0.62, width, height: lower - upper + s.level * 0.62 + s.pipe * 1.9 };
  if (kind === 'pump') return { x, y: (inY + outY) / 2 - width / 2, width, height: width };
  const spans = lower - upper > s.pipe;
  if (spans && (kind === 'membrane' || kind === 'resin'))
    return { x, y: upper - s.pipe * 1.1, width, height: lower - upper + s.pipe * 2.2 };
  return { x, y: (inY + outY) / 2 - s.level / 2, width, height: s.level };
}

/** The concentrate leaves upwards, for it is saltier; closer than a line's thickness it takes the next lane. */
function wasteLine(
  input: DescentInput,
  vessels: readonly Vessel[],
  frame: Frame,
  y: (ec: number) => number,
  s: Sizes,
): { waste: Pipe | null; trueLevels: { x: number; y: number }[] } {
  const vessel = vessels.find((candidate) => candidate.stageId === input.waste?.after);
  if (!input.waste || !vessel) return { waste: null, trueLevels: [] };
  const level = y(wasteHeight(input));
  const start = frame.size === 'thumb' ? vessel.box.x : vessel.box.x + vessel.box.width - 2;
  const finish = start + frame.columnWidth * (frame.size === 'large' ? 0.62 : 0.8);
  return {
    waste: {
      id: 'waste',
      points: [
        [start, level],
        [finish, level],
      ],
      colour: waterColour(input.waste.ec25UScm),
      width: s.pipe * 0.72,
      open: 'right',
    },
    trueLevels: [],
  };
}

/**
 * Branches around the membrane: concentrate that is led back climbs over the train, dashed, and comes down before its
 * pump; feed led past the membrane runs level and joins the product.
 */
function branches(input: DescentInput, vessels: readonly Vessel[], y: (ec: number) => number, s: Sizes): Pipe[] {
  const boxOf = (id: string): Box | undefined => vessels.find((vessel) => vessel.stageId === id)?.box;
  const pipes: Pipe[] = [];
  if (input.secondWaste) {
    const box = boxOf(input.secondWaste.after);
    const level = y(input.secondWaste.ec25UScm);
    if (box)
      pipes.push({
        id: 'second-waste',
        points: [
          [box.x + box.width - 2, level],
          [box.x + box.width + s.vessel * 1.6, level],
        ],
        colour: waterColour(input.secondWaste.ec25UScm),
        width: s.pipe * 0.72,
        open: 'right',
      });
  }
  if (input.recycle) {
    const [from, to] = [boxOf(input.recycle.from), boxOf(input.recycle.to)];
    const level = y(input.recycle.ec25UScm);
    if (from && to) {
      // A lane of its own above the waste, so that the two are never taken for one.
      const lane = Math.max(s.pipe, level - s.pipe * 2.4);
      const landing = to.x - s.pipe;
      const feedLevel = to.y + to.height / 2;
      pipes.push({
        id: 'recycle',
        points: [
          [from.x + from.width / 2, lane + s.pipe],
          [from.x + from.width / 2, lane],
          [landing, lane],
          [landing, feedLevel],
        ],
        colour: waterColour(input.recycle.ec25UScm),
        width: s.pipe * 0.6,
        open: 'none',
        dashed: true,
      });
    }
  }
  if (input.bypass) {
    const box = boxOf(input.bypass.past);
    const level = y(input.bypass.ec25UScm);
    if (box) {
      const finish = box.x + box.width + s.vessel * 0.9;
      pipes.push({
        id: 'bypass',
        points: [
          [box.x - s.vessel * 0.4, level],
          [finish, level],
          [finish, box.y + box.height - s.pipe],
        ],
        colour: waterColour(input.bypass.ec25UScm),
        width: s.pipe * 0.6,
        open: 'none',
      });
    }
  }
  return pipes;
}

function goalBand(input: DescentInput, frame: Frame, y: (ec: number) => number, end: number): Box | null {
  if (!input.goal) return null;
  const s = SIZES[frame.size];
  const top = input.goal.high === null ? s.top / 2 : y(input.goal.high);
  const bottom = input.goal.low !== null && input.goal.low > 0 ? y(input.goal.low) : frame.height - s.bottom / 2;
  return { x: frame.left, y: top, width: end - frame.left, height: Math.max(2, bottom - top) };
}

/** A few round pressures up the axis, round in the unit they are named in. */
function pressureTicks(y: LevelScale, unit: DescentInput['pressureUnit']): Drawing['ticks'] {
  const barPerUnit = unit === 'psi' ? BAR_PER_PSI : 1;
  return scaleLinear()
    .domain([0, y.high / barPerUnit])
    .ticks(5)
    .map((pressure) => ({ y: y(pressure * barPerUnit), text: `${pressure} ${unit}` }));
}

/** Every decade the axis shows, named. */
function decadeTicks(y: LevelScale): Drawing['ticks'] {
  return [1e5, 1e4, 1e3, 100, 10, 1, 0.1]
    .filter((ec) => ec <= y.high && ec >= y.low)
    .map((ec) => ({ y: y(ec), text: ec >= 10_000 ? `${ec / 1000} mS` : `${ec} µS` }));
}

function probeMarks(
  input: DescentInput,
  frame: Frame,
  x: (column: number) => number,
  y: (ec: number) => number,
  levelAfter: ReadonlyMap<string, number>,
): ProbeMark[] {
  return input.probes.flatMap((probe) => {
    const level = levelAfter.get(probe.after);
    const column = probe.after === 'tap' ? 0 : input.stages.findIndex((stage) => stage.id === probe.after) + 1;
    if (level === undefined || column < 0) return [];
    return [
      {
        id: probe.id,
        x: probe.after === 'tap' ? x(0) + frame.columnWidth * 0.26 : x(column) + frame.columnWidth * 0.5,
        y: y(level),
        baselineY: probe.baseline === null ? null : y(probe.baseline),
        latestY: probe.latest === null ? null : y(probe.latest),
      },
    ];
  });
}
