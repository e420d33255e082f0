import type { Stage, StageOf, System } from '../file';
import { findRoot } from '../numeric';
import { fail, ok, outOfRange, firstError, type Outcome } from '../quantity';
import type { Water } from '../water';
import { solveTrain } from './solve';

/** What the three valves of a skid are turned towards. */
export interface SkidTargets {
  readonly permeateLPerH: number;
  /** Share of the raw feed that becomes product. */
  readonly recovery: number;
  readonly recycleLPerH: number;
}

/** The pump and the membrane stage of a train that can be tuned; null where there are none. */
export function tunable(system: System): { readonly pump: StageOf<'pump'>; readonly membrane: StageOf<'membrane'> } | null {
  const at = system.train.stages.findIndex((stage) => stage.kind === 'membrane');
  const membrane = system.train.stages[at];
  const pump = system.train.stages.slice(0, Math.max(0, at)).findLast((stage): stage is StageOf<'pump'> => stage.kind === 'pump');
  return membrane?.kind === 'membrane' && pump ? { pump, membrane } : null;
}

/**
 * Settings of pump, waste valve and recycle at which a skid makes what is wanted: the recovery sets the waste valve,
 * the recycle is given, and the pump's speed (or the flow of a piston pump) is found on the solved system.
 *
 * @returns the stages so set, or an error naming the target that cannot be reached and what can
 */
export function tunedStages(system: System, feed: Water, targets: SkidTargets): Outcome<readonly Stage[]> {
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
  const set = (next: StageOf<'pump'>['pump']): Stage[] =>
    system.train.stages.map((stage): Stage => {
      if (stage.id === pump.id) return { ...pump, pump: next };
      if (stage.id === membrane.id)
        return { ...membrane, valve: { kind: 'recovery', recovery: targets.recovery }, recycleLPerH: targets.recycleLPerH };
      return stage;
    });
  if (pump.pump.kind === 'displacement') {
    // A piston pump moves what it moves: product over recovery, and what comes round again.
    const stages = set({ ...pump.pump, flowLPerH: targets.permeateLPerH / targets.recovery + targets.recycleLPerH });
    const solved = solveTrain({ ...system.train, stages }, system.source, feed);
    return solved.ok ? ok(stages) : solved;
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
    const solved = solveTrain({ ...system.train, stages: set({ ...curve, speed }) }, system.source, feed);
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
  return ok(set({ ...curve, speed: Math.round(root.x * 1e4) / 1e4 }));
}
