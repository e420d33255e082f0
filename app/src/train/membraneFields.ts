import { ELEMENT_CLASSES, type Source, type Stage, type StageOf } from '@yes-clear/core/file';
import { boreFromRating, ELEMENT_ROWS, restrictorFlowLPerH, valveHolding, type UnitFlows } from '@yes-clear/core/membrane';
import { BAR_PER_PSI } from '@yes-clear/core/quantity';
import { inSentence } from '@yes-clear/core/train';
import { choice, into, type ChoiceSpec, type QuantitySpec, type StageFields } from './fieldSpec';

const ELEMENTS = ELEMENT_CLASSES.map((value) => ({ title: `${value} · ${ELEMENT_ROWS[value].nominalFlowGpd} gal/day`, value }));
const ARRANGEMENTS = [
  { title: 'One element', value: 'single' },
  { title: 'Two in series on the waste', value: 'series' },
  { title: 'Two side by side', value: 'parallel' },
  { title: 'Vessels in ranks', value: 'array' },
];
const WASTE_CONTROLS = [
  { title: 'Waste through a restrictor', value: 'restrictor' },
  { title: 'Waste through a needle valve', value: 'needle' },
  { title: 'Waste held at a pressure', value: 'pressure' },
  { title: 'Waste valve set to a recovery', value: 'recovery' },
];

/** What is known of the unit as it runs. */
export type RunningUnit = Pick<UnitFlows, 'concentrateLPerH' | 'concentratePressureBar' | 'recovery' | 'noProduction'>;
/** A waste control that holds the unit where it stands: changing the kind moves nothing. */
function controlAt(kind: string, unit: RunningUnit | null): StageOf<'membrane'>['valve'] {
  const running = unit && !unit.noProduction ? unit : { concentrateLPerH: 60, concentratePressureBar: 4, recovery: 0.2 };
  return kind === 'needle' || kind === 'pressure' || kind === 'recovery' ? valveHolding(kind, running) : null;
}
/** Two vessels feeding two: the usual skid. */
const FIRST_RANKS: StageOf<'membrane'>['ranks'] = [
  { vessels: 2, elementsPerVessel: 1 },
  { vessels: 2, elementsPerVessel: 1 },
];

/** A stage ahead of the one whose fields are asked for. */
export type Ahead = Pick<Stage, 'id' | 'name' | 'kind'>;

/** Element, arrangement and waste control first; recycle, bypass and ageing folded. */
export function membraneFields(
  stage: StageOf<'membrane'>,
  source: Pick<Source, 'linePressureBar'>,
  unit: RunningUnit | null,
  ahead: readonly Ahead[],
): StageFields {
  return {
    choices: [
      choice('Element class', ELEMENTS, stage.elementClass, 'elementClass'),
      {
        label: 'Arrangement',
        items: ARRANGEMENTS,
        value: stage.arrangement,
        change: (value) =>
          ({ arrangement: value, ...(value === 'array' && stage.ranks.length === 0 ? { ranks: FIRST_RANKS } : {}) }) as Partial<Stage>,
      },
      {
        label: 'Waste control',
        items: WASTE_CONTROLS,
        value: stage.valve?.kind ?? 'restrictor',
        change: (value) => ({ valve: controlAt(value, unit) }) as Partial<Stage>,
      },
      ...takenFrom(stage, ahead.slice(ahead.findLastIndex(({ kind }) => kind === 'membrane') + 1)),
      ...secondPass(stage, ahead),
    ],
    quantities: [
      {
        label: 'Line pressure',
        dimension: 'pressureBar',
        value: source.linePressureBar,
        change: (linePressureBar) => ({ source: { linePressureBar } }),
      },
      ...rankFields(stage),
      ...valveFields(stage),
      ...(stage.valve ? [] : [...ratingField(stage), ...restrictorFields(stage)]),
      recycleField(stage),
      {
        label: 'Led past the membrane',
        dimension: 'fraction',
        unit: '%',
        high: 0.9,
        value: stage.bypassShare,
        change: into('bypassShare'),
        advanced: true,
      },
      {
        label: 'Output against new',
        dimension: 'fraction',
        unit: '%',
        low: 0.05,
        high: 5,
        value: stage.waterFactor,
        optional: { empty: 'by age', clear: into('waterFactor')(null) },
        change: into('waterFactor'),
        advanced: true,
      },
      {
        label: 'Salt passage against new',
        dimension: 'fraction',
        unit: '%',
        low: 0.05,
        high: 100,
        value: stage.saltFactor,
        optional: { empty: 'by age', clear: into('saltFactor')(null) },
        change: into('saltFactor'),
        advanced: true,
      },
    ],
  };
}

/** What is led back: a flow, or the opening of the valve that sets it. */
const recycleField = (stage: StageOf<'membrane'>): QuantitySpec =>
  stage.recycleKv === null
    ? {
        label: 'Led back before the pump',
        dimension: 'flowLPerH',
        value: stage.recycleLPerH,
        change: into('recycleLPerH'),
        advanced: true,
      }
    : {
        label: 'Recycle valve Kv, m³/h',
        dimension: 'count',
        low: 0.0001,
        high: 100,
        value: stage.recycleKv,
        optional: { empty: 'by flow', clear: into('recycleKv')(null) },
        change: into('recycleKv'),
        advanced: true,
      };

