import type { BranchEnd, DescentInput, Frame, Pipe, ProbeMark, ValveMark, Vessel } from './drawing';
import { placeLabels, type Box, type LabelWish, type PlacedLabel } from './labels';
import { VALVE_PX } from './valves';

/** What is drawn already, and must not be covered. */
export interface Drawn {
  readonly vessels: readonly Vessel[];
  readonly pipes: readonly Pipe[];
  readonly probes: readonly ProbeMark[];
  readonly unread: { readonly x: number; readonly y: number } | null;
  readonly band: Box | null;
  readonly waste: Pipe | null;
  readonly ends: readonly BranchEnd[];
  readonly valves: readonly ValveMark[];
}

/** A use whose lane lies this far under its true level has a tick there. */
export const TICK_PX = 4;

/** Room a line takes, as obstacles for words. */
export function pipeBoxes(pipe: Pipe, clear = 2): Box[] {
  return pipe.points.slice(1).map(([x2, y2], i) => {
    const [x1, y1] = pipe.points[i]!;
    const half = pipe.width / 2 + clear;
    return { x: Math.min(x1, x2), y: Math.min(y1, y2) - half, width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) + 2 * half };
  });
}

/** Where the longest level stretch of a line starts: its words belong there. */
function longestRun(points: readonly (readonly [number, number])[]): number {
  const length = (i: number): number => (points[i]![1] === points[i + 1]![1] ? Math.abs(points[i + 1]![0] - points[i]![0]) : -1);
  return points.slice(0, -1).reduce((best, _, i) => (length(i) > length(best) ? i : best), 0);
}

