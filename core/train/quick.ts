import { feedPump, type Train } from '../file';
import {
  solveAtPressure,
  speciesOfWater,
  waterFactor,
  waterOfSpecies,
  type Accuracy,
  type Drawn,
  type FeedSpecies,
  type Flows,
  type PressedPoint,
  type UnitSolution,
} from '../membrane';
import { ok, type Outcome } from '../quantity';
import { kindOf, NO_USE, unitRanks, type Stage, type StageOf, elementRow } from '../stage';
import { mixWaters, settleWater, type Water, type WaterState } from '../water';
import { inletBar, slopeOf, type Inlet } from './pressure';
import { solveTrain, withUses } from './solve';
import type { SolvedTrain } from './solved';
import { keptBy, type Station } from './walk';

/**
 * A train solved quickly, for thousands of them: where the pressure at its one membrane is known, in fewer slices, and
 * each station's state is worked out when somebody asks for it. What it gives is what `solveTrain` gives, held to it
 * within a hundredth by a test; trains it has no short way for go that way.
 */

/** How closely a membrane is worked out: far within the hundredth that is asked for. */
export const QUICK: Accuracy = { slices: 2, fluxSettled: 1e-4, flowSettled: 1e-3 };

/** A unit as it ran on another day, with its membrane of so much of its output: where the next search begins. */
interface Near {
  readonly unit: UnitSolution;
  readonly feedMmolL: ArrayLike<number>;
  readonly temperatureC: number;
  readonly waterShare: number;
}

/** The first that was found of a train, and the first of it with waste recycled; kept by whoever solves it on many days. */
export interface Begun {
  near: Near | null;
}

/** What many trains on one water and temperature share: its state, species of the membrane's feed, and units solved. */
export interface Known {
  tap: Outcome<WaterState> | null;
  readonly feeds: Map<string, FeedSpecies | null>;
  readonly units: Map<string, UnitSolution | null>;
}
export const nothingKnown = (): Known => ({ tap: null, feeds: new Map(), units: new Map() });

/** A stage by what it does: neither its id nor its name. */
function keyOf(stage: Stage): string {
  const known = KEYS.get(stage);
  if (known !== undefined) return known;
  const { id: _, name: __, ...rest } = stage;
  const key = JSON.stringify(rest);
  KEYS.set(stage, key);
  return key;
}
const KEYS = new WeakMap<Stage, string>();

/** What stands ahead of a station: the same water is in the same state, and its state stands in where none can be told. */
type AheadOf = Pick<Station, 'water' | 'state'>;

/** A station whose state is settled when it is asked for. */
function station(
  after: string,
  name: string,
  kind: Station['kind'],
  flowLPerH: number,
  pressureBar: number,
  water: Water,
  ahead: AheadOf,
): Station {
  let known: WaterState | null = null;
  return {
    after,
    name,
    kind,
    flowLPerH,
    pressureBar,
    water,
    get state() {
      if (known) return known;
      const settled = ahead.water === water ? null : settleWater(water);
      known = settled?.ok ? settled.value : ahead.state;
      return known;
    },
  };
}

/** The waste of a unit, worked out when it is asked for: few are. */
function wasteOf(after: string, unit: UnitSolution, ahead: AheadOf): Station {
  let known: Station | null = null;
  const full = (): Station =>
    (known ??= station(after, 'Waste', 'membrane', unit.concentrateLPerH, unit.concentratePressureBar, unit.concentrate, ahead));
  return {
    after,
    name: 'Waste',
    kind: 'membrane',
    flowLPerH: unit.concentrateLPerH,
    pressureBar: unit.concentratePressureBar,
    get water() {
      return full().water;
    },
    get state() {
      return full().state;
    },
  };
}

