import {
  FLOAT_SHARES,
  NO_KIT,
  NO_REPORT,
  PLACEHOLDER_PRICES,
  SEDIMENT_HOLDS_G,
  USUAL_TURBIDITY_NTU,
  type Branch,
  type GoalId,
  type Instrument,
  type LoopSettings,
  type Season,
  type Probe,
  type Stage,
  type StageKind,
  type StageOf,
  type System,
  type TemplateId,
} from '../file';
import { evenDemand } from '../goal';
import { plainMeter, type Character } from '../water';

/** A ready-made starting train. */
interface TemplateRow {
  readonly label: string;
  readonly says: string;
  readonly goal: GoalId;
  readonly school?: string;
  readonly demandL: number;
  readonly demandPer: 'day' | 'week';
  readonly stages: readonly Stage[];
  /** Stage after which each probe stands; the tap probe is always there. */
  readonly probes: readonly { readonly name: string; readonly after: string }[];
  readonly drawLPerH: number;
  readonly branches?: readonly Branch[];
  readonly loop?: LoopSettings;
  /** What such a system usually stands on, where it is not a middling municipal tap. */
  readonly supply?: {
    readonly name: string;
    readonly character: Character;
    readonly readingUScm: number;
    readonly temperatureC: number;
    readonly linePressureBar: number;
    readonly chlorineMgL: number;
    readonly season: Pick<Season, 'lowestTemperatureC' | 'highestTemperatureC'>;
  };
}

/** Steps of a bypass dial until the printed list is typed (our placeholder). */
const DIAL = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6].map((bypass, i) => ({ label: String(i), bypass }));

/** Values a new stage starts with; every one can be edited. */
const STAGE_DEFAULTS: { readonly [K in StageKind]: Omit<StageOf<K>, 'id'> } = {
  sediment: { kind: 'sediment', name: 'Sediment', micron: 5, cleanLossBar: 0.08, loading: null, holdsG: SEDIMENT_HOLDS_G, fittedOn: null },
  carbon: {
    kind: 'carbon',
    name: 'Carbon',
    medium: 'block',
    volumeL: 0.5,
    ratedL: 11_000,
    cleanLossBar: 0.1,
    loading: 0.1,
    fittedOn: null,
  },
  membrane: {
    kind: 'membrane',
    name: 'Membrane',
    elementClass: '1812-75',
    arrangement: 'single',
    ranks: [],
    valve: null,
    recycleLPerH: 0,
    recycleKv: null,
    bypassShare: 0,
    bypassAfter: null,
    wasteToFirstPass: false,
    restrictor: { lengthMm: 300, boreMm: 1.2 },
    waterFactor: null,
    saltFactor: null,
    fittedOn: null,
  },
  pump: {
    kind: 'pump',
    name: 'Booster pump',
    pump: { kind: 'booster', riseBar: 8, openFlowLPerH: 120, bypassBar: 5.5 },
    fittedOn: null,
  },
  tubing: { kind: 'tubing', name: 'Tubing', boreMm: 4.3, lengthM: 10, riseM: 0 },
  resin: {
    kind: 'resin',
    name: 'Resin',
    resinClass: 'colourMixedBed',
    volumeL: 0.6,
    depthMm: 220,
    packing: 0.9,
    carriedEq: { cation: 0, anion: 0 },
    fittedOn: null,
  },
  softener: { kind: 'softener', name: 'Softener', volumeL: 8, saltGPerL: 128, reserveShare: 0.2, fittedOn: null },
  decarboniser: {
    kind: 'decarboniser',
    name: 'Decarbonising cartridge',
    volumeL: 4.3,
    capacityEq: 9.4,
    bypass: 0.3,
    leak: 0.03,
    magnesiumShare: 0,
    settings: DIAL,
    fittedOn: null,
  },
  inhibitor: { kind: 'inhibitor', name: 'Scale inhibitor', doseMgL: 3, fittedOn: null },
  calcite: { kind: 'calcite', name: 'Calcite bed', volumeL: 2, fittedOn: null },
  uv: { kind: 'uv', name: 'UV lamp', intensityMWPerCm2: 15, chamberL: 0.8, fittedOn: null },
  tank: { kind: 'tank', name: 'Tank', volumeL: 100, liftM: 0, openToAir: true, prechargeBar: null, ...FLOAT_SHARES },
};

