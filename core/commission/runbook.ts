import { flushL } from '../exchange';
import { inSentence } from '../train';
import { allStages, type Stage, type StageOf, type System } from '../file';
import { formatQuantity, THIN } from '../quantity';

/** A warning that stands where the hand is about to do the thing. */
export interface Caution {
  readonly title: string;
  readonly text: string;
}

export interface Step {
  readonly id: string;
  readonly title: string;
  readonly how: string;
  /** Time it usually takes, min. */
  readonly minutes: number;
  /** Steps with their own tool on the page. */
  readonly tool: 'ratio' | 'trim' | 'ratioAgain' | null;
  readonly cautions: readonly Caution[];
}

export interface RunbookSection {
  readonly title: string;
  readonly steps: readonly Step[];
}

const step = (
  id: string,
  title: string,
  how: string,
  minutes: number,
  cautions: readonly Caution[] = [],
  tool: Step['tool'] = null,
): Step => ({
  id,
  title,
  how,
  minutes,
  tool,
  cautions,
});

const LOCAL_CODE: Caution = {
  title: 'Local codes come first',
  text: 'Plumbing to the mains and anything at mains voltage follows your local code and belongs to licensed trades where it says so.',
};
const FLOOD: Caution = {
  title: 'Stay with it',
  text: 'The first hour under pressure is when fittings let go. Never leave it unattended; know where the stopcock is.',
};
const PRESERVATIVE: Caution = {
  title: 'Keep resin out of this water',
  text: 'Preservative from a new membrane ruins resin. Product stays on the drain until the resin is fitted. Wear gloves; never drink it.',
};
const FLOAT: Caution = {
  title: 'A tank needs a float valve',
  text: 'Without an automatic shut-off somebody floods the room. Set and try it before the tank is full.',
};
const HEAVY: Caution = {
  title: 'Wet is heavy',
  text: 'A vessel full of wet resin weighs several times its look. Two hands, or two people.',
};
const CUT: Caution = {
  title: 'A cut cannot be undone',
  text: 'Take a tenth at most, run ten minutes, measure, cut again. If the end of the tube comes first, fit a larger restrictor.',
};

const ofKind = <K extends Stage['kind']>(stages: readonly Stage[], kind: K): StageOf<K>[] =>
  stages.filter((s): s is StageOf<K> => s.kind === kind);

/**
 * The order of work for a train, generated from its stages: connect with membrane and resin out, rinse,
 * membrane, ratio, then each polish in turn, then the baseline.
 */
export function runbook(system: System): RunbookSection[] {
  const { probes } = system.train;
  const stages = allStages(system.train);
  const filters = stages.filter((s) => s.kind === 'sediment' || s.kind === 'carbon');
  const membrane = ofKind(stages, 'membrane')[0];
  const pumps = ofKind(stages, 'pump');
  const sections: RunbookSection[] = [
    { title: 'Place and connect', steps: placing(system, membrane !== undefined) },
    ...(pumps.length > 0 ? [{ title: 'Pump', steps: pumps.map(pumpStep) }] : []),
    { title: membrane ? 'Rinse, resin out' : 'Rinse', steps: rinsing(filters.length > 0, membrane) },
    ...(membrane ? [holdingBack(membrane, system)] : []),
    { title: 'Cartridges', steps: stages.flatMap((stage) => cartridgeSteps(stage, system)) },
    { title: 'Polish and hand over', steps: polishing(ofKind(stages, 'resin'), ofKind(stages, 'tank'), probes.length) },
  ];
  return sections.filter((section) => section.steps.length > 0);
}

const MAINS: Caution = {
  title: 'Electricity near water',
  text: 'A pump goes behind a residual-current device, wired by someone who may. Dry hands, and unplug before opening anything.',
};
const HIGH_PRESSURE: Caution = {
  title: 'High pressure cuts',
  text: 'Hoses and fittings must burst only above four times the working pressure. A relief valve must be fitted. Never feel for a leak with a finger.',
};

function pumpStep(pump: StageOf<'pump'>): Step {
  const strong = pump.pump.kind === 'displacement';
  return step(
    `pump-${pump.id}`,
    `Fit and prime ${inSentence(pump.name)}`,
    strong
      ? 'Fill it and bleed the air with its valve wide open. It must never run dry, nor against a closed valve.'
      : 'Fill it before it starts, check which way it turns, and fit a low-pressure switch before it.',
    20,
    strong ? [MAINS, HIGH_PRESSURE] : [MAINS],
  );
}

