import { usedAtGoal, bedCapacityEq, bedUtilisation, ionicLoad, slowestFlowLPerH } from '../exchange';
import { membraneStage, type System } from '../file';
import { hourlyNeedL, productDemand, productLPerDay } from '../goal';
import { chemicalsPerDay, drainedLPerDay, priceList, workCost } from '../ledger';
import { beforeFirstBed, feedSeasons, LEAST_C, trainEnergy, yearStandings, type PartLife } from '../life';
import { agedBy, isSeawaterElement, isSmallElement, yearlyAgeing } from '../membrane';
import { gridFigures } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR, fail, ok, PPM_PER_USCM, type Outcome } from '../quantity';
import { kindOf, stageBed, type StageOf } from '../stage';
import { polishedStation, seasonSpan, solveTrain, type SeasonSpan, type SolvedTrain } from '../train';
import { SMALL_ELEMENT_L } from '../storage';
import { settleWater, strengthened, type Water } from '../water';
import { dueOf, type Standing } from '../log';
import type { Season } from '../life';
import type { DayResponse, YearPart, YearPlant, YearResin } from './simulate';

/** A system as it stands, laid out for the years to come: its train solved over season, age and strength, its parts by their lives and what they have behind them. */
export interface Ahead {
  readonly plant: YearPlant;
  /** What each part is called, in the order of the train. */
  readonly names: ReadonlyMap<string, string>;
  /** The day the run begins. */
  readonly startMs: number;
  /** What the resin's own doubt is: standard deviation of its logarithm, from what is left of it. */
  readonly resinSd: number;
  /** Factors on the tap's strength it was solved for. */
  readonly strengths: readonly [low: number, high: number];
  /** What a mean year costs to run, by the ledger; visits apart. */
  readonly meanYear: { readonly running: number; readonly visits: number };
}

/** A figure the sliders move: factors on tap and use, degrees on the water. */
export interface WhatIf {
  readonly strength: number;
  readonly use: number;
  readonly warmerC: number;
  readonly resinPrice: number;
}
export const AS_USUAL: WhatIf = { strength: 1, use: 1, warmerC: 0, resinPrice: 1 };

/** Strengths a train is solved at, against the tap: the sliders go no further. The sea changes little, and much comes of it. */
const STRENGTHS = { tap: [0.5, 1, 1.8], sea: [0.8, 1, 1.25] } as const;
/** Ages it is solved at, years by the calendar: a membrane better than its calendar says stands before its beginning. */
const AGES = [-1.5, 1.5, 5.5] as const;
/** Room the sliders have around the season, °C. */
const ROOM_C = 5;
const MOST_C = 45;
/** Passage of salt is read as odds; none and all are kept off. */
const PASSAGE = { least: 1e-6, most: 0.999 } as const;
const LEAST_L_PER_H = 1e-3;

const strengthsFor = (stage: StageOf<'membrane'> | undefined): (typeof STRENGTHS)[keyof typeof STRENGTHS] =>
  STRENGTHS[stage && isSeawaterElement(stage.elementClass) ? 'sea' : 'tap'];

/** Years the membrane has behind it by its calendar. */
const ageOf = (stage: StageOf<'membrane'>, { use }: Standing): number => Math.min(AGES[2], use[stage.id]?.years ?? 0);

const dayOfYear = (ms: number): number => (ms - Date.UTC(new Date(ms).getUTCFullYear(), 0, 1)) / DAY_MS;

/** What is kept of the train solved at one node, in this order. */
interface NodeFigures {
  readonly productionLPerH: number;
  readonly odds: number;
  readonly feedPerL: number;
  readonly kWhPerM3: number;
  readonly servedUScm: number;
  readonly loadMeqL: number;
  readonly usedShare: number;
}
const FIGURES = [
  'productionLPerH',
  'odds',
  'feedPerL',
  'kWhPerM3',
  'servedUScm',
  'loadMeqL',
  'usedShare',
] as const satisfies readonly (keyof NodeFigures)[];

