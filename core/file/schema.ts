import { DIMENSIONS, UNIT_CHOICES, between, day, id, maybe, name, type Dimension } from '../quantity';
import { SERVICE_WORK, stageSchema } from '../stage';
import { goalSchema, GOAL_IDS } from '../goal';
import { RESIN_CLASSES } from '../exchange';
import { reportSchema } from '../report';
import { z } from 'zod';
import { CHARACTERS, COMPENSATIONS, METER_SALTS } from '../water';

/**
 * The one model of a system. The database stores it, the file holds it, the solver takes it;
 * TypeScript types are inferred from it. Documented for people in docs/file-format.md.
 */

/** Instant with zone: 2026-11-23T08:10:00Z. */
const instant = z.iso.datetime({ offset: true });
const equivalents = between(0, 100_000);
const money = between(0, 1_000_000);

const meterScale = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('conductivity') }),
  z.strictObject({ kind: z.literal('factor'), factor: between(0.3, 1) }),
  z.strictObject({ kind: z.literal('curve'), salt: z.enum(METER_SALTS) }),
  z.strictObject({ kind: z.literal('salinity') }),
  z.strictObject({ kind: z.literal('resistivity') }),
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
  /** How it corrects to 25 °C by itself, and a linear one by what share per °C. */
  compensation: z.enum(COMPENSATIONS),
  alphaPerC: between(0, 0.1),
  calibratedOn: maybe(day),
  /** A pen that is carried from place to place; what is not stands in the line. */
  carried: z.boolean(),
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
  /** Upper end of a strip's range, whose lower end stands above; null where it is one figure. */
  hardnessToMgL: maybe(hardness),
  alkalinityToMgL: maybe(hardness),
  /** How the figure was counted; null when it was typed. */
  hardnessCount: maybe(dropCountSchema),
  alkalinityCount: maybe(dropCountSchema),
});

/** Ways in: a reading, a kit, a report, or nothing yet but the kind of supply. */
export const SAMPLE_WAYS = ['meter', 'kit', 'report', 'usual'] as const;

