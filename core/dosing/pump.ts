/** A dosing pump by its stock: how much it gives, how long a tank lasts, whether it gives what it should. */

/** Stock of a density and strength by mass, g/L. */
export const stockGPerL = (percent: number, kgPerL: number): number => 10 * kgPerL * percent;
/** What it gives, mL an hour. */
export const dosesMlPerH = (flowLPerH: number, doseMgL: number, stock: number): number => (flowLPerH * doseMgL) / stock;
/** Days a tank lasts at so many hours a day. */
export const tankDays = (tankL: number, mlPerH: number, hoursPerDay: number): number => (1000 * tankL) / (mlPerH * hoursPerDay);
/** Strokes between which a pump doses evenly, shares of its most (common practice). */
export const EVEN_STROKES = { least: 0.2, most: 0.9 } as const;
