import { z } from 'zod';
import { CHARACTERS, METER_SALTS, SOLUTES } from '../water';
import { CARBON_MEDIA, ELEMENT_CLASSES, GOAL_IDS, LIMIT_QUANTITIES, RESIN_CLASSES, TEMPLATE_IDS } from './ids';

/**
 * The one model of a system, version 3. The database stores it, the file holds it, the solver takes it;
 * TypeScript types are inferred from it. Documented for people in docs/file-format.md.
 */

const id = z.string().min(1).max(80);
const name = z.string().max(120);
/** Calendar day, as on a cartridge: 2026-11-23. */
const day = z.iso.date();
/** Instant with zone: 2026-11-23T08:10:00Z. */
const instant = z.iso.datetime({ offset: true });
const between = (low: number, high: number): z.ZodNumber => z.number().min(low).max(high);
const equivalents = between(0, 100_000);
const money = between(0, 1_000_000);
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
  /** Shown = gain × true + offset, in its own unit, from comparing it with another; 1 and 0 when it never was. */
  gain: between(0.1, 10),
  offset: between(-1000, 1000),
  /** Whether it corrects to 25 °C by itself, and by what share per °C. */
  compensated: z.boolean(),
  alphaPerC: between(0, 0.1),
  calibratedOn: maybe(day),
});

/** Drops counted until the colour changed. */
export const dropCountSchema = z.strictObject({
  drops: between(0, 200),
  sampleMl: between(1, 100),
  mgPerDrop: between(0.1, 1000),
  nominalSampleMl: between(1, 100),
});

const hardness = between(0, 20_000);
const traces = between(0, 20_000);

export const kitSchema = z.strictObject({
  hardnessMgL: maybe(hardness),
  alkalinityMgL: maybe(hardness),
  pH: maybe(between(0, 14)),
  nitrateMgL: maybe(traces),
  ammoniaMgL: maybe(traces),
  phosphateMgL: maybe(traces),
  silicaMgL: maybe(traces),
  /** How the figure was counted; null when it was typed. */
  hardnessCount: maybe(dropCountSchema),
  alkalinityCount: maybe(dropCountSchema),
});

/** What a report can state of a water, in the basis it is stored in. */
export const REPORT_QUANTITIES = [...SOLUTES, 'ec25UScm', 'hardnessMgL', 'alkalinityMgL', 'pH', 'tdsMgL', 'temperatureC'] as const;

/** Longest report text that is kept and read, in characters: some thousand lines. */
export const LONGEST_REPORT_TEXT = 100_000;

export const reportSchema = z.strictObject({
  title: z.string().max(200),
  /** The text as pasted, so that it can be read again. */
  text: z.string().max(LONGEST_REPORT_TEXT),
  values: z.array(z.strictObject({ quantity: z.enum(REPORT_QUANTITIES), value: between(0, 300_000), below: z.boolean() })).max(60),
  /** Close the charge on sodium or chloride. */
  closeBalance: z.boolean(),
});

export const SAMPLE_WAYS = ['meter', 'kit', 'report'] as const;

export const sampleSchema = z.strictObject({
  id,
  takenOn: day,
  character: z.enum(CHARACTERS),
  /** Which of the three ways in counts; what was entered in the others stays. */
  way: z.enum(SAMPLE_WAYS),
  temperatureC: between(0.1, 60),
  /** What the meter showed, in the unit of its scale. */
  reading: maybe(between(0, 200_000)),
  instrumentId: id,
  kit: kitSchema,
  report: reportSchema,
  chlorineMgL: between(0, 20),
  chloramineMgL: between(0, 20),
});

export const seasonSchema = z.strictObject({
  lowestTemperatureC: between(0.1, 60),
  highestTemperatureC: between(0.1, 60),
  /** Conductivity at 25 °C at its weakest and strongest of the year; null: as the samples have it. */
  weakestUScm: maybe(between(0.055, 200_000)),
  strongestUScm: maybe(between(0.055, 200_000)),
});

