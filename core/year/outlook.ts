import {
  atStart,
  DAY_MS,
  DAYS_PER_YEAR,
  dayWords,
  inSentence,
  moneyText,
  ok,
  PPM_PER_USCM,
  THIN,
  words,
  type Outcome,
  type UnitPreference,
} from '../quantity';
import type { Finding } from '../stage';
import { withWhatIf, type Ahead, type WhatIf } from './ahead';
import type { YearBands } from './bands';
import { COST_LINES, COST_WORDS, type CostLine } from '../ledger';
import { simulateYears, type YearPlant, type YearPolicy, type YearRun } from './simulate';

/** What the coming years bring of a system: the run itself, the same without bundling, and what is to be said of both. */

/** What a page draws of a run; days from the start. */
export interface Outlook {
  readonly startMs: number;
  readonly days: number;
  /** What the product may show, ppm. */
  readonly goal: YearPlant['goal'];
  /** What a mean year costs to run, and its visits. */
  readonly meanYear: Ahead['meanYear'];
  /** Factors on the tap's strength that can be asked for. */
  readonly strengths: readonly [low: number, high: number];
  /** The part that is the resin; null without one. */
  readonly resinId: string | null;
  readonly run: YearRun;
  /** Litres needed on each day. */
  readonly needL: Float64Array;
  readonly names: readonly (readonly [id: string, name: string])[];
  /** The same with every change on its own day. */
  readonly apart: { readonly visits: number; readonly totalCost: number } | null;
  /** The first change of the resin so many days late; null without resin, or where none falls in the years. */
  readonly late: { readonly days: number; readonly offSpecDays: number; readonly offSpecL: number; readonly worstPpm: number } | null;
}

/** Days by which a change is looked at coming late. */
const LATE_DAYS = 20;

/** Runs the years with what the sliders move. */
export function outlookOf(ahead: Ahead, days: number, whatIf: WhatIf, policy: YearPolicy): Outcome<Outlook> {
  const plant = withWhatIf(ahead, whatIf);
  const run = simulateYears(plant, days, policy);
  if (!run.ok) return run;
  const apart = policy.bundleDays > 0 ? simulateYears(plant, days, { ...policy, bundleDays: 0 }) : null;
  const missed = plant.resin ? { part: plant.resin.id, which: 1, daysLate: LATE_DAYS } : null;
  const falls = missed && run.value.events.some(({ day, parts }) => parts.includes(missed.part) && day + LATE_DAYS < days);
  const late = missed && falls && !policy.missed ? simulateYears({ ...plant, tank: null }, days, { ...policy, missed }) : null;
  return ok({
    startMs: ahead.startMs,
    days,
    goal: ahead.plant.goal,
    meanYear: ahead.meanYear,
    strengths: ahead.strengths,
    resinId: plant.resin?.id ?? null,
    run: run.value,
    needL: Float64Array.from({ length: days }, (_, day) => plant.demand(day).reduce((sum, litres) => sum + litres, 0)),
    names: [...ahead.names],
    apart: apart?.ok ? { visits: apart.value.visits, totalCost: apart.value.totalCost } : null,
    late: late?.ok
      ? { days: LATE_DAYS, offSpecDays: late.value.offSpecDays, offSpecL: late.value.offSpecL, worstPpm: late.value.worstPpm }
      : null,
  });
}

export const costLineWord = (line: CostLine): string => inSentence(COST_WORDS[line]);

/** Heading of the years: how often somebody comes, what they cost, how good the water stays. */
export function outlookTitle({ days, run, goal }: Outlook, units: UnitPreference, currency: string): string {
  const years = Math.round(days / DAYS_PER_YEAR);
  const span = years <= 1 ? 'The year ahead' : `The ${years === 3 ? 'three' : years === 5 ? 'five' : years} years ahead`;
  const visits = `${run.visits} ${run.visits === 1 ? 'visit' : 'visits'}`;
  const bound = boundWords(goal, units);
  const quality =
    bound === null ? '' : `, ${run.offSpecDays === 0 ? 'never' : `${run.offSpecDays} ${run.offSpecDays === 1 ? 'day' : 'days'}`} ${bound}`;
  const dry = dryDays(run);
  const short = dry === 0 ? '' : `, the tank dry on ${dry} ${dry === 1 ? 'day' : 'days'}`;
  return `${span}: ${visits}, ${moneyText(run.totalCost, currency)}${quality}${short}`;
}

/** What lies outside the goal, in words: above its limit, or outside both. */
export function boundWords({ highPpm, lowPpm }: Outlook['goal'], units: UnitPreference): string | null {
  const water = (ppm: number): string => words(units).water(ppm / PPM_PER_USCM);
  if (highPpm !== null) return lowPpm === null ? `above ${water(highPpm)}` : `outside ${water(lowPpm)} to ${water(highPpm)}`;
  return lowPpm === null ? null : `below ${water(lowPpm)}`;
}

/** Days on which more is drawn than is there. */
const dryDays = ({ unmetL }: YearRun): number => unmetL.filter((litres) => litres > LEAST_UNMET_L).length;
const LEAST_UNMET_L = 0.5;

