import type { Reading, System } from '../file';
import { SPENT_WATER_FACTOR } from '../membrane';
import { normalCumulative, type Estimate } from '../numeric';
import { DAY_MS, inSentence, THIN, words } from '../quantity';
import { kindOf, type Finding } from '../stage';
import { astmFigures } from './astm';
import { crossing } from './crossing';
import { dayWords, seasonWords } from './days';
import type { Course, MembraneTrend, MovedBy } from './membraneTrend';
import { baselineOf, inOrder } from './series';
import { dateAfter } from './dates';

/** Action limits against the reference (common practice; membrane chapter, 7), as factors. */
export const OUTPUT_LIMITS = { watch: 0.9, clean: 0.85 } as const;
export const PASSAGE_LIMITS = { watch: 1.1, inspect: 1.15 } as const;
/** Readings before a part that costs more than a strip is judged (science of faults, 5). */
const LEAST_READINGS = 3;
/** How sure a limit must be passed to be told as passed. */
const SURE = 0.8;
/** Share of the pressure that filters may take beyond clean ones before it is told, and before it is wrong. */
const FILTER_SHARE = { mind: 0.08, bad: 0.2 } as const;
/** A part of a change smaller than this is not named. */
const NAMED_SHARE = 0.015;

/** A factor against its reference in per cent with two standard deviations, never none: as findings and charts say it. */
export function shareWithDoubt({ value, sd }: Estimate): string {
  const share = 100 * Math.exp(value);
  return `${Math.round(share)} ± ${Math.max(1, Math.round(2 * share * sd))}${THIN}%`;
}
const fell = (ln: number): string => `${Math.round(Math.abs(100 * (Math.exp(ln) - 1)))}${THIN}%`;

/** Chance that a course has passed a limit. */
const passed = ({ now }: Course, limit: number, side: 'below' | 'above'): number => {
  const z = (Math.log(limit) - now.value) / now.sd;
  return side === 'below' ? normalCumulative(z) : normalCumulative(-z);
};

/** What the log says of a membrane: its output and its salt with the weather taken out, what else moved them, and what nobody wrote down. */
export function membraneFindings(system: System, readings: readonly Reading[], trend: MembraneTrend, now: string): Finding[] {
  const against = `Of ${trend.reference.from === 'handOver' ? 'what it was at the hand-over' : 'what the first readings show'}, at ${words(system.units).of(25, 'temperatureC')} and design pressure. `;
  return [
    outputFinding(trend, against, now),
    saltFinding(system, readings, trend, against),
    filterFinding(trend) ?? filterPast(system, trend, now),
    ...stepFindings(trend),
  ].filter((finding): finding is Finding => finding !== null);
}

function outputFinding({ water, movedBy }: MembraneTrend, against: string, now: string): Finding | null {
  if (!water || water.count < 2) return null;
  const figure = shareWithDoubt(water.now);
  const spent = water.count >= LEAST_READINGS && passed(water, SPENT_WATER_FACTOR, 'below') > SURE;
  const toClean = water.count >= LEAST_READINGS && passed(water, OUTPUT_LIMITS.clean, 'below') > SURE;
  const toWatch = passed(water, OUTPUT_LIMITS.watch, 'below') > SURE;
  const moved = movedBy ? movedWords(movedBy) : '';
  const verdict = spent
    ? 'It is spent: replace it.'
    : toClean
      ? `Below ${100 * OUTPUT_LIMITS.clean}${THIN}% it is cleaned or replaced.`
      : (dateWords(water, now) ?? `Clean or replace it below ${100 * OUTPUT_LIMITS.clean}${THIN}%.`);
  return {
    id: 'output',
    severity: spent ? 'bad' : toClean || toWatch ? 'mind' : 'good',
    title: `Membrane output ${figure}`,
    why: `${against}${moved}${verdict}`,
  };
}

/** When the output will ask for cleaning, as far as the course tells. */
function dateWords(water: Course, now: string): string | null {
  const found = crossing(water, Math.log(OUTPUT_LIMITS.clean), Date.parse(now));
  if (!found) return `At its present rate it stays above ${100 * OUTPUT_LIMITS.clean}${THIN}% for years.`;
  const from = seasonWords(dateAfter(now, found.p10));
  if (found.p90 === null) return `It reaches ${100 * OUTPUT_LIMITS.clean}${THIN}% in ${from} at the earliest.`;
  const to = seasonWords(dateAfter(now, found.p90));
  if (from === seasonWords(now)) return `It reaches ${100 * OUTPUT_LIMITS.clean}${THIN}% by ${to}.`;
  return `It reaches ${100 * OUTPUT_LIMITS.clean}${THIN}% ${from === to ? `in ${from}` : `between ${from} and ${to}`}.`;
}

/** What moved the output, the largest part first. */
function movedWords({ from, total, temperature, pressure, filters, tap, membrane }: MovedBy): string {
  const parts = (
    [
      [temperature, temperature < 0 ? 'colder water' : 'warmer water'],
      [pressure, pressure < 0 ? 'less pressure' : 'more pressure'],
      [filters, filters < 0 ? 'filters' : 'cleaner filters'],
      [tap, tap < 0 ? 'a stronger tap' : 'a weaker tap'],
      [membrane.value, 'the membrane'],
    ] as const
  )
    .filter(([by]) => Math.abs(by) >= NAMED_SHARE)
    .sort(([a], [b]) => Math.abs(b) - Math.abs(a));
  if (Math.abs(total) < 0.05 || parts.length === 0) return '';
  const [largest, ...rest] = parts.map(([by, name]) => `${name} ${by < 0 ? '−' : '+'}${fell(by)}`);
  return `The jug shows ${fell(total)} ${total < 0 ? 'less' : 'more'} than in ${seasonWords(from)}: ${[largest, ...rest].join(', ')}. `;
}

