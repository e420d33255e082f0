import { BED_SD, endAt, updateCapacity, type CapacityBelief, type CapacityEvidence } from '../exchange';
import type { Service, ServiceWhy } from '../file';
import { normalCumulative } from '../numeric';
import { DAY_MS } from '../quantity';
import { endByLooks, type UsedLook } from './colour';
import { CLEAN, crossingOf, HALF, lastClean, PAST, type OutletPoint } from './outlet';

/**
 * The life of a row of resin by its log: what was changed when, what each bed had taken up, and what every end taught
 * (science of logs, 5). Everything is worked out anew from work and readings in order of time, so that work written down
 * late changes the past and not the present.
 */

/** Work on a row: one bed renewed in its place, or the first removed, the others moved up and a new one last. */
export interface RowEvent {
  readonly ms: number;
  /** How far the instant may be off, days. */
  readonly doubtDays: number;
  readonly how: 'renew' | 'moveUp';
  /** Which bed was renewed, first to last from 0. */
  readonly bed: number;
  readonly why: ServiceWhy;
  /** Null where nobody wrote it down and the product alone tells. */
  readonly serviceId: string | null;
}

/** A stretch between two changes. */
export interface RowSpan {
  readonly fromMs: number;
  readonly toMs: number;
  /** Share of each bed that was used when it began, and the doubt of what was free in all, in beds. */
  readonly used: readonly number[];
  readonly freeSd: number;
  /** Readings of its product. */
  readonly outlet: readonly OutletPoint[];
  /** First reading past the goal, and the last clean one before it. */
  readonly crossing: { readonly cleanMs: number; readonly pastMs: number } | null;
  /** Looks at its colour. */
  readonly looks: readonly UsedLook[];
  /** What ended it; null of the one in service. */
  readonly endedBy: RowEvent | null;
  /** What it taught of a bed: the load, and how it ended. */
  readonly taught: RowLesson | null;
}

export interface RowLesson {
  /** Load of a bed at the goal, or at removal, eq. */
  readonly loadEq: number;
  readonly kind: 'breakthrough' | 'atLeast';
}

export interface RowHistory {
  /** Oldest first; the last one is in service. */
  readonly spans: readonly RowSpan[];
  /** Belief in what a bed takes up until the goal, after all of them. */
  readonly belief: CapacityBelief;
  readonly lessons: number;
}

/** Load of the limiting side up to an instant, and the random doubt of what passed between two. */
export interface RowLoad {
  readonly at: (ms: number) => number;
  readonly sdOf: (fromMs: number, toMs: number) => number;
}

/** Chances of an answer where the bed was spent, and where it was clean (5.3, product assumptions). */
const ANSWERS: Readonly<Record<ServiceWhy, readonly [spent: number, clean: number]>> = {
  spent: [0.9, 0.15],
  early: [0.05, 0.6],
  due: [0.5, 0.5],
  broken: [0.5, 0.5],
  other: [0.5, 0.5],
  notSaid: [0.5, 0.5],
};

/** A product read clean this shortly before removal, in load, was clean at removal. */
const AS_GOOD_AS_READ = 0.05;
/** Days in which work written down late still belongs to a change the product showed. */
const LATE_DAYS = 30;
/** Hours a day written down may be off. */
const OFF_BY_MS = 1.5 * DAY_MS;
/** An end so far below what is believed is waited for: one reading is not enough. */
const UNLIKELY = 0.02;

/** Work of this moment may be ahead of the clock the figures were worked out by. */
const JUST_NOW_MS = 2 * 3_600_000;

/** Work on a row as it was written down, oldest first. */
export function rowEvents(services: readonly Service[], stageIds: readonly string[], nowMs: number): RowEvent[] {
  return services
    .filter(
      ({ stageId, work, at }) =>
        stageId !== null &&
        stageIds.includes(stageId) &&
        (work === 'changed' || work === 'movedUp') &&
        Date.parse(at) <= nowMs + JUST_NOW_MS,
    )
    .map((service): RowEvent => {
      const ms = Math.min(nowMs, Date.parse(service.at));
      return {
        ms,
        // Noon is the hour of a day nobody gave one for.
        doubtDays: ms % DAY_MS === DAY_MS / 2 ? 0.3 : 0.05,
        how: service.work === 'movedUp' ? 'moveUp' : 'renew',
        bed: stageIds.indexOf(service.stageId!),
        why: service.why,
        serviceId: service.id,
      };
    })
    .sort((a, b) => a.ms - b.ms);
}

