import { bypassFor, ionicLoad } from '../exchange';
import { allStages, type System } from '../file';
import { demandLPerDay, goalLimits, GOAL_ROWS, largestDrawL, productDemand, type LimitQuantity } from '../goal';
import { YEARLY_AGEING } from '../membrane';
import { carbonLoadMgL } from '../pretreatment';
import { DAYS_PER_YEAR, fail, ok, PPM_PER_USCM, type Outcome } from '../quantity';
import { inletBar, seasonSpan, tapWater } from '../train';
import { calciteIndex, hardnessOf, SEA_USCM, settleWater, type Water } from '../water';
import { askingOf, type Ageing, type Answers } from './answers';
import type { Job } from './axes';
import { LANE_LEAK } from './figures';
import { spacesOf, type Kept, type Space } from './jobs';
import type { ChoiceGoal, ChoiceNeed, ChoiceWater, Judging } from './judging';
import { physicsOn } from './onTap';
import { PART_PRICES, type Priced, type PriceList } from './prices';
import { RULES, type RuleId } from './rules';

/** What a system asks of its options: its job's spaces, and its own water, goal, site and prices to judge them by. */

/** All of a search on a system. */
export interface Comparison {
  readonly job: Job;
  readonly spaces: readonly Space[];
  readonly judging: Judging;
  readonly feed: Water;
  /** Temperature of the feed, mean of the year. */
  readonly meanC: number;
  readonly sea: boolean;
}

/** The job whose options serve a goal. */
export function jobOf({ goal, template, train }: System, ec25UScm: number): Job {
  if (goal.id === 'watermaker' || ec25UScm >= SEA_USCM) return 'watermaker';
  switch (GOAL_ROWS[goal.id].family) {
    case 'cleaning':
      return 'window';
    case 'laboratory':
      return 'laboratory';
    case 'beverage':
      return template === 'espressoBar' || !allStages(train).some(({ kind }) => kind === 'membrane') ? 'espresso' : 'counter';
    case 'drinking':
      return 'breeder';
    case 'own':
    case 'aquarium':
      return goal.id === 'softWaterBreeding' || goal.id === 'freshwaterCommunity' ? 'breeder' : 'marine';
  }
}

/** How membranes age, and what is left of their years before they are spent (common practice, recalled). */
const AGEING = {
  household: { ...YEARLY_AGEING.household, mostYears: 3 },
  large: { ...YEARLY_AGEING.large, mostYears: 5 },
  // A boat's stands idle for months.
  sea: { ...YEARLY_AGEING.large, mostYears: 3 },
} as const satisfies Readonly<Record<string, Ageing>>;
const SMALL_JOBS: readonly Job[] = ['marine', 'breeder', 'espresso', 'counter'];

/** Rules of a job: what its own options can break. */
const RULES_OF: Readonly<Record<Job, readonly RuleId[]>> = {
  marine: RULES,
  breeder: RULES,
  window: RULES,
  resinAlone: RULES,
  espresso: RULES.filter((rule) => rule !== 'tank'),
  counter: RULES.filter((rule) => rule !== 'tank'),
  laboratory: RULES,
  watermaker: RULES.filter((rule) => !['ratio', 'scaling', 'carbon'].includes(rule)),
};
/** Changes of resin or cartridge a year a job puts up with (our choice). */
const MOST_CHANGES: Readonly<Record<Job, number>> = {
  marine: 26,
  breeder: 26,
  window: 60,
  resinAlone: 60,
  espresso: 12,
  counter: 12,
  laboratory: 26,
  watermaker: 26,
};
/** Pressure below which a small membrane wants a pump, bar (common practice: 45 psi). */
const LEAST_BAR = 3.1;

/** Most a meter may show for a goal, at factor 0.5; null where no limit is about strength. */
function mostPpm(system: System): number | null {
  const limits = goalLimits(system.goal, system.units.ppmFactor);
  const high = (quantity: LimitQuantity): number => limits.find((limit) => limit.quantity === quantity)?.high ?? Infinity;
  const most = Math.min(PPM_PER_USCM * high('ec25UScm'), high('tdsMgL'), high('residueMgL'));
  return Number.isFinite(most) ? most : null;
}
/** Below this no membrane alone brings a tap, ppm. */
const PURE_PPM = 1.2;

