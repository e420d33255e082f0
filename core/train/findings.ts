import type { StageOf, System } from '../file';
import type { LimitCheck } from '../goal';
import { ELEMENT_ROWS, MAX_CHLORINE_MG_L, MAX_TEMPERATURE_C, permeabilityOf } from '../membrane';
import { BAR_PER_PSI, THIN, type UnitPreference } from '../quantity';
import { creep, SMALL_ELEMENT_L } from '../storage';
import { dissolvedMgL, type Character, type Water } from '../water';
import type { TrainFacts } from './facts';
import { inletBar } from './pressure';
import { polishedStation, productStation } from './solve';
import { limitText, words } from './words';

/** How a finding stands: met, worth minding, wrong, or simply so. */
export type Severity = 'good' | 'mind' | 'bad' | 'note';

/** A change that mends a finding, as plain data the app can carry out. */
export type FindingAction =
  | { readonly do: 'setWasteRatio'; readonly ratio: number; readonly label: string }
  | { readonly do: 'setCharacter'; readonly character: Character; readonly label: string }
  | { readonly do: 'closeBalance'; readonly close: boolean; readonly label: string };

/** A sentence with a number in it, one line of why, and where possible what mends it. */
export interface Finding {
  readonly id: string;
  readonly severity: Severity;
  readonly title: string;
  readonly why: string;
  readonly action?: FindingAction;
}

/** Near zero ppm says too little: sentences about pure water name µS/cm as well. */
const METRIC: UnitPreference = { system: 'metric', hardness: 'mg/L CaCO₃', ppmFactor: 0.5 };

/** Common-practice pressures for household units. */
const LOW_LINE_BAR = 45 * BAR_PER_PSI;
const HIGH_LINE_BAR = 80 * BAR_PER_PSI;
/** Ratios both schools accept. */
const RATIO_LOW = 3;
const RATIO_HIGH = 6;

/** Everything worth saying of a solved train, the goal first, the rest by urgency. */
export function trainFindings(system: System, facts: TrainFacts): Finding[] {
  const preference = system.units;
  const found: (Finding | null)[] = [
    producing(facts, preference),
    reachesGoal(facts, preference),
    ...membraneSafety(system, facts, preference),
    preparation(facts, preference),
    enoughWater(facts, preference),
    tankLasts(system, facts, preference),
    winter(system, facts, preference),
    scaling(system, facts, preference),
    ...otherScales(facts),
    creeping(system, facts, preference),
    ratio(system, facts, preference),
    pressure(system, facts, preference),
    ...elementLimits(system, facts, preference),
    resinLasts(facts, preference),
  ];
  const rank: Record<Severity, number> = { bad: 0, mind: 1, good: 2, note: 3 };
  const list = found.filter((finding): finding is Finding => finding !== null);
  // The goal stands first whatever its colour; the rest by urgency, in the order of the train.
  const [goal, others] = [list.filter((f) => f.id === 'goal'), list.filter((f) => f.id !== 'goal')];
  return [...goal, ...others.sort((a, b) => rank[a.severity] - rank[b.severity])];
}

function producing({ solved }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!solved.unit?.noProduction) return null;
  return {
    id: 'noProduction',
    severity: 'bad',
    title: `The membrane makes ${words(preference).perDay(0)}`,
    why: 'The pressure before it does not exceed the pressure behind it. Raise the line pressure, or lower the tank and the lift.',
  };
}

