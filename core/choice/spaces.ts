import { ELEMENT_ROWS, type ElementClass, type VesselRank } from '../membrane';
import { kindOf, newStage, usualDepthMm, type Stage, type StageOf } from '../stage';
import type { Taken } from './taken';
import { JOB_AXES, type Axis, type Choice, type ChoiceOf, type Job } from './axes';

/** What each job's axes stand for: stages of the workbench, by their own kinds. */

/** An option as it is laid down: what is solved once for all options that share it, and what stands behind. */
export interface Laid {
  readonly head: readonly Stage[];
  readonly tail: readonly Stage[];
  /** What its membrane is set for; null without one, or where pump and pressure leave it open. */
  readonly target: Target | null;
}
/** How a membrane is set before it is judged. */
export interface Target {
  readonly wasteToProduct: number;
  /** Litres an hour that meet the first vessels, by leading waste back; null: what it takes at its ratio. */
  readonly heldLPerH: number | null;
  /** Tap is led past it until the goal's own figure stands. */
  readonly blends: boolean;
}
/** One part of a job's options. */
export interface Space {
  readonly id: string;
  readonly axes: readonly Axis[];
  /** How many of the last axes stand behind the head: options that differ in those alone share it. */
  readonly behind: number;
  readonly lay: (choice: Choice) => Laid;
}

/** What of a job is narrower than its whole space: the values left to an axis. */
export type Kept = Readonly<Record<string, readonly (string | number | boolean)[] | undefined>>;

/** Declares a space: its axes give the type of what an option takes. */
const space = <const Axes extends readonly Axis[]>(
  id: string,
  axes: Axes,
  behind: number,
  lay: (choice: ChoiceOf<Axes>) => Laid,
): Space => ({ id, axes, behind, lay: lay as Space['lay'] });

// What is new on the wall.

const sediment = (id = 'sediment', changes: Partial<StageOf<'sediment'>> = {}): Stage => ({ ...newStage('sediment', id), ...changes });
/** Filters of 20 inches ahead of large membranes. */
const LARGE_FILTER = { cleanLossBar: 0.02, holdsG: 60 } as const;
const carbon = (id: string, changes: Partial<StageOf<'carbon'>> = {}): Stage => ({ ...newStage('carbon', id), ...changes });
const LARGE_CARBON = { volumeL: 2.8, ratedL: 80_000, cleanLossBar: 0.03 } as const;
const SKID_CARBON = { medium: 'granular', volumeL: 60, ratedL: 400_000, cleanLossBar: 0.01 } as const;
/** Litres of resin in what is set against chloramine: more contact (common practice: two large blocks). */
const CHLORAMINE_CARBON = { volumeL: 1.4, ratedL: 40_000 } as const;
function carbons(name: ChoiceOf<typeof JOB_AXES.marine>['carbon']): Stage[] {
  const changes = name === 'chloramine' ? CHLORAMINE_CARBON : {};
  return name === 'one'
    ? [carbon('carbon')]
    : [carbon('carbon-1', { name: 'Carbon 1', ...changes }), carbon('carbon-2', { name: 'Carbon 2', ...changes })];
}

const bed = (id: string, name: string, litres: number, resinClass: StageOf<'resin'>['resinClass']): Stage => ({
  ...newStage('resin', id),
  name,
  resinClass,
  volumeL: litres,
  depthMm: usualDepthMm(litres),
});
/** Resin as an axis names it: how many beds of how many litres, a stage for silica behind. */
const RESINS = {
  none: [0, 0, false],
  '0.6': [1, 0.6, false],
  '1.2': [1, 1.2, false],
  '2x0.6': [2, 0.6, false],
  '2x1.2': [2, 1.2, false],
  '1.2+silica': [1, 1.2, true],
  '7': [1, 7, false],
  '11': [1, 11, false],
  '25': [1, 25, false],
  '2x7': [2, 7, false],
  '2x11': [2, 11, false],
  '2x25': [2, 25, false],
} as const;
type ResinName = keyof typeof RESINS;
function resins(name: ResinName): Stage[] {
  const [beds, litres, silica] = RESINS[name];
  const kind = litres > 2 ? ('mixedBed' as const) : ('colourMixedBed' as const);
  const own = Array.from({ length: beds }, (_, i) =>
    beds > 1 ? bed(`resin-${i + 1}`, `Resin ${i + 1}`, litres, kind) : bed('resin', 'Resin', litres, kind),
  );
  return silica ? [...own, bed('silica', 'Silica stage', litres, 'silicaStage')] : own;
}
const tank = (litres: number): Stage[] => (litres > 0 ? [{ ...newStage('tank', 'tank'), volumeL: litres }] : []);