const SCALD: Caution = {
  title: 'Boilers scald',
  text: 'Shut the machine off, let the pressure out and let it cool before its water is opened.',
};
const LAMP: Caution = {
  title: 'Never look at the lamp',
  text: 'Its light burns eyes and skin in seconds. Unplug it before the chamber is opened.',
};

/** What softeners, coffee cartridges, calcite and lamps ask for before they serve. */
function cartridgeSteps(stage: Stage, system: System): Step[] {
  const litres = (volumeL: number): string => formatQuantity(volumeL, 'volumeL', system.units).text;
  const name = inSentence(stage.name);
  switch (stage.kind) {
    case 'softener':
      return [
        step(
          `softener-${stage.id}`,
          `Fill the salt of ${name} and regenerate it once`,
          `Salt a hand above the water, no bridge, no mush. Set ${((stage.saltGPerL * stage.volumeL) / 1000).toFixed(1)}${THIN}kg a time; rinse until it no longer tastes of salt.`,
          60,
          [LOCAL_CODE],
        ),
      ];
    case 'decarboniser':
      return [
        step(
          `cartridge-${stage.id}`,
          `Set the dial of ${name} to ${Math.round(100 * stage.bypass)}${THIN}% and flush ${litres(flushL(stage.volumeL))}`,
          'To the drain, until it runs clear. Leave 15 cm under it to take it out. Enter its litres in the water meter.',
          10,
          [SCALD],
        ),
      ];
    case 'calcite':
      return [
        step(
          `calcite-${stage.id}`,
          `Rinse the fines out of ${name}`,
          'To the drain until it runs clear; the first litres are hard and cloudy.',
          10,
        ),
      ];
    case 'inhibitor':
      return [
        step(
          `inhibitor-${stage.id}`,
          `Flush ${name}, ${litres(10)}`,
          'To the drain, so that the first strong dose does not reach the machine.',
          5,
          [SCALD],
        ),
      ];
    case 'uv':
      return [
        step(`uv-${stage.id}`, `Fit and light ${name}`, 'Water first, then light. Write down the day: it serves about 9,000 hours.', 15, [
          MAINS,
          LAMP,
        ]),
      ];
    default:
      return [];
  }
}

/** How the waste is held back: a restrictor is cut, a valve is turned. */
const holdingBack = (membrane: StageOf<'membrane'>, system: System): RunbookSection =>
  membrane.valve
    ? { title: 'Set the valve', steps: valveSteps(membrane.valve, system) }
    : { title: 'Set the ratio', steps: ratioSteps(system) };

function valveSteps(valve: NonNullable<StageOf<'membrane'>['valve']>, system: System): Step[] {
  const target =
    valve.kind === 'pressure'
      ? formatQuantity(valve.bar, 'pressureBar', system.units).text
      : valve.kind === 'recovery'
        ? `${Math.round(100 * valve.recovery)}${THIN}% recovery`
        : 'the wanted ratio';
  return [
    step('open', 'Start with the waste valve wide open', 'Purge the air. Product stays on a test outlet or the drain.', 10, [
      FLOOD,
      PRESERVATIVE,
    ]),
    step(
      'raise',
      `Close it slowly, over minutes, to ${target}`,
      'A little at a time, watching gauges and flow meters; never faster than 0.7 bar a second.',
      15,
      valve.kind === 'pressure' && valve.bar > 20 ? [HIGH_PRESSURE] : [],
    ),
    step('taste', 'Send product to the tank only when the meter is below the limit', 'Discard the first hour after preservative.', 60, [
      PRESERVATIVE,
    ]),
    step(
      'ratio',
      'Measure waste and product',
      'Run both lines into measuring jugs for the same time, or read the flow meters.',
      3,
      [],
      'ratio',
    ),
  ];
}

