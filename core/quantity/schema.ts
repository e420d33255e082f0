import { z } from 'zod';
import type { Dimension } from './units';

/** What every schema of the model is made from: a name, a day, a number within bounds, a quantity with its dimension. */

export const id = z.string().min(1).max(80);
export const name = z.string().max(120);
/** Calendar day, as on a cartridge: 2026-11-23. */
export const day = z.iso.date();
export const between = (low: number, high: number): z.ZodNumber => z.number().min(low).max(high);
export const maybe = <T extends z.ZodType>(inner: T): z.ZodNullable<T> => inner.nullable();

/** What a number of the model measures, and how many units of that dimension make one of its own. */
export interface Measure {
  readonly dimension: Dimension;
  /** A length kept in metres counts 1000 mm; 1 for what is kept in the unit of its dimension. */
  readonly each: number;
}

/** A quantity of the model: its bounds, in its own unit, and what it measures. */
export const measured = (dimension: Dimension, low: number, high: number, each = 1): z.ZodNumber =>
  between(low, high).meta({ measure: { dimension, each } satisfies Measure });

type Wrapped = z.ZodType & { unwrap(): z.ZodType };
const isWrapped = (schema: z.ZodType): schema is Wrapped => 'unwrap' in schema && typeof schema.unwrap === 'function';

/** What a number of the model measures; a bare number is a count. */
export function measureOf(schema: z.ZodType): Measure {
  if (isWrapped(schema)) return measureOf(schema.unwrap());
  const { measure } = (schema.meta() ?? {}) as { measure?: Measure };
  return measure ?? { dimension: 'count', each: 1 };
}

/** What a field of the model takes: the one source of bounds for field, store and file. */
export interface Bounds {
  readonly low?: number;
  readonly high?: number;
}

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
