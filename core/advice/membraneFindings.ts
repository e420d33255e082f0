import {
  USUAL_RATIO,
  isSmallElement,
  SPENT_WATER_FACTOR,
  MAX_CHLORINE_MG_L,
  MAX_TEMPERATURE_C,
  permeabilityOf,
  saltFactor,
  pHRange,
} from '../membrane';
import { UNHELD } from '../dosing';
import { membraneStage, type System, type Train } from '../file';
import { elementRow, type Finding, type FindingAction, type StageOf } from '../stage';
import { BAR_PER_PSI, THIN, type UnitPreference, words, atStart } from '../quantity';
import { creep, SMALL_ELEMENT_L } from '../storage';
import { dissolvedMgL, type Water } from '../water';
import { elementLimits } from './elementLimits';
import type { TrainFacts } from './facts';
import { inletBar, type Station } from '../train';

/** What the membrane of a train has to say: makes it anything, is it safe, does it scale, creep, run within its limits. */
export const membraneFindings = (system: System, facts: TrainFacts): (Finding | null)[] => [
  ...membraneSafety(system, facts, system.units),
  spent(system),
  scaling(system, facts, system.units),
  ...otherScales(facts),
  creeping(system, facts, system.units),
  ratio(system, facts, system.units),
  pressure(system, facts, system.units),
  ...elementLimits(system, facts.solved),
];

/** Common-practice pressures for household units. */
const LOW_LINE_BAR = 45 * BAR_PER_PSI;

const HIGH_LINE_BAR = 80 * BAR_PER_PSI;

/** Where a household regulator is set (common practice: 60 psi). */
const REGULATOR_BAR = 60 * BAR_PER_PSI;

export function producing({ solved }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!solved.unit?.noProduction) return null;
  return {
    id: 'noProduction',
    severity: 'bad',
    title: `The membrane makes ${words(preference).perDay(0)}`,
    why: 'The pressure before it does not exceed the pressure behind it. Raise the line pressure, or lower the tank and the lift.',
  };
}

function membraneSafety(system: System, { solved }: TrainFacts, preference: UnitPreference): (Finding | null)[] {
  const at = system.train.stages.findIndex((stage) => stage.kind === 'membrane');
  if (at < 0) return [];
  const say = words(preference);
  const feed = solved.stations[at];
  if (!feed) return [];
  const chlorine = feed.water.mgL.chlorine + feed.water.mgL.chloramine;
  const hot = feed.water.temperatureC;
  return [
    chlorine >= MAX_CHLORINE_MG_L
      ? {
          id: 'chlorine',
          severity: 'bad',
          hazard: true,
          title: `${say.mgL(chlorine)} of chlorine reaches the membrane`,
          why: `It tolerates less than ${say.mgL(MAX_CHLORINE_MG_L)}. Put carbon before it, or a second block for chloramine.`,
        }
      : null,
    hot > MAX_TEMPERATURE_C
      ? {
          id: 'hot',
          severity: 'bad',
          hazard: true,
          title: `Feed at ${say.of(hot, 'temperatureC')} destroys the membrane`,
          why: `It stands at most ${say.of(MAX_TEMPERATURE_C, 'temperatureC')}. Connect to cold water only, never to the hot side.`,
        }
      : null,
    membraneStage(system.train.stages) ? outsidePH(membraneStage(system.train.stages)!, feed) : null,
  ];
}

/** A membrane that makes too little of what it did, or lets through more than its class allows. */
function spent(system: System): Finding | null {
  const stage = membraneStage(system.train.stages);
  if (!stage) return null;
  const water = stage.waterFactor ?? 1;
  const salt = stage.saltFactor ?? 1;
  const { nominalRejection, minimumRejection } = elementRow(stage);
  // Passage rises with the salt permeability, and falls with the flow that dilutes it.
  const rejection = 1 - Math.min(1, ((1 - nominalRejection) * salt) / water);
  if (water >= SPENT_WATER_FACTOR && rejection >= minimumRejection) return null;
  const percent = (share: number): string => `${(100 * share).toFixed(share > 0.9 ? 1 : 0)}${THIN}%`;
  return {
    id: 'spent',
    severity: 'mind',
    title:
      water < SPENT_WATER_FACTOR
        ? `${stage.name} makes ${percent(water)} of what it did new`
        : `${stage.name} would hold back ${percent(rejection)} on its test, its class ${percent(minimumRejection)} at least`,
    why: `By its age${stage.waterFactor === null ? ' and the chlorine it met' : ''}, or as entered: clean it, or change it. Look first whether cold water or low pressure explains it.`,
  };
}

