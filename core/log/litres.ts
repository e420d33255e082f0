import type { Reading, System, Train } from '../file';
import { lastFrom } from '../numeric';
import { DAY_MS } from '../quantity';
import { inOrder } from './series';
import { usePlan, type UsePlan } from './usePlan';

/**
 * Litres of product over the life of a log: by the meter between the readings that hold one, by the planned use at this
 * system's own level before, after and wherever the meter tells nothing. A counter may count up or down, be set anew, run
 * over its last digit or be replaced; a figure that fits neither its neighbours nor the use is passed over (science of
 * logs, 2.5).
 */

/** Litres between two readings that hold a meter, and whether the meter told them. */
interface Span {
  readonly fromMs: number;
  readonly toMs: number;
  readonly litres: number;
  readonly metered: boolean;
}

export interface LitresCounted {
  /** Litres passed from the first instant of the log up to an instant, ms; before and after it by the plan. */
  readonly at: (ms: number) => number;
  /** Level of use against the plan about an instant, and its doubt in ln: the weeks before it, shrunk to the plan. */
  readonly levelAt: (ms: number) => { readonly level: number; readonly sd: number };
  /** Whether the meter told what passed between two instants: all of it, some or none. */
  readonly toldBy: (fromMs: number, toMs: number) => 'meter' | 'both' | 'design';
  /** Instants about which a counter that runs down was set anew, ms. */
  readonly setAnew: readonly number[];
  /** Readings whose meter figure is not believed. */
  readonly odd: ReadonlySet<string>;
  readonly plan: UsePlan;
  readonly spans: readonly Span[];
}

/** How often more than planned may be used between two readings before the figure is doubted. */
const MOST_TIMES = 4;
/** Litres that are nobody's slip whatever was planned. */
const ALWAYS_L = 30;
/** A counter without a known last figure runs over at a power of ten it has come this close to. */
const NEAR_FULL = 0.8;

/** Doubt of the level before a week was metered, and what a metered week tells of it (2.5). */
const LEVEL_SD = 0.35;
const WEEK_SD = 0.15;
/** Days the present level looks back, and the days after which a week counts by a third. */
const LOOK_BACK_DAYS = 56;
const FADES_DAYS = 40;

/** Counts the litres of a system's log. */
export function litresCounted(system: Pick<System, 'goal' | 'away' | 'train'>, readings: readonly Reading[]): LitresCounted {
  const plan = usePlan(system);
  const { spans, odd, setAnew } = spansOf(inOrder(readings), system.train, plan);
  const levelAt = levels(spans, plan);
  const startMs = spans[0]?.fromMs ?? 0;
  // Totals at the ends of the spans, so that any instant costs a search and one piece of the plan.
  const totals = [0];
  for (const { litres } of spans) totals.push(totals.at(-1)! + litres);
  const at = (ms: number): number => {
    const first = spans[0];
    const last = spans.at(-1);
    if (!first || !last) return plan.between(startMs, ms);
    if (ms <= first.fromMs) return -levelAt(first.fromMs).level * plan.between(ms, first.fromMs);
    if (ms >= last.toMs) return totals.at(-1)! + levelAt(last.toMs).level * plan.between(last.toMs, ms);
    const i = lastFrom(spans, (span) => span.fromMs, ms);
    const { fromMs, toMs, litres } = spans[i]!;
    const whole = plan.between(fromMs, toMs);
    const share = whole > 0 ? plan.between(fromMs, ms) / whole : (ms - fromMs) / (toMs - fromMs);
    return totals[i]! + litres * share;
  };
  return { at, levelAt, toldBy: (fromMs, toMs) => toldBy(spans, fromMs, toMs), setAnew, odd, plan, spans };
}

/** What one figure of the meter after another means; null where it cannot be told from the two. */
function counted(before: number, after: number, meter: Train['meter'], expectedL: number, isConfirmed = false): number | null {
  // What somebody confirmed is believed, however much it is.
  const most = isConfirmed ? Infinity : Math.max(ALWAYS_L, MOST_TIMES * expectedL);
  const fits = (litres: number): number | null => (litres >= 0 && litres <= most ? litres : null);
  if (meter.counts === 'down') return after <= before ? fits(before - after) : null;
  if (after >= before) return fits(after - before);
  if (meter.rollsOverL !== null) return fits(meter.rollsOverL - before + after);
  const full = 10 ** Math.ceil(Math.log10(Math.max(10, before)));
  return before >= NEAR_FULL * full ? fits(full - before + after) : null;
}

