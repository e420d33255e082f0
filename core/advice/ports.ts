import { membraneStage, vesselName, type PortReading, type System } from '../file';
import { unitRanks } from '../stage';
import type { SolvedTrain } from '../train';
import { settleWater } from '../water';

/** The product port of one vessel: what it should read, what it did, and how that stands beside the others. */
export interface SamplePort {
  readonly stageId: string;
  readonly rank: number;
  readonly vessel: number;
  /** What to call it: its rank only where there are several. */
  readonly name: string;
  readonly expectedUScm: number;
  readonly read: PortReading | null;
  /** Read over expected, set against the middle one of all that were read; null where that cannot be told. */
  readonly against: number | null;
  readonly verdict: 'unread' | 'fits' | 'high' | 'low';
}

/** A vessel this many times above or below the others is out of line (our judgement: meters and cores differ by a third). */
const OUT_OF_LINE = 1.5;

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
};

/**
 * The ports of a membrane unit with several vessels or elements in housings of their own, in the order of the water.
 *
 * One vessel that reads high beside its like has the bad element or O-ring; all of them high is the water or the age.
 */
export function samplePorts(system: System, solved: SolvedTrain): SamplePort[] {
  const stage = membraneStage(system.train.stages);
  if (!stage || !solved.unit || solved.unitStageId !== stage.id) return [];
  const ranks = unitRanks(stage);
  const ports = solved.unit.portWaters.flatMap((water, rank) => {
    const state = settleWater(water);
    if (!state.ok) return [];
    return Array.from({ length: ranks[rank]?.vessels ?? 0 }, (_, vessel) => {
      const read = system.build.ports.find((one) => one.stageId === stage.id && one.rank === rank && one.vessel === vessel) ?? null;
      return { stageId: stage.id, rank, vessel, name: vesselName(ranks, rank, vessel), expectedUScm: state.value.ec25UScm, read };
    });
  });
  const ratios = ports.flatMap(({ read, expectedUScm }) => (read ? [read.ec25UScm / expectedUScm] : []));
  // Alone a reading has only the prediction beside it.
  const usual = ratios.length >= 3 ? middle(ratios) : 1;
  return ports.map((port): SamplePort => {
    if (!port.read) return { ...port, against: null, verdict: 'unread' };
    const against = port.read.ec25UScm / port.expectedUScm / (usual || 1);
    return { ...port, against, verdict: against > OUT_OF_LINE ? 'high' : against < 1 / OUT_OF_LINE ? 'low' : 'fits' };
  });
}

/** A reading at a port, in place of the one before. */
export const withPortReading = (system: System, reading: PortReading): System => ({
  ...system,
  build: {
    ...system.build,
    ports: [
      ...system.build.ports.filter((one) => one.stageId !== reading.stageId || one.rank !== reading.rank || one.vessel !== reading.vessel),
      reading,
    ],
  },
});
