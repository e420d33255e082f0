import { z } from 'zod';
import { ionicLoad } from '../exchange';
import {
  atRestMmolL,
  ATM_BAR,
  CO2_G_PER_MOL,
  degassedMmolL,
  degasserLossBar,
  degasserUnits,
  leastGasBar,
  OPEN_DEVICES,
  openMmolL,
  sweepFactor,
  towerMmolL,
  towerUnits,
  unitsFromSheet,
  usualUnits,
  type Sweep,
} from '../gas';
import { fail, formatQuantity, inSentence, measured, maybe, ok, THIN, words, type Outcome } from '../quantity';
import { settleWater, type Water } from '../water';
import { HALF_YEAR_DAYS, SLOWEST_L_PER_H } from './cartridge';
import { keysOf, quantity } from './field';
import { findingsOn, type Finding } from './finding';
import {
  allPasses,
  anyStage,
  asFitted,
  defineStage,
  fitted,
  holdsNothing,
  keepsAll,
  none,
  zero,
  type PartPrices,
  type Standing,
  type Treated,
  threaded,
} from './kind';
import { MAINS, phBehind, seen, type Caution } from './step';

const DEVICES = ['fibre', 'tower', 'cascade', 'spray'] as const;
const schema = z.strictObject({
  kind: z.literal('degasser'),
  ...anyStage,
  device: z.enum(DEVICES),
  /** Surface of its fibres. */
  surfaceM2: measured('surfaceM2', 0.1, 1000),
  /** A point of its data sheet at 25 °C, with the sweep that stands below; null where nobody has one. */
  sheet: maybe(
    z.strictObject({
      atLPerH: measured('flowLPerH', 1, 100_000),
      co2InMgL: measured('concentrationMgL', 1, 200),
      co2OutMgL: measured('concentrationMgL', 0.05, 100),
    }),
  ),
  /** Dry gas at 0 °C and 1.01325 bar. */
  sweepLPerH: measured('flowLPerH', 0, 1_000_000),
  /** Absolute. */
  gasBar: measured('pressureBar', 0.02, 1.5),
  airPpm: measured('gasPpm', 0, 10_000),
  /** Loss of the water side at a flow and 25 °C. */
  lossBar: measured('pressureBar', 0.001, 2),
  lossAtLPerH: measured('flowLPerH', 1, 100_000),
  /** Of a packed tower. */
  packingMm: measured('lengthMm', 300, 6000),
  towerMm: measured('lengthMm', 50, 3000),
  airToWater: measured('ratio', 0.5, 200),
  ...fitted,
});
type Degasser = z.infer<typeof schema>;
const field = keysOf<Degasser>(schema.shape);

const DEVICE_WORDS: Readonly<Record<Degasser['device'], string>> = {
  fibre: 'Hollow fibres, under pressure',
  tower: 'Packed tower with a blower',
  cascade: 'Cascade of trays',
  spray: 'Spray into an open tank',
};
/** A vacuum with less sweep than this of the water fills up with the CO2 itself (common practice: a tenth at the least). */
const LEAST_SWEEP = 0.05;
const VACUUM_BAR = 0.5;
/** Most gas pressure above the air outside (common practice), bar. */
const MOST_GAS_BAR = 0.3;
/** What is left above this a resin or a stack still feels (common practice), mg/L. */
const LEAVES_MGL = 5;
/** pH at which next to nothing of the carbon is free CO2. */
const NOTHING_FREE_PH = 8.2;
/** Chlorine that makes polypropylene brittle by and by (common practice), mg/L. */
const MOST_CHLORINE_MGL = 0.1;
/** Fibres serve 3 to 7 years (common practice), towers twice as long. */
const FIBRE_DAYS = 1825;

const sweepOf = ({ sweepLPerH, gasBar, airPpm }: Degasser): Sweep => ({ normalLPerH: sweepLPerH, gasBar, ppm: airPpm });

/** Transfer units of the fibres at a flow and temperature. */
function fibreUnits(stage: Degasser, flowLPerH: number, temperatureC: number): number {
  const { sheet, surfaceM2 } = stage;
  const known = sheet
    ? {
        units: unitsFromSheet(sheet.co2InMgL, sheet.co2OutMgL, sweepOf(stage), sheet.atLPerH, 25),
        lPerH: sheet.atLPerH,
        temperatureC: 25,
      }
    : usualUnits(surfaceM2);
  return degasserUnits(known, flowLPerH, temperatureC);
}

/** Water a tower takes by its cross-section, m an hour. */
const loading = ({ towerMm }: Degasser, flowLPerH: number): number => flowLPerH / 1000 / ((Math.PI / 4) * (towerMm / 1000) ** 2);

