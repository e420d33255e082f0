import type { z } from 'zod';
import { boundsOf, measureOf, type Dimension } from '../quantity';

/** What a field writes: the stage as it then is, or the pressure of the line it hangs on. */
export type FieldWrite<S> = { readonly stage: S } | { readonly linePressureBar: number };

/** One quantity of a stage: where it is read, and the change that writes it. Values are in the unit of the dimension. */
export interface StageQuantity<S> {
  readonly label: string;
  readonly dimension: Dimension;
  /** Unit of the field, where it is not the one a dimension is shown in. */
  readonly unit?: string;
  readonly low?: number;
  readonly high?: number;
  readonly value: number | null;
  /** May be left empty: what stands in the field then, and the change that empties it. */
  readonly optional?: { readonly empty: string; readonly clear: FieldWrite<S> };
  /** Folded away until asked for: with what the kind folds, or under a heading of its own. */
  readonly folded?: boolean | string;
  /** Filled in by a template and looked at by nobody: writing it, even as it stands, confirms it. */
  readonly assumed?: boolean;
  readonly write: (value: number) => FieldWrite<S>;
}

/** One choice of a stage. */
export interface StageChoice<S> {
  readonly label: string;
  readonly items: readonly { readonly title: string; readonly value: string }[];
  readonly value: string;
  readonly write: (value: string) => FieldWrite<S>;
}

/** A few words of a stage, as they are printed on it. */
export interface StageText<S> {
  readonly label: string;
  readonly value: string;
  /** The heading it is folded away under. */
  readonly folded: string;
  readonly write: (text: string) => FieldWrite<S>;
}

/** What the inspector asks, in the order a hand would want it. */
export interface StageFields<S> {
  readonly choices: readonly StageChoice<S>[];
  readonly quantities: readonly StageQuantity<S>[];
  readonly texts?: readonly StageText<S>[];
}

interface Asked {
  readonly unit?: string;
  readonly folded?: boolean | string;
  readonly assumed?: boolean;
}

/** A quantity that stands anywhere in a stage: its bounds and its dimension are those of its schema. */
export function quantity<S>(
  label: string,
  of: z.ZodType,
  value: number | null,
  write: (value: number) => S,
  asked: Asked & { readonly empty?: { readonly says: string; readonly stage: S } } = {},
): StageQuantity<S> {
  const { dimension, each } = measureOf(of);
  const { low, high } = boundsOf(of);
  const { empty, ...rest } = asked;
  return {
    label,
    dimension,
    ...(low === undefined ? {} : { low: low * each }),
    ...(high === undefined ? {} : { high: high * each }),
    value: value === null ? null : value * each,
    write: (typed) => ({ stage: write(typed / each) }),
    ...(empty ? { optional: { empty: empty.says, clear: { stage: empty.stage } } } : {}),
    ...rest,
  };
}

type KeysOf<S, V> = { [K in keyof S]-?: S[K] extends V ? K : never }[keyof S] & string;

/** The fields of a stage by its keys. */
export function keysOf<S extends object>(shape: { readonly [K in keyof S]: z.ZodType }): {
  /** A number of the stage. `empty` says what stands in the field of one that may be left open. */
  readonly quantity: (
    stage: S,
    key: KeysOf<S, number | null>,
    label: string,
    asked?: Asked & { readonly empty?: string },
  ) => StageQuantity<S>;
  /** One of a few words of the stage. */
  readonly choice: (stage: S, key: KeysOf<S, string>, label: string, items: StageChoice<S>['items']) => StageChoice<S>;
} {
  return {
    quantity: (stage, key, label, { empty, ...asked } = {}) =>
      quantity<S>(label, shape[key], stage[key] as number | null, (value) => ({ ...stage, [key]: value }), {
        ...asked,
        ...(empty === undefined ? {} : { empty: { says: empty, stage: { ...stage, [key]: null } } }),
      }),
    choice: (stage, key, label, items) => ({
      label,
      items,
      value: stage[key] as string,
      write: (chosen) => ({ stage: { ...stage, [key]: chosen } }),
    }),
  };
}