/** The side of the resin that ends first, with how much of what it holds is used when it is changed. */
function nodeFigures(system: System, today: Standing, solved: SolvedTrain, tapUScm: number): NodeFigures {
  const { report } = today;
  const made = Math.max(LEAST_L_PER_H, solved.productLPerH);
  const membrane = solved.stations.find(({ after }) => after === solved.unitStageId);
  const passage = membrane ? Math.min(PASSAGE.most, Math.max(PASSAGE.least, membrane.state.ec25UScm / tapUScm)) : PASSAGE.most;
  const first = solved.resins[0];
  const side = report.resin?.throughput.limiting ?? 'anion';
  const load = first ? ionicLoad(first.feed) : null;
  const units = solved.resins.reduce((sum, { utilisation }) => sum + utilisation[side].transferUnits, 0);
  const meets = beforeFirstBed(system, solved);
  return {
    productionLPerH: made,
    odds: passage / (1 - passage),
    feedPerL: solved.productLPerH > 0 ? solved.stations[0]!.flowLPerH / solved.productLPerH : 1,
    kWhPerM3: trainEnergy(system, solved) ?? 0,
    servedUScm: report.loop ? report.judgedUScm : polishedStation(solved).state.ec25UScm,
    loadMeqL: load ? load[`${side}MeqL`] : 0,
    usedShare: meets ? usedAtGoal(side, units, meets, report.resin?.goalUScm ?? null) : 1,
  };
}

/** What the train does over temperature, age of its membrane and strength: solved whole at each node, by its own network. */
function responseOf(system: System, today: Standing, feed: Water, span: SeasonSpan): Outcome<YearPlant['response']> {
  const { train } = today.report;
  const stage = membraneStage(train.stages);
  const low = Math.max(LEAST_C, span.lowestTemperatureC - ROOM_C);
  const high = Math.min(MOST_C, span.highestTemperatureC + ROOM_C);
  const temperatures = stage
    ? [low, low + 0.25 * (high - low), (low + high) / 2, low + 0.75 * (high - low), high]
    : [low, (low + high) / 2, high];
  const ages: readonly number[] = stage ? AGES : [0];
  const strengths = strengthsFor(stage);
  const yearly = stage ? yearlyAgeing(stage.elementClass) : null;
  // What the log knows better than the calendar stays with this membrane; the next one begins new.
  const calendar = stage && yearly ? agedBy(yearly, ageOf(stage, today)) : { water: 1, salt: 1 };
  const own = { water: (stage?.waterFactor ?? 1) / calendar.water, salt: (stage?.saltFactor ?? 1) / calendar.salt };
  let failure: Outcome<never> | null = null;
  let near: SolvedTrain | undefined;
  const read = gridFigures([temperatures, ages, strengths], (temperatureC, age, strength) => {
    const factors = yearly ? agedBy(yearly, age) : { water: 1, salt: 1 };
    const worn = train.stages.map((one) =>
      one.id === stage?.id ? { ...stage, waterFactor: factors.water, saltFactor: factors.salt } : one,
    );
    const water = { ...strengthened(feed, strength), temperatureC: temperatureC };
    const solved = solveTrain({ ...train, stages: worn, branches: [], loop: null }, system.source, water, {}, near);
    const tap = settleWater(water);
    if (!solved.ok) failure ??= solved;
    else near = solved.value;
    if (!solved.ok || !tap.ok) return FIGURES.map(() => 1);
    const figures = nodeFigures(system, today, solved.value, tap.value.ec25UScm);
    return FIGURES.map((key) => figures[key]);
  });
  if (failure) return failure;
  const beds = today.report.resin;
  return ok((temperatureC, ageYears, strength, isFirst): DayResponse => {
    // The membrane of today keeps what its log says of it; one fitted later begins new.
    const mine = isFirst ? own : { water: 1, salt: 1 };
    const aYear = yearly ? agedBy(yearly, 1) : { water: 0.5, salt: 1 };
    // What its water factor is worth in years: output does not go with it in proportion where a pump or a filter gives way.
    const years = yearly ? ageYears + Math.log(mine.water) / Math.log(aYear.water) : 0;
    const age = Math.min(AGES[2], Math.max(AGES[0], years));
    const s = Math.min(strengths[2], Math.max(strengths[0], strength));
    const t = Math.min(high, Math.max(low, temperatureC));
    const figures = read(t, stage ? age : 0, s);
    const at = (key: keyof NodeFigures): number => figures[FIGURES.indexOf(key)]!;
    // What it lets through beyond its age moves all that comes after it in proportion, near enough.
    const salt = yearly ? mine.salt * aYear.salt ** (ageYears - age) : 1;
    const odds = at('odds') * salt;
    const gas = gasShare(today);
    return {
      productionLPerH: at('productionLPerH'),
      passage: odds / (1 + odds),
      feedPerL: at('feedPerL'),
      kWhPerM3: at('kWhPerM3'),
      servedPpm: PPM_PER_USCM * at('servedUScm') * (beds ? 1 : salt),
      resin: beds ? { loadMeqL: at('loadMeqL') * (gas + (1 - gas) * salt), usedShare: at('usedShare') } : null,
    };
  });
}

