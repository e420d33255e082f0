import { feedPump, membraneStage, type System } from '../file';
import type { Stage, StageOf } from '../stage';
import { kvForFlow, valveHolding } from '../membrane';
import { findRoot } from '../numeric';
import { fail, ok, outOfRange, firstError, type Outcome } from '../quantity';
import { dissolvedMgL, type Water } from '../water';
import { solveTrain } from '../train';

/** What the three valves of a skid are turned towards. */
export interface SkidTargets {
  readonly permeateLPerH: number;
  /** Share of the raw feed that becomes product. */
  readonly recovery: number;
  readonly recycleLPerH: number;
}

/** How pump, waste valve and recycle are to stand. */
export interface SkidSettings {
  readonly pumpId: string;
  readonly pump: StageOf<'pump'>['pump'];
  readonly membraneId: string;
  readonly valve: StageOf<'membrane'>['valve'];
  readonly recycleLPerH: number;
  readonly recycleKv: number | null;
}

/** Stages with pump and valves turned to settings. */
export const withSettings = (stages: readonly Stage[], settings: SkidSettings): Stage[] =>
  stages.map((stage) => {
    if (stage.id === settings.pumpId && stage.kind === 'pump') return { ...stage, pump: settings.pump };
    if (stage.id === settings.membraneId && stage.kind === 'membrane')
      return { ...stage, valve: settings.valve, recycleLPerH: settings.recycleLPerH, recycleKv: settings.recycleKv };
    return stage;
  });

/** The pump and the membrane stage of a train that can be tuned; null where there are none. */
export function tunable(system: System): { readonly pump: StageOf<'pump'>; readonly membrane: StageOf<'membrane'> } | null {
  const membrane = membraneStage(system.train.stages);
  const pump = feedPump(system.train.stages);
  return membrane && pump ? { pump, membrane } : null;
}

/**
 * Settings of pump, waste valve and recycle at which a skid makes what is wanted: the recovery sets the waste valve,
 * the recycle is given, and the pump's speed (or the flow of a piston pump) is found on the solved system. What is
 * handed back are valves that hold it there.
 *
 * @param system with its train as its use has left it
 * @returns the settings, or an error naming the target that cannot be reached and what can
 */
export function tuned(system: System, feed: Water, targets: SkidTargets): Outcome<SkidSettings> {
  const invalid = firstError(
    outOfRange('permeateLPerH', 'Product wanted', targets.permeateLPerH, 1, 100_000, 'L/h'),
    outOfRange('recovery', 'Recovery wanted', targets.recovery, 0.02, 0.9),
    outOfRange('recycleLPerH', 'Recycle wanted', targets.recycleLPerH, 0, 100_000, 'L/h'),
  );
  if (invalid) return { ok: false, error: invalid };
  const parts = tunable(system);
  if (!parts)
    return fail('pump', null, 'a train with a pump before its membrane', 'There is no pump to turn: add one before the membrane.');
  const { pump, membrane } = parts;
  const set = (next: StageOf<'pump'>['pump']): SkidSettings => ({
    pumpId: pump.id,
    pump: next,
    membraneId: membrane.id,
    valve: { kind: 'recovery', recovery: targets.recovery },
    recycleLPerH: targets.recycleLPerH,
    recycleKv: null,
  });
  if (pump.pump.kind === 'displacement') {
    // A piston pump moves what it moves: product over recovery, and what comes round again.
    const settings = set({ ...pump.pump, flowLPerH: targets.permeateLPerH / targets.recovery + targets.recycleLPerH });
    return asValves(system, feed, parts.membrane, settings);
  }
  if (pump.pump.kind === 'booster')
    return fail(
      'pump',
      'booster',
      'a centrifugal or piston pump',
      'A booster has nothing to turn: its output follows the line. Fit a centrifugal or piston pump to tune.',
    );
  const curve = pump.pump;
  const made = (speed: number): number => {
    const solved = solveTrain(
      { ...system.train, stages: withSettings(system.train.stages, set({ ...curve, speed })) },
      system.source,
      feed,
    );
    return solved.ok ? solved.value.productLPerH : Number.NaN;
  };
  const [low, high] = [0.2, 1.3];
  const most = made(high);
  const least = made(low);
  const root = findRoot(
    (speed) => made(speed) - targets.permeateLPerH,
    low,
    high,
    1e-5,
    least - targets.permeateLPerH,
    most - targets.permeateLPerH,
  );
  if (!root)
    return fail(
      'permeateLPerH',
      Math.round(targets.permeateLPerH),
      `${Math.round(least)} to ${Math.round(most)} L/h with this pump`,
      `This pump reaches ${Math.round(least)} to ${Math.round(most)} L/h of product at that recovery, not ${Math.round(targets.permeateLPerH)}. Fit another pump, or more elements.`,
    );
  return asValves(system, feed, membrane, set({ ...curve, speed: Math.round(root.x * 1e4) / 1e4 }));
}

/**
 * Settings found by flows, as valves stand that hold them there: from then on each hand moves the others. A pressure
 * valve stays one; every other waste control becomes a needle valve.
 */
function asValves(system: System, feed: Water, membrane: StageOf<'membrane'>, found: SkidSettings): Outcome<SkidSettings> {
  const solved = solveTrain({ ...system.train, stages: withSettings(system.train.stages, found) }, system.source, feed);
  if (!solved.ok) return solved;
  const { unit, stations } = solved.value;
  const pumpAt = system.train.stages.findIndex((stage) => stage.id === found.pumpId);
  if (!unit || unit.noProduction) return ok(found);
  const tdsMgL = dissolvedMgL(unit.concentrate.mgL, unit.concentrate.alkalinityMgL);
  const drivenBar = unit.concentratePressureBar - (stations[pumpAt]?.pressureBar ?? 0);
  return ok({
    ...found,
    valve: valveHolding(membrane.valve?.kind === 'pressure' ? 'pressure' : 'needle', { ...unit, tdsMgL }),
    recycleKv: unit.recycleLPerH > 0 && drivenBar > 0 ? kvForFlow(unit.recycleLPerH, drivenBar) : null,
  });
}
