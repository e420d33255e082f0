import { buyingCost, type PriceList } from '../ledger';
import type { Piece } from '../stage';
import type { Choice } from './axes';
import type { Space } from './spaces';

/** Pieces any option of some spaces is bought as: each value of each axis laid down once, and what is asked of the price list told. */
export function piecesOf(spaces: readonly Space[], prices: PriceList): Piece[] {
  const asked = new Set<Piece>();
  const listening: PriceList = {
    ...prices,
    piece: (piece) => {
      asked.add(piece);
      return prices.piece(piece);
    },
  };
  for (const { axes, lay } of spaces) {
    if (axes.some(({ values }) => values.length === 0)) continue;
    const first: Choice = Object.fromEntries(axes.map(({ id, values }) => [id, values[0]!]));
    for (const { id, values } of axes)
      for (const value of values) {
        const { head, tail } = lay({ ...first, [id]: value });
        buyingCost([...head, ...tail], listening);
      }
  }
  return [...asked];
}