/** Share of the resin's load that does not follow what the membrane lets through: gases. */
function gasShare({ report }: Standing): number {
  const { resin } = report;
  if (!resin || resin.throughput.limiting !== 'anion' || !(resin.load.anionMeqL > 0)) return 0;
  return Math.min(1, resin.load.weakAcidMeqL / resin.load.anionMeqL);
}

/** Days from the start on which each part of today falls due first, by the list of what is due at this moment; empty for a system that is new. */
function firstDays(system: System, today: Standing, startMs: number, nowMs: number): ReadonlyMap<string, number> {
  const at = new Date(nowMs).toISOString();
  const days = new Map(
    dueOf(system, today, at).map(({ stageId, work, at: due }) => [`${stageId} ${work}`, Math.max(0, (Date.parse(due) - startMs) / DAY_MS)]),
  );
  const { tracking } = today;
  if (tracking?.daysLeft) days.set(tracking.stageId, tracking.daysLeft.p50);
  return days;
}

/** Parts by their lives: litres through them told in litres of feed or of product, whichever they see. */
function partOf(system: System, life: PartLife, today: Standing, first: ReadonlyMap<string, number>): YearPart {
  const { report } = today;
  const { stage, everyDays, everyL } = life;
  const i = system.train.stages.findIndex(({ id }) => id === stage.id);
  const unitAt = system.train.stages.findIndex(({ id }) => id === report.solved.unitStageId);
  const unit = i < 0 || i > unitAt ? ('productL' as const) : ('feedL' as const);
  // Litres of feed or product for a litre through it: a use takes its share, water led past a membrane is not its own.
  const perDay = unit === 'feedL' ? report.demandLPerDay * report.year.feedPerL : report.demandLPerDay;
  const scale = life.litresPerDay > 0 ? perDay / life.litresPerDay : 0;
  const id = `${stage.id} ${life.work}`;
  const due = first.get(id);
  return {
    id,
    line: kindOf(stage).costLine,
    cost: workCost(life, priceList(system)),
    limits: [
      ...(everyDays === null ? [] : [{ unit: 'days' as const, limit: everyDays }]),
      ...(everyL === null || !(scale > 0) ? [] : [{ unit, limit: everyL * scale }]),
    ],
    ...(due === undefined ? {} : { firstDue: due }),
  };
}