function reachesGoal({ checks, solved }: TrainFacts, preference: UnitPreference): Finding | null {
  if (solved.unit?.noProduction) return null;
  const say = words(preference);
  const product = productStation(solved);
  const shown = (check: LimitCheck): string =>
    check.limit.quantity === 'ec25UScm' ? say.water(check.value) : limitText(check.limit.quantity, check.value, preference);
  const missed = checks.filter((check) => !check.met);
  const worst = missed[0];
  if (!worst) {
    const silica = checks.find((check) => check.limit.quantity === 'silicaMgL');
    const also = silica ? `, silica ${say.mgL(silica.value)}` : '';
    const polished = polishedStation(solved);
    const ec = polished.state.ec25UScm;
    const standing =
      product !== polished
        ? `, ${words(METRIC).water(product.state.ec25UScm)} in the open ${product.name.toLowerCase()} once it has taken up CO₂ from the air`
        : '';
    return {
      id: 'goal',
      severity: 'good',
      title: `Reaches the goal: ${say.water(ec)}${also}`,
      why: `${words(METRIC).water(ec)} after ${polished.name.toLowerCase()}${standing}. ${checks.length === 1 ? 'Its limit is met.' : `All ${checks.length} limits are met.`}`,
    };
  }
  const { limit } = worst;
  const bound = worst.side === 'high' ? limit.high! : limit.low!;
  const boundText = shown({ ...worst, value: bound });
  const factor = bound > 0 && worst.side === 'high' && limit.quantity !== 'pH' ? `, ${(worst.value / bound).toFixed(1)} times it` : '';
  const rest =
    missed.length > 1
      ? ` Also outside: ${missed
          .slice(1)
          .map((check) => `${check.limit.label.toLowerCase()} ${shown(check)}`)
          .join(', ')}.`
      : '';
  return {
    id: 'goal',
    severity: worst.side === 'low' ? 'mind' : 'bad',
    title: `${limit.label} ${shown(worst)}, the goal is ${worst.side === 'high' ? 'at most' : 'at least'} ${boundText}`,
    why: `${limit.because}${factor}.${rest}${worst.side === 'low' ? ' Put minerals back or blend.' : ''}`,
  };
}

/** What to put to the product, by the litre and by the usual tank. */
function preparation({ prepared }: TrainFacts, preference: UnitPreference): Finding | null {
  const say = words(preference);
  if (!prepared.ok) return { id: 'prepare', severity: 'bad', title: 'The minerals cannot be put back as set', why: prepared.error.message };
  const { recipe } = prepared.value;
  const grams = (mgPerL: number): string => `${((mgPerL * 100) / 1000).toFixed(1)}${THIN}g`;
  switch (recipe.how) {
    case 'none':
      return null;
    case 'salt':
      return {
        id: 'prepare',
        severity: 'note',
        title: `Salt mix: ${recipe.saltGPerL.toFixed(1)}${THIN}g for each litre`,
        why: `${(recipe.saltGPerL / 10).toFixed(2)}${THIN}kg for ${say.of(100, 'volumeL')}; mixes hold 5 to 15${THIN}% of water, so finish by meter.`,
      };
    case 'minerals': {
      const { dose } = recipe;
      return {
        id: 'prepare',
        severity: 'note',
        title: `For ${say.of(100, 'volumeL')}: ${grams(dose.calciumChlorideMgL)} CaCl₂·2H₂O, ${grams(dose.magnesiumSulfateMgL)} MgSO₄·7H₂O, ${grams(dose.bicarbonateMgL)} ${dose.bicarbonate}HCO₃`,
        why: 'Dissolve each by itself, then let the water stand open a day: its pH settles with the air.',
      };
    }
    case 'blend':
      return {
        id: 'prepare',
        severity: 'note',
        title: `Blend ${Math.round(100 * recipe.tapShare)}${THIN}% tap water back`,
        why: `${say.of(100 * recipe.tapShare, 'volumeL')} of tap to ${say.of(100 * (1 - recipe.tapShare), 'volumeL')} of product; its chlorine comes along unless it is taken after the carbon.`,
      };
  }
}

