import type { Reading, System } from '../file';
import { SPENT_WATER_FACTOR } from '../membrane';
import { FOUR_IN_FIVE_SD, normalCumulative, type Estimate } from '../numeric';
import { DAY_MS, dayWords, inSentence, seasonWords, THIN, words } from '../quantity';
import { kindOf, type Finding } from '../stage';
import { astmFigures } from './astm';
import { crossing } from './crossing';
import type { Course, MembraneTrend, MovedBy } from './membraneTrend';
import { baselineOf, inOrder } from './series';
import { dateAfter } from './dates';
import { stands } from './latch';

/** Action limits against the reference (common practice; membrane chapter, 7), as factors. */
export const OUTPUT_LIMITS = { watch: 0.9, clean: 0.85 } as const;
export const PASSAGE_LIMITS = { watch: 1.1, inspect: 1.15 } as const;
/** Readings before a part that costs more than a strip is judged (science of faults, 5). */
const LEAST_READINGS = 3;
/** How sure a part that is not followed reading by reading must be past a limit to be told as past it (science of logs, 9). */
const SURE = 0.9;
/**
 * Filters are told of when the lower edge of what they take beyond clean ones passes both, and in a warning colour when it
 * passes more; the restrictor when its flow is this surely below a share of what it was (science of logs, 4.3).
 */
const FILTERS = { share: 0.04, bar: 0.2, changeShare: 0.08, changeBar: 0.35, badShare: 0.2 } as const;
const RESTRICTOR = { told: 0.9, act: 0.87 } as const;
/** A part of a change smaller than this is not named. */
const NAMED_SHARE = 0.015;

/** A factor against its reference in per cent with its 80 % band, never none: as findings and charts say it. */
export function shareWithDoubt({ value, sd }: Estimate): string {
  const share = 100 * Math.exp(value);
  return `${Math.round(share)} ± ${Math.max(1, Math.round(FOUR_IN_FIVE_SD * share * sd))}${THIN}%`;
}
const fell = (ln: number): string => `${Math.round(Math.abs(100 * (Math.exp(ln) - 1)))}${THIN}%`;

/** Whether a course has passed a limit, by what was known at each reading. */
const passed = ({ asKnown }: Course, limit: number, side: 'below' | 'above'): boolean =>
  stands(
    asKnown.map(({ value, sd }) => {
      const z = (Math.log(limit) - value) / sd;
      return normalCumulative(side === 'below' ? z : -z);
    }),
  );

/** What the log says of a membrane: its output and its salt with the weather taken out, what else moved them, and what nobody wrote down. */
export function membraneFindings(system: System, readings: readonly Reading[], trend: MembraneTrend, now: string): Finding[] {
  const against = `Of ${trend.reference.from === 'handOver' ? 'what it was at the hand-over' : 'what the first readings show'}, at ${words(system.units).of(25, 'temperatureC')} and design pressure. `;
  return [
    outputFinding(trend, against, now),
    saltFinding(system, readings, trend, against),
    filterFinding(system, trend) ?? filterPast(system, trend, now),
    restrictorFinding(system, trend),
    ...stepFindings(trend),
  ].filter((finding): finding is Finding => finding !== null);
}