/** How the flow of a membrane is set, where that is known beforehand. */
function drawnBy(
  membrane: StageOf<'membrane'>,
  pump: StageOf<'pump'> | undefined,
): { readonly bar: number | null; readonly drawn: Drawn } | null {
  const { valve, restrictor, recycleLPerH, recycleKv } = membrane;
  if (recycleKv !== null) return null;
  if (pump?.pump.kind === 'displacement')
    return valve?.kind === 'pressure' && recycleLPerH === 0
      ? { bar: valve.bar, drawn: { by: 'pump', flowLPerH: pump.pump.flowLPerH } }
      : null;
  if (pump && pump.pump.kind !== 'booster') return null;
  const bar = pump?.pump.kind === 'booster' ? pump.pump.bypassBar : null;
  if (valve === null) return recycleLPerH > 0 ? null : { bar, drawn: { by: 'restrictor', restrictor } };
  return valve.kind === 'recovery' ? { bar, drawn: { by: 'recovery', recovery: valve.recovery, recycleLPerH } } : null;
}

/** Water through stages at a flow, with what each takes of it; null where one of them cannot be worked out. */
function through(stages: readonly Stage[], water: Water, flowLPerH: number, into: (stage: Stage, water: Water) => void): Water | null {
  let now = water;
  for (const stage of stages) {
    const treated = kindOf(stage).treat(stage, { water: now, flowLPerH, use: NO_USE, inLoop: false });
    if (!treated.ok) return null;
    now = treated.value.water;
    into(stage, now);
  }
  return now;
}

/**
 * @param known what was found so far on the same water at the same temperature
 * @param behindBarPerLPerH what will stand behind the train takes of its product, where that is known beforehand
 * @param begun where the same train was found on another day, or at another age; only saves time
 */
export function quickTrain(
  train: Train,
  inlet: Inlet,
  feed: Water,
  known: Known = nothingKnown(),
  behindBarPerLPerH = 0,
  begun: Begun = { near: null },
): Outcome<SolvedTrain> {
  const { stages } = train;
  const whole = (): Outcome<SolvedTrain> => solveTrain(train, inlet, feed);
  const at = stages.findIndex(({ kind }) => kind === 'membrane');
  const membrane = stages[at];
  if (membrane?.kind !== 'membrane' || stages.some(({ kind }, i) => kind === 'membrane' && i !== at)) return whole();
  const pump = feedPump(stages);
  const set = drawnBy(membrane, pump);
  const before = stages.slice(0, at);
  // A pump that feeds no membrane has a rise of its own.
  if (stages.some(({ kind, id }) => kind === 'pump' && id !== pump?.id)) return whole();
  if (!set || before.some((stage) => kindOf(stage).breaksPressure(stage) || kindOf(stage).riseBar(stage) !== 0)) return whole();
  const tap = (known.tap ??= settleWater(feed));
  if (!tap.ok) return tap;
  const line = inletBar(inlet);
  const t = feed.temperatureC;
  // Chlorine alone depends on the flow; it takes no part in what the membrane does.
  const key = before
    .filter((stage) => !kindOf(stage).prefilter && kindOf(stage).touches(stage) !== 'nothing')
    .map(keyOf)
    .join();
  let species = known.feeds.get(key);
  if (species === undefined) {
    const water = through(before, feed, 1, () => undefined);
    const found = water && speciesOfWater(water);
    species = found?.ok ? found.value : null;
    known.feeds.set(key, species);
  }
  if (!species) return whole();
  const slope = (some: readonly Stage[]): number => some.reduce((sum, stage) => sum + slopeOf(stage, 1, t), 0);
  const open = stages.findIndex((stage, i) => i > at && kindOf(stage).breaksPressure(stage));
  const behind = stages.slice(at + 1, open < 0 ? undefined : open);
  const pressed = {
    row: elementRow(membrane),
    ranks: unitRanks(membrane),
    factors: { water: membrane.waterFactor ?? 1, salt: membrane.saltFactor ?? 1 },
    pressureBar: set.bar ?? line,
    filterBarPerLPerH: set.bar === null ? slope(before) : 0,
    productBarPerLPerH: (slope(behind) + behindBarPerLPerH) / (1 - membrane.bypassShare),
    temperatureC: t,
    law: 'mixture',
  } as const;
  const { factors, ranks, pressureBar, filterBarPerLPerH, productBarPerLPerH } = pressed;
  const unitKey = [
    key,
    membrane.elementClass,
    JSON.stringify(membrane.label),
    ...ranks.map(({ vessels, elementsPerVessel }) => `${vessels}x${elementsPerVessel}`),
    factors.water,
    factors.salt,
    pressureBar,
    filterBarPerLPerH,
    productBarPerLPerH,
    JSON.stringify(set.drawn),
  ].join(' ');
  let unit = known.units.get(unitKey);
  if (unit === undefined) {
    const solved = solveAtPressure(pressed, species, set.drawn, QUICK, begun.near && likelyFlows(begun.near, set.drawn, membrane, t));
    if (!solved.ok) return solved;
    unit = solved.value && unitOf(membrane, solved.value, species, t);
    known.units.set(unitKey, unit);
  }
  if (!unit) return whole();
  if (!begun.near || (unit.recycleLPerH > 0 && begun.near.unit.recycleLPerH === 0))
    begun.near = { unit, feedMmolL: species.mmolL, temperatureC: t, waterShare: factors.water };
  // A booster holds its pressure only where its curve reaches above it, and the line does not.
  if (pump?.pump.kind === 'booster') {
    const curve = line - slope(before) * unit.feedLPerH + pump.pump.riseBar * (1 - unit.membraneFeedLPerH / pump.pump.openFlowLPerH);
    if (curve < pump.pump.bypassBar || line - slope(before) * unit.feedLPerH > pump.pump.bypassBar) return whole();
  }
  return assembled(train, membrane, at, unit, feed, tap.value, line);
}