/** Whether the train's own tank carries it over the week. */
function tankLasts(system: System, { smallestTankL }: TrainFacts, preference: UnitPreference): Finding | null {
  const tankL = system.train.stages.reduce((sum, stage) => (stage.kind === 'tank' ? sum + stage.volumeL : sum), 0);
  if (smallestTankL === null || tankL === 0 || tankL >= smallestTankL) return null;
  const say = words(preference);
  return {
    id: 'tank',
    severity: 'mind',
    title: `The tank of ${say.of(tankL, 'volumeL')} runs dry: the week needs ${say.of(smallestTankL, 'volumeL')} in store`,
    why: 'More is drawn at once than it holds and the unit can follow. A larger tank, smaller batches, or more output.',
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
          title: `${say.mgL(chlorine)} of chlorine reaches the membrane`,
          why: `It tolerates less than ${say.mgL(MAX_CHLORINE_MG_L)}. Put carbon before it, or a second block for chloramine.`,
        }
      : null,
    hot > MAX_TEMPERATURE_C
      ? {
          id: 'hot',
          severity: 'bad',
          title: `Feed at ${say.of(hot, 'temperatureC')} destroys the membrane`,
          why: `It stands at most ${say.of(MAX_TEMPERATURE_C, 'temperatureC')}. Connect to cold water only, never to the hot side.`,
        }
      : null,
  ];
}

function enoughWater({ solved, demandLPerDay: need, runHoursPerDay }: TrainFacts, preference: UnitPreference): Finding | null {
  if (runHoursPerDay === null) return null;
  const say = words(preference);
  const made = solved.productLPerH * 24;
  if (made < need) {
    return {
      id: 'demand',
      severity: 'bad',
      title: `Makes ${say.perDay(made)}, the need is ${say.perDay(need)}`,
      why: `Short by ${say.perDay(need - made)} even when it never stops.`,
    };
  }
  const hours = Math.floor(runHoursPerDay);
  const minutes = Math.round((runHoursPerDay - hours) * 60);
  return {
    id: 'demand',
    severity: 'good',
    title: `Makes ${say.perDay(made)}, ${(made / Math.max(need, 1e-9)).toFixed(1)} times the need`,
    why: `A day's ${say.of(need, 'volumeL')} takes ${hours} h ${String(minutes).padStart(2, '0')} min.`,
  };
}

function winter(system: System, { winter: cold, solved, demandLPerDay: need }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!cold || !solved.unit || solved.unit.noProduction) return null;
  const say = words(preference);
  const made = solved.productLPerH * 24;
  const share = Math.round((100 * cold.productLPerDay) / made);
  const ratioText =
    cold.ratio === null || membraneOf(system)?.valve
      ? ''
      : ` The ratio goes to ${say.ratio(cold.ratio)}, for the restrictor hardly feels the cold.`;
  const short = cold.productLPerDay < need;
  return {
    id: 'winter',
    severity: short ? 'bad' : cold.productLPerDay < 1.5 * need ? 'mind' : 'note',
    title: short
      ? `In winter it makes ${say.perDay(cold.productLPerDay)}, less than the need`
      : `Winter leaves ${share}${THIN}% of the output: ${say.perDay(cold.productLPerDay)}`,
    why: `At ${say.of(cold.temperatureC, 'temperatureC')}. ${short ? `Short by ${say.perDay(need - cold.productLPerDay)}.` : `Still ${(cold.productLPerDay / Math.max(need, 1e-9)).toFixed(1)} times the need.`}${ratioText}`,
  };
}

/** Gypsum, barite, silica and their kin in the waste, beyond what is safe without inhibitor. */
function otherScales({ scale }: TrainFacts): Finding[] {
  return (scale?.minerals ?? []).map(({ mineral, percent, limitPercent }) => ({
    id: `scale-${mineral}`,
    severity: 'mind' as const,
    title: `${mineral[0]!.toUpperCase()}${mineral.slice(1)} at ${Math.round(percent)}${THIN}% of saturation in the waste`,
    why: `Acted on above ${limitPercent}${THIN}% without inhibitor.${scale?.safeRecovery ? ` Up to ${Math.round(100 * scale.safeRecovery)}${THIN}% recovery is safe.` : ''}`,
  }));
}

/** Hours a household unit commonly stands overnight. */
const NIGHT_H = 8;

