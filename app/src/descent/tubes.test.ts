import { describe, expect, it } from 'vitest';
import type { Frame, Ranks } from './drawing';
import { SIZES } from './sizes';
import { manifolds, tubesOf, tubesWidth } from './tubes';

const frame: Frame = { size: 'large', width: 900, height: 338, left: 116, columnWidth: 96 };
const [FEED, WASTE] = [120, 90];
const rank = (vessels: number, elementsPerVessel = 1): Ranks[number] => ({ vessels, elementsPerVessel });
const boxOf = (ranks: Ranks) => ({ x: 300, y: 80, width: tubesWidth(ranks, frame.columnWidth, 38), height: 160 });
const drawn = (ranks: Ranks) => tubesOf(ranks, boxOf(ranks), frame, FEED, WASTE);

describe('the vessels of a membrane stage', () => {
  it('one vessel is as wide as it always was, with a joint between its elements', () => {
    const [tube, ...others] = drawn([rank(1, 3)]);
    expect(others).toEqual([]);
    expect(tube!.box.width).toBe(38);
    expect(tube!.joints).toHaveLength(2);
    expect(tube!.joints[1]! - tube!.joints[0]!).toBeCloseTo(160 / 3, 9);
  });
  it('stand side by side within their box, rank after rank, none over another', () => {
    const ranks = [rank(3), rank(2, 2)];
    const tubes = drawn(ranks);
    const box = boxOf(ranks);
    expect(tubes.map((tube) => tube.rank)).toEqual([0, 0, 0, 1, 1]);
    tubes.slice(1).forEach((tube, i) => expect(tube.box.x).toBeGreaterThan(tubes[i]!.box.x + tubes[i]!.box.width));
    expect(tubes.at(-1)!.box.x + tubes.at(-1)!.box.width).toBeCloseTo(box.x + box.width, 9);
    expect(tubes.map((tube) => tube.joints.length)).toEqual([0, 0, 0, 1, 1]);
  });
  it('each rank leaves saltier water than the one before, the last one the waste', () => {
    const tubes = drawn([rank(2), rank(1), rank(1)]);
    expect(tubes.map((tube) => tube.leavesY)).toEqual([110, 110, 100, 90]);
    expect(tubes[3]!.box.y).toBeLessThan(tubes[0]!.box.y);
  });
  it('more than three in a rank are not told apart', () => expect(drawn([rank(9)])).toHaveLength(3));
  it('lines feed the first rank, lead each rank’s waste to the next, and gather the product', () => {
    const tubes = drawn([rank(2), rank(2)]);
    const lines = manifolds('m', tubes, { feedY: FEED, productY: 220 }, { feed: '#a', waste: '#b', product: '#c' }, SIZES.large);
    expect(lines.map(({ id }) => id)).toEqual(['feed-m', 'rank-0-m', 'waste-of-m', 'product-m']);
    expect(lines[1]!.points[1]![0]).toBeGreaterThan(tubes[2]!.box.x);
    expect(
      manifolds('m', drawn([rank(1)]), { feedY: FEED, productY: 220 }, { feed: '#a', waste: '#b', product: '#c' }, SIZES.large),
    ).toEqual([]);
  });
});