/**
 * A counter that runs down and stands higher than before was set anew: what it shows less than it was set to has passed
 * since, and when that was follows from the use.
 */
function setAnewAt(
  reading: Reading,
  fromMs: number,
  { setToL }: Train['meter'],
  level: number,
  plan: UsePlan,
): { ms: number; sinceL: number } {
  const toMs = Date.parse(reading.at);
  const sinceL = Math.max(0, (setToL ?? reading.meterL!) - reading.meterL!);
  let [low, high] = [fromMs, toMs];
  for (let round = 0; round < 30; round++) {
    const middle = (low + high) / 2;
    if (level * plan.between(middle, toMs) > sinceL) low = middle;
    else high = middle;
  }
  // A minute at least to either side: two ends are never one instant.
  return { ms: Math.min(toMs - 60_000, Math.max(fromMs + 60_000, (low + high) / 2)), sinceL };
}

/** A meter that was put in with the first parts has counted since: its total then goes with the use planned since that day. */
const SINCE_FITTED = { leastDays: 7, times: 2 } as const;
function sinceFitted(first: Reading | undefined, { meter, stages }: Train, plan: UsePlan): Span | null {
  const days = stages.flatMap((stage) => ('fittedOn' in stage && stage.fittedOn !== null ? [stage.fittedOn] : []));
  if (!first || days.length === 0 || meter.counts === 'down') return null;
  const [fromMs, toMs] = [Date.parse(`${days.sort()[0]!}T00:00:00Z`), Date.parse(first.at)];
  const expected = plan.between(fromMs, toMs);
  const { leastDays, times } = SINCE_FITTED;
  const fits = first.meterL! > expected / times && first.meterL! < expected * times;
  return toMs - fromMs >= leastDays * DAY_MS && fits ? { fromMs, toMs, litres: first.meterL!, metered: true } : null;
}

function spansOf(
  ordered: readonly Reading[],
  train: Train,
  plan: UsePlan,
): { readonly spans: Span[]; readonly odd: Set<string>; readonly setAnew: number[] } {
  const { meter } = train;
  const setAnew: number[] = [];
  const odd = new Set<string>();
  const metered = ordered.filter((reading) => reading.meterL !== null);
  const begun = sinceFitted(metered[0], train, plan);
  const spans: Span[] = begun ? [begun] : [];
  let level = 1;
  let before = metered[0];
  for (let i = 1; i < metered.length; i++) {
    const reading = metered[i]!;
    // Two of one minute are in the order they were written in.
    const fromMs = spans.at(-1)?.toMs ?? Date.parse(before!.at);
    const toMs = Math.max(fromMs + 1, Date.parse(reading.at));
    const expected = level * plan.between(fromMs, toMs);
    if (meter.counts === 'down' && reading.meterL! > before!.meterL! && isSetTo(reading.meterL!, meter)) {
      const set = setAnewAt(reading, fromMs, meter, level, plan);
      spans.push({ fromMs, toMs: set.ms, litres: level * plan.between(fromMs, set.ms), metered: false });
      spans.push({ fromMs: set.ms, toMs, litres: set.sinceL, metered: true });
      setAnew.push(set.ms);
      before = reading;
      continue;
    }
    const litres = counted(before!.meterL!, reading.meterL!, meter, expected, reading.confirmed.includes('meterL'));
    if (litres !== null) {
      spans.push({ fromMs, toMs, litres, metered: true });
      // The level follows slowly: it only says what is too much.
      if (expected > 0) level *= Math.exp(0.2 * Math.log(Math.max(0.2, Math.min(3, litres / expected))));
      before = reading;
      continue;
    }
    // Which of the two is odd: the next one fits the one before, or goes on from this one.
    const next = metered[i + 1];
    const skips = next && counted(before!.meterL!, next.meterL!, meter, level * plan.between(fromMs, Date.parse(next.at)));
    const goesOn = next && counted(reading.meterL!, next.meterL!, meter, level * plan.between(toMs, Date.parse(next.at)));
    if (goesOn !== null && goesOn !== undefined && (skips === null || skips === undefined)) {
      // A meter that was replaced, or set back: what passed meanwhile is not known.
      spans.push({ fromMs, toMs, litres: expected, metered: false });
      before = reading;
    } else odd.add(reading.id);
  }
  return { spans, odd, setAnew };
}

