import type { Probe, System, Train } from '../file';
import { isSmallElement, boreFromRating, lengthForRatio, speciesOfWater } from '../membrane';
import { membraneUnit, newStage, type Stage, type StageKind, type StageOf } from '../stage';
import { inletBar, membraneOperation, solveTrain } from '../train';
import type { Water } from '../water';
import { CARTRIDGE_L_PER_EQ } from './jobs';
import { membraneOf, pumpStage } from './onTap';
import type { Plan } from './plan';

/** An option as a train of the workbench: its stages in their order, its probes, its restrictor trimmed to the ratio it was judged at. */

/** What an option is built on: the system as it stands, and the tap at the mean of its year. */
export interface Ground {
  readonly system: System;
  readonly feed: Water;
  readonly sea: boolean;
  readonly meanC: number;
  /** Waste led back so that the flow past the membrane is held, L/h. */
  readonly recycleLPerH: number;
}

const RESTRICTOR_MM = 300;

function carbons({ carbon }: Plan): Stage[] {
  if (!carbon) return [];
  const { blocks, litresEach } = carbon;
  const large = litresEach > 1;
  // Two blocks of a large carbon are one housing: its size says it.
  const count = large ? 1 : blocks;
  return Array.from({ length: count }, (_, i) => ({
    ...newStage('carbon', count > 1 ? `carbon-${i + 1}` : 'carbon'),
    name: count > 1 ? `Carbon ${i + 1}` : 'Carbon',
    medium: litresEach > 10 ? ('granular' as const) : ('block' as const),
    volumeL: large ? blocks * litresEach : litresEach,
    ratedL: Math.round(22_000 * (large ? blocks : 1) * litresEach),
    ...(large && { cleanLossBar: 0.03 }),
  }));
}

function resins({ resin }: Plan): Stage[] {
  if (!resin) return [];
  const { beds, litresEach } = resin;
  return Array.from({ length: beds }, (_, i) => ({
    ...newStage('resin', beds > 1 ? `resin-${i + 1}` : 'resin'),
    name: beds > 1 ? `Resin ${i + 1}` : 'Resin',
    resinClass: litresEach > 2 ? ('mixedBed' as const) : ('colourMixedBed' as const),
    volumeL: litresEach,
    depthMm: depthOf(litresEach),
  }));
}
/** Depth of resin in what it is sold in, mm: cartridges, and vessels of so many litres. */
const depthOf = (litres: number): number =>
  litres <= 0.7 ? 220 : litres <= 2 ? 440 : litres <= 8 ? 400 : litres <= 12 ? 450 : litres <= 26 ? 700 : 800;

/** Waste through a valve at a recovery, or through a tube cut for it. */
function wasteControl(
  stage: StageOf<'membrane'>,
  ahead: readonly Stage[],
  ratio: number,
  { system, feed, meanC }: Ground,
): StageOf<'membrane'> {
  if (!isSmallElement(stage.elementClass)) return stage;
  const inlet = { linePressureBar: inletBar(system.source) };
  const water = { ...feed, temperatureC: meanC };
  const train = (membrane: StageOf<'membrane'>): Train => ({
    ...system.train,
    stages: [...ahead, membrane],
    branches: [],
    loop: null,
    probes: [],
  });
  const solved = solveTrain(train(stage), inlet, water);
  if (!solved.ok || !solved.value.unit) return stage;
  const { concentrateLPerH, concentratePressureBar } = solved.value.unit;
  const bore = boreFromRating(concentrateLPerH, concentratePressureBar, RESTRICTOR_MM, meanC);
  if (!bore.ok) return stage;
  const cut: StageOf<'membrane'> = {
    ...stage,
    valve: null,
    restrictor: { lengthMm: RESTRICTOR_MM, boreMm: Math.min(3, Math.max(0.2, Math.round(100 * bore.value) / 100)), assumed: true },
  };
  const again = solveTrain(train(cut), inlet, water);
  const at = again.ok ? membraneOperation(train(cut), inlet, again.value) : null;
  const species = at ? speciesOfWater(at.feed) : null;
  const length =
    at && species?.ok ? lengthForRatio(membraneUnit(cut), species.value, { ...at.conditions, temperatureC: meanC }, ratio) : null;
  return length?.ok ? { ...cut, restrictor: { ...cut.restrictor, lengthMm: Math.round(length.value) } } : cut;
}

