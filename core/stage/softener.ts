import { z } from 'zod';
import { sizeSoftener, SODIUM_PER_HARDNESS, softened, softenerCapacityEqPerL, softenerLeakageMgL, type SoftenerPlan } from '../exchange';
import { DAYS_PER_YEAR, formatQuantity, inSentence, maybe, measured, ok, THIN, words, type Outcome } from '../quantity';
import { CACO3_G_PER_EQ, hardnessOf, MOLAR_MASS } from '../water';
import { cartridgeSlopeBar, ONE_DROP_MGL, HOUSING_BAR } from './cartridge';
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
  zero,
  type Standing,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { LOCAL_CODE } from './step';

const schema = z.strictObject({
  kind: z.literal('softener'),
  ...anyStage,
  volumeL: measured('volumeL', 0.05, 1000),
  /** Salt for a litre of resin at each regeneration. */
  saltGPerL: measured('saltGPerL', 48, 321),
  /** Salt its tank holds when full; null where nobody has said. */
  saltTankKg: maybe(measured('massG', 1, 2000, 1000)),
  reserveShare: measured('fraction', 0, 0.5),
  ...fitted,
});
type Softener = z.infer<typeof schema>;
const field = keysOf<Softener>(schema.shape);

/** Hardness behind a softener that is an alarm: a grain a gallon. */
const SOFT_ALARM_MGL = 17.1;
/** Dissolved iron from which a softener is in trouble, mg/L. */
const IRON_MIND_MGL = 0.3;
/** Days from one look at the salt to the next (common practice: two months). */
const SALT_DAYS = 61;

/** A softener's plan on the water that meets it. */
export const softenerPlan = ({
  stage,
  before,
  litresPerDay,
}: Pick<Standing<Softener>, 'stage' | 'before' | 'litresPerDay'>): Outcome<SoftenerPlan> =>
  sizeSoftener({
    volumeL: stage.volumeL,
    saltGPerL: stage.saltGPerL,
    hardnessMgL: hardnessOf(before.water.mgL),
    ironMgL: before.water.mgL.Fe,
    litresPerDay: Math.max(0.01, litresPerDay),
    reserveShare: stage.reserveShare,
  });

function findings(standing: Standing<Softener>): Finding[] {
  const { stage, before, units } = standing;
  const say = words(units);
  const planned = softenerPlan(standing);
  if (!planned.ok) {
    const nothing = hardnessOf(before.water.mgL) < 0.1;
    return nothing
      ? [
          {
            id: `softener-${stage.id}`,
            severity: 'note',
            title: `${stage.name} meets ${say.of(0, 'hardnessMgL')} of hardness`,
            why: 'There is nothing here to soften: it could go.',
          },
        ]
      : [{ id: `softener-${stage.id}`, severity: 'bad', title: `${stage.name} cannot be planned`, why: planned.error.message }];
  }
  const plan = planned.value;
  const leak = softenerLeakageMgL(
    softenerCapacityEqPerL(stage.saltGPerL),
    before.state.hardnessMgL / CACO3_G_PER_EQ + before.water.mgL.Na / MOLAR_MASS.Na,
  );
  const sodium = SODIUM_PER_HARDNESS * Math.max(0, before.state.hardnessMgL - leak);
  const found: Finding[] = [
    {
      id: `softener-${stage.id}`,
      severity: plan.days < 1 ? 'bad' : plan.days < 3 ? 'mind' : 'note',
      title:
        plan.days < 1
          ? `${stage.name} is spent after ${say.of(plan.litresBetween, 'volumeL')}, within the day`
          : `${stage.name} regenerates every ${plan.days.toFixed(1)} days with ${say.kg(plan.saltKg)} of salt`,
      why: `${say.kg(plan.saltKgPerYear)} of salt a year; ${Math.round(100 * plan.wasteShare)}${THIN}% of the water goes down the drain with it. About ${say.mgL(leak)} of hardness slips through, and ${say.mgL(sodium)} of sodium comes for the rest. Look at the salt every ${say.days(saltDays(stage, plan))}.`,
    },
  ];
  if (leak > SOFT_ALARM_MGL)
    found.push({
      id: `softener-leak-${stage.id}`,
      severity: 'mind',
      title: `About ${say.mgL(leak)} of hardness slips through ${inSentence(stage.name)}`,
      why: 'Above 17 mg/L it is an alarm. More salt at each regeneration lowers it.',
    });
  if (before.water.mgL.Fe > IRON_MIND_MGL)
    found.push({
      id: `softener-iron-${stage.id}`,
      severity: 'mind',
      title: `Iron ${say.mgL(before.water.mgL.Fe)} stays on the resin`,
      why: 'Use salt with resin cleaner, and regenerate at least every four days.',
    });
  return found;
}

/** What a brine tank is filled with at a time, kg: a sack (common practice). */
const SALT_FILL_KG = 25;
/** Softeners are priced from a usual one, and cost less than in proportion to their size (our estimate). */
const USUAL_SOFTENER_L = 28.3168;
const SIZE_EXPONENT = 0.35;

/** Days from one look at the salt to the next: by use, a sack at a time or down to a quarter of its tank; two months at the most. */
const saltDays = ({ saltTankKg }: Softener, { saltKgPerYear }: SoftenerPlan): number =>
  Math.min(SALT_DAYS, ((saltTankKg === null ? SALT_FILL_KG : SALT_USED * saltTankKg) * DAYS_PER_YEAR) / saltKgPerYear);

