import { z } from 'zod';
import { finalFilterLitres, finalFilterLossBar, holdLeakMlPerMin } from '../pretreatment';
import { formatQuantity, inSentence, maybe, measured, percent, THIN, words } from '../quantity';
import { HOUSING_BAR } from './cartridge';
import { keysOf } from './field';
import {
  allPasses,
  anyStage,
  defineStage,
  fitted,
  neverOpen,
  none,
  noPrice,
  unchanged,
  zero,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { housing } from './part';
import { FLOOD, seen } from './step';

const schema = z.strictObject({
  kind: z.literal('finalFilter'),
  ...anyStage,
  /** Pores of its skin. */
  micron: measured('poreUm', 0.02, 1),
  /** Loss when clean, at a flow and 25 °C, as its sheet prints it. */
  cleanLossBar: measured('pressureBar', 0.001, 1),
  atLPerH: measured('flowLPerH', 1, 100_000),
  /** Litres that block it: by its label, or found from two readings. */
  blockedAtL: measured('volumeL', 100, 100_000_000),
  /** Loss at which it is changed. */
  limitBar: measured('pressureBar', 0.1, 5),
  /** Share of those litres that has passed; null where the log speaks. */
  usedShare: maybe(measured('fraction', 0, 0.98)),
  ...fitted,
});
type FinalFilter = z.infer<typeof schema>;
const field = keysOf<FinalFilter>(schema.shape);

/** Beyond this the law has no loss to give. */
const MOST_USED = 0.98;
/** Germs grow through a wet one, whatever its loss (common practice: 6 to 12 months), days. */
const YEAR_DAYS = 365;
/** Gas that diffuses through a whole 10-inch cartridge, mL a minute; ten times as much is a hole (common practice). */
const DIFFUSES_ML_PER_MIN = 20;
/** A pressure hold as it is done by hand: gas in the housing, minutes, fall a gauge shows. */
const HOLD = { gasL: 2, minutes: 5, fallMbar: 20 } as const;

/** A skin of a fraction of a micrometre at the very end: what it lets through is clear of germs while it is whole. */
export const finalFilter = defineStage(schema, {
  kind: 'finalFilter',
  label: 'Final filter',
  says: 'Holds germs and fines back at the end',
  place: 13,
  defaults: {
    kind: 'finalFilter',
    name: 'Final filter',
    micron: 0.2,
    cleanLossBar: 0.07,
    atLPerH: 600,
    blockedAtL: 100_000,
    limitBar: 1,
    usedShare: null,
    fittedOn: null,
  },
  form: 'cartridge',
  touches: () => 'nothing',
  prefilter: false,
  inUses: true,
  holdsScale: holdsNothing,
  treat: unchanged,
  slopeBar: ({ cleanLossBar, atLPerH, usedShare }, _flow, temperatureC) =>
    finalFilterLossBar({ bar: cleanLossBar, atLPerH }, 1, temperatureC, usedShare ?? 0),
  riseBar: zero,
  holdsBar: () => HOUSING_BAR,
  breaksPressure: neverOpen,
  mounting: () => ({ wetKg: 2, wallM: 0.12 }),
  price: noPrice,
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: (_stage, { piece }) => piece('filterHousing'),
  worn: (stage, { passedL }) =>
    stage.usedShare !== null || passedL === undefined ? stage : { ...stage, usedShare: Math.min(MOST_USED, passedL / stage.blockedAtL) },
  renewed: (stage) => ({ ...stage, usedShare: null }),
  dirtPassed: allPasses,
  steps: ({ id, name, micron }, { units }) => [
    {
      id: `wet-${id}`,
      act: 'flushCartridge',
      place: 'cartridges',
      title: `Wet ${inSentence(name)} and flush it, ${formatQuantity(10, 'volumeL', units).text}`,
      before: 'What stands ahead of it runs clear.',
      how: 'Fill it slowly with its vent open until no bubble comes, then flush to the drain. Look at its O-rings, write down the day.',
      minutes: 10,
      cautions: [FLOOD],
      measures: [seen('runs', 'It runs, and no air stands in it', 'Air held by a wet skin lets nothing through: vent it, wet it again.')],
    },
    {
      id: `hold-${id}`,
      act: 'flushCartridge',
      place: 'cartridges',
      title: `Hold ${inSentence(name)} under air, where its claim matters`,
      how: `Four fifths of its bubble point (about ${formatQuantity(3.3, 'pressureBar', units).text} at ${formatQuantity(0.2, 'poreUm', units).text}, in proportion to one over the pore of ${formatQuantity(micron, 'poreUm', units).text}), shut off, five minutes. A fall of ${HOLD.fallMbar}${THIN}mbar over ${HOLD.gasL}${THIN}L of gas is ${holdLeakMlPerMin(HOLD.fallMbar, HOLD.minutes, HOLD.gasL).toFixed(0)}${THIN}mL a minute; up to ${DIFFUSES_ML_PER_MIN} diffuse through a whole one.`,
      minutes: 10,
      measures: [seen('whole', 'It holds', 'Ten times that is a hole: wet it again, look at the O-rings, then exchange it.')],
    },
  ],
  plumbed: () => threaded('1/4'),
  tools: none,
  partGroup: 'filters',
  parts: ({ micron }, { units }) => [
    {
      part: `final-${micron}`,
      name: `Final filter cartridge, ${formatQuantity(micron, 'poreUm', units).text}`,
      why: 'one in its housing',
      count: 1,
      wearsDays: YEAR_DAYS,
    },
    housing('for the final filter'),
  ],
  upkeep: ({ blockedAtL, cleanLossBar, atLPerH, limitBar, usedShare }, standing) => {
    const flow = standing?.before.flowLPerH ?? atLPerH;
    const clean = finalFilterLossBar({ bar: cleanLossBar, atLPerH }, flow, standing?.before.water.temperatureC ?? 25, 0);
    const litresNew = finalFilterLitres(blockedAtL, clean, limitBar);
    const left = litresNew > 0 ? { litresNew, litresLeft: Math.max(0, litresNew - (usedShare ?? 0) * blockedAtL) } : {};
    return [{ says: 'change', work: 'changed', afterDays: YEAR_DAYS, ...left }];
  },
  faults: () => ['prefilter'],
  wears: { years: 1, causes: ['prefilter'] },
  raises: [],
  findings: ({ stage, before, units }) => {
    if (!(before.flowLPerH > 0)) return [];
    const { cleanLossBar, atLPerH, usedShare, limitBar } = stage;
    const now = finalFilterLossBar({ bar: cleanLossBar, atLPerH }, before.flowLPerH, before.water.temperatureC, usedShare ?? 0);
    if (now <= limitBar) return [];
    const say = words(units);
    return [
      {
        id: `final-${stage.id}`,
        severity: 'mind',
        title: `${stage.name} takes ${say.of(now, 'pressureBar')}, it is changed at ${say.of(limitBar, 'pressureBar')}`,
        why: `At ${say.of(before.flowLPerH, 'flowLPerH')}${usedShare ? `, ${percent(usedShare)} of what it can pass used` : ''}. A new cartridge, or a second one beside it.`,
      },
    ];
  },
  facts: ({ worn, units }) => [
    ['Changed at a loss of', formatQuantity(worn.limitBar, 'pressureBar', units).text],
    ['Of what it can pass used', percent(worn.usedShare ?? 0)],
  ],
  fill: ({ worn }) => worn.usedShare ?? 0,
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'micron', 'Pores'),
      field.quantity(stage, 'cleanLossBar', 'Loss when clean'),
      field.quantity(stage, 'atLPerH', 'at a flow of'),
      field.quantity(stage, 'blockedAtL', 'Blocked after'),
      field.quantity(stage, 'limitBar', 'Changed at a loss of', { folded: true }),
      field.quantity(stage, 'usedShare', 'Used so far', { unit: '%', empty: 'by the log', folded: true }),
    ],
  }),
  folded: 'Its end',
});
