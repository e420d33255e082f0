import { z } from 'zod';
import { formatQuantity, inSentence, maybe, measured, ok, words, type UnitPreference } from '../quantity';
import type { BladderTank } from '../storage';
import { openToAir } from '../water';
import { BAR_PER_METRE } from './cartridge';
import { keysOf } from './field';
import { allPasses, anyStage, asFitted, defineStage, none, zero, inAndOut, keepsAll, holdsNothing } from './kind';
import type { PartEntry } from './part';
import { PRODUCT_OPEN, seen, type Caution, type StepEntry } from './step';

const schema = z.strictObject({
  kind: z.literal('tank'),
  ...anyStage,
  volumeL: measured('volumeL', 0.1, 100_000),
  liftM: measured('lengthMm', 0, 50, 1000),
  openToAir: z.boolean(),
  /** Gas pressure of a closed tank when it is empty; null where no gas pushes back. */
  prechargeBar: maybe(measured('pressureBar', 0, 10)),
  /** Shares of its volume at which the float starts and stops the unit. */
  startShare: measured('fraction', 0, 1),
  stopShare: measured('fraction', 0, 1),
});
export type Tank = z.infer<typeof schema>;
const field = keysOf<Tank>(schema.shape);

/** A float that starts the unit at 60 % and stops it at 90 % (our default). */
export const FLOAT_SHARES = { startShare: 0.6, stopShare: 0.9 } as const;
/** Gas pressure a bladder tank comes with (common practice: about 7 psi). */
const USUAL_PRECHARGE_BAR = 0.5;
/** Hole for a float valve with quarter-inch fittings (common practice: 7/16 in). */
export const FLOAT_HOLE_MM = 11;
/** How full a tank is drawn: its level is not known. */
const DRAWN_FULL = 0.7;

const KINDS = [
  { title: 'Open to the air, with a float', value: 'open' },
  { title: 'Closed, with a float', value: 'closed' },
  { title: 'Closed, with gas that pushes', value: 'gas' },
];
const FLOAT: Caution = {
  title: 'A tank needs a float valve',
  text: 'Without an automatic shut-off somebody floods the room. Set and try it before the tank is full.',
};

const levelSwitches = (why: string): PartEntry => ({ part: 'level-switches', name: 'Level switch, low and high', why, count: 1 });

/** A tank behind a pump that pushes on: its level stops the pump or leads the product away, and never shuts it in. */
function levelSteps(stage: Tank, to: 'overboard' | 'drain', units: UnitPreference, flowLPerH: number): StepEntry[] {
  const the = inSentence(stage.name);
  const away = to === 'overboard' ? 'overboard' : 'to the drain';
  return [
    {
      id: `tank-${stage.id}`,
      act: 'fitFloat',
      place: 'store',
      title: `Fit what stops the filling of the ${the}`,
      how: `A level switch that stops the pump, or a valve that sends the product ${away}. No float valve in the product line: it would shut it in.`,
      minutes: 20,
      cautions: [FLOAT, PRODUCT_OPEN],
    },
    {
      id: `float-${stage.id}`,
      act: 'tryFloat',
      place: 'store',
      title: `Try the level switch of the ${the} before it is full`,
      before: 'It is fitted, and the product has a way out.',
      how: `Lift its float by hand while the pump runs: the pump stops, or the product runs ${away}. The product line stays open.`,
      minutes: 5,
      cautions: [PRODUCT_OPEN, FLOAT],
      measures: [
        seen(
          'stops',
          `Lifted by hand, the pump stopped or the product ran ${away}`,
          'Stop the pump by its own switch. Nobody leaves it running: look at the wiring of the switch, or which way its valve stands.',
        ),
      ],
    },
    {
      id: `fill-${stage.id}`,
      act: 'fill',
      place: 'store',
      title: `Let water into the ${the}`,
      before: 'Its level switch was tried.',
      how: `Product from its sample outlet into the tank, without shutting it for a moment. Stay until a hand of water stands in it and every joint is dry.${fillsIn(stage, flowLPerH, units)}`,
      minutes: 10,
      cautions: [PRODUCT_OPEN, FLOAT],
    },
  ];
}