/** The month, from the start, in which least can be made against what is needed. */
function tightest({ run, needL, days }: Outlook): { readonly day: number; readonly couldL: number; readonly needL: number } {
  const MONTH = 30;
  let best = { day: 0, couldL: Infinity, needL: 1 };
  for (let from = 0; from + MONTH <= days; from += MONTH) {
    let [could, need] = [0, 0];
    for (let day = from; day < from + MONTH; day++) {
      could += run.couldMakeL[day]!;
      need += needL[day]!;
    }
    if (need > 0 && could / need < best.couldL / best.needL) best = { day: from + MONTH / 2, couldL: could / MONTH, needL: need / MONTH };
  }
  return best;
}
/** Output against need below which a month is worth a word. */
const TIGHT = 1.5;
const SHORT = 1.1;

/** What the years bring, in sentences; what is bad comes first. */
export function outlookFindings(
  outlook: Outlook,
  bands: YearBands | null,
  narrows: string | null,
  units: UnitPreference,
  currency: string,
  tank: boolean,
): Finding[] {
  const { run, apart, late, names, startMs, goal, resinId, meanYear } = outlook;
  const bound = boundWords(goal, units);
  const say = words(units);
  const named = new Map(names);
  const money = (amount: number): string => moneyText(amount, currency);
  const at = (day: number): string => dayWords(new Date(startMs + day * DAY_MS).toISOString());
  const findings: Finding[] = [];
  const unmet = run.unmetL.reduce((sum, litres) => sum + litres, 0);
  const tight = tightest(outlook);
  if (unmet >= 1)
    findings.push({
      id: 'year-unmet',
      severity: 'bad',
      title: `${say.of(unmet, 'volumeL')} will be missing`,
      why: `On ${dryDays(run)} days the tank runs dry, most near ${at(run.unmetL.indexOf(Math.max(...run.unmetL)))}. A larger tank or more output closes it.`,
    });
  else if (tight.couldL < TIGHT * tight.needL)
    findings.push({
      id: 'year-tight',
      severity: tight.couldL < SHORT * tight.needL ? 'bad' : 'mind',
      title: `Around ${at(tight.day)} it is tight`,
      why: `The unit then makes ${say.perDay(tight.couldL)}; ${say.perDay(tight.needL)} are needed on average.${tank ? '' : ' It has no tank to make water ahead.'}`,
    });
  if (run.offSpecDays > 0 && bound !== null)
    findings.push({
      id: 'year-off',
      severity: 'bad',
      title: `${run.offSpecDays} days ${bound}`,
      why: `${say.of(run.offSpecL, 'volumeL')}, up to ${say.water(run.worstPpm / PPM_PER_USCM)}.`,
    });
  if (apart && apart.visits > run.visits) {
    const saved = apart.totalCost - run.totalCost;
    findings.push({
      id: 'year-bundled',
      severity: saved >= 0 ? 'good' : 'note',
      title: `${run.visits} visits instead of ${apart.visits}`,
      why:
        saved >= 0
          ? `What falls due soon is changed along; that saves ${money(saved)} in all.`
          : `What falls due soon is changed along; parts thrown early cost ${money(-saved)} more than the visits saved.`,
    });
  }
  // The resin's own date is the one that is asked for; where there is none, the first that moves.
  const moving = (bands?.dates ?? []).filter(({ p90, p10 }) => p90 - p10 > 7).toSorted((a, b) => a.p50 - b.p50);
  const polishes = moving.find(({ part }) => part === resinId);
  const first = polishes ?? moving[0];
  if (first) {
    const weeks = Math.max(1, Math.round((first.p90 - first.p10) / 2 / 7));
    findings.push({
      id: 'year-first',
      severity: 'note',
      title: `${named.get(first.part) ?? 'The next part'} ${at(first.p50)}, give or take ${weeks === 1 ? 'a week' : `${weeks} weeks`}`,
      why:
        narrows === null || !polishes
          ? 'By use, by what the resin holds and by the tap; every reading narrows it.'
          : `Narrowed most by ${narrows}.`,
    });
  }
  if (late)
    findings.push({
      id: 'year-late',
      severity: late.offSpecDays > 0 ? 'mind' : 'good',
      title:
        late.offSpecDays > 0
          ? `Late by ${late.days} days: ${say.of(late.offSpecL, 'volumeL')} at up to ${say.water(late.worstPpm / PPM_PER_USCM)}`
          : `The resin may be ${late.days} days late`,
      why:
        late.offSpecDays > 0
          ? `That is ${late.offSpecDays} days above the goal, were the first change of resin missed for so long.`
          : `The water would still be within ${goal.highPpm === null ? 'the goal' : say.water(goal.highPpm / PPM_PER_USCM)}.`,
    });
  const total = run.totalCost;
  const shares = COST_LINES.filter((line) => run.total[line] >= 0.02 * total)
    .toSorted((a, b) => run.total[b] - run.total[a])
    .map((line, i) => `${costLineWord(line)} ${Math.round((100 * run.total[line]) / total)}${i === 0 ? `${THIN}%` : ''}`);
  findings.push({
    id: 'year-cost',
    severity: 'note',
    title: bands
      ? `${money(run.totalCost)}, ${money(bands.cost.p10)} to ${money(bands.cost.p90)} in 8 of 10 cases`
      : `${money(run.totalCost)} in all`,
    why: `${total > 0 ? `${atStart(shares.join(', '))}.` : 'Nothing is paid for.'} A mean year costs ${money(meanYear.running)} to run${meanYear.visits > 0 ? ` and ${money(meanYear.visits)} in visits` : ''} (Costs); what is paid here falls on its own dates.`,
  });
  return findings;
}
