import { behind } from '@yes-clear/core/file';
import type { Form } from '@yes-clear/core/stage';
import { branchColumns, type DescentInput, type Drawing, type Frame, type Pipe, type Vessel } from './drawing';
import type { Box } from './labels';
import { levelScale, pressureScale, pressureTicks, strengthTicks, type LevelScale } from './levels';
import { probeMarks, unreadMark } from './probeMarks';
import { branches, loopLine, wasteLevel, wasteLine, wasteStrength } from './returns';
import { SIZES, type Sizes } from './sizes';
import { NOTHING_TAKEN, takenOff, type TakenOff } from './takenOff';
import { manifolds, tubesOf, tubesWidth } from './tubes';
import { valveMarks } from './valves';
import { waterColour } from './waterColour';
import { largeLabels } from './words';

/** Draws the train: lines first, vessels over them, words last. Pure: the same input gives the same picture. */
export function drawDescent(input: DescentInput, frame: Frame): Drawing {
  const s = SIZES[frame.size];
  const pressure = input.height === 'pressure';
  /** What a station's height stands for. */
  const heightOf = (station: DescentInput['stations'][number]): number => (pressure ? (station.pressureBar ?? 0) : station.state.ec25UScm);
  const x = (column: number): number => frame.left + frame.columnWidth * (column + 0.5);
  const levelAfter = new Map(input.stations.map((station) => [station.after, heightOf(station)]));
  const strengthAfter = new Map(input.stations.map((station) => [station.after, station.state.ec25UScm]));
  const end = frame.left + frame.columnWidth * (input.stages.length + 1);
  const branchesOn = (scale: LevelScale): TakenOff =>
    frame.size === 'large' ? takenOff(input, frame, { x, y: scale, levelAfter, strengthAfter }, s) : NOTHING_TAKEN;
  const y = scaleAbove(frame, (footPx) => (pressure ? pressureScale(input, frame, footPx) : levelScale(input, frame, footPx)), branchesOn);

  const vessels: Vessel[] = [];
  const pipes: Pipe[] = [];
  let level = levelAfter.get('tap') ?? 1;
  let ec = strengthAfter.get('tap') ?? 1;
  let from = frame.size === 'thumb' ? frame.left : x(0) - frame.columnWidth * 0.36;
  let wet = levelAfter.has('tap');
  let place = behind('tap');
  const line = (id: string, points: Pipe['points'], strength: number, open: Pipe['open'] = 'none'): void => {
    pipes.push({ id, points, colour: waterColour(strength), width: s.pipe, open, place });
  };

  input.stages.forEach((stage, i) => {
    const centre = x(i + 1);
    const next = levelAfter.get(stage.id);
    const ranks = frame.size === 'large' && stage.kind === 'membrane' ? (input.ranks?.[stage.id] ?? []) : [];
    const width = ranks.length > 0 ? tubesWidth(ranks, frame.columnWidth, s.wide) : vesselWidth(stage.form, s);
    const nextEc = strengthAfter.get(stage.id);
    const inY = y(level);
    const outY = y(next ?? level);
    const wasteY = wasteLevel(input, stage.id, y);
    const box = vesselBox(stage.form, centre, width, inY, outY, wasteY, s);
    const tubes = tubesOf(ranks, box, frame, inY, wasteY ?? inY);
    if (wet)
      pipes.push(
        ...manifolds(
          stage.id,
          tubes,
          { feedY: inY, productY: next === undefined ? null : outY },
          { feed: waterColour(ec), waste: waterColour(wasteStrength(input, stage.id) ?? ec), product: waterColour(nextEc ?? ec) },
          s,
        ),
      );
    // What a membrane is fed with its recycle mixed in is another water than what comes to the mixture.
    if (input.recycle?.from === stage.id) place = { after: stage.id, side: 'feed', vessel: null };
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
    place = behind(stage.id);
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
      dyed: stage.dyed === true,
      dry: !wet || next === undefined,
      ...(tubes.length > 1 || (tubes[0]?.joints.length ?? 0) > 0 ? { tubes } : {}),
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

  const taken = branchesOn(y);
  vessels.push(...taken.vessels);
  pipes.unshift(...taken.pipes);

  const waste = wasteLine(input, vessels, frame, y, s);
  if (waste) pipes.unshift(waste);
  if (frame.size !== 'thumb' && !pressure) pipes.unshift(...branches(input, vessels, y, s));
  const back = wet && frame.size !== 'thumb' && !pressure ? loopLine(input, vessels, frame, end, y(level), s) : null;
  if (back) pipes.unshift(back);
  const band = pressure ? null : goalBand(input, frame, y, end + (frame.size === 'large' ? branchColumns(input) * frame.columnWidth : 0));
  const ground = { vessels, pipes, x, y, levelAfter };
  const read = frame.size === 'large' && !pressure;
  const probes = read ? probeMarks(input, frame, ground) : [];
  const unread = read ? unreadMark(input, frame, ground) : null;
  const valves = frame.size === 'large' ? valveMarks(input, vessels, pipes) : [];
  const labels =
    frame.size === 'large'
      ? largeLabels(input, frame, { vessels, pipes, probes, unread, band, waste, ends: taken.ends, valves }, x, y)
      : [];
  return {
    ticks: frame.size !== 'large' ? [] : pressure ? pressureTicks(y, input.pressureUnit) : strengthTicks(y),
    band,
    pipes,
    vessels,
    probes,
    unread,
    ends: taken.ends,
    valves,
    labels,
  };
}

/** Room kept under the lowest branch, px. */
const UNDER_BRANCH = 20;

/** The scale that leaves branches room below: each lies in a lane under the last, however high it leaves. */
function scaleAbove(frame: Frame, scale: (footPx: number) => LevelScale, branchesOn: (y: LevelScale) => TakenOff): LevelScale {
  let footPx = 0;
  for (let round = 0; round < 4; round++) {
    const over = Math.max(0, ...branchesOn(scale(footPx)).ends.map((branch) => branch.laneY)) + UNDER_BRANCH - frame.height;
    if (over <= 0) break;
    footPx += over;
  }
  return scale(footPx);
}

/** Width of what is drawn as one vessel. */
function vesselWidth(form: Form, s: Sizes): number {
  if (form === 'vessel') return s.wide;
  return form === 'tank' ? s.wide * 1.25 : s.vessel;
}

/** A vessel spans the fall of its line; what does not change the water stands centred on it. */
function vesselBox(form: Form, centre: number, width: number, inY: number, outY: number, wasteY: number | null, s: Sizes): Box {
  const x = centre - width / 2;
  const upper = Math.min(inY, outY, wasteY ?? Infinity);
  const lower = Math.max(inY, outY);
  if (form === 'tank') return { x, y: upper - s.level * 0.62, width, height: lower - upper + s.level * 0.62 + s.pipe * 1.9 };
  if (form === 'machine') return { x, y: (inY + outY) / 2 - width / 2, width, height: width };
  if (form === 'vessel' && lower - upper > s.pipe) return { x, y: upper - s.pipe * 1.1, width, height: lower - upper + s.pipe * 2.2 };
  return { x, y: (inY + outY) / 2 - s.level / 2, width, height: s.level };
}

function goalBand(input: DescentInput, frame: Frame, y: (ec: number) => number, end: number): Box | null {
  if (!input.goal) return null;
  const s = SIZES[frame.size];
  const top = input.goal.high === null ? s.top / 2 : y(input.goal.high);
  const bottom = input.goal.low !== null && input.goal.low > 0 ? y(input.goal.low) : frame.height - s.bottom / 2;
  return { x: frame.left, y: top, width: end - frame.left, height: Math.max(2, bottom - top) };
}