/** A pump that holds a pressure in front of the membrane, wide enough that its bypass and not its curve sets it. */
const holding = (name: string, bar: number, openFlowLPerH: number): Stage => ({
  ...newStage('pump', 'pump'),
  name,
  pump: { kind: 'booster', riseBar: 3 * bar, openFlowLPerH, bypassBar: bar },
});
const BOOSTER_BAR = 5.5;
const HOUSEHOLD_PUMP_L_PER_H = 900;
const CART_PUMP_L_PER_H = 4000;
const SKID_PUMP_L_PER_H = 12_000;

const one: VesselRank = { vessels: 1, elementsPerVessel: 1 };
type Arranged = ChoiceOf<typeof JOB_AXES.marine>['number'];
const ARRANGED = { one: 'single', twoInSeries: 'series', twoInParallel: 'parallel' } as const;
function membrane(
  elementClass: ElementClass,
  ranks: readonly VesselRank[],
  changes: Partial<StageOf<'membrane'>> = {},
): StageOf<'membrane'> {
  const single = ranks.length === 1 && ranks[0]!.vessels * ranks[0]!.elementsPerVessel === 1;
  return {
    ...newStage('membrane', 'membrane'),
    elementClass,
    arrangement: single ? 'single' : 'array',
    ranks: single ? [] : ranks.map((rank) => ({ ...rank })),
    ...changes,
  };
}
const inSeries = (count: number): VesselRank[] => Array.from({ length: count }, () => one);
const small = (elementClass: ElementClass, number: Arranged): StageOf<'membrane'> => ({
  ...newStage('membrane', 'membrane'),
  elementClass,
  arrangement: ARRANGED[number],
});

/** Softener resin, L, and salt of a regeneration, g/L: a cubic foot at 8 lb (common practice). */
const softener = (cubicFeet: number): Stage => ({
  ...newStage('softener', 'softener'),
  volumeL: 28.3168 * cubicFeet,
  saltGPerL: 128.15,
  reserveShare: 0.2,
});
const againstScale = (name: 'nothing' | 'inhibitor' | 'softener' | 'carbon', cubicFeet: number): Stage[] =>
  name === 'inhibitor' ? [newStage('inhibitor', 'inhibitor')] : name === 'softener' ? [softener(cubicFeet)] : [];

// The jobs.

const target = (wasteToProduct: number, heldLPerH: number | null = null, blends = false): Target => ({ wasteToProduct, heldLPerH, blends });
const ratioOf = (recovery: number): number => 1 / recovery - 1;

/** Filters, a booster where it has one, and small elements. */
const household = (
  c: Pick<ChoiceOf<typeof JOB_AXES.marine>, 'carbon' | 'booster' | 'number'> & { readonly element: ElementClass },
): Stage[] => [
  sediment(),
  ...carbons(c.carbon),
  ...(c.booster ? [holding('Booster', BOOSTER_BAR, HOUSEHOLD_PUMP_L_PER_H)] : []),
  small(c.element, c.number),
];

