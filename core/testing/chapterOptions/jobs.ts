import { elementCount, isSeawaterElement, isSmallElement, type ElementClass, type VesselRank } from '../../membrane';
import { JOB_AXES, type Axis, type Job } from '../../choice';
import type { Plan, PlannedPump, PlannedResin, Upkeep } from './plan';
import { SILICA_RESIN_FACTOR, type Priced } from './prices';

/** How each job's axes become trains: what stands on the wall, what it is bought as, what is changed how often. */

/** One part of a job's options: its axes, and the train of each choice. */
export interface Space {
  readonly id: string;
  readonly axes: readonly Axis[];
  /** Axes at the end that leave the membrane part as it is: resin and tank, and what stands in their place. */
  readonly behind: number;
  readonly planOf: (choice: Choice) => Plan;
}
/** What an option takes along each axis. */
export type Choice = Readonly<Record<string, string | number | boolean>>;

/** Width of a filter housing on a wall, and of a membrane's, mm (common practice). */
const HOUSING_MM = 110;
const LARGE_MM = { in25: 150, in4: 200 } as const;
const VESSEL_MM = 250;
const CARBON_L = 0.5;
/** Litres a block is sold for, at 2 mg/L of chlorine. */
const CARBON_FEED_L = 11_000;
const CARBON_AT_MG_L = 2;
const PREFILTERS_A_YEAR = 2;
/** Of what shields the large membranes (common practice): a filter, and a carbon, four times a year. */
const LARGE_PREFILTERS_A_YEAR = 4;

const one: VesselRank = { vessels: 1, elementsPerVessel: 1 };
const series = (count: number): VesselRank[] => Array.from({ length: count }, () => one);

export const housingOf = (element: ElementClass): Priced =>
  isSeawaterElement(element)
    ? 'seaHousing'
    : isSmallElement(element)
      ? element === 'household200Wide'
        ? 'housingWide'
        : 'smallHousing'
      : `housing${diameter(element) === 'in25' ? 25 : 4}`;

export const NOTHING: Omit<Plan, 'route' | 'widthMm' | 'parts' | 'upkeep'> = {
  membrane: null,
  resin: null,
  carbon: null,
  cartridge: null,
  scale: 'nothing',
  softener: null,
  blends: false,
  degassed: false,
  membraneChange: null,
  tankL: 0,
  kWhPerM3: 0,
  energyRecovery: 0,
  owned: false,
};

/** Resin as an axis names it: litres, `2x` two in a row, `+silica` a stage for it behind. */
export function resinNamed(name: string): PlannedResin | null {
  const known = NAMED.get(name);
  if (known !== undefined) return known;
  const [size, silica] = name.split('+');
  const two = size!.startsWith('2x');
  const litresEach = Number(two ? size!.slice(2) : size);
  const inSeries = two || silica !== undefined;
  const resin = name === 'none' ? null : { beds: inSeries ? 2 : 1, litresEach, inSeries, priceFactor: silica ? SILICA_RESIN_FACTOR : 1 };
  NAMED.set(name, resin);
  return resin;
}
/** Names read so far: an axis has a handful, a space ten thousand options. */
const NAMED = new Map<string, PlannedResin | null>();
/** What beds of a size are bought in. */
export function vesselOf(litres: number): Priced {
  if (litres <= 2) return 'resinHousing';
  return litres <= 7 ? 'vessel7' : litres <= 11 ? 'vessel11' : litres <= 25 ? 'vessel25' : 'vessel40';
}
const bedsWidth = (resin: PlannedResin | null): number => (resin ? resin.beds * (resin.litresEach <= 2 ? HOUSING_MM : VESSEL_MM) : 0);
const bedParts = (resin: PlannedResin | null): Plan['parts'] => (resin ? [[vesselOf(resin.litresEach), resin.beds]] : []);
const routeOf = (membrane: boolean, resin: PlannedResin | null): Plan['route'] =>
  membrane ? (resin ? 'membraneAndResin' : 'membrane') : 'resin';

