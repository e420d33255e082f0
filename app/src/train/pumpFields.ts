import type { Stage, StageOf } from '@yes-clear/core/file';
import type { QuantitySpec, StageFields } from './fieldSpec';

const PUMPS = [
  { title: 'Booster, diaphragm', value: 'booster' },
  { title: 'Centrifugal, multistage', value: 'centrifugal' },
  { title: 'Piston, fixed flow', value: 'displacement' },
];
/** What a pump starts with when its kind is chosen. */
const PUMP_START: Record<string, StageOf<'pump'>['pump']> = {
  booster: { kind: 'booster', riseBar: 8, openFlowLPerH: 120, bypassBar: 5.5 },
  centrifugal: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 1 },
  displacement: { kind: 'displacement', flowLPerH: 700, reliefBar: 65, energyRecovery: 0 },
};

/** The kind of a pump, and what belongs to that kind. */
export function pumpStageFields(stage: StageOf<'pump'>): StageFields {
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
        {
          label: 'Waste pressure given back',
          dimension: 'fraction',
          unit: '%',
          high: 0.98,
          value: pump.energyRecovery,
          change: (energyRecovery) => set({ energyRecovery }),
        },
      ];
  }
}
