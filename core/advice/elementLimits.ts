import { type StageOf, type Finding, unitRanks } from '../stage';
import type { System } from '../file';
import {
  ELEMENT_ROWS,
  isSeawaterElement,
  isSmallElement,
  type ElementLimits,
  type ElementState,
  type UnitSolution,
  type VesselRank,
} from '../membrane';
import { percent, inSentence, words } from '../quantity';
import type { SolvedTrain } from '../train';
import { rests } from './service';

/** What the elements of a train's membranes are asked beyond what their class is meant for; each finding names its element. */
export function elementLimits(system: System, solved: SolvedTrain): Finding[] {
  const stages = system.train.stages.filter((stage): stage is StageOf<'membrane'> => stage.kind === 'membrane');
  const units = [solved.unit, solved.secondPass?.unit ?? null];
  return stages.flatMap((stage, pass) => {
    const unit = units[pass];
    return unit && !unit.noProduction ? unitLimits(system, stage, unit, pass > 0, rests(system, solved)) : [];
  });
}

/**
 * Flux designers keep below, L/m²h: sea water on a plant that never rests and on a small watermaker that is flushed with
 * fresh water (common practice), mains and wells, and the product of a first pass (recalled).
 */
const DESIGN_FLUX = { sea: 17, watermaker: 35, fresh: 30, permeate: 45 } as const;

/** Small elements have no such figure. */
function designFlux(elementClass: StageOf<'membrane'>['elementClass'], secondPass: boolean, rests: boolean): number {
  if (isSmallElement(elementClass)) return Infinity;
  if (secondPass) return DESIGN_FLUX.permeate;
  if (!isSeawaterElement(elementClass)) return DESIGN_FLUX.fresh;
  return rests ? DESIGN_FLUX.watermaker : DESIGN_FLUX.sea;
}

/** An element and where it stands. */
interface Placed extends ElementState {
  readonly which: string;
}

/** How one speaks of an element where it stands. */
function whichElement(ranks: readonly VesselRank[], rank: number, element: number): string {
  const single = ranks.every((one) => one.elementsPerVessel === 1);
  if (ranks.length === 1 && single) return ranks[0]!.vessels === 1 ? 'The element' : 'Each element';
  if (single && ranks.every((one) => one.vessels === 1)) return `Element ${rank + 1}`;
  return ranks.length === 1 ? `Element ${element + 1} of each vessel` : `Rank ${rank + 1}, element ${element + 1}`;
}

/** What an element can be asked too much of. */
const ASKED = ['feedflow', 'flux', 'drop', 'recovery', 'crossflow'] as const;
type AskedOf = (typeof ASKED)[number];

/** Within what flow meters tell. */
const METER_DOUBT = 1.05;

/** By how much each limit of its class is passed by an element, as a ratio; above 1 it is. */
const loadsOf = (element: ElementState, limits: ElementLimits, fluxLmh: number): Readonly<Record<AskedOf, number>> => ({
  feedflow: element.feedLPerMin / limits.maxFeedLPerMin,
  flux: element.fluxLmh / (METER_DOUBT * fluxLmh),
  drop: element.pressureDropBar / limits.maxPressureDropBar,
  recovery: element.recovery / limits.maxRecovery,
  crossflow: limits.minConcentrateLPerMin / Math.max(1e-9, element.concentrateLPerMin),
});

/** The hardest worked element of a unit, limit by limit. */
export function hardestLoads(
  { elementClass }: Pick<StageOf<'membrane'>, 'elementClass'>,
  { ranks }: Pick<UnitSolution, 'ranks'>,
  resting: boolean,
): Readonly<Record<AskedOf, number>> {
  const { limits } = ELEMENT_ROWS[elementClass];
  const flux = designFlux(elementClass, false, resting);
  const all = ranks.flatMap(({ elements }) => elements.map((element) => loadsOf(element, limits, flux)));
  return Object.fromEntries(ASKED.map((id) => [id, Math.max(0, ...all.map((one) => one[id]))])) as Record<AskedOf, number>;
}