/**
 * The next change after an instant: as written down, or moved to where the product shows it, or the product's own word
 * where nobody wrote one down.
 *
 * @param due chance that the row had come to its end at a load, by what is believed of it
 * @param unwritten what is taken to have been done where nobody wrote it down
 */
function nextChange(
  fromMs: number,
  events: readonly RowEvent[],
  outlet: readonly OutletPoint[],
  due: (ms: number) => number,
  signs: readonly ChangeSign[],
  unwritten: Pick<RowEvent, 'how' | 'bed'>,
): { readonly event: RowEvent; readonly uses: RowEvent | null } | null {
  const written = events[0] ?? null;
  for (let i = 1; i < outlet.length; i++) {
    const [last, clean] = [outlet[i - 1]!, outlet[i]!];
    if (last.ms < fromMs || !(clean.past < CLEAN && last.past >= PAST)) continue;
    if (written && written.ms <= last.ms - OFF_BY_MS) break;
    // Written down within the two readings: as it is.
    if (written && written.ms > last.ms && written.ms <= clean.ms) break;
    const middle = (clean.ms + last.ms) / 2;
    const doubtDays = (clean.ms - last.ms) / DAY_MS / Math.sqrt(12);
    // A day written down just before the last reading of the old bed.
    if (written && written.ms <= last.ms) return { event: { ...written, ms: last.ms + 1, doubtDays: 1 }, uses: written };
    const quiet = written && !outlet.some(({ ms, past }) => ms > clean.ms && ms < written.ms && past >= HALF);
    if (written && quiet && written.ms - clean.ms <= LATE_DAYS * DAY_MS)
      return { event: { ...written, ms: middle, doubtDays }, uses: written };
    // It rose before, or its end was near: it was changed, and nobody wrote it down. Else a first minute's water, or a slip.
    const rose =
      outlet[i - 2] !== undefined && outlet[i - 2]!.ms >= fromMs && outlet[i - 2]!.ec25UScm > RISEN * Math.max(clean.ec25UScm, 0.05);
    const stays = (outlet[i + 1]?.past ?? 0) < HALF;
    if (stays && due(last.ms) > (rose ? CAN_BE_DUE : LIKELY_DUE))
      return { event: { ms: middle, doubtDays, ...unwritten, why: 'notSaid', serviceId: null }, uses: null };
  }
  // A sign of the change this stretch began with is none of the next.
  const sign = signs.find((one) => one.fromMs > fromMs + SETTLED_MS);
  if (sign && !(written && written.ms <= sign.toMs)) {
    const event = { ms: (sign.fromMs + sign.toMs) / 2, doubtDays: (sign.toMs - sign.fromMs) / DAY_MS / Math.sqrt(12) };
    if (written && written.ms - sign.toMs <= LATE_DAYS * DAY_MS) return { event: { ...written, ...event }, uses: written };
    return { event: { ...event, ...unwritten, why: 'notSaid', serviceId: null }, uses: null };
  }
  return written && { event: written, uses: written };
}

/** What shows that a bed was changed though nobody may have written it down: a counter set anew, a colour that begins again. */
export interface ChangeSign {
  readonly fromMs: number;
  readonly toMs: number;
}

const SETTLED_MS = 3 * DAY_MS;

/** How far a product stands above a clean one when it has begun to rise. */
const RISEN = 2.5;
/** A row this likely to have come to its end was changed, where its product fell back to clean. */
const LIKELY_DUE = 0.15;
/** The same where it rose before. */
const CAN_BE_DUE = 0.003;

/** What a replay is made of. */
export interface RowReplay {
  /** When the first stretch began, with the share of each bed that was used then. */
  readonly fromMs: number;
  readonly used: readonly number[];
  readonly events: readonly RowEvent[];
  readonly outlet: readonly OutletPoint[];
  readonly looks: readonly UsedLook[];
  readonly signs: readonly ChangeSign[];
  readonly load: RowLoad;
  /** Belief in one bed's load at the goal before any of it. */
  readonly prior: CapacityBelief;
  readonly nowMs: number;
  /** Share that a bed had used already when it was put in, by the work that put it in. */
  readonly broughtBy: (event: RowEvent) => number;
}

