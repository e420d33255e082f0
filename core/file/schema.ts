import { z } from 'zod';
import { CHARACTERS } from '../water/characters';
import { METER_SALTS } from '../water/meter';
import { CARBON_MEDIA, ELEMENT_CLASSES, GOAL_IDS, RESIN_CLASSES, TEMPLATE_IDS } from './ids';

/**
 * The one model of a system, version 1. The database stores it, the file holds it, the solver takes it;
 * TypeScript types are inferred from it. Documented for people in docs/file-format.md.
 */

const id = z.string().min(1).max(80);
const name = z.string().max(120);
/** Calendar day, as on a cartridge: 2026-11-23. */
const day = z.iso.date();
/** Instant with zone: 2026-11-23T08:10:00Z. */
const instant = z.iso.datetime({ offset: true });
const between = (low: number, high: number): z.ZodNumber => z.number().min(low).max(high);
const maybe = <T extends z.ZodType>(inner: T): z.ZodNullable<T> => inner.nullable();

const meterScale = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('conductivity') }),
  z.strictObject({ kind: z.literal('factor'), factor: between(0.3, 1) }),
  z.strictObject({ kind: z.literal('curve'), salt: z.enum(METER_SALTS) }),
]);

export const instrumentSchema = z.strictObject({
  id,
  name,
  scale: meterScale,
  /** Smallest step it shows, in its own unit. */
  resolution: between(0.0001, 100),
});

export const sampleSchema = z.strictObject({
  takenOn: day,
  character: z.enum(CHARACTERS),
  /** What the meter showed, in the unit of its scale. */
  reading: maybe(between(0, 200_000)),
  instrumentId: id,
  hardnessMgL: maybe(between(0, 20_000)),
  alkalinityMgL: maybe(between(0, 20_000)),
  pH: maybe(between(0, 14)),
  temperatureC: between(0.1, 60),
  chlorineMgL: between(0, 20),
  chloramineMgL: between(0, 20),
});

export const sourceSchema = z.strictObject({
  name,
  sample: sampleSchema,
  linePressureBar: between(0, 100),
  lowestTemperatureC: between(0.1, 60),
});

export const goalSchema = z.strictObject({
  id: z.enum(GOAL_IDS),
  /** The crew's own limit in ppm, where the goal leaves it open. */
  crewLimitPpm: maybe(between(0, 100)),
  demandL: between(0, 1_000_000),
  demandPer: z.enum(['day', 'week']),
});

const prefilter = { cleanLossBar: between(0, 1), loading: between(0, 0.95) };
const fitted = { fittedOn: maybe(day) };

export const stageSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('sediment'), id, name, micron: between(0.1, 200), ...prefilter, ...fitted }),
  z.strictObject({
    kind: z.literal('carbon'),
    id,
    name,
    medium: z.enum(CARBON_MEDIA),
    volumeL: between(0.05, 1000),
    ratedL: between(1, 10_000_000),
    ...prefilter,
    ...fitted,
  }),
  z.strictObject({
    kind: z.literal('membrane'),
    id,
    name,
    elementClass: z.enum(ELEMENT_CLASSES),
    arrangement: z.enum(['single', 'parallel', 'series']),
    restrictor: z.strictObject({ lengthMm: between(10, 2000), boreMm: between(0.2, 3) }),
    /** Output and salt passage against a new element; 1 when new. */
    waterFactor: between(0.05, 5),
    saltFactor: between(0.05, 100),
    ...fitted,
  }),
  z.strictObject({
    kind: z.literal('resin'),
    id,
    name,
    resinClass: z.enum(RESIN_CLASSES),
    volumeL: between(0.05, 1000),
    depthMm: between(50, 3000),
    packing: between(0.5, 1),
    ...fitted,
  }),
  z.strictObject({ kind: z.literal('tank'), id, name, volumeL: between(0.1, 100_000), liftM: between(0, 50), openToAir: z.boolean() }),
]);

export const probeSchema = z.strictObject({
  id,
  name,
  /** 'tap', or the id of the stage it stands after. */
  after: id,
  instrumentId: id,
});

export const trainSchema = z.strictObject({
  stages: z.array(stageSchema).max(40),
  probes: z.array(probeSchema).max(12),
  wasteTarget: between(0.2, 50),
  /** Saturation index of the waste above which scale is acted on. */
  scaleActionIndex: between(-2, 3),
  /** Flow drawn when no membrane sets it, L/h. */
  drawLPerH: between(0.1, 100_000),
});

export const ratioSchema = z.strictObject({
  id,
  at: instant,
  wasteL: between(0, 10_000),
  productL: between(0, 10_000),
  seconds: maybe(between(0, 864_000)),
  pressureBar: maybe(between(0, 100)),
  temperatureC: maybe(between(0.1, 60)),
  restrictorLengthMm: between(10, 2000),
});

export const buildSchema = z.strictObject({
  done: z.array(id),
  ratios: z.array(ratioSchema),
  /** Bore scaled so that the model meets the measured waste; null until a ratio was measured. */
  calibratedBoreMm: maybe(between(0.05, 20)),
});

export const systemSchema = z.strictObject({
  id,
  name,
  site: name,
  template: z.enum(TEMPLATE_IDS),
  /** Part of the demonstration, so that it can be removed as one. */
  demo: z.boolean(),
  createdAt: instant,
  updatedAt: instant,
  units: z.strictObject({
    system: z.enum(['trade', 'metric']),
    hardness: z.enum(['mg/L CaCO₃', '°dH', 'gpg', '°fH']),
    ppmFactor: between(0.3, 1),
  }),
  instruments: z.array(instrumentSchema).min(1).max(40),
  source: sourceSchema,
  goal: goalSchema,
  train: trainSchema,
  build: buildSchema,
});

export const readingSchema = z.strictObject({
  id,
  systemId: id,
  at: instant,
  /** Each value as the instrument showed it, never without the instrument. */
  values: z.array(z.strictObject({ probeId: id, instrumentId: id, shown: between(0, 200_000) })).max(12),
  pressureBar: maybe(between(0, 100)),
  temperatureC: maybe(between(0.1, 60)),
  productLPerH: maybe(between(0, 100_000)),
  wasteLPerH: maybe(between(0, 100_000)),
  /** Total on the product's water meter, L. */
  meterL: maybe(between(0, 1e9)),
  note: z.string().max(2000),
});

export type Instrument = z.infer<typeof instrumentSchema>;
export type Sample = z.infer<typeof sampleSchema>;
export type Source = z.infer<typeof sourceSchema>;
export type Goal = z.infer<typeof goalSchema>;
export type Stage = z.infer<typeof stageSchema>;
export type StageKind = Stage['kind'];
export type StageOf<K extends StageKind> = Extract<Stage, { kind: K }>;
export type Probe = z.infer<typeof probeSchema>;
export type Train = z.infer<typeof trainSchema>;
export type RatioMeasurement = z.infer<typeof ratioSchema>;
export type Build = z.infer<typeof buildSchema>;
export type System = z.infer<typeof systemSchema>;
export type Reading = z.infer<typeof readingSchema>;
