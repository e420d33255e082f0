import { GALLON_UNITS, METRIC_UNITS, UNIT_CHOICES, type Measured, type UnitPreference } from '@yes-clear/core/quantity';

const KEY = 'units';

/** What was chosen last in this browser, or what the place uses. A new system starts with it. */
export function usualUnits(): UnitPreference {
  const ofPlace = navigator.language === 'en-US' ? GALLON_UNITS : METRIC_UNITS;
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Record<Measured, unknown>> | null;
    const known = Object.entries(kept ?? {}).filter(([measured, unit]) =>
      (UNIT_CHOICES[measured as Measured] as readonly unknown[] | undefined)?.includes(unit),
    );
    return { ...ofPlace, ...Object.fromEntries(known) };
  } catch {
    // A browser without a store for it, or what stood there was no such choice.
    return ofPlace;
  }
}

/** Keeps a choice for the next new system. */
export function rememberUnits(units: UnitPreference): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(units));
  } catch {
    // Without a store the next system starts with the units of the place.
  }
}
