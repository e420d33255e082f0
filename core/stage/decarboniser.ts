import { z } from 'zod';
import { decarbonised, flushL, meterPresetL, ratedCapacityEq, ratingAgrees, type DecarbonisingCartridge } from '../exchange';
import { GOAL_ROWS } from '../goal';
import { hardnessOf } from '../water';
import { between, DAYS_PER_MONTH, inSentence, maybe, measured, ok, THIN, words, formatQuantity } from '../quantity';
import { cartridgeSlopeBar, mineralCartridge, ONE_DROP_MGL, CARTRIDGE_CLEARANCE_MM, HOUSING_BAR } from './cartridge';
import { keysOf, quantity, type StageQuantity } from './field';
import type { Finding } from './finding';
import {
  allPasses,
  anyStage,
  asFitted,
  defineStage,
  fitted,
  neverOpen,
  none,
  zero,
  type Standing,
  type WaterAt,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { SCALD, seen, type Measure } from './step';

const schema = z.strictObject({
  kind: z.literal('decarboniser'),
  ...anyStage,
  volumeL: measured('volumeL', 0.05, 1000),
  /** What its box prints: so many litres at a carbonate hardness and a setting; null where nobody has typed it. */
  box: z.strictObject({
    litres: maybe(measured('volumeL', 1, 1_000_000)),
    hardnessMgL: maybe(measured('hardnessMgL', 1, 2000)),
    bypass: maybe(measured('fraction', 0, 0.95)),
  }),
  /** Where it is known in another way; null: by its box, or as its resin usually holds. */
  capacityEq: maybe(measured('equivalents', 0.01, 10_000)),
  bypass: measured('fraction', 0, 1),
  leak: measured('fraction', 0, 0.1),
  magnesiumShare: measured('fraction', 0, 0.7),
  /** It gives sodium for all hardness, and leaves alkalinity. */
  softens: z.boolean(),
  /** What is printed at its dial, where it has steps. */
  settings: z.array(z.strictObject({ label: z.string().max(12), bypass: between(0, 1) })).max(20),
  /** Its maker's table: up to a hardness this setting, which makes so many litres. */
  table: z
    .array(
      z.strictObject({
        hardnessMgL: measured('hardnessMgL', 1, 2000),
        label: z.string().max(12),
        litres: maybe(measured('volumeL', 1, 1_000_000)),
      }),
    )
    .max(40),
  /** What hardness box and table speak of. */
  hardnessIs: z.enum(['carbonate', 'total']),
  /** Whether it carries carbon as well; null where nobody has said. */
  withCarbon: maybe(z.boolean()),
  /** Whether somebody wants a meter of litres at it. */
  litresMeter: z.boolean(),
  ...fitted,
});
export type Decarboniser = z.infer<typeof schema>;
const field = keysOf<Decarboniser>(schema.shape);

/** Cartridges that take lime, and those that give magnesium for part of the calcium. */
const KINDS = [
  { value: 'lime', title: 'Takes lime' },
  { value: 'magnesium', title: 'Magnesium for calcium' },
  { value: 'sodium', title: 'Softens: sodium for hardness' },
];
const HARDNESS_IS = [
  { value: 'carbonate', title: 'Carbonate hardness' },
  { value: 'total', title: 'Total hardness' },
];
const CARRIES = [
  { value: 'unsaid', title: 'Carbon in it: not said' },
  { value: 'yes', title: 'Carries carbon' },
  { value: 'no', title: 'No carbon in it' },
];
const METER = [
  { value: 'no', title: 'No meter of litres' },
  { value: 'yes', title: 'Meter of litres' },
];
/** Free chlorine that the carbon of a cartridge lets by while it lasts (common practice: a twentieth). */
const CARBON_LEAVES = 0.05;
/** Share of the calcium such a cartridge gives magnesium for (common practice: a third to a half). */
const USUAL_MAGNESIUM = 0.4;

/** What a litre of such resin holds where no box says more, eq (our assumption: 1.3 to 3.1). */
const USUAL_EQ_PER_L = 2.2;
/** How far the litres may be off: by a box, and by what is usual (our judgement). */
const DOUBTS = { known: 0.1, total: 0.25, usual: 0.4 } as const;

/** Capacity of a cartridge, and how far it may be off as a share of it. */
export interface CartridgeCapacity {
  readonly capacityEq: number;
  readonly doubt: number;
  /** Nobody typed what its box prints. */
  readonly assumed: boolean;
}
/** What a capacity is told by. */
type Rated = Pick<Decarboniser, 'box' | 'capacityEq' | 'volumeL' | 'table' | 'settings' | 'hardnessIs'>;
/** Hardness of the water that meets it, as box and table speak of it, mg/L as CaCO3. */
export const hardnessFor = ({ hardnessIs }: Pick<Decarboniser, 'hardnessIs'>, { water }: Pick<WaterAt, 'water'>): number => {
  const total = hardnessOf(water.mgL);
  return hardnessIs === 'total' ? total : Math.min(total, water.alkalinityMgL);
};
/** The row of its maker's table for a hardness: the first that reaches so far, the last for what is harder; null without a table. */
export const tableRow = ({ table }: Pick<Decarboniser, 'table'>, hardnessMgL: number): Decarboniser['table'][number] | null =>
  [...table].sort((a, b) => a.hardnessMgL - b.hardnessMgL).find((row) => row.hardnessMgL >= hardnessMgL) ?? table.at(-1) ?? null;
/** Share past it at a setting by its label; null where nobody typed that. */
export const settingShare = ({ settings }: Pick<Decarboniser, 'settings'>, label: string): number | null =>
  settings.find((one) => one.label === label)?.bypass ?? null;

/** @param hardnessMgL of the water, where the row of its table should speak for it */
export function cartridgeCapacity(stage: Rated, hardnessMgL: number | null = null): CartridgeCapacity {
  const { box, capacityEq, volumeL, hardnessIs } = stage;
  const row = hardnessMgL === null ? null : tableRow(stage, hardnessMgL);
  const share = row && settingShare(stage, row.label);
  // A row whose setting nobody typed the share of says nothing: the box does.
  const { litres, hardnessMgL: at, bypass } = row?.litres && share !== null ? { ...row, bypass: share } : box;
  const printed = litres !== null && at !== null && bypass !== null ? ratedCapacityEq(litres, at, bypass) : null;
  const known = printed ?? capacityEq;
  if (known === null) return { capacityEq: USUAL_EQ_PER_L * volumeL, doubt: DOUBTS.usual, assumed: true };
  // Litres at a total hardness are of a water nobody printed the alkalinity of.
  return { capacityEq: known, doubt: printed !== null && hardnessIs === 'total' ? DOUBTS.total : DOUBTS.known, assumed: false };
}
/** The cartridge as the exchange room takes it, on a water where that is said. */
export const exchanging = (stage: Decarboniser, before: Pick<WaterAt, 'water'> | null = null): DecarbonisingCartridge => ({
  ...stage,
  capacityEq: cartridgeCapacity(stage, before && hardnessFor(stage, before)).capacityEq,
});
/** Acid that attacks brass and copper below this. */
const LEAST_PH = 6.3;
/** Steps of a usual dial: a tenth of the water (common practice). */
const DIAL_STEP = 0.1;
/** Months after which a cartridge is changed whatever its litres (common practice). */
const CARTRIDGE_MONTHS = 12;
/** Hardness tied to alkalinity up to which such cartridges are made, mg/L (our reading of usual charts). */
const MADE_FOR_MGL = 430;
/** Alkalinity below which the cup turns sour (common practice). */
const FLAT_MGL = 20;

/** What a decarbonising cartridge does: litres, the meter's figure, and which comes first. */
export interface CartridgeLife {
  /** Null when nothing uses it up. */
  readonly litres: number | null;
  readonly presetL: number | null;
  readonly months: number;
  readonly by: 'capacity' | 'time';
  /** Its box is not typed: the litres are of a usual resin, and the meter is set to their lower end. */
  readonly assumed: boolean;
}

/** How long a cartridge lasts on the water that meets it; null where its blend cannot be worked out. */
export function cartridgeLife({
  stage,
  before,
  litresPerDay,
}: Pick<Standing<Decarboniser>, 'stage' | 'before' | 'litresPerDay'>): CartridgeLife | null {
  const { assumed, doubt } = cartridgeCapacity(stage, hardnessFor(stage, before));
  const blend = decarbonised(before.water, exchanging(stage, before), stage.bypass);
  if (!blend.ok) return null;
  const { until } = blend.value;
  if (until.kind === 'unlimited') return { litres: null, presetL: null, months: CARTRIDGE_MONTHS, by: 'time', assumed };
  const { litres } = until;
  const presetL = meterPresetL(doubt > DOUBTS.known ? (1 - doubt) * litres : litres);
  const months = litresPerDay > 0 ? presetL / litresPerDay / DAYS_PER_MONTH : Infinity;
  return months < CARTRIDGE_MONTHS
    ? { litres, presetL, months, by: 'capacity', assumed }
    : { litres, presetL, months: CARTRIDGE_MONTHS, by: 'time', assumed };
}

function findings(standing: Standing<Decarboniser>): Finding[] {
  const { stage, before, after, goal, units, litresPerDay } = standing;
  const say = words(units);
  const life = cartridgeLife(standing);
  const found: Finding[] = [];
  if (stage.bypass >= 1)
    found.push({
      id: `bypass-${stage.id}`,
      severity: 'mind',
      title: `All water goes past ${inSentence(stage.name)}: bypass 100${THIN}%`,
      why: 'It treats nothing and is never spent. Close the dial, or take it out.',
    });
  else if (life?.litres)
    found.push({
      id: `cartridge-${stage.id}`,
      severity: life.months < 1 ? 'mind' : 'note',
      title: life.assumed
        ? `${stage.name} lasts about ${say.about(life.litres, 'volumeL')}: what its box prints is not typed`
        : `${stage.name} lasts ${say.of(life.litres, 'volumeL')}: ${stage.litresMeter ? 'set its meter to' : 'change it after'} ${say.of(life.presetL!, 'volumeL')}`,
      why: `${life.assumed ? `Of a usual resin, and ±${Math.round(100 * DOUBTS.usual)}${THIN}%: until the box is typed the lower end counts, ${say.about(life.presetL!, 'volumeL')}. ` : ''}${life.by === 'capacity' ? `At ${say.perDay(litresPerDay)} that is ${say.days(life.months * DAYS_PER_MONTH)}` : 'A year comes first: change it after 12 months'}. Flush ${say.of(flushL(stage.volumeL), 'volumeL')} before use.`,
    });
  const carbonate = Math.min(before.state.alkalinityMgL, before.state.hardnessMgL);
  if (carbonate > MADE_FOR_MGL)
    found.push({
      id: `toohard-${stage.id}`,
      severity: 'bad',
      title: `${say.of(carbonate, 'hardnessMgL')} of carbonate hardness is more than such cartridges are made for`,
      why: `Up to about ${say.of(MADE_FOR_MGL, 'hardnessMgL')}. Soften or use a membrane before it.`,
    });
  if (after.state.pH < LEAST_PH && stage.bypass < 1)
    found.push({
      id: `acid-${stage.id}`,
      severity: 'mind',
      title: `pH ${after.state.pH.toFixed(1)} behind ${inSentence(stage.name)}, before the CO₂ leaves`,
      why: `Below ${LEAST_PH} brass and copper suffer. A higher bypass, or a cartridge that gives magnesium.`,
    });
  if (!stage.softens && before.state.alkalinityMgL > before.state.hardnessMgL + 5)
    found.push({
      id: `soda-${stage.id}`,
      severity: 'mind',
      title: `Alkalinity ${say.of(before.state.alkalinityMgL, 'alkalinityMgL')} is more than hardness ${say.of(before.state.hardnessMgL, 'hardnessMgL')}`,
      why: 'This water was softened: the cartridge takes what hardness there is and leaves sodium bicarbonate.',
    });
  const { capacityEq } = cartridgeCapacity(stage, hardnessFor(stage, before));
  if (!ratingAgrees(capacityEq, stage.volumeL))
    found.push({
      id: `rating-${stage.id}`,
      severity: 'mind',
      title: `${(capacityEq / stage.volumeL).toFixed(1)}${THIN}eq in a litre of resin: rating and volume do not agree`,
      why: 'Such resin holds 1 to 4. Look at the label again.',
    });
  if (GOAL_ROWS[goal.id].heatedC !== null && after.state.alkalinityMgL < FLAT_MGL)
    found.push({
      id: `flat-${stage.id}`,
      severity: 'mind',
      title: `Only ${say.of(after.state.alkalinityMgL, 'alkalinityMgL')} of alkalinity is left`,
      why: 'The cup turns sour and the boiler corrodes. Open the bypass.',
    });
  return found;
}

/** What a box prints, as it is asked for; nothing is filled in for the person. */
const BOX = [
  { key: 'litres', label: 'Litres', unit: null },
  { key: 'hardnessMgL', label: 'at a carbonate hardness of', unit: null },
  { key: 'bypass', label: 'with so much past it', unit: '%' },
] as const;
export const boxFields = (stage: Decarboniser, litres: string = BOX[0].label): StageQuantity<Decarboniser>[] =>
  BOX.map(({ label, key, unit }) => {
    const set = (value: number | null): Decarboniser => ({ ...stage, box: { ...stage.box, [key]: value } });
    return quantity(key === 'litres' ? litres : label, schema.shape.box.shape[key], stage.box[key], set, {
      ...(unit ? { unit } : {}),
      empty: { says: 'not typed', stage: set(null) },
    });
  });

/** A cartridge that takes hardness tied to alkalinity, with a bypass dial. */
export const decarboniser = defineStage(schema, {
  kind: 'decarboniser',
  label: 'Decarbonising cartridge',
  says: 'Takes lime, with a bypass dial',
  place: 9,
  defaults: {
    kind: 'decarboniser',
    name: 'Decarbonising cartridge',
    volumeL: 4,
    box: { litres: null, hardnessMgL: null, bypass: null },
    capacityEq: null,
    bypass: 0.3,
    leak: 0.03,
    magnesiumShare: 0,
    softens: false,
    settings: [],
    table: [],
    hardnessIs: 'carbonate',
    withCarbon: null,
    litresMeter: false,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: () => 'minerals',
  prefilter: false,
  inUses: true,
  holdsScale: holdsNothing,
  treat: (stage, { water }) => {
    const blend = decarbonised(water, exchanging(stage), stage.bypass);
    if (!blend.ok) return blend;
    const { mgL } = blend.value.water;
    return ok({
      water: stage.withCarbon ? { ...blend.value.water, mgL: { ...mgL, chlorine: CARBON_LEAVES * mgL.chlorine } } : blend.value.water,
    });
  },
  slopeBar: cartridgeSlopeBar,
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: mineralCartridge,
  price: ({ volumeL }, { cartridgePerL }) => volumeL * cartridgePerL,
  costLine: 'cartridges',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('bypassHead'),
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: (stage, { units, standing }) => {
    const { id, name, bypass, volumeL } = stage;
    const say = words(units);
    const drop = { share: 0.05, least: ONE_DROP_MGL / 2 };
    const within = (mgL: number): Pick<Measure, 'expected' | 'low' | 'high' | 'doubt'> => ({
      expected: mgL,
      low: mgL - Math.max(ONE_DROP_MGL, 0.15 * mgL),
      high: mgL + Math.max(ONE_DROP_MGL, 0.15 * mgL),
      doubt: drop,
    });
    const preset = standing ? (cartridgeLife(standing)?.presetL ?? null) : null;
    return [
      {
        id: `cartridge-${id}`,
        act: 'flushCartridge',
        place: 'cartridges',
        title: `Flush ${inSentence(name)}, ${say.of(flushL(volumeL), 'volumeL')}`,
        how: `To the drain, until it runs clear. Leave ${say.of(CARTRIDGE_CLEARANCE_MM, 'lengthMm')} under it to take it out.`,
        minutes: 10,
        cautions: [SCALD],
        measures: [seen('clear', 'Runs clear', 'Flush the same again. Cloudy water that stays is air: let it stand and open it slowly.')],
      },
      {
        id: `dial-${id}`,
        act: 'setDial',
        place: 'cartridges',
        title: `Set the dial of ${inSentence(name)} to ${Math.round(100 * bypass)}${THIN}%, then count drops`,
        before: 'It is flushed: the first litres are no measure of it.',
        how: 'Draw half a litre behind it, then count hardness and alkalinity as at the tap.',
        minutes: 10,
        cautions: [SCALD],
        measures: [
          {
            id: 'dial',
            label: 'The dial stands at',
            dimension: 'fraction',
            unit: '%',
            expected: bypass,
            low: bypass - DIAL_STEP / 2,
            high: bypass + DIAL_STEP / 2,
            because: 'as it was planned on this water',
            ifLow: 'Turn it to where it was planned, or plan it anew in Train: the litres follow from it.',
            ifHigh: 'Turn it to where it was planned, or plan it anew in Train: the litres follow from it.',
          },
          ...(standing
            ? ([
                {
                  id: 'hardness',
                  label: 'Hardness behind it',
                  dimension: 'hardnessMgL',
                  ...within(standing.after.state.hardnessMgL),
                  because: `solved at ${Math.round(100 * bypass)}${THIN}%, a drop or 15${THIN}% either way`,
                  ifLow: 'Less than planned passes beside the resin: open the dial one step, draw half a litre, count again.',
                  ifHigh:
                    'More than planned passes beside the resin, or the tap is harder than entered: count the tap, then close the dial one step.',
                },
                {
                  id: 'alkalinity',
                  label: 'Alkalinity behind it',
                  dimension: 'alkalinityMgL',
                  ...within(standing.after.state.alkalinityMgL),
                  because: `solved at ${Math.round(100 * bypass)}${THIN}%, a drop or 15${THIN}% either way`,
                  ifLow: 'Open the dial one step: water without alkalinity turns sour and eats the boiler.',
                  ifHigh: 'Close the dial one step, draw half a litre and count again.',
                },
              ] as const)
            : []),
        ],
      },
      {
        id: `preset-${id}`,
        act: 'presetMeter',
        place: 'cartridges',
        title: stage.litresMeter
          ? `Set the water meter of ${inSentence(name)} to ${preset === null ? 'zero' : say.of(preset, 'volumeL')}`
          : `Write on ${inSentence(name)} when it is changed`,
        before: 'The dial stands: its litres follow from it.',
        how:
          preset === null
            ? 'Nothing in this water uses it up: it is changed by its months.'
            : stage.litresMeter
              ? 'How it is pressed in, its own leaflet says; this is the figure.'
              : `After ${say.of(preset, 'volumeL')}, or in a year: the day goes on its label.`,
        minutes: 3,
        measures:
          preset === null || !stage.litresMeter
            ? []
            : [
                {
                  id: 'litres',
                  label: 'Litres the meter was set to',
                  dimension: 'volumeL',
                  expected: preset,
                  low: 0.5 * preset,
                  high: 1.02 * preset,
                  because: 'what it lasts on this water at this dial',
                  ifLow: 'Set so low it is thrown away half used.',
                  ifHigh: 'The meter would go on counting past the end: lime reaches the boiler before it says so.',
                },
              ],
      },
    ];
  },
  plumbed: () => threaded('3/8'),
  tools: () => ['Drop kit for hardness'],
  partGroup: 'cartridges',
  parts: ({ volumeL, litresMeter }, { prices, units }) => [
    {
      part: `cartridge-${volumeL}`,
      name: `Decarbonising cartridge, ${formatQuantity(volumeL, 'volumeL', units).text} of resin`,
      why: 'one in its head',
      count: 1,
      each: volumeL * prices.cartridgePerL,
      wearsDays: 365,
    },
    { part: 'cartridge-head', name: 'Head with bypass dial', why: 'one', count: 1 },
    ...(litresMeter ? [{ part: 'litres-meter', name: 'Litres meter', why: 'its end is told by litres', count: 1 }] : []),
  ],
  upkeep: (_stage, standing) => {
    // By the litres its meter is set to, or by its year: whichever comes first.
    const life = standing && cartridgeLife(standing);
    const litres = life?.presetL == null ? {} : { litresNew: life.presetL };
    // What is not solved goes by its year alone.
    return life || !standing ? [{ says: 'change', work: 'changed', afterDays: CARTRIDGE_MONTHS * DAYS_PER_MONTH, ...litres }] : [];
  },
  faults: () => ['bypassWrong', 'cartridgeSpent'],
  wears: null,
  raises: [],
  findings,
  facts: none,
  fill: zero,
  fields: (stage) => ({
    choices: [
      {
        label: 'Kind of cartridge',
        items: KINDS,
        value: stage.softens ? 'sodium' : stage.magnesiumShare > 0 ? 'magnesium' : 'lime',
        write: (value) => ({
          stage: { ...stage, softens: value === 'sodium', magnesiumShare: value === 'magnesium' ? USUAL_MAGNESIUM : 0 },
        }),
      },
      field.choice(stage, 'hardnessIs', 'Box and table speak of', HARDNESS_IS),
      {
        label: 'Carries carbon as well',
        items: CARRIES,
        value: stage.withCarbon === null ? 'unsaid' : stage.withCarbon ? 'yes' : 'no',
        write: (value) => ({ stage: { ...stage, withCarbon: value === 'unsaid' ? null : value === 'yes' } }),
      },
      {
        label: 'Meter of litres at it',
        items: METER,
        value: stage.litresMeter ? 'yes' : 'no',
        write: (value) => ({ stage: { ...stage, litresMeter: value === 'yes' } }),
      },
    ],
    quantities: [
      field.quantity(stage, 'bypass', 'Bypass', { unit: '%' }),
      field.quantity(stage, 'volumeL', 'Volume of resin', { unit: 'L' }),
      ...(stage.magnesiumShare > 0 ? [field.quantity(stage, 'magnesiumShare', 'Magnesium for calcium', { unit: '%' })] : []),
      ...boxFields(stage, 'Box: litres').map((one) => ({ ...one, folded: true })),
      field.quantity(stage, 'capacityEq', 'Capacity, where it is known', { empty: 'by its box', folded: true }),
      field.quantity(stage, 'leak', 'Lane lets through', { unit: '%', folded: true }),
    ],
  }),
  folded: 'More',
});
