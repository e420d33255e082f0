import { NOTHING_SAID, type Reading, type Service } from '../file';

/** Readings and work as somebody plain would have written them down: what a test is not about. */

/** A reading of a bench at 4 bar and 12 °C; nothing else was read. */
export const plainReading = (id: string, over: Partial<Reading> = {}): Reading => ({
  id,
  systemId: 's',
  at: '2026-02-01T08:00:00Z',
  values: [],
  pressureBar: 4,
  temperatureC: 12,
  productLPerH: null,
  wasteLPerH: null,
  meterL: null,
  ...NOTHING_SAID,
  ...over,
});

/** A part that was changed because it was due. */
export const partChanged = (
  id: string,
  stage: { readonly id: string; readonly name: string },
  at: string,
  over: Partial<Service> = {},
): Service => ({
  id,
  at,
  stageId: stage.id,
  instrumentId: null,
  taskId: null,
  name: stage.name,
  work: 'changed',
  why: 'due',
  note: '',
  fittedOn: null,
  passedL: null,
  ...over,
});