function saltFinding(system: System, readings: readonly Reading[], { salt, points }: MembraneTrend, against: string): Finding | null {
  if (!salt || salt.count < 2) return null;
  const inspect = salt.count >= LEAST_READINGS && passed(salt, PASSAGE_LIMITS.inspect, 'above') > SURE;
  const watch = passed(salt, PASSAGE_LIMITS.watch, 'above') > SURE;
  const figure = shareWithDoubt(salt.now);
  return {
    id: 'saltPassage',
    severity: inspect || watch ? 'mind' : 'good',
    title: `Salt through the membrane ${figure}`,
    why: `${against}${inspect ? 'Probe the vessels, look at the seals and the chlorine history. ' : ''}${besideStandard(system, readings, points.at(-1)?.readingId, salt.now.value)}`,
  };
}

/** What the standard figure says beside the solver's, where a reading has all it asks for. */
function besideStandard(system: System, readings: readonly Reading[], newestId: string | undefined, lnSalt: number): string {
  const ordered = inOrder(readings);
  const newest = ordered.find(({ id }) => id === newestId);
  const first = baselineOf(system, ordered);
  const standard = newest && first && newest !== first ? astmFigures(system, first, newest) : null;
  if (!standard) return '';
  const figures = `By the standard way the newest reading shows ${Math.round(100 * standard.permeate)}${THIN}% output and ${Math.round(100 * standard.saltPassage)}${THIN}% salt`;
  const alone = standard.saltPassage > PASSAGE_LIMITS.watch && Math.exp(lnSalt) < 1 + (PASSAGE_LIMITS.watch - 1) / 2;
  return alone ? `${figures}: that counts no polarization, which cold water raises, and is no alarm.` : `${figures}.`;
}

function filterFinding({ filters }: MembraneTrend): Finding | null {
  if (!filters || filters.value < FILTER_SHARE.mind || filters.value - 2 * filters.sd < 0) return null;
  const figure = `${Math.round(100 * filters.value)} ± ${Math.max(1, Math.round(200 * filters.sd))}${THIN}%`;
  return {
    id: 'filters',
    severity: filters.value > FILTER_SHARE.bad ? 'bad' : 'mind',
    title: `The filters take ${figure} of the pressure beyond what clean ones do`,
    why: 'Product and waste fell together, as they do behind a clogged filter; the membrane is not to blame. Change the sediment cartridge.',
  };
}

/** How long a filter that was changed is remembered as the cause of a dip, days. */
const REMEMBERED_DAYS = 60;

/** A dip that went with the filters that were changed since. */
function filterPast(system: System, { points }: MembraneTrend, now: string): Finding | null {
  const filters = new Set(system.train.stages.filter((stage) => kindOf(stage).prefilter).map(({ id }) => id));
  const change = system.services.findLast(({ stageId, work }) => work === 'changed' && stageId !== null && filters.has(stageId));
  if (!change || Date.parse(now) - Date.parse(change.at) > REMEMBERED_DAYS * DAY_MS) return null;
  const before = points.findLast(({ at, factors }) => at < change.at && factors.filterShare !== null);
  const after = points.findLast(({ at, factors }) => at > change.at && factors.filterShare !== null);
  const [taken, left] = [before?.factors.filterShare, after?.factors.filterShare];
  if (!before || !taken || taken.value < FILTER_SHARE.mind || (left && left.value > FILTER_SHARE.mind)) return null;
  return {
    id: 'filterPast',
    severity: 'good',
    title: `The dip of ${dayWords(before.at)} was ${inSentence(change.name)}`,
    why: `It took ${Math.round(100 * taken.value)}${THIN}% of the pressure beyond what a clean one does.${left ? ' Normal again since the change.' : ''}`,
  };
}

/** Steps nobody wrote down, with what they look like. */
function stepFindings({ water, salt }: MembraneTrend): Finding[] {
  const near = (a: string, b: string): boolean => Math.abs(Date.parse(a) - Date.parse(b)) < 35 * DAY_MS;
  const told: Finding[] = [];
  for (const step of water?.unexplained ?? []) {
    const other = salt?.unexplained.find(({ since }) => near(since, step.since));
    told.push({
      id: `step-water-${step.since.slice(0, 10)}`,
      severity: 'mind',
      title: `Output ${step.by.value < 0 ? 'fell' : 'rose'} ${fell(step.by.value)} about ${dayWords(step.since)}, and nothing on record says why`,
      why: `${likeness(step.direction, other?.direction)} If work was done then, write it down.`,
    });
  }
  for (const step of salt?.unexplained ?? []) {
    if (water?.unexplained.some(({ since }) => near(since, step.since))) continue;
    told.push({
      id: `step-salt-${step.since.slice(0, 10)}`,
      severity: 'mind',
      title: `Salt through the membrane ${step.by.value < 0 ? 'fell' : 'rose'} ${fell(step.by.value)} about ${dayWords(step.since)}; the output did not move`,
      why:
        step.direction === 'up'
          ? 'That is a seal, or the meter: clean the probe’s tips, read it with another meter, then look at the seals.'
          : 'Most likely the meter: clean the probe’s tips and read it with another one.',
    });
  }
  return told;
}

/** What flow and salt together look like (membrane chapter, 7; common practice). */
function likeness(water: 'up' | 'down', salt: 'up' | 'down' | undefined): string {
  if (water === 'down')
    return salt === 'up'
      ? 'Less output with more salt looks like scale.'
      : 'Less output alone looks like fouling, or a gauge or jug that changed.';
  return salt === 'up'
    ? 'More output with more salt looks like chlorine damage or a leak past a seal.'
    : 'More output alone looks like a gauge or jug that changed.';
}