/** Flows of a unit by those of another day: what it makes goes with its temperature, the waste of a tube hardly does. */
function likelyFlows(
  { unit, feedMmolL, temperatureC, waterShare }: Near,
  { by }: Drawn,
  { waterFactor: now }: StageOf<'membrane'>,
  t: number,
): Flows {
  const times = (waterFactor(t) / waterFactor(temperatureC)) * ((now ?? 1) / waterShare);
  const productLPerH = times * unit.permeateLPerH;
  return {
    productLPerH,
    feedLPerH: by === 'recovery' ? times * unit.feedLPerH : productLPerH + unit.concentrateLPerH,
    mixedTimes: unit.mixedFeedMmolL.map((c, i) => (feedMmolL[i]! > 0 ? c / feedMmolL[i]! : 1)),
  };
}

/** The unit as the network gives it. */
function unitOf(
  { recycleLPerH }: StageOf<'membrane'>,
  { feedLPerH, membraneFeedLPerH, feedPressureBar, mixedFeedMmolL, run }: PressedPoint,
  species: FeedSpecies,
  t: number,
): UnitSolution {
  const permeateMmolL = Array.from(run.permeateMmolH, (mmolH) => mmolH / run.permeateLPerH);
  const concentrateMmolL = Array.from(run.concentrateMmolL);
  // Of the waste, what is led back is no waste.
  const concentrateLPerH = run.concentrateLPerH - recycleLPerH;
  return {
    feedLPerH,
    membraneFeedLPerH,
    recycleLPerH,
    mixedFeedMmolL: Array.from(mixedFeedMmolL),
    feedPressureBar,
    permeateLPerH: run.permeateLPerH,
    concentrateLPerH,
    concentratePressureBar: run.concentratePressureBar,
    recovery: run.permeateLPerH / feedLPerH,
    wasteToProduct: concentrateLPerH / run.permeateLPerH,
    ranks: run.ranks,
    noProduction: false,
    iterations: 0,
    residualBar: 0,
    slope: 0,
    permeateMmolL,
    concentrateMmolL,
    permeate: waterOfSpecies(species.ids, permeateMmolL, t),
    // Few are asked for these.
    get concentrate() {
      return waterOfSpecies(species.ids, concentrateMmolL, t);
    },
    portWaters: [],
    get mixedFeed() {
      return waterOfSpecies(species.ids, Array.from(mixedFeedMmolL), t);
    },
    rejection: null,
  };
}

