import { z } from 'zod';
import { inSentence, maybe, measured, ok, THIN } from '../quantity';
import { CARBON_G_PER_MOL, organicLeft, UV_END_OF_LIFE, UV_GOAL_MJ_PER_CM2, uvDoseMJPerCm2 } from '../storage';
import { alkalinityByBalance } from '../water';
import { HOUSING_BAR, SLOWEST_L_PER_H } from './cartridge';
import { keysOf, quantity, type StageQuantity } from './field';
import { allPasses, anyStage, asFitted, defineStage, fitted, neverOpen, none, zero, keepsAll, holdsNothing, threaded } from './kind';
import { MAINS, type Caution, seen } from './step';

const schema = z.strictObject({
  kind: z.literal('uv'),
  ...anyStage,
  intensityMWPerCm2: measured('intensityMWPerCm2', 0.1, 1000),
  chamberL: measured('volumeL', 0.05, 1000),
  /** A lamp of 185 nm breaks organic carbon down: share its sheet says it leaves, at a flow; null for one that only disinfects. */
  organic: maybe(z.strictObject({ left: measured('fraction', 0.01, 0.99), atLPerH: measured('flowLPerH', 1, 100_000) })),
  ...fitted,
});
type Uv = z.infer<typeof schema>;
const field = keysOf<Uv>(schema.shape);

const LAMP: Caution = {
  title: 'Never look at the lamp',
  text: 'Its light burns eyes and skin in seconds. Unplug it before the chamber is opened.',
};
/** A lamp's 9,000 hours, burning without pause (common practice). */
const LAMP_DAYS = 375;

export const uv = defineStage(schema, {
  kind: 'uv',
  label: 'UV lamp',
  says: 'Holds germs down',
  place: 10,
  defaults: { kind: 'uv', name: 'UV lamp', intensityMWPerCm2: 15, chamberL: 0.8, organic: null, fittedOn: null },
  form: 'cartridge',
  touches: ({ organic }) => (organic ? 'traces' : 'nothing'),
  prefilter: false,
  inUses: true,
  holdsScale: holdsNothing,
  treat: ({ organic }, { water, flowLPerH }) => {
    if (!organic) return ok({ water });
    const left = organicLeft(organic.left, organic.atLPerH, Math.max(flowLPerH, SLOWEST_L_PER_H));
    // What is broken down stays as carbon dioxide, until a polisher takes it.
    const brokenMgL = (1 - left) * water.mgL.organic;
    const mgL = { ...water.mgL, organic: left * water.mgL.organic };
    const charge = alkalinityByBalance(mgL) - alkalinityByBalance(water.mgL);
    return ok({
      water: { ...water, mgL, alkalinityMgL: water.alkalinityMgL + charge, carbonMmolL: water.carbonMmolL + brokenMgL / CARBON_G_PER_MOL },
    });
  },
  slopeBar: zero,
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: ({ chamberL }) => ({ wetKg: 2 + chamberL, wallM: 0.15 }),
  price: (_stage, { lamp }) => lamp,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('uvUnit'),
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: ({ id, name }) => [
    {
      id: `uv-${id}`,
      act: 'light',
      place: 'running',
      title: `Light ${inSentence(name)}`,
      before: 'Water stands or flows in the chamber: a dry lamp overheats.',
      how: 'Water first, then light. Write down the day: it serves about 9,000 hours.',
      minutes: 15,
      cautions: [MAINS, LAMP],
      measures: [seen('lit', 'It burns, by its indicator', 'Unplug it, dry hands: is the lamp seated, are its pins clean?')],
    },
  ],
  plumbed: ({ chamberL }) => ({ ...threaded(chamberL < 1 ? '1/4' : '3/4'), powered: true }),
  tools: none,
  partGroup: 'tanks',
  parts: (_stage, { prices }) => [
    { part: 'uv-chamber', name: 'UV chamber with its ballast', why: 'one', count: 1 },
    { part: 'uv-lamp', name: 'UV lamp', why: 'about 9,000 hours', count: 1, each: prices.lamp, wearsDays: LAMP_DAYS },
  ],
  upkeep: () => [{ says: 'change', work: 'changed', afterDays: LAMP_DAYS }],
  faults: () => ['uvLamp'],
  wears: { years: 1, causes: ['uvLamp'] },
  raises: [],
  findings: ({ stage, before }) => {
    if (!(before.flowLPerH > 0)) return [];
    const dose = uvDoseMJPerCm2(stage.intensityMWPerCm2 * UV_END_OF_LIFE, stage.chamberL, before.flowLPerH);
    const short = dose < UV_GOAL_MJ_PER_CM2;
    return [
      {
        id: `uv-${stage.id}`,
        severity: short ? 'mind' : 'good',
        title: `${stage.name} gives ${dose.toFixed(0)}${THIN}mJ/cm² at the end of its life`,
        why: short
          ? `Disinfection asks for ${UV_GOAL_MJ_PER_CM2} (NSF/ANSI 55 class A). A slower flow, or a stronger lamp.`
          : `Disinfection asks for ${UV_GOAL_MJ_PER_CM2}. Lamps last about 9,000 hours; it stands before the polisher where organics matter.`,
      },
    ];
  },
  facts: none,
  fill: zero,
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'intensityMWPerCm2', 'Intensity'),
      field.quantity(stage, 'chamberL', 'Chamber', { unit: 'L' }),
      ...organicFields(stage),
    ],
  }),
  folded: 'More',
});

/** A sheet as it begins when one of its figures is typed. */
const NEW_SHEET = { left: 0.5, atLPerH: 600 } as const;
/** What a lamp of 185 nm leaves of organic carbon, by its sheet. */
function organicFields(stage: Uv): StageQuantity<Uv>[] {
  const shape = schema.shape.organic.unwrap().shape;
  const whenEmpty = { empty: { says: 'disinfects only', stage: { ...stage, organic: null } }, folded: 'A lamp of 185 nm' };
  const known: NonNullable<Uv['organic']> = stage.organic ?? NEW_SHEET;
  return [
    quantity(
      'Organic carbon it leaves',
      shape.left,
      stage.organic?.left ?? null,
      (left): Uv => ({ ...stage, organic: { ...known, left } }),
      { ...whenEmpty, unit: '%' },
    ),
    quantity(
      'at a flow of',
      shape.atLPerH,
      stage.organic?.atLPerH ?? null,
      (atLPerH): Uv => ({ ...stage, organic: { ...known, atLPerH } }),
      whenEmpty,
    ),
  ];
}
