import { z } from 'zod';
import {
  aged,
  boreFromRating,
  CLEAN,
  ELEMENT_CLASSES,
  ELEMENT_ROWS,
  elementCount,
  elementMakes,
  elementText,
  labelledRow,
  NOTHING_PRINTED,
  isSeawaterElement,
  isSmallElement,
  rankFluxLmh,
  restrictorFlowLPerH,
  valveHolding,
  type ElementRow,
  type ElementSize,
  type MembraneUnit,
} from '../membrane';
import { BAR_PER_PSI, formatQuantity, id, inSentence, maybe, measured, THIN, type UnitPreference } from '../quantity';
import type { FaultId } from './fault';
import { keysOf, quantity, type StageChoice, type StageQuantity } from './field';
import {
  allPasses,
  anyStage,
  defineStage,
  fitted,
  neverOpen,
  none,
  unchanged,
  zero,
  type AnyStage,
  type RunningUnit,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { membraneSteps } from './membraneSteps';
import { unitRanks } from './ranks';
import type { PartEntry } from './part';
import { housingFor } from './prices';

const needle = z.strictObject({ kind: z.literal('needle'), kvM3PerH: measured('kvM3PerH', 0.0001, 100) });
const held = z.strictObject({ kind: z.literal('pressure'), bar: measured('pressureBar', 0.1, 100) });
const recovery = z.strictObject({ kind: z.literal('recovery'), recovery: measured('fraction', 0.01, 0.95) });
const rank = z.strictObject({ vessels: z.int().min(1).max(40), elementsPerVessel: z.int().min(1).max(8) });
/** What is printed on the element; see `labelledRow`. */
const label = z.strictObject({
  name: z.string().max(80),
  makesLPerH: maybe(measured('flowLPerH', 0.5, 5000)),
  testPressureBar: maybe(measured('pressureBar', 0.5, 100)),
  testTemperatureC: maybe(measured('temperatureC', 1, 45)),
  testSaltMgL: maybe(measured('concentrationMgL', 10, 50_000)),
  rejection: maybe(measured('fraction', 0.2, 0.9999)),
});
/** Restrictors: a tube that is cut to length, or one sold for a flow, which is never cut. */
const RESTRICTOR_FORMS = ['tube', 'fixed'] as const;
const restrictor = z.strictObject({
  form: z.enum(RESTRICTOR_FORMS),
  lengthMm: measured('lengthMm', 10, 2000),
  boreMm: measured('lengthMm', 0.2, 3),
  /** Nobody has measured the tube yet: its length is a template's. */
  assumed: z.boolean(),
  /** Whether a lever of its own opens it for flushing. */
  flushLever: z.boolean(),
});
const recycleKv = maybe(measured('kvM3PerH', 0.0001, 100));

const schema = z.strictObject({
  kind: z.literal('membrane'),
  ...anyStage,
  elementClass: z.enum(ELEMENT_CLASSES),
  label,
  arrangement: z.enum(['single', 'parallel', 'series', 'array']),
  /** Vessels side by side and elements in each, rank after rank; used by the arrangement 'array'. */
  ranks: z.array(rank).max(4),
  restrictor,
  /** Stands in place of the restrictor where there is one. */
  valve: maybe(z.discriminatedUnion('kind', [needle, held, recovery])),
  /** Concentrate led back before the pump. */
  recycleLPerH: measured('flowLPerH', 0, 100_000),
  /** Opening of a valve that sets the recycle by pressure, in place of a given flow; null where the flow is given. */
  recycleKv,
  /** Share of the product that is water led past the membrane. */
  bypassShare: measured('fraction', 0, 0.9),
  /** Stage ahead behind which that water is taken off; null: right before the membrane. */
  bypassAfter: maybe(id),
  /** Second pass only: its waste goes back before the pump of the first, not to the drain. */
  wasteToFirstPass: z.boolean(),
  /** Output and salt passage against a new element, as measured; null: by its age. */
  waterFactor: maybe(measured('fraction', 0.05, 5)),
  saltFactor: maybe(measured('fraction', 0.05, 100)),
  ...fitted,
});
export type MembraneStage = z.infer<typeof schema>;
const field = keysOf<MembraneStage>(schema.shape);

const { name: _printedName, ...PRINTED } = label.shape;
/** Nothing was read off the element: it is one of its class. */
export const NO_LABEL: MembraneStage['label'] = { name: '', ...NOTHING_PRINTED };

/** The element of a stage: its class's row, with what its label says in its place. */
export const elementRow = ({ elementClass, label: { name: _, ...printed } }: Pick<MembraneStage, 'elementClass' | 'label'>): ElementRow =>
  labelledRow(ELEMENT_ROWS[elementClass], printed);

/** What an element is called: by its label where that was typed, or else by its class. */
export const elementName = (stage: Pick<MembraneStage, 'elementClass' | 'label'>, units: UnitPreference): string =>
  stage.label.name === '' ? elementText(stage.elementClass, units) : stage.label.name;

/** The membrane stage as the membrane room takes it. */
export const membraneUnit = (stage: MembraneStage): MembraneUnit => ({
  row: elementRow(stage),
  ranks: unitRanks(stage),
  factors: { water: stage.waterFactor ?? 1, salt: stage.saltFactor ?? 1 },
  restrictor: stage.restrictor,
  valve: stage.valve,
  recycleLPerH: stage.recycleLPerH,
  recycleKv: stage.recycleKv,
});

/** Weight full and width of one element in its housing (our estimates, ±20 %). */
const HOUSED: Readonly<Record<ElementSize, { readonly kg: number; readonly m: number }>> = {
  household: { kg: 1.6, m: 0.1 },
  householdWide: { kg: 1.8, m: 0.1 },
  in25: { kg: 9, m: 0.15 },
  in4: { kg: 26, m: 0.2 },
};

const elements = (units: UnitPreference): StageChoice<MembraneStage>['items'] =>
  ELEMENT_CLASSES.map((value) => ({ title: elementText(value, units), value }));
const ARRANGEMENTS = [
  { title: 'One element', value: 'single' },
  { title: 'Two in series on the waste', value: 'series' },
  { title: 'Two side by side', value: 'parallel' },
  { title: 'Vessels in ranks', value: 'array' },
] as const;
const WASTE_CONTROLS = [
  { title: 'Waste through a restrictor tube', value: 'tube' },
  { title: 'Waste through a fixed restrictor', value: 'fixed' },
  { title: 'Waste through a needle valve', value: 'needle' },
  { title: 'Waste held at a pressure', value: 'pressure' },
  { title: 'Waste valve set to a recovery', value: 'recovery' },
];
const FLUSH_LEVERS = [
  { title: 'Without a flush lever', value: 'without' },
  { title: 'With a flush lever', value: 'with' },
];
const PASS_WASTE = [
  { title: 'Its waste to the drain', value: 'drain' },
  { title: 'Its waste before the first pump', value: 'back' },
];
/** Two vessels feeding two: the usual skid. */
const FIRST_RANKS: MembraneStage['ranks'] = [
  { vessels: 2, elementsPerVessel: 1 },
  { vessels: 2, elementsPerVessel: 1 },
];

/** A waste control that holds the unit where it stands: changing the kind moves nothing. */
function controlAt(kind: string, unit: RunningUnit | null): MembraneStage['valve'] {
  const running = unit && !unit.noProduction ? unit : { concentrateLPerH: 60, concentratePressureBar: 4, recovery: 0.2 };
  return kind === 'needle' || kind === 'pressure' || kind === 'recovery' ? valveHolding(kind, running) : null;
}

/** What may go wrong with a membrane as it is plumbed. */
function faults(stage: MembraneStage): readonly FaultId[] {
  const inSeries = unitRanks(stage).reduce((sum, { elementsPerVessel }) => sum + elementsPerVessel, 0) > 1;
  const wear: readonly FaultId[] = isSeawaterElement(stage.elementClass) ? ['swMembrane'] : ['oxidised'];
  return [
    'coldWater',
    'fouled',
    'scaled',
    ...wear,
    'sealLeak',
    'brineSeal',
    'dryMembrane',
    'creep',
    'ammonia',
    ...(stage.valve ? [] : (['swapped', 'restrictorTight', 'restrictorWide'] as const)),
    ...(stage.valve || !inSeries ? [] : (['oldRestrictor'] as const)),
    ...(stage.recycleLPerH > 0 || stage.recycleKv !== null ? (['recycleWide'] as const) : []),
  ];
}

/** Where the water led past is taken off, once any is: a softener in between leaves it its hardness. */
function takenFrom(stage: MembraneStage, ahead: readonly AnyStage[]): StageChoice<MembraneStage>[] {
  if (stage.bypassShare === 0 || ahead.length < 2) return [];
  const places = ahead.slice(0, -1).map((one) => ({ title: `Led past from behind ${inSentence(one.name)}`, value: one.id }));
  return [
    {
      label: 'Led past from',
      items: [{ title: 'Led past from right before it', value: '' }, ...places],
      value: places.some(({ value }) => value === stage.bypassAfter) ? stage.bypassAfter! : '',
      write: (value) => ({ stage: { ...stage, bypassAfter: value || null } }),
    },
  ];
}

/** A second pass wastes water cleaner than the tap: it may go back to the first. */
const secondPass = (stage: MembraneStage, ahead: readonly AnyStage[]): StageChoice<MembraneStage>[] =>
  ahead.some(({ kind }) => kind === 'membrane')
    ? [
        {
          label: 'Waste of the second pass',
          items: PASS_WASTE,
          value: stage.wasteToFirstPass ? 'back' : 'drain',
          write: (value) => ({ stage: { ...stage, wasteToFirstPass: value === 'back' } }),
        },
      ]
    : [];

/** What restrictors are rated at: 60 psi and 25 °C (common practice). */
const RATED = { bar: 60 * BAR_PER_PSI, temperatureC: 25 } as const;
/** Bores the model takes, a hair inside its limits so that a bore found from a rating stays within them. */
const BORE_MM = { low: 0.2 * (1 + 1e-6), high: 3 * (1 - 1e-6) } as const;

/** What the restrictor would pass at its rating; another rating is another bore of the same length. */
function ratingField(stage: MembraneStage): StageQuantity<MembraneStage>[] {
  const { lengthMm, boreMm } = stage.restrictor;
  const ratedWith = (bore: number): number | null => {
    const flow = restrictorFlowLPerH({ lengthMm, boreMm: bore }, RATED.bar, RATED.temperatureC);
    return flow.ok ? flow.value : null;
  };
  const [value, low, high] = [boreMm, BORE_MM.low, BORE_MM.high].map(ratedWith);
  if (value == null || low == null || high == null) return [];
  return [
    {
      label: stage.restrictor.form === 'fixed' ? 'Printed on it, at 60 psi' : 'Restrictor, rated at 60 psi',
      dimension: 'flowLPerH',
      unit: 'mL/min',
      low,
      high,
      value,
      write: (flowLPerH) => {
        const bore = boreFromRating(flowLPerH, RATED.bar, lengthMm, RATED.temperatureC);
        return { stage: { ...stage, restrictor: { ...stage.restrictor, boreMm: bore.ok ? bore.value : boreMm } } };
      },
    },
  ];
}

/** Length and bore of the tube in the waste line. */
/** What a restrictor passes at its rating, mL/min. */
export const ratedMlPerMin = ({ lengthMm, boreMm }: Pick<MembraneStage['restrictor'], 'lengthMm' | 'boreMm'>): number => {
  const flow = restrictorFlowLPerH({ lengthMm, boreMm }, RATED.bar, RATED.temperatureC);
  return flow.ok ? (flow.value * 1000) / 60 : 0;
};
/** As it is printed: the nearest of ten. */
export const printedMlPerMin = (one: MembraneStage['restrictor']): number => Math.round(ratedMlPerMin(one) / 10) * 10;
/** Sizes fixed restrictors are sold in, mL/min at 60 psi (common practice). */
export const SOLD_RESTRICTORS_ML_PER_MIN = [150, 200, 250, 300, 350, 400, 450, 500, 550, 600, 800, 1000, 1200] as const;
/** The size as sold that lets at least so much go to waste; null beyond the largest. */
export const soldRestrictor = (mLPerMin: number): number | null =>
  SOLD_RESTRICTORS_ML_PER_MIN.find((size) => size >= mLPerMin * 0.99) ?? null;
/** A fixed restrictor of a size as sold, on a tube as long as this one's. */
export function fixedRestrictor(now: MembraneStage['restrictor'], mLPerMin: number): MembraneStage['restrictor'] {
  const bore = boreFromRating((mLPerMin * 60) / 1000, RATED.bar, now.lengthMm, RATED.temperatureC);
  return { ...now, form: 'fixed', boreMm: bore.ok ? bore.value : now.boreMm, assumed: false };
}

function restrictorFields(stage: MembraneStage): StageQuantity<MembraneStage>[] {
  if (stage.restrictor.form === 'fixed') return [];
  const { lengthMm, boreMm } = stage.restrictor;
  const set = (changes: Partial<typeof stage.restrictor>): MembraneStage => ({ ...stage, restrictor: { ...stage.restrictor, ...changes } });
  return [
    quantity('Restrictor length', restrictor.shape.lengthMm, lengthMm, (value) => set({ lengthMm: value, assumed: false }), {
      unit: 'cm',
      assumed: stage.restrictor.assumed,
    }),
    quantity('Restrictor bore', restrictor.shape.boreMm, boreMm, (value) => set({ boreMm: value }), { unit: 'mm' }),
  ];
}

/** Vessels and elements of each rank of an array. */
function rankFields(stage: MembraneStage): StageQuantity<MembraneStage>[] {
  if (stage.arrangement !== 'array') return [];
  const set = (i: number, changes: Partial<MembraneStage['ranks'][number]>): MembraneStage => ({
    ...stage,
    ranks: stage.ranks.map((one, k) => (k === i ? { ...one, ...changes } : one)),
  });
  return stage.ranks.flatMap((one, i) => [
    quantity(`Rank ${i + 1}, vessels`, rank.shape.vessels, one.vessels, (value) => set(i, { vessels: Math.round(value) })),
    quantity(`Rank ${i + 1}, elements in each`, rank.shape.elementsPerVessel, one.elementsPerVessel, (value) =>
      set(i, { elementsPerVessel: Math.round(value) }),
    ),
  ]);
}

/** What a restrictor is bought as. */
function restrictorPart(one: MembraneStage['restrictor']): PartEntry {
  const why = 'one, on the last waste port';
  if (one.form === 'tube') {
    const bore = one.boreMm.toFixed(1);
    return { part: `restrictor-${bore}`, name: `Restrictor tube, bore ${bore}${THIN}mm, uncut`, why, count: 1 };
  }
  const rated = printedMlPerMin(one);
  const lever = one.flushLever ? ', with flush lever' : '';
  return { part: `restrictor-fixed-${rated}`, name: `Fixed restrictor, ${rated}${THIN}mL/min${lever}`, why, count: 1 };
}

const LABEL = 'By its label';
/** What is printed on the element, folded away: each figure stands in place of its class's. */
function labelFields(stage: MembraneStage, units: UnitPreference): StageQuantity<MembraneStage>[] {
  const asked = (key: keyof typeof PRINTED, says: string, empty: string, unit?: string): StageQuantity<MembraneStage> => {
    const set = (value: number | null): MembraneStage => ({ ...stage, label: { ...stage.label, [key]: value } });
    return quantity(says, PRINTED[key], stage.label[key], set, {
      folded: LABEL,
      empty: { says: empty, stage: set(null) },
      ...(unit ? { unit } : {}),
    });
  };
  return [
    asked('makesLPerH', 'Makes', 'its class'),
    asked('testPressureBar', 'Tested at', 'its class'),
    asked('testTemperatureC', 'Test water', formatQuantity(25, 'temperatureC', units).text),
    asked('testSaltMgL', 'Test salt', 'its class'),
    asked('rejection', 'Salt held back', 'its class', '%'),
  ];
}

/** What a waste valve is set by. */
function valveFields(stage: MembraneStage): StageQuantity<MembraneStage>[] {
  const { valve } = stage;
  const set = (changed: MembraneStage['valve']): MembraneStage => ({ ...stage, valve: changed });
  switch (valve?.kind) {
    case undefined:
      return [];
    case 'needle':
      return [quantity('Opening Kv', needle.shape.kvM3PerH, valve.kvM3PerH, (kvM3PerH) => set({ ...valve, kvM3PerH }))];
    case 'pressure':
      return [quantity('Pressure at the valve', held.shape.bar, valve.bar, (bar) => set({ ...valve, bar }))];
    case 'recovery':
      return [quantity('Recovery', recovery.shape.recovery, valve.recovery, (value) => set({ ...valve, recovery: value }), { unit: '%' })];
  }
}

/** What is led back: a flow, or the opening of the valve that sets it. */
const recycleField = (stage: MembraneStage): StageQuantity<MembraneStage> =>
  stage.recycleKv === null
    ? field.quantity(stage, 'recycleLPerH', 'Led back before the pump', { folded: true })
    : field.quantity(stage, 'recycleKv', 'Recycle valve Kv', { empty: 'by flow', folded: true });

/** A membrane lasts two to three years in a household (common practice), days. */
const MEMBRANE_DAYS = 2.5 * 365;

/** Ports of housings by the size of their elements (common practice). */
const ELEMENT_THREADS = { household: '1/4', householdWide: '1/4', in25: '1/2', in4: '3/4' } as const;

export const membrane = defineStage(schema, {
  kind: 'membrane',
  label: 'Membrane',
  says: 'Holds the salt back, sends it to waste',
  place: 6,
  defaults: {
    kind: 'membrane',
    name: 'Membrane',
    elementClass: 'household75',
    arrangement: 'single',
    ranks: [],
    valve: null,
    recycleLPerH: 0,
    recycleKv: null,
    bypassShare: 0,
    bypassAfter: null,
    wasteToFirstPass: false,
    label: NO_LABEL,
    restrictor: { form: 'tube', lengthMm: 300, boreMm: 1.2, assumed: true, flushLever: false },
    waterFactor: null,
    saltFactor: null,
    fittedOn: null,
  },
  form: 'vessel',
  touches: () => 'salt',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: unchanged,
  slopeBar: zero,
  riseBar: zero,
  breaksPressure: neverOpen,
  mounting: (stage) => {
    const { kg, m } = HOUSED[ELEMENT_ROWS[stage.elementClass].size];
    const count = elementCount(unitRanks(stage));
    return { wetKg: kg * count, wallM: m * count };
  },
  price: (stage, { piece }) => elementCount(unitRanks(stage)) * piece(stage.elementClass),
  costLine: 'membrane',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (stage, { piece }) => {
    const count = elementCount(unitRanks(stage));
    return count * (piece(stage.elementClass) + piece(housingFor(stage.elementClass)));
  },
  worn: (stage, { years = 0, chlorineMgLHours = 0, chloramineMgLHours = 0, factors }) => {
    const byAge = aged(CLEAN, { years, chlorineMgLHours, chloramineMgLHours, household: isSmallElement(stage.elementClass) });
    return {
      ...stage,
      waterFactor: stage.waterFactor ?? factors?.water ?? byAge.water,
      saltFactor: stage.saltFactor ?? factors?.salt ?? byAge.salt,
    };
  },
  renewed: (stage) => ({ ...stage, waterFactor: null, saltFactor: null }),
  dirtPassed: allPasses,
  steps: membraneSteps,
  plumbed: ({ elementClass }) => ({ ...threaded(ELEMENT_THREADS[ELEMENT_ROWS[elementClass].size]), drains: true }),
  tools: () => ['Two measuring jugs, a clock', 'Gloves'],
  partGroup: 'membranes',
  parts: (stage, { prices, units }) => {
    const ranks = unitRanks(stage);
    const vessels = ranks.reduce((sum, one) => sum + one.vessels, 0);
    const why =
      stage.arrangement === 'series' ? 'two in series on the waste' : stage.arrangement === 'single' ? 'one' : `${vessels} vessels`;
    return [
      {
        part: `element-${stage.elementClass}`,
        name: `Membrane ${elementName(stage, units)}, with its housing`,
        why,
        count: elementCount(ranks),
        each: isSmallElement(stage.elementClass) ? prices.element : null,
        wearsDays: MEMBRANE_DAYS,
      },
      { part: 'o-rings', name: 'Product O-rings and lip seal, a set', why: 'one spare for each housing', count: vessels },
      ...(stage.valve
        ? [
            {
              part: `waste-valve-${stage.valve.kind}`,
              name: stage.valve.kind === 'pressure' ? 'Pressure-regulating valve' : 'Needle valve on the waste',
              why: 'holds the waste back',
              count: 1,
            },
          ]
        : [
            restrictorPart(stage.restrictor),
            ...(stage.restrictor.flushLever ? [] : [{ part: 'flush-valve', name: 'Flush valve', why: 'beside the restrictor', count: 1 }]),
          ]),
      ...(stage.recycleLPerH > 0 || stage.recycleKv !== null
        ? [{ part: 'recycle-valve', name: 'Needle valve in the recycle', why: 'leads concentrate back before the pump', count: 1 }]
        : []),
      ...(stage.bypassShare > 0
        ? [{ part: 'blend-valve', name: 'Needle valve for the blend', why: 'leads water past the membrane', count: 1 }]
        : []),
      ...(isSmallElement(stage.elementClass)
        ? [
            { part: 'check-valve', name: 'Check valve in the product', why: 'no tank pushes back into the membrane', count: 1 },
            { part: 'auto-shut-off', name: 'Automatic shut-off valve', why: 'stops the waste when the tank is full', count: 1 },
          ]
        : []),
    ];
  },
  // When it is due the log's trend says.
  // A membrane left idle in sea water fouls within days (common practice: weekly, with water free of chlorine).
  upkeep: ({ elementClass }) => (isSeawaterElement(elementClass) ? [{ says: 'flush', work: 'flushed', everyDays: 7 }] : []),
  faults,
  wears: { years: 4, causes: ['fouled'] },
  raises: ['sealLeak', 'brineSeal', 'dryMembrane', 'swapped', 'restrictorTight', 'restrictorWide', 'resinPoisoned', 'oldRestrictor'],
  findings: none,
  facts: ({ unit, worn, safeRecovery, units }) => {
    const row = elementRow(worn);
    const byLabel = row !== ELEMENT_ROWS[worn.elementClass];
    const made = [byLabel ? 'New, by its label' : 'New, typical of its size', elementMakes(row, units)] as const;
    if (!unit) return [made];
    const share = (value: number): string => formatQuantity(value, 'fraction', units).text;
    return [
      made,
      ['Salt held back', unit.rejection === null ? '–' : share(unit.rejection)],
      ['Pressure at the membrane', formatQuantity(unit.feedPressureBar, 'pressureBar', units).text],
      ['Flux', unit.ranks.length === 0 ? '–' : `${unit.ranks.map((one) => rankFluxLmh(one).toFixed(1)).join(' and ')} L/m²h`],
      ['Share taken as product', share(unit.recovery)],
      ...(safeRecovery === null ? [] : [['Safe share, no inhibitor', share(safeRecovery)] as const]),
      ...(worn.waterFactor !== null && worn.saltFactor !== null
        ? [['Output, salt passage against new', `${share(worn.waterFactor)}, ${share(worn.saltFactor)}`] as const]
        : []),
    ];
  },
  fill: zero,
  fields: (stage, { linePressureBar, unit, ahead, units }) => ({
    texts: [
      {
        label: 'Name',
        folded: LABEL,
        value: stage.label.name,
        write: (name) => ({ stage: { ...stage, label: { ...stage.label, name } } }),
      },
    ],
    choices: [
      {
        ...field.choice(stage, 'elementClass', 'Element', elements(units)),
        // A label belongs to the element it was read from.
        write: (value) => ({
          stage: { ...stage, elementClass: ELEMENT_CLASSES.find((one) => one === value) ?? stage.elementClass, label: NO_LABEL },
        }),
      },
      {
        label: 'Arrangement',
        items: ARRANGEMENTS,
        value: stage.arrangement,
        write: (value) => {
          const arrangement = ARRANGEMENTS.find((one) => one.value === value)?.value ?? stage.arrangement;
          return {
            stage: { ...stage, arrangement, ranks: arrangement === 'array' && stage.ranks.length === 0 ? FIRST_RANKS : stage.ranks },
          };
        },
      },
      {
        label: 'Waste control',
        items: WASTE_CONTROLS,
        value: stage.valve?.kind ?? stage.restrictor.form,
        write: (value) => {
          const form = RESTRICTOR_FORMS.find((one) => one === value) ?? stage.restrictor.form;
          return { stage: { ...stage, valve: controlAt(value, unit), restrictor: { ...stage.restrictor, form } } };
        },
      },
      ...(stage.valve || stage.restrictor.form === 'tube'
        ? []
        : [
            {
              label: 'Flush lever',
              items: FLUSH_LEVERS,
              value: stage.restrictor.flushLever ? 'with' : 'without',
              write: (value: string) => ({ stage: { ...stage, restrictor: { ...stage.restrictor, flushLever: value === 'with' } } }),
            },
          ]),
      ...takenFrom(stage, ahead.slice(ahead.findLastIndex(({ kind }) => kind === 'membrane') + 1)),
      ...secondPass(stage, ahead),
    ],
    quantities: [
      { label: 'Line pressure', dimension: 'pressureBar', value: linePressureBar, write: (bar) => ({ linePressureBar: bar }) },
      ...rankFields(stage),
      ...valveFields(stage),
      ...(stage.valve ? [] : [...ratingField(stage), ...restrictorFields(stage)]),
      recycleField(stage),
      field.quantity(stage, 'bypassShare', 'Led past the membrane', { unit: '%', folded: true }),
      ...labelFields(stage, units),
      field.quantity(stage, 'waterFactor', 'Output against new', { unit: '%', empty: 'by age', folded: true }),
      field.quantity(stage, 'saltFactor', 'Salt passage against new', { unit: '%', empty: 'by age', folded: true }),
    ],
  }),
  folded: 'Recycle, bypass, ageing',
});