/** Where the water led past is taken off, once any is: a softener in between leaves it its hardness. */
function takenFrom({ bypassShare, bypassAfter }: StageOf<'membrane'>, ahead: readonly Ahead[]): ChoiceSpec[] {
  if (bypassShare === 0 || ahead.length < 2) return [];
  const places = ahead.slice(0, -1).map(({ id, name }) => ({ title: `Led past from behind ${inSentence(name)}`, value: id }));
  return [
    {
      label: 'Led past from',
      items: [{ title: 'Led past from right before it', value: '' }, ...places],
      value: places.some(({ value }) => value === bypassAfter) ? bypassAfter! : '',
      change: (value) => ({ bypassAfter: value || null }) as Partial<Stage>,
    },
  ];
}

const PASS_WASTE = [
  { title: 'Its waste to the drain', value: 'drain' },
  { title: 'Its waste before the first pump', value: 'back' },
];

/** A second pass wastes water cleaner than the tap: it may go back to the first. */
const secondPass = ({ wasteToFirstPass }: StageOf<'membrane'>, ahead: readonly Ahead[]): ChoiceSpec[] =>
  ahead.some(({ kind }) => kind === 'membrane')
    ? [
        {
          label: 'Waste of the second pass',
          items: PASS_WASTE,
          value: wasteToFirstPass ? 'back' : 'drain',
          change: (value) => ({ wasteToFirstPass: value === 'back' }) as Partial<Stage>,
        },
      ]
    : [];

/** What restrictors are rated at: 60 psi and 25 °C (common practice). */
const RATED = { bar: 60 * BAR_PER_PSI, temperatureC: 25 } as const;

/** Bores the file takes, a hair inside its limits so that a bore found from a rating stays within them. */
const BORE_MM = { low: 0.2 * (1 + 1e-6), high: 3 * (1 - 1e-6) } as const;

/** What the restrictor would pass at its rating; another rating is another bore of the same length. */
function ratingField({ restrictor }: StageOf<'membrane'>): QuantitySpec[] {
  const { lengthMm } = restrictor;
  const ratedWith = (boreMm: number): number | null => {
    const flow = restrictorFlowLPerH({ lengthMm, boreMm }, RATED.bar, RATED.temperatureC);
    return flow.ok ? flow.value : null;
  };
  const [value, low, high] = [restrictor.boreMm, BORE_MM.low, BORE_MM.high].map(ratedWith);
  if (value == null || low == null || high == null) return [];
  return [
    {
      label: 'Restrictor, rated at 60 psi',
      dimension: 'flowLPerH',
      unit: 'mL/min',
      low,
      high,
      value,
      change: (flowLPerH) => {
        const bore = boreFromRating(flowLPerH, RATED.bar, lengthMm, RATED.temperatureC);
        return { stage: { restrictor: { lengthMm, boreMm: bore.ok ? bore.value : restrictor.boreMm } } as Partial<Stage> };
      },
    },
  ];
}

/** Length and bore of the tube in the waste line. */
function restrictorFields({ restrictor }: StageOf<'membrane'>): QuantitySpec[] {
  const set = (part: 'lengthMm' | 'boreMm') => (value: number) => ({
    stage: { restrictor: { ...restrictor, [part]: value } } as Partial<Stage>,
  });
  const { lengthMm, boreMm } = restrictor;
  return [
    { label: 'Restrictor length', dimension: 'lengthMm', unit: 'cm', low: 10, high: 2000, value: lengthMm, change: set('lengthMm') },
    { label: 'Restrictor bore', dimension: 'lengthMm', unit: 'mm', low: 0.2, high: 3, value: boreMm, change: set('boreMm') },
  ];
}

/** Vessels and elements of each rank of an array. */
function rankFields({ arrangement, ranks }: StageOf<'membrane'>): QuantitySpec[] {
  if (arrangement !== 'array') return [];
  const set = (i: number, key: 'vessels' | 'elementsPerVessel') => (value: number) => ({
    stage: { ranks: ranks.map((rank, k) => (k === i ? { ...rank, [key]: Math.round(value) } : rank)) } as Partial<Stage>,
  });
  return ranks.flatMap((rank, i): QuantitySpec[] => [
    { label: `Rank ${i + 1}, vessels`, dimension: 'count', low: 1, high: 40, value: rank.vessels, change: set(i, 'vessels') },
    {
      label: `Rank ${i + 1}, elements in each`,
      dimension: 'count',
      low: 1,
      high: 8,
      value: rank.elementsPerVessel,
      change: set(i, 'elementsPerVessel'),
    },
  ]);
}

/** What a waste valve is set by. */
function valveFields({ valve }: StageOf<'membrane'>): QuantitySpec[] {
  if (!valve) return [];
  const set = (changes: object) => ({ stage: { valve: { ...valve, ...changes } } as Partial<Stage> });
  switch (valve.kind) {
    case 'needle':
      return [
        {
          label: 'Opening Kv, m³/h',
          dimension: 'count',
          low: 0.0001,
          high: 100,
          value: valve.kvM3PerH,
          change: (kvM3PerH) => set({ kvM3PerH }),
        },
      ];
    case 'pressure':
      return [{ label: 'Pressure at the valve', dimension: 'pressureBar', low: 0.1, value: valve.bar, change: (bar) => set({ bar }) }];
    case 'recovery':
      return [
        {
          label: 'Recovery',
          dimension: 'fraction',
          unit: '%',
          low: 0.01,
          high: 0.95,
          value: valve.recovery,
          change: (recovery) => set({ recovery }),
        },
      ];
  }
}
