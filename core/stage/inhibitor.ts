import { z } from 'zod';
import { UNHELD, type ScaleLimits } from '../dosing';
import { GOAL_ROWS, STEAM_BOILER_C } from '../goal';
import { inSentence, measured, words, formatQuantity } from '../quantity';
import { cartridgeSlopeBar, HALF_YEAR_DAYS, HOUSING_BAR } from './cartridge';
import { keysOf } from './field';
import type { Finding } from './finding';
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
  type Standing,
  keepsAll,
  threaded,
} from './kind';
import { SCALD } from './step';
import { housing } from './part';

const schema = z.strictObject({
  kind: z.literal('inhibitor'),
  ...anyStage,
  doseMgL: measured('concentrationMgL', 0.1, 20),
  ...fitted,
});
type Inhibitor = z.infer<typeof schema>;
const field = keysOf<Inhibitor>(schema.shape);

/** Phosphate keeps lime from settling to this index, and no other scale (common practice). */
const HELD: ScaleLimits = { ...UNHELD, calciteIndex: 1.8 };
/** Limits of phosphate against scale (common practice). */
const MOST_HARDNESS_MGL = 350;
const MOST_C = 80;
/** What is flushed through a new one, L (common practice). */
const FLUSH_L = 10;

function findings({ stage, before, goal, units }: Standing<Inhibitor>): Finding[] {
  const say = words(units);
  const { heatedC } = GOAL_ROWS[goal.id];
  const found: Finding[] = [];
  if (before.state.hardnessMgL > MOST_HARDNESS_MGL)
    found.push({
      id: `inhibitor-${stage.id}`,
      severity: 'bad',
      title: `${say.of(before.state.hardnessMgL, 'hardnessMgL')} of hardness is more than ${inSentence(stage.name)} can hold`,
      why: `Up to about ${say.of(MOST_HARDNESS_MGL, 'hardnessMgL')}. Soften, or use a membrane.`,
    });
  if (heatedC !== null && heatedC > MOST_C)
    found.push({
      id: `inhibitor-hot-${stage.id}`,
      // A brewer's tap is below what a boiler does to it.
      severity: heatedC >= STEAM_BOILER_C ? 'mind' : 'note',
      title: `${stage.name} holds scale only below ${say.of(MOST_C, 'temperatureC')}`,
      why: `${heatedC >= STEAM_BOILER_C ? 'It does not protect a steam boiler' : `Here water is heated to ${say.of(heatedC, 'temperatureC')}`}: give what boils a cartridge of its own. Change every 6 months.`,
    });
  return found;
}

/** Phosphate against scale: changes nothing a kit would see. */
export const inhibitor = defineStage(schema, {
  kind: 'inhibitor',
  label: 'Scale inhibitor',
  says: 'Phosphate that holds lime in cold water',
  place: 4,
  defaults: { kind: 'inhibitor', name: 'Scale inhibitor', doseMgL: 3, fittedOn: null },
  form: 'cartridge',
  touches: () => 'nothing',
  prefilter: false,
  inUses: true,
  holdsScale: () => HELD,
  treat: unchanged,
  slopeBar: cartridgeSlopeBar,
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: () => ({ wetKg: 2.5, wallM: 0.14 }),
  price: (_stage, { inhibitor: piece }) => piece,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('filterHousing'),
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: ({ id, name }, { units, side }) => [
    {
      id: `inhibitor-${id}`,
      act: 'flushCartridge',
      place: 'cartridges',
      title: `Flush ${inSentence(name)}, ${formatQuantity(FLUSH_L, 'volumeL', units).text}`,
      how: `To the drain, so that the first strong dose does not reach the ${side === 'ahead' ? 'membrane' : 'machine'}.`,
      minutes: 5,
      cautions: side === 'ahead' ? [] : [SCALD],
    },
  ],
  plumbed: () => threaded('1/4'),
  tools: none,
  partGroup: 'cartridges',
  parts: (_stage, { prices }) => [
    {
      part: 'inhibitor',
      name: 'Scale inhibitor cartridge',
      why: 'one in its housing',
      count: 1,
      each: prices.inhibitor,
      wearsDays: HALF_YEAR_DAYS,
    },
    housing('for the inhibitor'),
  ],
  upkeep: () => [{ says: 'change', work: 'changed', afterDays: HALF_YEAR_DAYS }],
  faults: none,
  wears: null,
  raises: [],
  findings,
  facts: none,
  fill: zero,
  fields: (stage) => ({ choices: [], quantities: [field.quantity(stage, 'doseMgL', 'Phosphate dosed')] }),
  folded: 'More',
});
