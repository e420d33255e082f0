import {
  bandOf,
  bedCapacityEq,
  endAt,
  firstThrough,
  loadSd,
  PRIOR_SD,
  updateCapacity,
  usedAtGoal,
  type Band,
  type CapacityBelief,
} from '../exchange';
import { stoodBefore, type Cartridge, type Reading, type System } from '../file';
import { stageBed, type StageOf } from '../stage';
import type { SolvedTrain } from '../train';
import { strengthOf } from '../advice';
import { beforeFirstBed } from '../life';
import { DAY_MS } from '../quantity';
import { smallestStepUScm } from '../water';
import { COLOUR_TELLS, colourShare, endByLooks, type UsedLook } from './colour';
import { litresCounted } from './litres';
import { loadCounted, type LoadCounted } from './loads';
import { HALF, lastClean, outletPoints, PAST, type OutletPoint } from './outlet';
import { daysUntil } from './resinDate';
import {
  bedScatter,
  filled,
  free,
  rowEvents,
  rowHistory,
  type RowEvent,
  type ChangeSign,
  type RowHistory,
  type RowSpan,
} from './rowHistory';
import { inOrder, probeRoles } from './series';

/** What the first row of resin had taken up at one reading. */
export interface ResinPoint {
  readonly at: string;
  readonly litres: number;
  readonly cationEq: number;
  readonly anionEq: number;
  /** Share of the capacity left, of the side that has less. */
  readonly remaining: Band;
}

/** A bed of the row, first to last. */
export interface BedFill {
  readonly stageId: string;
  readonly name: string;
  readonly fittedOn: string | null;
  /** Share of its load at the goal that it has taken up, middle of the belief. */
  readonly used: number;
}

/** Where the forecast stands: by the load alone, by a product that rises, at the goal by half, or past it. */
export type ResinState = 'clean' | 'rising' | 'atGoal' | 'spent';

/** The first row of resin of a train as the log sees it: one bed, or several one behind the other. */
export interface ResinTracking {
  readonly stageId: string;
  readonly name: string;
  readonly fittedAt: string;
  readonly points: readonly ResinPoint[];
  readonly litres: number;
  readonly cationEq: number;
  readonly anionEq: number;
  readonly limiting: 'cation' | 'anion';
  /** The ion that side will most likely let through first, in a word; null for a water that brings it nothing. */
  readonly firstIon: string | null;
  /** Load of the row at the goal, and what it is learned from. */
  readonly capacityEq: number;
  readonly learnedFrom: number;
  readonly capacitySd: number;
  readonly remaining: Band;
  readonly daysLeft: Band | null;
  readonly ratePerDayEq: number;
  /** Whether litres came from the meter, from the design use, or from both. */
  readonly volumeFrom: 'meter' | 'design' | 'both';
  readonly rateFrom: 'log' | 'design';
  /** Longest time between two readings, days. */
  readonly longestGapDays: number;
  readonly state: ResinState;
  /** First reading past the goal of what stands in it, and the last clean one before; null while it holds. */
  readonly spentBetween: { readonly from: string; readonly to: string } | null;
  readonly beds: readonly BedFill[];
  /** Stretches between changes, oldest first, the present one last. */
  readonly history: RowHistory;
}

/** Share of the capacity left by a row whose product is past the goal. */
const LEFT_WHEN_SPENT: Band = { p10: 0, p50: 0, p90: 0.05 };
/** A front is read in the product from this share of the goal, where the meter's step is this small against it. */
const RISING = { from: 0.1, finest: 0.2, slowest: 3, sd: 0.02, perShare: 0.5 } as const;

/** Resin stages that follow one another from the first, of one class: one row. */
export function firstRow(stages: System['train']['stages']): readonly StageOf<'resin'>[] {
  const from = stages.findIndex(({ kind }) => kind === 'resin');
  const first = stages[from];
  if (first?.kind !== 'resin') return [];
  const row: StageOf<'resin'>[] = [];
  for (const stage of stages.slice(from)) {
    if (stage.kind !== 'resin' || stage.resinClass !== first.resinClass) break;
    row.push(stage);
  }
  return row;
}

/**
 * Follows the first row of resin through the log: equivalents taken up, the load at the goal as a belief that every
 * cartridge before has taught, what is left and when it ends. What the product shows comes before what was counted.
 *
 * @param solved the train as it is now
 * @param now instant to which use since the last reading is carried on
 * @returns null without a resin, or when neither a date nor a reading says since when it is in
 */
