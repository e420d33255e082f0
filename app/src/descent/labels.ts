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
  readonly look: 'name' | 'figure' | 'quiet' | 'goal';
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

function boxOf(text: string, wish: LabelWish, spot: LabelWish['spots'][number]): Box {
  const width = textWidth(text, wish.size, wish.bold);
  const x = spot.anchor === 'start' ? spot.x : spot.anchor === 'end' ? spot.x - width : spot.x - width / 2;
  return { x: x - 2, y: spot.y - wish.size * 0.86, width: width + 4, height: wish.size * 1.16 };
}

/** A word over a word cannot be read; over a line it can. */
const WORD_OVER_WORD = 4;

/**
 * Places labels in order of importance. Every spot is tried before the text is shortened; when nothing is
 * free the shortest text stands at the first spot inside the frame that hits the fewest others, words above all.
 */
export function placeLabels(wishes: readonly LabelWish[], obstacles: readonly Box[], frame: Box): PlacedLabel[] {
  const words: Box[] = [];
  const placed: PlacedLabel[] = [];
  for (const wish of wishes) {
    const options = wish.texts.flatMap((text) => wish.spots.map((spot) => ({ text, spot, box: boxOf(text, wish, spot) })));
    const inside = options.filter(
      ({ box }) =>
        box.x >= frame.x && box.x + box.width <= frame.x + frame.width && box.y >= frame.y && box.y + box.height <= frame.y + frame.height,
    );
    const pool = inside.length > 0 ? inside : options;
    const hitsOf = (box: Box, others: readonly Box[]): number => others.filter((other) => overlaps(box, other)).length;
    const hits = (box: Box): number => hitsOf(box, obstacles) + WORD_OVER_WORD * hitsOf(box, words);
    const chosen =
      pool.find(({ box }) => hits(box) === 0) ?? pool.reduce((best, option) => (hits(option.box) < hits(best.box) ? option : best));
    words.push(chosen.box);
    placed.push({ id: wish.id, text: chosen.text, size: wish.size, bold: wish.bold, look: wish.look, ...chosen.spot });
  }
  return placed;
}
