import { z } from 'zod';
import { inSentence, measured, formatQuantity } from '../quantity';
import { quantity, type StageQuantity } from './field';
import {
  allPasses,
  anyStage,
  asFitted,
  defineStage,
  fitted,
  neverOpen,
  none,
  unchanged,
  zero,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { MAINS, type Caution, seen } from './step';

const booster = z.strictObject({
  kind: z.literal('booster'),
  riseBar: measured('pressureBar', 0.1, 100),
  openFlowLPerH: measured('flowLPerH', 1, 100_000),
  bypassBar: measured('pressureBar', 0.1, 100),
});
const centrifugal = z.strictObject({
  kind: z.literal('centrifugal'),
  shutOffBar: measured('pressureBar', 0.1, 100),
  atLPerH: measured('flowLPerH', 1, 100_000),
  atBar: measured('pressureBar', 0, 100),
  speed: measured('fraction', 0.2, 1.3),
});
const displacement = z.strictObject({
  kind: z.literal('displacement'),
  flowLPerH: measured('flowLPerH', 0.1, 100_000),
  reliefBar: measured('pressureBar', 0.1, 100),
  /** Share of the waste's pressure that a recovery device gives back; 0 without one. */
  energyRecovery: measured('fraction', 0, 0.98),
});
const schema = z.strictObject({
  kind: z.literal('pump'),
  ...anyStage,
  pump: z.discriminatedUnion('kind', [booster, centrifugal, displacement]),
  ...fitted,
});
type Pump = z.infer<typeof schema>;

const KINDS = [
  { title: 'Booster, diaphragm', value: 'booster' },
  { title: 'Centrifugal, multistage', value: 'centrifugal' },
  { title: 'Piston, fixed flow', value: 'displacement' },
];
/** What a pump starts with when its kind is chosen. */
const START: { readonly [K in Pump['pump']['kind']]: Extract<Pump['pump'], { kind: K }> } = {
  booster: { kind: 'booster', riseBar: 8, openFlowLPerH: 120, bypassBar: 5.5 },
  centrifugal: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 1 },
  displacement: { kind: 'displacement', flowLPerH: 700, reliefBar: 65, energyRecovery: 0 },
};
const isKind = (value: string): value is keyof typeof START => value in START;

/** A booster for a household moves no more than this, L/h; larger ones are pumps of a cart. */
const SMALL_BOOSTER_L_PER_H = 1000;
const isSmallBooster = (pump: Pump['pump']): boolean => pump.kind === 'booster' && pump.openFlowLPerH <= SMALL_BOOSTER_L_PER_H;

export const HIGH_PRESSURE: Caution = {
  title: 'High pressure cuts',
  text: 'Hoses and fittings must burst only above four times the working pressure. A relief valve must be fitted. Never feel for a leak with a finger.',
};

/** What a pump's label or curve gives. */
function labelFields(stage: Pump): StageQuantity<Pump>[] {
  const { pump } = stage;
  switch (pump.kind) {
    case 'booster': {
      const set = (changes: Partial<typeof pump>): Pump => ({ ...stage, pump: { ...pump, ...changes } });
      const { shape } = booster;
      return [
        quantity('Rise at no flow', shape.riseBar, pump.riseBar, (riseBar) => set({ riseBar })),
        quantity('Flow at no rise', shape.openFlowLPerH, pump.openFlowLPerH, (openFlowLPerH) => set({ openFlowLPerH })),
        quantity('Bypass opens at', shape.bypassBar, pump.bypassBar, (bypassBar) => set({ bypassBar })),
      ];
    }
    case 'centrifugal': {
      const set = (changes: Partial<typeof pump>): Pump => ({ ...stage, pump: { ...pump, ...changes } });
      const { shape } = centrifugal;
      return [
        quantity('Pressure at no flow', shape.shutOffBar, pump.shutOffBar, (shutOffBar) => set({ shutOffBar })),
        quantity('Rated flow', shape.atLPerH, pump.atLPerH, (atLPerH) => set({ atLPerH })),
        quantity('Pressure at rated flow', shape.atBar, pump.atBar, (atBar) => set({ atBar })),
        quantity('Speed', shape.speed, pump.speed, (speed) => set({ speed }), { unit: '%' }),
      ];
    }
    case 'displacement': {
      const set = (changes: Partial<typeof pump>): Pump => ({ ...stage, pump: { ...pump, ...changes } });
      const { shape } = displacement;
      return [
        quantity('Flow', shape.flowLPerH, pump.flowLPerH, (flowLPerH) => set({ flowLPerH })),
        quantity('Relief valve opens at', shape.reliefBar, pump.reliefBar, (reliefBar) => set({ reliefBar })),
        quantity('Waste pressure given back', shape.energyRecovery, pump.energyRecovery, (energyRecovery) => set({ energyRecovery }), {
          unit: '%',
        }),
      ];
    }
  }
}

