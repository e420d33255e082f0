import { currentSample, type Sample, type System } from '../file';
import {
  bedCapacityEq,
  bedThroughput,
  beforeBed,
  bedUtilisation,
  CARBON_KNOWN,
  ionicLoad,
  lifeBand,
  lifeBandByAeration,
  slowestFlowLPerH,
  usedAtGoal,
  type Bed,
  type BeforeBed,
  type BedThroughput,
  type BedUtilisation,
  type CarbonKnown,
  type IonicLoad,
  type LifeBand,
  type LoadShares,
} from '../exchange';
import { stageBed, type Stage, type StageOf } from '../stage';
import { goalLimits, productLPerDay, type StrengthLimit } from '../goal';
import type { SolvedTrain } from '../train';
import type { TrainYear } from './trainYear';

/** What the resin stages of a train treat when they are new, on the water of a whole year, and how sure that is. */
export interface ResinLife {
  /** Litres until the product passes the goal; until its first visible rise where the goal says nothing of strength. */
  readonly throughput: BedThroughput;
  /** What a change takes out, and how often that is. */
  readonly change: ResinChange;
  /** What ends it, by the transfer units of a row: see `usedAtGoal`. */
  readonly meets: BeforeBed;
  readonly goalUScm: number | null;
  /** It polishes a loop: its life is of the make-up and the air. */
  readonly inLoop: boolean;
  readonly beds: number;
  readonly load: IonicLoad;
  /** Share of what the first can hold that is used at breakthrough, on the side that ends first. */
  readonly usable: number;
  /** Litres over the middle estimate that 90 and 10 in a hundred reach. */
  readonly band: LifeBand;
  /** The one measurement that would narrow the band most; null where none would by much. */
  readonly narrows: string | null;
  readonly flowLPerH: number;
  /** Largest flow that still holds the breakthrough level, where the flow at hand does not; the life is then told at half of it. Else null. */
  readonly mostLPerH: number | null;
}

/** A change of resin: alike beds in a row move up, so that one is bought each time; others are changed together. */
export interface ResinChange {
  readonly rotates: boolean;
  /** Beds whose filling is bought. */
  readonly stageIds: readonly string[];
  /** Litres of product from one change to the next; null where nothing uses the resin up. */
  readonly everyL: number | null;
}

/** Beds this alike move up in a row: one is as good as the other. */
const ALIKE = 0.02;

/** Whether the resins of a train are changed in turn: the first goes wholly used, the next moves up, a new one stands last. */
export function changedInTurn(stages: readonly Stage[]): boolean {
  const beds = stages.filter((stage): stage is StageOf<'resin'> => stage.kind === 'resin');
  const [first] = beds;
  return (
    beds.length > 1 &&
    beds.every(({ resinClass, volumeL }) => resinClass === first!.resinClass && Math.abs(volumeL / first!.volumeL - 1) < ALIKE)
  );
}

/** What is known of the carbon dioxide of a tap: a kit's pH is a strip's, a report's a meter's. */
export function carbonKnown(sample: Sample): CarbonKnown {
  const reported = (quantity: string): boolean => sample.report.values.some((value) => value.quantity === quantity && !value.below);
  if (sample.way === 'report') return reported('pH') ? (reported('alkalinityMgL') ? 'pHMeterAndKit' : 'pHMeter') : 'meterOnly';
  return sample.way === 'kit' && sample.kit.pH !== null ? 'pHStrip' : 'meterOnly';
}

/** Measurements that narrow the band, each with what it leaves. */
function candidates(shares: LoadShares, known: CarbonKnown): readonly (readonly [string, LifeBand])[] {
  const by = (to: CarbonKnown): LifeBand => lifeBand(shares, CARBON_KNOWN[to]);
  return [
    ...(known === 'meterOnly' ? [['a pH strip on fresh tap water', by('pHStrip')] as const] : []),
    ...(known === 'meterOnly' || known === 'pHStrip'
      ? [['a pH meter and an alkalinity kit at the tap', by('pHMeterAndKit')] as const]
      : []),
    ['the pH of the permeate fresh and after an hour of bubbling with air', lifeBandByAeration(shares)],
  ];
}

/** A measurement is worth its name when it makes the band narrower by this factor. */
const WORTH = 1.15;

/** The breakthrough level a bed must hold at all: 3.6 transfer units at one in a hundred. */
const FEWEST_UNITS = -1 - Math.log(0.01);

/** What the first resin of a solved train meets, as far as its end by this goal depends on it; null without resin. */
export function beforeFirstBed({ goal, units }: Pick<System, 'goal' | 'units'>, solved: SolvedTrain): BeforeBed | null {
  const first = solved.resins[0];
  if (!first) return null;
  const at = solved.stations.findIndex((station) => station.after === first.stageId);
  const silica = goalLimits(goal, units.ppmFactor).find(({ quantity }) => quantity === 'silicaMgL')?.high ?? null;
  const weakCounts = silica !== null && first.feed.mgL.SiO2 > silica;
  return beforeBed(first.feed, solved.stations[at - 1]?.state.ec25UScm ?? 0, ionicLoad(first.feed), weakCounts);
}

