import { currentSample, type Sample, type System } from '../file';
import {
  bedThroughput,
  bedUtilisation,
  CARBON_KNOWN,
  ionicLoad,
  lifeBand,
  lifeBandByAeration,
  slowestFlowLPerH,
  type Bed,
  type BedThroughput,
  type BedUtilisation,
  type CarbonKnown,
  type IonicLoad,
  type LifeBand,
  type LoadShares,
} from '../exchange';
import { stageBed } from '../stage';
import { productLPerDay } from '../goal';
import type { SolvedTrain } from '../train';
import type { LoopReport } from './loop';

/** What the resin stages of a train treat when they are new, and how sure that is. */
export interface ResinLife {
  readonly throughput: BedThroughput;
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

/**
 * Litres the resin stages of a train treat, taken together, when new; null where there are none.
 *
 * @param loop in which they stand: the make-up and the air are what loads them then
 */
export function resinLife(system: System, solved: SolvedTrain, loop: Pick<LoopReport, 'polisherDays'> | null): ResinLife | null {
  const first = solved.resins[0];
  if (!first || solved.productLPerH <= 0) return null;
  const beds = solved.resins.map((resin) => {
    const stage = system.train.stages.find((candidate) => candidate.id === resin.stageId);
    return stage?.kind === 'resin' ? stageBed(stage) : null;
  });
  if (beds.some((bed) => bed === null)) return null;
  const load = ionicLoad(first.feed);
  const states = solved.resins.map((resin) => resin.utilisation);
  const flowLPerH = solved.stations.find((station) => station.after === first.stageId)?.flowLPerH ?? solved.productLPerH;
  const mostLPerH = mostFlow(states, flowLPerH);
  const rows = beds.map((bed) => bed!);
  // Where the flow at hand is too much, its life is told at one the bed holds with ease.
  const throughput = bedThroughput(
    rows,
    mostLPerH === null ? states : statesAt(rows, mostLPerH * EASY, first.feed.temperatureC, states),
    load,
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
  const days = loop && need > 0 && behindLastTank(system, first.stageId) ? loop.polisherDays : null;
  return {
    throughput: days === null ? throughput : { ...throughput, limiting: 'anion', until: { kind: 'litres', litres: days * need } },
    inLoop: days !== null,
    beds: beds.length,
    load,
    usable: first.utilisation[side].utilisation,
    band,
    narrows: width(band) > WORTH * width(best[1]) ? best[0] : null,
    flowLPerH,
    mostLPerH,
  };
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
