import { CARBON_MEDIA, ELEMENT_CLASSES, RESIN_CLASSES, type Source, type Stage } from '@yes-clear/core/file';
import { RESIN_ROWS } from '@yes-clear/core/exchange';
import { ELEMENT_ROWS } from '@yes-clear/core/membrane';
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
export function stageFields(stage: Stage, source: Pick<Source, 'linePressureBar'>): StageFields {
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
      const restrictor = (part: 'lengthMm' | 'boreMm') => (value: number) => ({
        stage: { restrictor: { ...stage.restrictor, [part]: value } } as Partial<Stage>,
      });
      const { lengthMm, boreMm } = stage.restrictor;
      return {
        choices: [
          choice('Element class', ELEMENTS, stage.elementClass, 'elementClass'),
          choice('Arrangement', ARRANGEMENTS, stage.arrangement, 'arrangement'),
        ],
        quantities: [
          {
            label: 'Line pressure',
            dimension: 'pressureBar',
            value: source.linePressureBar,
            change: (linePressureBar) => ({ source: { linePressureBar } }),
          },
          {
            label: 'Restrictor length',
            dimension: 'lengthMm',
            unit: 'cm',
            low: 10,
            high: 2000,
            value: lengthMm,
            change: restrictor('lengthMm'),
          },
          { label: 'Restrictor bore', dimension: 'lengthMm', unit: 'mm', low: 0.2, high: 3, value: boreMm, change: restrictor('boreMm') },
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
