import { z } from 'zod';
import { dirtLoading, prefilterBarPerLPerH } from '../pretreatment';
import { formatQuantity, inSentence, measured, percent } from '../quantity';
import { HOUSING_BAR } from './cartridge';
import { keysOf } from './field';
import { anyStage, defineStage, fitted, neverOpen, noPrice, unchanged, zero, none, keepsAll, holdsNothing, threaded } from './kind';
import { FLOOD, seen } from './step';

const schema = z.strictObject({
  kind: z.literal('spinDown'),
  ...anyStage,
  /** Opening of its mesh. */
  micron: measured('poreUm', 10, 500),
  /** Loss at 1 gal/min when clean. */
  cleanLossBar: measured('pressureBar', 0, 1),
  /** Share of the dirt in the water that is too coarse for the mesh. */
  caughtShare: measured('fraction', 0, 1),
  /** Dirt on the mesh and in the bowl when it passes next to nothing. */
  holdsG: measured('massG', 0.1, 10_000),
  /** From one rinse to the next. */
  rinseEveryDays: z.int().min(1).max(365),
  /** Dirt on the mesh before a rinse; set from what passes by its use. */
  loading: measured('fraction', 0, 0.95),
  ...fitted,
});
type SpinDown = z.infer<typeof schema>;
const field = keysOf<SpinDown>(schema.shape);

/** Filled to this before it is rinsed, it takes pressure from all that follows (our default). */
const RINSE_SOONER = 0.8;

/** How full the mesh is before a rinse, 0–0.95, at so many litres a day. */
const filled = ({ caughtShare, holdsG, rinseEveryDays }: SpinDown, litresPerDay: number, turbidityNTU: number): number =>
  dirtLoading(litresPerDay * rinseEveryDays, turbidityNTU * caughtShare, holdsG);

/** A mesh in a clear bowl against rust and sand: a valve under it is opened and the line's own water washes it clean. */
export const spinDown = defineStage(schema, {
  kind: 'spinDown',
  label: 'Spin-down filter',
  says: 'Catches rust and sand, rinsed by a valve',
  place: 1,
  defaults: {
    kind: 'spinDown',
    name: 'Spin-down filter',
    micron: 100,
    cleanLossBar: 0.03,
    // Rust and sand are coarse, what clouds a mains is fine: half is our assumption until a jar has stood overnight.
    caughtShare: 0.5,
    holdsG: 20,
    rinseEveryDays: 14,
    loading: 0,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: () => 'nothing',
  prefilter: true,
  inUses: false,
  holdsScale: holdsNothing,
  treat: unchanged,
  slopeBar: ({ cleanLossBar, loading }, _flow, temperatureC) => prefilterBarPerLPerH({ cleanLossBar, loading }, temperatureC),
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: () => ({ wetKg: 1.6, wallM: 0.12 }),
  price: noPrice,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('filterHousing'),
  worn: (stage, { passedL, years }, turbidityNTU) =>
    passedL === undefined || !years ? stage : { ...stage, loading: filled(stage, passedL / (365.25 * years), turbidityNTU) },
  renewed: (stage) => ({ ...stage, loading: 0 }),
  dirtPassed: ({ caughtShare }) => 1 - caughtShare,
  steps: ({ id, name }) => [
    {
      id: `spinDown-${id}`,
      act: 'flushCartridge',
      place: 'rinse',
      title: `Rinse ${inSentence(name)} once`,
      how: 'Lead its drain valve to a bucket or the drain. Under full pressure open it wide for a few seconds, shut it, and look at the mesh.',
      minutes: 5,
      cautions: [FLOOD],
      measures: [
        seen('clean', 'The mesh is clean and the valve shuts tight', 'Rinse again; a valve that drips is opened and its seat wiped.'),
      ],
    },
  ],
  plumbed: () => threaded('3/4'),
  tools: none,
  partGroup: 'filters',
  parts: ({ micron }, { units }) => [
    {
      part: `spindown-${micron}`,
      name: `Spin-down filter, ${formatQuantity(micron, 'poreUm', units).text} mesh, drain valve`,
      why: 'one, ahead of all else',
      count: 1,
    },
  ],
  upkeep: ({ rinseEveryDays }) => [{ says: 'rinse', work: 'rinsed', everyDays: rinseEveryDays }],
  faults: () => ['prefilter'],
  wears: { years: 1, causes: ['prefilter'] },
  raises: [],
  findings: ({ stage }) =>
    stage.loading < RINSE_SOONER
      ? []
      : [
          {
            id: `spinDown-${stage.id}`,
            severity: 'mind',
            title: `${stage.name} is ${percent(stage.loading)} full before it is rinsed`,
            why: `By the litres of its log. Rinse it more often than every ${stage.rinseEveryDays} days: what clogs takes the pressure from all that follows.`,
          },
        ],
  facts: ({ worn, units }) => [
    ['Full before a rinse', formatQuantity(worn.loading, 'fraction', units).text],
    ['Dirt that goes on', percent(1 - worn.caughtShare)],
  ],
  fill: ({ worn }) => worn.loading,
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'micron', 'Mesh'),
      field.quantity(stage, 'rinseEveryDays', 'Rinsed every, days'),
      field.quantity(stage, 'cleanLossBar', 'Loss when clean, 1 gal/min'),
      field.quantity(stage, 'caughtShare', 'Catches, of the dirt', { unit: '%', folded: true }),
      field.quantity(stage, 'holdsG', 'Dirt it holds', { folded: true }),
      field.quantity(stage, 'loading', 'Clogged by', { unit: '%', folded: true }),
    ],
  }),
  folded: 'Dirt',
});
