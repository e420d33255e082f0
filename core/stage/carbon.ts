import { z } from 'zod';
import {
  ammoniaShare,
  CARBON_MEDIA,
  carbonState,
  chloramineRules,
  dechlorinated,
  isCatalytic,
  leastContactS,
  prefilterBarPerLPerH,
  RATED_AGAINST,
} from '../pretreatment';
import { formatQuantity, inSentence, measured, ok, THIN, words } from '../quantity';
import { settleWater } from '../water';
import { HALF_YEAR_DAYS, SLOWEST_L_PER_H, filterFlush, CARTRIDGE_SIZED_L, HOUSING_BAR, VESSEL_BAR, vesselThread } from './cartridge';
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
  type PartPrices,
  type Standing,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { housing } from './part';
import { vesselFor } from './prices';

const schema = z.strictObject({
  kind: z.literal('carbon'),
  ...anyStage,
  medium: z.enum(CARBON_MEDIA),
  volumeL: measured('volumeL', 0.05, 1000),
  /** Litres it is sold for, and against what; counted by its volume where its label says nothing. */
  ratedL: measured('volumeL', 1, 10_000_000),
  ratedAgainst: z.enum(RATED_AGAINST),
  /** Loss at 1 gal/min when clean. */
  cleanLossBar: measured('pressureBar', 0, 1),
  loading: measured('fraction', 0, 0.95),
  ...fitted,
});
const field = keysOf<z.infer<typeof schema>>(schema.shape);
const MEDIUM_WORDS = {
  block: 'Carbon block',
  granular: 'Granular carbon',
  catalyticBlock: 'Catalytic block',
  catalyticGranular: 'Catalytic granules',
} as const;
const MEDIA = CARBON_MEDIA.map((value) => ({ title: MEDIUM_WORDS[value], value }));
const RATINGS = [
  { title: 'Litres printed against chlorine', value: 'chlorine' },
  { title: 'Litres printed against chloramine', value: 'chloramine' },
  { title: 'No litres printed', value: 'nothing' },
] as const;
/** Made of grains, which are filled in, or pressed into a block. */
const isLoose = (medium: (typeof CARBON_MEDIA)[number]): boolean => medium === 'granular' || medium === 'catalyticGranular';
/** Catalytic carbon costs about this many times the plain one (common practice: two to three). */
const CATALYTIC_TIMES = 2.5;
/** Chloramine that may come through before a membrane or resin minds, mg/L (common practice). */
const MOST_CHLORAMINE_MGL = 0.1;

/** A carbon that is new lasts this long at least, or it is told as a finding, days. */
const SHORT_DAYS = 60;
/** What granular carbon costs by the litre against a block (our estimate), and how long a bed serves at the most, days (common practice: a year). */
const GRANULAR_SHARE = 1 / 6;
const BED_DAYS = 365;
/** And at less than this it is no plan for anybody. */
const TOO_SHORT_DAYS = 21;

/** Too small for chloramine from the first litre: the contact it has against the one it needs. */
function tooSmall({ stage, before, carbon: state, units }: Standing<z.infer<typeof schema>>): Finding[] {
  const { chloramine } = before.water.mgL;
  if (!state || !(chloramine > MOST_CHLORAMINE_MGL)) return [];
  const at = { temperatureC: before.water.temperatureC, pH: before.state.pH };
  const least = leastContactS(stage.medium, chloramine, MOST_CHLORAMINE_MGL, at);
  if (state.contactTimeS >= least) return [];
  const say = words(units);
  return [
    {
      id: `carbon-small-${stage.id}`,
      severity: 'mind',
      title: `${stage.name} is too small for chloramine: ${state.contactTimeS.toFixed(0)}${THIN}s of contact, ${least.toFixed(0)}${THIN}s needed alone`,
      why: `At ${say.of(at.temperatureC, 'temperatureC')} and pH ${at.pH.toFixed(1)}, to leave ${say.mgL(MOST_CHLORAMINE_MGL)} of ${say.mgL(chloramine)}. ${isCatalytic(stage.medium) ? 'Take more of it, or a second one behind it' : 'Catalytic carbon needs a quarter of the time; or a second one behind it'}. Test for total chlorine: free chlorine may be nil.`,
    },
  ];
}

/** A carbon soon spent, by chlorine or by chloramine, which counts fivefold: no figure to be looked for in a panel. */
function findings({ stage, before, litresPerDay, units, carbon: state }: Standing<z.infer<typeof schema>>): Finding[] {
  if (!state || state.litresNew === null || !(litresPerDay > 0)) return [];
  const days = state.litresNew / litresPerDay;
  // One that lets it through from new is told where that does harm, not by its days.
  if (days >= SHORT_DAYS || state.litresNew === 0) return [];
  const say = words(units);
  const { chlorine, chloramine } = before.water.mgL;
  const bound = chloramineRules(stage, chlorine, chloramine);
  return [
    {
      id: `carbon-short-${stage.id}`,
      severity: days < TOO_SHORT_DAYS ? 'bad' : 'mind',
      title: `${stage.name} lasts about ${say.days(days)} against ${bound ? 'chloramine' : 'chlorine'}`,
      why: `${say.of(state.litresNew, 'volumeL')} of feed at ${say.mgL(bound ? chloramine : chlorine)}, when new; ${say.perDay(litresPerDay)} go through ${inSentence(stage.name)}. ${bound ? (isCatalytic(stage.medium) ? 'Take several times the carbon, or two in a row' : 'Chloramine counts fivefold: take catalytic carbon, or several times as much') : 'Take a larger one, or two in a row'}, and test behind it.`,
    },
  ];
}