/** What resin and tank stand behind is the same for a whole block of options: it is made once while those axes stay. */
function whileAlike(axes: readonly string[], make: (choice: Choice) => Plan): (choice: Choice) => Plan {
  let last: { readonly choice: Choice; readonly plan: Plan } | null = null;
  return (choice) => {
    const known = last;
    if (known && axes.every((axis) => known.choice[axis] === choice[axis])) return known.plan;
    last = { choice, plan: make(choice) };
    return last.plan;
  };
}
/** Resin and tank behind a membrane. */
const behind = (front: Plan, resin: PlannedResin | null, tankL: number): Plan => ({
  ...front,
  route: routeOf(true, resin),
  resin,
  tankL,
  widthMm: front.widthMm + bedsWidth(resin),
  parts: resin ? [...front.parts, ...bedParts(resin)] : front.parts,
});

/** Upkeep of the filters ahead of large membranes. */
export const LARGE_UPKEEP: readonly Upkeep[] = [
  { line: 'prefilters', part: 'sediment', count: 1, timesAYear: LARGE_PREFILTERS_A_YEAR },
  { line: 'carbon', part: 'carbonBlock', count: 1, timesAYear: LARGE_PREFILTERS_A_YEAR },
];

/** Upkeep of a household's filters; the carbon by the chlorine it takes as well. */
export const householdUpkeep = (blocks: number, carbonMgL: number): Upkeep[] => [
  { line: 'prefilters', part: 'sediment', count: 1, timesAYear: PREFILTERS_A_YEAR },
  {
    line: 'carbon',
    part: 'carbonBlock',
    count: blocks,
    timesAYear: PREFILTERS_A_YEAR,
    ...(carbonMgL > 0 && { everyFeedL: (CARBON_AT_MG_L * CARBON_FEED_L * blocks) / carbonMgL }),
  },
];

/** What a household's booster holds in front of the membrane, and takes. */
const BOOSTER: PlannedPump = { bar: 5.5, kW: 0.03, part: 'booster', heldFeedLPerH: null };
const CART = { bar: 8, kW: 0.75, part: 'cartPump' } as const;
/** Feed a cart's pump moves past an element, L/h. */
const CART_FEED = { in25: 700, in4: 1500 } as const;
const diameter = (element: ElementClass): 'in25' | 'in4' => (element.startsWith('in25') ? 'in25' : 'in4');

const arranged = (number: unknown): VesselRank[] =>
  number === 'twoInSeries' ? series(2) : number === 'twoInParallel' ? [{ vessels: 2, elementsPerVessel: 1 }] : [one];
const carbonOf = (name: unknown): NonNullable<Plan['carbon']> => ({
  blocks: name === 'one' ? 1 : 2,
  litresEach: CARBON_L,
  chloramine: name === 'chloramine',
});

/** Small membranes of a household, with what stands behind them. */
const household = (carbonMgL: number): Space['planOf'] => {
  const front = whileAlike(['element', 'number', 'booster', 'wasteToProduct', 'carbon', 'finish'], (choice): Plan => {
    const carbon = carbonOf(choice['carbon']);
    const elementClass = choice['element'] as ElementClass;
    const ranks = arranged(choice['number']);
    const pump = choice['booster'] ? BOOSTER : null;
    const finish = String(choice['finish'] ?? 'none');
    const calcite = finish === 'remineralise' || finish === 'both';
    const housings = 1 + carbon.blocks + (calcite ? 1 : 0);
    return {
      ...NOTHING,
      route: 'membrane',
      membrane: { elementClass, ranks, pump, recovery: 1 / (1 + Number(choice['wasteToProduct'])), softened: false },
      membraneChange: { part: elementClass, count: elementCount(ranks), years: null },
      carbon,
      blends: finish === 'blend' || finish === 'both',
      widthMm: HOUSING_MM * housings,
      parts: [
        ['frame', 1],
        ['filterHousing', housings],
        [elementClass, elementCount(ranks)],
        [housingOf(elementClass), elementCount(ranks)],
        ...(pump ? ([['booster', 1]] as const) : []),
      ],
      upkeep: [
        ...householdUpkeep(carbon.blocks, carbonMgL),
        ...(calcite ? [{ line: 'prefilters', part: 'calcite', count: 1, timesAYear: 1 } as const] : []),
      ],
    };
  });
  return (choice) => {
    const resin = choice['resin'] === undefined ? null : resinNamed(String(choice['resin']));
    return behind(front(choice), resin, Number(choice['tankL'] ?? choice['drumL']));
  };
};