function placing(system: System, withMembrane: boolean): Step[] {
  const line = formatQuantity(system.source.linePressureBar, 'pressureBar', system.units).text;
  return [
    step(
      'fix',
      'Fix it to something that holds',
      'Into studs, or a board across studs. Leave 15 cm under each cartridge to take it out.',
      20,
      [HEAVY],
    ),
    step(
      'feed',
      'Connect cold feed with its own valve',
      'Cold side only: above about 45 °C a membrane dies. Cut tubing square with a cutter.',
      15,
      [LOCAL_CODE, FLOOD],
    ),
    ...(withMembrane
      ? [
          step(
            'waste',
            'Run the waste to a drain with an air gap',
            'The end of the waste line stays above the highest water level of the drain.',
            10,
            [LOCAL_CODE],
          ),
          step(
            'ports',
            'Check the three ports of the membrane housing',
            'Feed goes in alone at the cap end. At the other end the central port is product and the offset one is waste.',
            2,
          ),
        ]
      : []),
    step(
      'line',
      `Read the line pressure; ${line} was planned`,
      'Open the valve slowly. Note what the gauge shows in the Water phase if it differs.',
      5,
    ),
  ];
}

function rinsing(withFilters: boolean, membrane: StageOf<'membrane'> | undefined): Step[] {
  return [
    ...(withFilters
      ? [
          step(
            'flush-filters',
            'Flush the filters, 10 min',
            'To the drain, with the membrane still out, until no black carbon dust shows.',
            10,
          ),
        ]
      : []),
    ...(membrane
      ? [
          step(
            'seat',
            membrane.arrangement === 'single' ? 'Seat the membrane, both seals' : 'Seat both membranes, all seals',
            'The two small O-rings go in first; the lip seal sits at the feed end. Push until it stops.',
            5,
            [PRESERVATIVE],
          ),
          step(
            'flush-membrane',
            'Flush the membrane to the drain, 45 min',
            'Waste and product both to the drain, to carry off the preservative. 30 to 45 minutes are usual.',
            45,
            [PRESERVATIVE, FLOOD],
          ),
        ]
      : []),
    step('leaks', 'Leak check at full pressure', 'Dry every joint with paper, wait ten minutes, wipe again.', 10, [FLOOD]),
  ];
}

function ratioSteps(system: System): Step[] {
  const target = `${system.train.wasteTarget}${THIN}:${THIN}1`;
  return [
    step('saturate', 'Run one hour', 'A dry membrane makes little. Measure only after it has soaked under pressure.', 60, [FLOOD]),
    step('ratio', 'Measure waste and product', 'Run both lines into measuring jugs for the same time.', 3, [PRESERVATIVE], 'ratio'),
    step('trim', `Trim the restrictor to ${target}`, 'Cut little, run ten minutes, measure again.', 15, [CUT], 'trim'),
    step('ratio-again', 'Measure again', 'The last measurement is kept as the baseline of the ratio.', 3, [], 'ratioAgain'),
  ];
}

function polishing(resins: readonly StageOf<'resin'>[], tanks: readonly StageOf<'tank'>[], probes: number): Step[] {
  return [
    ...resins.map((resin, i) =>
      step(
        `resin-${resin.id}`,
        `Pack and fit ${inSentence(resin.name)}, rinse to 0`,
        `Fill it tight and tap it down: loose resin lets water slip by. ${i === 0 ? 'Rinse to the drain until the meter reads 0.' : 'Rinse it alone, after the one before reads 0.'}`,
        15,
        resin.volumeL >= 5 ? [HEAVY] : [],
      ),
    ),
    ...tanks.map((tank) =>
      step(
        `tank-${tank.id}`,
        `Fit the float valve of the ${inSentence(tank.name)}`,
        'A hole of about 11 mm for quarter-inch fittings, above the full level, with room under the lid. Lift the float by hand: the flow must stop.',
        20,
        [FLOAT],
      ),
    ),
    ...(probes > 0
      ? [
          step(
            'probes',
            `Fit ${probes} probes, pins side by side`,
            'Both pins equally in the flow. Let trapped air out of the housing.',
            10,
          ),
        ]
      : []),
    step('baseline', 'Record the baseline', 'Read everything once and log it: later readings are judged by this one.', 5),
    step('handover', 'Hand over', 'Show how to shut it off, what the meter should read, and when to call.', 10, [
      {
        title: 'What a meter cannot say',
        text: '0 ppm is not zero contaminants: germs, organics and uncharged matter are not read. Drinking water needs its own tests.',
      },
    ]),
  ];
}

/** All steps in order. */
export function runbookSteps(sections: readonly RunbookSection[]): Step[] {
  return sections.flatMap((section) => section.steps);
}