export function trackResin(system: System, readings: readonly Reading[], solved: SolvedTrain, now: string): ResinTracking | null {
  const row = firstRow(system.train.stages);
  const [first] = row;
  const state = solved.resins[0];
  if (!first || state?.stageId !== first.id) return null;
  const ordered = inOrder(readings).filter(({ at }) => Date.parse(at) <= Date.parse(now) + DAY_MS);
  // A reading of this moment may be ahead of the clock the figures were worked out by.
  const nowMs = Math.max(Date.parse(now), lastMs(ordered) ?? 0) + 1;
  const litres = litresCounted(system, ordered);
  const loads = loadCounted(system, ordered, solved, litres);
  if (!loads) return null;
  const ids = row.map(({ id }) => id);
  const goalUScm = strengthOf(system, solved)?.highUScm ?? null;
  const { afterResin } = probeRoles(system);
  const readsRow = afterResin && ids.at(-1) === lastResinId(system);
  const outlet = readsRow && goalUScm !== null ? outletPoints(system, ordered, afterResin.id, goalUScm) : [];
  const events = withImplied(rowEvents(system.services, ids, nowMs), first);
  const fromMs = startOf(system, row, events, ordered);
  if (fromMs === null) return null;

  const priors = priorsOf(system, solved, row, goalUScm);
  const limiting = limitingSide(priors, loads, nowMs);
  const prior = priors[limiting]!;
  const side = `${limiting}Eq` as const;
  const taught = earlier(prior, system.cartridges, first, limiting, events);
  const rowLoad = { at: (ms: number) => loads.at(ms)[side], sdOf: loads.sdOf };
  const bedEq = Math.exp(taught.belief.lnMean);
  const brought = (bed: StageOf<'resin'>): number => Math.min(1, bed.carriedEq[limiting] / bedEq);
  const lastEvent = events.at(-1);
  // Colour is told of one bed alone: of a row nobody knows which.
  const looks = row.length === 1 ? colourLooks(ordered) : [];
  const history = rowHistory({
    fromMs,
    used: lastEvent && lastEvent.ms > fromMs ? row.map(() => 0) : row.map(brought),
    events,
    outlet,
    looks,
    signs: [...litres.setAnew.map((ms) => ({ fromMs: ms - DAY_MS, toMs: ms + DAY_MS })), ...coloursBegun(looks)].sort(
      (a, b) => a.toMs - b.toMs,
    ),
    load: rowLoad,
    prior: taught.belief,
    nowMs,
    broughtBy: (event) => (event === lastEvent && event.bed >= 0 ? brought(row[event.how === 'moveUp' ? row.length - 1 : event.bed]!) : 0),
  });
  const span = history.spans.at(-1)!;
  const { belief } = history;
  const loadAt = (ms: number): number => rowLoad.at(ms) - rowLoad.at(span.fromMs);
  const loadEq = loadAt(nowMs);
  const capacityEq = row.length * Math.exp(belief.lnMean);
  const rowEq = free(span) * Math.exp(belief.lnMean);
  const meter = system.instruments.find(({ id }) => id === afterResin?.instrumentId);
  const present = presentState(span, goalUScm, meter, (a, b) => (loadAt(b.ms) - loadAt(a.ms)) / rowEq, priors.stillToCome[limiting]);
  const ends = rowEnds(span, belief, loadAt, loads.sdOf, present, priors.stillToCome[limiting]);
  const end = ends(nowMs, present.state);
  const left = (at: number, endEq: (share: number) => number): Band =>
    bandOf((share) => Math.max(0, Math.min(1, 1 - at / Math.max(1e-9, endEq(share)))));
  const isSpent = present.state === 'spent' || present.state === 'atGoal';
  const remaining: Band = isSpent ? LEFT_WHEN_SPENT : left(loadEq, end);
  const perLitre = loads.perLitre(nowMs)[`${limiting}MeqL`] / 1000;
  const level = litres.levelAt(nowMs);
  const spanReadings = ordered.filter(({ at }) => Date.parse(at) >= span.fromMs && Date.parse(at) <= nowMs);
  const perDayL = level.level * (litres.plan.between(nowMs, nowMs + 28 * DAY_MS) / 28);
  const daysLeft = isSpent
    ? { p10: 0, p50: 0, p90: 0 }
    : perLitre > 0
      ? daysUntil((share) => Math.max(0, end(share) - loadEq) / perLitre, level, litres.plan, nowMs)
      : null;
  const totals = loads.at(nowMs);
  const begun = loads.at(span.fromMs);
  const today = filled(span, Math.max(0, loadEq), lastCleanEq(span, loadAt), span.crossing !== null, belief);
  const carriedEq = (of: 'cation' | 'anion'): number =>
    of === limiting ? sum(span.used) * Math.exp(belief.lnMean) : sum(row.map((bed) => bed.carriedEq[of]));
  const eqOf = (of: 'cation' | 'anion', at: { cationEq: number; anionEq: number }): number =>
    carriedEq(of) + at[`${of}Eq`] - begun[`${of}Eq`];
  return {
    stageId: first.id,
    name: first.name,
    fittedAt: new Date(span.fromMs).toISOString(),
    points: spanReadings.map((reading) => {
      const ms = Date.parse(reading.at);
      const at = loads.at(ms);
      const past = span.crossing !== null && ms >= span.crossing.pastMs;
      return {
        at: reading.at,
        litres: at.litres - begun.litres,
        cationEq: eqOf('cation', at),
        anionEq: eqOf('anion', at),
        remaining: past ? LEFT_WHEN_SPENT : left(loadAt(ms), ends(ms, 'clean')),
      };
    }),
    litres: totals.litres - begun.litres,
    cationEq: eqOf('cation', totals),
    anionEq: eqOf('anion', totals),
    limiting,
    firstIon: firstThrough(state.feed, limiting),
    capacityEq,
    learnedFrom: history.lessons + taught.count,
    capacitySd: belief.sd,
    remaining,
    daysLeft: perDayL > 0 || isSpent ? daysLeft : null,
    ratePerDayEq: perDayL * perLitre,
    volumeFrom: litres.toldBy(span.fromMs, Math.max(span.fromMs, Math.min(nowMs, lastMs(ordered) ?? nowMs))),
    rateFrom: litres.spans.some(({ metered, toMs }) => metered && toMs > nowMs - 56 * DAY_MS) ? 'log' : 'design',
    longestGapDays: longestGap(span.fromMs, spanReadings),
    state: present.state,
    spentBetween: span.crossing && {
      from: new Date(span.crossing.cleanMs).toISOString(),
      to: new Date(span.crossing.pastMs).toISOString(),
    },
    beds: row.map((bed, i) => ({
      stageId: bed.id,
      name: bed.name,
      fittedOn: bed.fittedOn,
      used: today.used[i]!,
    })),
    history,
  };
}