/**
 * Litres the resin stages of a train treat, taken together, when new; null where there are none.
 *
 * @param loopDays how long the polisher of a loop lasts, where they stand in one: the make-up and the air are what loads them then
 * @param strength what the goal allows the product
 */
export function resinLife(system: System, year: TrainYear, loopDays: number | null, strength: StrengthLimit | null): ResinLife | null {
  const solved = year.mean;
  const first = solved.resins[0];
  const { load } = year;
  if (!first || !load || solved.productLPerH <= 0) return null;
  const stages = solved.resins.flatMap(({ stageId }) => {
    const stage = system.train.stages.find(({ id }) => id === stageId);
    return stage?.kind === 'resin' ? [stage] : [];
  });
  if (stages.length < solved.resins.length) return null;
  const rows = stages.map(stageBed);
  const states = solved.resins.map((resin) => resin.utilisation);
  const flowLPerH = solved.stations.find(({ after }) => after === first.stageId)?.flowLPerH ?? solved.productLPerH;
  const mostLPerH = mostFlow(states, flowLPerH);
  const meets = beforeFirstBed(system, solved)!;
  const goalUScm = strength?.highUScm ?? null;
  // Where the flow at hand is too much, its life is told at one the bed holds with ease.
  const throughput = bedThroughput(
    rows,
    mostLPerH === null ? states : statesAt(rows, mostLPerH * EASY, first.feed.temperatureC, states),
    load,
    (side, units) => usedAtGoal(side, units, meets, goalUScm),
  );
  const side = throughput.limiting;
  const total = side === 'anion' ? load.anionMeqL : load.cationMeqL;
  const silica = side === 'anion' && total > 0 ? first.feed.mgL.SiO2 / 60.084 / total : 0;
  const unseen = side === 'anion' && total > 0 ? load.weakAcidMeqL / total : 0;
  const shares: LoadShares = { co2: Math.max(0, unseen - silica), silica, ions: 1 - unseen };
  const known = carbonKnown(currentSample(system.source));
  const band = lifeBand(shares, CARBON_KNOWN[known]);
  const width = ({ p10, p90 }: LifeBand): number => p90 / p10;
  const best = candidates(shares, known).reduce((least, one) => (width(one[1]) < 0.98 * width(least[1]) ? one : least));
  const need = productLPerDay(system.goal);
  const days = need > 0 && behindLastTank(system, first.stageId) ? loopDays : null;
  const life: BedThroughput =
    days === null ? throughput : { ...throughput, limiting: 'anion', until: { kind: 'litres', litres: days * need } };
  return {
    throughput: life,
    change: changeOf(stages, life, days === null ? total : null),
    meets,
    goalUScm,
    inLoop: days !== null,
    beds: rows.length,
    load,
    usable: usedAtGoal(side, first.utilisation[side].transferUnits, meets, goalUScm),
    band,
    narrows: width(band) > WORTH * width(best[1]) ? best[0] : null,
    flowLPerH,
    mostLPerH,
  };
}

/** How often so many beds are changed: in turn, each wholly used, or all at once when the row is at its end. */
function changeOf(stages: readonly StageOf<'resin'>[], { until, limiting }: BedThroughput, meqL: number | null): ResinChange {
  const ids = stages.map(({ id }) => id);
  const turns = changedInTurn(stages);
  if (until.kind === 'unlimited') return { rotates: turns, stageIds: turns ? ids.slice(0, 1) : ids, everyL: null };
  if (!turns) return { rotates: false, stageIds: ids, everyL: until.litres };
  // In turn a bed is wholly used before it goes; in a loop, where litres are not what loads it, its share of the row.
  const capacity = bedCapacityEq(stageBed(stages[0]!))[`${limiting}Eq`];
  return { rotates: true, stageIds: ids.slice(0, 1), everyL: meqL ? (1000 * capacity) / meqL : until.litres / stages.length };
}

/** Share of the largest flow a bed holds at all, at which its life is told where more flows (our judgement). */
const EASY = 0.5;

/** A row of beds at another flow; as it was where that lies outside the law. */
const statesAt = (beds: readonly Bed[], flowLPerH: number, temperatureC: number, otherwise: readonly BedUtilisation[]): BedUtilisation[] =>
  beds.map((bed, i) => {
    const state = bedUtilisation(bed, Math.max(flowLPerH, slowestFlowLPerH(bed, temperatureC)), temperatureC);
    return state.ok ? state.value : otherwise[i]!;
  });

/** Whether a stage stands behind the last tank, where the loop goes round. */
function behindLastTank({ train }: System, stageId: string): boolean {
  const tank = train.stages.findLastIndex(({ kind }) => kind === 'tank');
  return tank >= 0 && train.stages.findIndex(({ id }) => id === stageId) > tank;
}

/** Largest flow at which a row of beds holds the breakthrough level, where this one does not: transfer units fall with flow^(2/3). */
function mostFlow(states: readonly BedUtilisation[], flowLPerH: number): number | null {
  const units = (side: 'cation' | 'anion'): number => states.reduce((sum, state) => sum + state[side].transferUnits, 0);
  const least = Math.min(...[units('cation'), units('anion')].filter((n) => n > 0));
  return least < FEWEST_UNITS ? flowLPerH * (least / FEWEST_UNITS) ** 1.5 : null;
}
