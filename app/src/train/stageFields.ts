import { CARBON_MEDIA, ELEMENT_CLASSES, RESIN_CLASSES, type Source, type Stage, type StageOf } from '@yes-clear/core/file';
import { RESIN_ROWS } from '@yes-clear/core/exchange';
import { ELEMENT_ROWS, kvForFlow, type UnitFlows } from '@yes-clear/core/membrane';
import type { Dimension } from '@yes-clear/core/quantity';

/** One quantity of a stage: where it is read, and the change that writes it. */
export interface QuantitySpec {
  readonly label: string;
  readonly dimension: Dimension;
  readonly unit?: string;
  readonly low?: number;
  readonly high?: number;
  readonly value: number;
  /** Folded away until asked for. */
  readonly advanced?: boolean;
  readonly change: (value: number) => { readonly stage: Partial<Stage> } | { readonly source: Partial<Source> };
}

/** One choice of a stage. */
export interface ChoiceSpec {
  readonly label: string;
  readonly items: readonly { readonly title: string; readonly value: string }[];
  readonly value: string;
  readonly change: (value: string) => Partial<Stage>;
}

export interface StageFields {
  readonly choices: readonly ChoiceSpec[];
  readonly quantities: readonly QuantitySpec[];
}

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
const PUMPS = [
  { title: 'Booster, diaphragm', value: 'booster' },
  { title: 'Centrifugal, multistage', value: 'centrifugal' },
  { title: 'Piston, fixed flow', value: 'displacement' },
];
/** What a pump starts with when its kind is chosen. */
const PUMP_START: Record<string, StageOf<'pump'>['pump']> = {
  booster: { kind: 'booster', riseBar: 8, openFlowLPerH: 120, bypassBar: 5.5 },
  centrifugal: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 1 },
  displacement: { kind: 'displacement', flowLPerH: 700, reliefBar: 65 },
};
/** What is known of the unit as it runs. */
export type RunningUnit = Pick<UnitFlows, 'concentrateLPerH' | 'concentratePressureBar' | 'recovery' | 'noProduction'>;
/** A waste control that holds the unit where it stands: changing the kind moves nothing. */
function controlAt(kind: string, unit: RunningUnit | null): StageOf<'membrane'>['valve'] {
  const running = unit && !unit.noProduction ? unit : { concentrateLPerH: 60, concentratePressureBar: 4, recovery: 0.2 };
  const { concentrateLPerH, concentratePressureBar, recovery } = running;
  switch (kind) {
    case 'needle':
      return { kind: 'needle', kvM3PerH: Number(kvForFlow(concentrateLPerH, Math.max(0.1, concentratePressureBar)).toPrecision(3)) };
    case 'pressure':
      return { kind: 'pressure', bar: Math.max(0.1, Number(concentratePressureBar.toPrecision(3))) };
    case 'recovery':
      return { kind: 'recovery', recovery: Math.max(0.01, Number(recovery.toPrecision(3))) };
    default:
      return null;
  }
}
/** Two vessels feeding two: the usual skid. */
const FIRST_RANKS: StageOf<'membrane'>['ranks'] = [
  { vessels: 2, elementsPerVessel: 1 },
  { vessels: 2, elementsPerVessel: 1 },
];
const RESINS = RESIN_CLASSES.map((value) => ({ title: RESIN_ROWS[value].label, value }));
const MEDIA = CARBON_MEDIA.map((value) => ({ title: value === 'block' ? 'Carbon block' : 'Granular carbon', value }));

/** Writes one key of a stage. */
const into =
  (key: string) =>
  (value: number | string): { readonly stage: Partial<Stage> } => ({ stage: { [key]: value } as Partial<Stage> });
const choice = (label: string, items: ChoiceSpec['items'], value: string, key: string): ChoiceSpec => ({
  label,
  items,
  value,
  change: (chosen) => into(key)(chosen).stage,
});