/** Free CO2 behind it, mmol/L. */
function leaves(stage: Degasser, co2MmolL: number, flowLPerH: number, temperatureC: number): number {
  const { device, airPpm } = stage;
  switch (device) {
    case 'fibre':
      return degassedMmolL(co2MmolL, fibreUnits(stage, flowLPerH, temperatureC), sweepOf(stage), flowLPerH, temperatureC);
    case 'tower':
      return towerMmolL(
        co2MmolL,
        {
          packingM: stage.packingMm / 1000,
          loadingMPerH: loading(stage, flowLPerH),
          airToWater: stage.airToWater,
          ppm: airPpm,
        },
        temperatureC,
      );
    case 'cascade':
    case 'spray':
      return openMmolL(co2MmolL, OPEN_DEVICES[device], airPpm, temperatureC);
  }
}

/** Transfer units of whatever it is, as the water runs. */
function unitsOf(stage: Degasser, flowLPerH: number, temperatureC: number): number {
  switch (stage.device) {
    case 'fibre':
      return fibreUnits(stage, flowLPerH, temperatureC);
    case 'tower':
      return towerUnits(stage.packingMm / 1000, loading(stage, flowLPerH), temperatureC);
    case 'cascade':
    case 'spray':
      return OPEN_DEVICES[stage.device];
  }
}

/** Free CO2 that stays at rest with its gas: less no surface leaves, mg/L. */
const restMgL = ({ device, airPpm, gasBar }: Degasser, temperatureC: number): number =>
  CO2_G_PER_MOL * atRestMmolL(airPpm, device === 'fibre' ? gasBar : ATM_BAR, temperatureC);

/** Only free CO2 leaves; alkalinity stays, pH follows. */
function degassed(stage: Degasser, water: Water, flowLPerH: number): Outcome<Treated> {
  const { temperatureC } = water;
  if (stage.device === 'fibre' && stage.gasBar < leastGasBar(temperatureC))
    return fail(
      'gasPressureBar',
      stage.gasBar,
      `at least ${leastGasBar(temperatureC).toFixed(3)} bar`,
      `${stage.name}: at ${stage.gasBar} bar absolute and ${temperatureC.toFixed(0)} °C water boils in the fibres; accepted is ${leastGasBar(temperatureC).toFixed(3)} bar or more.`,
    );
  const settled = settleWater(water);
  if (!settled.ok) return settled;
  const free = settled.value.co2MgL / CO2_G_PER_MOL;
  const left = leaves(stage, free, Math.max(flowLPerH, SLOWEST_L_PER_H), temperatureC);
  return ok({ water: { ...water, carbonMmolL: Math.max(0, water.carbonMmolL - (free - left)) } });
}

function findings({ stage, before, after, units }: Standing<Degasser>): Finding[] {
  if (!(before.flowLPerH > 0)) return [];
  const say = words(units);
  const { found, add } = findingsOn(stage.id);
  const [from, to] = [before.state.co2MgL, after.state.co2MgL];
  const [loadBefore, loadAfter] = [ionicLoad(before.water).anionMeqL, ionicLoad(after.water).anionMeqL];
  const spared = loadAfter > 0 ? loadBefore / loadAfter : 1;
  const small = inSentence(stage.name);
  if (before.state.pH > NOTHING_FREE_PH)
    add(
      'degas-nothing',
      'note',
      `${stage.name} finds next to no free CO₂ at pH ${before.state.pH.toFixed(1)}`,
      'Only free CO₂ leaves with a gas. Leave it out, or leave out the caustic ahead of it.',
    );
  else
    add(
      'degas',
      to > LEAVES_MGL ? 'mind' : 'good',
      `${stage.name} brings CO₂ from ${say.mgL(from)} to ${say.mgL(to)}`,
      `pH ${before.state.pH.toFixed(1)} becomes ${after.state.pH.toFixed(1)}.${spared > 1.1 ? ` Resin behind it lasts ${spared.toFixed(1)} times as long on its anion side.` : ''}${to > LEAVES_MGL ? ` More sweep, cleaner air or more surface: it cannot go below ${say.mgL(restMgL(stage, before.water.temperatureC))} with this gas.` : ''}`,
    );
  if (stage.device === 'fibre') {
    if (stage.gasBar < VACUUM_BAR && stage.sweepLPerH < LEAST_SWEEP * before.flowLPerH)
      add(
        'degas-sweep',
        'mind',
        `${stage.name} has a vacuum but hardly any sweep`,
        `The fibres fill with the CO₂ itself. Let a tenth to a third of the water's litres of air in: ${say.of(0.1 * before.flowLPerH, 'flowLPerH')} at least.`,
      );
    if (stage.gasBar - ATM_BAR > Math.min(MOST_GAS_BAR, before.pressureBar))
      add(
        'degas-gas',
        'bad',
        `Gas in ${small} stands above what the water holds back`,
        `Water pressure must exceed gas pressure, or bubbles go into the product. At most ${say.of(MOST_GAS_BAR, 'pressureBar')} above the air outside.`,
      );
    if (before.water.mgL.chlorine > MOST_CHLORINE_MGL)
      add(
        'degas-chlorine',
        'mind',
        `Chlorine makes the fibres of ${small} brittle`,
        `${say.mgL(before.water.mgL.chlorine)} reach it. Put carbon ahead of it.`,
      );
  } else
    add(
      'degas-open',
      'note',
      `Behind ${small} the water has no pressure left`,
      'It needs a pump from there. Open water takes up dust and germs: filter its air, keep a lid on it.',
    );
  return found;
}