/** The words of the large picture, most important first. */
export function largeLabels(
  input: DescentInput,
  frame: Frame,
  drawn: Drawn,
  x: (column: number) => number,
  y: (level: number) => number,
): PlacedLabel[] {
  const obstacles: Box[] = [
    ...drawn.vessels.map((vessel) => vessel.box),
    ...drawn.pipes.flatMap((pipe) => pipeBoxes(pipe)),
    ...drawn.probes.flatMap((probe) =>
      [probe.y, probe.baselineY, probe.latestY]
        .filter((at): at is number => at !== null)
        .map((at) => ({ x: probe.x - 8, y: at - 8, width: 16, height: 16 })),
    ),
    ...drawn.valves.map(({ x: left, y: top }) => ({ x: left - VALVE_PX, y: top - VALVE_PX, width: 2 * VALVE_PX, height: 2 * VALVE_PX })),
  ];
  const tapStation = input.stations[0];
  const tapY = y((input.height === 'pressure' ? tapStation?.pressureBar : tapStation?.state.ec25UScm) ?? 1);
  const taken = new Set((input.branches ?? []).flatMap((branch) => branch.stages.map((stage) => stage.id)));
  const names: LabelWish[] = drawn.vessels.map((vessel) => {
    const middle = vessel.box.x + vessel.box.width / 2;
    const above = { x: middle, y: vessel.box.y - 8, anchor: 'middle' as const };
    const aboveRight = { x: vessel.box.x - 2, y: above.y, anchor: 'start' as const };
    const below = { x: middle, y: vessel.box.y + vessel.box.height + 17, anchor: 'middle' as const };
    const short = vessel.name.length > 12 ? `${vessel.name.slice(0, 10)}…` : vessel.name;
    const belowLeft = { x: vessel.box.x + vessel.box.width, y: below.y, anchor: 'end' as const };
    const besideLeft = { x: vessel.box.x - 7, y: vessel.box.y + vessel.box.height / 2 + 4.5, anchor: 'end' as const };
    const beside = { x: vessel.box.x + vessel.box.width + 7, y: vessel.box.y + vessel.box.height / 2 + 4.5, anchor: 'start' as const };
    const spots =
      vessel.kind === 'membrane'
        ? [below, belowLeft, above]
        : taken.has(vessel.stageId)
          ? [below, { ...belowLeft, x: middle - 2 }, aboveRight, above]
          : [above, below];
    return {
      id: `name-${vessel.stageId}`,
      texts: [vessel.name, short],
      size: 13.4,
      bold: true,
      look: 'name',
      spots: [
        ...spots,
        aboveRight,
        { x: vessel.box.x + vessel.box.width + 2, y: above.y, anchor: 'end' as const },
        { x: vessel.box.x - 2, y: below.y, anchor: 'start' as const },
        belowLeft,
        { ...above, y: above.y - 20 },
        { ...below, y: below.y + 20 },
        ...(vessel.kind === 'pump' ? [beside, besideLeft, { ...besideLeft, y: vessel.box.y - 6 }] : []),
      ],
    };
  });
  const notes: LabelWish[] = drawn.vessels.flatMap((vessel) => {
    const note = input.notes?.[vessel.stageId];
    if (!note) return [];
    const { x: left, y: top, width, height } = vessel.box;
    const middle = { x: left + width / 2, anchor: 'middle' as const };
    const spots = [
      { ...middle, y: top + height + 17 },
      { ...middle, y: top + height + 33 },
      { x: left - 4, y: top + height + 33, anchor: 'start' as const },
      { x: left - 4, y: top + height + 49, anchor: 'start' as const },
      { ...middle, y: top - 8 },
      { ...middle, y: top - 24 },
      { x: left + width + 7, y: top + height / 2 + 4.5, anchor: 'start' as const },
      { x: left - 7, y: top + height / 2 + 4.5, anchor: 'end' as const },
      { x: left - 7, y: top + height + 12, anchor: 'end' as const },
      { x: left - 7, y: top + height / 2 - 14, anchor: 'end' as const },
    ];
    return [{ id: `note-${vessel.stageId}`, texts: [note], size: 13, bold: false, look: 'figure', spots }];
  });
  const tap: LabelWish = {
    id: 'tap',
    texts: input.tapTexts,
    size: 13.4,
    bold: true,
    look: 'name',
    spots: [
      { x: x(0) - frame.columnWidth * 0.1, y: tapY - 14, anchor: 'middle' },
      { x: frame.left + 2, y: tapY - 14, anchor: 'start' },
      { x: x(0) - frame.columnWidth * 0.1, y: tapY + 24, anchor: 'middle' },
    ],
  };
  const unread: LabelWish[] = drawn.unread
    ? [
        {
          id: 'unread',
          texts: ['no probe'],
          size: 13,
          bold: false,
          look: 'quiet',
          spots: [
            { x: drawn.unread.x, y: drawn.unread.y + 24, anchor: 'middle' },
            { x: drawn.unread.x, y: drawn.unread.y - 13, anchor: 'middle' },
          ],
        },
      ]
    : [];
  const probes: LabelWish[] = input.probes.flatMap((probe) => {
    const mark = drawn.probes.find((candidate) => candidate.id === probe.id);
    if (!mark) return [];
    const lowest = Math.max(mark.y, mark.latestY ?? mark.y, mark.baselineY ?? mark.y);
    const highest = Math.min(mark.y, mark.latestY ?? mark.y, mark.baselineY ?? mark.y);
    return [
      {
        id: `probe-${probe.id}`,
        texts: probe.texts,
        size: 13,
        bold: false,
        look: 'figure' as const,
        spots: [
          { x: mark.x, y: lowest + 24, anchor: 'middle' as const },
          { x: mark.x, y: highest - 14, anchor: 'middle' as const },
          { x: mark.x + 12, y: lowest + 24, anchor: 'start' as const },
          { x: mark.x - 12, y: lowest + 24, anchor: 'end' as const },
          { x: mark.x, y: lowest + 40, anchor: 'middle' as const },
          { x: mark.x, y: highest - 30, anchor: 'middle' as const },
          // Between close vessels: clear of them and of their names.
          { x: mark.x, y: highest - 48, anchor: 'middle' as const },
          { x: mark.x, y: highest - 64, anchor: 'middle' as const },
          { x: mark.x, y: lowest + 58, anchor: 'middle' as const },
        ],
      },
    ];
  });
  const waste: LabelWish[] =
    drawn.waste && input.waste
      ? [
          {
            id: 'waste',
            texts: input.waste.texts,
            size: 13,
            bold: false,
            look: 'quiet',
            spots: [
              { x: drawn.waste.points[1]![0] + 7, y: drawn.waste.points[1]![1] + 4.5, anchor: 'start' },
              { x: drawn.waste.points[0]![0] + 4, y: drawn.waste.points[0]![1] - 12, anchor: 'start' },
              { x: drawn.waste.points[0]![0] + 4, y: drawn.waste.points[0]![1] - 30, anchor: 'start' },
            ],
          },
        ]
      : [];
  const branchLabel = (id: string, texts: readonly string[] | undefined): LabelWish[] => {
    const pipe = drawn.pipes.find((candidate) => candidate.id === id);
    if (!pipe || !texts) return [];
    const run = longestRun(pipe.points);
    const [ax, ay] = pipe.points[run]!;
    const [bx] = pipe.points[run + 1]!;
    const middle = (ax + bx) / 2;
    // A line that goes on downwards has room beside it.
    const [dx, dy] = pipe.points[2] ?? [bx, ay];
    const beside = { x: dx + 9, y: (ay + dy) / 2, anchor: 'start' as const };
    return [
      {
        id,
        texts,
        size: 13,
        bold: false,
        look: 'quiet',
        spots: [
          { x: Math.min(ax, bx), y: ay - 10, anchor: 'start' },
          { x: middle, y: ay - 10, anchor: 'middle' },
          { x: Math.min(ax, bx) - 8, y: ay + 4, anchor: 'end' },
          { x: middle, y: ay + 20, anchor: 'middle' },
          beside,
        ],
      },
    ];
  };
  const around = [
    ...branchLabel('recycle', input.recycle?.texts),
    ...branchLabel('bypass', input.bypass?.texts),
    ...branchLabel('second-waste', input.secondWaste?.texts),
    ...branchLabel('loop', input.loop?.texts),
  ];
  // Left of the ticks that show where a use truly stands.
  const clear = drawn.ends.some((end) => end.laneY - end.trueY > TICK_PX) ? 12 + 15 * (drawn.ends.length - 1) : 0;
  const ends: LabelWish[] = drawn.ends.map((end) => ({
    id: `end-${end.id}`,
    texts: end.texts,
    size: 13.2,
    bold: true,
    look: 'name',
    spots: [
      { x: end.x - clear, y: end.laneY - 11, anchor: 'end' },
      { x: end.x - clear, y: end.laneY + 18, anchor: 'end' },
      { x: end.x - clear - 40, y: end.laneY - 11, anchor: 'end' },
    ],
  }));
  const goal: LabelWish[] =
    drawn.band && input.goal
      ? [
          {
            id: 'goal',
            texts: input.goal.texts,
            size: 13,
            bold: true,
            look: 'goal',
            spots: [
              { x: frame.left + 8, y: drawn.band.y + drawn.band.height - 8, anchor: 'start' },
              { x: frame.left + 8, y: drawn.band.y + 16, anchor: 'start' },
              { x: frame.left + 8, y: drawn.band.y - 6, anchor: 'start' },
            ],
          },
        ]
      : [];
  const valves = drawn.valves.map(({ id, text, x: at, y: level }): LabelWish => ({
    id: `valve-${id}`,
    texts: [text],
    size: 13,
    bold: true,
    look: 'valve',
    spots: [
      { x: at, y: level + VALVE_PX + 15, anchor: 'middle' },
      { x: at, y: level - VALVE_PX - 6, anchor: 'middle' },
      { x: at + VALVE_PX, y: level + VALVE_PX + 15, anchor: 'end' },
      { x: at - VALVE_PX, y: level + VALVE_PX + 15, anchor: 'start' },
      { x: at, y: level + VALVE_PX + 31, anchor: 'middle' },
      { x: at, y: level - VALVE_PX - 22, anchor: 'middle' },
    ],
  }));
  return placeLabels([tap, ...probes, ...unread, ...valves, ...ends, ...names, ...around, ...notes, ...waste, ...goal], obstacles, {
    x: frame.left - 4,
    y: 2,
    width: frame.width - frame.left + 4,
    height: frame.height - 4,
  });
}