/** Feed the element does not stand day after day. */
function outsidePH({ elementClass }: StageOf<'membrane'>, { state }: Station): Finding | null {
  const [low, high] = pHRange(elementClass);
  if (state.pH >= low && state.pH <= high) return null;
  return {
    id: 'pH',
    severity: 'bad',
    hazard: true,
    title: `Feed at pH ${state.pH.toFixed(1)}, the membrane stands ${low} to ${high}`,
    why: `Beyond that its skin dissolves. ${state.pH > high ? 'Find where the lye comes from, or dose acid' : 'Neutralise it'} before the membrane.`,
  };
}

/** Gypsum, barite, silica and their kin in the waste, beyond what is safe without inhibitor. */
function otherScales({ scale }: TrainFacts): Finding[] {
  return (scale?.minerals ?? []).map(({ mineral, percent, limitPercent }) => ({
    id: `scale-${mineral}`,
    severity: 'mind' as const,
    title: `${atStart(mineral)} at ${Math.round(percent)}${THIN}% of saturation in the waste`,
    why: `Acted on above ${Math.round(limitPercent)}${THIN}% ${limitPercent > UNHELD.percent[mineral] ? 'with what is dosed' : 'without inhibitor'}.${scale?.safeRecovery ? ` Up to ${Math.round(100 * scale.safeRecovery)}${THIN}% recovery is safe.` : ''}`,
  }));
}

/** Hours a household unit commonly stands overnight. */
const NIGHT_H = 8;

/** Salt that creeps through a small membrane at rest, and what the first litre tastes of it. */
function creeping(system: System, { solved }: TrainFacts, preference: UnitPreference): Finding | null {
  const stage = membraneOf(system);
  const { unit } = solved;
  if (!stage || !isSmallElement(stage.elementClass) || !unit?.permeate || unit.noProduction) return null;
  const row = elementRow(stage);
  const permeability = permeabilityOf(row, 'mixture');
  if (!permeability.ok) return null;
  const strength = (water: Water): number => dissolvedMgL(water.mgL, water.alkalinityMgL);
  const steadyMgL = strength(unit.permeate);
  const feedBrineMgL = (strength(unit.mixedFeed) + strength(unit.concentrate)) / 2;
  // Salt creeps as fast as the unit stands warm.
  const saltLPerH = permeability.value.bLmh * saltFactor(unit.mixedFeed.temperatureC) * row.areaM2 * (stage.saltFactor ?? 1);
  const { startMgL, meanMgL } = creep({ feedBrineMgL, steadyMgL, ...SMALL_ELEMENT_L, saltLPerH }, NIGHT_H, 1);
  const resin = system.train.stages.some((candidate) => candidate.kind === 'resin');
  if (meanMgL < steadyMgL + 4) return null;
  const say = words(preference);
  return {
    id: 'creep',
    severity: 'note',
    title: `After a night's rest the first litre holds ${say.mgL(meanMgL)}, not ${say.mgL(steadyMgL)}`,
    why: `Salt creeps through while it stands: ${say.mgL(startMgL)} behind the membrane. ${resin ? 'Flush before use, and the resin is spared it.' : 'Let the first litre go; long runs beat short ones.'}`,
  };
}

/** What a membrane may add to the index of its feed without changing what that means (our default). */
const ADDS_LITTLE = 0.2;

/** Whether another ratio would help: not where the tap itself is past what is acted on. */
const curable = ({ feedIndex, actionIndex }: { readonly feedIndex: number; readonly actionIndex: number }): string =>
  feedIndex > actionIndex ? ', so no ratio cures it.' : '.';

