import { allStages, feedPump, membraneStage, PRESERVED_DAYS, type System } from '../file';
import { elementCount } from '../membrane';
import { formatQuantity, words } from '../quantity';
import {
  elementRow,
  flushedUntil,
  kindOf,
  MAINS,
  PRESERVATIVE,
  PRODUCT_OPEN,
  seen,
  step,
  UNDER_PRESSURE,
  unitRanks,
  type Stage,
  type StageOf,
  type Step,
} from '../stage';
import type { Expected } from './expected';
import { inOrder, newBuild, type Asked } from './newBuild';
import { resinOut, shutOff } from './upgrade';
import { isBoat } from './hanging';
import { SINKING } from './wholeTrain';

const GLOVES = {
  title: 'Gloves and goggles',
  text: 'Preservative and antifreeze by their own sheet; never into drinking water, never into resin. Keep the open can out of small rooms.',
};
const KEEPS = {
  title: 'Frost bursts housings',
  text: 'Water left in a housing splits it below freezing. Where frost can come, ask the preservative’s sheet how low it keeps.',
};
const TESTED = {
  title: 'Nothing here is tasted',
  text: 'What runs to waste holds salt, germs and what was put in to preserve. A pen in a cup says whether it is fresh.',
};

/** Sodium metabisulfite in product water, a share (handbook of element makers: about 1 %, recalled). */
const STRENGTH = 0.01;
/** What a vessel holds beside its element, L for a square metre of it, and a prefilter housing, L (our assumptions). */
const PER_M2_L = 0.7;
const HOUSING_L = 1.2;
/** Hoses, and what goes by before it shows at the outlet: as much again in half. */
const MORE = 1.5;

/** Filters that stand ahead of the membrane. */
const prefilters = ({ train: { stages } }: { readonly train: Pick<System['train'], 'stages'> }, membrane: Stage): readonly Stage[] =>
  stages.slice(0, stages.indexOf(membrane)).filter((stage) => kindOf(stage).prefilter);

/** Preservative for one filling of this unit: litres of it, and grams of the salt in them. */
export function preservativeFor({ train: { stages } }: Pick<System, 'train'>): { readonly litres: number; readonly grams: number } | null {
  const membrane = membraneStage(stages);
  if (!membrane) return null;
  const elements = elementCount(unitRanks(membrane));
  const filters = prefilters({ train: { stages } }, membrane).length;
  const litres = Math.ceil(MORE * (elements * elementRow(membrane).areaM2 * PER_M2_L + filters * HOUSING_L));
  return { litres, grams: Math.round(1000 * STRENGTH * litres) };
}

const whole = (steps: readonly Step[]): Asked[] => steps.map((one) => ({ step: one, by: one.stageId === null ? [] : [one.stageId] }));

/** Strength at which what runs to waste counts as fresh, µS/cm: weak brackish water, no salt that grows crystals (our judgement). */
const FRESH_USCM = 3000;

/** A boat's flush with its own product, pump running slowly, and what shuts the sea out. */
const rinsedFresh = (system: System): Step[] => [
  step({
    id: 'fresh-flush',
    act: 'freshFlush',
    place: 'shutDown',
    title: 'Flush with product water',
    before: 'Its pump has power, the waste valve stands wide open.',
    how: `From the product tank, ${formatQuantity(FLUSH_L, 'volumeL', system.units).text} at low pressure. Shore water only through the flush carbon: its chlorine destroys the membrane. Hold the pen into what runs overboard.`,
    minutes: 10,
    waits: true,
    cautions: [TESTED, PRODUCT_OPEN],
    measures: [
      {
        id: 'wasteEc',
        label: 'Waste reads',
        dimension: 'conductivityUScm',
        expected: null,
        low: null,
        high: FRESH_USCM,
        doubt: { share: 0.05, least: 10 },
        because: 'sea water is about fifty thousand: what is left grows and corrodes',
        ifHigh: 'Flush on: a housing holds several litres.',
      },
    ],
  }),
];
const FLUSH_L = 20;

