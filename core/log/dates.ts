import { DAY_MS } from '../quantity';

/** A date some days after an instant. */
export function dateAfter(instant: string, days: number): string {
  return new Date(Date.parse(instant) + days * DAY_MS).toISOString();
}
