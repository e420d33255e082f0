import { feedBrineMgL } from '../membrane';
import { COST_LINES, waterCosts, type CostLine } from '../ledger';
import { DAYS_PER_YEAR, fail, ok, type Outcome } from '../quantity';
import { creep, type RestingMembrane } from '../storage';
import { passDay, type ChangeEvent, type CountedPart, type CounterUnit, type Fill, type LateChange } from './counters';
import { seasonAt, type Season } from '../life';
import { stepTank, tankIssue, type TankSetting, type TankState } from './tank';

/** The coming years of a system, a day at a time: quality, output against need, changes of parts, and money (science of options, 7). */

/** What the train does on a day. */
export interface DayResponse {
  readonly productionLPerH: number;
  /** Share of the feed's salt that passes. */
  readonly passage: number;
  /** Litres taken from the tap for a litre made, and the power for a cubic metre. */
  readonly feedPerL: number;
  readonly kWhPerM3: number;
  /** What is served with every bed fresh, ppm; null where permeate and resin tell it. */
  readonly servedPpm: number | null;
  /** What a litre brings the resin, meq, and the share of what it holds that is used when it is changed; null where strength and goal tell it. */
  readonly resin: { readonly loadMeqL: number; readonly usedShare: number } | null;
}
/** What runs of itself, and what somebody brings along. */
const RUNNING: readonly CostLine[] = ['chemicals', 'water', 'sewer', 'energy', 'penalties'];
export const RUNNING_LINES = COST_LINES.filter((line) => RUNNING.includes(line));
export const BROUGHT_LINES = COST_LINES.filter((line) => !RUNNING.includes(line));
export type YearCosts = Record<CostLine, number>;

/** A part that is changed when a counter of its own is full. */
export interface YearPart extends CountedPart {
  readonly cost: number;
  readonly line: CostLine;
  /** Days it has behind it at the start, and what of its other counters is full. */
  readonly agedDays?: number;
  readonly filled?: Readonly<Partial<Record<CounterUnit, number>>>;
}
/** The polishing resin: its limit moves with the season, for the permeate does. */
export interface YearResin {
  readonly id: string;
  /** What it holds at its goal if the permeate were there already, meq. */
  readonly capacityMeq: number;
  /** Stages of its front: the more, the sharper. */
  readonly plates: number;
  readonly goalPpm: number;
  readonly cost: number;
  /** Day of its first change by the log of the one that runs. */
  readonly firstDue?: number;
  /** What it has taken up at the start, meq. */
  readonly usedMeq?: number;
  /** What the first of its beds holds, where they stand in a row and move up: one change takes out so much, meq. */
  readonly leadMeq?: number;
}
/** A membrane that lets salt creep to its product side while it stands. */
export type Creep = Pick<RestingMembrane, 'feedSideL' | 'permeateSideL' | 'saltLPerH'>;
export interface YearPlant {
  /** What the train does on a day; whether its membrane is still the one that runs today, of which a log may say more than its age. */
  readonly response: (temperatureC: number, ageYears: number, strength: number, isFirstMembrane: boolean) => DayResponse;
  readonly temperature: Season;
  /** Strength of the tap against its mean. */
  readonly strength: Season;
  readonly tapPpm: number;
  readonly tapMeqL: number;
  /** What the product may show at the most and at the least, ppm; null where the goal says nothing. */
  readonly goal: { readonly highPpm: number | null; readonly lowPpm: number | null };
  /** Litres the stages send to the drain beside the waste, for a litre made. */
  readonly drainedPerL: number;
  /** What acid, alkali and the like cost for a litre made. */
  readonly chemicalsPerL: number;
  /** Share of the waste that is used for something else. */
  readonly wasteUsedShare: number;
  /** What loads the anion side whatever the membrane holds back, meq/L. */
  readonly gasMeqL: number;
  /** Litres wanted in each hour of a day. */
  readonly demand: (day: number) => readonly number[];
  readonly tank: (TankSetting & { readonly startFraction: number }) | null;
  readonly resin: YearResin | null;
  readonly membranePartId: string | null;
  /** Days the membrane that runs today has behind it. */
  readonly membraneAgedDays: number;
  readonly parts: readonly YearPart[];
  readonly creep: Creep | null;
  readonly prices: {
    readonly waterPerM3: number;
    readonly sewerPerM3: number;
    readonly energyPerKWh: number;
    readonly visit: number;
    readonly penaltyPerDay: number;
    readonly penaltyPerEvent: number;
  };
}
export interface YearPolicy {
  /** Changes along what falls due within so many days. */
  readonly bundleDays: number;
  /** One change that comes late. */
  readonly missed: { readonly part: string; readonly which: number; readonly daysLate: number } | null;
}
export const PLAIN_POLICY: YearPolicy = { bundleDays: 0, missed: null };
/** What falls due within three weeks is changed along (our choice, to be set). */
export const USUAL_POLICY: YearPolicy = { ...PLAIN_POLICY, bundleDays: 21 };
/** Days of so many years, whole. */
export const daysOfYears = (years: number): number => Math.round(DAYS_PER_YEAR * years);