const sum = (list: readonly number[]): number => list.reduce((total, one) => total + one, 0);
/** Load at the last clean reading of a stretch. */
const lastCleanEq = ({ outlet }: RowSpan, loadAt: (ms: number) => number): number => {
  const clean = lastClean(outlet);
  return clean ? Math.max(0, loadAt(clean.ms)) : 0;
};
const lastMs = (ordered: readonly Reading[]): number | null => (ordered.length > 0 ? Date.parse(ordered.at(-1)!.at) : null);
const lastResinId = ({ train }: System): string | undefined => train.stages.findLast(({ kind }) => kind === 'resin')?.id;
/** Longest time of a stretch without a reading, days. */
const longestGap = (fromMs: number, readings: readonly Reading[]): number =>
  readings.reduce(({ longest, last }, { at }) => ({ longest: Math.max(longest, (Date.parse(at) - last) / DAY_MS), last: Date.parse(at) }), {
    longest: 0,
    last: fromMs,
  }).longest;
const dayMs = (day: string): number => Date.parse(`${day}T00:00:00Z`);

/** A first bed dated later than the last work written down was changed that day. */
function withImplied(events: readonly RowEvent[], first: StageOf<'resin'>): RowEvent[] {
  const last = events.findLast(({ bed, how, serviceId }) => serviceId !== null && (bed === 0 || how === 'moveUp'));
  if (!last || first.fittedOn === null || dayMs(first.fittedOn) <= last.ms + 2 * DAY_MS) return [...events];
  const implied: RowEvent = { ms: dayMs(first.fittedOn), doubtDays: 0.3, how: 'renew', bed: 0, why: 'notSaid', serviceId: null };
  return [...events, implied].sort((a, b) => a.ms - b.ms);
}

/** What notes tell of the colour of a bed, oldest first. */
const colourLooks = (ordered: readonly Reading[]): UsedLook[] =>
  ordered.flatMap((reading) => {
    const share = colourShare(reading);
    return share !== null && share >= COLOUR_TELLS ? [{ ms: Date.parse(reading.at), share }] : [];
  });

/** Colours that fell back: the bed between was changed. */
const coloursBegun = (looks: readonly UsedLook[]): ChangeSign[] =>
  looks.flatMap(({ ms, share }, i) => {
    const before = looks[i - 1];
    return before && share < before.share - COLOUR_FELL ? [{ fromMs: before.ms, toMs: ms }] : [];
  });