/** Of what the tank holds, what is used before it is filled up again (common practice: never below a quarter). */
const SALT_USED = 0.75;

/** Salt that is brought in at a time, and how often: when the tank is down to a quarter, or when it is looked at. */
function saltRound(stage: Softener, standing: Standing<Softener> | null): { readonly days: number; readonly kg: number } | null {
  const plan = standing && softenerPlan({ ...standing, stage });
  if (!plan?.ok) return null;
  const perDay = plan.value.saltKgPerYear / DAYS_PER_YEAR;
  const days = saltDays(stage, plan.value);
  return { days, kg: perDay * days };
}

export const softener = defineStage(schema, {
  kind: 'softener',
  label: 'Softener',
  says: 'Sodium for hardness, regenerated with salt',
  place: 0,
  defaults: { kind: 'softener', name: 'Softener', volumeL: 8, saltGPerL: 128, saltTankKg: null, reserveShare: 0.2, fittedOn: null },
  form: 'cartridge',
  touches: () => 'minerals',
  prefilter: false,
  inUses: true,
  holdsScale: holdsNothing,
  treat: ({ saltGPerL }, { water }) => ok({ water: softened(water, softenerCapacityEqPerL(saltGPerL)) }),
  slopeBar: cartridgeSlopeBar,
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  // Resin vessel, and as much again for the brine tank.
  mounting: ({ volumeL }) => ({ wetKg: 4 + 3 * volumeL, wallM: 0.5 }),
  price: (_stage, { saltPerKg }) => saltPerKg,
  costLine: 'salt',
  drainShare: (stage, standing) => {
    const plan = softenerPlan({ ...standing, stage });
    // Of what leaves it, so much more has to be drawn.
    return plan.ok ? plan.value.wasteShare / (1 - plan.value.wasteShare) : 0;
  },
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: ({ volumeL }, { piece }) => piece('softener') * (volumeL / USUAL_SOFTENER_L) ** SIZE_EXPONENT,
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: ({ id, name, saltGPerL, volumeL }, { standing, units }) => [
    {
      id: `softener-${id}`,
      act: 'regenerate',
      place: 'cartridges',
      title: `Fill the salt of ${inSentence(name)} and regenerate it once`,
      how: `Salt a hand above the water, no bridge, no mush. Set ${words(units).kg((saltGPerL * volumeL) / 1000)} a time; rinse until it no longer tastes of salt.`,
      minutes: 60,
      waits: true,
      cautions: [LOCAL_CODE],
    },
    {
      id: `soft-${id}`,
      act: 'rinse',
      place: 'cartridges',
      title: `Count the hardness behind ${inSentence(name)}`,
      before: 'It has regenerated and rinsed once.',
      how: 'Drops as on the tap, in twice the sample: soft water needs few.',
      minutes: 5,
      measures: [
        {
          id: 'hardness',
          label: `Hardness behind ${inSentence(name)}`,
          dimension: 'hardnessMgL',
          expected: standing?.after.state.hardnessMgL ?? null,
          low: null,
          high: standing ? Math.max(ONE_DROP_MGL, 2 * standing.after.state.hardnessMgL) : ONE_DROP_MGL,
          doubt: { share: 0, least: ONE_DROP_MGL / 2 },
          because: `a drop is ${formatQuantity(ONE_DROP_MGL, 'hardnessMgL', units).text}`,
          ifHigh: 'Is its own bypass shut, was there salt, did it draw brine? Regenerate once more and count again.',
        },
      ],
    },
  ],
  plumbed: () => ({ ...threaded('1'), drains: true }),
  tools: () => ['Drop kit for hardness'],
  partGroup: 'cartridges',
  parts: ({ volumeL }, { prices, units }) => [
    {
      part: `softener-${volumeL}`,
      name: `Softener, ${formatQuantity(volumeL, 'volumeL', units).text} of resin, brine tank`,
      why: 'one',
      count: 1,
    },
    {
      part: 'salt',
      name: 'Softener salt',
      why: 'first fill',
      count: SALT_FILL_KG,
      unit: 'kg',
      each: prices.saltPerKg,
      wearsDays: SALT_DAYS,
    },
  ],
  upkeep: (stage, standing) => {
    const round = saltRound(stage, standing);
    return [
      { says: 'salt of', work: 'refilled', everyDays: round?.days ?? SALT_DAYS, ...(round ? { takes: round.kg } : {}) },
      // Injector, valve and seals, hardness behind it counted (common practice: once a year).
      { says: 'yearly check of', work: 'cleaned', everyDays: 365 },
    ];
  },
  faults: () => ['softenerSpent', 'softenerBypass'],
  wears: null,
  raises: ['softenerBypass'],
  findings,
  facts: none,
  fill: zero,
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'volumeL', 'Volume of resin', { unit: 'L' }),
      field.quantity(stage, 'saltGPerL', 'Salt for its resin'),
      field.quantity(stage, 'reserveShare', 'Kept in reserve', { unit: '%' }),
      field.quantity(stage, 'saltTankKg', 'Salt its tank holds', { unit: 'kg', empty: 'a sack, 25 kg' }),
    ],
  }),
  folded: 'More',
});