function scaling(system: System, { scale, solved }: TrainFacts, preference: UnitPreference): Finding | null {
  const now = solved.unit?.wasteToProduct;
  if (!scale || now === null || now === undefined) return null;
  const say = words(preference);
  if (scale.index <= scale.actionIndex) {
    const limit = scale.ratioAtAction === null ? 'at any ratio down to 0.3 : 1' : `above ${say.ratio(scale.ratioAtAction)}`;
    return {
      id: 'scale',
      severity: 'good',
      title: `No scale at ${say.ratio(now)}: waste index ${say.index(scale.index)}`,
      why: `Lime is acted on from ${say.index(scale.actionIndex)} here; the waste stays below that ${limit}.`,
    };
  }
  if (scale.feedIndex > scale.actionIndex && scale.index - scale.feedIndex < ADDS_LITTLE)
    return {
      id: 'scale',
      severity: 'note',
      title: `Waste index ${say.index(scale.index)}, the feed itself stands at ${say.index(scale.feedIndex)}`,
      why: `At ${say.ratio(now)} the unit adds little: what could settle leaves before it does. Rinse it with its own product before it stands.`,
    };
  const settle = `${scale.precipitationMgL < 0.5 ? 'Hardly anything' : `Up to ${say.mgL(scale.precipitationMgL)}`} could settle, and ${say.index(scale.wallIndex)} stands at the membrane's skin.`;
  const byValve = Boolean(membraneOf(system)?.valve);
  if (scale.ratioAtAction !== null && scale.ratioAtAction <= 8 && !byValve) {
    const target = Math.ceil(scale.ratioAtAction * 10) / 10;
    return {
      id: 'scale',
      severity: 'mind',
      title: `Scale begins below ${say.ratio(scale.ratioAtAction)}; this runs at ${say.ratio(now)}`,
      why: `Waste index ${say.index(scale.index)}. ${settle}`,
      action: ratioAction(system, target, 'scale', say),
    };
  }
  return {
    id: 'scale',
    severity: 'mind',
    title: `The waste can scale: index ${say.index(scale.index)} at ${say.ratio(now)}`,
    why: `${byValve && scale.safeRecovery !== null ? `Up to ${Math.round(100 * scale.safeRecovery)}${THIN}% recovery is safe without inhibitor. ` : ''}The tap itself stands at ${say.index(scale.feedIndex)}${curable(scale)} ${settle} Soften first, or flush the membrane after use.`,
  };
}

/** What sets a ratio, and makes it the one that is wanted: a tube that is cut, or another size of one that is not. */
const ratioAction = (system: System, ratio: number, why: Train['wasteWhy'], say: ReturnType<typeof words>): FindingAction => ({
  do: 'setWasteRatio',
  ratio,
  why,
  label: `${membraneOf(system)?.restrictor.form === 'fixed' ? 'Fit a restrictor' : 'Set restrictor'} for ${say.ratio(ratio)}`,
});

/** The membrane stage of a train. */
const membraneOf = (system: System): StageOf<'membrane'> | undefined => membraneStage(system.train.stages);

const hasPump = (system: System): boolean => system.train.stages.some((stage) => stage.kind === 'pump');

function ratio(system: System, { solved }: TrainFacts, preference: UnitPreference): Finding | null {
  const now = solved.unit?.wasteToProduct;
  // The schools of 3 to 6 parts speak of household units with a restrictor.
  if (now === null || now === undefined || membraneOf(system)?.valve) return null;
  const say = words(preference);
  const target = system.train.wasteTarget;
  const action = ratioAction(system, target, system.train.wasteWhy, say);
  if (now < USUAL_RATIO.least) {
    return {
      id: 'ratio',
      severity: 'mind',
      title: `Waste to product ${say.ratio(now)}, below ${USUAL_RATIO.least} : 1`,
      why: 'Too much is kept back: the membrane fouls and scales sooner on hard water.',
      action,
    };
  }
  if (now > USUAL_RATIO.most) {
    return {
      id: 'ratio',
      severity: 'mind',
      title: `Waste to product ${say.ratio(now)}, above ${USUAL_RATIO.most} : 1`,
      why: `${say.perDay(solved.unit!.concentrateLPerH * 24)} goes to the drain while it runs. ${membraneOf(system)?.restrictor.form === 'fixed' ? 'A smaller' : 'A longer or narrower'} restrictor keeps more.`,
      action,
    };
  }
  return null;
}

function pressure(system: System, { solved }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!solved.unit || solved.unit.noProduction) return null;
  const say = words(preference);
  const line = inletBar(system.source);
  if (line < LOW_LINE_BAR && !hasPump(system)) {
    return {
      id: 'pressure',
      severity: 'mind',
      title: `Line pressure ${say.of(line, 'pressureBar')} is low`,
      why: `Below about ${say.of(LOW_LINE_BAR, 'pressureBar')} output and quality both suffer; a booster pump mends both.`,
    };
  }
  if (line > HIGH_LINE_BAR) {
    return {
      id: 'pressure',
      severity: 'bad',
      title: `Line pressure ${say.of(line, 'pressureBar')} is too high`,
      why: `Above about ${say.of(HIGH_LINE_BAR, 'pressureBar')} housings and tubing of household units give way. Fit a regulator.`,
      action: { do: 'setRegulator', bar: REGULATOR_BAR, label: `Fit one at ${say.of(REGULATOR_BAR, 'pressureBar')}` },
    };
  }
  return null;
}
