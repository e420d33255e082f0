import { z } from 'zod';
import { restrictorPressureBar } from '../membrane';
import { measured } from '../quantity';
import { BAR_PER_METRE } from './cartridge';
import { keysOf } from './field';
import {
  allPasses,
  anyStage,
  asFitted,
  defineStage,
  neverOpen,
  none,
  noPrice,
  unchanged,
  zero,
  inAndOut,
  keepsAll,
  holdsNothing,
} from './kind';

const schema = z.strictObject({
  kind: z.literal('tubing'),
  ...anyStage,
  boreMm: measured('lengthMm', 1, 100),
  lengthM: measured('lengthMm', 0, 1000, 1000),
  riseM: measured('lengthMm', -50, 50, 1000),
});
const field = keysOf<z.infer<typeof schema>>(schema.shape);

/** A run of tubing long or high enough to cost pressure. */
export const tubing = defineStage(schema, {
  kind: 'tubing',
  label: 'Long tubing',
  says: 'Length, bore and height that cost pressure',
  place: 11,
  defaults: { kind: 'tubing', name: 'Tubing', boreMm: 4.3, lengthM: 10, riseM: 0 },
  form: 'line',
  touches: () => 'nothing',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: unchanged,
  slopeBar: ({ boreMm, lengthM }, flowLPerH, temperatureC) =>
    flowLPerH > 0 ? restrictorPressureBar({ boreMm, lengthMm: 1000 * lengthM }, flowLPerH, temperatureC) / flowLPerH : 0,
  riseBar: ({ riseM }) => riseM * BAR_PER_METRE,
  breaksPressure: neverOpen,
  // The water in it; it hangs on clips along its way.
  mounting: ({ boreMm, lengthM }) => ({ wetKg: (Math.PI / 4) * (boreMm / 1000) ** 2 * lengthM * 1000, wallM: 0 }),
  price: noPrice,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: zero,
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: none,
  plumbed: ({ lengthM }) => ({ ...inAndOut(), tubeMm: 1000 * lengthM }),
  tools: none,
  partGroup: 'tubing',
  parts: none,
  upkeep: none,
  faults: () => ['backPressure'],
  wears: null,
  raises: ['backPressure', 'swapped'],
  findings: none,
  facts: none,
  fill: zero,
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'boreMm', 'Inner bore', { unit: 'mm' }),
      field.quantity(stage, 'lengthM', 'Length', { unit: 'm' }),
      field.quantity(stage, 'riseM', 'Climbs by', { unit: 'm' }),
    ],
  }),
  folded: 'More',
});