/** The stations round a unit, from the tap to the last stage. */
function assembled(
  train: Train,
  membrane: StageOf<'membrane'>,
  at: number,
  unit: UnitSolution,
  feed: Water,
  tap: WaterState,
  line: number,
): Outcome<SolvedTrain> {
  const share = membrane.bypassShare;
  const productLPerH = unit.permeateLPerH / (1 - share);
  const drawnLPerH = unit.feedLPerH + productLPerH * share;
  const source: AheadOf = { water: feed, state: tap };
  const stations: Station[] = [station('tap', 'Tap', 'tap', drawnLPerH, line, feed, source)];
  const carbons: { stageId: string; state: NonNullable<SolvedTrain['carbons'][number]['state']>; flowLPerH: number }[] = [];
  let bar = line;
  let water = feed;
  let past: Water = feed;
  for (const stage of train.stages.slice(0, at)) {
    const treated = kindOf(stage).treat(stage, { water, flowLPerH: drawnLPerH, use: NO_USE, inLoop: false });
    if (!treated.ok) return treated;
    water = treated.value.water;
    if (treated.value.carbon) carbons.push({ stageId: stage.id, state: treated.value.carbon, flowLPerH: drawnLPerH });
    bar -= slopeOf(stage, drawnLPerH, feed.temperatureC) * drawnLPerH;
    stations.push(station(stage.id, stage.name, stage.kind, drawnLPerH, Math.max(0, bar), water, stations.at(-1)!));
    if (stage.id === membrane.bypassAfter) past = water;
  }
  if (membrane.bypassAfter === null) past = water;
  // What chlorine the carbon leaves goes with the membrane's water as well.
  const permeate: Water = {
    ...unit.permeate!,
    mgL: { ...unit.permeate!.mgL, chlorine: water.mgL.chlorine, chloramine: water.mgL.chloramine },
  };
  const product =
    share === 0
      ? ok(permeate)
      : mixWaters([
          { water: permeate, volumeL: 1 - share },
          { water: past, volumeL: share },
        ]);
  if (!product.ok) return product;
  const waste = wasteOf(membrane.id, unit, source);
  stations.push(station(membrane.id, membrane.name, 'membrane', productLPerH, 0, product.value, stations.at(-1)!));
  const base = { stations, unit, unitStageId: membrane.id, waste, resins: [], carbons, productLPerH, branches: [] };
  return withTail(base, train.stages.slice(at + 1));
}

/** A solved train with stages behind its last: as the water goes on through them. */
export function withTail(solved: SolvedTrain, tail: readonly Stage[], drawLPerH: number | null = null): Outcome<SolvedTrain> {
  const last = solved.stations.at(-1)!;
  const stations = [...solved.stations];
  const resins = [...solved.resins];
  const carbons = [...solved.carbons];
  let { water, flowLPerH } = last;
  for (const stage of tail) {
    const treated = kindOf(stage).treat(stage, { water, flowLPerH, use: NO_USE, inLoop: false });
    if (!treated.ok) return treated;
    ({ water } = treated.value);
    if (treated.value.resin) resins.push(treated.value.resin);
    if (treated.value.carbon) carbons.push({ stageId: stage.id, state: treated.value.carbon, flowLPerH });
    flowLPerH *= kindOf(stage).keeps(stage);
    stations.push(station(stage.id, stage.name, stage.kind, flowLPerH, 0, water, stations.at(-1)!));
    if (stage.kind === 'tank' && drawLPerH !== null) flowLPerH = drawLPerH;
  }
  return ok({ ...solved, stations, resins, carbons, productLPerH: solved.productLPerH * keptBy(tail) });
}

/** A train solved up to some stage, gone on with through the rest and all that is drawn from it. */
export function continued(train: Train, ahead: SolvedTrain, rest: readonly Stage[]): Outcome<SolvedTrain> {
  const found = withTail(ahead, rest, train.loop?.flowLPerH ?? null);
  return found.ok && train.branches.length > 0 ? withUses(train, found.value) : found;
}