const COLOUR_FELL = 0.25;

/** When the first stretch of a row began; null where nothing tells. */
function startOf(
  system: System,
  row: readonly StageOf<'resin'>[],
  events: readonly RowEvent[],
  ordered: readonly Reading[],
): number | null {
  const written = events.find(({ serviceId }) => serviceId !== null);
  const service = written && system.services.find(({ id }) => id === written.serviceId);
  // Of a bed that was there before, a reading says nothing of what it has taken already.
  const read = stoodBefore(system) ? null : (ordered[0]?.at ?? null);
  if (service) {
    if (service.fittedOn !== null && dayMs(service.fittedOn) < Date.parse(service.at)) return dayMs(service.fittedOn);
    return read !== null && Date.parse(read) < written.ms ? Date.parse(read) : written.ms;
  }
  const fitted = row[0]!.fittedOn;
  return fitted !== null ? dayMs(fitted) : read === null ? null : Date.parse(read);
}

interface Priors {
  readonly cation: CapacityBelief | null;
  readonly anion: CapacityBelief | null;
  /** Share of the load at the goal that is still to come when the product reads so much, by the front of the bed. */
  readonly stillToCome: Readonly<Record<'cation' | 'anion', (ec25UScm: number) => number>>;
}
/** A packed bed shows no steeper a front than this, whatever film theory says of it (product assumption). */
const MOST_UNITS = 40;

/** What one bed of the row takes up until the goal, by its class, each side; null of a side it does not take. */
function priorsOf(system: System, solved: SolvedTrain, row: readonly StageOf<'resin'>[], goalUScm: number | null): Priors {
  const [first] = row;
  const resin = solved.resins[0]!;
  const capacity = bedCapacityEq(stageBed(first!));
  const at = solved.stations.findIndex((station) => station.after === resin.stageId);
  const meets = beforeFirstBed(system, solved)!;
  const states = row.flatMap(({ id }) => solved.resins.find(({ stageId }) => stageId === id)?.utilisation ?? []);
  const volume = sum(row.map(({ volumeL }) => volumeL)) / row.length / first!.volumeL;
  const units = (side: 'cation' | 'anion'): number => sum(states.map((one) => one[side].transferUnits));
  const side = (of: 'cation' | 'anion'): CapacityBelief | null => {
    if (!(capacity[`${of}Eq`] > 0)) return null;
    const atGoal = capacity[`${of}Eq`] * volume * Math.max(0.01, usedAtGoal(of, units(of), meets, goalUScm));
    const more = of === 'anion' ? carbonBefore(solved, at) : 0;
    // Loads are counted with what the model leaves of the carbon dioxide; up to all of it may have come.
    const most = Math.log((meets.load.anionMeqL + more) / meets.load.anionMeqL);
    return { lnMean: Math.log(atGoal) - most / 2, sd: Math.hypot(PRIOR_SD, OPEN_SD * most) };
  };
  const stillToCome =
    (of: 'cation' | 'anion') =>
    (ec25UScm: number): number => {
      const used = (at: number | null): number => usedAtGoal(of, Math.min(MOST_UNITS, units(of)), meets, at);
      const atGoal = used(goalUScm);
      return atGoal > 0 ? Math.max(0, Math.min(0.5, (atGoal - used(ec25UScm)) / atGoal)) : 0;
    };
  return { cation: side('cation'), anion: side('anion'), stillToCome: { cation: stillToCome('cation'), anion: stillToCome('anion') } };
}

/** Of a doubt between two ends, a standard deviation. */
const OPEN_SD = 0.4;

/** Carbon dioxide that a tank before the resin may not have lost as the model has it, mmol/L. */
function carbonBefore({ stations }: SolvedTrain, resinAt: number): number {
  const tank = stations.slice(0, resinAt).findIndex(({ kind }) => kind === 'tank');
  if (tank < 1) return 0;
  return Math.max(0, (stations[tank - 1]!.state.co2MgL - stations[resinAt - 1]!.state.co2MgL) / 44.01);
}

/** The side that ends first: it has less for what a litre brings. */
function limitingSide(priors: Priors, loads: LoadCounted, nowMs: number): 'cation' | 'anion' {
  const { cationMeqL, anionMeqL } = loads.perLitre(nowMs);
  const lasts = (belief: CapacityBelief | null, meqL: number): number => (belief && meqL > 0 ? Math.exp(belief.lnMean) / meqL : Infinity);
  return priors.anion && lasts(priors.anion, anionMeqL) <= lasts(priors.cation, cationMeqL) ? 'anion' : 'cation';
}

