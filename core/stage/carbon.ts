import { z } from 'zod';
import { CARBON_MEDIA, CHLORAMINE_COUNTS, carbonState, dechlorinated, prefilterBarPerLPerH } from '../pretreatment';
import { formatQuantity, inSentence, measured, ok, words } from '../quantity';
import { HALF_YEAR_DAYS, SLOWEST_L_PER_H, filterFlush, CARTRIDGE_SIZED_L } from './cartridge';
import { keysOf } from './field';
import type { Finding } from './finding';
import {
  allPasses,
  anyStage,
  asFitted,
  defineStage,
  fitted,
  inAndOut,
  neverOpen,
  none,
  zero,
  type PartPrices,
  type Standing,
} from './kind';
import { housing } from './part';
import { vesselFor } from './prices';

const schema = z.strictObject({
  kind: z.literal('carbon'),
  ...anyStage,
  medium: z.enum(CARBON_MEDIA),
  volumeL: measured('volumeL', 0.05, 1000),
  /** Litres it is sold for. */
  ratedL: measured('volumeL', 1, 10_000_000),
  /** Loss at 1 gal/min when clean. */
  cleanLossBar: measured('pressureBar', 0, 1),
  loading: measured('fraction', 0, 0.95),
  ...fitted,
});
const field = keysOf<z.infer<typeof schema>>(schema.shape);
const MEDIA = CARBON_MEDIA.map((value) => ({ title: value === 'block' ? 'Carbon block' : 'Granular carbon', value }));

/** A carbon that is new lasts this long at least, or it is told as a finding, days. */
const SHORT_DAYS = 60;
/** What granular carbon costs by the litre against a block (our estimate), and how long a bed serves at the most, days (common practice: a year). */
const GRANULAR_SHARE = 1 / 6;
const BED_DAYS = 365;
/** And at less than this it is no plan for anybody. */
const TOO_SHORT_DAYS = 21;

/** A carbon soon spent, by chlorine or by chloramine, which counts fivefold: no figure to be looked for in a panel. */
function findings({ stage, before, litresPerDay, units, carbon: state }: Standing<z.infer<typeof schema>>): Finding[] {
  if (!state || state.litresNew === null || !(litresPerDay > 0)) return [];
  const days = state.litresNew / litresPerDay;
  // One that lets it through from new is told where that does harm, not by its days.
  if (days >= SHORT_DAYS || state.litresNew === 0) return [];
  const say = words(units);
  const { chlorine, chloramine } = before.water.mgL;
  const bound = CHLORAMINE_COUNTS * chloramine > chlorine;
  return [
    {
      id: `carbon-short-${stage.id}`,
      severity: days < TOO_SHORT_DAYS ? 'bad' : 'mind',
      title: `${stage.name} lasts about ${say.days(days)} against ${bound ? 'chloramine' : 'chlorine'}`,
      why: `${say.of(state.litresNew, 'volumeL')} of feed at ${say.mgL(bound ? chloramine : chlorine)}, when new; ${say.perDay(litresPerDay)} go through ${inSentence(stage.name)}. ${bound ? 'Chloramine counts fivefold: take several times the carbon, catalytic if it is to be had' : 'Take a larger one, or two in a row'}, and test behind it.`,
    },
  ];
}

/** What fills it: a block by its litres, granules cheaper by the litre. */
const carbonPrice = ({ volumeL, medium }: Pick<z.infer<typeof schema>, 'volumeL' | 'medium'>, { carbonPerL }: PartPrices): number =>
  volumeL * carbonPerL * (medium === 'granular' ? GRANULAR_SHARE : 1);

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
    cleanLossBar: 0.1,
    loading: 0.1,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: 'traces',
  prefilter: true,
  inUses: true,
  holdsScaleTo: null,
  treat: (stage, { water, flowLPerH, use }) => {
    const asUsed = { ...stage, passedL: use.passedL ?? 0 };
    const flow = Math.max(flowLPerH, SLOWEST_L_PER_H);
    return ok({ water: dechlorinated(asUsed, water, flow), carbon: carbonState(asUsed, water, flow) });
  },
  slopeBar: ({ cleanLossBar, loading }, _flow, temperatureC) => prefilterBarPerLPerH({ cleanLossBar, loading }, temperatureC),
  riseBar: zero,
  breaksPressure: neverOpen,
  // Carbon and the water in it weigh about a kilogram and a half a litre, the housing a kilogram.
  mounting: ({ volumeL }) => ({ wetKg: 1 + 1.5 * volumeL, wallM: volumeL < 3 ? 0.14 : 0.35 }),
  price: carbonPrice,
  costLine: 'carbon',
  drainShare: zero,
  buys: ({ volumeL }, { piece }) => (volumeL < CARTRIDGE_SIZED_L ? piece('filterHousing') : piece(vesselFor(volumeL))),
  worn: asFitted,
  renewed: (stage) => ({ ...stage, loading: 0 }),
  dirtPassed: allPasses,
  steps: filterFlush,
  plumbed: inAndOut,
  tools: none,
  partGroup: 'filters',
  parts: ({ medium, volumeL }, { prices, units }) => [
    {
      part: `carbon-${medium}-${volumeL}`,
      name: `Carbon ${medium === 'block' ? 'block' : 'granules'}, ${formatQuantity(volumeL, 'volumeL', units).text}`,
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
  findings,
  facts: ({ carbon: state, units }) =>
    state
      ? [
          ['Contact time', `${state.contactTimeS.toFixed(0)} s`],
          ['Chlorine capacity used', formatQuantity(state.usedShare, 'fraction', units).text],
          [
            'Lasts, by chlorine',
            state.litresLeft === null ? 'nothing to remove' : `${formatQuantity(state.litresLeft, 'volumeL', units).text} of feed`,
          ],
        ]
      : [],
  fill: ({ worn, carbon: state }) => Math.max(worn.loading, state?.usedShare ?? 0),
  fields: (stage) => ({
    choices: [field.choice(stage, 'medium', 'Medium', MEDIA)],
    quantities: [
      field.quantity(stage, 'volumeL', 'Volume of carbon', { unit: 'L' }),
      field.quantity(stage, 'ratedL', 'Rated for'),
      field.quantity(stage, 'loading', 'Clogged by', { unit: '%' }),
      field.quantity(stage, 'cleanLossBar', 'Loss when clean, 1 gal/min'),
    ],
  }),
  folded: 'More',
});