export const sourceSchema = z.strictObject({
  name,
  samples: z.array(sampleSchema).min(1).max(60),
  /** The sample the system is planned with. */
  sampleId: id,
  linePressureBar: between(0, 100),
  /** Set pressure of a regulator at the inlet; null without one. */
  regulatorBar: maybe(between(0.5, 20)),
  /** Dirt the water carries; what loads a sediment filter. */
  turbidityNTU: between(0, 100),
  /** Two fillings of 500 mL through 0.45 µm and the time between them: the silt density; null where nobody tested. */
  silt: maybe(z.strictObject({ initialSeconds: between(1, 3600), finalSeconds: between(1, 36_000), minutes: between(1, 60) })),
  season: seasonSchema,
  /** A second water that is blended in, by share of the mixture. */
  second: maybe(z.strictObject({ name, share: between(0, 1), sample: sampleSchema })),
});

export const demandSchema = z.strictObject({
  /** Whether the need is spoken of by day or by week. */
  per: z.enum(['day', 'week']),
  /** Litres on each day, Monday first. */
  dayL: z.array(between(0, 1_000_000)).length(7),
  /** Relative draw of each hour of a day. */
  hourShare: z.array(between(0, 1000)).length(24),
  /** Amounts taken at once. */
  batches: z
    .array(z.strictObject({ id, name, weekday: z.int().min(0).max(6), hour: z.int().min(0).max(23), litres: between(0, 1_000_000) }))
    .max(40),
});

export const preparationSchema = z.discriminatedUnion('how', [
  z.strictObject({ how: z.literal('none') }),
  z.strictObject({ how: z.literal('salt'), salinity: between(0, 80) }),
  z.strictObject({
    how: z.literal('minerals'),
    hardnessMgL: between(0, 2000),
    calciumShare: between(0, 1),
    alkalinityMgL: between(0, 2000),
    bicarbonate: z.enum(['Na', 'K']),
  }),
  z.strictObject({ how: z.literal('blend'), tapShare: between(0, 1) }),
]);

export const goalSchema = z.strictObject({
  id: z.enum(GOAL_IDS),
  /** Which school's limits; null: the goal's first. */
  school: maybe(name),
  /** The crew's own limit in ppm, where the goal leaves it open. */
  crewLimitPpm: maybe(between(0, 100)),
  /** Limits set for this job in place of, or beside, the school's. */
  ownLimits: z
    .array(z.strictObject({ quantity: z.enum(LIMIT_QUANTITIES), low: maybe(between(0, 300_000)), high: maybe(between(0, 300_000)) }))
    .max(LIMIT_QUANTITIES.length),
  /** What is put to the product before it is used. */
  prepare: preparationSchema,
  demand: demandSchema,
});

/** Several meters in the same glasses. */
export const comparisonSchema = z.strictObject({
  referenceId: maybe(id),
  glasses: z
    .array(z.strictObject({ id, shown: z.array(z.strictObject({ instrumentId: id, shown: between(0, 200_000) })).max(40) }))
    .max(12),
});

const pump = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('booster'),
    riseBar: between(0.1, 100),
    openFlowLPerH: between(1, 100_000),
    bypassBar: between(0.1, 100),
  }),
  z.strictObject({
    kind: z.literal('centrifugal'),
    shutOffBar: between(0.1, 100),
    atLPerH: between(1, 100_000),
    atBar: between(0, 100),
    speed: between(0.2, 1.3),
  }),
  z.strictObject({
    kind: z.literal('displacement'),
    flowLPerH: between(0.1, 100_000),
    reliefBar: between(0.1, 100),
    /** Share of the waste's pressure that a recovery device gives back; 0 without one. */
    energyRecovery: between(0, 0.98),
  }),
]);
const wasteValve = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('needle'), kvM3PerH: between(0.0001, 100) }),
  z.strictObject({ kind: z.literal('pressure'), bar: between(0.1, 100) }),
  z.strictObject({ kind: z.literal('recovery'), recovery: between(0.01, 0.95) }),
]);

const loading = between(0, 0.95);
const cleanLossBar = between(0, 1);
const fitted = { fittedOn: maybe(day) };