/** The polishing resin: all beds in a row as one. */
function resinOf(
  system: System,
  today: Standing,
  life: PartLife | undefined,
  goalPpm: number | null,
  first: ReadonlyMap<string, number>,
): YearResin | null {
  const { report, tracking } = today;
  const { resin } = report;
  const beds = system.train.stages.filter((stage): stage is StageOf<'resin'> =>
    report.solved.resins.some(({ stageId }) => stageId === stage.id),
  );
  if (!life || !resin || beds.length === 0 || resin.throughput.until.kind !== 'litres' || resin.change.everyL === null) return null;
  const side = resin.throughput.limiting;
  const capacity = 1000 * beds.reduce((sum, bed) => sum + bedCapacityEq(stageBed(bed))[`${side}Eq`], 0);
  const { temperatureC } = report.solved.resins[0]!.feed;
  const units = beds.reduce((sum, bed) => {
    const flow = Math.max(resin.flowLPerH, slowestFlowLPerH(stageBed(bed), temperatureC));
    const state = bedUtilisation(stageBed(bed), flow, temperatureC);
    return sum + (state.ok ? state.value[side].transferUnits : FEWEST_PLATES);
  }, 0);
  const due = first.get(beds[0]!.id);
  return {
    id: beds[0]!.id,
    capacityMeq: capacity,
    plates: Math.max(FEWEST_PLATES, units),
    goalPpm: goalPpm ?? 1,
    cost: workCost(life, priceList(system)),
    ...(due === undefined ? {} : { firstDue: due }),
    ...(resin.change.rotates && { leadMeq: 1000 * bedCapacityEq(stageBed(beds[0]!))[`${side}Eq`] }),
    usedMeq: tracking ? Math.min(capacity, 1000 * tracking[`${side}Eq`]) : 0,
  };
}
const FEWEST_PLATES = 4;

/**
 * Lays a system out for the years to come.
 *
 * @param today how it stands; its report alone counts where it is taken as new
 * @param feed the tap as it is planned with
 * @param nowMs the day the run begins
 * @param asNew every part is fitted on that day
 */