/** Resin alone at home: a carbon shields it, a light frame holds it. */
const resinAtHome =
  (carbonMgL: number) =>
  (choice: Choice): Plan => {
    const resin = resinNamed(String(choice['vesselL']))!;
    return {
      ...NOTHING,
      route: 'resin',
      resin,
      carbon: carbonOf('one'),
      tankL: Number(choice['tankL']),
      widthMm: 2 * HOUSING_MM + bedsWidth(resin),
      parts: [['frame', 0.5], ['filterHousing', 2], ...bedParts(resin)],
      upkeep: householdUpkeep(1, carbonMgL),
    };
  };

/** Resin alone in a van or at a shop. */
const resinVessels = (choice: Choice): Plan => {
  const resin = resinNamed(String(choice['vesselL']))!;
  const prefilter = choice['prefilter'] === true;
  return {
    ...NOTHING,
    route: 'resin',
    resin,
    tankL: Number(choice['reservoirL'] ?? 0),
    widthMm: (prefilter ? HOUSING_MM : 0) + bedsWidth(resin),
    parts: [['frame', 1], ...(prefilter ? ([['filterHousing', 1]] as const) : []), ...bedParts(resin)],
    upkeep: prefilter ? [{ line: 'prefilters', part: 'sediment', count: 1, timesAYear: PREFILTERS_A_YEAR }] : [],
  };
};

/** Softener resin, L, and salt of a regeneration, g/L: a cubic foot at 8 lb. */
const SOFTENER = { volumeL: 28.3168, saltGPerL: 128.15, reserveShare: 0.2 } as const;
const SMALL_SOFTENER = { ...SOFTENER, volumeL: 14.1584 } as const;

/** A van's or a shop's membranes, of 40 inches. */
const onTheCart = (): Space['planOf'] => {
  const front = whileAlike(['element', 'number', 'pump', 'recovery', 'recycle', 'scale'], (choice): Plan => {
    const elementClass = choice['element'] as ElementClass;
    const ranks = series(Number(choice['number']));
    const recycles = choice['recycle'] === true;
    const pump: PlannedPump | null =
      choice['pump'] === 'cart'
        ? { ...CART, heldFeedLPerH: recycles ? CART_FEED[diameter(elementClass)] : null }
        : choice['pump'] === 'booster'
          ? { ...BOOSTER, kW: 0.2 }
          : null;
    const softened = choice['scale'] === 'softener';
    return {
      ...NOTHING,
      route: 'membrane',
      membrane: { elementClass, ranks, pump, recovery: Number(choice['recovery']), softened },
      membraneChange: { part: elementClass, count: elementCount(ranks), years: null },
      carbon: { blocks: 2, litresEach: LARGE_CARBON_L, chloramine: false },
      scale: choice['scale'] === 'inhibitor' ? 'inhibitor' : softened ? 'softener' : 'nothing',
      softener: softened ? SOFTENER : null,
      widthMm: 2 * HOUSING_MM + elementCount(ranks) * LARGE_MM[diameter(elementClass)] + (softened ? VESSEL_MM : 0),
      parts: [
        ['frame', 2],
        ['filterHousing', 2],
        [elementClass, elementCount(ranks)],
        [housingOf(elementClass), elementCount(ranks)],
        ...(pump ? ([[pump.part, pump.part === 'booster' ? 2 : 1]] as const) : []),
        ...(softened ? ([['softener', 1]] as const) : []),
      ],
      upkeep: [
        ...LARGE_UPKEEP,
        ...(choice['scale'] === 'inhibitor' ? [{ line: 'prefilters', part: 'inhibitor', count: 1, timesAYear: 2 } as const] : []),
      ],
    };
  });
  return (choice) => behind(front(choice), resinNamed(String(choice['resin'])), Number(choice['tankL']));
};
/** Carbon in front of a 40-inch membrane, L. */
const LARGE_CARBON_L = 1.4;

