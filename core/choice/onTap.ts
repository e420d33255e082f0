import type { System, Train } from '../file';
import { ionicLoad, softened, softenerCapacityEqPerL } from '../exchange';
import { ELEMENT_ROWS, solveAtPressure, speciesOfWater, waterOfSpecies, type FeedSpecies } from '../membrane';
import { dechlorinated } from '../pretreatment';
import { PPM_PER_USCM } from '../quantity';
import { kindOf, newStage, type Stage, type StageOf } from '../stage';
import { inletBar } from '../train';
import { settleWater, strengthened, type Water } from '../water';
import type { MembraneAnswer, Physics } from './answers';
import type { PlannedMembrane, PlannedPump } from './plan';

/** Physics of options on a system's own tap: the membrane part alone, held at its pressure or its recovery. */

/** A pump that holds a pressure in front of the membrane, or moves its litres against it. */
export function pumpStage({ bar, heldFeedLPerH }: PlannedPump, membrane: PlannedMembrane, energyRecovery: number): StageOf<'pump'> {
  const stage = newStage('pump', 'pump');
  if (membrane.recovery === null)
    return {
      ...stage,
      name: 'High-pressure pump',
      pump: { kind: 'displacement', flowLPerH: heldFeedLPerH!, reliefBar: bar + RELIEF_ABOVE_BAR, energyRecovery },
    };
  return {
    ...stage,
    name: heldFeedLPerH === null ? 'Booster' : 'Pump',
    pump: { kind: 'booster', riseBar: 2 * bar, openFlowLPerH: OPEN_FLOW, bypassBar: bar },
  };
}
const RELIEF_ABOVE_BAR = 8;
/** So wide that its bypass, and not its curve, sets the pressure. */
const OPEN_FLOW = 100_000;

/** The membrane of an option as a stage, held at its recovery or its pressure. */
export function membraneOf({ elementClass, ranks, recovery, pump }: PlannedMembrane, recycleLPerH: number): StageOf<'membrane'> {
  const alone = ranks.length === 1 && ranks[0]!.vessels === 1 && ranks[0]!.elementsPerVessel === 1;
  const two = ranks.length === 2 && ranks.every(({ vessels, elementsPerVessel }) => vessels === 1 && elementsPerVessel === 1);
  const beside = ranks.length === 1 && ranks[0]!.vessels === 2 && ranks[0]!.elementsPerVessel === 1;
  return {
    ...newStage('membrane', 'membrane'),
    elementClass,
    arrangement: alone ? 'single' : two ? 'series' : beside ? 'parallel' : 'array',
    ranks: alone || two || beside ? [] : ranks.map((rank) => ({ ...rank })),
    valve: recovery === null ? { kind: 'pressure', bar: pump!.bar } : { kind: 'recovery', recovery },
    recycleLPerH,
  };
}

/** Filters a membrane part is solved behind: as those of the options are, a sediment and a carbon for what passes them. */
function filters(membrane: PlannedMembrane, sea: boolean): Stage[] {
  const large = membrane.pump !== null && membrane.elementClass.slice(0, 2) !== '18';
  const sediment: Stage = { ...newStage('sediment', 'sediment'), cleanLossBar: large ? 0.02 : 0.08, loading: 0.2 };
  if (sea) return [sediment];
  return [
    sediment,
    { ...newStage('carbon', 'carbon'), volumeL: large ? 2.8 : 0.5, ratedL: large ? 80_000 : 11_000, cleanLossBar: large ? 0.03 : 0.1 },
  ];
}

/** A membrane part alone, as a train. */
export function partOf(membrane: PlannedMembrane, sea: boolean, recycleLPerH = 0): Train {
  const softener: Stage[] = membrane.softened ? [newStage('softener', 'softener')] : [];
  const pump: Stage[] = membrane.pump ? [pumpStage(membrane.pump, membrane, 0)] : [];
  return {
    stages: [...filters(membrane, sea), ...softener, ...pump, membraneOf(membrane, recycleLPerH)],
    probes: [],
    wasteTarget: 4,
    scaleActionIndex: null,
    drawLPerH: 10,
    branches: [],
    loop: null,
    gauge: 'line',
  };
}

const CO2_G_PER_MOL = 44.01;

/**
 * Solves membrane parts on a system's tap: every ion, at the pressure of the line or of the pump.
 *
 * @param feed the tap as it is planned with, at any temperature
 * @param slices an element is marched in; fewer for a first look over thousands
 */
export function physicsOn(system: Pick<System, 'source'>, feed: Water, sea: boolean, slices?: number): Physics {
  const line = inletBar(system.source);
  const feeds = new Map<string, FeedSpecies | null>();
  const feedAt = (softens: boolean, temperatureC: number, strength: number): FeedSpecies | null => {
    const key = `${softens} ${temperatureC} ${strength}`;
    const hit = feeds.get(key);
    if (hit !== undefined) return hit;
    const tap = { ...strengthened(feed, strength), temperatureC };
    const plain = sea ? tap : dechlorinated(FRESH_CARBON, tap, SLOW_L_PER_H);
    const species = speciesOfWater(softens ? softened(plain, softenerCapacityEqPerL(newStage('softener', 's').saltGPerL)) : plain);
    const found = species.ok ? species.value : null;
    feeds.set(key, found);
    return found;
  };
  return (membrane, { temperatureC, factors, strength }) => {
    const water = feedAt(membrane.softened, temperatureC, strength);
    if (!water) return null;
    const filterBarPerLPerH = membrane.pump
      ? 0
      : filters(membrane, sea).reduce((sum, stage) => sum + kindOf(stage).slopeBar(stage, SLOW_L_PER_H, temperatureC), 0);
    const solved = solveAtPressure(
      {
        row: ELEMENT_ROWS[membrane.elementClass],
        ranks: membrane.ranks,
        factors,
        pressureBar: membrane.pump?.bar ?? line,
        filterBarPerLPerH,
        temperatureC,
        law: 'mixture',
      },
      water,
      { recovery: membrane.recovery, heldLPerH: membrane.pump?.heldFeedLPerH ?? null },
      slices,
    );
    if (!solved.ok || !solved.value) return null;
    const { productLPerH, feedLPerH, permeateMmolL, leastConcentrateLPerH } = solved.value;
    const permeate = waterOfSpecies(water.ids, permeateMmolL, temperatureC);
    const state = settleWater(permeate);
    if (!state.ok) return null;
    const load = ionicLoad(permeate);
    const found: MembraneAnswer = {
      productLPerH,
      feedLPerH,
      concentrateLPerH: leastConcentrateLPerH,
      ppm: PPM_PER_USCM * state.value.ec25UScm,
      cationMeqL: load.cationMeqL,
      anionMeqL: load.anionMeqL,
      gasMeqL: state.value.co2MgL / CO2_G_PER_MOL,
      alkalinityMgL: permeate.alkalinityMgL,
    };
    return Object.values(found).every(Number.isFinite) ? found : null;
  };
}
/** A carbon that takes all chlorine: what is left of it is judged by a rule of its own. */
const FRESH_CARBON = { medium: 'block', volumeL: 5, ratedL: 1e6, passedL: 0 } as const;
const SLOW_L_PER_H = 1;