/** One limit in words. */
interface Limit {
  readonly id: AskedOf;
  readonly title: (element: Placed) => string;
  readonly why: string;
}

function unitLimits(system: System, stage: StageOf<'membrane'>, unit: UnitSolution, secondPass: boolean, resting: boolean): Finding[] {
  const { limits } = ELEMENT_ROWS[stage.elementClass];
  const ranks = unitRanks(stage);
  const placed = unit.ranks.flatMap((rank, r) =>
    rank.elements.map((element, e): Placed => {
      const which = whichElement(ranks, r, e);
      return { ...element, which: secondPass ? `Second pass, ${inSentence(which)}` : which };
    }),
  );
  const suffix = secondPass ? '-2' : '';
  const flux = designFlux(stage.elementClass, secondPass, resting);
  const over = limitsOf(system, limits, flux).flatMap((limit): Finding[] => {
    const load = (element: ElementState): number => loadsOf(element, limits, flux)[limit.id];
    const passed = placed.filter((element) => load(element) > 1);
    if (passed.length === 0) return [];
    const worst = passed.reduce((most, element) => (load(element) > load(most) ? element : most));
    const others =
      passed.length === placed.length && passed.length > 1
        ? ' The others do too.'
        : passed.length > 1
          ? ` ${passed.length - 1} other${passed.length > 2 ? 's do' : ' does'} too, of ${placed.length} in all.`
          : '';
    return [{ id: `${limit.id}${suffix}`, severity: 'mind', title: limit.title(worst), why: `${limit.why}${others}`, times: load(worst) }];
  });
  return [...tooHigh(system, limits, unit.feedPressureBar, suffix), ...over];
}

function tooHigh(system: System, { maxPressureBar }: ElementLimits, feedPressureBar: number, suffix: string): Finding[] {
  if (feedPressureBar <= maxPressureBar) return [];
  const say = words(system.units);
  return [
    {
      id: `elementPressure${suffix}`,
      severity: 'bad',
      hazard: true,
      title: `${say.of(feedPressureBar, 'pressureBar')} on the membrane, its housing stands ${say.of(maxPressureBar, 'pressureBar')}`,
      why: 'Housings burst. Lower the pump or the valve, or fit a regulator before anything else.',
    },
  ];
}

function limitsOf(system: System, limits: ElementLimits, fluxLmh: number): readonly Limit[] {
  const say = words(system.units);
  const flow = (lPerMin: number): string => say.of(lPerMin * 60, 'flowLPerH');
  return [
    {
      id: 'feedflow',
      title: ({ which, feedLPerMin }) => `${which} is fed ${flow(feedLPerMin)}, more than its class is meant for`,
      why: `At most ${flow(limits.maxFeedLPerMin)} a vessel: more pushes the spacer out at the end.`,
    },
    {
      id: 'flux',
      title: ({ which, fluxLmh: at }) => `${which} runs at ${at.toFixed(0)} L/m²h`,
      why: `Plants are laid out for at most ${fluxLmh} on this kind of water; above it fouls sooner. More elements, or less pressure.`,
    },
    {
      id: 'drop',
      title: ({ which, pressureDropBar }) => `${which} takes ${say.of(pressureDropBar, 'pressureBar')} from feed to waste`,
      why: `At most ${say.of(limits.maxPressureDropBar, 'pressureBar')} an element: more telescopes it.`,
    },
    {
      id: 'recovery',
      title: ({ which, recovery }) => `${which} takes ${percent(recovery)} of its feed`,
      why: `At most ${percent(limits.maxRecovery)} is meant for this class; let more go to waste.`,
    },
    {
      id: 'crossflow',
      title: ({ which, concentrateLPerMin }) => `${which} is rinsed with only ${flow(concentrateLPerMin)} of waste`,
      why: `Below ${flow(limits.minConcentrateLPerMin)} dirt stays on the membrane.`,
    },
  ];
}
