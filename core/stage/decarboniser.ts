import { z } from 'zod';
import { decarbonised, flushL, meterPresetL, ratingAgrees } from '../exchange';
import { GOAL_ROWS } from '../goal';
import { between, DAYS_PER_MONTH, formatQuantity, inSentence, measured, ok, THIN, words } from '../quantity';
import { cartridgeSlopeBar, mineralCartridge } from './cartridge';
import { keysOf } from './field';
import type { Finding } from './finding';
import { allPasses, anyStage, asFitted, defineStage, fitted, neverOpen, none, zero, type Standing } from './kind';
import { SCALD } from './step';

const schema = z.strictObject({
  kind: z.literal('decarboniser'),
  ...anyStage,
  volumeL: measured('volumeL', 0.05, 1000),
  capacityEq: measured('equivalents', 0.01, 10_000),
  bypass: measured('fraction', 0, 1),
  leak: measured('fraction', 0, 0.1),
  magnesiumShare: measured('fraction', 0, 0.7),
  /** What is printed at its dial, where it has steps. */
  settings: z.array(z.strictObject({ label: z.string().max(12), bypass: between(0, 1) })).max(20),
  ...fitted,
});
export type Decarboniser = z.infer<typeof schema>;
const field = keysOf<Decarboniser>(schema.shape);

/** Cartridges that take lime, and those that give magnesium for part of the calcium. */
const KINDS = [
  { value: 'lime', title: 'Takes lime' },
  { value: 'magnesium', title: 'Magnesium for calcium' },
];
/** Share of the calcium such a cartridge gives magnesium for (common practice: a third to a half). */
const USUAL_MAGNESIUM = 0.4;

/** Steps of a bypass dial until the printed list is typed (our placeholder). */
const DIAL = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6].map((bypass, i) => ({ label: String(i), bypass }));
/** Acid that attacks brass and copper below this. */
const LEAST_PH = 6.3;
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
}

/** How long a cartridge lasts on the water that meets it; null where its blend cannot be worked out. */
export function cartridgeLife({
  stage,
  before,
  litresPerDay,
}: Pick<Standing<Decarboniser>, 'stage' | 'before' | 'litresPerDay'>): CartridgeLife | null {
  const blend = decarbonised(before.water, stage, stage.bypass);
  if (!blend.ok) return null;
  const { until } = blend.value;
  if (until.kind === 'unlimited') return { litres: null, presetL: null, months: CARTRIDGE_MONTHS, by: 'time' };
  const presetL = meterPresetL(until.litres);
  const months = litresPerDay > 0 ? presetL / litresPerDay / DAYS_PER_MONTH : Infinity;
  return months < CARTRIDGE_MONTHS
    ? { litres: until.litres, presetL, months, by: 'capacity' }
    : { litres: until.litres, presetL, months: CARTRIDGE_MONTHS, by: 'time' };
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
      title: `${stage.name} lasts ${say.of(life.litres, 'volumeL')}: set its meter to ${say.of(life.presetL!, 'volumeL')}`,
      why: `${life.by === 'capacity' ? `At ${say.perDay(litresPerDay)} that is ${say.days(life.months * DAYS_PER_MONTH)}` : 'A year comes first: change it after 12 months'}. Flush ${say.of(flushL(stage.volumeL), 'volumeL')} before use.`,
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
  if (before.state.alkalinityMgL > before.state.hardnessMgL + 5)
    found.push({
      id: `soda-${stage.id}`,
      severity: 'mind',
      title: `Alkalinity ${say.of(before.state.alkalinityMgL, 'alkalinityMgL')} is more than hardness ${say.of(before.state.hardnessMgL, 'hardnessMgL')}`,
      why: 'This water was softened: the cartridge takes what hardness there is and leaves sodium bicarbonate.',
    });
  if (!ratingAgrees(stage.capacityEq, stage.volumeL))
    found.push({
      id: `rating-${stage.id}`,
      severity: 'mind',
      title: `${(stage.capacityEq / stage.volumeL).toFixed(1)}${THIN}eq in a litre of resin: rating and volume do not agree`,
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

/** A cartridge that takes hardness tied to alkalinity, with a bypass dial. */
export const decarboniser = defineStage(schema, {
  kind: 'decarboniser',
  label: 'Decarbonising cartridge',
  says: 'Takes lime, with a bypass dial',
  place: 7,
  defaults: {
    kind: 'decarboniser',
    name: 'Decarbonising cartridge',
    volumeL: 4.3,
    capacityEq: 9.4,
    bypass: 0.3,
    leak: 0.03,
    magnesiumShare: 0,
    settings: DIAL,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: 'minerals',
  prefilter: false,
  inUses: true,
  holdsScaleTo: null,
  treat: (stage, { water }) => {
    const blend = decarbonised(water, stage, stage.bypass);
    return blend.ok ? ok({ water: blend.value.water }) : blend;
  },
  slopeBar: cartridgeSlopeBar,
  riseBar: zero,
  breaksPressure: neverOpen,
  mounting: mineralCartridge,
  price: ({ volumeL }, { cartridgePerL }) => volumeL * cartridgePerL,
  worn: asFitted,
  dirtPassed: allPasses,
  stepPart: 'cartridges',
  steps: ({ id, name, bypass, volumeL }, { units }) => [
    {
      id: `cartridge-${id}`,
      title: `Set the dial of ${inSentence(name)} to ${Math.round(100 * bypass)}${THIN}% and flush ${formatQuantity(flushL(volumeL), 'volumeL', units).text}`,
      how: 'To the drain, until it runs clear. Leave 15 cm under it to take it out. Enter its litres in the water meter.',
      minutes: 10,
      cautions: [SCALD],
    },
  ],
  upkeep: (_stage, standing) => {
    const life = standing && cartridgeLife(standing);
    return life ? [{ says: 'change', afterDays: life.months * DAYS_PER_MONTH }] : [];
  },
  findings,
  facts: none,
  fill: zero,
  fields: (stage) => ({
    choices: [
      {
        label: 'Kind of cartridge',
        items: KINDS,
        value: stage.magnesiumShare > 0 ? 'magnesium' : 'lime',
        write: (value) => ({ stage: { ...stage, magnesiumShare: value === 'magnesium' ? USUAL_MAGNESIUM : 0 } }),
      },
    ],
    quantities: [
      field.quantity(stage, 'bypass', 'Bypass', { unit: '%' }),
      field.quantity(stage, 'volumeL', 'Volume of resin', { unit: 'L' }),
      field.quantity(stage, 'capacityEq', 'Capacity'),
      ...(stage.magnesiumShare > 0 ? [field.quantity(stage, 'magnesiumShare', 'Magnesium for calcium', { unit: '%' })] : []),
      field.quantity(stage, 'leak', 'Lane lets through', { unit: '%', folded: true }),
    ],
  }),
  folded: 'More',
});