/** Salt that creeps through a small membrane at rest, and what the first litre tastes of it. */
function creeping(system: System, { solved }: TrainFacts, preference: UnitPreference): Finding | null {
  const stage = membraneOf(system);
  const { unit } = solved;
  if (!stage?.elementClass.startsWith('1812') || !unit?.permeate || unit.noProduction) return null;
  const row = ELEMENT_ROWS[stage.elementClass];
  const permeability = permeabilityOf(row, 'mixture');
  if (!permeability.ok) return null;
  const strength = (water: Water): number => dissolvedMgL(water.mgL, water.alkalinityMgL);
  const steadyMgL = strength(unit.permeate);
  const feedBrineMgL = (strength(unit.mixedFeed) + strength(unit.concentrate)) / 2;
  const saltLPerH = permeability.value.bLmh * row.areaM2 * stage.saltFactor;
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
      why: `The waste stays below saturation with calcite ${limit}.`,
    };
  }
  const settle = `Up to ${say.mgL(scale.precipitationMgL)} could settle, and ${say.index(scale.wallIndex)} stands at the membrane's skin.`;
  const byValve = Boolean(membraneOf(system)?.valve);
  if (scale.ratioAtAction !== null && scale.ratioAtAction <= 8 && !byValve) {
    const target = Math.ceil(scale.ratioAtAction * 10) / 10;
    return {
      id: 'scale',
      severity: 'mind',
      title: `Scale begins below ${say.ratio(scale.ratioAtAction)}; this runs at ${say.ratio(now)}`,
      why: `Waste index ${say.index(scale.index)}. ${settle}`,
      action: { do: 'setWasteRatio', ratio: target, label: `Set restrictor for ${say.ratio(target)}` },
    };
  }
  return {
    id: 'scale',
    severity: 'mind',
    title: `The waste can scale: index ${say.index(scale.index)} at ${say.ratio(now)}`,
    why: `${byValve && scale.safeRecovery !== null ? `Up to ${Math.round(100 * scale.safeRecovery)}${THIN}% recovery is safe without inhibitor. ` : ''}The tap itself stands at ${say.index(scale.feedIndex)}, so no ratio cures it. ${settle} Soften first, or flush the membrane after use.`,
  };
}

/** The membrane stage of a train. */
const membraneOf = (system: System): StageOf<'membrane'> | undefined =>
  system.train.stages.find((stage): stage is StageOf<'membrane'> => stage.kind === 'membrane');
const hasPump = (system: System): boolean => system.train.stages.some((stage) => stage.kind === 'pump');

function ratio(system: System, { solved }: TrainFacts, preference: UnitPreference): Finding | null {
  const now = solved.unit?.wasteToProduct;
  // The schools of 3 to 6 parts speak of household units with a restrictor.
  if (now === null || now === undefined || membraneOf(system)?.valve) return null;
  const say = words(preference);
  const target = system.train.wasteTarget;
  const action: FindingAction = { do: 'setWasteRatio', ratio: target, label: `Set restrictor for ${say.ratio(target)}` };
  if (now < RATIO_LOW) {
    return {
      id: 'ratio',
      severity: 'mind',
      title: `Waste to product ${say.ratio(now)}, below 3 : 1`,
      why: 'Too much is kept back: the membrane fouls and scales sooner on hard water.',
      action,
    };
  }
  if (now > RATIO_HIGH) {
    return {
      id: 'ratio',
      severity: 'mind',
      title: `Waste to product ${say.ratio(now)}, above 6 : 1`,
      why: `${say.perDay(solved.unit!.concentrateLPerH * 24)} goes to the drain while it runs. A longer or narrower restrictor keeps more.`,
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
    };
  }
  return null;
}

/** Flux designers keep below, LMH, sea water and mains or wells (recalled); small elements have no such figure. */
function designFlux(elementClass: StageOf<'membrane'>['elementClass']): number {
  if (elementClass.startsWith('1812') || elementClass.startsWith('2012')) return Infinity;
  return elementClass.endsWith('SW') ? 17 : 30;
}