const CO2_ROOM: Caution = {
  title: 'CO₂ collects near the floor',
  text: 'Lead the gas outlet outside. A pit or a small room can fill with it without any smell.',
};

/** What it is bought as: fibres in a housing, or a tower with its blower. */
const piece = ({ device }: Degasser, { piece: of }: PartPrices): number => of(device === 'fibre' ? 'degasser' : 'aerator');

/** Takes free CO2 out with a gas: hollow fibres under pressure, or air in the open. */
export const degasser = defineStage(schema, {
  kind: 'degasser',
  label: 'Degasser',
  says: 'Takes carbon dioxide out, spares resin',
  place: 7,
  defaults: {
    kind: 'degasser',
    name: 'Degasser',
    device: 'fibre',
    surfaceM2: 8,
    sheet: null,
    sweepLPerH: 1000,
    gasBar: 1.013,
    airPpm: 420,
    lossBar: 0.4,
    lossAtLPerH: 3400,
    packingMm: 2500,
    towerMm: 300,
    airToWater: 25,
    fittedOn: null,
  },
  form: 'vessel',
  touches: () => 'traces',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: (stage, { water, flowLPerH }) => degassed(stage, water, flowLPerH),
  slopeBar: ({ device, lossBar, lossAtLPerH }, flowLPerH, temperatureC) =>
    device === 'fibre' && flowLPerH > 0 ? degasserLossBar({ bar: lossBar, atLPerH: lossAtLPerH }, flowLPerH, temperatureC) / flowLPerH : 0,
  riseBar: zero,
  // Water side of fibres, 4 to 7 bar by the label (common practice).
  holdsBar: ({ device }) => (device === 'fibre' ? 7 : null),
  breaksPressure: ({ device }) => device !== 'fibre',
  mounting: ({ device, surfaceM2, towerMm, packingMm }) =>
    device === 'fibre'
      ? { wetKg: 2 + 0.6 * surfaceM2, wallM: 0.3 }
      : { wetKg: 10 + 200 * (Math.PI / 4) * (towerMm / 1000) ** 2 * (packingMm / 1000), wallM: Math.max(0.4, towerMm / 1000) },
  price: piece,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: piece,
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: ({ id, name, device, sweepLPerH }, { standing, units }) => [
    {
      id: `degas-flush-${id}`,
      act: 'rinse',
      place: 'resin',
      title: device === 'fibre' ? `Flush ${inSentence(name)} with its gas ports open` : `Fill ${inSentence(name)} and start its air`,
      how:
        device === 'fibre'
          ? 'Water to the drain, gas ports open. Look at them for an hour: none may drip.'
          : 'Water first, then the blower. Look that the spray wets the packing evenly and nothing overflows.',
      minutes: 60,
      waits: true,
      cautions: device === 'fibre' ? [] : [MAINS],
      measures: [
        seen('dry', device === 'fibre' ? 'No drip at the gas ports' : 'Runs evenly', 'A wetted or torn fibre drips for good: exchange it.'),
      ],
    },
    {
      id: `degas-sweep-${id}`,
      act: 'rinse',
      place: 'resin',
      title: `Start the sweep of ${inSentence(name)} and read pH behind it`,
      before: 'Water runs, and its pressure stands above that of the gas.',
      how: `${device === 'fibre' ? `${formatQuantity(sweepLPerH, 'flowLPerH', units).text} of gas; lead its line down to a low point with a drain.` : 'Air as its blower gives it.'} Read fresh and closed: an open sample takes CO₂ up again.`,
      minutes: 15,
      cautions: [CO2_ROOM],
      measures: [
        phBehind(inSentence(name), standing?.after.state.pH ?? null, PH_WITHIN, {
          because: 'by the model, ±0.2 for the meter and the air',
          ifLow: 'Is gas flowing, is its filter clean, does water stand in the fibres? Drain the low point, read again.',
          ifHigh: 'Better than expected: was the sample fresh and closed?',
        }),
      ],
    },
  ],
  plumbed: ({ device }) => ({ ...threaded('3/4'), drains: true, powered: device === 'tower' }),
  tools: () => ['pH meter with a closed cell'],
  partGroup: 'cartridges',
  parts: (stage, { prices, units }) => [
    stage.device === 'fibre'
      ? {
          part: `degasser-${stage.surfaceM2}`,
          name: `Membrane degasser, ${formatQuantity(stage.surfaceM2, 'surfaceM2', units).text} of fibres`,
          why: 'one',
          count: 1,
          each: piece(stage, prices),
        }
      : { part: `aerator-${stage.device}`, name: DEVICE_WORDS[stage.device], why: 'one', count: 1, each: piece(stage, prices) },
    { part: 'air-filter', name: 'Filter of its air', why: 'one', count: 1, wearsDays: HALF_YEAR_DAYS },
    ...(stage.device === 'fibre'
      ? [{ part: 'condensate-trap', name: 'Condensate drain at the low end', why: 'water gathers in the gas line', count: 1 }]
      : []),
  ],
  upkeep: ({ device }) => [
    { says: 'air filter of', work: 'cleaned', everyDays: HALF_YEAR_DAYS },
    ...(device === 'fibre'
      ? [
          { says: 'drain the condensate of', work: 'rinsed' as const, everyDays: 30 },
          { says: 'change', work: 'changed' as const, afterDays: FIBRE_DAYS },
        ]
      : [{ says: 'wash the packing of', work: 'flushed' as const, everyDays: 365 }]),
  ],
  faults: ({ device }) => (device === 'fibre' ? ['sweepLost', 'fibresWet'] : ['sweepLost']),
  wears: { years: 5, causes: ['fibresWet'] },
  raises: ['sweepLost'],
  findings,
  facts: ({ worn, before, units }) => {
    if (!before) return [];
    const { flowLPerH } = before;
    const { temperatureC } = before.water;
    return [
      [
        'Transfer units',
        `${unitsOf(worn, flowLPerH, temperatureC).toFixed(1)}${worn.device === 'fibre' && !worn.sheet ? `, within 40${THIN}%` : ''}`,
      ],
      ...(worn.device === 'fibre'
        ? [
            [
              'Gas carries off, against what the water brings',
              `${sweepFactor(sweepOf(worn), flowLPerH, temperatureC).toFixed(1)} times`,
            ] as const,
          ]
        : []),
      ['Least it can leave with this gas', formatQuantity(restMgL(worn, temperatureC), 'concentrationMgL', units).text],
    ];
  },
  fill: zero,
  fields: (stage) => ({
    choices: [
      field.choice(
        stage,
        'device',
        'Device',
        DEVICES.map((value) => ({ title: DEVICE_WORDS[value], value })),
      ),
    ],
    quantities: [
      ...(stage.device === 'fibre' ? fibreFields(stage) : []),
      ...(stage.device === 'tower'
        ? [
            field.quantity(stage, 'packingMm', 'Height of the packing'),
            field.quantity(stage, 'towerMm', 'Width of the tower'),
            field.quantity(stage, 'airToWater', 'Litres of air to one of water'),
          ]
        : []),
      field.quantity(stage, 'airPpm', 'CO₂ of its air (outside 420, workshop 800–1500, nitrogen 0)', { folded: stage.device !== 'fibre' }),
    ],
  }),
  folded: 'Loss of the water side',
});