/** A new stage of a kind with its starting values. */
export function newStage<K extends StageKind>(kind: K, id: string): StageOf<K> {
  return { ...STAGE_DEFAULTS[kind], id } as unknown as StageOf<K>;
}

const stage = <K extends StageKind>(kind: K, id: string, changes: Partial<StageOf<K>> = {}): Stage =>
  ({ ...newStage(kind, id), ...changes }) as Stage;

const branch = (
  id: string,
  name: string,
  after: string,
  goal: GoalId,
  school: string | null,
  litresPerDay: number,
  drawLPerH: number,
  stages: readonly Stage[],
): Branch => ({ id, name, after, goal: { id: goal, school }, litresPerDay, drawLPerH, stages: [...stages] });

/** A town's water at a strength, read in ppm at factor 0.5. */
const COUNTER_SUPPLY = (name: string, ppm: number): NonNullable<TemplateRow['supply']> => ({
  name,
  character: ppm > 300 ? 'chalk' : 'municipal',
  readingUScm: 2 * ppm,
  temperatureC: 15,
  linePressureBar: 4,
  chlorineMgL: 0.4,
  season: { lowestTemperatureC: 8, highestTemperatureC: 20 },
});

export const TEMPLATE_ROWS: Readonly<Record<TemplateId, TemplateRow>> = {
  marineHousehold: {
    label: 'Household unit, membrane and resin',
    says: 'Sediment, carbon, one small membrane, one cartridge of resin, a barrel.',
    goal: 'marineMakeUp',
    demandL: 20,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment'),
      stage('carbon', 'carbon'),
      stage('membrane', 'membrane'),
      stage('resin', 'resin'),
      stage('tank', 'tank', { name: 'Barrel', volumeL: 120 }),
    ],
    probes: [
      { name: 'After membrane', after: 'membrane' },
      { name: 'After resin', after: 'resin' },
    ],
    drawLPerH: 10,
  },
  marinePair: {
    label: 'Two membranes, two carbons, two resins',
    says: 'For chloramine and heavier use: a membrane pair in series, resin as lead and guard.',
    goal: 'marineMakeUp',
    demandL: 60,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment'),
      stage('carbon', 'carbon-1', { name: 'Carbon 1' }),
      stage('carbon', 'carbon-2', { name: 'Carbon 2' }),
      stage('membrane', 'membrane', { name: 'Membrane ×2', arrangement: 'series', restrictor: { lengthMm: 300, boreMm: 1.4 } }),
      stage('resin', 'resin-1', { name: 'Resin 1' }),
      stage('resin', 'resin-2', { name: 'Resin 2' }),
      stage('tank', 'tank', { volumeL: 200 }),
    ],
    probes: [
      { name: 'After membrane', after: 'membrane' },
      { name: 'After resin', after: 'resin-2' },
    ],
    drawLPerH: 10,
  },
  breeder: {
    label: 'Membrane only, for a breeder',
    says: 'Sediment, carbon and a larger membrane; a drum filled overnight.',
    goal: 'softWaterBreeding',
    demandL: 100,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment'),
      stage('carbon', 'carbon'),
      stage('membrane', 'membrane', { elementClass: '1812-100', restrictor: { lengthMm: 300, boreMm: 1.3 } }),
      stage('tank', 'tank', { name: 'Drum', volumeL: 200 }),
    ],
    probes: [{ name: 'After membrane', after: 'membrane' }],
    drawLPerH: 10,
  },
  vanTank: {
    label: 'Membrane, resin and a van tank',
    says: 'Fills the van overnight from the mains, polished by a resin vessel.',
    goal: 'windowCleaning',
    demandL: 1500,
    demandPer: 'week',
    stages: [
      stage('sediment', 'sediment', { name: 'Pre-filter', cleanLossBar: 0.04 }),
      stage('carbon', 'carbon', { volumeL: 1.4, ratedL: 40_000, cleanLossBar: 0.05 }),
      stage('membrane', 'membrane', { elementClass: '1812-200', arrangement: 'parallel', restrictor: { lengthMm: 300, boreMm: 1.9 } }),
      stage('resin', 'resin', { resinClass: 'mixedBed', volumeL: 7, depthMm: 400 }),
      stage('tank', 'tank', { name: 'Van tank', volumeL: 400 }),
    ],
    probes: [
      { name: 'After membrane', after: 'membrane' },
      { name: 'After resin', after: 'resin' },
    ],
    drawLPerH: 120,
  },
  vanCart: {
    label: 'Cart with pump, membrane and resin',
    says: 'A 40-inch element at 8 to 10 bar, part of its concentrate led back; fills the tank of van or shop.',
    goal: 'windowCleaning',
    demandL: 4000,
    demandPer: 'week',
    stages: [
      stage('sediment', 'sediment', { name: 'Pre-filter', cleanLossBar: 0.02 }),
      stage('carbon', 'carbon', { volumeL: 2.8, ratedL: 80_000, cleanLossBar: 0.03 }),
      stage('pump', 'pump', { name: 'Cart pump', pump: { kind: 'centrifugal', shutOffBar: 8, atLPerH: 1500, atBar: 4.5, speed: 1 } }),
      stage('membrane', 'membrane', {
        elementClass: '4040-BW',
        // About half recovered, with so much led back that the element still sees its cross-flow (common practice).
        valve: { kind: 'recovery', recovery: 0.5 },
        recycleLPerH: 800,
      }),
      stage('resin', 'resin', { resinClass: 'mixedBed', volumeL: 11, depthMm: 450 }),
      stage('tank', 'tank', { name: 'Van tank', volumeL: 650 }),
    ],
    probes: [
      { name: 'After membrane', after: 'membrane' },
      { name: 'After resin', after: 'resin' },
    ],
    drawLPerH: 240,
  },
  resinVessel: {
    label: 'Resin vessel only',
    says: 'No membrane: quick, simple, and dear on hard water.',
    goal: 'windowCleaning',
    demandL: 600,
    demandPer: 'week',
    stages: [stage('sediment', 'sediment'), stage('resin', 'resin', { resinClass: 'mixedBed', volumeL: 11, depthMm: 450 })],
    probes: [{ name: 'After resin', after: 'resin' }],
    drawLPerH: 120,
  },
  skid: {
    label: 'Laboratory skid with recycle',
    says: 'Pump, four 4040 elements two by two, part of the concentrate led back, a tank and a mixed bed behind it.',
    goal: 'laboratory',
    school: 'iso-2',
    demandL: 6000,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment', { cleanLossBar: 0.01 }),
      stage('carbon', 'carbon', { medium: 'granular', volumeL: 60, ratedL: 400_000, cleanLossBar: 0.01 }),
      stage('pump', 'pump', { name: 'Feed pump', pump: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 0.83 } }),
      stage('membrane', 'membrane', {
        name: 'Array 2:2',
        elementClass: '4040-LE',
        arrangement: 'array',
        ranks: [
          { vessels: 2, elementsPerVessel: 1 },
          { vessels: 2, elementsPerVessel: 1 },
        ],
        // Two valves that hold about 60 % recovered and 5 US gal/min led back (common practice) on a middling supply.
        valve: { kind: 'needle', kvM3PerH: 0.229 },
        recycleLPerH: 1136,
        recycleKv: 0.636,
      }),
      stage('tank', 'tank', { name: 'Storage tank', volumeL: 1500 }),
      stage('resin', 'resin', { name: 'Mixed bed', resinClass: 'mixedBed', volumeL: 40, depthMm: 800 }),
      stage('uv', 'uv', { intensityMWPerCm2: 20, chamberL: 2 }),
    ],
    // 1 to 2 m/s in the loop (common practice).
    loop: { flowLPerH: 1800, boreMm: 20, surfaceM2: 1.1, ventFilter: true },
    probes: [
      { name: 'After membranes', after: 'membrane' },
      { name: 'After mixed bed', after: 'resin' },
    ],
    drawLPerH: 600,
  },
  watermaker: {
    label: 'Watermaker on a boat',
    says: 'Two filters, a high-pressure pump and one seawater element behind a pressure valve.',
    goal: 'watermaker',
    demandL: 150,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment-20', { name: 'Filter 20 µm', micron: 20, cleanLossBar: 0.02 }),
      stage('sediment', 'sediment-5', { name: 'Filter 5 µm', cleanLossBar: 0.04 }),
      stage('pump', 'pump', {
        name: 'High-pressure pump',
        pump: { kind: 'displacement', flowLPerH: 700, reliefBar: 65, energyRecovery: 0 },
      }),
      stage('membrane', 'membrane', { name: 'Membrane', elementClass: '2540-SW', valve: { kind: 'pressure', bar: 55 } }),
      stage('tank', 'tank', { name: 'Water tank', volumeL: 300 }),
    ],
    probes: [{ name: 'Product', after: 'membrane' }],
    drawLPerH: 60,
    supply: {
      name: 'Sea',
      character: 'seawater',
      readingUScm: 51_800,
      temperatureC: 20,
      linePressureBar: 1,
      chlorineMgL: 0,
      season: { lowestTemperatureC: 12, highestTemperatureC: 27 },
    },
  },
  espressoBar: {
    label: 'Espresso machine, one cartridge with a bypass',
    says: 'A particle and a carbon stage, then a decarbonising cartridge whose dial lets part of the water past.',
    goal: 'espresso',
    demandL: 60,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment'),
      stage('carbon', 'carbon', { volumeL: 0.8, ratedL: 20_000 }),
      stage('decarboniser', 'decarboniser', { name: 'Cartridge', bypass: 0.5 }),
    ],
    probes: [{ name: 'At the machine', after: 'decarboniser' }],
    drawLPerH: 60,
  },
  counterSoft: {
    label: 'Counter on weak water, below about 250 ppm',
    says: 'Fine filtration with scale inhibition feeds everything; only the espresso machine gets a cartridge of its own.',
    goal: 'brewWater',
    school: 'european',
    demandL: 250,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment', { name: 'Fine filter', micron: 0.5 }),
      stage('carbon', 'carbon', { volumeL: 2, ratedL: 60_000 }),
      stage('inhibitor', 'inhibitor'),
    ],
    probes: [{ name: 'Behind the filters', after: 'inhibitor' }],
    drawLPerH: 200,
    branches: [
      branch('espresso', 'Espresso', 'inhibitor', 'espresso', null, 60, 60, [
        stage('decarboniser', 'espresso-cartridge', { name: 'Espresso cartridge', volumeL: 1.1, capacityEq: 2.4, bypass: 0.8 }),
      ]),
      branch('ice', 'Ice', 'inhibitor', 'ice', null, 90, 40, [
        stage('carbon', 'ice-filter', { name: 'Ice filter', volumeL: 0.6, ratedL: 12_000 }),
      ]),
      branch('ovens', 'Ovens', 'inhibitor', 'steamOven', 'tolerant', 30, 40, []),
    ],
    supply: COUNTER_SUPPLY('Town main', 105),
  },
  counterHard: {
    label: 'Counter on strong water, above about 250 ppm',
    says: 'Prefilters, softener, membrane with blending and polishing feed everything; espresso and ice keep filters of their own.',
    goal: 'brewWater',
    school: 'european',
    demandL: 300,
    demandPer: 'day',
    stages: [
      stage('sediment', 'sediment'),
      stage('carbon', 'carbon', { volumeL: 2, ratedL: 60_000 }),
      stage('softener', 'softener', { volumeL: 20 }),
      stage('pump', 'pump', { pump: { kind: 'centrifugal', shutOffBar: 12, atLPerH: 600, atBar: 8, speed: 0.8 } }),
      stage('membrane', 'membrane', {
        elementClass: '2540-LE',
        valve: { kind: 'recovery', recovery: 0.5 },
        recycleLPerH: 500,
        // Hardness for taste comes from water the softener has not seen.
        bypassShare: 0.16,
        bypassAfter: 'carbon',
      }),
      stage('tank', 'tank', { name: 'Pressure tank', volumeL: 80, openToAir: false }),
      stage('carbon', 'polish', { name: 'Polishing filter', volumeL: 1, ratedL: 30_000 }),
    ],
    probes: [
      { name: 'After membrane', after: 'membrane' },
      { name: 'To the counter', after: 'polish' },
    ],
    drawLPerH: 200,
    branches: [
      branch('espresso', 'Espresso', 'polish', 'espresso', null, 80, 60, [
        stage('decarboniser', 'espresso-cartridge', { name: 'Espresso cartridge', volumeL: 1.1, capacityEq: 2.4, bypass: 0.9 }),
      ]),
      branch('ice', 'Ice', 'polish', 'ice', null, 120, 60, [
        stage('carbon', 'ice-filter', { name: 'Ice filter', volumeL: 0.6, ratedL: 12_000 }),
      ]),
      branch('ovens', 'Ovens', 'softener', 'steamOven', 'tolerant', 40, 40, []),
    ],
    supply: COUNTER_SUPPLY('Well main', 420),
  },
};