/** The gas in a closed tank, as the storage room takes it; null where none pushes back. */
export const gasOf = ({ openToAir: open, prechargeBar, volumeL }: Tank): BladderTank | null =>
  !open && prechargeBar !== null ? { gasL: volumeL, prechargeBar } : null;

/** How long the tank takes to be full, where water comes at all. */
const fillsIn = ({ volumeL, stopShare }: Tank, flowLPerH: number, units: UnitPreference): string =>
  flowLPerH > 0 ? ` It is full in about ${words(units).hours((volumeL * stopShare) / flowLPerH)}.` : '';

/** A larger tank is not shut by a small float valve but by its switches (our judgement), L. */
const FLOAT_MOST_L = 600;

export const tank = defineStage(schema, {
  kind: 'tank',
  label: 'Tank',
  says: 'Keeps water for the draw',
  place: 12,
  defaults: { kind: 'tank', name: 'Tank', volumeL: 100, liftM: 0, openToAir: true, prechargeBar: null, ...FLOAT_SHARES },
  form: 'tank',
  touches: () => 'traces',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: (stage, { water }) => {
    if (!stage.openToAir) return ok({ water });
    const open = openToAir(water);
    return open.ok ? ok({ water: open.value }) : open;
  },
  slopeBar: zero,
  riseBar: ({ liftM }) => liftM * BAR_PER_METRE,
  breaksPressure: ({ openToAir: open }) => open,
  // A kilogram a litre, and a twentieth for the tank; it stands on the floor.
  mounting: ({ volumeL }) => ({ wetKg: 1.05 * volumeL, wallM: 0 }),
  price: ({ volumeL }, { tankPerL }) => volumeL * tankPerL,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: ({ volumeL }, { tankPerL }) => volumeL * tankPerL,
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: (stage, { units, standing, pushedTo }) => {
    const { id, name, prechargeBar } = stage;
    const the = inSentence(name);
    if (gasOf(stage))
      return [
        {
          id: `charge-${id}`,
          act: 'charge',
          place: 'store',
          title: `Charge the gas of the ${the} to ${formatQuantity(prechargeBar!, 'pressureBar', units).text}`,
          before: 'It is empty and its valve open: a full tank reads the water, not the gas.',
          how: 'A tyre gauge at the cap on its back; air in with a hand pump, out with a pin.',
          minutes: 10,
          cautions: [FLOAT],
          measures: [
            {
              id: 'charge',
              label: 'Gas pressure, empty',
              dimension: 'pressureBar',
              expected: prechargeBar,
              low: prechargeBar! - 0.1,
              high: prechargeBar! + 0.1,
              doubt: { share: 0.02, least: 0.03 },
              because: 'as it was planned; a tenth of a bar either way',
              ifLow: 'Pump air in. Water at the gas cap: the bladder is torn, the tank is exchanged.',
              ifHigh: 'Let air out with a pin: a tank charged too high holds little.',
            },
          ],
        },
        {
          id: `shutoff-${id}`,
          act: 'tryFloat',
          place: 'store',
          title: `See that the unit stops when the ${the} is full`,
          before: 'Its gas is charged.',
          how:
            pushedTo === null
              ? 'Let it fill and watch waste and product: both must stop within minutes of each other.'
              : 'Let it fill: its pressure switch must stop the pump before anything shuts the product in.',
          minutes: 60,
          waits: true,
          cautions: pushedTo === null ? [FLOAT] : [PRODUCT_OPEN, FLOAT],
          measures: [
            seen(
              'stops',
              'Waste and product have stopped',
              'The automatic shut-off leaks or stands the wrong way round; until it holds, the unit is shut by hand.',
            ),
          ],
        },
      ];
    if (pushedTo !== null) return levelSteps(stage, pushedTo, units, standing?.before.flowLPerH ?? 0);
    return [
      {
        id: `tank-${id}`,
        act: 'fitFloat',
        place: 'store',
        title: `Fit the float valve of the ${the}`,
        how: `A hole of about ${formatQuantity(FLOAT_HOLE_MM, 'lengthMm', { ...units, length: units.length === 'in' ? 'in' : 'mm' }).text} for quarter-inch fittings, above the full level, with room under the lid.`,
        minutes: 20,
        cautions: [FLOAT],
      },
      {
        id: `float-${id}`,
        act: 'tryFloat',
        place: 'store',
        title: `Try the float of the ${the} before it is full`,
        before: 'It is fitted, and the tank stands level.',
        how: 'Lift the float by hand while water runs: the flow must stop, and the waste soon after it.',
        minutes: 5,
        cautions: [FLOAT],
        measures: [
          seen('stops', 'Lifted by hand, the flow stops', 'Nobody leaves it running: turn the valve over, free its arm, exchange it.'),
        ],
      },
      {
        id: `fill-${id}`,
        act: 'fill',
        place: 'store',
        title: `Let water into the ${the}`,
        before: 'Its float was tried.',
        how: `Product off the drain and into the tank. Stay until a hand of water stands in it and every joint is dry.${fillsIn(stage, standing?.before.flowLPerH ?? 0, units)}`,
        minutes: 10,
        cautions: [FLOAT],
      },
    ];
  },
  plumbed: inAndOut,
  tools: (stage) =>
    gasOf(stage)
      ? ['Tyre gauge and hand pump']
      : stage.openToAir && stage.volumeL <= FLOAT_MOST_L
        ? [`${FLOAT_HOLE_MM}\u202fmm drill for the float valve`]
        : [],
  partGroup: 'tanks',
  parts: (stage, { prices, units, pushed }) => [
    {
      part: `tank-${stage.volumeL}-${stage.openToAir ? 'open' : 'closed'}`,
      name: `${stage.openToAir ? 'Tank with a lid' : gasOf(stage) ? 'Bladder tank' : 'Closed tank'}, ${formatQuantity(stage.volumeL, 'volumeL', units).text}`,
      why: 'one',
      count: 1,
      each: stage.volumeL * prices.tankPerL,
    },
    ...(gasOf(stage)
      ? [{ part: 'tank-valve', name: 'Tank valve', why: 'shuts the tank off', count: 1 }]
      : stage.volumeL > FLOAT_MOST_L
        ? [
            levelSwitches('stops and starts what fills it'),
            { part: 'bulkhead-wide', name: 'Bulkhead fitting for its inlet', why: 'above the full level', count: 1 },
          ]
        : [
            pushed
              ? levelSwitches('stops the pump: the product is never shut in')
              : { part: 'float-valve', name: 'Float valve', why: 'shuts off by itself', count: 1 },
            {
              part: 'bulkhead',
              name: 'Bulkhead fitting',
              why: `one hole of about ${formatQuantity(FLOAT_HOLE_MM, 'lengthMm', { ...units, length: 'mm' }).text}, above the full level`,
              count: 1,
            },
          ]),
  ],
  upkeep: none,
  faults: () => ['shutoff', 'shortCycle', 'shutClosed', 'backPressure'],
  wears: null,
  raises: ['backPressure', 'shutClosed'],
  findings: none,
  facts: ({ float, bladder, units }) => [
    ...(float
      ? ([
          ['Starts a day', float.startsPerDay.toFixed(1)],
          ['Runs a day', words(units).hours(float.runHoursPerDay)],
        ] as const)
      : []),
    ...(bladder
      ? ([
          ['Holds', formatQuantity(bladder.heldL, 'volumeL', units).text],
          ['Fills in', words(units).hours(bladder.hours)],
        ] as const)
      : []),
  ],
  fill: () => DRAWN_FULL,
  fields: (stage) => ({
    choices: [
      {
        label: 'Kind of tank',
        items: KINDS,
        value: stage.openToAir ? 'open' : stage.prechargeBar === null ? 'closed' : 'gas',
        write: (value) => ({
          stage: { ...stage, openToAir: value === 'open', prechargeBar: value === 'gas' ? USUAL_PRECHARGE_BAR : null },
        }),
      },
    ],
    quantities: [
      field.quantity(stage, 'volumeL', 'Volume'),
      field.quantity(stage, 'liftM', 'Height above the unit', { unit: 'm' }),
      ...(gasOf(stage)
        ? [field.quantity(stage, 'prechargeBar', 'Gas pressure when empty')]
        : [
            field.quantity(stage, 'startShare', 'Float starts the unit at', { unit: '%', folded: true }),
            field.quantity(stage, 'stopShare', 'Float stops it at', { unit: '%', folded: true }),
          ]),
    ],
  }),
  folded: 'Float',
});
