import type { System } from '../file';
import { ionicLoad, type IonicLoad } from '../exchange';
import { gridFigures } from '../numeric';
import { DAYS_PER_YEAR, ok, type Outcome } from '../quantity';
import { COLDEST_MONTH, litresPerProduct, type SeasonSpan, type SolvedTrain } from '../train';
import { strengthened, type Water } from '../water';
import { trainEnergy } from './energy';
import { seasonAt, type Season } from './season';

/** A train over the year of its water: solved at a few temperatures and strengths, its figures read at twelve even phases. */

/** Strongest month north of the equator: September (common practice). */
export const STRONGEST_MONTH = 8;
/** Day of the year a month is half over on. */
const midOfMonth = (month: number): number => Math.floor(((month + 0.5) * DAYS_PER_YEAR) / 12);
/** Half a year after it is coldest. */
const WARMEST_DAY = midOfMonth(COLDEST_MONTH + 6);
const STRONGEST_DAY = midOfMonth(STRONGEST_MONTH);
/** No water is solved colder. */
export const LEAST_C = 0.5;

/** How the feed goes through the year: its temperature, and its strength against the sample it is planned with. */
export interface FeedSeasons {
  readonly temperature: Season;
  readonly strength: Season;
}
export function feedSeasons(span: SeasonSpan, ec25UScm: number): FeedSeasons {
  const { lowestTemperatureC: low, highestTemperatureC: high } = span;
  const [weak, strong] = [(span.weakestUScm ?? ec25UScm) / ec25UScm, (span.strongestUScm ?? ec25UScm) / ec25UScm];
  return {
    temperature: { mean: (low + high) / 2, amplitude: (high - low) / 2, highDay: WARMEST_DAY },
    strength: { mean: (weak + strong) / 2, amplitude: (strong - weak) / 2, highDay: STRONGEST_DAY },
  };
}

/** What a litre of product takes and brings, mean over a year of even use. */
export interface TrainYear {
  readonly seasons: FeedSeasons;
  /** At the mean of temperature and strength. */
  readonly mean: SolvedTrain;
  /** On its coldest day, at the mean strength. */
  readonly coldest: SolvedTrain;
  /** Something comes through it on some day of the year; else nothing is drawn, and nothing is made to cost anything. */
  readonly produces: boolean;
  /** Litres taken from the tap. */
  readonly feedPerL: number;
  readonly hoursPerL: number;
  /** Electricity for a cubic metre; null where nothing draws any. */
  readonly kWhPerM3: number | null;
  /** Litres through each stage. */
  readonly throughPerL: readonly number[];
  /** What the first resin meets; null without one. */
  readonly load: IonicLoad | null;
}

const PHASES = 12;
/** A range of strengths narrower than this is one strength. */
const ONE_STRENGTH = 0.01;
/** Where the temperature factor of a membrane has its kink, °C: more nodes across it. */
const KINK_C = 25;

/** Nodes of temperature: both ends and the middle, closer across the kink; the middle alone where no membrane feels it. */
export function temperatureNodes({ mean, amplitude }: Season, matters: boolean): number[] {
  if (!matters || amplitude === 0) return [Math.max(LEAST_C, mean)];
  const [low, high] = [Math.max(LEAST_C, mean - amplitude), mean + amplitude];
  const count = low < KINK_C && high > KINK_C ? 5 : 3;
  return Array.from({ length: count }, (_, k) => (low + high) / 2 - ((high - low) / 2) * Math.cos((k * Math.PI) / (count - 1)));
}
export const strengthNodes = ({ mean, amplitude }: Season): number[] =>
  amplitude < ONE_STRENGTH * mean ? [mean] : [mean - amplitude, mean, mean + amplitude];

const LOADS = ['cationMeqL', 'anionMeqL', 'strongMeqL', 'bicarbonateMeqL', 'weakAcidMeqL'] as const;

const beforeResin = ({ resins }: SolvedTrain): Water | null => resins[0]?.feed ?? null;

