import { allStages, type System } from '../file';
import { formatQuantity, THIN, type UnitPreference } from '../quantity';
import {
  FLOOD,
  HEAVY,
  HIGH_PRESSURE,
  kindOf,
  LOCAL_CODE,
  type Caution,
  type Stage,
  type StageKind,
  type StageOf,
  type Step,
  type StepPart,
} from '../stage';
/** A step of the runbook; some have their own tool on the page. */
export interface RunbookStep extends Step {
  readonly tool: 'ratio' | 'trim' | 'ratioAgain' | null;
}

export interface RunbookSection {
  readonly title: string;
  readonly steps: readonly RunbookStep[];
}

const step = (
  id: string,
  title: string,
  how: string,
  minutes: number,
  cautions: readonly Caution[] = [],
  tool: RunbookStep['tool'] = null,
): RunbookStep => ({
  id,
  title,
  how,
  minutes,
  tool,
  cautions,
});

const PRESERVATIVE: Caution = {
  title: 'Keep resin out of this water',
  text: 'Preservative from a new membrane ruins resin. Product stays on the drain until the resin is fitted. Wear gloves; never drink it.',
};
const CUT: Caution = {
  title: 'A cut cannot be undone',
  text: 'Take a tenth at most, run ten minutes, measure, cut again. If the end of the tube comes first, fit a larger restrictor.',
};

const ofKind = <K extends StageKind>(stages: readonly Stage[], kind: K): StageOf<K>[] =>
  stages.filter((s): s is StageOf<K> => s.kind === kind);

/**
 * The order of work for a train, generated from its stages: connect with membrane and resin out, rinse,
 * membrane, ratio, then each polish in turn, then the baseline.
 */
export function runbook(system: System): RunbookSection[] {
  const { probes } = system.train;
  const stages = allStages(system.train);
  const filters = stages.filter((stage) => kindOf(stage).prefilter);
  const membrane = ofKind(stages, 'membrane')[0];
  const own = (part: StepPart): RunbookStep[] => ownSteps(stages, part, system.units);
  const sections: RunbookSection[] = [
    { title: 'Place and connect', steps: placing(system, membrane !== undefined) },
    { title: 'Pump', steps: own('pump') },
    { title: membrane ? 'Rinse, resin out' : 'Rinse', steps: rinsing(filters.length > 0, membrane) },
    ...(membrane ? [holdingBack(membrane, system)] : []),
    { title: 'Cartridges', steps: own('cartridges') },
    { title: 'Polish and hand over', steps: [...own('polish'), ...handingOver(probes.length)] },
  ];
  return sections.filter((section) => section.steps.length > 0);
}

/** How the waste is held back: a restrictor is cut, a valve is turned. */
const holdingBack = (membrane: StageOf<'membrane'>, system: System): RunbookSection =>
  membrane.valve
    ? { title: 'Set the valve', steps: valveSteps(membrane.valve, system) }
    : { title: 'Set the ratio', steps: ratioSteps(system) };

function valveSteps(valve: NonNullable<StageOf<'membrane'>['valve']>, system: System): RunbookStep[] {
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

function placing(system: System, withMembrane: boolean): RunbookStep[] {
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

function rinsing(withFilters: boolean, membrane: StageOf<'membrane'> | undefined): RunbookStep[] {
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

function ratioSteps(system: System): RunbookStep[] {
  const target = `${system.train.wasteTarget}${THIN}:${THIN}1`;
  return [
    step('saturate', 'Run one hour', 'A dry membrane makes little. Measure only after it has soaked under pressure.', 60, [FLOOD]),
    step('ratio', 'Measure waste and product', 'Run both lines into measuring jugs for the same time.', 3, [PRESERVATIVE], 'ratio'),
    step('trim', `Trim the restrictor to ${target}`, 'Cut little, run ten minutes, measure again.', 15, [CUT], 'trim'),
    step('ratio-again', 'Measure again', 'The last measurement is kept as the baseline of the ratio.', 3, [], 'ratioAgain'),
  ];
}

/** What the stages themselves ask for in one part of the work, in the order of the train; those that clean before those that store. */
function ownSteps(stages: readonly Stage[], part: StepPart, units: UnitPreference): RunbookStep[] {
  const mine = stages.filter((stage) => kindOf(stage).stepPart === part);
  const ordered = [...mine].sort((a, b) => Number(kindOf(a).form === 'tank') - Number(kindOf(b).form === 'tank'));
  return ordered.flatMap((stage) => {
    const first = ordered.find(({ kind }) => kind === stage.kind) === stage;
    return kindOf(stage)
      .steps(stage, { units, first })
      .map((one) => ({ ...one, tool: null }));
  });
}

function handingOver(probes: number): RunbookStep[] {
  return [
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
export function runbookSteps(sections: readonly RunbookSection[]): RunbookStep[] {
  return sections.flatMap((section) => section.steps);
}
