import type { Source, Stage } from '@yes-clear/core/file';
import type { Dimension } from '@yes-clear/core/quantity';

/** One quantity of a stage: where it is read, and the change that writes it. */
export interface QuantitySpec {
  readonly label: string;
  readonly dimension: Dimension;
  readonly unit?: string;
  readonly low?: number;
  readonly high?: number;
  readonly value: number | null;
  /** May be left empty: what stands in the field then, and the change that empties it. */
  readonly optional?: { readonly empty: string; readonly clear: { readonly stage: Partial<Stage> } };
  /** Folded away until asked for. */
  readonly advanced?: boolean;
  readonly change: (value: number) => { readonly stage: Partial<Stage> } | { readonly source: Partial<Source> };
}

/** One choice of a stage. */
export interface ChoiceSpec {
  readonly label: string;
  readonly items: readonly { readonly title: string; readonly value: string }[];
  readonly value: string;
  readonly change: (value: string) => Partial<Stage>;
}

export interface StageFields {
  readonly choices: readonly ChoiceSpec[];
  readonly quantities: readonly QuantitySpec[];
}

/** Writes one key of a stage. */
export const into =
  (key: string) =>
  (value: number | string | null): { readonly stage: Partial<Stage> } => ({ stage: { [key]: value } as Partial<Stage> });
export const choice = (label: string, items: ChoiceSpec['items'], value: string, key: string): ChoiceSpec => ({
  label,
  items,
  value,
  change: (chosen) => into(key)(chosen).stage,
});