/** What a run of days came to. */
export interface YearRun {
  readonly days: number;
  /** What leaves the resin at the end of each day, ppm; the permeate where there is none. */
  readonly qualityPpm: Float64Array;
  readonly madeL: Float64Array;
  readonly deliveredL: Float64Array;
  readonly unmetL: Float64Array;
  /** What it could make in 24 hours. */
  readonly couldMakeL: Float64Array;
  readonly events: readonly ChangeEvent[];
  readonly visits: number;
  readonly monthly: readonly YearCosts[];
  readonly total: YearCosts;
  readonly totalCost: number;
  readonly offSpecDays: number;
  readonly offSpecL: number;
  readonly worstPpm: number;
  readonly runHours: number;
  readonly starts: number;
  readonly feedL: number;
  readonly wasteL: number;
  readonly loadMeq: number;
  /** Resin's meq taken out in changes, and what is in the bed at the end. */
  readonly takenOutMeq: number;
  /** What the resin that runs had taken up at the start, meq. */
  readonly startMeq: number;
  readonly inBedMeq: number;
  readonly startLevelL: number;
  readonly endLevelL: number;
}

/** A month of the run, days. */
export const MONTH_DAYS = DAYS_PER_YEAR / 12;
const MEQ_PER_MG_NACL = 1 / 58.443;
/** A resin at its best lets this through, ppm. */
const PUREST_PPM = 0.03;
const MOST_DAYS = 3653;
/** Nearer to the goal than this is at the goal: what reads as the limit is at the limit. */
const TOLD_ALIKE = 1e-3;

export const noCosts = (): YearCosts => Object.fromEntries(COST_LINES.map((line) => [line, 0])) as YearCosts;

/** Throughput at which a resin passes its goal, against what it holds: more than 1 where the permeate is nearly there. */
export const limitThroughput = (goalPpm: number, permeatePpm: number, plates: number): number =>
  permeatePpm <= goalPpm ? 1 + 1 / plates : 1 + (1 + Math.log(goalPpm / permeatePpm)) / plates;

/** What leaves a resin at a throughput against what it holds. */
export const resinOutlet = (permeatePpm: number, throughput: number, plates: number): number =>
  Math.max(PUREST_PPM, permeatePpm * Math.min(1, Math.exp(plates * (throughput - 1) - 1)));

/** Salt that one start after a rest sends to the resin, meq: what stands on the product side beyond what always does. */
export function creepMeq(membrane: Creep, concentratePpm: number, permeatePpm: number, restedH: number): number {
  const rest = { ...membrane, feedBrineMgL: concentratePpm, steadyMgL: permeatePpm };
  const { startMgL } = creep(rest, restedH, membrane.permeateSideL);
  return membrane.permeateSideL * (startMgL - permeatePpm) * MEQ_PER_MG_NACL;
}

const leadOf = ({ leadMeq, firstDue }: YearResin): Pick<CountedPart, 'renews' | 'firstDue'> => ({
  ...(leadMeq === undefined ? {} : { renews: leadMeq }),
  ...(firstDue === undefined ? {} : { firstDue }),
});

function issueOf(plant: YearPlant, days: number): Outcome<never> | null {
  if (!(Number.isInteger(days) && days >= 1 && days <= MOST_DAYS))
    return fail('days', days, `1 to ${MOST_DAYS}, whole`, `The run is ${days} days long; accepted is 1 to ${MOST_DAYS}, whole.`);
  for (const [name, price] of Object.entries(plant.prices))
    if (!(price >= 0 && Number.isFinite(price)))
      return fail(`prices.${name}`, price, '0 or more', `The price ${name} is ${price}; accepted is 0 or more.`);
  for (const { id, limits, cost } of plant.parts) {
    if (!(cost >= 0 && Number.isFinite(cost)))
      return fail(`prices.${id}`, cost, '0 or more', `The price of ${id} is ${cost}; accepted is 0 or more.`);
    for (const { limit } of limits)
      if (!(limit > 0)) return fail('partIntervalMonths', limit, 'above 0', `${id} is to be changed every ${limit}; accepted is above 0.`);
  }
  return plant.tank ? tankIssue(plant.tank) : null;
}