export function aheadOf(system: System, today: Standing, feed: Water, nowMs: number, asNew = false): Outcome<Ahead> {
  const state = settleWater(feed);
  if (!state.ok) return state;
  const { report } = today;
  const span = seasonSpan(system.source, system.instruments);
  const startMs = Math.floor(nowMs / DAY_MS) * DAY_MS;
  const from = dayOfYear(startMs);
  const seasons = feedSeasons(span, state.value.ec25UScm);
  const shifted = (season: Season): Season => ({ ...season, highDay: season.highDay - from });
  const response = responseOf(system, today, feed, span);
  if (!response.ok) return response;
  const demand = productDemand(system.goal);
  const week = hourlyNeedL(demand);
  if (!(week.reduce((sum, litres) => sum + litres, 0) > 0))
    return fail('demand', 0, 'above 0', 'Nothing is drawn: enter what is needed a day in Goal before a year is run.');
  const weekday = (new Date(startMs).getUTCDay() + 6) % 7;
  const membrane = membraneStage(system.train.stages);
  const { strength: allowed } = report;
  const inPpm = (uScm: number | null | undefined): number | null => (uScm == null ? null : PPM_PER_USCM * uScm);
  const [highPpm, lowPpm] = [inPpm(allowed?.highUScm), inPpm(allowed?.lowUScm)] as const;
  const first = asNew ? new Map<string, number>() : firstDays(system, today, startMs, nowMs);
  const brought = report.lives.filter(({ brings, days }) => brings && days !== null);
  const resinLife = brought.find(({ stage }) => stage.id === report.resin?.change.stageIds[0] && stage.kind === 'resin');
  const resin = resinOf(system, today, resinLife, highPpm, first);
  const lives = brought.filter((life) => life.stage.kind !== 'resin');
  const parts = lives.map((life): YearPart => ({
    ...partOf(system, life, today, first),
    ...(life.stage.id === membrane?.id && { id: membrane.id, ...dueOfMembrane(first, membrane.id) }),
  }));
  const names = new Map(
    lives.map((life, i) => [
      parts[i]!.id,
      life.says === 'change' || life.says === 'replace' ? life.stage.name : `${life.stage.name}, ${life.says}`,
    ]),
  );
  if (resin) names.set(resin.id, resin.leadMeq === undefined ? 'Resin' : 'Resin, first of the row');
  const tank = system.train.stages.findLast((stage): stage is StageOf<'tank'> => stage.kind === 'tank');
  const floats = tank && tank.prechargeBar === null && tank.startShare > 0 && tank.startShare < tank.stopShare;
  const need = productLPerDay(system.goal);
  const standings = yearStandings(system, report);
  const perL = (perDay: number): number => (need > 0 ? perDay / need : 0);
  const { strength } = seasons;
  return ok({
    startMs,
    names,
    strengths: [
      strengthsFor(membrane)[0] / Math.max(1e-9, strength.mean - strength.amplitude),
      strengthsFor(membrane)[2] / (strength.mean + strength.amplitude),
    ],
    resinSd: today.tracking ? today.tracking.capacitySd : 0.25,
    meanYear: { running: report.ledger.running, visits: report.ledger.visits },
    plant: {
      response: response.value,
      temperature: shifted(seasons.temperature),
      strength: shifted(strength),
      tapPpm: PPM_PER_USCM * state.value.ec25UScm,
      tapMeqL: 0,
      gasMeqL: 0,
      goal: { highPpm, lowPpm },
      drainedPerL: perL(drainedLPerDay(standings)),
      chemicalsPerL: perL(chemicalsPerDay(standings, priceList(system))),
      wasteUsedShare: system.choice.wasteUsedShare,
      demand: (day) => {
        const begin = 24 * ((weekday + day) % 7);
        return week.slice(begin, begin + 24);
      },
      tank:
        tank && floats && membrane
          ? { volumeL: tank.volumeL, onFraction: tank.startShare, offFraction: tank.stopShare, startFraction: tank.stopShare }
          : null,
      resin,
      membranePartId: membrane?.id ?? null,
      membraneAgedDays: membrane && !asNew ? DAYS_PER_YEAR * ageOf(membrane, today) : 0,
      parts,
      creep: membrane && isSmallElement(membrane.elementClass) ? { ...SMALL_ELEMENT_L, saltLPerH: SMALL_SALT_L_PER_H } : null,
      prices: {
        waterPerM3: system.prices.waterPerM3,
        sewerPerM3: system.prices.sewerPerM3,
        energyPerKWh: system.prices.powerPerKWh,
        visit: system.choice.visitCost,
        penaltyPerDay: 0,
        penaltyPerEvent: 0,
      },
    },
  });
}
const dueOfMembrane = (first: ReadonlyMap<string, number>, id: string): { readonly firstDue?: number } => {
  const due = first.get(`${id} changed`);
  return due === undefined ? {} : { firstDue: due };
};
/** Salt that creeps through a small element as it stands, L/h of permeability (membrane chapter, 13). */
const SMALL_SALT_L_PER_H = 0.2066;

/** The plant with what the sliders move. */
export const withWhatIf = ({ plant }: Pick<Ahead, 'plant'>, { strength, use, warmerC, resinPrice }: WhatIf): YearPlant => ({
  ...plant,
  temperature: { ...plant.temperature, mean: plant.temperature.mean + warmerC },
  strength: { ...plant.strength, mean: plant.strength.mean * strength, amplitude: plant.strength.amplitude * strength },
  demand: use === 1 ? plant.demand : (day) => plant.demand(day).map((litres) => litres * use),
  // What litres set comes sooner where more is drawn, and the resin of a stronger tap.
  parts: use === 1 ? plant.parts : plant.parts.map((part) => sooner(part, part.limits.some(({ unit }) => unit !== 'days') ? use : 1)),
  resin: plant.resin && sooner({ ...plant.resin, cost: plant.resin.cost * resinPrice }, use * strength),
});

/** A part whose first change comes so many times sooner. */
export const sooner = <P extends { readonly firstDue?: number }>(part: P, times: number): P =>
  part.firstDue === undefined || times === 1 ? part : { ...part, firstDue: part.firstDue / times };