const marine = space('membrane', JOB_AXES.marine, 2, (c) => ({
  head: household(c),
  tail: [...resins(c.resin), ...tank(c.tankL)],
  target: target(c.wasteToProduct),
}));
const breeder = space('membrane', JOB_AXES.breeder, 1, (c) => ({
  head: household(c),
  tail: [...(c.finish === 'remineralise' || c.finish === 'both' ? [newStage('calcite', 'calcite')] : []), ...tank(c.drumL)],
  target: target(c.wasteToProduct, null, c.finish === 'blend' || c.finish === 'both'),
}));
const axisOf = <const Id extends string, const V extends readonly (string | number | boolean)[]>(
  id: Id,
  ...values: V
): Axis<Id, V[number]> => ({ id, values });
/** Small membranes in a van or a shop: the largest of them, and vessels of resin behind. */
const smallInVan = space(
  'small',
  [
    axisOf('element', 'household150', 'household200', 'household200Wide'),
    JOB_AXES.marine[1],
    JOB_AXES.marine[2],
    JOB_AXES.marine[4],
    axisOf('wasteToProduct', 1, 2, 3, 4),
    axisOf('resin', 'none', '1.2', '7', '11'),
    axisOf('tankL', 0, 250, 400, 650),
  ],
  2,
  (c) => ({
    head: household(c),
    tail: [...resins(c.resin), ...tank(c.tankL)],
    target: target(c.wasteToProduct),
  }),
);
const resinAtHome = space('resin', [axisOf('vesselL', '1.2', '2x1.2', '7', '11'), axisOf('tankL', 0, 60, 120, 200)], 2, (c) => ({
  head: [sediment(), carbon('carbon')],
  tail: [...resins(c.vesselL), ...tank(c.tankL)],
  target: null,
}));
const [vessel, prefilter, reservoir] = JOB_AXES.resinAlone;
const resinVessels = space('resin', [prefilter, vessel, reservoir], 2, (c) => ({
  head: [...(c.prefilter ? [sediment()] : [])],
  tail: [...resins(c.vesselL), ...tank(c.reservoirL)],
  target: null,
}));
/** Feed a cart's pump moves past an element, L/h. */
const CART_FEED = { in25: 700, in4: 1500 } as const;
const CART_BAR = 8;
const cart = space('membrane', JOB_AXES.window, 2, (c) => ({
  head: [
    sediment('sediment', LARGE_FILTER),
    carbon('carbon', LARGE_CARBON),
    ...againstScale(c.scale, 1),
    ...(c.pump === 'cart'
      ? [holding('Cart pump', CART_BAR, CART_PUMP_L_PER_H)]
      : c.pump === 'booster'
        ? [holding('Booster', BOOSTER_BAR, CART_PUMP_L_PER_H)]
        : []),
    membrane(c.element, inSeries(c.number)),
  ],
  tail: [...resins(c.resin), ...tank(c.tankL)],
  // Waste is led back by a pump alone.
  target: target(
    ratioOf(c.recovery),
    c.recycle && c.pump === 'cart' ? CART_FEED[ELEMENT_ROWS[c.element].size === 'in25' ? 'in25' : 'in4'] : null,
  ),
}));
const cartridges = (bypass: number): Space =>
  space('cartridge', [JOB_AXES.espresso[1], JOB_AXES.espresso[3]], 0, (c) => ({
    head: [
      ...(c.prefilter ? [sediment(), carbon('carbon', { volumeL: 0.8, ratedL: 20_000 })] : []),
      {
        ...newStage('decarboniser', 'decarboniser'),
        volumeL: c.cartridgeL,
        bypass,
      },
    ],
    tail: [],
    target: null,
  }));
/** A counter's unit: softened or not, its own small booster, tap led past it for taste. */
const COUNTER_SOFTENER = { none: 0, small: 0.5, large: 1 } as const;
const beverage = space('membrane', [JOB_AXES.counter[0], JOB_AXES.counter[1], JOB_AXES.counter[2], JOB_AXES.counter[6]], 0, (c) => ({
  head: [
    sediment(),
    carbon('carbon', { volumeL: 2, ratedL: 60_000 }),
    ...(c.softener === 'none' ? [] : [softener(COUNTER_SOFTENER[c.softener])]),
    holding('Booster', BOOSTER_BAR, HOUSEHOLD_PUMP_L_PER_H),
    membrane('household200', [{ vessels: c.unit === 'large' ? 2 : 1, elementsPerVessel: 1 }], { bypassAfter: 'carbon' }),
    ...(c.iceFilter ? [carbon('polish', { name: 'Ice filter', volumeL: 0.6, ratedL: 12_000 })] : []),
  ],
  tail: [],
  target: target(ratioOf(c.recovery), null, true),
}));
/** What a skid leads back, as litres an hour that meet a first vessel. */
const SKID_FEED = { none: null, some: 1500, much: 2400 } as const;
const SKID_BAR = 9;
const SKID_BED_L = 40;
const ARRAYS = { '1': [1], '2': [2], '1:1': [1, 1], '2:1': [2, 1], '2:2': [2, 2], '3:2': [3, 2] } as const;
const [labElement, labArray, labRecovery, labRecycle, labAhead, labDegassing, labTank, , labLamp] = JOB_AXES.laboratory;
/** A degasser and a stack as they are bought for a skid of some elements: fibres, air, cells, and the current a usual permeate asks for. */
const SKID_DEGASSER = { surfaceM2: 10, sweepLPerH: 2000, lossAtLPerH: 2000 } as const;
const SKID_STACK = { nominalLPerH: 1000, cells: 11, amp: 3 } as const;
type Skid = Pick<
  ChoiceOf<typeof JOB_AXES.laboratory>,
  'element' | 'array' | 'recovery' | 'recycle' | 'pretreatment' | 'degassing' | 'tankL' | 'uv'
