import type { Reading } from '../file';

/** How far the dye of a resin has changed, as a note has it: "colour 34 of 90 cm", "coloured 6/18 in". */
const HEIGHT = /\bcolou?r(?:ed)?\b[^\d]{0,16}(\d+(?:[.,]\d+)?)\s*(?:of|\/|out of|from)\s*(\d+(?:[.,]\d+)?)/i;
const PERCENT = /\bcolou?r(?:ed)?\b[^\d]{0,16}(\d+(?:[.,]\d+)?)\s*%/i;

const number = (text: string): number => Number(text.replace(',', '.'));

/** Share of a bed whose colour has changed, 0 to 1; null where a reading's note tells of none. */
export function colourShare({ note }: Pick<Reading, 'note'>): number | null {
  const height = HEIGHT.exec(note);
  const percent = height ? null : PERCENT.exec(note);
  const share = height ? number(height[1]!) / number(height[2]!) : percent ? number(percent[1]!) / 100 : NaN;
  return share >= 0 && share <= 1 ? share : null;
}

/** A look at the resin itself: the share of it that is used. */
export interface UsedLook {
  readonly ms: number;
  readonly share: number;
}

/** What looks at one bed share, packing and dye, and the error of a single one in share (science of logs, 5.6; product assumptions). */
const SHARED_SD = 0.06;
const LOOK_SD = 0.035;
/** Below this a height says next to nothing. */
export const COLOUR_TELLS = 0.12;

/** Load at which a bed ends by the looks at it, each by the load it had then: ln and its doubt; null without any. */
export function endByLooks(
  looks: readonly UsedLook[],
  loadAt: (ms: number) => number,
): { readonly loadEq: number; readonly sd: number } | null {
  let [weight, total] = [0, 0];
  for (const { ms, share } of looks) {
    const loadEq = loadAt(ms);
    if (!(loadEq > 0) || share < COLOUR_TELLS) continue;
    const w = (share / LOOK_SD) ** 2;
    weight += w;
    total += w * Math.log(loadEq / share);
  }
  return weight > 0 ? { loadEq: Math.exp(total / weight), sd: Math.sqrt(SHARED_SD ** 2 + 1 / weight) } : null;
}
