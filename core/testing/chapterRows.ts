import { ELEMENT_ROWS, type ElementClass, type ElementRow } from '../membrane';

/**
 * Rows of elements the check values of the membrane chapter were worked out with: what each differs in from the
 * product's own rows, which are rounder. A check keeps its inputs when a row of the product moves.
 */
const at = (id: ElementClass, inputs: Partial<ElementRow>): ElementRow => ({ ...ELEMENT_ROWS[id], ...inputs });

export const CHAPTER_ROWS: Readonly<Record<ElementClass, ElementRow>> = {
  ...ELEMENT_ROWS,
  household25: at('household25', { nominalFlowGpd: 24 }),
  in25Usual: at('in25Usual', { nominalFlowGpd: 850, nominalRejection: 0.995, minimumRejection: 0.99 }),
  in25Low: at('in25Low', { nominalFlowGpd: 850, nominalRejection: 0.99, minimumRejection: 0.98 }),
  in4Usual: at('in4Usual', { nominalFlowGpd: 2500, nominalRejection: 0.995, minimumRejection: 0.99 }),
  in4Low: at('in4Low', { nominalFlowGpd: 2500, nominalRejection: 0.99, minimumRejection: 0.98 }),
  in4Lowest: at('in4Lowest', { nominalFlowGpd: 2300, nominalRejection: 0.99 }),
  in25Sea: at('in25Sea', { nominalFlowGpd: 700, nominalRejection: 0.994, minimumRejection: 0.992 }),
  in4Sea: at('in4Sea', { nominalFlowGpd: 1950, nominalRejection: 0.997, minimumRejection: 0.994 }),
  in4Loose: at('in4Loose', { nominalFlowGpd: 2000 }),
};