/** What a cartridge, or tap led past, is set for. */
function broughtTo(system: System, job: Job): ChoiceGoal['broughtTo'] {
  const limits = goalLimits(system.goal, system.units.ppmFactor);
  if (job === 'espresso' || job === 'counter') {
    const limit = limits.find(({ quantity }) => quantity === 'alkalinityMgL');
    if (!limit || limit.high === null) return null;
    return { quantity: 'alkalinityMgL', value: limit.low === null ? 0.8 * limit.high : (limit.low + limit.high) / 2 };
  }
  if (job !== 'breeder') return null;
  const limit = limits.find(({ quantity }) => quantity === 'ec25UScm');
  return limit?.high ? { quantity: 'ppm', value: (PPM_PER_USCM * ((limit.low ?? 0) + limit.high)) / 2 } : null;
}

/** Parts that the job's own prices tell. */
const BY_JOB: Readonly<Partial<Record<Priced, (prices: System['prices']) => number>>> = {
  sediment: ({ filter }) => filter,
  booster: ({ boosterPump }) => boosterPump,
  inhibitor: ({ inhibitor }) => inhibitor,
  uvLamp: ({ lamp }) => lamp,
  carbonBlock: ({ carbonPerL }) => 0.5 * carbonPerL,
  calcite: ({ calcitePerL }) => 2 * calcitePerL,
};
export const pricedByJob = (part: Priced): boolean => part in BY_JOB;

/** Prices of the job where it has them, amounts typed for the comparison where there are any, placeholders otherwise. */
export function priceList({ prices, choice }: Pick<System, 'prices' | 'choice'>): PriceList {
  const typed = new Map(choice.prices.map(({ part, each }) => [part, each]));
  return {
    waterPerM3: prices.waterPerM3,
    sewerPerM3: prices.sewerPerM3,
    energyPerKWh: prices.powerPerKWh,
    saltPerKg: prices.saltPerKg,
    resinPerL: prices.resinPerL,
    visit: choice.visitCost,
    tankPerL: (litres) => litres * prices.tankPerL,
    part: (part) => typed.get(part) ?? BY_JOB[part]?.(prices) ?? PART_PRICES[part],
  };
}

export const keptOf = ({ kept }: System['choice']): Kept => Object.fromEntries(kept.map(({ axis, values }) => [axis, values]));

/** Saturation index of a water without lime. */
const NO_LIME = -5;

/** The site as options meet it: where a job's kind of stage is not there yet, its axis is left out. */
const NOT_BUILT: Kept = { degassing: [false], polisher: ['none', 'single', 'leadAndLag'] };

/** What is wrong with what was entered for the comparison; null where nothing is. */
function settingsIssue({ choice, prices }: Pick<System, 'choice' | 'prices'>): Outcome<never> | null {
  if (!(choice.horizonYears >= 0.25 && choice.horizonYears <= 30))
    return fail('horizonYears', choice.horizonYears, '0.25 to 30', `Years to count is ${choice.horizonYears}; accepted is 0.25 to 30.`);
  if (!(choice.rate >= 0 && choice.rate <= 0.3))
    return fail('discountRate', choice.rate, '0 to 0.3', `The interest a year is ${choice.rate}; accepted is 0 to 0.3.`);
  const amounts: (readonly [string, number])[] = [
    ...Object.entries(prices).flatMap(([name, value]) => (typeof value === 'number' ? [[`prices.${name}`, value] as const] : [])),
    ...choice.prices.map(({ part, each }) => [`prices.${part}`, each] as const),
    ['visitCost', choice.visitCost],
  ];
  const bad = amounts.find(([, value]) => !(value >= 0 && Number.isFinite(value)));
  return bad ? fail(bad[0], bad[1], '0 or more', `The price ${bad[0]} is ${bad[1]}; accepted is 0 or more.`) : null;
}

/** Slices an element is marched in while thousands are tried: output within 0.3 % of ten, strength within 2 %; what is shown is solved in full. */
const SEARCH_SLICES = 3;

/**
 * Lays a search on a system out.
 *
 * @param changes a figure that is otherwise: what would change the answer
 * @param known answers of membrane parts found so far on the same water and season
 */
