import {
  USUAL_RATIO,
  ELEMENT_CLASSES,
  type ElementClass,
  elementCount,
  ELEMENT_ROWS,
  elementText,
  lengthForRatio,
  MAX_TEMPERATURE_C,
  speciesOfWater,
} from '../membrane';
import { feedPump, membraneStage, tankVolumeL, type System, type Train } from '../file';
import { type Stage, type StageOf, unitRanks, newStage, type TrainUse, NO_LABEL } from '../stage';
import { productDemand, productLPerDay, smallestTankL } from '../goal';
import { BAR_PER_PSI, moneyText, percent, THIN, words } from '../quantity';
import type { Water } from '../water';
import { wasteIndex } from './scaling';
import { scaleLimits } from './service';
import { litresPerYear, perM3 } from '../ledger';
import { booksOf, strengthOf, yearOf } from './facts';
import { inletBar, membraneOperation, solveTrain, polishedStation, wasteToProduct, type SolvedTrain, wornTrain } from '../train';

export type OptionId = 'asItIs' | 'booster' | 'series' | 'seriesKept' | 'parallel' | 'larger' | 'warmer' | 'longer';

/** One way to more water, solved by the same solver as the system itself. */
export interface WaterOption {
  readonly id: OptionId;
  readonly label: string;
  /** Output, and how many times what the system makes now. */
  readonly productLPerDay: number;
  readonly times: number;
  readonly wasteToProduct: number | null;
  /** Salt that passes the membrane, 0–1; null when nothing is made. */
  readonly saltPassage: number | null;
  /** At the last stage that treats the water. */
  readonly productUScm: number;
  /** Calcite index of the waste; null without calcium. */
  readonly wasteIndex: number | null;
  readonly parts: readonly string[];
  /** What those parts cost, in the job's currency; 0 where nothing is bought. */
  readonly partsCost: number;
  /** What a cubic metre costs to run, by the ledger; null when nothing is made. */
  readonly costPerM3: number | null;
  /** Why it is not advised here; null when it is. */
  readonly against: string | null;
  /** Whether it can be done here at all: without it the figures say nothing. */
  readonly possible: boolean;
  /** What to mind when it is done. */
  readonly mind: string | null;
  /** The stages it would have; null when it changes no stage. */
  readonly stages: readonly Stage[] | null;
}

/** Below the first, boost; near the second a pair is wanted; above the third nothing more is needed (common practice). */
const PAIR_LEAST_BAR = 45 * BAR_PER_PSI;
const PAIR_WANTS_BAR = 60 * BAR_PER_PSI;
const BOOSTED_BAR = 80 * BAR_PER_PSI;
/** Feed warmed for comparison, as a room-temperature coil would. */
const WARMED_C = 20;

/** The next larger element of the same family; null at the end of the row. */
export function nextElement(of: ElementClass): ElementClass | null {
  const { use, size } = ELEMENT_ROWS[of];
  // A wide one of the household fits no usual housing.
  const family = ELEMENT_CLASSES.filter((id) => ELEMENT_ROWS[id].use === use && (use !== 'household' || ELEMENT_ROWS[id].size === size));
  return family[family.indexOf(of) + 1] ?? null;
}

/**
 * Ways to more water from the system as it stands, each solved whole: a booster, a second element on the waste or
 * beside the first, a larger element, warmer feed, longer hours. Those that do not fit say why.
 *
 * @param feed the completed tap water
 * @param use what each stage has been through, from the log
 */