/** How near a pH has to stand to the model's. */
const PH_WITHIN = 0.2;

/** A sheet as it begins when one of its figures is typed. */
const NEW_SHEET = { atLPerH: 1000, co2InMgL: 20, co2OutMgL: 2 } as const;
function fibreFields(stage: Degasser): ReturnType<typeof field.quantity>[] {
  const sheet = schema.shape.sheet.unwrap().shape;
  const known: NonNullable<Degasser['sheet']> = stage.sheet ?? NEW_SHEET;
  const printed = (key: keyof typeof NEW_SHEET, label: string): ReturnType<typeof field.quantity> =>
    quantity(label, sheet[key], stage.sheet?.[key] ?? null, (value): Degasser => ({ ...stage, sheet: { ...known, [key]: value } }), {
      empty: { says: 'not known', stage: { ...stage, sheet: null } },
      folded: 'Its data sheet, at 25 °C',
    });
  return [
    field.quantity(stage, 'surfaceM2', 'Surface of its fibres'),
    field.quantity(stage, 'sweepLPerH', 'Sweep gas, dry at 0 °C and 1.013 bar'),
    field.quantity(stage, 'gasBar', 'Gas pressure in the fibres, absolute'),
    printed('atLPerH', 'Printed at a flow of'),
    printed('co2InMgL', 'CO₂ in'),
    printed('co2OutMgL', 'CO₂ out'),
    field.quantity(stage, 'lossBar', 'Loss of the water side', { folded: true }),
    field.quantity(stage, 'lossAtLPerH', 'at a flow of', { folded: true }),
  ];
}
