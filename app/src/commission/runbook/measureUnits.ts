import type { System } from '@yes-clear/core/file';
import type { UnitPreference } from '@yes-clear/core/quantity';
import type { Measure, Step } from '@yes-clear/core/stage';

/** Units a figure is typed and told in: what a probe shows is in the scale of its own meter. */
export function measureUnits(system: System, step: Step, measure: Measure): UnitPreference {
  const { units } = system;
  if (measure.dimension !== 'conductivityUScm') return units;
  const probe = system.train.probes.find(
    ({ id, after }) => measure.id === `probe-${id}` || (step.stageId !== null && after === step.stageId),
  );
  const scale = system.instruments.find(({ id }) => id === probe?.instrumentId)?.scale;
  if (scale?.kind === 'factor') return { ...units, strength: 'ppm', ppmFactor: scale.factor };
  return scale?.kind === 'conductivity' ? { ...units, strength: 'µS/cm' } : units;
}