/** What fills it: a block by its litres, granules cheaper by the litre. */
const carbonPrice = ({ volumeL, medium }: Pick<z.infer<typeof schema>, 'volumeL' | 'medium'>, { carbonPerL }: PartPrices): number =>
  volumeL * carbonPerL * (isLoose(medium) ? GRANULAR_SHARE : 1) * (isCatalytic(medium) ? CATALYTIC_TIMES : 1);

export const carbon = defineStage(schema, {
  kind: 'carbon',
  label: 'Carbon',
  says: 'Takes chlorine and chloramine',
  place: 3,
  defaults: {
    kind: 'carbon',
    name: 'Carbon',
    medium: 'block',
    volumeL: 0.5,
    ratedL: 11_000,
    ratedAgainst: 'chlorine',
    cleanLossBar: 0.1,
    loading: 0.1,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: () => 'traces',
  prefilter: true,
  inUses: true,
  holdsScale: holdsNothing,
  treat: (stage, { water, flowLPerH, use }) => {
    const asUsed = { ...stage, passedL: use.passedL ?? 0 };
    const flow = Math.max(flowLPerH, SLOWEST_L_PER_H);
    // Chloramine breaks slower in alkaline water; of free chlorine nobody has to know the pH.
    const state = water.mgL.chloramine > 0 ? settleWater(water) : null;
    return ok({
      water: dechlorinated(asUsed, water, flow, state?.ok ? state.value.pH : undefined),
      carbon: carbonState(asUsed, water, flow),
    });
  },
  slopeBar: ({ cleanLossBar, loading }, _flow, temperatureC) => prefilterBarPerLPerH({ cleanLossBar, loading }, temperatureC),
  riseBar: zero,
  holdsBar: ({ volumeL }) => (volumeL < CARTRIDGE_SIZED_L ? HOUSING_BAR : VESSEL_BAR),
  breaksPressure: neverOpen,
  // Carbon and the water in it weigh about a kilogram and a half a litre, the housing a kilogram.
  mounting: ({ volumeL }) => ({ wetKg: 1 + 1.5 * volumeL, wallM: volumeL < 3 ? 0.14 : 0.35 }),
  price: carbonPrice,
  costLine: 'carbon',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: ({ volumeL }, { piece }) => (volumeL < CARTRIDGE_SIZED_L ? piece('filterHousing') : piece(vesselFor(volumeL))),
  worn: asFitted,
  renewed: (stage) => ({ ...stage, loading: 0 }),
  dirtPassed: allPasses,
  steps: filterFlush,
  plumbed: ({ volumeL }) => threaded(vesselThread(volumeL)),
  tools: none,
  partGroup: 'filters',
  parts: ({ medium, volumeL }, { prices, units }) => [
    {
      part: `carbon-${medium}-${volumeL}`,
      name: `${MEDIUM_WORDS[medium]}, ${formatQuantity(volumeL, 'volumeL', units).text}`,
      why: 'one in its housing',
      count: 1,
      each: carbonPrice({ volumeL, medium }, prices),
      wearsDays: volumeL < CARTRIDGE_SIZED_L ? HALF_YEAR_DAYS : BED_DAYS,
    },
    volumeL < CARTRIDGE_SIZED_L
      ? housing('for the carbon')
      : { part: 'carbon-vessel', name: 'Carbon vessel with its head', why: 'for the granules', count: 1 },
  ],
  upkeep: (stage, standing) => {
    const carbon = standing?.carbon;
    const litres = carbon?.litresNew != null ? { litresLeft: carbon.litresLeft ?? carbon.litresNew, litresNew: carbon.litresNew } : {};
    return [{ says: 'change', work: 'changed', afterDays: stage.volumeL < CARTRIDGE_SIZED_L ? HALF_YEAR_DAYS : BED_DAYS, ...litres }];
  },
  faults: () => ['carbonSpent', 'chloramineThrough', 'prefilter'],
  wears: { years: 0.75, causes: ['carbonSpent'] },
  raises: [],
  findings: (standing) => [...findings(standing), ...tooSmall(standing)],
  facts: ({ worn, carbon: state, units }) =>
    state
      ? [
          ['Contact time', `${state.contactTimeS.toFixed(0)} s`],
          ...(isCatalytic(worn.medium) && state.usedShare > 0
            ? [['Of broken chloramine comes back as ammonia', `${Math.round(100 * ammoniaShare(Infinity))} to 100${THIN}%`] as const]
            : []),
          ['Capacity used', formatQuantity(state.usedShare, 'fraction', units).text],
          ['Lasts', state.litresLeft === null ? 'nothing to remove' : `${formatQuantity(state.litresLeft, 'volumeL', units).text} of feed`],
        ]
      : [],
  fill: ({ worn, carbon: state }) => Math.max(worn.loading, state?.usedShare ?? 0),
  fields: (stage) => ({
    choices: [
      field.choice(stage, 'medium', 'Medium', MEDIA),
      field.choice(stage, 'ratedAgainst', 'What its litres are printed against', RATINGS),
    ],
    quantities: [
      field.quantity(stage, 'volumeL', 'Volume of carbon', { unit: 'L' }),
      ...(stage.ratedAgainst === 'nothing' ? [] : [field.quantity(stage, 'ratedL', 'Printed litres')]),
      field.quantity(stage, 'loading', 'Clogged by', { unit: '%' }),
      field.quantity(stage, 'cleanLossBar', 'Loss when clean, 1 gal/min'),
    ],
  }),
  folded: 'More',
});
