import { isSamePlace, type Place } from '@yes-clear/core/file';
import { branchColumns, type DescentInput, type Frame, type Pipe, type ProbeMark, type Vessel } from './drawing';

/** Where the rings of the probes stand on what is drawn; see `layout.ts`. */
export interface ProbeGround {
  readonly vessels: readonly Vessel[];
  readonly pipes: readonly Pipe[];
  readonly x: (column: number) => number;
  readonly y: (level: number) => number;
  readonly levelAfter: ReadonlyMap<string, number>;
}

/** A point, and how far what is drawn there is moved from its true level: branches lie in lanes. */
interface Spot {
  readonly x: number;
  readonly y: number;
  readonly laneY: number;
  /** A ring off the line may stand above or below it; on an upright stretch there is no such room. */
  readonly level: boolean;
}

/** Several probes at one place stand side by side. */
const BESIDE_PX = 15;

/** On the train's own line, behind the tap or a stage. */
function onTrain(input: DescentInput, frame: Frame, { x, y, levelAfter }: ProbeGround, place: Place): Spot | null {
  const column = place.after === 'tap' ? 0 : input.stages.findIndex((stage) => stage.id === place.after) + 1;
  const level = levelAfter.get(place.after);
  if (place.side !== 'out' || place.vessel || level === undefined || (column === 0 && place.after !== 'tap')) return null;
  const isEnd = column === input.stages.length && branchColumns(input) === 0;
  const shift = column === 0 ? 0.26 : isEnd ? 0.42 : 0.5;
  return { x: x(column) + frame.columnWidth * shift, y: y(level), laneY: 0, level: true };
}

/** At the foot of one vessel of an array, where its product leaves. */
function atVessel({ vessels, y }: ProbeGround, { after, vessel }: Place, expected: number | null): Spot | null {
  const tubes = vessels.find(({ stageId }) => stageId === after)?.tubes ?? [];
  const tube = vessel && tubes.filter(({ rank }) => rank === vessel.rank)[vessel.vessel];
  if (!tube) return null;
  const foot = tube.box.y + tube.box.height;
  return { x: tube.box.x + tube.box.width / 2, y: expected === null ? foot : Math.min(foot, y(expected)), laneY: 0, level: true };
}

/** In the middle of the longest level stretch of the pipe that lies there, or of its longest at all. */
function onPipe({ pipes, y }: ProbeGround, place: Place, expected: number | null): Spot | null {
  const pipe = pipes.find((one) => one.place && isSamePlace(one.place, place));
  if (!pipe) return null;
  const stretches = pipe.points.slice(1).map(([x2, y2], i) => {
    const [x1, y1] = pipe.points[i]!;
    return { x: (x1 + x2) / 2, y: (y1 + y2) / 2, level: y1 === y2, length: Math.abs(x2 - x1) + Math.abs(y2 - y1) };
  });
  const best = stretches.reduce((most, one) => ((Number(one.level) - Number(most.level) || one.length - most.length) > 0 ? one : most));
  return { x: best.x, y: best.y, laneY: expected === null ? 0 : best.y - y(expected), level: best.level };
}

const spotOf = (input: DescentInput, frame: Frame, ground: ProbeGround, place: Place, expected: number | null): Spot | null =>
  onTrain(input, frame, ground, place) ?? atVessel(ground, place, expected) ?? onPipe(ground, place, expected);

/** The rings of all probes, those at one place side by side. */
export function probeMarks(input: DescentInput, frame: Frame, ground: ProbeGround): ProbeMark[] {
  return input.probes.flatMap((probe, i) => {
    const spot = spotOf(input, frame, ground, probe, probe.expected);
    if (!spot) return [];
    const before = input.probes.slice(0, i).filter((other) => isSamePlace(other, probe)).length;
    const ring = (ec25UScm: number | null): number | null =>
      ec25UScm === null ? null : spot.level ? ground.y(ec25UScm) + spot.laneY : spot.y;
    return [{ id: probe.id, x: spot.x - BESIDE_PX * before, y: spot.y, baselineY: ring(probe.baseline), latestY: ring(probe.latest) }];
  });
}

/** Where the product would be read and no probe stands. */
export function unreadMark(input: DescentInput, frame: Frame, ground: ProbeGround): { readonly x: number; readonly y: number } | null {
  const spot = input.unread ? spotOf(input, frame, ground, input.unread, null) : null;
  return spot && { x: spot.x, y: spot.y };
}