/** Replays a row of beds of one size from its beginning. */
export function rowHistory({ fromMs, used, events, outlet, looks, signs, load, prior, nowMs, broughtBy }: RowReplay): RowHistory {
  const spans: RowSpan[] = [];
  let state: RowState = { used, freeSd: 0 };
  let belief = prior;
  let lessons = 0;
  let start = fromMs;
  let left = events.filter(({ ms }) => ms > fromMs);
  // Who moves beds up does so whether or not it is written down; of others nobody knows which bed was changed.
  const unwritten = events.some(({ how }) => how === 'moveUp')
    ? ({ how: 'moveUp', bed: 0 } as const)
    : ({ how: 'renew', bed: -1 } as const);
  for (;;) {
    const taken = (ms: number): number => load.at(ms) - load.at(start);
    const freeBeds = free(state);
    /** Load of one whole bed that so much load of this row stands for. */
    const perBed = (ms: number): number => Math.max(0, taken(ms)) / freeBeds;
    const due = (ms: number): number => chanceBelow(belief, perBed(ms));
    const change = nextChange(start, left, outlet, due, signs, unwritten);
    const event = change?.event ?? null;
    left = left.filter((one) => one !== change?.uses);
    const end = event?.ms ?? nowMs;
    const own = outlet.filter(({ ms }) => ms >= start && (event ? ms < end : ms <= end));
    const seen = looks.filter(({ ms }) => ms >= start && ms < end);
    const crossing = crossingIn(own, start, (ms) => due(ms), event !== null);
    const span = {
      fromMs: start,
      toMs: end,
      used: state.used,
      freeSd: state.freeSd,
      outlet: own,
      crossing,
      looks: seen,
      endedBy: event,
    };
    if (!event) return { spans: [...spans, { ...span, taught: null }], belief, lessons };
    const told = evidenceOf(span, event, perBed, load);
    let taught: RowLesson | null = null;
    if (told) {
      for (const one of told.evidence) belief = updateCapacity(belief, one, bedScatter(state));
      lessons += 1;
      taught = told.taught;
    }
    spans.push({ ...span, taught });
    const clean = lastClean(own);
    const after = filled(state, taken(end), clean ? taken(clean.ms) : 0, crossing !== null, belief);
    state = removed(after, event, broughtBy(event));
    start = end;
  }
}

/** How much of each bed of a row is used, and the doubt of what is free in all, in beds. */
export interface RowState {
  readonly used: readonly number[];
  readonly freeSd: number;
}

/** Beds' worth that a row still takes; never quite none. */
export const free = ({ used }: RowState): number =>
  Math.max(
    LEAST_FREE,
    used.reduce((sum, share) => sum + 1 - share, 0),
  );
const LEAST_FREE = 0.02;

/** Scatter of a row's end about what its kind lets expect: of each bed by what is free of it, and of what is free. */
export function bedScatter(state: RowState): number {
  const freeBeds = free(state);
  const own = Math.sqrt(state.used.reduce((sum, share) => sum + (1 - share) ** 2, 0));
  return Math.hypot(BED_SD * Math.min(1, own / freeBeds), Math.min(0.5, state.freeSd / freeBeds));
}

const chanceBelow = (belief: CapacityBelief, loadEq: number): number =>
  loadEq > 0 ? normalCumulative((Math.log(loadEq) - belief.lnMean) / Math.hypot(belief.sd, BED_SD, LOAD_SD)) : 0;
const LOAD_SD = 0.1;
const QUANTILES = 15;

/**
 * What is used of each bed after a row took up so much: the first fills first. Of a row past its goal all is used.
 *
 * @param cleanEq load at its last clean reading: its end lies beyond
 */
export function filled(state: RowState, takenEq: number, cleanEq: number, isPast: boolean, belief: CapacityBelief): RowState {
  if (isPast) return { used: state.used.map(() => 1), freeSd: 0 };
  const freeBeds = free(state);
  const end = endAt({ lnMean: belief.lnMean + Math.log(freeBeds), sd: belief.sd }, cleanEq, bedScatter(state));
  const sums = state.used.map(() => 0);
  let [frees, squares] = [0, 0];
  for (let i = 0; i < QUANTILES; i++) {
    // In beds: what was taken against what the row can take.
    let rest = Math.min(1, takenEq / Math.max(1e-9, end((i + 0.5) / QUANTILES))) * freeBeds;
    let freeHere = 0;
    state.used.forEach((share, k) => {
      const takes = Math.min(rest, 1 - share);
      rest -= takes;
      sums[k]! += share + takes;
      freeHere += 1 - share - takes;
    });
    frees += freeHere;
    squares += freeHere * freeHere;
  }
  const variance = Math.max(0, squares / QUANTILES - (frees / QUANTILES) ** 2);
  return { used: sums.map((sum) => sum / QUANTILES), freeSd: Math.hypot(Math.sqrt(variance), state.freeSd) };
}

