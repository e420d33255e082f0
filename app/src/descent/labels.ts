/** Placing words so that they never cover each other, a line or a vessel. */

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export type Anchor = 'start' | 'middle' | 'end';

/** Words to place: the spots they may stand at, best first, and shorter versions for when none is free. */
export interface LabelWish {
  readonly id: string;
  /** Longest text first. */
  readonly texts: readonly string[];
  readonly size: number;
  readonly bold: boolean;
  readonly look: 'name' | 'figure' | 'quiet' | 'goal' | 'valve';
  /** Baseline spots. */
  readonly spots: readonly { readonly x: number; readonly y: number; readonly anchor: Anchor }[];
}

export interface PlacedLabel {
  readonly id: string;
  readonly text: string;
  readonly size: number;
  readonly bold: boolean;
  readonly look: LabelWish['look'];
  readonly x: number;
  readonly y: number;
  readonly anchor: Anchor;
}

/** Width a text will take, near enough: the face's average advance. */
export function textWidth(text: string, size: number, bold: boolean): number {
  return text.length * size * (bold ? 0.555 : 0.525);
}

export function overlaps(a: Box, b: Box): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

/** Half of what two words keep between them, px. */
const APART = 4;

function boxOf(text: string, wish: LabelWish, spot: LabelWish['spots'][number]): Box {
  const width = textWidth(text, wish.size, wish.bold);
  const x = spot.anchor === 'start' ? spot.x : spot.anchor === 'end' ? spot.x - width : spot.x - width / 2;
  return { x: x - APART, y: spot.y - wish.size * 0.86, width: width + 2 * APART, height: wish.size * 1.16 };
}

/** A word over a word cannot be read; over a line it can. */
const WORD_OVER_WORD = 4;

/** Shifts from a wished spot, nearest first, for when none of them is free, px. */
const NEARBY: readonly (readonly [dx: number, dy: number])[] = Array.from({ length: 13 }, (_, i) => (i - 6) * 12)
  .flatMap((dx) => Array.from({ length: 13 }, (_, k) => [dx, (k - 6) * 10] as const))
  .sort(([ax, ay], [bx, by]) => Math.hypot(ax, 2 * ay) - Math.hypot(bx, 2 * by));

/**
 * Places labels in order of importance. Every spot is tried before the text is shortened, then places near the first
 * spots; when nothing is free the shortest text stands inside the frame where it hits the fewest others, words above all.
 */
export function placeLabels(wishes: readonly LabelWish[], obstacles: readonly Box[], frame: Box): PlacedLabel[] {
  const words: Box[] = [];
  const placed: PlacedLabel[] = [];
  for (const wish of wishes) {
    const option = (text: string, spot: LabelWish['spots'][number]) => ({ text, spot, box: boxOf(text, wish, spot) });
    const within = ({ box }: { readonly box: Box }): boolean =>
      box.x >= frame.x && box.x + box.width <= frame.x + frame.width && box.y >= frame.y && box.y + box.height <= frame.y + frame.height;
    const options = wish.texts.flatMap((text) => wish.spots.map((spot) => option(text, spot)));
    const inside = options.filter(within);
    const pool = inside.length > 0 ? inside : options;
    const hitsOf = (box: Box, others: readonly Box[]): number => others.filter((other) => overlaps(box, other)).length;
    const hits = (box: Box): number => hitsOf(box, obstacles) + WORD_OVER_WORD * hitsOf(box, words);
    const free = ({ box }: { readonly box: Box }): boolean => hits(box) === 0;
    const near = (): (typeof options)[number] | undefined => {
      const spot = wish.spots[0]!;
      for (const text of wish.texts)
        for (const [dx, dy] of NEARBY) {
          const tried = option(text, { ...spot, x: spot.x + dx, y: spot.y + dy });
          if (within(tried) && free(tried)) return tried;
        }
      return undefined;
    };
    const chosen = pool.find(free) ?? near() ?? pool.reduce((best, one) => (hits(one.box) < hits(best.box) ? one : best));
    words.push(chosen.box);
    placed.push({ id: wish.id, text: chosen.text, size: wish.size, bold: wish.bold, look: wish.look, ...chosen.spot });
  }
  return placed;
}