/** The fields that matter for a stage, in the order a hand would want them. */
export function stageFields(stage: Stage, source: Pick<Source, 'linePressureBar'>, unit: RunningUnit | null = null): StageFields {
  switch (stage.kind) {
    case 'sediment':
      return {
        choices: [],
        quantities: [
          { label: 'Pore size, µm', dimension: 'count', low: 0.1, high: 200, value: stage.micron, change: into('micron') },
          ...filterFields(stage),
        ],
      };
    case 'carbon':
      return {
        choices: [choice('Medium', MEDIA, stage.medium, 'medium')],
        quantities: [
          {
            label: 'Volume of carbon',
            dimension: 'volumeL',
            unit: 'L',
            low: 0.05,
            high: 1000,
            value: stage.volumeL,
            change: into('volumeL'),
          },
          { label: 'Rated for', dimension: 'volumeL', low: 1, high: 10_000_000, value: stage.ratedL, change: into('ratedL') },
          ...filterFields(stage),
        ],
      };
    case 'membrane': {
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
          ...(stage.valve ? [] : restrictorFields(stage)),
          {
            label: 'Led back before the pump',
            dimension: 'flowLPerH',
            value: stage.recycleLPerH,
            change: into('recycleLPerH'),
            advanced: true,
          },
          {
            label: 'Feed led past the membrane',
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
            change: into('saltFactor'),
            advanced: true,
          },
        ],
      };
    }
    case 'pump':
      return {
        choices: [
          {
            label: 'Kind of pump',
            items: PUMPS,
            value: stage.pump.kind,
            change: (value) => ({ pump: PUMP_START[value] }) as Partial<Stage>,
          },
        ],
        quantities: pumpFields(stage),
      };
    case 'resin':
      return {
        choices: [choice('Resin', RESINS, stage.resinClass, 'resinClass')],
        quantities: [
          {
            label: 'Volume of resin',
            dimension: 'volumeL',
            unit: 'L',
            low: 0.05,
            high: 1000,
            value: stage.volumeL,
            change: into('volumeL'),
          },
          {
            label: 'Depth of the bed',
            dimension: 'lengthMm',
            unit: 'cm',
            low: 50,
            high: 3000,
            value: stage.depthMm,
            change: into('depthMm'),
          },
          {
            label: 'Packing (90 tight, 75 loose)',
            dimension: 'fraction',
            unit: '%',
            low: 0.5,
            high: 1,
            value: stage.packing,
            change: into('packing'),
          },
        ],
      };
    case 'tubing':
      return {
        choices: [],
        quantities: [
          { label: 'Inner bore', dimension: 'lengthMm', unit: 'mm', low: 1, high: 100, value: stage.boreMm, change: into('boreMm') },
          {
            label: 'Length',
            dimension: 'lengthMm',
            unit: 'm',
            high: 1_000_000,
            value: stage.lengthM * 1000,
            change: (mm) => ({ stage: { lengthM: mm / 1000 } as Partial<Stage> }),
          },
          {
            label: 'Climbs by',
            dimension: 'lengthMm',
            unit: 'm',
            low: -50_000,
            high: 50_000,
            value: stage.riseM * 1000,
            change: (mm) => ({ stage: { riseM: mm / 1000 } as Partial<Stage> }),
          },
        ],
      };
    case 'tank':
      return {
        choices: [],
        quantities: [
          { label: 'Volume', dimension: 'volumeL', low: 0.1, high: 100_000, value: stage.volumeL, change: into('volumeL') },
          {
            label: 'Height above the unit',
            dimension: 'lengthMm',
            unit: 'm',
            high: 50_000,
            value: stage.liftM * 1000,
            change: (mm) => ({ stage: { liftM: mm / 1000 } as Partial<Stage> }),
          },
        ],
      };
  }
}

/** What every cartridge filter has. */
function filterFields(stage: { readonly loading: number; readonly cleanLossBar: number }): QuantitySpec[] {
  return [
    { label: 'Clogged by', dimension: 'fraction', unit: '%', high: 0.95, value: stage.loading, change: into('loading') },
    { label: 'Loss when clean, 1 gal/min', dimension: 'pressureBar', high: 1, value: stage.cleanLossBar, change: into('cleanLossBar') },
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

/** What a pump's label or curve gives. */
function pumpFields({ pump }: StageOf<'pump'>): QuantitySpec[] {
  const set = (changes: object) => ({ stage: { pump: { ...pump, ...changes } } as Partial<Stage> });
  switch (pump.kind) {
    case 'booster':
      return [
        { label: 'Rise at no flow', dimension: 'pressureBar', low: 0.1, value: pump.riseBar, change: (riseBar) => set({ riseBar }) },
        {
          label: 'Flow at no rise',
          dimension: 'flowLPerH',
          low: 1,
          value: pump.openFlowLPerH,
          change: (openFlowLPerH) => set({ openFlowLPerH }),
        },
        { label: 'Bypass opens at', dimension: 'pressureBar', low: 0.1, value: pump.bypassBar, change: (bypassBar) => set({ bypassBar }) },
      ];
    case 'centrifugal':
      return [
        {
          label: 'Pressure at no flow',
          dimension: 'pressureBar',
          low: 0.1,
          value: pump.shutOffBar,
          change: (shutOffBar) => set({ shutOffBar }),
        },
        { label: 'Rated flow', dimension: 'flowLPerH', low: 1, value: pump.atLPerH, change: (atLPerH) => set({ atLPerH }) },
        { label: 'Pressure at rated flow', dimension: 'pressureBar', value: pump.atBar, change: (atBar) => set({ atBar }) },
        { label: 'Speed', dimension: 'fraction', unit: '%', low: 0.2, high: 1.3, value: pump.speed, change: (speed) => set({ speed }) },
      ];
    case 'displacement':
      return [
        { label: 'Flow', dimension: 'flowLPerH', low: 0.1, value: pump.flowLPerH, change: (flowLPerH) => set({ flowLPerH }) },
        {
          label: 'Relief valve opens at',
          dimension: 'pressureBar',
          low: 0.1,
          value: pump.reliefBar,
          change: (reliefBar) => set({ reliefBar }),
        },
      ];
  }
}
