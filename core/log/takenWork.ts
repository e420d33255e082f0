import { isSameWork, type Reading, type System } from '../file';
import type { TrainUse } from '../stage';
import { serviced } from './services';
import type { RowWork } from './table';

/** Whether a piece of work read from a table is on record already. */
export const isOnRecord = (
  { services }: Pick<System, 'services'>,
  { stageId, instrumentId, work, doneAt }: Pick<RowWork, 'stageId' | 'instrumentId' | 'work' | 'doneAt'>,
): boolean =>
  // What is read from a text names no task.
  services.some((one) => isSameWork({ ...one, taskId: null }, { stageId, instrumentId, work, at: doneAt, taskId: null }));

/** A system with work from a table written down, oldest first, each counted as of its own day. */
export function withWorks(system: System, works: readonly RowWork[], use: TrainUse, newId: () => string): System {
  return [...works]
    .sort((a, b) => a.doneAt.localeCompare(b.doneAt))
    .filter((one) => !isOnRecord(system, one))
    .reduce(
      (now, { stageId, instrumentId, work, why, doneAt, text }) =>
        serviced(now, { id: newId(), at: doneAt, stageId, instrumentId, work, why, note: text.slice(0, 500) }, use),
      system,
    );
}

/** A reading without one of its figures, by the field a doubt is about. */
export function withoutFigure(reading: Reading, field: string): Reading {
  if (field.startsWith('probe:')) return { ...reading, values: reading.values.filter(({ probeId }) => `probe:${probeId}` !== field) };
  return field in reading && field !== 'at' ? { ...reading, [field]: null } : reading;
}