export const stageSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('sediment'),
    id,
    name,
    micron: between(0.1, 200),
    cleanLossBar,
    /** Null: from what has passed since it was fitted. */ loading: maybe(loading),
    /** Dirt it holds when full, g. */ holdsG: between(0.1, 10_000),
    ...fitted,
  }),
  z.strictObject({
    kind: z.literal('carbon'),
    id,
    name,
    medium: z.enum(CARBON_MEDIA),
    volumeL: between(0.05, 1000),
    ratedL: between(1, 10_000_000),
    cleanLossBar,
    loading,
    ...fitted,
  }),
  z.strictObject({
    kind: z.literal('membrane'),
    id,
    name,
    elementClass: z.enum(ELEMENT_CLASSES),
    arrangement: z.enum(['single', 'parallel', 'series', 'array']),
    /** Vessels side by side and elements in each, rank after rank; used by the arrangement 'array'. */
    ranks: z.array(z.strictObject({ vessels: z.int().min(1).max(40), elementsPerVessel: z.int().min(1).max(8) })).max(4),
    restrictor: z.strictObject({ lengthMm: between(10, 2000), boreMm: between(0.2, 3) }),
    /** Stands in place of the restrictor where there is one. */
    valve: maybe(wasteValve),
    /** Concentrate led back before the pump, L/h. */
    recycleLPerH: between(0, 100_000),
    /** Opening of a valve that sets the recycle by pressure, in place of a given flow; null where the flow is given. */
    recycleKv: maybe(between(0.0001, 100)),
    /** Share of the product that is water led past the membrane. */
    bypassShare: between(0, 0.9),
    /** Stage ahead behind which that water is taken off; null: right before the membrane. */
    bypassAfter: maybe(id),
    /** Second pass only: its waste goes back before the pump of the first, not to the drain. */
    wasteToFirstPass: z.boolean(),
    /** Output and salt passage against a new element, as measured; null: by its age. */
    waterFactor: maybe(between(0.05, 5)),
    saltFactor: maybe(between(0.05, 100)),
    ...fitted,
  }),
  z.strictObject({ kind: z.literal('pump'), id, name, pump, ...fitted }),
  /** A run of tubing long or high enough to cost pressure. */
  z.strictObject({ kind: z.literal('tubing'), id, name, boreMm: between(1, 100), lengthM: between(0, 1000), riseM: between(-50, 50) }),
  z.strictObject({
    kind: z.literal('resin'),
    id,
    name,
    resinClass: z.enum(RESIN_CLASSES),
    volumeL: between(0.05, 1000),
    depthMm: between(50, 3000),
    packing: between(0.5, 1),
    /** What it had taken up before it came to this place. */
    carriedEq: z.strictObject({ cation: equivalents, anion: equivalents }),
    ...fitted,
  }),
  z.strictObject({
    kind: z.literal('tank'),
    id,
    name,
    volumeL: between(0.1, 100_000),
    liftM: between(0, 50),
    openToAir: z.boolean(),
    /** Gas pressure of a closed tank when it is empty; null where no gas pushes back. */
    prechargeBar: maybe(between(0, 10)),
    /** Shares of its volume at which the float starts and stops the unit. */
    startShare: between(0, 1),
    stopShare: between(0, 1),
  }),
  z.strictObject({
    kind: z.literal('softener'),
    id,
    name,
    volumeL: between(0.05, 1000),
    /** Salt for a litre of resin at each regeneration, g/L. */
    saltGPerL: between(48, 321),
    reserveShare: between(0, 0.5),
    ...fitted,
  }),
  /** A cartridge that takes hardness tied to alkalinity, with a bypass dial. */
  z.strictObject({
    kind: z.literal('decarboniser'),
    id,
    name,
    volumeL: between(0.05, 1000),
    capacityEq: between(0.01, 10_000),
    bypass: between(0, 1),
    leak: between(0, 0.1),
    magnesiumShare: between(0, 0.7),
    /** What is printed at its dial, where it has steps. */
    settings: z.array(z.strictObject({ label: z.string().max(12), bypass: between(0, 1) })).max(20),
    ...fitted,
  }),
  /** Phosphate against scale: changes nothing a kit would see. */
  z.strictObject({ kind: z.literal('inhibitor'), id, name, doseMgL: between(0.1, 20), ...fitted }),
  z.strictObject({ kind: z.literal('calcite'), id, name, volumeL: between(0.05, 1000), ...fitted }),
  z.strictObject({ kind: z.literal('uv'), id, name, intensityMWPerCm2: between(0.1, 1000), chamberL: between(0.05, 1000), ...fitted }),
]);

