import type { Place } from '@yes-clear/core/file';
import type { DescentInput, Frame, Pipe, Vessel } from './drawing';
import type { Box } from './labels';
import type { Sizes } from './sizes';
import { waterColour } from './waterColour';

/** Lines that leave the train or come back to it: waste, recycle, bypass, loop. */

const wasteOf = (after: string): Place => ({ after, side: 'waste', vessel: null });

/** What the waste's height stands for. */
const wasteHeight = (input: DescentInput): number => (input.height === 'pressure' ? input.waste?.pressureBar : input.waste?.ec25UScm) ?? 0;

/** Strength of what a membrane stage sends to waste; null where it sends none. */
export function wasteStrength(input: DescentInput, stageId: string): number | null {
  if (input.secondWaste?.after === stageId) return input.secondWaste.ec25UScm;
  return input.waste?.after === stageId ? input.waste.ec25UScm : null;
}

export function wasteLevel(input: DescentInput, stageId: string, y: (ec: number) => number): number | null {
  if (input.secondWaste?.after === stageId)
    return y(input.height === 'pressure' ? input.secondWaste.pressureBar : input.secondWaste.ec25UScm);
  return input.waste?.after === stageId ? y(wasteHeight(input)) : null;
}

/** The concentrate leaves upwards, for it is saltier. */
export function wasteLine(input: DescentInput, vessels: readonly Vessel[], frame: Frame, y: (ec: number) => number, s: Sizes): Pipe | null {
  const vessel = vessels.find((candidate) => candidate.stageId === input.waste?.after);
  if (!input.waste || !vessel) return null;
  const level = y(wasteHeight(input));
  const start = frame.size === 'thumb' ? vessel.box.x : vessel.box.x + vessel.box.width - 2;
  const finish = start + frame.columnWidth * (frame.size === 'large' ? 0.62 : 0.8);
  return {
    id: 'waste',
    place: wasteOf(input.waste.after),
    points: [
      [start, level],
      [finish, level],
    ],
    colour: waterColour(input.waste.ec25UScm),
    width: s.pipe * 0.72,
    open: 'right',
  };
}

/**
 * Branches around the membrane: concentrate that is led back climbs over the train, dashed, and comes down before its
 * pump; water led past the membrane runs level, or under what it leaves out, and joins the product.
 */
export function branches(input: DescentInput, vessels: readonly Vessel[], y: (ec: number) => number, s: Sizes): Pipe[] {
  const boxOf = (id: string): Box | undefined => vessels.find((vessel) => vessel.stageId === id)?.box;
  const pipes: Pipe[] = [];
  if (input.secondWaste) pipes.push(...secondWasteLine(input.secondWaste, boxOf, y, s));
  if (input.recycle) {
    const [from, to] = [boxOf(input.recycle.from), boxOf(input.recycle.to)];
    const level = y(input.recycle.ec25UScm);
    if (from && to) {
      // A lane of its own above the waste, so that the two are never taken for one.
      const lane = Math.max(s.pipe, level - s.pipe * 2.4);
      const landing = to.x - s.pipe;
      // It leaves the last vessel, where the waste does.
      const leaving = from.x + from.width - Math.min(from.width, s.wide) / 2;
      const feedLevel = to.y + to.height / 2;
      pipes.push({
        id: 'recycle',
        place: wasteOf(input.recycle.from),
        points: [
          [leaving, lane + s.pipe],
          [leaving, lane],
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
    const { past, from, ec25UScm } = input.bypass;
    const box = boxOf(past);
    const level = y(ec25UScm);
    if (box) {
      const finish = box.x + box.width + s.vessel * 0.9;
      const start = from === null ? null : boxOf(from);
      const end: [number, number][] = [[finish, box.y + box.height - s.pipe]];
      if (start) {
        // Under what it leaves out and its names, so that nobody takes it for the line itself.
        const left = start.x + start.width + s.vessel * 0.3;
        const between = vessels.filter(({ box: { x } }) => x > start.x && x < box.x).map((vessel) => vessel.box.y + vessel.box.height);
        const lane = Math.max(level, ...between) + s.vessel * 1.1;
        end.unshift([left, level], [left, lane], [finish, lane]);
      } else end.unshift([box.x - s.vessel * 0.4, level], [finish, level]);
      pipes.push({ id: 'bypass', points: end, colour: waterColour(ec25UScm), width: s.pipe * 0.6, open: 'none' });
    }
  }
  return pipes;
}

/** Waste of a second pass: out to the right, or dashed over the tops back to the pump of the first. */
function secondWasteLine(
  { after, to, ec25UScm }: NonNullable<DescentInput['secondWaste']>,
  boxOf: (id: string) => Box | undefined,
  y: (ec: number) => number,
  s: Sizes,
): Pipe[] {
  const box = boxOf(after);
  const target = to === null ? undefined : boxOf(to);
  if (!box) return [];
  const level = y(ec25UScm);
  const common = { id: 'second-waste', colour: waterColour(ec25UScm), place: wasteOf(after) };
  if (!target) {
    const start = box.x + box.width - 2;
    return [
      {
        ...common,
        points: [
          [start, level],
          [box.x + box.width + s.vessel * 1.6, level],
        ],
        width: s.pipe * 0.72,
        open: 'right',
      },
    ];
  }
  const leaving = box.x + box.width - Math.min(box.width, s.wide) / 2;
  const landing = target.x - s.pipe * 2.6;
  const top = s.pipe;
  return [
    {
      ...common,
      points: [
        [leaving, box.y + s.pipe],
        [leaving, top],
        [landing, top],
        [landing, target.y + target.height / 2],
      ],
      width: s.pipe * 0.6,
      open: 'none',
      dashed: true,
    },
  ];
}

/** A loop comes back along the bottom, dashed, and up into its tank. */
export function loopLine(input: DescentInput, vessels: readonly Vessel[], frame: Frame, end: number, endY: number, s: Sizes): Pipe | null {
  const tank = vessels.find((vessel) => vessel.stageId === input.loop?.to)?.box;
  if (!input.loop || !tank) return null;
  const bottom = Math.max(endY + s.pipe * 2, frame.height - s.pipe * 1.4);
  const out = end - s.pipe * 1.6;
  const up = tank.x + tank.width / 2;
  return {
    id: 'loop',
    place: { after: input.loop.to, side: 'return', vessel: null },
    points: [
      [out, endY],
      [out, bottom],
      [up, bottom],
      [up, tank.y + tank.height],
    ],
    colour: waterColour(input.loop.ec25UScm),
    width: s.pipe * 0.6,
    open: 'none',
    dashed: true,
  };
}
