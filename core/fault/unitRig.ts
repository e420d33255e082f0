import { feedViscosity, solveUnitFlows, type FeedSpecies, type MembraneUnit, type UnitConditions, type UnitFlows } from '../membrane';
import { ok, type Outcome } from '../quantity';
import { together } from './nodes';
import { PLAIN_BESIDE, type Beside, type Rig, type RigChange, type Solved } from './rig';

/** A membrane unit on its water, as the search for faults sees it. */
export interface UnitOnSite {
  readonly unit: MembraneUnit;
  readonly feed: FeedSpecies;
  readonly conditions: UnitConditions;
  /** Strength of a mixture of the feed's species as a meter shows it, ppm. */
  readonly strengthPpm: (mmolL: ArrayLike<number>) => number;
  /** What the tap shows of what the membrane is fed: stages ahead may take some out; all of it where absent. */
  readonly tapShare?: number;
  /** Slices of each element's march; the solver's own number where absent. */
  readonly slices?: number;
  /** What is read beside what the solver says; a unit with polishing resin and nothing else where absent. */
  readonly beside?: (solved: Solved) => Beside;
}

/** The solver takes no water outside of this, °C. */
const COLDEST_C = 1;
const WARMEST_C = 44;

/**
 * The rig of a membrane unit: its own solver with whatever a fault changes.
 *
 * @returns an error where not even the sound unit can be solved
 */
export function unitRig(site: UnitOnSite): Outcome<Rig> {
  const sound = solveUnitFlows(site.unit, site.feed, site.conditions, site.slices);
  if (!sound.ok) return sound;
  const { value: near } = sound;
  const elements = site.unit.ranks.reduce((sum, { elementsPerVessel }) => sum + elementsPerVessel, 0);
  return ok({
    elements,
    soundProductLPerH: near.permeateLPerH,
    beside: site.beside ?? (() => PLAIN_BESIDE),
    solve: (change, beside, start) => solveChanged(site, near, elements, change, beside, start),
  });
}

/** The unit's own flows behind what was read of it: the next solve beside it starts from there. */
const FLOWS = new WeakMap<Solved, UnitFlows>();
const startOf = (read: Solved | undefined): UnitFlows | undefined => (read ? FLOWS.get(read) : undefined);

function solveChanged(
  site: UnitOnSite,
  sound: UnitFlows,
  elements: number,
  change: RigChange,
  beside?: Solved,
  start?: Solved,
): Outcome<Solved> {
  const { conditions: at, feed } = site;
  const { lineShare = 1, warmerC = 0, feedShare = 1, filterShare = 0, backBar = 0, pumpShare = 1, recycleShare = 1 } = change;
  const temperatureC = Math.min(WARMEST_C, Math.max(COLDEST_C, at.temperatureC + warmerC));
  const thicker = feedViscosity(temperatureC, 0) / feedViscosity(at.temperatureC, 0);
  // What the clog would take at the flow of the sound unit and 25 °C, as a share of the line's pressure.
  const clog = (filterShare * at.linePressureBar * feedViscosity(temperatureC, 0)) / feedViscosity(25, 0) / sound.feedLPerH;
  const strong: FeedSpecies = { ...feed, mmolL: feed.mmolL.map((c) => c * feedShare) };
  const linePressureBar = at.linePressureBar * lineShare;
  const conditions: UnitConditions = {
    ...at,
    linePressureBar,
    temperatureC,
    prefilterBarPerLPerH: at.prefilterBarPerLPerH * thicker + clog,
    permeatePressureBar: at.permeatePressureBar + backBar,
    ...(at.pump && { pump: weaker(at.pump, pumpShare) }),
  };
  const { defects = {} } = site.unit;
  const unit: MembraneUnit = {
    ...site.unit,
    factors: { water: site.unit.factors.water * (change.water ?? 1), salt: site.unit.factors.salt * (change.salt ?? 1) },
    ...(site.unit.recycleLPerH && { recycleLPerH: site.unit.recycleLPerH * recycleShare }),
    ...(site.unit.recycleKv && { recycleKv: site.unit.recycleKv * recycleShare }),
    defects: together({ defects }, change).defects ?? {},
  };
  // What a shared error does is the difference of two such solves: where plenty is left to waste, half the slices tell it as well.
  const even = beside !== undefined && beside.wasteFlow > beside.productFlow && !change.defects?.slip;
  const slices = even && site.slices ? Math.ceil(site.slices / 2) : site.slices;
  const solved = solveUnitFlows(unit, strong, conditions, slices, startOf(beside ?? start) ?? sound);
  if (!solved.ok) return solved;
  const open =
    conditions.permeatePressureBar > 0 && !beside
      ? solveUnitFlows(unit, strong, { ...conditions, permeatePressureBar: 0 }, site.slices, solved.value)
      : solved;
  if (!open.ok) return open;
  const read = readOf(site, solved.value, open.value, { linePressureBar, temperatureC, elements, strong });
  FLOWS.set(read, solved.value);
  const opened = beside && beside.productFlow > 0 ? beside.openFlow / beside.productFlow : 1;
  return ok(beside ? { ...read, openFlow: read.productFlow * opened } : read);
}

/** A pump that gives a share of what it should: of its pressure, or, where it pushes, of its flow. */
function weaker(pump: NonNullable<UnitConditions['pump']>, share: number): NonNullable<UnitConditions['pump']> {
  if (share === 1) return pump;
  if (pump.kind === 'displacement') return { ...pump, flowLPerH: pump.flowLPerH * share };
  if (pump.kind === 'booster') return { ...pump, riseBar: pump.riseBar * share };
  return { ...pump, shutOffBar: pump.shutOffBar * share, atBar: pump.atBar * share };
}

function readOf(
  { strengthPpm, tapShare = 1 }: UnitOnSite,
  flows: UnitFlows,
  open: UnitFlows,
  at: { readonly linePressureBar: number; readonly temperatureC: number; readonly elements: number; readonly strong: FeedSpecies },
): Solved {
  const places = flows.ranks.flatMap((rank) => rank.elements);
  const [first, last] = [places[0], places.at(-1)];
  const apart = places.length > 1 && first && last && first.permeateLPerH > 0 && last.permeateLPerH > 0;
  return {
    tap: tapShare * strengthPpm(at.strong.mmolL),
    // A unit that makes nothing leaves what it holds at the strength of its feed.
    membrane: strengthPpm(flows.permeateMmolL ?? at.strong.mmolL),
    line: at.linePressureBar,
    inlet: flows.feedPressureBar,
    temperature: at.temperatureC,
    productFlow: flows.permeateLPerH,
    wasteFlow: flows.concentrateLPerH,
    openFlow: open.permeateLPerH,
    ratioStrength: apart ? strengthPpm(last.permeateMmolL) / strengthPpm(first.permeateMmolL) : 1,
    ratioFlow: apart ? last.permeateLPerH / first.permeateLPerH : 1,
  };
}
