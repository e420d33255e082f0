import type { FieldWrite, StageQuantity } from '@yes-clear/core/stage';

/** What a field needs to know of a quantity of a stage: all of it but how it is written. */
export function fieldOf<S>({ write: _write, value: _value, folded: _folded, optional, ...rest }: StageQuantity<S>) {
  return { ...rest, optional: optional !== undefined, ...(optional ? { empty: optional.empty } : {}) };
}

/** What a figure typed there changes, or an emptied field; nothing where it may not be empty. */
export const changeOf = <S>(asked: StageQuantity<S>, value: number | null): FieldWrite<S> | undefined =>
  value === null ? asked.optional?.clear : asked.write(value);
