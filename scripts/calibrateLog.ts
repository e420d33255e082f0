/**
 * How truly the log tells of membranes and resins whose truth is known: 200 seeded logs, 800 cartridges, 1200 keepers of
 * resin with their habits, 120 years with a trouble in them. Run with
 * `npm run calibration`; fails where a figure leaves what it must keep.
 */
import { FOUR_IN_FIVE_SD } from '../core/numeric';
import { KEPT, keptTally } from '../core/testing/seededKeepers';
import { resinTally, tally, troubleTally } from '../core/testing/seededLogs';

const LOGS = 200;
const CARTRIDGES = 800;
const KEEPERS = 300;
const TROUBLED = 120;
const seeds = (from: number, count: number): number[] => Array.from({ length: count }, (_, i) => from + i);
const logs = tally(seeds(1000, LOGS));
const resin = resinTally(seeds(5000, CARTRIDGES));
const kept = KEPT.map((of) => ({ of, ...keptTally(of, seeds(7000, KEEPERS)) }));
const troubles = troubleTally(seeds(9000, TROUBLED));

/** A figure, what it must keep to, and whether it does. */
const FIGURES: readonly { readonly says: string; readonly value: number; readonly low: number; readonly high: number }[] = [
  { says: 'share of logs with the output within its stated 80 % band', value: logs.waterInside / logs.waterOf, low: 0.72, high: 0.92 },
  { says: 'share of logs with the salt within its stated 80 % band', value: logs.saltInside / logs.saltOf, low: 0.72, high: 0.95 },
  { says: 'false steps told, a system and year', value: logs.falseAlarms / logs.years, low: 0, high: 1 },
  { says: 'share of unrecorded jumps found', value: logs.jumpsFound / logs.jumps, low: 0.7, high: 1 },
  {
    says: `share of ${logs.dates} dates for the membrane within their 80 % forecast`,
    value: logs.datesInside / logs.dates,
    low: 0.7,
    high: 0.9,
  },
  {
    says: `share of ${resin.cartridges} ends of resin within their 80 % forecast`,
    value: resin.inside / resin.cartridges,
    low: 0.7,
    high: 0.9,
  },
  ...kept.flatMap(({ of, forecasts, leftInside, datesOf, datesInside, lateDays, width }) => [
    {
      says: `${of}: share of ${forecasts} looks with what is left within its 80 % band`,
      value: leftInside / forecasts,
      low: 0.66,
      high: 0.9,
    },
    { says: `${of}: share of ${datesOf} dates within theirs, ± 1 day`, value: datesInside / datesOf, low: 0.7, high: 0.95 },
    { says: `${of}: days by which the middle of its dates is late, the median`, value: lateDays, low: -4, high: 4 },
    { says: `${of}: width of a date against the time left, the median`, value: width, low: 0.3, high: 1.3 },
  ]),
  { says: `share of ${troubles.scaled} scaling restrictors told`, value: troubles.scaledTold / troubles.scaled, low: 0.75, high: 1 },
  { says: 'share of still restrictors called scaling', value: troubles.stillCalledScaled / troubles.still, low: 0, high: 0.1 },
  { says: `share of ${troubles.oxidised} oxidations dated`, value: troubles.oxidisedTold / troubles.oxidised, low: 0.9, high: 1 },
  {
    says: `share of ${troubles.tapSteps} new meters and other supplies dated within two readings`,
    value: troubles.tapStepsDated / troubles.tapSteps,
    low: 0.8,
    high: 1,
  },
  { says: 'share of taps with two towns called a step', value: troubles.townsCalledSteps / troubles.towns, low: 0, high: 0.1 },
];
console.log(
  `${logs.logs} logs over ${logs.years.toFixed(0)} years; the output is told to ± ${(100 * FOUR_IN_FIVE_SD * logs.meanSd).toFixed(0)} % on the average`,
);
for (const { says, value, low, high } of FIGURES)
  console.log(`${value >= low && value <= high ? 'kept  ' : 'FAILED'}  ${value.toFixed(2)}  ${says}, ${low} to ${high}`);
if (FIGURES.some(({ value, low, high }) => !(value >= low && value <= high))) process.exit(1);