/** Figures of one node, in a fixed order. */
function figuresOf(system: Pick<System, 'train'>, solved: SolvedTrain, meets: (solved: SolvedTrain) => Water | null): number[] {
  const { stages } = system.train;
  const made = solved.productLPerH;
  const before = meets(solved);
  const load = before ? ionicLoad(before) : null;
  return [
    solved.stations[0]!.flowLPerH / made,
    1 / made,
    trainEnergy(system, solved) ?? 0,
    ...LOADS.map((key) => load?.[key] ?? 0),
    ...stages.map((_, i) => litresPerProduct(solved, stages, i)),
  ];
}

/**
 * A train over its year.
 *
 * @param solve the train on a water, at that water's temperature
 * @param feed the tap as it is planned with
 * @param meets the water whose load is wanted: what meets the first resin, where nothing else is asked for
 */
export function trainYear(
  system: Pick<System, 'train'>,
  solve: (feed: Water) => Outcome<SolvedTrain>,
  feed: Water,
  seasons: FeedSeasons,
  meets: (solved: SolvedTrain) => Water | null = beforeResin,
): Outcome<TrainYear> {
  const hasMembrane = system.train.stages.some(({ kind }) => kind === 'membrane');
  const temperatures = temperatureNodes(seasons.temperature, hasMembrane);
  const strengths = strengthNodes(seasons.strength);
  const nodes = new Map<string, SolvedTrain>();
  for (const t of temperatures)
    for (const s of strengths) {
      const water = s === 1 ? feed : strengthened(feed, s);
      const solved = solve({ ...water, temperatureC: t });
      if (!solved.ok) return solved;
      nodes.set(`${t} ${s}`, solved.value);
    }
  const at = (t: number, s: number): SolvedTrain => nodes.get(`${t} ${s}`)!;
  const middle = <T>(all: readonly T[]): T => all[Math.floor((all.length - 1) / 2)]!;
  const mean = at(middle(temperatures), middle(strengths));
  const coldest = at(temperatures[0]!, middle(strengths));
  const usual = [mean, ...nodes.values()].find(producing);
  if (!usual) return ok(nothingMade(system, seasons, mean, coldest));
  // On a day on which nothing comes through, nothing is drawn: the water of the year is made on the others.
  const drawn = (t: number, s: number): SolvedTrain => (producing(at(t, s)) ? at(t, s) : usual);
  const read = gridFigures([temperatures, strengths], (t, s) => figuresOf(system, drawn(t, s), meets));
  const sums: number[] = [];
  const within = (value: number, nodes: readonly number[]): number => Math.min(nodes.at(-1)!, Math.max(nodes[0]!, value));
  for (let k = 0; k < PHASES; k++) {
    const day = (k * DAYS_PER_YEAR) / PHASES;
    const figures = read(within(seasonAt(seasons.temperature, day), temperatures), within(seasonAt(seasons.strength, day), strengths));
    figures.forEach((value, i) => (sums[i] = (sums[i] ?? 0) + value / PHASES));
  }
  const [feedPerL, hoursPerL, kWhPerM3, ...rest] = sums as [number, number, number, ...number[]];
  const load = meets(usual) ? (Object.fromEntries(LOADS.map((key, i) => [key, rest[i]!])) as unknown as IonicLoad) : null;
  return ok({
    seasons,
    mean,
    coldest,
    produces: true,
    feedPerL,
    hoursPerL,
    kWhPerM3: trainEnergy(system, usual) === null ? null : kWhPerM3,
    throughPerL: rest.slice(LOADS.length),
    load,
  });
}

const producing = ({ productLPerH }: SolvedTrain): boolean => productLPerH > 0;

/** The year of a train that nothing comes through. */
const nothingMade = (system: Pick<System, 'train'>, seasons: FeedSeasons, mean: SolvedTrain, coldest: SolvedTrain): TrainYear => ({
  seasons,
  mean,
  coldest,
  produces: false,
  feedPerL: 1,
  hoursPerL: 0,
  kWhPerM3: null,
  throughPerL: system.train.stages.map(() => 1),
  load: null,
});