>;
/** A skid with what clears its permeate on the way to its tank, and what stands behind the tank. */
function skidWith(c: Skid, clears: readonly Stage[], beds: readonly Stage[], loops: boolean): Laid {
  const ranks = ARRAYS[c.array].map((vessels) => ({ vessels, elementsPerVessel: 1 }));
  const held = SKID_FEED[c.recycle];
  const ahead: Stage[] = [...(c.degassing ? [{ ...newStage('degasser', 'degasser'), ...SKID_DEGASSER }] : []), ...clears];
  const lamp: Stage[] = c.uv ? [{ ...newStage('uv', 'uv'), intensityMWPerCm2: 20, chamberL: 2 }] : [];
  return {
    head: [
      sediment('sediment', { cleanLossBar: 0.01, holdsG: 300 }),
      carbon('carbon', SKID_CARBON),
      ...(c.pretreatment === 'inhibitor' ? [antiscalant] : againstScale(c.pretreatment, 4)),
      holding('Feed pump', SKID_BAR, SKID_PUMP_L_PER_H),
      membrane(c.element, ranks),
    ],
    // Round a loop the polisher stands behind the tank; without one it fills it.
    tail: loops ? [...ahead, ...tank(c.tankL), ...beds, ...lamp] : [...ahead, ...beds, ...lamp, ...tank(c.tankL)],
    target: target(ratioOf(c.recovery), held === null ? null : held * ranks[0]!.vessels),
  };
}
/** What holds scale at a skid is dosed, by a pump of a size for its feed. */
const antiscalant: Stage = { ...newStage('dosingPump', 'antiscalant'), name: 'Antiscalant', mostLPerH: 0.15 };
const SKID_BEDS = {
  none: [],
  single: [bed('resin', 'Mixed bed', SKID_BED_L, 'mixedBed')],
  leadAndLag: [bed('resin-1', 'Mixed bed 1', SKID_BED_L, 'mixedBed'), bed('resin-2', 'Mixed bed 2', SKID_BED_L, 'mixedBed')],
} as const;
const POLISHERS = axisOf('polisher', 'none', 'single', 'leadAndLag');
const skid = (loops: boolean): Space =>
  space('membrane', [labElement, labArray, labRecovery, labRecycle, labAhead, labDegassing, labTank, POLISHERS, labLamp], 4, (c) =>
    skidWith(c, [], SKID_BEDS[c.polisher], loops),
  );
/** The same with a stack, which fills the tank and pushes back on the membrane: its heads are its own. */
const stackSkid = (loops: boolean): Space =>
  space('stack', [labElement, labArray, labRecovery, labRecycle, labAhead, labDegassing, labTank, labLamp], 3, (c) =>
    skidWith(c, [{ ...newStage('electrodeionizer', 'electrodeionizer'), ...SKID_STACK }], [], loops),
  );
