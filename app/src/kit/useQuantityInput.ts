import {
  formatForEditing,
  formatIn,
  hintUnit,
  parseQuantity,
  shownUnit,
  unitDoubt,
  type Dimension,
  type Outcome,
  type UnitPreference,
  type Usual,
} from '@yes-clear/core/quantity';
import { computed, ref, watch } from 'vue';

export interface QuantityInputOptions {
  readonly value: () => number | null;
  readonly dimension: () => Dimension;
  readonly label: () => string;
  readonly units: () => UnitPreference;
  /** Unit of the field, where it is not the preference's. */
  readonly unit?: () => string | undefined;
  readonly low?: () => number | undefined;
  readonly high?: () => number | undefined;
  /** Whether the field may be left empty. */
  readonly optional?: () => boolean;
  /** What the field usually holds; a figure outside is asked about. */
  readonly usual?: () => Usual | undefined;
  /** How the text is read, where the unit is a meter's own and no unit of the dimension. */
  readonly reads?: () => ((text: string) => Outcome<number>) | undefined;
  readonly changed: (value: number | null, typed: string) => void;
}

/**
 * The behaviour of a field for a physical quantity: what is typed stays as typed while the hand is in the
 * field, is understood at every key, and is shown in the field's unit on leaving. Text that cannot be
 * understood stays where it is, with the reason, and the last good value keeps counting.
 */
export function useQuantityInput(options: QuantityInputOptions) {
  const symbol = computed(() => options.unit?.() ?? shownUnit(options.dimension(), options.units()));
  const factor = computed(() => options.units().ppmFactor);
  const shown = (): string => {
    const value = options.value();
    return value === null ? '' : formatForEditing(value, options.dimension(), symbol.value, factor.value);
  };
  const text = ref(shown());
  const error = ref<string | null>(null);
  const editing = ref(false);
  /** What was typed last; nothing once the figure comes from elsewhere. */
  const lastTyped = ref('');

  watch([options.value, symbol], () => {
    if (editing.value || error.value) return;
    text.value = shown();
    lastTyped.value = '';
  });

  function typed(next: string): void {
    editing.value = true;
    text.value = next;
    lastTyped.value = next;
    if (next.trim() === '' && options.optional?.()) {
      error.value = null;
      options.changed(null, next);
      return;
    }
    const low = options.low?.();
    const high = options.high?.();
    const own = options.reads?.()?.(next);
    if (own) {
      error.value = own.ok ? null : own.error.message;
      if (own.ok) options.changed(own.value, next);
      return;
    }
    const parsed = parseQuantity(next, options.dimension(), {
      field: options.label(),
      defaultUnit: symbol.value,
      ppmFactor: factor.value,
      ...(low === undefined ? {} : { low }),
      ...(high === undefined ? {} : { high }),
    });
    error.value = parsed.ok ? null : parsed.error.message;
    if (parsed.ok) options.changed(parsed.value.value, next);
  }

  function left(): void {
    editing.value = false;
    if (!error.value) text.value = shown();
  }

  /** The value in the other common unit. */
  const hint = computed(() => {
    const value = options.value();
    const other = hintUnit(options.dimension(), options.units());
    return value === null || other === null || options.unit?.() ? '' : formatIn(value, options.dimension(), other, factor.value).text;
  });

  /** Whether another unit was meant: asked as long as the figure stands as typed. */
  const doubt = computed(() => {
    const usual = options.usual?.();
    return usual && lastTyped.value !== '' ? unitDoubt(lastTyped.value, options.dimension(), symbol.value, usual, factor.value) : null;
  });
  function meant(choice: string): void {
    typed(choice);
    left();
  }

  return { text, error, symbol, hint, doubt, typed, left, meant };
}