const CARTRIDGES = [
  ['cartridge1.9', 1900],
  ['cartridge4.7', 4700],
  ['cartridge9.4', 9400],
  ['cartridge15', 15_000],
] as const satisfies readonly (readonly [Priced, number])[];
/** Places of the sizes along the axis. */
export const cartridgeSized = (size: number): (typeof CARTRIDGES)[number] => CARTRIDGES[Math.min(CARTRIDGES.length, size) - 1]!;

/** A cartridge with a bypass in front of a machine. */
const withCartridge =
  (bypass: number) =>
  (choice: Choice): Plan => {
    const [part, capacityMeq] = cartridgeSized(Number(choice['size']));
    const prefilter = choice['prefilter'] === true;
    return {
      ...NOTHING,
      route: 'cartridge',
      cartridge: { part, capacityMeq, bypass },
      widthMm: 150 + (prefilter ? HOUSING_MM : 0),
      parts: [['bypassHead', 1], ...(prefilter ? ([['filterHousing', 1]] as const) : [])],
      upkeep: prefilter ? [{ line: 'prefilters', part: 'sediment', count: 1, timesAYear: PREFILTERS_A_YEAR }] : [],
    };
  };

/** Energy of a small beverage unit, kWh for a cubic metre of permeate, and what its membrane lasts with soft feed and hard, years. */
const BEVERAGE_KWH = 1.5;
const BEVERAGE_YEARS = { soft: 2.5, hard: 1.5 } as const;
const beverage = (choice: Choice): Plan => {
  const size = choice['softener'];
  const softened = size !== 'none';
  const large = choice['unit'] === 'large';
  const ice = choice['iceFilter'] === true;
  const ranks: VesselRank[] = [{ vessels: large ? 2 : 1, elementsPerVessel: 1 }];
  return {
    ...NOTHING,
    route: 'membrane',
    membrane: {
      elementClass: 'household200',
      ranks,
      pump: { ...BOOSTER, kW: 0, heldFeedLPerH: null },
      recovery: Number(choice['recovery']),
      softened,
    },
    membraneChange: { part: 'beverageMembrane', count: large ? 1.6 : 1, years: softened ? BEVERAGE_YEARS.soft : BEVERAGE_YEARS.hard },
    carbon: { blocks: 2, litresEach: CARBON_L, chloramine: false },
    scale: softened ? 'softener' : 'nothing',
    softener: size === 'small' ? SMALL_SOFTENER : softened ? SOFTENER : null,
    // It comes with a tank of its own.
    blends: true,
    widthMm: 500 + (softened ? VESSEL_MM : 0),
    parts: [['beverageUnit', large ? 1.3 : 1], ...(softened ? ([['softener', size === 'small' ? 0.8 : 1]] as const) : [])],
    upkeep: [
      { line: 'prefilters', part: 'beverageFilters', count: 1, timesAYear: 2 },
      ...(ice ? [{ line: 'prefilters', part: 'polishFilter', count: 1, timesAYear: 2 } as const] : []),
    ],
    kWhPerM3: BEVERAGE_KWH,
  };
};

