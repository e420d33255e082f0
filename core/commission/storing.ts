import { membraneStage, type System } from '../file';
import { kindOf, PRESERVATIVE, seen, step, type Step } from '../stage';
import type { Expected } from './expected';
import { inOrder, newBuild, type Asked } from './newBuild';
import { resinOut, shutOff } from './upgrade';
import { isBoat } from './hanging';

const GLOVES = {
  title: 'Gloves and goggles',
  text: 'Preservative and antifreeze by their own sheet; never into drinking water, never into resin. Keep the open can out of small rooms.',
};
const KEEPS = {
  title: 'Frost bursts housings',
  text: 'Water left in a housing splits it below freezing. Where frost can come, ask the preservative’s sheet how low it keeps.',
};

const whole = (steps: readonly Step[]): Asked[] => steps.map((one) => ({ step: one, by: one.stageId === null ? [] : [one.stageId] }));

/** Put away for weeks or a winter: resin out of the path, preservative through filters and membrane until it shows at the concentrate, closed. */
export function putAway(system: System): Asked[] {
  const { stages } = system.train;
  const membrane = membraneStage(stages);
  const filters = stages.slice(0, membrane ? stages.indexOf(membrane) : 0).filter((stage) => kindOf(stage).prefilter);
  const tanks = stages.filter(({ kind }) => kind === 'tank');
  const boat = isBoat(system);
  const steps: Step[] = [
    ...(boat
      ? [
          step({
            id: 'fresh-flush',
            act: 'freshFlush',
            place: 'shutDown',
            title: 'Flush with fresh water free of chlorine',
            how: 'Valve wide open, no pressure. From the tank through carbon, until the waste tastes of nothing: salt water left inside grows and corrodes.',
            minutes: 10,
            waits: true,
            measures: [seen('fresh', 'The waste runs fresh', 'Flush on: a housing holds several litres.')],
          }),
        ]
      : []),
    // A boat flushes by its own pump: the pressure goes after that.
    shutOff(),
    ...resinOut(stages, 'Preservative ruins resin.'),
    ...(membrane
      ? [
          step({
            id: 'preservative-in',
            act: 'preservativeIn',
            place: 'membrane',
            stageId: membrane.id,
            title: 'Preservative in, until it shows at the concentrate outlet',
            before: stages.some(({ kind }) => kind === 'resin')
              ? 'Resin stands aside, product leads to the drain.'
              : 'Product leads to the drain.',
            how: `Mixed as its sheet says, into ${filters.length > 0 ? 'the empty prefilter housing' : 'the feed line'} and on at low pressure, valve open, until the concentrate foams or shows it on a strip.`,
            minutes: 20,
            cautions: [GLOVES, PRESERVATIVE],
            measures: [seen('shows', 'It shows at the concentrate outlet', 'More of it: what comes first is the water that stood inside.')],
          }),
        ]
      : []),
    ...tanks.map((tank) =>
      step({
        id: `drain-${tank.id}`,
        act: 'drainDown',
        place: 'store',
        stageId: tank.id,
        title: `Empty ${tank.name.toLowerCase()} and leave it open`,
        how: 'Purified water that stands grows bacteria. Dry, lid ajar, float valve shut off. Where antifreeze goes in instead, write it on the tag: a meter does not see it.',
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
        ? 'Caps on feed, product and waste. On the tag: preservative, its strength, today, flush before use, no resin until then.'
        : 'Caps on both ends, upright, wet: resin that dries out is lost. On the tag: today.',
      minutes: 10,
      cautions: [KEEPS],
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
    'raisePressure',
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
            how: 'What stood in preservative is thrown away. To the drain before the membrane, until no black carbon dust shows.',
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
