import type { Band } from '../exchange';
import { normalPoints } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR } from '../quantity';
import type { UsePlan } from './usePlan';

/** When a resin ends (science of logs, 6): its belief, the use of the days to come, holidays nobody has told of. */

/** Points of the belief, evenly likely, and of the level of use. */
const ENDS = 41;
const RATES = 5;
/** Beyond this nothing is forecast. */
const FARTHEST_DAYS = 3653;
/** Doubt of the mean use over a time ahead: it averages with days (6). */
const AHEAD = { sd: 0.12, days: 30, power: 0.37, least: 0.06, most: 0.2 } as const;
/** Days away a year where nobody told, and of one such spell (6). */
const UNTOLD = { perYear: 28, spell: 14, most: 0.7 } as const;

/**
 * Days from an instant until so many litres have passed, as a band; null where nothing is used.
 *
 * @param needL litres still to come at a share of the belief, 0 to 1
 * @param level use against the plan, and its doubt in ln
 */
export function daysUntil(
  needL: (share: number) => number,
  level: { readonly level: number; readonly sd: number },
  plan: UsePlan,
  nowMs: number,
): Band | null {
  const { z, weight } = normalPoints(RATES);
  const dayOf = calendar(plan, nowMs);
  const middle = dayOf(needL(0.5) / level.level);
  if (middle === null) return null;
  const ahead = Math.min(AHEAD.most, Math.max(AHEAD.least, AHEAD.sd * (AHEAD.days / Math.max(1, middle)) ** AHEAD.power));
  const sd = Math.hypot(ahead, level.sd);
  const found: { readonly day: number; readonly weight: number }[] = [];
  for (let i = 0; i < ENDS; i++) {
    const need = needL((i + 0.5) / ENDS);
    z.forEach((at, k) => {
      const day = dayOf(need / (level.level * Math.exp(sd * at))) ?? FARTHEST_DAYS;
      // A spell away that nobody told of falls in with the days it may fall on, and only makes it later.
      const away = Math.min(UNTOLD.most, (UNTOLD.perYear / DAYS_PER_YEAR / UNTOLD.spell) * day);
      const own = weight[k]! / ENDS;
      found.push({ day, weight: own * (1 - away) }, { day: day + UNTOLD.spell, weight: own * away });
    });
  }
  found.sort((a, b) => a.day - b.day);
  return { p10: quantile(found, 0.1), p50: quantile(found, 0.5), p90: quantile(found, 0.9) };
}

/** Days until so many planned litres have passed; null where the plan has none for ten years. */
export function calendar(plan: UsePlan, nowMs: number): (litres: number) => number | null {
  const passed = [0];
  const through = (day: number): number => {
    while (passed.length <= day) {
      const from = nowMs + (passed.length - 1) * DAY_MS;
      passed.push(passed.at(-1)! + plan.between(from, from + DAY_MS));
    }
    return passed[day]!;
  };
  return (litres) => {
    if (!(litres > 0)) return 0;
    let [low, high] = [0, 64];
    while (through(high) < litres) {
      low = high;
      high *= 2;
      if (low >= FARTHEST_DAYS) return null;
    }
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (through(middle) < litres) low = middle;
      else high = middle;
    }
    const drawn = through(high) - through(low);
    return low + (drawn > 0 ? (litres - through(low)) / drawn : 0);
  };
}

function quantile(sorted: readonly { readonly day: number; readonly weight: number }[], share: number): number {
  const total = sorted.reduce((sum, { weight }) => sum + weight, 0);
  let run = 0;
  for (let i = 0; i < sorted.length; i++) {
    const { day, weight } = sorted[i]!;
    if (run + weight >= share * total) {
      const before = sorted[i - 1]?.day ?? day;
      return before + (day - before) * Math.max(0, Math.min(1, (share * total - run) / weight));
    }
    run += weight;
  }
  return sorted.at(-1)?.day ?? 0;
}
