import { words, type UnitPreference } from '../../quantity';
import type { Upkeep } from '../../stage';

/** When a piece of upkeep is due: days, and litres where they come sooner; null where neither is known. */
export function dueSays(
  { afterDays, everyDays, litresNew }: Upkeep,
  litresPerDay: number,
  units: UnitPreference,
): { readonly days: number | null; readonly litres: string | null } {
  const days = afterDays ?? everyDays ?? null;
  const sooner = litresNew !== undefined && (days === null || litresNew < 1.5 * days * litresPerDay);
  return { days, litres: sooner ? words(units).about(litresNew, 'volumeL') : null };
}