/** Water taken off for a use of its own, through stages of its own. */
export const branchSchema = z.strictObject({
  id,
  name,
  /** 'tap', or the stage of the train behind which it leaves. */
  after: id,
  goal: z.strictObject({ id: z.enum(GOAL_IDS), school: maybe(name) }),
  litresPerDay: between(0, 1_000_000),
  drawLPerH: between(0.1, 100_000),
  stages: z.array(stageSchema).max(12),
});

/** What stands behind the last tank and flows back to it. */
export const loopSchema = z.strictObject({
  flowLPerH: between(0.1, 1_000_000),
  boreMm: between(2, 200),
  /** Water surface of the tank open to air, m². */
  surfaceM2: between(0, 100),
  ventFilter: z.boolean(),
});

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
  branches: z.array(branchSchema).max(8),
  loop: maybe(loopSchema),
});

/** What water, power and parts cost on this job, in one currency. */
export const pricesSchema = z.strictObject({
  /** As it is written behind an amount: EUR, USD. */
  currency: z.string().min(1).max(8),
  waterPerM3: money,
  sewerPerM3: money,
  powerPerKWh: money,
  resinPerL: money,
  /** Membrane, prefilters and the unit's own cost, a year. */
  membranePerYear: money,
  boosterPump: money,
  /** A membrane with its housing and fittings. */
  element: money,
  warmingCoil: money,
  tankPerL: money,
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

/** A resin cartridge that has been thrown away: what it tells of its kind. */
export const cartridgeSchema = z.strictObject({
  id,
  name,
  resinClass: z.enum(RESIN_CLASSES),
  volumeL: between(0.05, 1000),
  fittedOn: maybe(day),
  removedOn: day,
  /** Whether it had broken through, or was taken out before. */
  ended: z.enum(['breakthrough', 'removedBefore']),
  side: z.enum(['cation', 'anion']),
  /** Equivalents of that side it had taken up, from so many intervals of the log. */
  loadEq: equivalents,
  intervals: z.int().min(0).max(100_000),
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
  comparison: comparisonSchema,
  source: sourceSchema,
  goal: goalSchema,
  train: trainSchema,
  build: buildSchema,
  prices: pricesSchema,
  cartridges: z.array(cartridgeSchema).max(500),
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
export type Kit = z.infer<typeof kitSchema>;
export type SampleWay = (typeof SAMPLE_WAYS)[number];
export type ReportQuantity = (typeof REPORT_QUANTITIES)[number];
export type ReportValue = Sample['report']['values'][number];
export type Season = z.infer<typeof seasonSchema>;
export type Demand = z.infer<typeof demandSchema>;
export type Preparation = z.infer<typeof preparationSchema>;
export type OwnLimit = z.infer<typeof goalSchema>['ownLimits'][number];
export type Comparison = z.infer<typeof comparisonSchema>;
export type Source = z.infer<typeof sourceSchema>;
export type Goal = z.infer<typeof goalSchema>;
export type Stage = z.infer<typeof stageSchema>;
export type StageKind = Stage['kind'];
export type StageOf<K extends StageKind> = Extract<Stage, { kind: K }>;
export type Probe = z.infer<typeof probeSchema>;
export type Branch = z.infer<typeof branchSchema>;
export type LoopSettings = z.infer<typeof loopSchema>;
export type Train = z.infer<typeof trainSchema>;
export type RatioMeasurement = z.infer<typeof ratioSchema>;
export type Prices = z.infer<typeof pricesSchema>;
export type Cartridge = z.infer<typeof cartridgeSchema>;
export type Build = z.infer<typeof buildSchema>;
export type System = z.infer<typeof systemSchema>;
export type Reading = z.infer<typeof readingSchema>;
