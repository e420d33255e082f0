import type { System } from '../file';
import { batchL, productDemand } from '../goal';
import { DAY_MS, DAYS_PER_YEAR } from '../quantity';

/** Litres a system is planned to make: by weekday, by season, without the days away. What `litres.ts` counts is held against it. */

/** Litres planned between two instants, ms, Monday to Sunday by UTC. */
export interface UsePlan {
  readonly between: (fromMs: number, toMs: number) => number;
  /** Litres of the day an instant falls on. */
  readonly onDay: (ms: number) => number;
}

/** Days from 1 January to the middle of a month. */
const middleOf = (month: number): number => ((month - 0.5) * DAYS_PER_YEAR) / 12;

/** Day of the year of a calendar day counted from 1970, 0 on 1 January. */
const dayOfYear = (day: number): number => {
  const at = new Date(day * DAY_MS);
  return day - Date.UTC(at.getUTCFullYear(), 0, 1) / DAY_MS;
};

/** What the keeper told of the use of a system, as litres of any span of time. */
export function usePlan({ goal, away }: Pick<System, 'goal' | 'away'>): UsePlan {
  const demand = productDemand(goal);
  const week = demand.dayL.map(
    (litres, weekday) => litres + demand.batches.reduce((sum, batch) => sum + (batch.weekday === weekday ? batchL(batch) : 0), 0),
  );
  const { season } = goal.demand;
  const spells = away.map(({ from, days, share }) => {
    const first = Date.parse(`${from}T00:00:00Z`) / DAY_MS;
    return { first, last: first + days, share };
  });
  const known = new Map<number, number>();
  const litresOn = (day: number): number => {
    const before = known.get(day);
    if (before !== undefined) return before;
    // 1970 began on a Thursday.
    const weekday = (((day + 3) % 7) + 7) % 7;
    const swing = season
      ? 1 + season.share * Math.cos((2 * Math.PI * (dayOfYear(day) - middleOf(season.busiestMonth))) / DAYS_PER_YEAR)
      : 1;
    const spell = spells.find(({ first, last }) => day >= first && day < last);
    const litres = week[weekday]! * swing * (spell ? spell.share : 1);
    known.set(day, litres);
    return litres;
  };
  return {
    onDay: (ms) => litresOn(Math.floor(ms / DAY_MS)),
    between: (fromMs, toMs) => {
      if (!(toMs > fromMs)) return 0;
      const [from, to] = [fromMs / DAY_MS, toMs / DAY_MS];
      let litres = 0;
      for (let day = Math.floor(from); day < to; day++) litres += litresOn(day) * (Math.min(to, day + 1) - Math.max(from, day));
      return litres;
    },
  };
}