export function moreWater(system: System, feed: Water, use: TrainUse = {}): WaterOption[] {
  const asItStands = (stages: readonly Stage[], without?: string): Train =>
    wornTrain(
      { ...system.train, stages: [...stages] },
      system.source.turbidityNTU,
      Object.fromEntries(Object.entries(use).filter(([id]) => id !== without)),
    );
  const now = solveTrain(asItStands(system.train.stages), system.source, feed, use);
  const membrane = membraneStage(system.train.stages);
  if (!now.ok || !membrane || !now.value.unit) return [];
  const base = now.value;
  const line = inletBar(system.source);
  const say = words(system.units);
  const replaced = (changes: Partial<StageOf<'membrane'>>): Stage[] =>
    system.train.stages.map((stage) => (stage.id === membrane.id ? { ...membrane, ...changes } : stage));
  const option = (
    id: OptionId,
    label: string,
    stages: readonly Stage[] | null,
    more: More & { readonly water?: Water; /** Stage that is new in it. */ readonly renewed?: string },
  ): WaterOption | null => {
    const changed = { ...system, train: asItStands(stages ?? system.train.stages, more.renewed) };
    const solved = solveTrain(changed.train, system.source, more.water ?? feed, use);
    if (!solved.ok) return null;
    // A feed that is warmed is as warm all year.
    const { temperatureC } = more.water ?? feed;
    const season = { ...system.source.season, lowestTemperatureC: temperatureC, highestTemperatureC: temperatureC };
    const through = more.water ? { ...changed, source: { ...system.source, season } } : changed;
    const year = yearOf(through, more.water ?? feed, use);
    const books = year.ok ? booksOf(through, year.value, use, strengthOf(through, solved.value)) : null;
    const costPerM3 = books && solved.value.productLPerH > 0 ? perM3(books.ledger.running, books.ledger) : null;
    return described(id, label, system, stages, base, solved.value, { ...more, costPerM3 });
  };

  const hasPump = feedPump(system.train.stages) !== undefined;
  const single = membrane.arrangement === 'single';
  const booster: Stage = newStage('pump', 'pump-booster');
  const boosted = system.train.stages.flatMap((stage) => (stage === membrane ? [booster, stage] : [stage]));
  const larger = nextElement(membrane.elementClass);
  const second = single ? null : 'There are two elements or more already.';
  const poor =
    line < PAIR_LEAST_BAR && !hasPump
      ? `At ${say.of(line, 'pressureBar')} a membrane lets ${percent(1 - (base.unit?.rejection ?? 1))} of the salt through, and two no less: boost first.`
      : null;
  const near =
    line < PAIR_WANTS_BAR && !hasPump
      ? ` Near ${say.of(PAIR_WANTS_BAR, 'pressureBar')} is wanted; the line has ${say.of(line, 'pressureBar')}.`
      : '';
  const need = productLPerDay(system.goal);
  const tank = smallestTankL(productDemand(system.goal), base.productLPerH * 24);
  const tankL = tankVolumeL(system.train.stages);
  // A fifth above what the week needs in store.
  const largerL = tank !== null && tankL < tank ? Math.ceil((1.2 * tank) / 10) * 10 : null;
  const { prices } = system;
  const elements = elementCount(unitRanks(membrane));
  const hours = base.productLPerH > 0 ? need / base.productLPerH : null;

  const pairRestrictor = seriesRestrictor(system, asItStands(system.train.stages), membrane, base);
  const found: (WaterOption | null)[] = [
    option('asItIs', 'As it stands', null, {}),
    option('booster', 'Booster pump before the membrane', boosted, {
      partsCost: prices.boosterPump,
      parts: ['booster pump with its supply', 'pressure switch', `bypass set to ${say.of(BOOSTED_BAR, 'pressureBar')}`],
      possible: !hasPump,
      against: hasPump
        ? 'There is a pump already.'
        : line >= BOOSTED_BAR
          ? `The line has ${say.of(line, 'pressureBar')}: no more is needed.`
          : null,
      mind: 'Electricity near water: behind a residual-current device, wired by someone who may.',
    }),
    option('series', 'Second element on the waste of the first', replaced({ arrangement: 'series', restrictor: pairRestrictor }), {
      partsCost: prices.element,
      parts: ['membrane and housing', 'a T for the two products', 'one larger restrictor on the last waste', 'flush valve moved behind it'],
      possible: single,
      against: second ?? poor,
      mind: `${membrane.valve ? 'The waste valve moves to the last waste.' : 'The old restrictor comes out: one restrictor, on the last waste.'}${near}`,
    }),
    single && !membrane.valve ? keptRestrictor(option, system, membrane, replaced({ arrangement: 'series' }), base, poor) : null,
    option('parallel', 'Second element beside the first', replaced({ arrangement: 'parallel', restrictor: pairRestrictor }), {
      partsCost: prices.element,
      parts: ['membrane and housing', 'two Ts', 'one larger restrictor'],
      possible: single,
      against: second ?? poor,
      mind: `Each element gets half the rinse: on hard water the pair in series keeps cleaner.${near}`,
    }),
    larger
      ? option(
          'larger',
          `Larger element, ${elementText(larger, system.units)}`,
          replaced({ elementClass: larger, label: NO_LABEL, waterFactor: null, saltFactor: null }),
          {
            renewed: membrane.id,
            partsCost: elements * prices.element,
            parts: [`${elements > 1 ? `${elements} membranes` : 'membrane'} ${elementText(larger, system.units)}`],
            mind: 'More water, but poorer: of the household elements the larger ones hold back less salt.',
          },
        )
      : null,
    option('warmer', `Feed warmed to ${say.of(WARMED_C, 'temperatureC')}`, null, {
      partsCost: prices.warmingCoil,
      parts: ['a coil of tubing at room temperature, or a heat exchanger'],
      possible: feed.temperatureC < WARMED_C - 2,
      against: feed.temperatureC >= WARMED_C - 2 ? `The feed has ${say.of(feed.temperatureC, 'temperatureC')} already.` : null,
      mind: `Never from the hot side: above ${say.of(MAX_TEMPERATURE_C, 'temperatureC')} a membrane dies.`,
      water: { ...feed, temperatureC: Math.max(WARMED_C, feed.temperatureC) },
    }),
    option('longer', 'Longer hours and a larger tank', null, {
      partsCost: largerL === null ? 0 : largerL * prices.tankPerL,
      parts: largerL === null ? [] : [`tank of ${say.of(largerL, 'volumeL')}`],
      against:
        hours === null || tank === null
          ? 'Not even all hours of the day are enough.'
          : hours < 12
            ? `It runs ${say.hours(hours)} a day as it is: time is not what lacks.`
            : null,
      mind: 'The float must close by itself: nobody watches at night.',
    }),
  ];
  // Two elements cannot be doubled by one: one line says so instead of two.
  return found.filter((one): one is WaterOption => one !== null && !(second !== null && one.id === 'parallel'));
}