/** Ranks of a skid as its array is named: vessels of each rank. */
const arrayNamed = (name: string): VesselRank[] => name.split(':').map((vessels) => ({ vessels: Number(vessels), elementsPerVessel: 1 }));
/** What a skid leads back, as litres an hour that meet a first vessel. */
const SKID_FEED = { none: null, some: 1500, much: 2400 } as const;
const skid = (choice: Choice): Plan => {
  const elementClass = choice['element'] as ElementClass;
  const ranks = arrayNamed(String(choice['array']));
  const softened = choice['pretreatment'] === 'softener';
  const polisher = String(choice['polisher']);
  const electro = polisher === 'electro';
  const resin: PlannedResin | null =
    polisher === 'single'
      ? { beds: 1, litresEach: 40, inSeries: false, priceFactor: 1 }
      : polisher === 'leadAndLag'
        ? { beds: 2, litresEach: 40, inSeries: true, priceFactor: 1 }
        : null;
  const perVessel = SKID_FEED[choice['recycle'] as keyof typeof SKID_FEED];
  const degassed = choice['degassing'] === true;
  const uv = choice['uv'] === true;
  return {
    ...NOTHING,
    route: routeOf(true, resin),
    membrane: {
      elementClass,
      ranks,
      pump: { bar: 9, kW: 1.5, part: 'skidPump', heldFeedLPerH: perVessel === null ? null : perVessel * ranks[0]!.vessels },
      recovery: Number(choice['recovery']),
      softened,
    },
    membraneChange: { part: elementClass, count: elementCount(ranks), years: null },
    resin,
    carbon: { blocks: 1, litresEach: 60, chloramine: false },
    scale: choice['pretreatment'] === 'inhibitor' ? 'inhibitor' : softened ? 'softener' : 'nothing',
    softener: softened ? { ...SOFTENER, volumeL: 4 * SOFTENER.volumeL } : null,
    degassed,
    tankL: Number(choice['tankL']),
    widthMm: 800 + elementCount(ranks) * 100 + bedsWidth(resin) + (softened ? 500 : 0) + (degassed ? 300 : 0),
    parts: [
      ['frame', 6],
      ['filterHousing', 3],
      [elementClass, elementCount(ranks)],
      ['housing4', elementCount(ranks)],
      ['skidPump', 1],
      ...(softened ? ([['softener', 3]] as const) : []),
      ...(degassed ? ([['degasser', 1]] as const) : []),
      ...(electro ? ([['electro', 1]] as const) : []),
      ...(uv ? ([['uvUnit', 1]] as const) : []),
      ...bedParts(resin),
    ],
    upkeep: [
      { line: 'prefilters', part: 'sediment', count: 2, timesAYear: LARGE_PREFILTERS_A_YEAR },
      { line: 'carbon', part: 'carbonBlock', count: 4, timesAYear: 1 },
      ...(choice['pretreatment'] === 'inhibitor' ? [{ line: 'prefilters', part: 'inhibitor', count: 2, timesAYear: 4 } as const] : []),
      ...(uv ? [{ line: 'prefilters', part: 'uvLamp', count: 1, timesAYear: 1 } as const] : []),
    ],
    // What an electric deioniser takes for a cubic metre (common practice).
    kWhPerM3: electro ? 0.4 : 0,
  };
};

const SEA_PUMPS = { small: 400, middle: 700, large: 1200 } as const;
/** Pump and motor of a seawater set together. */
const SEA_EFFICIENCY = 0.75;
const seaSet = (choice: Choice): Plan => {
  const elementClass = choice['element'] as ElementClass;
  const ranks = [{ vessels: 1, elementsPerVessel: Number(choice['number']) }];
  const bar = Number(choice['pressureBar']);
  const heldFeedLPerH = SEA_PUMPS[choice['pump'] as keyof typeof SEA_PUMPS];
  const flush = choice['flush'] === true;
  return {
    ...NOTHING,
    route: 'membrane',
    membrane: {
      elementClass,
      ranks,
      pump: { bar, kW: (bar * heldFeedLPerH) / 36_000 / SEA_EFFICIENCY, part: 'highPressurePump', heldFeedLPerH },
      recovery: null,
      softened: false,
    },
    membraneChange: { part: elementClass, count: elementCount(ranks), years: null },
    tankL: Number(choice['tankL']),
    widthMm: 400 + elementCount(ranks) * LARGE_MM[diameter(elementClass)],
    parts: [
      ['frame', 2],
      ['filterHousing', flush ? 3 : 2],
      [elementClass, elementCount(ranks)],
      ['seaHousing', elementCount(ranks)],
      ['highPressurePump', 1],
      ...(choice['energyRecovery'] ? ([['energyRecovery', 1]] as const) : []),
    ],
    upkeep: [
      { line: 'prefilters', part: 'sediment', count: 2, timesAYear: LARGE_PREFILTERS_A_YEAR },
      ...(flush ? [{ line: 'carbon', part: 'carbonBlock', count: 1, timesAYear: 2 } as const] : []),
    ],
    energyRecovery: choice['energyRecovery'] ? 0.7 : 0,
  };
};