/** A row after work on it; what was brought in used already lies in the new bed. */
function removed({ used, freeSd }: RowState, event: RowEvent, brought: number): RowState {
  // Nobody wrote down which: all of a row that was past its goal.
  if (event.bed < 0) return { used: used.map(() => 0), freeSd: 0 };
  const next =
    event.how === 'moveUp' && used.length > 1
      ? [...used.slice(0, event.bed), ...used.slice(event.bed + 1), brought]
      : used.map((share, i) => (i === event.bed ? brought : share));
  const left = next.reduce((sum, share) => sum + share * (1 - share), 0);
  // A doubt of what is free stays only where a bed is left that is neither fresh nor wholly used.
  return { used: next, freeSd: used.length > 1 && left > 0 ? Math.min(freeSd, Math.sqrt(left)) : 0 };
}

/** Where the product of a stretch passed the goal for good. */
function crossingIn(own: readonly OutletPoint[], fromMs: number, due: (ms: number) => number, ended: boolean): RowSpan['crossing'] {
  const first = crossingOf(own);
  if (first === null) return null;
  const point = own[first]!;
  // One reading alone, far before anything is believed to end: a first minute's water, a slip. The next one tells.
  if (first === own.length - 1 && due(point.ms) < (ended ? CAN_BE_DUE : UNLIKELY)) return null;
  const clean = lastClean(own.slice(0, first));
  return { cleanMs: clean?.ms ?? fromMs, pastMs: point.ms };
}

/** What the end of a stretch tells of one bed, as evidence in order. */
function evidenceOf(
  span: Pick<RowSpan, 'fromMs' | 'toMs' | 'outlet' | 'crossing' | 'looks'>,
  event: RowEvent,
  bed: (ms: number) => number,
  load: RowLoad,
): { readonly evidence: readonly CapacityEvidence[]; readonly taught: RowLesson } | null {
  const { fromMs, toMs, outlet, crossing, looks } = span;
  const endEq = bed(toMs);
  if (!(endEq > 0)) return null;
  const random = load.sdOf(fromMs, toMs);
  if (crossing) {
    const [fromEq, toEq] = [bed(crossing.cleanMs), bed(crossing.pastMs)];
    return {
      evidence: [{ kind: 'between', fromEq, toEq, loadSd: random }],
      taught: { loadEq: Math.sqrt(Math.max(fromEq, 0.5 * toEq) * toEq), kind: 'breakthrough' },
    };
  }
  const looked = endByLooks(looks, bed);
  if (looked) {
    const { loadEq, sd } = looked;
    return { evidence: [{ kind: 'breakthrough', loadEq, loadSd: Math.hypot(random, sd) }], taught: { loadEq, kind: 'breakthrough' } };
  }
  const perDay = endEq / Math.max(1, (toMs - fromMs) / DAY_MS);
  const loadSd = Math.hypot(random, Math.min(0.5, (perDay * event.doubtDays) / endEq));
  const clean = lastClean(outlet);
  const cleanEq = clean ? bed(clean.ms) : 0;
  if (clean && endEq - cleanEq < AS_GOOD_AS_READ * endEq)
    return { evidence: [{ kind: 'removedBefore', loadEq: endEq, loadSd }], taught: { loadEq: endEq, kind: 'atLeast' } };
  const evidence: CapacityEvidence[] = cleanEq > 0 ? [{ kind: 'removedBefore', loadEq: cleanEq, loadSd: random }] : [];
  // What is said of a lead says nothing of its row.
  const [saidSpent, saidClean] = event.how === 'renew' ? ANSWERS[event.why] : ANSWERS.notSaid;
  if (saidSpent !== saidClean) evidence.push({ kind: 'unread', loadEq: endEq, loadSd, saidSpent, saidClean });
  return evidence.length > 0 ? { evidence, taught: { loadEq: Math.max(cleanEq, 0), kind: 'atLeast' } } : null;
}