/** Put away for weeks or a winter: resin out of the path, preservative through filters and membrane until it shows at the concentrate, closed. */
export function putAway(system: System): Asked[] {
  const { stages } = system.train;
  const membrane = membraneStage(stages);
  const tanks = stages.filter(({ kind }) => kind === 'tank');
  const resin = stages.some(({ kind }) => kind === 'resin');
  const boat = isBoat(system);
  const steps: Step[] = [
    ...(boat ? rinsedFresh(system) : []),
    // A boat flushes by its own pump: the pressure goes after that.
    shutOff(system),
    ...(boat
      ? [
          step({
            id: 'strainer',
            act: 'strainer',
            place: 'shutDown',
            title: 'Sea cock shut, strainer emptied',
            before: 'The pump is off.',
            how: 'The sea cock stays shut until it is brought back. Open the strainer, empty and rinse it: what died in it rots.',
            minutes: 10,
            cautions: [SINKING],
            measures: [
              seen(
                'shut',
                'No sea water comes with the strainer open',
                'Close the strainer at once: the sea cock does not hold, and she is not left.',
              ),
            ],
          }),
        ]
      : []),
    ...resinOut(stages, 'Preservative ruins resin.'),
    ...(membrane ? preserving(system, membrane) : []),
    ...tanks.map((tank) =>
      step({
        id: `drain-${tank.id}`,
        act: 'drainDown',
        place: 'store',
        stageId: tank.id,
        title: `Empty ${tank.name.toLowerCase()} and leave it open`,
        how: 'Purified water that stands grows bacteria. Dry, lid ajar, its inlet shut off. Where antifreeze goes in instead, write it on the tag: a meter does not see it.',
        minutes: 15,
      }),
    ),
    step({
      id: 'close-up',
      act: 'closeUp',
      place: 'handOver',
      title: 'Close every port and write the day on it',
      before: membrane ? 'Preservative stands in filters and membrane.' : 'The pressure is out.',
      how: membrane
        ? `Caps on feed, product and waste. On the tag: preservative, its strength, today, flush before use${resin ? ', no resin until then' : ''}. It is renewed after ${PRESERVED_DAYS} days, or when a strip reads it below pH 3.`
        : 'Caps on both ends, upright, wet: resin that dries out is lost. On the tag: today.',
      minutes: 10,
      cautions: [KEEPS, ...(boat ? [SINKING] : [])],
      measures: [
        seen(
          'closed',
          'Every port is closed and the tag hangs on it',
          'An open port lets it dry out: an element that dried does not come back.',
        ),
      ],
    }),
  ];
  return inOrder(whole(steps), system);
}