export function comparisonOf(
  system: System,
  known?: Map<string, Answers>,
  { litres = 1, strength = 1, warmer = 0, slices = SEARCH_SLICES } = {},
): Outcome<Comparison> {
  const tap = tapWater(system.source, system.instruments);
  if (!tap.ok) return tap;
  const feed = tap.value.water;
  const state = settleWater(feed);
  if (!state.ok) return state;
  const { choice } = system;
  const wrong = settingsIssue(system);
  if (wrong) return wrong;
  const perDay = litres * demandLPerDay(productDemand(system.goal));
  if (!(perDay > 0))
    return fail('demand', perDay, 'above 0', 'Nothing is drawn: enter what is needed a day in Goal before trains are compared.');
  const job = jobOf(system, state.value.ec25UScm);
  const sea = job === 'watermaker';
  const span = seasonSpan(system.source, system.instruments);
  const year = {
    mean: (span.lowestTemperatureC + span.highestTemperatureC) / 2 + warmer,
    amplitude: (span.highestTemperatureC - span.lowestTemperatureC) / 2,
  };
  const load = ionicLoad(feed);
  const gas = load.weakAcidMeqL;
  const goalPpm = mostPpm(system);
  const brought = broughtTo(system, job);
  // A water without calcium or alkalinity has no index: nothing can fall out of it.
  const lime = calciteIndex(feed, feed.temperatureC);
  const water: ChoiceWater = {
    ppm: PPM_PER_USCM * state.value.ec25UScm * strength,
    cationMeqL: load.cationMeqL * strength,
    anionMeqL: (load.anionMeqL - gas) * strength + gas,
    chlorineMgL: feed.mgL.chlorine,
    chloramineMgL: feed.mgL.chloramine,
    limeIndex: lime.ok ? lime.value : NO_LIME,
    chlorideMgL: feed.mgL.Cl * strength,
    hardnessMgL: hardnessOf(feed.mgL) * strength,
    alkalinityMgL: feed.alkalinityMgL * strength,
  };
  const demand = productDemand(system.goal);
  const days = demand.dayL.filter((one) => one > 0).length;
  const need: ChoiceNeed = {
    litresPerYear: perDay * DAYS_PER_YEAR,
    // A week's work is made on the days something is drawn on, where there are such days.
    litresPerDay: days > 0 && demand.batches.length === 0 ? (7 * perDay) / days : perDay,
    largestDrawL: litres * largestDrawL(demand),
    hoursPerDay: choice.hoursPerDay,
  };
  const bypass = brought && brought.quantity === 'alkalinityMgL' ? laneBypass(feed, brought.value) : 0;
  const ageing = AGEING[sea ? 'sea' : SMALL_JOBS.includes(job) ? 'household' : 'large'];
  return ok({
    job,
    feed,
    meanC: year.mean,
    sea,
    spaces: spacesOf(
      job,
      { carbonMgL: carbonLoadMgL(water.chlorineMgL, water.chloramineMgL), bypass },
      { ...NOT_BUILT, ...keptOf(choice) },
    ),
    judging: {
      water,
      need,
      goal: { ppm: goalPpm, wantsResin: goalPpm !== null && goalPpm <= PURE_PPM, broughtTo: brought },
      site: {
        wallMm: choice.wallMm,
        capital: choice.capital,
        power: choice.power,
        drain: choice.drain,
        leastWaste: sea ? null : choice.leastWaste,
        visitsPerYear: choice.visitsPerYear,
        leastBar: LEAST_BAR,
        linePressureBar: inletBar(system.source),
      },
      prices: priceList(system),
      ageing,
      horizonYears: choice.horizonYears,
      rate: choice.rate,
      rules: RULES_OF[job],
      crossFlowOn: SMALL_JOBS.includes(job) ? 'old' : 'new',
      mostChanges: MOST_CHANGES[job],
      asked: askingOf(physicsOn(system, feed, sea, slices), year, ageing, strength, known),
    },
  });
}

/** Bypass at which a lane brings alkalinity to a target; none where it cannot. */
function laneBypass(feed: Water, target: number): number {
  const found = bypassFor(feed, { capacityEq: 1, leak: LANE_LEAK, magnesiumShare: 0 }, { quantity: 'alkalinityMgL', value: target });
  return found.ok ? found.value.bypass : 0;
}

/** The spaces of a system, for naming and narrowing what is tried; none where its water cannot be told. */
export function spacesOfSystem(system: System): readonly Space[] {
  const laid = comparisonOf({ ...system, choice: { ...system.choice, kept: [] } }, new Map());
  return laid.ok ? laid.value.spaces : [];
}
