import type { Stage } from '../file';
import {
  bedCapacityEq,
  bedUtilisation,
  calcitePickup,
  decarbonised,
  polishedWater,
  slowestFlowLPerH,
  softened,
  softenerCapacityEqPerL,
  type BedUtilisation,
} from '../exchange';
import { carbonState, dechlorinated, type CarbonState } from '../pretreatment';
import { ok, type Outcome } from '../quantity';
import { openToAir, settleWater, type Water, type WaterState } from '../water';
import { pressureAfter, stageBed } from './pressure';
import type { TrainUse } from './wear';

/** The water at one place of the train: at the tap, or after a stage. */
export interface Station {
  /** 'tap', or the id of the stage it stands after. */
  readonly after: string;
  readonly name: string;
  readonly kind: Stage['kind'] | 'tap';
  readonly flowLPerH: number;
  readonly pressureBar: number;
  readonly water: Water;
  readonly state: WaterState;
}

/** What a resin stage does at this flow. */
export interface ResinState {
  readonly stageId: string;
  readonly utilisation: BedUtilisation;
  /** Share of the stoichiometric capacity used on the fuller side, 0–1 and beyond. */
  readonly usedShare: number;
  readonly feed: Water;
}

/** What walking along the stages carries forward. */
export interface Walk {
  water: Water;
  state: WaterState;
  pressureBar: number;
}

/** What is gathered on the way along the stages. */
export interface Collected {
  readonly stations: Station[];
  readonly resins: ResinState[];
  readonly carbons: { readonly stageId: string; readonly state: CarbonState; readonly flowLPerH: number }[];
}

/** Water after a stage that is not a membrane. */
export function waterAfter(
  stage: Stage,
  water: Water,
  flowLPerH: number,
  use: TrainUse,
): Outcome<{ water: Water; resin: ResinState | null }> {
  switch (stage.kind) {
    case 'sediment':
    case 'tubing':
    case 'pump':
    case 'membrane':
    case 'inhibitor':
    case 'uv':
      return ok({ water, resin: null });
    case 'softener':
      return ok({ water: softened(water, softenerCapacityEqPerL(stage.saltGPerL)), resin: null });
    case 'decarboniser': {
      const blend = decarbonised(water, stage, stage.bypass);
      return blend.ok ? ok({ water: blend.value.water, resin: null }) : blend;
    }
    case 'calcite': {
      const picked = calcitePickup(water, (60 * stage.volumeL) / Math.max(flowLPerH, 1e-3));
      return picked.ok ? ok({ water: picked.value.water, resin: null }) : picked;
    }
    case 'carbon':
      // Standing water has all the time it needs.
      return ok({
        water: dechlorinated({ ...stage, passedL: use[stage.id]?.passedL ?? 0 }, water, Math.max(flowLPerH, 1e-3)),
        resin: null,
      });
    case 'tank': {
      if (!stage.openToAir) return ok({ water, resin: null });
      const open = openToAir(water);
      return open.ok ? ok({ water: open.value, resin: null }) : open;
    }
    case 'resin': {
      const bed = stageBed(stage);
      const utilisation = bedUtilisation(bed, Math.max(flowLPerH, slowestFlowLPerH(bed, water.temperatureC)), water.temperatureC);
      if (!utilisation.ok) return utilisation;
      const capacity = bedCapacityEq(bed);
      const used = use[stage.id];
      const shareOf = (eq: number | undefined, of: number): number => (of > 0 ? (eq ?? 0) / of : 0);
      const cationUsed = shareOf(used?.cationEq, capacity.cationEq);
      const anionUsed = shareOf(used?.anionEq, capacity.anionEq);
      return ok({
        water: polishedWater(water, utilisation.value, cationUsed, anionUsed),
        resin: { stageId: stage.id, utilisation: utilisation.value, usedShare: Math.max(cationUsed, anionUsed), feed: water },
      });
    }
  }
}

/** Walks stages at one flow, collecting stations; the caller gives the start. */
export function walkStages(
  stages: readonly Stage[],
  flowLPerH: number,
  start: Walk,
  use: TrainUse,
  into: Collected,
  pumpedBar: number | null = null,
): Outcome<Walk> {
  let walk = start;
  for (const stage of stages) {
    const after = waterAfter(stage, walk.water, flowLPerH, use);
    if (!after.ok) return after;
    if (stage.kind === 'carbon') {
      into.carbons.push({
        stageId: stage.id,
        state: carbonState({ ...stage, passedL: use[stage.id]?.passedL ?? 0 }, walk.water, Math.max(flowLPerH, 1e-3)),
        flowLPerH,
      });
    }
    if (after.value.resin) into.resins.push(after.value.resin);
    const water = after.value.water;
    const settled = water === walk.water ? ok(walk.state) : settleWater(water, walk.state.pH);
    if (!settled.ok) return settled;
    // Behind its pump the membrane's own solution says what the pressure is.
    const pressureBar =
      stage.kind === 'pump' && pumpedBar !== null ? pumpedBar : pressureAfter(stage, walk.pressureBar, flowLPerH, water.temperatureC);
    walk = { water, state: settled.value, pressureBar };
    into.stations.push({ after: stage.id, name: stage.name, kind: stage.kind, flowLPerH, ...walk });
  }
  return ok(walk);
}

/** The tap as a station, drawn at a flow. */
export const tapStation = (flowLPerH: number, walk: Walk): Station => ({ after: 'tap', name: 'Tap', kind: 'tap', flowLPerH, ...walk });