const SEA_PUMPS = { small: 400, middle: 700, large: 1200 } as const;
const SEA_RELIEF_BAR = 8;
const SEA_RECOVERY = 0.7;
const [seaElement, seaNumber, seaPump, seaPressure, seaRecovery, seaTank] = JOB_AXES.watermaker;
/** A fresh-water flush is no stage the water passes: it is not tried. */
const sea = space('membrane', [seaElement, seaNumber, seaPump, seaPressure, seaRecovery, seaTank], 1, (c) => ({
  head: [
    sediment('sediment-20', { name: 'Filter 20 µm', micron: 20, cleanLossBar: 0.02, holdsG: 40 }),
    sediment('sediment', { name: 'Filter 5 µm', cleanLossBar: 0.02, holdsG: 40 }),
    {
      ...newStage('pump', 'pump'),
      name: 'High-pressure pump',
      pump: {
        kind: 'displacement',
        flowLPerH: SEA_PUMPS[c.pump],
        reliefBar: c.pressureBar + SEA_RELIEF_BAR,
        energyRecovery: c.energyRecovery ? SEA_RECOVERY : 0,
      },
    },
    membrane(c.element, [{ vessels: 1, elementsPerVessel: c.number }], { valve: { kind: 'pressure', bar: c.pressureBar } }),
  ],
  tail: tank(c.tankL),
  target: null,
}));

/** What a job's options need to know of the system. */
export interface JobFacts {
  /** Share led past a cartridge so that the goal stands. */
  readonly bypass: number;
  /** What is polished goes round a loop. */
  readonly loops: boolean;
}

/** The spaces of a job: its own axes, with resin alone beside a membrane, and cartridges beside a counter's unit. */
export function spacesOf(job: Job, { bypass, loops }: JobFacts, kept: Kept = {}): Space[] {
  const all: readonly Space[] = (() => {
    switch (job) {
      case 'marine':
        return [marine, resinAtHome];
      case 'breeder':
        return [breeder];
      case 'resinAlone':
        return [resinVessels];
      case 'window':
        return [cart, smallInVan, resinVessels];
      case 'espresso':
        return [cartridges(bypass), beverage];
      case 'counter':
        return [beverage, cartridges(bypass)];
      case 'laboratory':
        return [skid(loops), stackSkid(loops)];
      case 'watermaker':
        return [sea];
    }
  })();
  return all.map((one) => ({
    ...one,
    axes: one.axes.map(({ id, values }) => ({ id, values: kept[id] ? values.filter((value) => kept[id]!.includes(value)) : values })),
  }));
}

/** Coarse way to the water, among which an answer turns. */
export const ROUTES = ['resin', 'membrane', 'membraneAndResin', 'cartridge'] as const;
export type Route = (typeof ROUTES)[number];
export function routeOf({ membrane, polishes }: Pick<Taken, 'membrane' | 'polishes'>): Route {
  if (membrane) return polishes ? 'membraneAndResin' : 'membrane';
  return polishes ? 'resin' : 'cartridge';
}
/** What the stages after a head take of its product under pressure, bar for each L/h. */
export function slopeBehind(tail: readonly Stage[], temperatureC: number): number {
  const open = tail.findIndex((stage) => kindOf(stage).breaksPressure(stage));
  return tail.slice(0, open < 0 ? undefined : open).reduce((sum, stage) => sum + kindOf(stage).slopeBar(stage, 1, temperatureC), 0);
}
/** What can stand behind the heads of a space. */
function tailsOf({ axes, behind, lay }: Space): readonly (readonly Stage[])[] {
  const cut = Math.max(0, axes.length - behind);
  const first: Choice = Object.fromEntries(axes.map(({ id, values }) => [id, values[0] ?? 0]));
  return axes.slice(cut).flatMap(({ id, values }) => values.map((value) => lay({ ...first, [id]: value }).tail));
}
/**
 * What the stages after the heads of a space take of the product at a temperature, bar for each L/h: half way from the least
 * to the most of it.
 */
export function middlingBehind(space: Space): (temperatureC: number) => number {
  const tails = tailsOf(space);
  const known = new Map<number, number>();
  return (temperatureC) => {
    const hit = known.get(temperatureC);
    if (hit !== undefined) return hit;
    const takes = tails.map((tail) => slopeBehind(tail, temperatureC));
    const found = takes.length === 0 ? 0 : (Math.min(...takes) + Math.max(...takes)) / 2;
    known.set(temperatureC, found);
    return found;
  };
}