/** Hoses on the pressure side are rated so many times the working pressure (common practice). */
const HOSE_FACTOR = 4;

export const pump = defineStage(schema, {
  kind: 'pump',
  label: 'Pump before a membrane',
  says: 'Gives the membrane more pressure',
  place: 5,
  defaults: { kind: 'pump', name: 'Booster pump', pump: START.booster, fittedOn: null },
  variants: [
    {
      id: 'lift',
      label: 'Lift pump',
      says: 'Brings the feed to the filters',
      where: 'first',
      changes: { name: 'Lift pump', pump: { kind: 'centrifugal', shutOffBar: 2.5, atLPerH: 1500, atBar: 1.5, speed: 1 } },
    },
    {
      id: 'distribution',
      label: 'Distribution pump',
      says: 'Sends product from the tank to its outlets',
      where: 'last',
      changes: { name: 'Distribution pump', pump: { kind: 'centrifugal', shutOffBar: 4.5, atLPerH: 2000, atBar: 3, speed: 1 } },
    },
  ],
  form: 'machine',
  touches: () => 'nothing',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: unchanged,
  // What it gives is solved with the membrane it feeds.
  slopeBar: zero,
  riseBar: zero,
  breaksPressure: neverOpen,
  mounting: ({ pump: { kind } }) => (kind === 'booster' ? { wetKg: 2.5, wallM: 0.2 } : { wetKg: 28, wallM: 0.45 }),
  price: ({ pump: { kind } }, { boosterPump }) => (kind === 'booster' ? boosterPump : null),
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: ({ pump }, prices) => {
    if (isSmallBooster(pump)) return prices.boosterPump;
    if (pump.kind !== 'displacement') return prices.piece(pump.kind === 'centrifugal' ? 'skidPump' : 'cartPump');
    return prices.piece('highPressurePump') + (pump.energyRecovery > 0 ? prices.piece('energyRecovery') : 0);
  },
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: ({ id, name, pump: own }, { units }) => {
    const boat = own.kind === 'displacement';
    const text = (bar: number): string => formatQuantity(bar, 'pressureBar', units).text;
    return [
      ...(boat
        ? ([
            {
              id: `hoses-${id}`,
              act: 'hoses',
              place: 'connect',
              title: `Check every hose behind ${inSentence(name)} for ${text(HOSE_FACTOR * own.reliefBar)}`,
              how: `Rated ${HOSE_FACTOR} times the ${text(own.reliefBar)} its relief valve opens at, for a hose in the sun and under vibration ages fast; twice is asked where steel pipe does not move. Fittings of the same rating, no kink, nothing that rubs.`,
              minutes: 10,
              cautions: [HIGH_PRESSURE],
              measures: [
                seen(
                  'rated',
                  'Every hose and fitting carries that rating',
                  'Replace it before any pressure is put on: a hose that lets go whips.',
                ),
              ],
            },
            {
              id: `relief-${id}`,
              act: 'reliefFree',
              place: 'pressure',
              title: 'See that the relief valve is free',
              how: 'Lift it by hand if it can be. Its outlet is open and leads overboard, away from hands. It is never plugged, never set higher than its maker did.',
              minutes: 5,
              cautions: [HIGH_PRESSURE],
              measures: [seen('free', 'Free, and its outlet open', 'Without it the pump must not be started: exchange the valve.')],
            },
          ] as const)
        : []),
      {
        id: `pump-${id}`,
        act: 'prime',
        place: 'pressure',
        title: `Fit and prime ${inSentence(name)}`,
        how: boat
          ? 'Fill it and bleed the air with its valve wide open. It must never run dry, nor against a closed valve.'
          : 'Fill it before it starts, check which way it turns, and fit a low-pressure switch before it.',
        minutes: 20,
        cautions: boat ? [MAINS, HIGH_PRESSURE] : [MAINS],
        measures: boat
          ? [seen('primed', 'Water stands in it and no air comes', 'Bleed on; look for a leak on the suction side.')]
          : [
              seen(
                'switch',
                'Feed shut off, the low-pressure switch stops it',
                'Do not leave it running: a pump that runs dry is dead in minutes. Check the wiring of the switch.',
              ),
            ],
      },
    ];
  },
  plumbed: ({ pump: own }) => ({
    ...threaded(isSmallBooster(own) ? '3/8' : own.kind === 'displacement' ? '1/2' : '1'),
    powered: true,
  }),
  tools: none,
  partGroup: 'pumps',
  parts: ({ name, pump: own }, { prices, units }) => {
    const text = (bar: number): string => formatQuantity(bar, 'pressureBar', units).text;
    if (own.kind === 'booster')
      return [
        { part: 'booster-pump', name: 'Booster pump with its transformer', why: 'one', count: 1, each: prices.boosterPump },
        { part: 'low-pressure-switch', name: 'Low-pressure switch', why: 'stops it when the feed is shut', count: 1 },
        { part: 'high-pressure-switch', name: 'High-pressure switch', why: 'stops it when the tank is full', count: 1 },
      ];
    if (own.kind === 'centrifugal')
      return [
        {
          part: `pump-${own.atLPerH}-${own.atBar}`,
          name: `${name}, ${formatQuantity(own.atLPerH, 'flowLPerH', units).text} at ${text(own.atBar)}`,
          why: 'one',
          count: 1,
        },
        { part: 'low-pressure-switch', name: 'Low-pressure switch', why: 'stops it when the feed is shut', count: 1 },
        { part: 'throttle-valve', name: 'Throttle valve behind the pump', why: 'one of the three that are dialled', count: 1 },
      ];
    return [
      {
        part: `pump-hp-${own.flowLPerH}`,
        name: `${name}, ${formatQuantity(own.flowLPerH, 'flowLPerH', units).text}`,
        why: 'one',
        count: 1,
      },
      { part: 'relief-valve', name: `Relief valve, opens at ${text(own.reliefBar)}`, why: 'never plugged', count: 1 },
      {
        part: 'hp-hose',
        name: `High-pressure hose rated ${text(HOSE_FACTOR * own.reliefBar)}`,
        why: `${HOSE_FACTOR} times the relief pressure; pump to vessel, vessel to valve`,
        count: 2,
        unit: 'm',
      },
      { part: 'one-way-valve', name: 'One-way valve', why: 'before the pump, and where flush water joins', count: 2 },
    ];
  },
  upkeep: none,
  faults: ({ pump: { kind } }) => (kind === 'displacement' ? ['pumpSlip', 'reliefLeak', 'airLeak'] : ['pumpWeak', 'airLeak']),
  wears: { years: 5, causes: ['pumpWeak', 'pumpSlip'] },
  raises: ['airLeak', 'reliefLeak'],
  findings: none,
  facts: none,
  fill: zero,
  fields: (stage) => ({
    choices: [
      {
        label: 'Kind of pump',
        items: KINDS,
        value: stage.pump.kind,
        write: (value) => ({ stage: isKind(value) ? { ...stage, pump: START[value] } : stage }),
      },
    ],
    quantities: labelFields(stage),
  }),
  folded: 'More',
});
