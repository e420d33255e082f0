import type { Gauge, Place, System } from '../file';
import { kindOf } from '../stage';
import { settleWater, type WaterState } from '../water';
import { inletBar } from './pressure';
import { productStation, type SolvedTrain } from './solved';
import type { Station } from './walk';

/** What is expected where a probe stands. */
export interface AtPlace {
  readonly state: WaterState;
  /** What to call what is before it. */
  readonly name: string;
}

const settled = (water: Parameters<typeof settleWater>[0], name: string): AtPlace | null => {
  const state = settleWater(water);
  return state.ok ? { state: state.value, name } : null;
};

/** The station behind a stage of the train or of a use. */
const stationAfter = ({ stations, branches }: SolvedTrain, after: string): Station | undefined =>
  stations.find((station) => station.after === after) ??
  branches.flatMap((branch) => branch.stations.slice(1)).find((station) => station.after === after);

/**
 * The water a probe reads on a solved train: behind a stage, in what a membrane is fed or sends to waste, at one vessel,
 * in what a loop brings back, which is what it was led out with.
 *
 * @returns null where there is no such water: the place is gone, or nothing flows there
 */
export function atPlace(solved: SolvedTrain, { after, side, vessel }: Place): AtPlace | null {
  const { unit, unitStageId, waste, secondPass } = solved;
  if (side === 'return') return { ...productStation(solved), name: 'the loop' };
  if (side === 'waste') {
    const station = [waste, secondPass?.waste ?? null].find((one) => one?.after === after);
    return station && station.flowLPerH > 0 ? { state: station.state, name: 'the waste' } : null;
  }
  const own = after === unitStageId ? unit : secondPass?.waste.after === after ? secondPass.unit : null;
  if (side === 'feed') return own && settled(own.mixedFeed, 'the recycle');
  if (vessel) {
    const water = own?.portWaters[vessel.rank];
    return water ? settled(water, `rank ${vessel.rank + 1}`) : null;
  }
  const station = stationAfter(solved, after);
  return station ? { state: station.state, name: station.name } : null;
}

/** What a gauge or flow meter should show on a solved train, bar or L/h; null where nothing stands or flows there. */
export function atGauge({ source, train }: Pick<System, 'source' | 'train'>, solved: SolvedTrain, at: Gauge['at']): number | null {
  const { unit, unitStageId, waste, stations } = solved;
  switch (at) {
    case 'line':
      return inletBar(source);
    case 'filters': {
      const membrane = train.stages.findIndex(({ id }) => id === unitStageId);
      const last = train.stages.slice(0, membrane < 0 ? undefined : membrane).findLast((stage) => kindOf(stage).prefilter);
      return stations.find(({ after }) => after === last?.id)?.pressureBar ?? null;
    }
    case 'membrane':
      return unit?.feedPressureBar ?? null;
    case 'concentrate':
      return waste?.pressureBar ?? null;
    case 'distribution':
      return productStation(solved).pressureBar;
    case 'product':
      return unit ? unit.permeateLPerH : null;
    case 'waste':
      return unit ? unit.concentrateLPerH : null;
    case 'recycle':
      return unit ? unit.recycleLPerH : null;
    case 'loop':
      return train.loop?.flowLPerH ?? null;
  }
}