/** How far a resin is through what it holds: where a train says at which share it passes its goal, it passes it there. */
function throughputOf(
  { capacityMeq, goalPpm, plates, leadMeq }: YearResin,
  inBed: number,
  permeate: number,
  { resin }: DayResponse,
): number {
  if (!resin || leadMeq !== undefined) return inBed / capacityMeq;
  return (inBed / (capacityMeq * resin.usedShare)) * limitThroughput(goalPpm, permeate, plates);
}

/** What the resin that runs has taken up at the start, meq: so much that it is spent on the day its log says, and no sooner. */
function startMeq(plant: YearPlant, resin: YearResin): number {
  const { firstDue } = resin;
  if (firstDue === undefined) return resin.usedMeq ?? 0;
  let [limit, taken] = [resin.capacityMeq, 0];
  for (let day = 0; day < firstDue; day++) {
    const t = day + 0.5;
    const age = plant.membranePartId === null ? 0 : (t + plant.membraneAgedDays) / DAYS_PER_YEAR;
    const response = plant.response(seasonAt(plant.temperature, t), age, seasonAt(plant.strength, t), true);
    if (!response.resin) return resin.usedMeq ?? 0;
    const made = plant.demand(day).reduce((sum, litres) => sum + litres, 0);
    taken += Math.min(1, firstDue - day) * made * response.resin.loadMeqL;
    limit = resin.leadMeq ?? resin.capacityMeq * response.resin.usedShare;
  }
  return Math.max(0, limit - taken);
}

/**
 * Runs a system through so many days. Weather, strength, response and need of a day are those of its middle, held through
 * it; every counter then fills evenly and every change falls where it is full.
 *
 * @returns an error naming what cannot be
 */