/** What cartridges removed before this log tell, each taken at this one's volume; those the log itself replays count there. */
function earlier(
  prior: CapacityBelief,
  cartridges: readonly Cartridge[],
  { resinClass, volumeL }: StageOf<'resin'>,
  side: 'cation' | 'anion',
  events: readonly RowEvent[],
): { readonly belief: CapacityBelief; readonly count: number } {
  const own = cartridges.filter(
    (old) =>
      old.side === side && old.resinClass === resinClass && !events.some(({ ms }) => Math.abs(ms - dayMs(old.removedOn)) < 1.5 * DAY_MS),
  );
  const belief = own.reduce(
    (at, old) => updateCapacity(at, { kind: old.ended, loadEq: (old.loadEq * volumeL) / old.volumeL, loadSd: loadSd(old.intervals) }),
    prior,
  );
  return { belief, count: own.length };
}

interface Present {
  readonly state: ResinState;
  /** The newest product reading of this stretch. */
  readonly last: OutletPoint | null;
}

/** What the newest readings of the product say of what is in the row. */
function presentState(
  { outlet, crossing }: RowSpan,
  goalUScm: number | null,
  meter: System['instruments'][number] | undefined,
  usedBetween: (a: OutletPoint, b: OutletPoint) => number,
  stillToCome: (ec25UScm: number) => number,
): Present {
  const last = outlet.at(-1) ?? null;
  if (crossing) return { state: 'spent', last };
  if (!last || !meter || goalUScm === null) return { state: 'clean', last };
  if (last.past >= HALF && last.past < PAST) return { state: 'atGoal', last };
  const before = outlet.at(-2);
  const raised = (point: OutletPoint): boolean => point.ec25UScm > RISING.from * goalUScm && point.past < HALF;
  if (!before || smallestStepUScm(meter) > RISING.finest * goalUScm || !raised(last) || !raised(before)) return { state: 'clean', last };
  // A front comes on with the load; what rises far slower slips past the resin, and its load tells more.
  const front = stillToCome(before.ec25UScm) - stillToCome(last.ec25UScm);
  const isFront = front > 0 && usedBetween(before, last) < RISING.slowest * front + RISING.sd;
  return { state: isFront ? 'rising' : 'clean', last };
}

/** Load at which the row ends, at an instant of its stretch, as quantiles of the belief. */
function rowEnds(
  span: RowSpan,
  belief: CapacityBelief,
  loadAt: (ms: number) => number,
  sdOf: LoadCounted['sdOf'],
  { last }: Present,
  stillToCome: (ec25UScm: number) => number,
): (ms: number, state: ResinState) => (share: number) => number {
  const row: CapacityBelief = { lnMean: belief.lnMean + Math.log(free(span)), sd: belief.sd };
  return (ms, state) => {
    const now = loadAt(ms);
    const scatter = bedScatter(span);
    if (state === 'rising' && last) {
      // The front itself tells what is left.
      const share = stillToCome(last.ec25UScm);
      const seen = { lnMean: Math.log(loadAt(last.ms) / Math.max(0.3, 1 - share)), sd: RISING.sd + RISING.perShare * share };
      const prior = { lnMean: row.lnMean, sd: Math.hypot(row.sd, scatter) };
      const both = updateCapacity(prior, { kind: 'breakthrough', loadEq: Math.exp(seen.lnMean), loadSd: seen.sd }, 0);
      return endAt(both, now, 0);
    }
    const looks = span.looks.filter((look) => look.ms <= ms);
    const looked = endByLooks(looks, loadAt);
    if (looked) {
      const lastMs = looks.at(-1)!.ms;
      const own = updateCapacity(
        { lnMean: row.lnMean, sd: Math.hypot(row.sd, scatter) },
        { kind: 'breakthrough', loadEq: looked.loadEq, loadSd: looked.sd },
        0,
      );
      return endAt(own, now, sdOf(lastMs, ms) * ((now - loadAt(lastMs)) / Math.max(1e-9, now)));
    }
    const clean = lastClean(span.outlet.filter((point) => point.ms <= ms));
    // Beyond the last clean reading nothing is known of the product: only that it was clean then.
    const cleanAt = clean ? Math.min(now, loadAt(clean.ms)) : 0;
    const end = endAt(row, cleanAt, Math.hypot(scatter, sdOf(span.fromMs, ms)));
    return (share) => Math.max(now, end(share));
  };
}
