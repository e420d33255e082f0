import type { z } from 'zod';

/** What a field of the model takes: the one source of bounds for field, store and file. */
export interface Bounds {
  readonly low?: number;
  readonly high?: number;
}

type Wrapped = z.ZodType & { unwrap(): z.ZodType };
const isWrapped = (schema: z.ZodType): schema is Wrapped => 'unwrap' in schema && typeof schema.unwrap === 'function';

/** The least and the most a number of the model may be; a number that may be left empty has those of the number. */
export function boundsOf(schema: z.ZodType): Bounds {
  if (isWrapped(schema)) return boundsOf(schema.unwrap());
  const { minValue, maxValue } = schema as unknown as { minValue?: number | null; maxValue?: number | null };
  return {
    ...(typeof minValue === 'number' && Number.isFinite(minValue) ? { low: minValue } : {}),
    ...(typeof maxValue === 'number' && Number.isFinite(maxValue) ? { high: maxValue } : {}),
  };
}

/** The most characters a text of the model may have. */
export function longest(schema: z.ZodType): number {
  if (isWrapped(schema)) return longest(schema.unwrap());
  return (schema as unknown as { maxLength?: number | null }).maxLength ?? Infinity;
}

/** Years in which anything here can have been fitted, measured or logged; a date outside is asked about. */
export const FIRST_YEAR = 1990;
export const LAST_YEAR = 2100;

/** Whether a day or an instant lies in those years. */
export function isLikelyDate(text: string): boolean {
  const year = Number(text.slice(0, 4));
  return Number.isInteger(year) && year >= FIRST_YEAR && year <= LAST_YEAR && !Number.isNaN(Date.parse(text));
}
