import {
  formatForEditing,
  formatIn,
  hintUnit,
  parseQuantity,
  shownUnit,
  type Dimension,
  type UnitPreference,
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

  watch([options.value, symbol], () => {
    if (editing.value || error.value) return;
    text.value = shown();
  });

  function typed(next: string): void {
    editing.value = true;
    text.value = next;
    if (next.trim() === '' && options.optional?.()) {
      error.value = null;
      options.changed(null, next);
      return;
    }
    const low = options.low?.();
    const high = options.high?.();
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

  return { text, error, symbol, hint, typed, left };
}
