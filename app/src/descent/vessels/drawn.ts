import type { Box } from '../labels';
import type { Vessel } from '../drawing';

/** What a drawing of a vessel is given. All drawings are our own. */
export interface Drawn {
  readonly vessel: Vessel;
  readonly small: boolean;
}

/** Corner of a vessel. */
export const radiusOf = ({ vessel: { box }, small }: Drawn): number => (small ? 4 : Math.min(11, box.width / 3));

/** The room inside its wall. */
export function insideOf({ vessel: { box }, small }: Drawn): Box {
  const inset = small ? 2 : 4.5;
  return { x: box.x + inset, y: box.y + inset * 1.6, width: box.width - 2 * inset, height: box.height - 3.2 * inset };
}