/** What a new system needs to be told. */
export interface NewSystem {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly template: TemplateId;
  /** Instant with zone. */
  readonly at: string;
}

/** The meter every new system starts with. */
export const FIRST_INSTRUMENT = 'meter';

/** A ppm meter as most are: factor 0.5, whole ppm, corrected by 2 %/°C. */
export function newInstrument(id: string, name: string): Instrument {
  return { id, name, resolution: 1, calibratedOn: null, ...plainMeter({ kind: 'factor', factor: 0.5 }) };
}

/** A system from a template: a middling municipal tap until the water phase says otherwise. */
export function systemFromTemplate({ id, name, site, template, at }: NewSystem): System {
  const row = TEMPLATE_ROWS[template];
  const probe = (probeName: string, after: string): Probe => ({
    id: `probe-${after}`,
    name: probeName,
    after,
    instrumentId: FIRST_INSTRUMENT,
  });
  return {
    id,
    name,
    site,
    template,
    demo: false,
    createdAt: at,
    updatedAt: at,
    units: { system: 'metric', hardness: 'mg/L CaCO₃', ppmFactor: 0.5 },
    instruments: [
      row.supply
        ? { ...newInstrument(FIRST_INSTRUMENT, 'Conductivity meter'), scale: { kind: 'conductivity' } }
        : newInstrument(FIRST_INSTRUMENT, 'In-line meter'),
    ],
    comparison: { referenceId: null, glasses: [] },
    source: {
      name: row.supply?.name ?? 'Mains',
      samples: [
        {
          id: 'sample-1',
          takenOn: at.slice(0, 10),
          character: row.supply?.character ?? 'municipal',
          way: 'meter',
          temperatureC: row.supply?.temperatureC ?? 15,
          reading: row.supply?.readingUScm ?? 240,
          instrumentId: FIRST_INSTRUMENT,
          kit: NO_KIT,
          report: NO_REPORT,
          chlorineMgL: row.supply?.chlorineMgL ?? 0.5,
          chloramineMgL: 0,
        },
      ],
      sampleId: 'sample-1',
      linePressureBar: row.supply?.linePressureBar ?? 4,
      regulatorBar: null,
      turbidityNTU: USUAL_TURBIDITY_NTU,
      silt: null,
      season: { lowestTemperatureC: 6, highestTemperatureC: 19, ...row.supply?.season, weakestUScm: null, strongestUScm: null },
      second: null,
    },
    goal: {
      id: row.goal,
      school: row.school ?? null,
      crewLimitPpm: row.goal === 'windowCleaning' ? 0 : null,
      ownLimits: [],
      prepare: { how: 'none' },
      demand: evenDemand(row.demandPer === 'week' ? row.demandL / 7 : row.demandL, row.demandPer),
    },
    train: {
      stages: row.stages.map((s) => ({ ...s })),
      probes: [probe('Tap', 'tap'), ...row.probes.map((p) => probe(p.name, p.after))],
      wasteTarget: 4,
      scaleActionIndex: 0,
      drawLPerH: row.drawLPerH,
      branches: (row.branches ?? []).map((b) => ({ ...b, stages: b.stages.map((s) => ({ ...s })) })),
      loop: row.loop ?? null,
    },
    build: { done: [], ratios: [], calibratedBoreMm: null },
    // The sea costs nothing.
    cartridges: [],
    prices: row.supply?.character === 'seawater' ? { ...PLACEHOLDER_PRICES, waterPerM3: 0, sewerPerM3: 0 } : PLACEHOLDER_PRICES,
  };
}
