import { CARBON_MEDIA, RESIN_CLASSES, type Source, type Stage } from '@yes-clear/core/file';
import { RESIN_ROWS } from '@yes-clear/core/exchange';
import { choice, into, type QuantitySpec, type StageFields } from './fieldSpec';
import { membraneFields, type Ahead, type RunningUnit } from './membraneFields';
import { pumpStageFields } from './pumpFields';

/** Gas pressure a bladder tank comes with (common practice: about 7 psi). */
const USUAL_PRECHARGE_BAR = 0.5;
const TANKS = [
  { title: 'Open to the air, with a float', value: 'open' },
  { title: 'Closed, with a float', value: 'closed' },
  { title: 'Closed, with gas that pushes', value: 'gas' },
];
const RESINS = RESIN_CLASSES.map((value) => ({ title: RESIN_ROWS[value].label, value }));
const MEDIA = CARBON_MEDIA.map((value) => ({ title: value === 'block' ? 'Carbon block' : 'Granular carbon', value }));

/** The fields that matter for a stage, in the order a hand would want them. */
export function stageFields(
  stage: Stage,
  source: Pick<Source, 'linePressureBar'>,
  unit: RunningUnit | null = null,
  ahead: readonly Ahead[] = [],
): StageFields {
  switch (stage.kind) {
    case 'sediment':
      return {
        choices: [],
        quantities: [
          { label: 'Pore size, µm', dimension: 'count', low: 0.1, high: 200, value: stage.micron, change: into('micron') },
          ...filterFields(stage),
          {
            label: 'Dirt it holds, g',
            dimension: 'count',
            low: 0.1,
            high: 10_000,
            value: stage.holdsG,
            change: into('holdsG'),
            advanced: true,
          },
        ],
      };
    case 'carbon':
      return {
        choices: [choice('Medium', MEDIA, stage.medium, 'medium')],
        quantities: [
          fillVolume('Volume of carbon', stage.volumeL),
          { label: 'Rated for', dimension: 'volumeL', low: 1, high: 10_000_000, value: stage.ratedL, change: into('ratedL') },
          ...filterFields(stage),
        ],
      };
    case 'membrane':
      return membraneFields(stage, source, unit, ahead);
    case 'pump':
      return pumpStageFields(stage);
    case 'resin':
      return {
        choices: [choice('Resin', RESINS, stage.resinClass, 'resinClass')],
        quantities: [
          fillVolume('Volume of resin', stage.volumeL),
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
          metres('Length', 'lengthM', stage.lengthM, 0, 1_000_000),
          metres('Climbs by', 'riseM', stage.riseM, -50_000, 50_000),
        ],
      };
    case 'softener':
      return {
        choices: [],
        quantities: [
          fillVolume('Volume of resin', stage.volumeL),
          {
            label: 'Salt for a litre of resin, g',
            dimension: 'count',
            low: 48,
            high: 321,
            value: stage.saltGPerL,
            change: into('saltGPerL'),
          },
          {
            label: 'Kept in reserve',
            dimension: 'fraction',
            unit: '%',
            high: 0.5,
            value: stage.reserveShare,
            change: into('reserveShare'),
          },
        ],
      };
    case 'decarboniser':
      return {
        choices: [],
        quantities: [
          { label: 'Bypass', dimension: 'fraction', unit: '%', high: 1, value: stage.bypass, change: into('bypass') },
          fillVolume('Volume of resin', stage.volumeL),
          { label: 'Capacity, eq', dimension: 'count', low: 0.01, high: 10_000, value: stage.capacityEq, change: into('capacityEq') },
          {
            label: 'Magnesium for calcium',
            dimension: 'fraction',
            unit: '%',
            high: 0.7,
            value: stage.magnesiumShare,
            change: into('magnesiumShare'),
            advanced: true,
          },
          {
            label: 'Lane lets through',
            dimension: 'fraction',
            unit: '%',
            high: 0.1,
            value: stage.leak,
            change: into('leak'),
            advanced: true,
          },
        ],
      };
    case 'inhibitor':
      return {
        choices: [],
        quantities: [
          { label: 'Phosphate dosed', dimension: 'concentrationMgL', low: 0.1, high: 20, value: stage.doseMgL, change: into('doseMgL') },
        ],
      };
    case 'calcite':
      return { choices: [], quantities: [fillVolume('Volume of calcite', stage.volumeL)] };
    case 'uv':
      return {
        choices: [],
        quantities: [
          {
            label: 'Intensity, mW/cm²',
            dimension: 'count',
            low: 0.1,
            high: 1000,
            value: stage.intensityMWPerCm2,
            change: into('intensityMWPerCm2'),
          },
          { ...fillVolume('Chamber', stage.chamberL), change: into('chamberL') },
        ],
      };
    case 'tank':
      return {
        choices: [
          {
            label: 'Kind of tank',
            items: TANKS,
            value: stage.openToAir ? 'open' : stage.prechargeBar === null ? 'closed' : 'gas',
            change: (value) =>
              ({ openToAir: value === 'open', prechargeBar: value === 'gas' ? USUAL_PRECHARGE_BAR : null }) as Partial<Stage>,
          },
        ],
        quantities: [
          { label: 'Volume', dimension: 'volumeL', low: 0.1, high: 100_000, value: stage.volumeL, change: into('volumeL') },
          metres('Height above the unit', 'liftM', stage.liftM, 0, 50_000),
          ...(stage.prechargeBar === null || stage.openToAir
            ? [
                shareField('Float starts the unit at', 'startShare', stage.startShare),
                shareField('Float stops it at', 'stopShare', stage.stopShare),
              ]
            : [
                {
                  label: 'Gas pressure when empty',
                  dimension: 'pressureBar' as const,
                  high: 10,
                  value: stage.prechargeBar,
                  change: into('prechargeBar'),
                },
              ]),
        ],
      };
  }
}

/** A share of the tank. */
const shareField = (label: string, key: 'startShare' | 'stopShare', value: number): QuantitySpec => ({
  label,
  dimension: 'fraction',
  unit: '%',
  high: 1,
  value,
  change: into(key),
  advanced: true,
});

/** Litres of carbon or resin. */
const fillVolume = (label: string, value: number): QuantitySpec => ({
  label,
  dimension: 'volumeL',
  unit: 'L',
  low: 0.05,
  high: 1000,
  value,
  change: into('volumeL'),
});

/** A length kept in metres; fields count lengths in mm. */
const metres = (label: string, key: 'lengthM' | 'riseM' | 'liftM', value: number, low: number, high: number): QuantitySpec => ({
  label,
  dimension: 'lengthMm',
  unit: 'm',
  low,
  high,
  value: value * 1000,
  change: (mm) => into(key)(mm / 1000),
});

/** What every cartridge filter has. */
function filterFields(stage: { readonly kind: string; readonly loading: number | null; readonly cleanLossBar: number }): QuantitySpec[] {
  const byLog = stage.kind === 'sediment' ? { optional: { empty: 'by the log', clear: into('loading')(null) } } : {};
  return [
    { label: 'Clogged by', dimension: 'fraction', unit: '%', high: 0.95, value: stage.loading, change: into('loading'), ...byLog },
    { label: 'Loss when clean, 1 gal/min', dimension: 'pressureBar', high: 1, value: stage.cleanLossBar, change: into('cleanLossBar') },
  ];
}
