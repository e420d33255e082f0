import { feedPump, type System } from '../file';
import { pumpingKWhPerM3 } from '../membrane';
import { kindOf, type StageOf } from '../stage';
import { litresPerProduct, runsInto, type SolvedTrain } from '../train';

/** Pump and motor together (our estimates): small diaphragm, multistage, piston. */
const PUMP_EFFICIENCY = { booster: 0.3, centrifugal: 0.5, displacement: 0.75 } as const;

/** What a pump lifts, by how much, and what comes back of it. */
interface Pumped {
  readonly pump: StageOf<'pump'>;
  readonly bar: number;
  readonly litresPerL: number;
  /** Waste that a recovery device takes pressure from, per litre of product. */
  readonly waste: { readonly bar: number; readonly litresPerL: number } | null;
}

/** Every pump of a train, by litre of what it makes in the end. */
function pumpedOf({ train }: Pick<System, 'train'>, solved: SolvedTrain): Pumped[] {
  const made = solved.productLPerH;
  return train.stages.flatMap((pump, i): Pumped[] => {
    if (pump.kind !== 'pump') return [];
    const [before, after] = [solved.stations[i], solved.stations[i + 1]];
    if (!before || !after || made <= 0) return [];
    const next = train.stages.slice(i + 1).find(({ kind }) => kind === 'membrane' || kind === 'pump');
    const second = solved.secondPass?.waste.after === next?.id ? solved.secondPass : null;
    const unit = next?.kind === 'membrane' ? (second?.unit ?? (next.id === solved.unitStageId ? solved.unit : null)) : null;
    if (!unit)
      return [{ pump, bar: Math.max(0, after.pressureBar - before.pressureBar), litresPerL: before.flowLPerH / made, waste: null }];
    const share = second?.runShare ?? 1;
    return [
      {
        pump,
        bar: Math.max(0, unit.feedPressureBar - before.pressureBar),
        litresPerL: (unit.membraneFeedLPerH * share) / made,
        waste: { bar: unit.concentratePressureBar, litresPerL: (unit.concentrateLPerH * share) / made },
      },
    ];
  });
}

/**
 * Electricity of all pumps by cubic metre of what the train makes in the end, kWh; null without a pump.
 *
 * @param energyRecovery share of the waste's pressure given back to the first; its own where it is not said
 */
export function pumpEnergy(system: Pick<System, 'train'>, solved: SolvedTrain, energyRecovery?: number): number | null {
  if (!feedPump(system.train.stages) || !solved.unit || solved.unit.noProduction) return null;
  return pumpedOf(system, solved).reduce((sum, { pump, bar, litresPerL, waste }, i) => {
    const own = pump.pump.kind === 'displacement' ? pump.pump.energyRecovery : 0;
    const back = i === 0 ? (energyRecovery ?? own) : own;
    return sum + pumpingKWhPerM3(bar, litresPerL, PUMP_EFFICIENCY[pump.pump.kind], waste, back);
  }, 0);
}

/** What stages beside pumps draw while water runs through them, by cubic metre of what the train makes, kWh. */
export function stageEnergy({ train: { stages } }: Pick<System, 'train'>, solved: SolvedTrain): number {
  return stages.reduce((sum, stage, i) => {
    const [before, after] = [runsInto(stages, solved.stations, i), solved.stations[i + 1]];
    if (!before || !after || !(before.flowLPerH > 0)) return sum;
    return sum + (kindOf(stage).powerW(stage, { before, after }) / before.flowLPerH) * litresPerProduct(solved, stages, i);
  }, 0);
}

/** Electricity of a train by cubic metre of what it makes, kWh: its pumps, and what else draws power; null where nothing does. */
export function trainEnergy(system: Pick<System, 'train'>, solved: SolvedTrain): number | null {
  const pumps = pumpEnergy(system, solved);
  const stages = stageEnergy(system, solved);
  return pumps === null && stages === 0 ? null : (pumps ?? 0) + stages;
}
