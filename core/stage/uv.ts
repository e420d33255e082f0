import { z } from 'zod';
import { inSentence, measured, THIN } from '../quantity';
import { UV_END_OF_LIFE, UV_GOAL_MJ_PER_CM2, uvDoseMJPerCm2 } from '../storage';
import { HOUSING_BAR } from './cartridge';
import { keysOf } from './field';
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

const schema = z.strictObject({
  kind: z.literal('uv'),
  ...anyStage,
  intensityMWPerCm2: measured('intensityMWPerCm2', 0.1, 1000),
  chamberL: measured('volumeL', 0.05, 1000),
  ...fitted,
});
const field = keysOf<z.infer<typeof schema>>(schema.shape);

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
  defaults: { kind: 'uv', name: 'UV lamp', intensityMWPerCm2: 15, chamberL: 0.8, fittedOn: null },
  form: 'cartridge',
  touches: () => 'nothing',
  prefilter: false,
  inUses: true,
  holdsScale: holdsNothing,
  treat: unchanged,
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
    quantities: [field.quantity(stage, 'intensityMWPerCm2', 'Intensity'), field.quantity(stage, 'chamberL', 'Chamber', { unit: 'L' })],
  }),
  folded: 'More',
});