function outputFinding({ water, movedBy }: MembraneTrend, against: string, now: string): Finding | null {
  if (!water || water.count < 2) return null;
  const figure = shareWithDoubt(water.now);
  const spent = water.count >= LEAST_READINGS && passed(water, SPENT_WATER_FACTOR, 'below');
  const toClean = water.count >= LEAST_READINGS && passed(water, OUTPUT_LIMITS.clean, 'below');
  const toWatch = passed(water, OUTPUT_LIMITS.watch, 'below');
  const moved = movedBy ? movedWords(movedBy) : '';
  const verdict = spent
    ? 'It is spent: replace it.'
    : toClean
      ? `Below ${100 * OUTPUT_LIMITS.clean}${THIN}% it is cleaned or replaced.`
      : (dateWords(water, now) ?? `Clean or replace it below ${100 * OUTPUT_LIMITS.clean}${THIN}%.`);
  return {
    id: 'output',
    severity: spent ? 'bad' : toClean ? 'mind' : toWatch ? 'note' : 'good',
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
  const inspect = salt.count >= LEAST_READINGS && passed(salt, PASSAGE_LIMITS.inspect, 'above');
  const watch = passed(salt, PASSAGE_LIMITS.watch, 'above');
  const figure = shareWithDoubt(salt.now);
  return {
    id: 'saltPassage',
    severity: inspect ? 'mind' : watch ? 'note' : 'good',
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

/** Pressure the gauge reads of late, bar: what a share of it is told by. */
const lineBar = (system: System): number => system.source.linePressureBar;

function filterFinding(system: System, { filters }: MembraneTrend): Finding | null {
  if (!filters) return null;
  const least = filters.value - FOUR_IN_FIVE_SD * filters.sd;
  const bar = least * lineBar(system);
  if (least < FILTERS.share || bar < FILTERS.bar) return null;
  const figure = `${Math.round(100 * filters.value)} ± ${Math.max(1, Math.round(100 * FOUR_IN_FIVE_SD * filters.sd))}${THIN}%`;
  const change = least > FILTERS.changeShare && bar > FILTERS.changeBar;
  return {
    id: 'filters',
    severity: !change ? 'note' : least > FILTERS.badShare ? 'bad' : 'mind',
    title: `Filters take ${figure} more of the pressure than clean ones`,
    why: `Product and waste flow fell together, as they do when a filter clogs. ${change ? 'Change the sediment filter.' : 'The membrane is not the cause.'}`,
  };
}

/** A restrictor that takes on scale: seen best after a change of filters, with the waste it costs. */
function restrictorFinding(system: System, { restrictor }: MembraneTrend): Finding | null {
  if (!restrictor || passedBelow(restrictor, RESTRICTOR.told) < SURE) return null;
  const act = passedBelow(restrictor, RESTRICTOR.act) > SURE;
  const part = system.train.stages.some((stage) => stage.kind === 'membrane' && stage.valve !== null) ? 'waste valve' : 'flow restrictor';
  return {
    id: 'restrictor',
    severity: act ? 'mind' : 'note',
    title: `The ${part} passes ${shareWithDoubt(restrictor)} of what it did`,
    why: `At the same pressure less waste flows, as when scale narrows it. The waste ratio falls and scale on the membrane becomes more likely. ${part === 'waste valve' ? 'Clean the valve and set the ratio again.' : 'Change the restrictor.'}`,
  };
}
const passedBelow = ({ value, sd }: Estimate, limit: number): number => normalCumulative((Math.log(limit) - value) / sd);

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
  if (!before || !taken || taken.value < FILTERS.changeShare || (left && left.value > FILTERS.changeShare)) return null;
  return {
    id: 'filterPast',
    severity: 'good',
    title: `The dip of ${dayWords(before.at)} was ${inSentence(change.name)}`,
    why: `It took ${Math.round(100 * taken.value)}${THIN}% of the pressure beyond what a clean one does.${left ? ' Normal again since the change.' : ''}`,
  };
}

/** A step is told from this size on, in ln, and this many standard deviations from none. */
const TOLD_STEP = { passage: 0.25, output: 0.15, sds: 2.5, sameDays: 60 } as const;

/** A step nobody wrote down that is sure and large enough to be told. */
export interface ToldStep {
  readonly of: 'water' | 'salt';
  readonly since: string;
  /** Its whole height in ln, and what the output did with it. */
  readonly by: number;
  readonly otherBy: Estimate;
}

/** Steps of a membrane that are told: one for all that happened within some weeks. */
export function toldSteps({ water, salt }: Pick<MembraneTrend, 'water' | 'salt'>): ToldStep[] {
  const far = (a: string, b: string): boolean => Math.abs(Date.parse(a) - Date.parse(b)) > TOLD_STEP.sameDays * DAY_MS;
  const passage = (salt?.unexplained ?? []).filter(({ by }) => by.value > TOLD_STEP.passage && by.value > TOLD_STEP.sds * by.sd);
  const told = passage.flatMap((step, i): ToldStep[] => {
    const before = passage[i - 1];
    if (before && !far(before.since, step.since)) return [];
    const same = passage.slice(i).filter(({ since }) => !far(since, step.since));
    return [{ of: 'salt', since: step.since, by: same.reduce((sum, { by }) => sum + by.value, 0), otherBy: step.otherBy }];
  });
  const output = (water?.unexplained ?? []).filter(
    ({ since, by }) =>
      Math.abs(by.value) >= TOLD_STEP.output &&
      Math.abs(by.value) >= TOLD_STEP.sds * by.sd &&
      !passage.some((one) => !far(one.since, since)),
  );
  return [...told, ...output.map(({ since, by, otherBy }): ToldStep => ({ of: 'water', since, by: by.value, otherBy }))];
}

/** Steps nobody wrote down, with what they look like. */
const stepFindings = (trend: MembraneTrend): Finding[] =>
  toldSteps(trend).map(({ of, since, by, otherBy }) => {
    const cause =
      of === 'salt'
        ? passageCause(otherBy)
        : `Nothing on record explains it: ${by < 0 ? 'fouling, scale, or a gauge or jug that changed.' : 'most likely a gauge or jug that changed.'}`;
    return {
      id: `step-${of}-${since.slice(0, 10)}`,
      severity: 'mind',
      title: `${of === 'salt' ? 'Salt passage' : 'Output'} ${by < 0 ? 'fell' : 'rose'} ${fell(by)} about ${dayWords(since)}`,
      why: `${cause} If work was done then, write it down.`,
    };
  });

/** Priors and signatures of what lets more salt through at once (science of logs, 7.3): step of the output in ln. */
const CAUSES = {
  oxidation: { water: 0.08, sd: 0.03, prior: 0.5 },
  seal: { water: 0.015, sd: 0.01, prior: 0.5 },
} as const;
const NAMED = 0.75;

/** Chance that a rise of passage is oxidation rather than a seal, by what the output did. */
export function oxidationChance({ value, sd }: Estimate): number {
  const density = ({ water, sd: own, prior }: (typeof CAUSES)[keyof typeof CAUSES]): number => {
    const s = Math.hypot(own, sd);
    return (prior * Math.exp(-0.5 * ((value - water) / s) ** 2)) / s;
  };
  return density(CAUSES.oxidation) / (density(CAUSES.oxidation) + density(CAUSES.seal));
}

function passageCause(outputBy: Estimate): string {
  const oxidised = oxidationChance(outputBy);
  const output = `Output ${outputBy.value < 0 ? 'fell' : 'rose'} ${fell(outputBy.value)} ± ${Math.max(1, Math.round(100 * FOUR_IN_FIVE_SD * outputBy.sd))}${THIN}% with it`;
  if (oxidised > NAMED) return `${output}, as when chlorine damages the membrane. Test for chlorine after the carbon.`;
  if (oxidised < 1 - NAMED) return `${output}, as when a seal leaks. Probe the vessels and look at the O-rings.`;
  return `${output}: chlorine damage or a leaking seal. Test for chlorine after the carbon, then look at the O-rings.`;
}
