import type { System } from '../file';
import { isSmallElement, type ElementClass } from '../membrane';
import { isElementPiece, PIECE_PRICES, type PartPrices, type Piece } from '../stage';

/** The one price list of a job: what was typed for it, its own prices where they tell, placeholders otherwise. */
export interface PriceList extends PartPrices {
  readonly currency: string;
  readonly waterPerM3: number;
  readonly sewerPerM3: number;
  readonly powerPerKWh: number;
  /** A visit: one's own, or one that is called. */
  readonly visit: number;
}

/** What of the price of a small membrane with its housing is the membrane: two thirds for the usual one (our placeholders). */
const USUAL_ELEMENT: ElementClass = 'household75';
const ELEMENT_SHARE = PIECE_PRICES[USUAL_ELEMENT] / (PIECE_PRICES[USUAL_ELEMENT] + PIECE_PRICES.smallHousing);

/** A piece by the job's own prices, where one of them speaks of it. */
function byJob(piece: Piece, { element }: System['prices']): number | null {
  const own = element * ELEMENT_SHARE;
  if (isElementPiece(piece) && isSmallElement(piece)) return (own * PIECE_PRICES[piece]) / PIECE_PRICES[USUAL_ELEMENT];
  return piece === 'smallHousing' ? element - own : null;
}

/** A system with a piece at a price of its own. */
export const withPiecePrice = (system: System, part: Piece, each: number): System => ({
  ...system,
  choice: { ...system.choice, prices: [...system.choice.prices.filter((one) => one.part !== part), { part, each }] },
});

/** Whether the job's own prices tell what a piece costs: it is typed there. */
export const pricedByJob = (piece: Piece, prices: System['prices']): boolean => byJob(piece, prices) !== null;

export function priceList({ prices, choice }: Pick<System, 'prices' | 'choice'>): PriceList {
  const typed = new Map(choice.prices.map(({ part, each }) => [part, each]));
  return {
    ...prices,
    visit: choice.visitCost,
    piece: (piece) => typed.get(piece) ?? byJob(piece, prices) ?? PIECE_PRICES[piece],
  };
}