/** What makes an option of a change, see `moreWater`. */
type MakeOption = (id: OptionId, label: string, stages: readonly Stage[] | null, more: More) => WaterOption | null;

/**
 * A second element on the waste of the first with the restrictor that is there: as much water is sent to waste, more of it
 * is made. What that saves stands beside what it risks.
 */
function keptRestrictor(
  option: MakeOption,
  system: System,
  membrane: StageOf<'membrane'>,
  stages: readonly Stage[],
  base: SolvedTrain,
  poor: string | null,
): WaterOption | null {
  const found = option('seriesKept', 'Second element, the old restrictor kept', stages, {});
  const was = wasteToProduct(base);
  if (!found || was === null || found.wasteToProduct === null) return null;
  const say = words(system.units);
  const limits = scaleLimits(system, base);
  const savedL = litresPerYear(productLPerDay(system.goal) * (was - found.wasteToProduct));
  const { waterPerM3, sewerPerM3, currency } = system.prices;
  const saves = `Waste falls from ${say.ratio(was)} to ${say.ratio(found.wasteToProduct)}: ${say.about(savedL, 'volumeL')} a year, ${moneyText((savedL / 1000) * (waterPerM3 + sewerPerM3), currency)}.`;
  const scales = found.wasteIndex !== null && found.wasteIndex > limits.calciteIndex;
  const starved = found.wasteToProduct < ELEMENT_LEAST_RATIO;
  const risk = scales
    ? `The waste can scale: index ${say.index(found.wasteIndex)}, acted on from ${say.index(limits.calciteIndex)}.`
    : starved
      ? `Below ${say.ratio(ELEMENT_LEAST_RATIO)} an element is hardly rinsed: it fouls.`
      : null;
  return {
    ...found,
    partsCost: system.prices.element,
    parts: ['membrane and housing', 'a T for the two products'],
    possible: membrane.arrangement === 'single',
    against: poor ?? (risk === null ? null : `${saves} ${risk}`),
    mind: [`${saves} Salt and hardness of the waste rise with it: flush it every day, read the product.`, found.mind ?? '']
      .join(' ')
      .trim(),
  };
}
/** Waste to product below which a small element is hardly rinsed (common practice). */
const ELEMENT_LEAST_RATIO = 1;