/** Preservative through the emptied housing: the pump has power while it is needed, and none before or after. */
function preserving(system: System, membrane: StageOf<'membrane'>): Step[] {
  const { stages } = system.train;
  const { litres, grams } = preservativeFor(system)!;
  const filters = prefilters(system, membrane).length;
  const resin = stages.some(({ kind }) => kind === 'resin');
  const pumped = feedPump(stages) !== undefined;
  const membraneId = membrane.id;
  const say = words(system.units);
  return [
    ...(filters > 0
      ? [
          step({
            id: 'empty-housing',
            act: 'emptyHousing',
            place: 'membrane',
            stageId: membraneId,
            title: 'Empty the prefilter housing, its cartridge out',
            before: 'The pressure is out.',
            how: 'Pour it out and throw the old cartridge away: preservative on water that stands is weaker than its sheet says.',
            minutes: 5,
            cautions: [UNDER_PRESSURE],
          }),
        ]
      : []),
    ...(pumped
      ? [
          step({
            id: 'plug-in',
            act: 'plugIn',
            place: 'membrane',
            stageId: membraneId,
            title: 'Give the pump power again',
            before: 'The waste valve stands wide open and the product has a way out.',
            how: 'Not yet running. Dry hands, and nobody at an open housing while it runs.',
            minutes: 1,
            cautions: [MAINS],
          }),
        ]
      : []),
    step({
      id: 'preservative-in',
      act: 'preservativeIn',
      place: 'membrane',
      stageId: membraneId,
      title: 'Preservative in, until it shows at the concentrate outlet',
      before: `${resin ? 'Resin stands aside, product' : 'Product'} leads ${isBoat(system) ? 'overboard' : 'to the drain'}.`,
      how: `About ${say.of(litres, 'volumeL')} for this unit: ${grams} g of food-grade sodium metabisulfite in product water, 1 %; another preservative as its sheet says. Into ${filters > 0 ? 'the empty prefilter housing' : 'the feed line'} and on at low pressure, valve open, until the concentrate foams or shows it on a strip.`,
      minutes: 20,
      cautions: resin ? [GLOVES, PRESERVATIVE] : [GLOVES],
      measures: [seen('shows', 'It shows at the concentrate outlet', 'More of it: what comes first is the water that stood inside.')],
    }),
    ...(pumped
      ? [
          step({
            id: 'unplug',
            act: 'unplug',
            place: 'membrane',
            stageId: membraneId,
            title: 'Unplug the pump',
            before: 'The preservative stands in the membrane.',
            how: 'It stays unplugged until the unit is brought back: started against closed ports it bursts them.',
            minutes: 1,
            cautions: [MAINS],
            measures: [seen('off', 'The pump has no power', 'Pull the plug or its fuse, and hang the tag on it.')],
          }),
        ]
      : []),
  ];
}

/** Back into service: what preserved it is flushed away before resin goes back; then the figures again. */
export function bringBack(system: System, expected: Expected | null): Asked[] {
  const kept = new Set([
    'linePressure',
    'prime',
    'reliefFree',
    'hoses',
    'openValve',
    'flushFilters',
    'flushPreservative',
    'leaks',
    'purge',
    'raisePressure',
    'lookAgain',
    'taste',
    'setValves',
    'pack',
    'rinse',
    'tryFloat',
    'fill',
    'circulate',
    'light',
    'bleed',
    'baseline',
    'flushCartridge',
  ]);
  const again = newBuild(system, expected)
    .filter(({ step: { act } }) => kept.has(act))
    .map(({ step: one, by }): Asked => {
      if (one.act === 'flushFilters')
        return {
          by,
          step: {
            ...one,
            title: 'New filters in, flush them 10 min',
            before: 'The line to the membrane is off and leads to the drain.',
            how: `What stood in preservative is thrown away. To the drain before the membrane, until ${flushedUntil(allStages(system.train).some(({ kind }) => kind === 'carbon'))}.`,
          },
        };
      if (one.act === 'flushPreservative')
        return {
          by,
          step: {
            ...one,
            title: one.title.replace('Flush', 'Flush the preservative out of'),
            how: 'Waste and product both to the drain until nothing foams or smells; 45 minutes are usual.',
          },
        };
      if (one.act === 'pack')
        return {
          by,
          step: {
            ...one,
            title: one.title.replace('Pack and fit', 'Put back'),
            how: 'Off with its caps. If it dried or smells, it is exchanged.',
          },
        };
      return { by, step: one };
    });
  const tanks = system.train.stages.filter(({ kind }) => kind === 'tank');
  const washed = tanks.map((tank) =>
    step({
      id: `wash-${tank.id}`,
      act: 'drainDown',
      place: 'connect',
      stageId: tank.id,
      title: `Wash ${tank.name.toLowerCase()} before water goes in`,
      how: 'Brush and rinse it; disinfect it where people drink from it, by your local rules, and rinse until nothing smells.',
      minutes: 20,
    }),
  );
  return inOrder([...whole(washed), ...again], system);
}