export function simulateYears(plant: YearPlant, days: number, policy: YearPolicy = PLAIN_POLICY): Outcome<YearRun> {
  const issue = issueOf(plant, days);
  if (issue) return issue;
  const { resin, tank, prices } = plant;
  const series = (): Float64Array => new Float64Array(days);
  const run = { quality: series(), made: series(), delivered: series(), unmet: series(), could: series() };
  const monthly: YearCosts[] = Array.from({ length: Math.ceil(days / MONTH_DAYS) }, noCosts);
  const book = (day: number, line: CostLine, amount: number): void =>
    void (monthly[Math.min(monthly.length - 1, Math.floor(day / MONTH_DAYS))]![line] += amount);
  const atStart = resin ? startMeq(plant, resin) : 0;
  // The resin comes last: a part like the others, but that its limit is another every day.
  const polish: YearPart[] = resin
    ? [
        {
          id: resin.id,
          line: 'resin',
          cost: resin.cost,
          limits: [{ unit: 'meq', limit: Infinity }],
          filled: { meq: atStart },
          ...leadOf(resin),
        },
      ]
    : [];
  const parts: readonly YearPart[] = [...plant.parts, ...polish];
  const byId = new Map(parts.map((part) => [part.id, part]));
  const fills: Fill[] = parts.map(({ limits, agedDays = 0, filled = {} }) =>
    limits.map(({ unit }) => (unit === 'days' ? agedDays : (filled[unit] ?? 0))),
  );
  const membrane = { fittedOn: -plant.membraneAgedDays, isFirst: true };
  const inBed = (): number => (resin ? fills.at(-1)![0]! : 0);
  const events: ChangeEvent[] = [];
  const missed = policy.missed;
  let changesOfMissed = 0;
  let late: LateChange | null = null;
  let [takenOutMeq, loadMeq, runHours, starts, feedL, wasteL] = [0, 0, 0, 0, 0, 0];
  let [offSpecDays, offSpecL, worstPpm] = [0, 0, 0];
  const changed = new Set<string>();
  let wasOff = false;
  const startLevelL = tank ? tank.startFraction * tank.volumeL : 0;
  let state: TankState = { levelL: startLevelL, running: false, restedH: 0 };

  for (let day = 0; day < days; day++) {
    const t = day + 0.5;
    const strength = seasonAt(plant.strength, t);
    const age = plant.membranePartId === null ? 0 : (t - membrane.fittedOn) / DAYS_PER_YEAR;
    const response = plant.response(seasonAt(plant.temperature, t), age, strength, membrane.isFirst);
    const { productionLPerH, passage, feedPerL } = response;
    if (!(Number.isFinite(productionLPerH) && productionLPerH >= 0))
      return fail(
        'productionLPerH',
        productionLPerH,
        '0 or more',
        `The unit makes ${productionLPerH} L/h on day ${day}; accepted is 0 or more.`,
      );
    const permeate = strength * plant.tapPpm * passage;
    const demand = plant.demand(day);
    let [made, unmet, ran] = [0, 0, 0];
    const rests: number[] = [];
    const wanted = demand.reduce((sum, litres) => sum + litres, 0);
    if (tank) {
      for (const litres of demand) {
        const step = stepTank(tank, state, litres, productionLPerH, 1);
        if (!step.ok) return step;
        ({ state } = step.value);
        made += step.value.madeL;
        unmet += step.value.unmetL;
        ran += step.value.ranH;
        rests.push(...step.value.rests);
      }
    } else {
      made = wanted;
      ran = productionLPerH > 0 ? made / productionLPerH : 0;
    }
    const feed = made * (feedPerL + plant.drainedPerL);
    const load =
      made * (response.resin?.loadMeqL ?? plant.tapMeqL * strength * passage + plant.gasMeqL) +
      (plant.creep
        ? rests.reduce((sum, rest) => sum + creepMeq(plant.creep!, feedBrineMgL(strength * plant.tapPpm, 1 / feedPerL), permeate, rest), 0)
        : 0);
    const usedShare = response.resin?.usedShare ?? limitThroughput(resin?.goalPpm ?? 1, permeate, resin?.plates ?? 1);
    const counted: readonly CountedPart[] = resin
      ? [
          ...plant.parts,
          {
            id: resin.id,
            // In turn a bed is changed when it is wholly used.
            limits: [{ unit: 'meq', limit: response.resin && resin.leadMeq ? resin.leadMeq : resin.capacityMeq * usedShare }],
            ...leadOf(resin),
          },
        ]
      : parts;
    const rates = { days: 1, feedL: feed, productL: made, meq: load };
    const before = inBed();
    if (missed && !late && changesOfMissed === missed.which - 1)
      late = { part: counted.findIndex(({ id }) => id === missed.part), days: missed.daysLate, dueAt: null, isMade: false };
    const today = passDay(counted, fills, rates, day, policy.bundleDays, late, changed);
    for (const event of today) {
      events.push(event);
      book(event.day, 'visits', prices.visit);
      for (const id of event.parts) {
        if (id === plant.membranePartId) Object.assign(membrane, { fittedOn: event.day, isFirst: false });
        if (id === missed?.part) changesOfMissed += 1;
        const { line, cost } = byId.get(id)!;
        book(event.day, line, cost);
      }
    }
    if (resin) takenOutMeq += before + load - inBed();
    const fresh = response.servedPpm ?? (resin ? PUREST_PPM : permeate);
    const quality = resin ? Math.max(fresh, resinOutlet(permeate, throughputOf(resin, inBed(), permeate, response), resin.plates)) : fresh;
    const { highPpm, lowPpm } = plant.goal;
    const off = quality > (highPpm ?? Infinity) * (1 + TOLD_ALIKE) || quality < (lowPpm ?? 0) * (1 - TOLD_ALIKE);
    if (off) {
      offSpecDays += 1;
      offSpecL += made;
      book(day, 'penalties', prices.penaltyPerDay + (wasOff ? 0 : prices.penaltyPerEvent));
    }
    wasOff = off;
    worstPpm = Math.max(worstPpm, quality);
    const { water, sewer } = waterCosts({ feedL: feed, wasteL: feed - made, usedL: plant.wasteUsedShare * made * (feedPerL - 1) }, prices);
    book(day, 'water', water);
    book(day, 'sewer', sewer);
    book(day, 'chemicals', made * plant.chemicalsPerL);
    book(day, 'energy', (made / 1000) * response.kWhPerM3 * prices.energyPerKWh);
    run.quality[day] = quality;
    run.made[day] = made;
    run.delivered[day] = wanted - unmet;
    run.unmet[day] = unmet;
    run.could[day] = 24 * productionLPerH;
    feedL += feed;
    wasteL += feed - made;
    loadMeq += load;
    runHours += ran;
    starts += rests.length;
  }
  const total = monthly.reduce((sum, month) => {
    for (const line of COST_LINES) sum[line] += month[line];
    return sum;
  }, noCosts());
  return ok({
    days,
    qualityPpm: run.quality,
    madeL: run.made,
    deliveredL: run.delivered,
    unmetL: run.unmet,
    couldMakeL: run.could,
    events,
    visits: events.length,
    monthly,
    total,
    totalCost: COST_LINES.reduce((sum, line) => sum + total[line], 0),
    offSpecDays,
    offSpecL,
    worstPpm,
    runHours,
    starts,
    feedL,
    wasteL,
    loadMeq,
    takenOutMeq,
    startMeq: atStart,
    inBedMeq: inBed(),
    startLevelL,
    endLevelL: tank ? state.levelL : 0,
  });
}