/** The level of use about an instant, by the metered spans of the weeks before it. */
function levels(spans: readonly Span[], plan: UsePlan): LitresCounted['levelAt'] {
  const known = new Map<number, { level: number; sd: number }>();
  const metered = spans.filter((span) => span.metered);
  return (ms) => {
    const day = Math.floor(ms / DAY_MS);
    const before = known.get(day);
    if (before) return before;
    const own = metered.flatMap((span) => {
      const age = (ms - (span.fromMs + span.toMs) / 2) / DAY_MS;
      const planned = plan.between(span.fromMs, span.toMs);
      if (age < 0 || age > LOOK_BACK_DAYS || span.toMs > ms + DAY_MS || !(planned > 0)) return [];
      const weight = Math.exp(-age / FADES_DAYS);
      return [{ litres: weight * span.litres, planned: weight * planned, days: (weight * (span.toMs - span.fromMs)) / DAY_MS }];
    });
    // A stretch of far less than usual was a holiday nobody told of: it counts as the days of use it holds, no more.
    const usual = middleRatio(own);
    const [litres, planned, weeks] = own.reduce<readonly [number, number, number]>(
      (sum, one) => {
        const counts = Math.min(1, one.litres / one.planned / (HOLIDAY * usual));
        return [sum[0] + one.litres, sum[1] + one.planned * counts, sum[2] + (one.days * counts) / 7];
      },
      [0, 0, 0],
    );
    const found = levelFrom(litres, planned, weeks);
    known.set(day, found);
    return found;
  };
}

/** A stretch of less than this share of the usual holds days away. */
const HOLIDAY = 0.65;

/** Litres against the plan in the middle stretch, each by the days it holds. */
function middleRatio(own: readonly { readonly litres: number; readonly planned: number; readonly days: number }[]): number {
  const sorted = own.map((one) => ({ ratio: one.litres / one.planned, days: one.days })).sort((a, b) => a.ratio - b.ratio);
  const half = sorted.reduce((sum, { days }) => sum + days, 0) / 2;
  let run = 0;
  for (const { ratio, days } of sorted) {
    run += days;
    if (run >= half) return ratio;
  }
  return 1;
}

/** Level of use after so many metered weeks, shrunk to the plan. */
export function levelFrom(litres: number, planned: number, weeks: number): { readonly level: number; readonly sd: number } {
  if (!(planned > 0) || !(litres > 0) || !(weeks > 0)) return { level: 1, sd: LEVEL_SD };
  const [prior, seen] = [1 / LEVEL_SD ** 2, weeks / WEEK_SD ** 2];
  return { level: Math.exp((Math.log(litres / planned) * seen) / (prior + seen)), sd: 1 / Math.sqrt(prior + seen) };
}

function toldBy(spans: readonly Span[], fromMs: number, toMs: number): 'meter' | 'both' | 'design' {
  const told = spans.reduce(
    (ms, span) => ms + (span.metered ? Math.max(0, Math.min(span.toMs, toMs) - Math.max(span.fromMs, fromMs)) : 0),
    0,
  );
  // A day at either end is carried on by the plan in any log.
  return told <= 0 ? 'design' : told >= toMs - fromMs - DAY_MS ? 'meter' : 'both';
}

/** Whether a figure can be of a counter that was set anew: no more than it is set to. */
const isSetTo = (shown: number, { setToL }: Train['meter']): boolean => setToL === null || shown <= setToL * (1 + SET_WITHIN);

/** Whether a meter that counts down can show this after that: less, or at most what it is set to. */
export const isCountedDown = (shown: number, before: number, meter: Train['meter']): boolean =>
  shown <= before || (meter.setToL !== null && isSetTo(shown, meter));
/** How far above its setting a counter may be set. */
const SET_WITHIN = 0.05;