/** What of a job is narrower than its whole space: the values left to an axis. */
export type Kept = Readonly<Record<string, readonly (string | number | boolean)[] | undefined>>;
const narrowed = (axes: readonly Axis[], kept: Kept): Axis[] =>
  axes.map(({ id, values }) => ({ id, values: kept[id] ? values.filter((value) => kept[id]!.includes(value)) : values }));

/** Small membranes in a van or a shop: the largest of them, and vessels of resin behind. */
const SMALL_IN_VAN: readonly Axis[] = [
  { id: 'element', values: ['household150', 'household200', 'household200Wide'] },
  ...JOB_AXES.marine.filter(({ id }) => ['number', 'booster', 'carbon'].includes(id)),
  { id: 'wasteToProduct', values: [1, 2, 3, 4] },
  { id: 'resin', values: ['none', '1.2', '7', '11'] },
  { id: 'tankL', values: [0, 250, 400, 650] },
];
const RESIN_AT_HOME: readonly Axis[] = [
  { id: 'vesselL', values: ['1.2', '2x1.2', '7', '11'] },
  { id: 'tankL', values: [0, 60, 120, 200] },
];

/** What a job's plans need to know of the water and the goal. */
export interface JobWater {
  /** What uses a carbon up, mg/L of free chlorine. */
  readonly carbonMgL: number;
  /** Share led past a cartridge so that the goal stands. */
  readonly bypass: number;
}

/** The spaces of a job: its own axes, with resin alone beside a membrane, and cartridges beside a counter's unit. */
export function spacesOf(job: Job, { carbonMgL, bypass }: JobWater, kept: Kept = {}): Space[] {
  const space = (id: string, axes: readonly Axis[], planOf: Space['planOf']): Space => ({
    id,
    axes: narrowed(axes, kept),
    behind: 2,
    planOf,
  });
  const cartridges = space(
    'cartridge',
    [{ id: 'size', values: [1, 2, 3, 4, 5] }, ...JOB_AXES.espresso.filter(({ id }) => id === 'prefilter')],
    withCartridge(bypass),
  );
  switch (job) {
    case 'marine':
      return [space('membrane', JOB_AXES.marine, household(carbonMgL)), space('resin', RESIN_AT_HOME, resinAtHome(carbonMgL))];
    case 'breeder':
      return [space('membrane', JOB_AXES.breeder, household(carbonMgL))];
    case 'resinAlone':
      return [space('resin', JOB_AXES.resinAlone, resinVessels)];
    case 'window':
      return [
        space('membrane', JOB_AXES.window, onTheCart()),
        space('small', SMALL_IN_VAN, household(carbonMgL)),
        space('resin', JOB_AXES.resinAlone, resinVessels),
      ];
    case 'espresso':
      return [cartridges];
    case 'counter':
      return [
        space(
          'membrane',
          JOB_AXES.counter.filter(({ id }) => !['blend', 'espresso', 'tankL'].includes(id)),
          beverage,
        ),
        cartridges,
      ];
    case 'laboratory':
      return [space('membrane', JOB_AXES.laboratory, skid)];
    case 'watermaker':
      return [space('membrane', JOB_AXES.watermaker, seaSet)];
  }
}
