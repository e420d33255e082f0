import type { Frame, Pipe, Ranks, Tube } from './drawing';
import type { Box } from './labels';
import type { Sizes } from './sizes';

/** More vessels than this in a rank are not told apart at this size. */
const MOST_DRAWN = 3;
/** Room between two vessels of a rank, and between two ranks. */
const GAP = { vessel: 3, rank: 9 } as const;
/** A tube is not drawn wider than this, nor thinner. */
const TUBE = { most: 22, least: 8 } as const;
/** Share of a column the tubes may take: the words beside them need the rest. */
const COLUMN_SHARE = 0.64;

const drawnOf = (ranks: Ranks): number[] => ranks.map((rank) => Math.min(MOST_DRAWN, rank.vessels));
const isOne = (ranks: Ranks): boolean => ranks.length <= 1 && (ranks[0]?.vessels ?? 1) === 1;

/** Width of all tubes of a stage side by side. */
export function tubesWidth(ranks: Ranks, columnWidth: number, single: number): number {
  if (isOne(ranks)) return single;
  const { width, gaps, count } = measures(ranks, columnWidth);
  return count * width + gaps;
}

function measures(ranks: Ranks, columnWidth: number): { readonly width: number; readonly gaps: number; readonly count: number } {
  const drawn = drawnOf(ranks);
  const count = drawn.reduce((sum, n) => sum + n, 0);
  const gaps = drawn.reduce((sum, n) => sum + (n - 1) * GAP.vessel, 0) + (ranks.length - 1) * GAP.rank;
  const width = Math.max(TUBE.least, Math.min(TUBE.most, (COLUMN_SHARE * columnWidth - gaps) / count));
  return { width, gaps, count };
}

/**
 * The tubes of a stage within its box. The top of each rank stands a step nearer the waste than the one before, for it
 * is fed what that one left.
 *
 * @param feedY level of the feed
 * @param wasteY level of the waste; the feed's where none is known
 */
export function tubesOf(ranks: Ranks, box: Box, frame: Frame, feedY: number, wasteY: number): readonly Tube[] {
  const drawn = drawnOf(ranks);
  const single = isOne(ranks);
  const width = single ? box.width : measures(ranks, frame.columnWidth).width;
  const bottom = box.y + box.height;
  let x = box.x;
  return ranks.flatMap((rank, r) => {
    // What the last rank leaves is the waste; those before stand evenly between it and the feed.
    const leaves = feedY + ((wasteY - feedY) * (r + 1)) / ranks.length;
    const top = single ? box.y : Math.min(leaves, feedY) - (Math.min(feedY, wasteY) - box.y);
    return Array.from({ length: drawn[r]! }, (_, v): Tube => {
      const at = x;
      x += width + (v === drawn[r]! - 1 ? GAP.rank : GAP.vessel);
      const joints = Array.from(
        { length: rank.elementsPerVessel - 1 },
        (__, e) => top + ((bottom - top) * (e + 1)) / rank.elementsPerVessel,
      );
      return { box: { x: at, y: top, width, height: bottom - top }, rank: r, leavesY: leaves, joints };
    });
  });
}

/**
 * Lines between the tubes, drawn behind them: feed to every vessel of the first rank, what a rank leaves to the next,
 * product from all.
 */
export function manifolds(
  stageId: string,
  tubes: readonly Tube[],
  levels: { readonly feedY: number; readonly productY: number | null },
  colours: { readonly feed: string; readonly waste: string; readonly product: string },
  s: Sizes,
): Pipe[] {
  if (tubes.length < 2) return [];
  const middle = ({ box }: Tube): number => box.x + box.width / 2;
  const inRank = (rank: number): readonly Tube[] => tubes.filter((tube) => tube.rank === rank);
  const level = (id: string, from: number, to: number, y: number, colour: string): Pipe[] =>
    to > from
      ? [
          {
            id: `${id}-${stageId}`,
            points: [
              [from, y],
              [to, y],
            ],
            colour,
            width: s.pipe * 0.72,
            open: 'none',
          },
        ]
      : [];
  const first = inRank(0);
  const last = tubes[tubes.length - 1]!;
  const ranks = last.rank + 1;
  return [
    ...level('feed', middle(first[0]!), middle(first[first.length - 1]!), levels.feedY, colours.feed),
    ...Array.from({ length: ranks - 1 }, (_, r) => {
      const [before, next] = [inRank(r), inRank(r + 1)];
      return level(`rank-${r}`, middle(before[0]!), middle(next[next.length - 1]!), before[0]!.leavesY, colours.waste);
    }).flat(),
    ...level('waste-of', middle(inRank(ranks - 1)[0]!), middle(last), last.leavesY, colours.waste),
    ...(levels.productY === null ? [] : level('product', middle(tubes[0]!), middle(last), levels.productY, colours.product)),
  ];
}