/** A stage's id, told apart from those of the uses, which stay. */
const apart = (stages: readonly Stage[], { train }: System): Stage[] => {
  const taken = new Set(train.branches.flatMap((branch) => [branch.id, ...branch.stages.map(({ id }) => id)]));
  return stages.map((stage) => (taken.has(stage.id) ? { ...stage, id: `${stage.id}-main` } : stage));
};

/** The train of an option. Probes stay where such a stage is; what stood behind one that is gone reads the last before the tank. */
export function trainOf(plan: Plan, ground: Ground): Train {
  const { system } = ground;
  const { membrane } = plan;
  const ahead: Stage[] = [newStage('sediment', 'sediment')];
  if (membrane && !isSmallElement(membrane.elementClass)) ahead[0] = { ...newStage('sediment', 'sediment'), cleanLossBar: 0.02 };
  ahead.push(...(ground.sea ? [] : carbons(plan)));
  if (plan.softener) ahead.push({ ...newStage('softener', 'softener'), ...plan.softener });
  if (plan.scale === 'inhibitor') ahead.push(newStage('inhibitor', 'inhibitor'));
  if (membrane?.pump) ahead.push(pumpStage(membrane.pump, membrane, plan.energyRecovery));
  let stages = [...ahead];
  if (membrane) {
    const stage = { ...membraneOf(membrane, ground.recycleLPerH), name: 'Membrane' };
    stages.push(membrane.recovery === null ? stage : wasteControl(stage, ahead, 1 / membrane.recovery - 1, ground));
  }
  if (plan.cartridge) {
    const capacityEq = plan.cartridge.capacityMeq / 1000;
    stages.push({
      ...newStage('decarboniser', 'decarboniser'),
      capacityEq,
      volumeL: capacityEq * CARTRIDGE_L_PER_EQ,
      bypass: plan.cartridge.bypass,
    });
  }
  stages.push(...resins(plan));
  if (plan.parts.some(([part]) => part === 'uvUnit')) stages.push(newStage('uv', 'uv'));
  if (plan.upkeep.some(({ part }) => part === 'calcite')) stages.push(newStage('calcite', 'calcite'));
  if (plan.tankL > 0) stages.push({ ...newStage('tank', 'tank'), volumeL: plan.tankL });
  stages = apart(stages, system);
  const uses = system.train.branches.map((branch) => ({
    ...branch,
    after: stages.some(({ id }) => id === branch.after) ? branch.after : stages.at(-1)!.id,
  }));
  return {
    ...system.train,
    stages,
    branches: uses,
    loop: plan.tankL > 0 ? system.train.loop : null,
    wasteTarget: membrane?.recovery ? 1 / membrane.recovery - 1 : system.train.wasteTarget,
    probes: probesOn(system, stages),
    gauge: membrane?.pump ? 'membrane' : 'line',
  };
}

function probesOn({ train }: System, stages: readonly Stage[]): Probe[] {
  const kindAt = (id: string): StageKind | undefined => train.stages.find((stage) => stage.id === id)?.kind;
  const last = stages.findLast(({ kind }) => kind !== 'tank') ?? stages.at(-1)!;
  const inUses = new Set(train.branches.flatMap((branch) => branch.stages.map(({ id }) => id)));
  return train.probes.map((probe) => {
    if (probe.after === 'tap' || inUses.has(probe.after)) return probe;
    const kind = kindAt(probe.after);
    const same = stages.find(({ id }) => id === probe.after) ?? stages.findLast((stage) => stage.kind === kind) ?? last;
    return { ...probe, after: same.id };
  });
}
