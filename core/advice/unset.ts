import { GOAL_ROWS, type GoalId } from '../goal';
import { DAYS_PER_YEAR, THIN, words, type UnitPreference } from '../quantity';
import type { Finding } from '../stage';
import { calciteState, type Water } from '../water';

/** What is said of a use nobody has set a limit for: nothing is met there, and what can be worked out is told. */

/** Lime a year from which an oven wants it out first (our judgement), g. */
const MUCH_LIME_G = 200;

/** Lime a water drops in a year of so many litres a day, g. */
export const limeGramsAYear = (settlesMgL: number, litresPerDay: number): number =>
  (Math.max(0, settlesMgL) * litresPerDay * DAYS_PER_YEAR) / 1000;
export const massText = (grams: number): string =>
  grams >= 1000 ? `${(grams / 1000).toFixed(1)}${THIN}kg` : `${Number(grams.toPrecision(2))}${THIN}g`;

/** A use without limits: where its water is heated, the lime it drops in a year. */
export function withoutLimits(id: string, name: string, goal: GoalId, water: Water, litresPerDay: number, units: UnitPreference): Finding {
  const { heatedC } = GOAL_ROWS[goal];
  const heated = heatedC === null ? null : calciteState(water, heatedC);
  const sheet = goal === 'steamOven' ? 'What it bears is on the oven’s own sheet' : 'Nobody has set what it may hold';
  if (heatedC === null || !heated?.ok)
    return { id, severity: 'note', title: `${name}: no limit is set`, why: `${sheet}: set it in Goal, and it is judged.` };
  const grams = limeGramsAYear(heated.value.precipitationMgL, litresPerDay);
  const at = words(units).of(heatedC, 'temperatureC');
  return {
    id,
    severity: grams > MUCH_LIME_G ? 'mind' : 'note',
    title: grams < 1 ? `${name}: no lime at ${at}` : `${name}: about ${massText(grams)} of lime a year at ${at}`,
    why: `${sheet}: until its limits are typed nothing is judged.`,
  };
}
