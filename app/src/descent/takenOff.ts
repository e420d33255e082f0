import { behind } from '@yes-clear/core/file';
import { branchColumns, type BranchEnd, type DescentInput, type Frame, type Pipe, type Vessel } from './drawing';
import type { Sizes } from './sizes';
import { waterColour } from './waterColour';

/** How the picture turns places and waters into points. */
export interface Places {
  readonly x: (column: number) => number;
  readonly y: (level: number) => number;
  readonly levelAfter: ReadonlyMap<string, number>;
  readonly strengthAfter: ReadonlyMap<string, number>;
}

export interface TakenOff {
  readonly pipes: readonly Pipe[];
  readonly vessels: readonly Vessel[];
  readonly ends: readonly BranchEnd[];
}
export const NOTHING_TAKEN: TakenOff = { pipes: [], vessels: [], ends: [] };

/** Height of a vessel on a branch, and the room a lane takes: no line then runs through another branch's vessel. */
const BRANCH_VESSEL = 34;
const LANE = 44;

/**
 * Branches behind the train's last column, each in a lane of its own: beverage waters differ by less than a line is
 * thick. The last to leave runs lowest, under the others; a tick at its end shows the true level.
 */
export function takenOff(input: DescentInput, frame: Frame, { x, y, levelAfter, strengthAfter }: Places, s: Sizes): TakenOff {
  const pipes: Pipe[] = [];
  const vessels: Vessel[] = [];
  const ends: BranchEnd[] = [];
  let column = input.stages.length + 1;
  let lowest = 0;
  // All end at the right, one under the other, like taps over a sink.
  const endX = x(input.stages.length + branchColumns(input)) + frame.columnWidth * 0.46;
  const all = (input.branches ?? []).filter((branch) => levelAfter.has(branch.after));
  all.forEach((branch, lane) => {
    const atColumn = branch.after === 'tap' ? 0 : input.stages.findIndex((stage) => stage.id === branch.after) + 1;
    const offX = x(atColumn) + frame.columnWidth * 0.5 + lane * s.pipe * 1.5;
    let level = levelAfter.get(branch.after)!;
    let ec = strengthAfter.get(branch.after)!;
    // Its highest point keeps clear of the lowest of the branch above it.
    const levels = [level, ...branch.stages.map((stage) => levelAfter.get(stage.id) ?? level)].map(y);
    const down = lane === 0 ? 0 : Math.max(lane * LANE, lowest + LANE - Math.min(...levels));
    lowest = Math.max(...levels) + down;
    const laneY = (at: number): number => y(at) + down;
    let points: (readonly [number, number])[] =
      down > 0
        ? [
            [offX, y(level)],
            [offX, laneY(level)],
          ]
        : [[offX, laneY(level)]];
    let after = branch.after;
    branch.stages.forEach((stage) => {
      const next = levelAfter.get(stage.id) ?? level;
      const nextEc = strengthAfter.get(stage.id) ?? ec;
      const centre = x(column);
      const [inY, outY] = [laneY(level), laneY(next)];
      const box = {
        x: centre - s.vessel / 2,
        y: Math.min(inY, outY) - BRANCH_VESSEL / 2,
        width: s.vessel,
        height: Math.abs(outY - inY) + BRANCH_VESSEL,
      };
      pipes.push({
        id: `to-${stage.id}`,
        place: behind(after),
        points: [...points, [box.x + 2, inY]],
        colour: waterColour(ec),
        width: s.pipe * 0.8,
        open: 'none',
      });
      vessels.push({
        stageId: stage.id,
        kind: stage.kind,
        name: stage.name,
        box,
        from: waterColour(Math.max(ec, nextEc)),
        to: waterColour(Math.min(ec, nextEc)),
        fill: input.fill[stage.id] ?? 0,
        dyed: stage.dyed === true,
        dry: false,
      });
      after = stage.id;
      [level, ec] = [next, nextEc];
      points = [[box.x + box.width - 2, outY]];
      column += 1;
    });
    const empty = branch.stages.length === 0;
    pipes.push({
      id: `out-${branch.id}`,
      place: behind(after),
      points: [...points, [endX, laneY(level)]],
      colour: waterColour(ec),
      width: s.pipe * 0.8,
      open: 'right',
    });
    ends.push({ id: branch.id, x: endX, laneY: laneY(level), trueY: y(level), texts: branch.texts });
    if (empty) column += 1;
  });
  // The lowest lane is drawn first, so that those above lie over it where they leave.
  return { pipes: pipes.reverse(), vessels, ends };
}
