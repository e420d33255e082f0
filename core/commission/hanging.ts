import { mounting } from '../advice';
import { allStages, feedPump, type Hanging, type System } from '../file';
import { GOAL_ROWS } from '../goal';
import { words } from '../quantity';
import { CARTRIDGE_CLEARANCE_MM, HEAVY, kindOf, part, seen, step, type Part, type Stage, type Step, type StepsAround } from '../stage';

/** Whether it draws from the sea: its pump pushes by volume, against a pressure no house has. */
export const isBoat = ({ train }: Pick<System, 'train'>): boolean => feedPump(train.stages)?.pump.kind === 'displacement';

/** Where the product goes when the tank is full: what a pump pushes on is never shut in. Null where a float may: a small booster stops by its own switch. */
export function pushedTo(system: Pick<System, 'train'>): StepsAround<Stage>['pushedTo'] {
  const pump = feedPump(system.train.stages)?.pump;
  if (!pump || pump.kind === 'booster') return null;
  return isBoat(system) ? 'overboard' : 'drain';
}

/** One way a system is fixed (common practice). */
interface HangingRow {
  readonly label: string;
  /** How it is fixed, before what is left free under cartridges. */
  readonly how: string;
  readonly seen: string;
  readonly ifNot: string;
  /** What each piece is fixed with, and how many of it. */
  readonly fixing: { readonly part: string; readonly name: string; readonly each: number; readonly least: number };
  readonly tools: readonly string[];
  /** What the card on Parts says beside the weight. */
  readonly card: { readonly title: string; readonly why: string };
}

export const HANGING_ROWS: Readonly<Record<Hanging, HangingRow>> = {
  wall: {
    label: 'On a wall',
    how: 'Into studs, or a board across studs.',
    seen: 'It holds your own pull',
    ifNot: 'Not in plaster alone: find a stud, or screw a board across two.',
    fixing: { part: 'screws', name: 'Screws into studs, with washers', each: 2, least: 0 },
    tools: ['Stud finder, drill, screwdriver'],
    card: { title: 'screw it to studs', why: 'Or to a board across two studs' },
  },
  floor: {
    label: 'On a floor stand',
    how: 'The frame stands level on all feet and is bolted to the floor or to the wall behind it.',
    seen: 'It does not rock when it is pushed at the top',
    ifNot: 'Level the feet and bolt it down: vessels full of water are heavy at the top.',
    fixing: { part: 'anchor-bolts', name: 'Anchor bolts for the frame', each: 0, least: 4 },
    tools: ['Hammer drill, spanners, level'],
    card: { title: 'bolt its frame down', why: 'Heavy at the top once it is full' },
  },
  cart: {
    label: 'On a cart with wheels',
    how: 'Bolted through the cart with lock nuts, heavy pieces low, hoses held so that none rubs or drags.',
    seen: 'Nothing moves when the cart is tilted and shaken',
    ifNot: 'Washers and lock nuts: what shakes loose on the road leaks on site.',
    fixing: { part: 'lock-bolts', name: 'Bolts with lock nuts and rubber washers', each: 2, least: 4 },
    tools: ['Drill, two spanners'],
    card: { title: 'bolt it through the cart', why: 'Heavy pieces low, between the wheels' },
  },
  hull: {
    label: 'In a boat',
    how: 'Bolted through a board that is fastened to frames or a bulkhead, stainless, with lock nuts. Never into the skin of the hull.',
    seen: 'It holds your own pull, in every direction she heels',
    ifNot: 'A board across frames, bolted through: screws alone work loose in a sea.',
    fixing: { part: 'stainless-bolts', name: 'Stainless bolts, washers and lock nuts', each: 2, least: 4 },
    tools: ['Drill, spanners, sealant, headlamp'],
    card: { title: 'bolt it to frames, not to the skin', why: 'On a board across frames or a bulkhead' },
  },
  counter: {
    label: 'Under a counter',
    how: 'On a board at the side of the cabinet or on feet, so that a cartridge comes out past the door.',
    seen: 'It stands fast, and every cartridge comes out',
    ifNot: 'Turn it or hang it lower: nobody changes what cannot be reached.',
    fixing: { part: 'cabinet-screws', name: 'Screws for the cabinet, with washers', each: 2, least: 0 },
    tools: ['Short drill, screwdriver, headlamp'],
    card: { title: 'fix it so that cartridges come out', why: 'At the side of the cabinet, or on feet' },
  },
};

/** Heavier than this nobody hangs it on a wall, kg wet (our judgement). */
const STANDS_FROM_KG = 60;

/** What a system is fixed to: as somebody said, or as those of its kind usually are. */
export function hangingOf(system: System): Hanging {
  if (system.build.hangs) return system.build.hangs;
  if (isBoat(system)) return 'hull';
  if (GOAL_ROWS[system.goal.id].family === 'beverage') return 'counter';
  return mounting(system.train.stages).wetKg > STANDS_FROM_KG ? 'floor' : 'wall';
}

/** The step that fixes it. */
export function fixingStep(system: System): Step {
  const row = HANGING_ROWS[hangingOf(system)];
  const say = words(system.units);
  const { wetKg } = mounting(system.train.stages);
  return step({
    id: 'fix',
    act: 'mount',
    place: 'connect',
    title: `Fix it to something that holds: about ${say.kg(Number(wetKg.toPrecision(2)))} wet`,
    how: `${row.how} Leave ${say.of(CARTRIDGE_CLEARANCE_MM, 'lengthMm')} under each cartridge to take it out.`,
    minutes: 20,
    cautions: [HEAVY],
    measures: [seen('holds', row.seen, row.ifNot)],
  });
}

/** What it is fixed with. */
export function fixingParts(system: System): Part[] {
  const { fixing, label } = HANGING_ROWS[hangingOf(system)];
  const pieces = allStages(system.train).filter((stage) => !['tank', 'line'].includes(kindOf(stage).form)).length;
  const count = Math.max(fixing.least, fixing.each * pieces);
  if (count === 0 || pieces === 0) return [];
  const why = fixing.each === 0 ? label.toLowerCase() : `${fixing.each === 2 ? 'two' : fixing.each} for each of ${pieces} pieces`;
  return [part({ part: fixing.part, name: fixing.name, why, count })];
}

/** Pieces beside the stages that systems of a kind need (common practice). */
export function ownPieces(system: System): Part[] {
  const { train } = system;
  const one = (id: string, name: string, why: string): Part => part({ part: id, name, why, count: 1 });
  if (isBoat(system))
    return [
      one('sea-cock', 'Sea cock', 'shuts the sea out before anything is opened'),
      one('strainer', 'Strainer with a clear bowl', 'weed and shells, ahead of every pump'),
      one('three-way-valve', 'Three-way valve', 'product to its sample outlet, then to the tank'),
      ...(train.stages.some(({ kind }) => kind === 'carbon')
        ? []
        : [one('flush-carbon', 'Carbon block for flush water', 'chlorinated shore water kills the membrane')]),
    ];
  const pumped = feedPump(train.stages)?.pump.kind === 'centrifugal';
  return [
    ...(pumped
      ? [
          one('inlet-solenoid', 'Inlet solenoid valve', 'shuts the feed while the pump stands'),
          one('controller', 'Controller with its supply', 'starts and stops pump and solenoid by tank and pressure'),
        ]
      : []),
    ...(train.loop &&
    !train.stages.some((stage, i) => stage.kind === 'pump' && i > train.stages.findLastIndex(({ kind }) => kind === 'tank'))
      ? [one('loop-pump', 'Loop pump', 'sends product round to its outlets and back')]
      : []),
  ];
}
