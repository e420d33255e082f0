import { z } from 'zod';
import { calcitePickup } from '../exchange';
import { inSentence, measured, ok } from '../quantity';
import { cartridgeSlopeBar, mineralCartridge, SLOWEST_L_PER_H, HOUSING_BAR, vesselThread } from './cartridge';
import { keysOf } from './field';
import { allPasses, anyStage, asFitted, defineStage, fitted, neverOpen, none, zero, keepsAll, holdsNothing, threaded } from './kind';
import { seen } from './step';
import { housing } from './part';

const schema = z.strictObject({
  kind: z.literal('calcite'),
  ...anyStage,
  volumeL: measured('volumeL', 0.05, 1000),
  ...fitted,
});
const field = keysOf<z.infer<typeof schema>>(schema.shape);

export const calcite = defineStage(schema, {
  kind: 'calcite',
  label: 'Calcite bed',
  says: 'Gives pure water some lime back',
  place: 9,
  defaults: { kind: 'calcite', name: 'Calcite bed', volumeL: 2, fittedOn: null },
  form: 'cartridge',
  touches: () => 'minerals',
  prefilter: false,
  inUses: true,
  holdsScale: holdsNothing,
  treat: ({ volumeL }, { water, flowLPerH }) => {
    const picked = calcitePickup(water, (60 * volumeL) / Math.max(flowLPerH, SLOWEST_L_PER_H));
    return picked.ok ? ok({ water: picked.value.water }) : picked;
  },
  slopeBar: cartridgeSlopeBar,
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: mineralCartridge,
  price: ({ volumeL }, { calcitePerL }) => volumeL * calcitePerL,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('filterHousing'),
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: ({ id, name }) => [
    {
      id: `calcite-${id}`,
      act: 'rinse',
      place: 'cartridges',
      title: `Rinse the fines out of ${inSentence(name)}`,
      how: 'To the drain until it runs clear; the first litres are hard and cloudy.',
      minutes: 10,
      measures: [seen('clear', 'Runs clear', 'Rinse on; fines that stay cloud the tank and block the next filter.')],
    },
  ],
  plumbed: ({ volumeL }) => threaded(vesselThread(volumeL)),
  tools: none,
  partGroup: 'cartridges',
  parts: ({ volumeL }, { prices }) => [
    { part: 'calcite', name: 'Calcite', why: 'fills the bed', count: volumeL, unit: 'L', each: prices.calcitePerL, wearsDays: 365 },
    housing('for the calcite'),
  ],
  upkeep: () => [{ says: 'change', work: 'changed', afterDays: 365 }],
  faults: none,
  wears: null,
  raises: [],
  findings: none,
  facts: none,
  fill: zero,
  fields: (stage) => ({ choices: [], quantities: [field.quantity(stage, 'volumeL', 'Volume of calcite', { unit: 'L' })] }),
  folded: 'More',
});
