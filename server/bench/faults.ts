import { z } from 'zod';
import { SENSORS } from './sensors';

/** What can be made to go wrong on the bench. */
export const FAULTS = {
  filterClogged: 'the filters are nearly closed',
  lowPressure: 'the line stands at six tenths of its pressure',
  waterOff: 'the inlet is shut',
  membraneHole: 'three times the salt comes through the membrane',
  membraneFouled: 'the membrane passes seven tenths of its water',
  resinSpent: 'the resin lets a third of its salt through',
  meterHigh: 'a meter shows a third too much',
  frozen: 'a meter sends the same figure again and again',
  silent: 'a meter sends nothing',
} as const;
export type Fault = keyof typeof FAULTS;
const OF_A_METER: readonly Fault[] = ['meterHigh', 'frozen', 'silent'];

/** A fault as it is set: of one meter, or of the rig. */
export const faultSchema = z
  .strictObject({
    fault: z.enum(Object.keys(FAULTS) as [Fault, ...Fault[]]),
    sensor: z
      .enum(SENSORS.map(({ name }) => name))
      .nullable()
      .default(null),
  })
  .refine(({ fault, sensor }) => OF_A_METER.includes(fault) === (sensor !== null), {
    message: 'a sensor with meterHigh, frozen and silent, and none with the others',
    path: ['sensor'],
  });
export type SetFault = z.infer<typeof faultSchema> & { readonly sinceMs: number };