export const sampleSchema = z.strictObject({
  id,
  takenOn: day,
  character: z.enum(CHARACTERS),
  /** Which way in counts; what was entered in the others stays. */
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

/** Figures a template fills in, marked until somebody confirms or replaces them. */
export const ASSUMABLE = ['reading', 'temperature', 'chlorine', 'linePressure'] as const;
export type Assumable = (typeof ASSUMABLE)[number];

export const sourceSchema = z.strictObject({
  name,
  /** What of it nobody has looked at yet. */
  assumed: z.array(z.enum(ASSUMABLE)).max(ASSUMABLE.length),
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

/** Several meters in the same glasses. */
export const comparisonSchema = z.strictObject({
  referenceId: maybe(id),
  glasses: z
    .array(z.strictObject({ id, shown: z.array(z.strictObject({ instrumentId: id, shown: between(0, 200_000) })).max(40) }))
    .max(12),
});

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

/** A vessel of an array by its place in the order of the water. */
const vesselPlace = z.strictObject({ rank: z.int().min(0).max(3), vessel: z.int().min(0).max(39) });

/** On which side of its stage something is read: behind it, in what a membrane is fed or sends to waste, in what a loop brings back. */
export const PLACE_SIDES = ['out', 'feed', 'waste', 'return'] as const;

/** A place where strength is read. The order of the probes is the order of a line of figures. */
export const probeSchema = z.strictObject({
  id,
  name,
  /** 'tap', or the id of the stage, of the train or of a use, it stands at. */
  after: id,
  side: z.enum(PLACE_SIDES),
  /** The product of one vessel of an array; null where it is read of all together. */
  vessel: maybe(vesselPlace),
  instrumentId: id,
});

/** Where a further gauge stands, and where a flow meter. */
export const PRESSURE_PLACES = ['line', 'filters', 'membrane', 'concentrate', 'distribution'] as const;
export const FLOW_PLACES = ['product', 'waste', 'recycle', 'loop'] as const;
export const gaugeSchema = z.strictObject({ id, name, at: z.enum([...PRESSURE_PLACES, ...FLOW_PLACES]) });

/** Why a ratio of waste to product is wanted: what the trade runs, against scale, as what stands there runs, or one's own. */
export const WASTE_WHY = ['trade', 'scale', 'stands', 'own'] as const;

/** Places of the gauge that is read with every reading, along the flow. */
export const GAUGE_PLACES = ['line', 'filters', 'membrane'] as const;

export const trainSchema = z.strictObject({
  stages: z.array(stageSchema).max(40),
  probes: z.array(probeSchema).max(12),
  wasteTarget: between(0.2, 50),
  /** What it is wanted for. */
  wasteWhy: z.enum(WASTE_WHY),
  /** Saturation index of the waste above which scale is acted on; null: by how the unit is run. */
  scaleActionIndex: maybe(between(-2, 3)),
  /** Flow drawn when no membrane sets it, L/h. */
  drawLPerH: between(0.1, 100_000),
  branches: z.array(branchSchema).max(8),
  loop: maybe(loopSchema),
  /** Where the gauge is that a reading's pressure is read from: before filters and pump, between the two, or at the membrane. */
  gauge: z.enum(GAUGE_PLACES),
  /** Further gauges and flow meters, in the order they are read. */
  gauges: z.array(gaugeSchema).max(12),
  /** The meter of litres: which way it counts, what it is set to when it begins anew, and what it begins again behind. */
  meter: z.strictObject({
    counts: z.enum(['up', 'down']),
    setToL: maybe(between(0, 1e9)),
    rollsOverL: maybe(between(1, 1e9)),
  }),
});

/** What water, power and parts cost on this job, in one currency. */
export const pricesSchema = z.strictObject({
  /** As it is written behind an amount: EUR, USD. */
  currency: z.string().min(1).max(8),
  waterPerM3: money,
  sewerPerM3: money,
  powerPerKWh: money,
  resinPerL: money,
  /** The membrane and the unit's own cost, a year; cartridges before it are priced by the piece. */
  boosterPump: money,
  /** A membrane with its housing and fittings. */
  element: money,
  warmingCoil: money,
  tankPerL: money,
  /** A sediment cartridge, an inhibitor cartridge, a lamp. */
  filter: money,
  inhibitor: money,
  lamp: money,
  carbonPerL: money,
  /** A decarbonising cartridge, by the litre of its resin. */
  cartridgePerL: money,
  calcitePerL: money,
  saltPerKg: money,
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

/** A reading at the product port of one vessel; a new one takes the place of the old. */
export const portReadingSchema = z.strictObject({
  stageId: id,
  ...vesselPlace.shape,
  ec25UScm: between(0, 200_000),
  at: instant,
});

/** Kinds of work a system is put through. */
export const WORK_KINDS = ['newBuild', 'upgrade', 'partChange', 'putAway', 'bringBack'] as const;
export type WorkKind = (typeof WORK_KINDS)[number];

const figure = z.number().min(-1e9).max(1e9);

/** What was read at a step, beside what was predicted for the pressure and temperature of that hour; read again, the newest counts. */
export const measuredSchema = z.strictObject({
  step: id,
  /** The step and the figure as they were called: a train that changes later changes nothing of what was read. */
  title: z.string().max(200),
  measure: id,
  label: z.string().max(200),
  dimension: z.enum(['seen', ...(Object.keys(DIMENSIONS) as [Dimension, ...Dimension[]])]),
  /** Where it is told in a unit of its own. */
  unit: maybe(z.string().max(20)),
  /** The probe whose meter showed it. */
  probeId: maybe(id),
  at: instant,
  value: figure,
  /** One standard deviation of the instrument. */
  plusMinus: figure,
  expected: maybe(figure),
  low: maybe(figure),
  high: maybe(figure),
  pressureBar: maybe(between(0, 100)),
  temperatureC: maybe(between(0.1, 60)),
});

/** A step that was left out, or a figure that was taken as it is, and why. */
export const deviationSchema = z.strictObject({
  step: id,
  title: z.string().max(200),
  at: instant,
  how: z.enum(['skipped', 'accepted']),
  reason: z.string().max(500),
  /** What leaving it out costs later. */
  costs: z.string().max(300),
});

/** One piece of work from its first step to its hand-over. */
export const workSchema = z.strictObject({
  id,
  kind: z.enum(WORK_KINDS),
  /** The stage that is changed; null where the work is the whole system's. */
  stageId: maybe(id),
  startedAt: instant,
  endedAt: maybe(instant),
  done: z.array(z.strictObject({ step: id, at: instant })).max(300),
  /** Cautions that stood at its steps, written down at the hand-over. */
  cautions: z.array(z.strictObject({ title: z.string().max(200), text: z.string().max(500) })).max(60),
  measured: z.array(measuredSchema).max(2000),
  deviations: z.array(deviationSchema).max(300),
});

/** Tubing of one line as it hangs on this site. */
export const lineSchema = z.strictObject({ id, lengthMm: between(10, 1_000_000) });

/** How the tubing of this system is coloured; null where nobody has said: schemes are the household's own. */
export const TUBE_COLOURS = ['white', 'blue', 'red', 'black', 'yellow', 'green', 'grey'] as const;
export type TubeColour = (typeof TUBE_COLOURS)[number];
const tubeColour = maybe(z.enum(TUBE_COLOURS));

/** Ways a feed is taken from a house. */
export const HOOK_UPS = ['outdoorTap', 'laundryTap', 'faucet', 'angleStop', 'fixed'] as const;
export type HookUp = (typeof HOOK_UPS)[number];

/** What a system is fixed to. */
export const HANGINGS = ['wall', 'floor', 'cart', 'hull', 'counter'] as const;
export type Hanging = (typeof HANGINGS)[number];

/** A line of the parts list that somebody wrote. */
export const ownPartSchema = z.strictObject({ id, name, count: between(0, 10_000), each: maybe(money) });

/** How a system came to be: planned from nothing, standing when it was first described, or bought second-hand. */
export const STANDS_HOW = ['new', 'already', 'secondHand'] as const;

export const buildSchema = z.strictObject({
  /** How it came to be, and since when it stands, where somebody knows. */
  stands: z.strictObject({ how: z.enum(STANDS_HOW), since: maybe(day) }),
  works: z.array(workSchema).max(200),
  /** The train as it was handed over last, and what to hold the log against; null until it was. */
  commissioned: maybe(z.strictObject({ at: instant, train: trainSchema, readingId: maybe(id) })),
  lines: z.array(lineSchema).max(80),
  colours: z.strictObject({ feed: tubeColour, product: tubeColour, waste: tubeColour }),
  hookUp: maybe(z.enum(HOOK_UPS)),
  /** What it hangs on or stands in; null: as systems of its kind usually do. */
  hangs: maybe(z.enum(HANGINGS)),
  /** What pieces cost on this job, by the part they are; what is not here is asked of the prices, or missing. */
  partPrices: z.array(z.strictObject({ part: id, each: money })).max(200),
  ownParts: z.array(ownPartSchema).max(80),
  markUp: between(0, 5),
  ratios: z.array(ratioSchema),
  /** Bore scaled so that the model meets the measured waste; null until a ratio was measured. */
  calibratedBoreMm: maybe(between(0.05, 20)),
  /** What was read at the product port of each vessel, conductivity at 25 °C. */
  ports: z.array(portReadingSchema).max(400),
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

/** Why it was done. */
export const SERVICE_WHY = ['due', 'spent', 'early', 'broken', 'other', 'notSaid'] as const;
export type ServiceWhy = (typeof SERVICE_WHY)[number];

/** Work done on a part or a meter: what the log's series may jump at, and what the next date is counted from. */
export const serviceSchema = z.strictObject({
  id,
  at: instant,
  /** One of the two, or neither where it is the whole system's. */
  stageId: maybe(id),
  instrumentId: maybe(id),
  /** The task of one's own that was done. */
  taskId: maybe(id),
  /** The part or meter as it was called then. */
  name,
  work: z.enum(SERVICE_WORK),
  why: z.enum(SERVICE_WHY),
  note: z.string().max(500),
  /** Of what came out: since when it stood, and what had passed through it. */
  fittedOn: maybe(day),
  passedL: maybe(between(0, 1e9)),
});

/** A rule of upkeep as somebody set it, in place of the kind's own. */
export const upkeepRuleSchema = z.strictObject({
  id,
  stageId: id,
  /** What is done, as the kind of stage calls it. */
  says: z.string().min(1).max(60),
  /** Days from one time to the next, and litres through it, whichever comes first; null where that does not count. */
  days: maybe(between(1, 36_500)),
  litres: maybe(between(1, 1e9)),
  reason: z.string().max(300),
});

/** Something this keeper does again and again that no kind of stage asks for: a flush by timer, a look at the salt. */
export const taskSchema = z.strictObject({
  id,
  says: z.string().min(1).max(80),
  /** The stage it is done to; null where it is the whole system's. */
  stageId: maybe(id),
  /** From one time to the next, days; null: at every use. */
  everyDays: maybe(between(1, 3650)),
  /** The day it began, or was done last where nobody wrote it down. */
  since: day,
});

/** What an in-line meter reads for a system. */
export const SENSOR_READS = ['probe', 'temperature', 'pressure', 'product', 'waste', 'meter'] as const;
export type SensorReads = (typeof SENSOR_READS)[number];
/** A meter on the air, by the name it is sent under, and what it stands for here. */
export const sensorSchema = z.strictObject({ id, sensor: z.string().min(1).max(200), reads: z.enum(SENSOR_READS), probeId: maybe(id) });

/** A set that is bought whole, by its own figures, to be held against what one builds. */
export const boughtSetSchema = z.strictObject({
  id,
  name,
  price: money,
  /** Changed a year: parts, and how often somebody has to come. */
  partsPerYear: money,
  visitsPerYear: between(0, 366),
  kWhPerM3: between(0, 1000),
  productLPerH: between(0, 100_000),
  /** Litres led away for a litre made. */
  wasteToProduct: between(0, 100),
  /** Whether its spares are to be had anywhere, and its maker is there when it fails. */
  commonSpares: z.boolean(),
  support: z.boolean(),
});

/** What options are held against on this job: what the site allows, years, prices, and which values are left to choose among. */
export const choiceSchema = z.strictObject({
  wallMm: maybe(between(100, 100_000)),
  capital: maybe(money),
  power: z.boolean(),
  drain: z.boolean(),
  /** Hours a day in which it may make noise. */
  hoursPerDay: between(0.5, 24),
  visitsPerYear: maybe(between(0, 366)),
  leastWaste: maybe(between(0, 20)),
  horizonYears: between(0.25, 30),
  /** Interest a year that money costs. */
  rate: between(0, 0.3),
  /** Share above the cheapest within which the sturdier one is taken. */
  tieBand: between(0, 1),
  visitCost: money,
  /** Share of the waste that is used for something else, in place of bought water. */
  wasteUsedShare: between(0, 1),
  /** Barrel the waste is gathered in; null: a drum. */
  wasteBarrelL: maybe(between(1, 100_000)),
  /** Amounts in place of the placeholders, by part. */
  prices: z.array(z.strictObject({ part: id, each: money })).max(80),
  /** Axes of which only some values are tried. */
  kept: z.array(z.strictObject({ axis: id, values: z.array(z.union([z.string().max(40), between(0, 1e6), z.boolean()])).max(20) })).max(40),
  bought: z.array(boughtSetSchema).max(8),
});

/** A spell in which less is used. */
export const awaySchema = z.strictObject({
  id,
  from: day,
  days: z.int().min(1).max(366),
  /** Share of the usual use that goes on. */
  share: between(0, 1),
});

/** Ready-made trains a system can have started from. */
export const TEMPLATE_IDS = [
  'marineHousehold',
  'marinePair',
  'breeder',
  'vanTank',
  'vanCart',
  'resinVessel',
  'skid',
  'watermaker',
  'espressoBar',
  'counterSoft',
  'counterHard',
] as const;
export type TemplateId = (typeof TEMPLATE_IDS)[number];

/** Lists of a system that copies join by the ids of their members, and the readings kept beside it. */
export const JOINED_LISTS = ['readings', 'services', 'cartridges', 'upkeep', 'tasks', 'sensors', 'away'] as const;
/** The last word on something that was taken away: whether it is gone, or came back. */
export const removalSchema = z.strictObject({ of: z.enum(JOINED_LISTS), id, at: instant, gone: z.boolean() });

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
    strength: z.enum(UNIT_CHOICES.strength),
    pressure: z.enum(UNIT_CHOICES.pressure),
    temperature: z.enum(UNIT_CHOICES.temperature),
    volume: z.enum(UNIT_CHOICES.volume),
    flow: z.enum(UNIT_CHOICES.flow),
    length: z.enum(UNIT_CHOICES.length),
    hardness: z.enum(UNIT_CHOICES.hardness),
    ppmFactor: between(0.3, 1),
  }),
  instruments: z.array(instrumentSchema).min(1).max(40),
  comparison: comparisonSchema,
  source: sourceSchema,
  goal: goalSchema,
  train: trainSchema,
  build: buildSchema,
  prices: pricesSchema,
  choice: choiceSchema,
  cartridges: z.array(cartridgeSchema).max(500),
  services: z.array(serviceSchema).max(5000),
  upkeep: z.array(upkeepRuleSchema).max(200),
  tasks: z.array(taskSchema).max(60),
  sensors: z.array(sensorSchema).max(40),
  /** Days on which less is used: holidays, and weeks in which only a share of the use goes on. */
  away: z.array(awaySchema).max(400),
  /** Days from ordering resin, filters and membranes to having them; null where nobody said. */
  orderDays: maybe(z.int().min(0).max(365)),
  /** What was taken away, and what of it came back: another copy of the system does not bring it back by itself. */
  removed: z.array(removalSchema).max(50_000),
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
  meterL: maybe(between(-1e9, 1e9)),
  /** Further gauges, bar, and flow meters, L/h. */
  also: z.array(z.strictObject({ gaugeId: id, value: between(0, 1_000_000) })).max(12),
  note: z.string().max(2000),
  /** Whether anything is counted from it; a reading that was struck out stays to be seen. */
  counts: z.boolean(),
  /** Figures that were asked about and stand as they were typed. */
  confirmed: z.array(id).max(20),
  /** Pictures taken with it, kept beside the readings. */
  photos: z.array(id).max(12),
  /** When a person last changed what it says; null as it was first written down. */
  editedAt: maybe(instant),
});

export type Instrument = z.infer<typeof instrumentSchema>;
export type Sample = z.infer<typeof sampleSchema>;
export type Kit = z.infer<typeof kitSchema>;
export type SampleWay = (typeof SAMPLE_WAYS)[number];
export type Season = z.infer<typeof seasonSchema>;
export type Comparison = z.infer<typeof comparisonSchema>;
export type Source = z.infer<typeof sourceSchema>;
export type Probe = z.infer<typeof probeSchema>;
export type Gauge = z.infer<typeof gaugeSchema>;
export type Branch = z.infer<typeof branchSchema>;
export type LoopSettings = z.infer<typeof loopSchema>;
export type Train = z.infer<typeof trainSchema>;
export type Build = z.infer<typeof buildSchema>;
export type Stands = Build['stands'];
export type Work = z.infer<typeof workSchema>;
export type Measured = z.infer<typeof measuredSchema>;
export type Deviation = z.infer<typeof deviationSchema>;
export type PortReading = z.infer<typeof portReadingSchema>;
export type Prices = z.infer<typeof pricesSchema>;
export type Cartridge = z.infer<typeof cartridgeSchema>;
export type BoughtSet = z.infer<typeof boughtSetSchema>;
export type ChoiceSettings = z.infer<typeof choiceSchema>;
export type Service = z.infer<typeof serviceSchema>;
export type Away = z.infer<typeof awaySchema>;
export type GaugePlace = (typeof GAUGE_PLACES)[number];
export type Task = z.infer<typeof taskSchema>;
export type UpkeepRule = z.infer<typeof upkeepRuleSchema>;
export type Sensor = z.infer<typeof sensorSchema>;
export type Removal = z.infer<typeof removalSchema>;
export type System = z.infer<typeof systemSchema>;
export type Reading = z.infer<typeof readingSchema>;
