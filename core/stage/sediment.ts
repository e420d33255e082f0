import { z } from 'zod';
import { dirtLoading, loadingLitres, prefilterBarPerLPerH } from '../pretreatment';
import { formatQuantity, maybe, measured } from '../quantity';
import { HALF_YEAR_DAYS, filterFlush, HOUSING_BAR, LARGE_LOSS_BAR } from './cartridge';
import { keysOf } from './field';
import { allPasses, anyStage, defineStage, fitted, neverOpen, none, unchanged, zero, keepsAll, holdsNothing, threaded } from './kind';
import { housing } from './part';

const schema = z.strictObject({
  kind: z.literal('sediment'),
  ...anyStage,
  micron: measured('poreUm', 0.1, 200),
  /** Loss at 1 gal/min when clean. */
  cleanLossBar: measured('pressureBar', 0, 1),
  /** Null: from what has passed since it was fitted. */
  loading: maybe(measured('fraction', 0, 0.95)),
  /** Dirt it holds when full. */
  holdsG: measured('massG', 0.1, 10_000),
  ...fitted,
});
const field = keysOf<z.infer<typeof schema>>(schema.shape);

/** Dirt a 10-inch cartridge holds (our assumption): with usual water it lasts about the usual six months. */
export const SEDIMENT_HOLDS_G = 10;

/** So full of dirt it is changed (our default): beyond that it takes the pressure from all that follows. */
const FULL = 0.8;

export const sediment = defineStage(schema, {
  kind: 'sediment',
  label: 'Sediment filter',
  says: 'Keeps dirt from everything after it',
  place: 2,
  defaults: {
    kind: 'sediment',
    name: 'Sediment',
    micron: 5,
    cleanLossBar: 0.08,
    loading: null,
    holdsG: SEDIMENT_HOLDS_G,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: () => 'nothing',
  prefilter: true,
  inUses: true,
  holdsScale: holdsNothing,
  treat: unchanged,
  slopeBar: ({ cleanLossBar, loading }, _flow, temperatureC) => prefilterBarPerLPerH({ cleanLossBar, loading: loading ?? 0 }, temperatureC),
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: () => ({ wetKg: 3.2, wallM: 0.14 }),
  price: (_stage, { filter }) => filter,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('filterHousing'),
  worn: (stage, use, turbidityNTU) => ({
    ...stage,
    loading: stage.loading ?? dirtLoading(use.passedL ?? 0, turbidityNTU, stage.holdsG),
  }),
  renewed: (stage) => ({ ...stage, loading: null }),
  dirtPassed: allPasses,
  steps: ({ id, name }, around) => filterFlush({ id, name, volumeL: 0 }, around),
  plumbed: ({ cleanLossBar }) => threaded(cleanLossBar < LARGE_LOSS_BAR ? '3/4' : '1/4'),
  tools: none,
  partGroup: 'filters',
  parts: ({ micron }, { prices, units }) => [
    {
      part: `sediment-${micron}`,
      name: `Sediment cartridge, ${formatQuantity(micron, 'poreUm', units).text}`,
      why: 'one in its housing',
      count: 1,
      each: prices.filter,
      wearsDays: HALF_YEAR_DAYS,
    },
    housing('for the sediment cartridge'),
  ],
  upkeep: ({ loading, holdsG }, standing) => {
    // Dirt, where there is any to speak of, and the calendar: whichever comes first.
    const litresNew = standing && standing.turbidityNTU > 0 ? loadingLitres(FULL, standing.turbidityNTU, holdsG) : null;
    const left = litresNew === null ? {} : { litresNew, litresLeft: litresNew * Math.max(0, 1 - (loading ?? 0) / FULL) };
    return [{ says: 'change', work: 'changed', afterDays: HALF_YEAR_DAYS, ...left }];
  },
  faults: () => ['prefilter'],
  wears: { years: 0.5, causes: ['prefilter'] },
  raises: [],
  findings: none,
  facts: ({ worn, units }) => [['Full of dirt, by the log', formatQuantity(worn.loading ?? 0, 'fraction', units).text]],
  fill: ({ worn }) => worn.loading ?? 0,
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'micron', 'Pore size'),
      field.quantity(stage, 'loading', 'Clogged by', { unit: '%', empty: 'by the log' }),
      field.quantity(stage, 'cleanLossBar', 'Loss when clean, 1 gal/min'),
      field.quantity(stage, 'holdsG', 'Dirt it holds', { folded: true }),
    ],
  }),
  folded: 'More',
});