function elementLimits(system: System, { solved }: TrainFacts, preference: UnitPreference): (Finding | null)[] {
  const stage = membraneOf(system);
  if (!solved.unit || solved.unit.noProduction || !stage) return [];
  const say = words(preference);
  const { limits } = ELEMENT_ROWS[stage.elementClass];
  const { feedPressureBar } = solved.unit;
  const tooHigh: Finding | null =
    feedPressureBar > limits.maxPressureBar
      ? {
          id: 'elementPressure',
          severity: 'bad',
          title: `${say.of(feedPressureBar, 'pressureBar')} on the membrane, its housing stands ${say.of(limits.maxPressureBar, 'pressureBar')}`,
          why: 'Housings burst. Lower the pump or the valve, or fit a regulator before anything else.',
        }
      : null;
  const perRank = solved.unit.ranks.map((rank, i) => {
    const which = solved.unit!.ranks.length > 1 ? `Element ${i + 1}` : 'The element';
    const feedLPerMin = rank.concentrateLPerMin / Math.max(0.01, 1 - rank.recoveryPerElement);
    if (feedLPerMin > limits.maxFeedLPerMin) {
      return {
        id: `feedflow-${i}`,
        severity: 'mind' as const,
        title: `${which} is fed ${say.of(feedLPerMin * 60, 'flowLPerH')}, more than its class is meant for`,
        why: `At most ${say.of(limits.maxFeedLPerMin * 60, 'flowLPerH')} a vessel: more pushes the spacer out at the end.`,
      };
    }
    const most = designFlux(stage.elementClass);
    // A twentieth above is within what flow meters tell.
    if (rank.fluxLmh > 1.05 * most) {
      return {
        id: `flux-${i}`,
        severity: 'mind' as const,
        title: `${which} runs at ${rank.fluxLmh.toFixed(0)} L/m²h`,
        why: `Plants are laid out for at most ${most} on this kind of water; above it fouls sooner. More elements, or less pressure.`,
      };
    }
    if (rank.pressureDropBar > limits.maxPressureDropBar) {
      return {
        id: `drop-${i}`,
        severity: 'mind' as const,
        title: `${which} takes ${say.of(rank.pressureDropBar, 'pressureBar')} from feed to waste`,
        why: `At most ${say.of(limits.maxPressureDropBar, 'pressureBar')} an element: more telescopes it.`,
      };
    }
    if (rank.recoveryPerElement > limits.maxRecovery) {
      return {
        id: `recovery-${i}`,
        severity: 'mind' as const,
        title: `${which} takes ${Math.round(100 * rank.recoveryPerElement)}${THIN}% of its feed`,
        why: `At most ${Math.round(100 * limits.maxRecovery)}${THIN}% is meant for this class; let more go to waste.`,
      };
    }
    if (rank.concentrateLPerMin < limits.minConcentrateLPerMin) {
      return {
        id: `crossflow-${i}`,
        severity: 'mind' as const,
        title: `${which} is rinsed with only ${say.of(rank.concentrateLPerMin * 60, 'flowLPerH')} of waste`,
        why: `Below ${say.of(limits.minConcentrateLPerMin * 60, 'flowLPerH')} dirt stays on the membrane.`,
      };
    }
    return null;
  });
  return [tooHigh, ...perRank];
}

function resinLasts({ resin, demandLPerDay: need }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!resin) return null;
  const say = words(preference);
  const { until } = resin.throughput;
  if (until.kind === 'unlimited')
    return { id: 'resin', severity: 'note', title: 'This water uses 0 eq of the resin', why: 'Nothing in it is taken up.' };
  const days = need > 0 ? until.litres / need : null;
  const what = resin.beds > 1 ? `${resin.beds} resins in series last` : 'New resin lasts';
  const carbon =
    resin.carbonShare > 0.5
      ? ` ${Math.round(100 * resin.carbonShare)}${THIN}% of what uses it up is dissolved CO₂, which no meter shows.`
      : '';
  return {
    id: 'resin',
    severity: days !== null && days < 30 ? 'mind' : 'note',
    title: `${what} ${say.of(until.litres, 'volumeL')}${days === null ? '' : `, ${say.days(days)}`}`,
    why: `The ${resin.throughput.limiting} side is spent first.${carbon}`,
  };
}
