import { lastTank, type Train } from '../file';
import type { CarbonState } from '../pretreatment';
import { ok, type Outcome } from '../quantity';
import { kindOf, NO_USE, type ResinState, type Stage, type StageKind, type Treated, type TrainUse, type WaterAt } from '../stage';
import { settleWater, type Water, type WaterState } from '../water';
import { liftBar, pressureAfter } from './pressure';

/** The water at one place of the train: at the tap, or after a stage. */
export interface Station extends WaterAt {
  /** 'tap', or the id of the stage it stands after. */
  readonly after: string;
  readonly name: string;
  readonly kind: StageKind | 'tap';
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

/** Water behind a stage that is not a membrane, and what is to be known of the stage for it. */
export const waterAfter = (stage: Stage, water: Water, flowLPerH: number, use: TrainUse, inLoop = false): Outcome<Treated> =>
  kindOf(stage).treat(stage, { water, flowLPerH, use: use[stage.id] ?? NO_USE, inLoop });

/** Share of the water that goes on through stages, past what each sends to the drain meanwhile. */
export const keptBy = (stages: readonly Stage[]): number => stages.reduce((share, stage) => share * kindOf(stage).keeps(stage), 1);

/** What flows behind a tank: as it is drawn while a tap is open, or round the loop behind the last. */
export interface BehindTank {
  readonly drawLPerH: number;
  readonly loop: { readonly tankId: string; readonly flowLPerH: number } | null;
}

export const behindTank = ({ stages, drawLPerH, loop }: Pick<Train, 'stages' | 'drawLPerH' | 'loop'>): BehindTank => {
  const tank = lastTank(stages);
  return { drawLPerH, loop: loop && tank ? { tankId: tank.id, flowLPerH: loop.flowLPerH } : null };
};

/**
 * Walks stages at a flow, collecting stations; the caller gives the start.
 *
 * @param fed the membrane's own pump, and the pressure its solution has behind it
 * @param behind what flows on behind a tank; null where it goes on as it comes
 */
export function walkStages(
  stages: readonly Stage[],
  startLPerH: number,
  start: Walk,
  use: TrainUse,
  into: Collected,
  fed: { readonly pumpId: string; readonly bar: number } | null = null,
  behind: BehindTank | null = null,
): Outcome<Walk> {
  let walk = start;
  let flowLPerH = startLPerH;
  let inLoop = false;
  for (const [i, stage] of stages.entries()) {
    const after = waterAfter(stage, walk.water, flowLPerH, use, inLoop);
    if (!after.ok) return after;
    const { water, resin, carbon } = after.value;
    if (carbon) into.carbons.push({ stageId: stage.id, state: carbon, flowLPerH });
    if (resin) into.resins.push(resin);
    const settled = water === walk.water ? ok(walk.state) : settleWater(water, walk.state.pH);
    if (!settled.ok) return settled;
    // Behind its pump the membrane's own solution says what the pressure is; every other pump has a rise of its own.
    const pressureBar =
      stage.id === fed?.pumpId
        ? fed.bar
        : pressureAfter(stage, walk.pressureBar, flowLPerH, water.temperatureC) + liftBar(stage, walk.pressureBar, flowLPerH);
    flowLPerH *= kindOf(stage).keeps(stage);
    walk = { water, state: settled.value, pressureBar };
    into.stations.push({ after: stage.id, name: stage.name, kind: stage.kind, flowLPerH, ...walk });
    if (stage.kind === 'tank' && behind) {
      inLoop = behind.loop?.tankId === stage.id;
      flowLPerH = inLoop && behind.loop ? behind.loop.flowLPerH : behind.drawLPerH / keptBy(stages.slice(i + 1));
    }
  }
  return ok(walk);
}

/** The tap as a station, drawn at a flow. */
export const tapStation = (flowLPerH: number, walk: Walk): Station => ({ after: 'tap', name: 'Tap', kind: 'tap', flowLPerH, ...walk });
