import type { PartLife } from '../../life';
import { words, type UnitPreference } from '../../quantity';

/** When a piece of work is due: days, and litres where they may come sooner; null where neither is known. */
export function dueSays(
  { everyDays, everyL, litresPerDay }: Pick<PartLife, 'everyDays' | 'everyL' | 'litresPerDay'>,
  units: UnitPreference,
): { readonly days: number | null; readonly litres: string | null } {
  const sooner = everyL !== null && (everyDays === null || everyL < 1.5 * everyDays * litresPerDay);
  return { days: everyDays, litres: sooner ? words(units).about(everyL, 'volumeL') : null };
}