/** A restrictor that keeps the ratio of today with a second element: the bore scaled to twice the flow. */
function seriesRestrictor(
  system: System,
  train: Train,
  membrane: StageOf<'membrane'>,
  base: SolvedTrain,
): StageOf<'membrane'>['restrictor'] {
  const operation = membraneOperation(train, system.source, base);
  const ratio = base.unit?.wasteToProduct;
  // Turbulent flow goes with the bore to the power 2.7: twice the flow needs 1.29 times the bore.
  const wider = { ...membrane.restrictor, boreMm: Math.min(3, membrane.restrictor.boreMm * 1.29) };
  if (!operation || !ratio || membrane.valve) return wider;
  const species = speciesOfWater(operation.feed);
  const pair = { ...operation.unit, ranks: [...operation.unit.ranks, ...operation.unit.ranks], restrictor: wider };
  const length = species.ok
    ? lengthForRatio(
        pair,
        species.value,
        { ...operation.conditions, temperatureC: operation.feed.temperatureC },
        Math.min(Math.max(ratio, USUAL_RATIO.least), USUAL_RATIO.most),
      )
    : species;
  return length.ok ? { ...wider, lengthMm: Math.round(length.value) } : wider;
}

/** What is said beside an option's figures. */
interface More {
  readonly parts?: readonly string[];
  readonly partsCost?: number;
  readonly against?: string | null;
  readonly possible?: boolean;
  readonly mind?: string | null;
}

function described(
  id: OptionId,
  label: string,
  system: System,
  stages: readonly Stage[] | null,
  base: SolvedTrain,
  solved: SolvedTrain,
  more: More & { readonly costPerM3: number | null },
): WaterOption {
  const { unit } = solved;
  const productLPerDay = solved.productLPerH * 24;
  return {
    id,
    label,
    productLPerDay,
    times: base.productLPerH > 0 ? solved.productLPerH / base.productLPerH : 1,
    wasteToProduct: wasteToProduct(solved),
    saltPassage: unit?.rejection === null || unit?.rejection === undefined ? null : 1 - unit.rejection,
    productUScm: polishedStation(solved).state.ec25UScm,
    wasteIndex: unit && wasteIndex(unit),
    parts: more.parts ?? [],
    partsCost: more.partsCost ?? 0,
    costPerM3: more.costPerM3,
    against: more.against ?? null,
    possible: more.possible ?? true,
    mind: [more.mind, shorterContact(base, solved, system)].filter((part) => part).join(' ') || null,
    stages,
  };
}

/** Less contact than this share of before is worth a sentence. */
const SHORTER = 0.85;

/** What more flow does to the carbon that stands before the membrane; nothing where it does little. */
function shorterContact(before: SolvedTrain, after: SolvedTrain, { units, train }: System): string | null {
  const [was, is] = [before.carbons, after.carbons].map(
    (carbons) => [...carbons].sort((a, b) => a.state.contactTimeS - b.state.contactTimeS)[0],
  );
  if (!was || !is || is.state.contactTimeS > SHORTER * was.state.contactTimeS) return null;
  const [seconds, ago] = [is, was].map(({ state }) => state.contactTimeS.toFixed(0));
  const at = train.stages.findIndex((stage) => stage.kind === 'membrane');
  const { chlorine, chloramine } = after.stations[at]?.water.mgL ?? { chlorine: 0, chloramine: 0 };
  const through = chlorine + chloramine;
  const leak = through >= SEEN_CHLORINE_MGL ? `; ${words(units).mgL(through)} of chlorine comes through it` : '';
  return `The carbon gets ${seconds}${THIN}s of contact instead of ${ago}${leak}.`;
}

/** What a test strip shows, mg/L. */
const SEEN_CHLORINE_MGL = 0.02;
