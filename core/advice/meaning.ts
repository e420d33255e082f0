import { currentSample, type System } from '../file';
import { type LimitQuantity, productLPerDay, GOAL_ROWS, goalLimits, STEAM_BOILER_C, type GoalFamily, type Limit } from '../goal';
import { percent, roundForReading, THIN, words } from '../quantity';
import { FILM_ML_PER_M2 } from './crew';
import {
  ammoniaAfterCarbonMgL,
  calciteState,
  CHARACTER_ROWS,
  dryResidueMgL,
  freeAmmoniaShare,
  hardnessOf,
  HARDNESS_SCALES,
  hardnessWord,
  mostAmmoniaMgL,
  NITROGEN_PER_CHLORAMINE,
  palatabilityWord,
  ryznarIndex,
  ryznarWord,
  settleWater,
  standardChecks,
  steamedScaleMgL,
  type Character,
  type CompletedWater,
  type WaterState,
} from '../water';
import { productStation, type SeasonSpan, wasteToProduct, type SolvedTrain } from '../train';
import type { Finding, Severity } from '../stage';

/** What is known when a tap water is spoken about. */
interface Tap {
  readonly system: System;
  readonly completed: CompletedWater;
  readonly state: WaterState;
  readonly family: GoalFamily;
  readonly limits: readonly Limit[];
  readonly solved: SolvedTrain | null;
  readonly span: SeasonSpan;
  readonly say: ReturnType<typeof words>;
}

/**
 * What a tap water means for a goal, before anything is done to it: each finding computed from this water, and only
 * those that matter to what the water is for.
 *
 * @param solved the system's train on this water, when it could be solved
 */
export function waterMeaning(system: System, completed: CompletedWater, solved: SolvedTrain | null, span: SeasonSpan): Finding[] {
  const settled = settleWater(completed.water);
  if (!settled.ok) return [{ id: 'error', severity: 'bad', title: 'This water cannot be computed', why: settled.error.message }];
  const { family } = GOAL_ROWS[system.goal.id];
  const tap: Tap = {
    system,
    completed,
    state: settled.value,
    family,
    limits: goalLimits(system.goal, system.units.ppmFactor),
    solved,
    span,
    say: words(system.units),
  };
  const found: (Finding | null)[] = [
    narrow(tap),
    otherKind(tap),
    ...againstItself(tap),
    sure(tap),
    strength(tap),
    lime(tap),
    spots(tap),
    ammonia(tap),
    ammoniaHeld(tap),
    ammoniaKit(tap),
    disinfectant(tap),
    silica(tap),
    nitrate(tap),
    salt(tap),
    corrosion(tap),
    seasons(tap),
  ];
  const rank: Record<Severity, number> = { bad: 0, mind: 1, good: 2, note: 2 };
  return found.filter((finding): finding is Finding => finding !== null).sort((a, b) => rank[a.severity] - rank[b.severity]);
}

/** The most of a quantity the goal allows; null where it does not say. */
const highOf = (limits: readonly Limit[], quantity: LimitQuantity): number | null =>
  limits.find((limit) => limit.quantity === quantity)?.high ?? null;

/** A contradiction small enough to work with. */
function narrow({ completed }: Tap): Finding | null {
  return completed.warning === null
    ? null
    : {
        id: 'warning',
        severity: 'mind',
        title:
          completed.misfit === null
            ? 'These numbers only just fit one water'
            : `Meter and kit differ by ${percent(Math.abs(completed.misfit))}`,
        why: completed.warning,
      };
}

/** The kind of supply a composition speaks of, where it speaks plainly; null where it does not. */
export function plainCharacter(completed: CompletedWater, ec25UScm: number): Character | null {
  const { mgL } = completed.water;
  if (ec25UScm > 15_000) return 'seawater';
  if (ec25UScm > 1800) return 'brackish';
  if (ec25UScm < 25) return 'rain';
  const measuredHardness = completed.origins.Ca !== 'assumed';
  return measuredHardness && hardnessOf(mgL) < 25 && mgL.Na > 60 ? 'softened' : null;
}

function otherKind({ completed, state, system, say }: Tap): Finding | null {
  const { character } = currentSample(system.source);
  const likely = plainCharacter(completed, state.ec25UScm);
  if (likely === null || likely === character) return null;
  const label = CHARACTER_ROWS[likely].label.toLowerCase();
  return {
    id: 'kind',
    severity: 'mind',
    title: `${say.water(state.ec25UScm)} speaks of ${label}, not of ${CHARACTER_ROWS[character].label.toLowerCase()}`,
    why: 'What was not measured is filled in from the kind of supply: with the wrong kind it is filled in wrongly.',
    action: { do: 'setCharacter', character: likely, label: `Take it as ${label}` },
  };
}

/** The tests of a whole analysis; only what fails is spelled out. */
function againstItself({ completed, state, system }: Tap): Finding[] {
  if (completed.rung !== 'report') return [];
  const { values } = currentSample(system.source).report;
  const of = (quantity: string): number | undefined => values.find((value) => value.quantity === quantity && !value.below)?.value;
  const measured = { ec25UScm: of('ec25UScm'), tdsMgL: of('tdsMgL') };
  const checks = standardChecks(completed.water.mgL, completed.water.alkalinityMgL, measured, state.ec25UScm);
  const { balance, closedOn } = completed;
  const difference = `${balance.differencePercent >= 0 ? '+' : '−'}${Math.abs(balance.differencePercent).toFixed(1)}${THIN}%`;
  if (closedOn)
    return [
      {
        id: 'balance',
        severity: 'note',
        title: `Charges of the report missed by ${difference}; closed on ${closedOn === 'Na' ? 'sodium' : 'chloride'}`,
        why: `Cations ${balance.cationsMeqL.toFixed(2)} and anions ${balance.anionsMeqL.toFixed(2)}${THIN}meq/L as reported.`,
        action: { do: 'closeBalance', close: false, label: 'Leave it open' },
      },
    ];
  const failed = checks.filter((check) => !check.passed);
  if (failed.length === 0)
    return [
      {
        id: 'balance',
        severity: 'good',
        title: `The report agrees with itself: charges within ${difference}`,
        why: `${checks.length === 1 ? 'Its one test' : `All ${checks.length} tests`} of a whole analysis passed (Standard Methods 1030E).`,
      },
    ];
  return failed.map((check) => {
    const range = `${check.low.toPrecision(2)} to ${check.high.toPrecision(2)}${THIN}${check.unit}`.trim();
    if (check.id === 'balance')
      return {
        id: 'balance',
        severity: 'mind',
        title: `The report contradicts itself: charges miss by ${difference}`,
        why: `Cations ${balance.cationsMeqL.toFixed(2)}, anions ${balance.anionsMeqL.toFixed(2)}${THIN}meq/L; accepted is ${range}. Look for a slipped digit or a missing ion.`,
        action: { do: 'closeBalance', close: true, label: `Close on ${balance.differencePercent < 0 ? 'sodium' : 'chloride'}` },
      };
    return {
      id: check.id,
      severity: 'mind',
      title: `${check.label}: ${check.value.toFixed(2)}, accepted is ${range}`,
      why: 'One of the figures in it, or its unit, is not right.',
    };
  });
}

/** How much is known and how much is filled in. */
function sure({ system, completed, say }: Tap): Finding {
  const { origins, rung, plusMinusMgL, water } = completed;
  if (rung === 'usual')
    return {
      id: 'sure',
      severity: 'mind',
      title: 'Nothing of this water was measured: 0 figures',
      why: `It stands on a usual water of its kind, ${CHARACTER_ROWS[currentSample(system.source).character].label.toLowerCase()}. One reading of a meter tells its strength.`,
    };
  if (rung === 'reading' && system.source.assumed.includes('reading'))
    return {
      id: 'sure',
      severity: 'mind',
      title: 'Nothing of this water was measured: the reading is assumed',
      why: 'It stands for a usual supply until somebody reads a meter: every figure here is a guess till then.',
    };
  if (rung === 'reading' && currentSample(system.source).character === 'seawater')
    return {
      id: 'sure',
      severity: 'good',
      title: 'One reading gives every salt of the sea',
      why: 'They stand in the same proportion in all seas. Boron too; silica, nitrate and what a harbour adds are assumed.',
    };
  // Humic anions are no figure of a water that has none.
  const figures = Object.entries(origins).filter(([key]) => key !== 'organic' || water.mgL.organic > 0);
  const assumed = figures.filter(([, origin]) => origin === 'assumed').length;
  const total = figures.length;
  const doubt = say.of(plusMinusMgL.alkalinity, 'alkalinityMgL');
  const calcium = water.mgL.Ca > 0 ? percent(plusMinusMgL.Ca / water.mgL.Ca) : null;
  const spread = `Alkalinity is known to ±${doubt}${calcium ? `, calcium to ±${calcium}` : ''}.`;
  if (rung === 'reading')
    return {
      id: 'sure',
      severity: 'note',
      title: '1 reading, everything else assumed',
      why: `${spread} A drop kit for hardness and alkalinity fixes most of it.`,
    };
  return {
    id: 'sure',
    severity: assumed <= total / 2 ? 'good' : 'note',
    title: `${total - assumed} of ${total} figures known, ${assumed} assumed`,
    why: spread,
  };
}

function strength({ completed, state, system, family, say }: Tap): Finding {
  const school = family === 'beverage' ? 'beverage' : 'usgs';
  const taste = family === 'drinking' ? ` Taste of so much: ${palatabilityWord(state.tdsMgL)}.` : '';
  return {
    id: 'strength',
    severity: 'note',
    title: `${say.water(state.ec25UScm)}, about ${roundForReading(state.tdsMgL)}${THIN}mg/L dissolved; ${hardnessWord(state.hardnessMgL, school)} (${HARDNESS_SCALES[school]})`,
    why: `pH ${state.pH.toFixed(1)} at ${say.of(completed.water.temperatureC, 'temperatureC')}, ${say.mgL(state.co2MgL)} of dissolved CO₂${system.train.stages.some((stage) => stage.kind === 'membrane') ? ', which passes a membrane and uses up resin' : ''}.${taste}`,
  };
}

/** Lime at the temperature of use, or as it comes. */
function lime({ completed, system, say }: Tap): Finding | null {
  const { heatedC } = GOAL_ROWS[system.goal.id];
  const { water } = completed;
  const hot = heatedC ?? 60;
  const cold = calciteState(water, water.temperatureC);
  const heated = calciteState(water, hot);
  if (!cold.ok || !heated.ok) return null;
  const settles = heated.value.precipitationMgL;
  const eager = cold.value.saturationIndex;
  if (heatedC === null)
    return {
      id: 'scale',
      severity: eager > 0 ? 'mind' : 'note',
      title: `Calcite index ${say.index(eager)} as it comes, ${say.index(heated.value.saturationIndex)} at ${say.of(hot, 'temperatureC')}`,
      why:
        settles > 0
          ? `Heated to ${say.of(hot, 'temperatureC')} it drops up to ${say.mgL(settles)} of lime. Waste of a membrane is stronger still.`
          : 'It dissolves lime rather than dropping it.',
    };
  if (settles <= 0.5)
    return {
      id: 'scale',
      severity: 'good',
      title: `No lime at ${say.of(hot, 'temperatureC')}: index ${say.index(heated.value.saturationIndex)}`,
      why: 'Even untreated it dissolves lime rather than dropping it.',
    };
  const perMonthKg = (settles * productLPerDay(system.goal) * 30.4) / 1e6;
  const kilograms = perMonthKg >= 0.1 ? `${perMonthKg.toFixed(1)}${THIN}kg` : `${Math.max(1, Math.round(perMonthKg * 1000))}${THIN}g`;
  return {
    id: 'scale',
    severity: settles > 10 ? 'bad' : 'mind',
    title: `${say.mgL(settles)} of lime at ${say.of(hot, 'temperatureC')}, up to ${say.mgL(steamedScaleMgL(water))} where it steams`,
    why: `Untreated that is ${kilograms} a month in the ${hot >= STEAM_BOILER_C ? 'boiler' : 'heater'}. Index ${say.index(heated.value.saturationIndex)}, closed.`,
  };
}

function spots({ completed, family, system }: Tap): Finding | null {
  if (family !== 'cleaning') return null;
  const left = (residueMgL: number): string => {
    const mg = (residueMgL * FILM_ML_PER_M2) / 1000;
    return `${mg >= 0.1 ? mg.toFixed(1) : mg.toFixed(2)}${THIN}mg`;
  };
  const residue = dryResidueMgL(completed.water);
  const crew = system.goal.crewLimitPpm ?? 0;
  return {
    id: 'spots',
    severity: 'mind',
    title: `The tap would leave ${left(residue)} of mineral on each m² of glass`,
    why: `With ${FILM_ML_PER_M2}${THIN}mL of water left on it. At this crew's ${crew}${THIN}ppm it is about ${left(crew)}.`,
  };
}

function ammonia({ completed, state, family, system, solved, say }: Tap): Finding | null {
  if (family !== 'aquarium') return null;
  const { mgL, temperatureC } = completed.water;
  const total = ammoniaAfterCarbonMgL(mgL);
  if (total < 0.01) return null;
  const free = freeAmmoniaShare(state.pH, temperatureC);
  const split = NITROGEN_PER_CHLORAMINE * mgL.chloramine;
  const from = split === 0 ? '' : `${split > 0.99 * total ? 'All' : say.mgL(split)} of it from chloramine the carbon splits. `;
  const membrane = solved?.unit
    ? solved.stations.find((station) => station.after === system.train.stages.find((s) => s.kind === 'membrane')?.id)
    : null;
  const passed = membrane ? membrane.water.mgL.NH4N : null;
  const passing =
    passed === null
      ? 'A membrane holds back what is ammonium and lets free ammonia through.'
      : `The membrane lets ${say.mgL(passed)} through (${percent(passed / total)}), and the resin must take it.`;
  return {
    id: 'ammonia',
    severity: free > 0.02 ? 'bad' : 'mind',
    title: `${say.mgL(total)} of ammonia nitrogen after carbon, ${percent(free)} of it free at pH ${state.pH.toFixed(1)}`,
    why: `${from}${passing}`,
  };
}

/** A kit that reads more ammonia than the conductivity can hold. */
function ammoniaHeld({ completed, system, say }: Tap): Finding | null {
  const { way, kit } = currentSample(system.source);
  const read = way === 'kit' ? kit.ammoniaMgL : null;
  const ec = completed.readUScm;
  if (read === null || ec === null || read <= mostAmmoniaMgL(ec)) return null;
  return {
    id: 'ammoniaHeld',
    severity: 'mind',
    title: `The kit reads ${say.mgL(read)} of ammonia; ${say.water(ec)} can hold ${say.mgL(mostAmmoniaMgL(ec))}`,
    why: 'Ammonia conducts, chloramine does not, and the kit reads both. Test total chlorine, and the kit on distilled water.',
  };
}

/** Chloramine nitrogen a kit tells from nothing, mg/L. */
const KIT_SEES_MGL = 0.02;

/** Chloramine that comes through to the product: an ammonia kit reads it, and resin does not take it. */
function ammoniaKit({ family, system, solved, say }: Tap): Finding | null {
  if (family !== 'aquarium' || !solved) return null;
  const { mgL } = productStation(solved).water;
  const split = NITROGEN_PER_CHLORAMINE * mgL.chloramine;
  if (split < KIT_SEES_MGL) return null;
  const resin = system.train.stages.some(({ kind }) => kind === 'resin');
  return {
    id: 'ammoniaKit',
    severity: 'mind',
    title: `An ammonia kit on the product reads ${say.mgL(ammoniaAfterCarbonMgL(mgL))}: ${say.mgL(split)} is chloramine`,
    why: `${resin ? 'No resin takes chloramine; carbon' : 'Carbon'} with enough contact does. Add carbon, or slow the flow through it.`,
  };
}

const COUNTED = ['none', 'one', 'two', 'three'];

/** What the carbon has to take in a year. */
function disinfectant({ completed, system, solved, say }: Tap): Finding | null {
  const { chlorine, chloramine } = completed.water.mgL;
  if (chlorine + chloramine < 0.005) return null;
  const assumed = system.source.assumed.includes('chlorine');
  const product = productLPerDay(system.goal);
  const perDay = product * (1 + ((solved && wasteToProduct(solved)) ?? 0));
  const gramsAYear = ((chlorine + chloramine) * perDay * 365) / 1000;
  const duty = `A year brings the carbon ${gramsAYear >= 10 ? Math.round(gramsAYear) : gramsAYear.toFixed(1)}${THIN}g of it, at ${say.perDay(perDay)} of feed.`;
  const carbons = system.train.stages.filter((stage) => stage.kind === 'carbon').length;
  const hasMembrane = system.train.stages.some((stage) => stage.kind === 'membrane');
  if (chloramine > 0)
    return {
      id: 'chloramine',
      severity: 'mind',
      title: `Chloramine ${completed.origins.chloramine === 'assumed' ? 'about ' : ''}${say.mgL(chloramine)} needs more carbon`,
      why: `Several times the contact time of chlorine; two blocks are common, this train has ${COUNTED[carbons] ?? carbons}. ${duty}`,
    };
  return {
    id: 'chlorine',
    severity: carbons === 0 && hasMembrane ? 'bad' : 'note',
    title: `Chlorine ${assumed ? 'about ' : ''}${say.mgL(chlorine)} ${hasMembrane ? 'must go before the membrane' : 'in the tap'}`,
    why: `${assumed ? 'Assumed; a test strip tells, and whether it is chloramine. ' : ''}A carbon block of the usual size takes it in seconds. ${duty}`,
  };
}

function silica({ completed, family, limits, say }: Tap): Finding | null {
  if (family !== 'aquarium' && family !== 'laboratory') return null;
  const amount = completed.water.mgL.SiO2;
  const high = highOf(limits, 'silicaMgL');
  if (high === null || amount <= high) return null;
  const assumed = completed.origins.SiO2 === 'assumed';
  return {
    id: 'silica',
    severity: 'note',
    title: `Silica ${assumed ? 'about ' : ''}${say.mgL(amount)}: ${(100 * (1 - high / amount)).toFixed(1)}${THIN}% must go`,
    why: `${assumed ? 'Assumed from the kind of supply; a kit tells. ' : ''}No meter sees it, and it leaves the resin before anything a meter sees.`,
  };
}

function nitrate({ completed, family, limits, say }: Tap): Finding | null {
  if (family !== 'aquarium' && family !== 'drinking') return null;
  const amount = completed.water.mgL.NO3;
  const high = highOf(limits, 'nitrateMgL');
  if (high === null || amount <= high) return null;
  return {
    id: 'nitrate',
    severity: family === 'drinking' ? 'bad' : 'note',
    title: `Nitrate ${completed.origins.NO3 === 'assumed' ? `about ${say.about(amount, 'concentrationMgL')}` : say.mgL(amount)}, the goal is at most ${say.mgL(high)}`,
    why:
      family === 'drinking'
        ? 'Not for infants; neither carbon nor boiling takes it out.'
        : 'A membrane holds back most of it; the resin the rest.',
  };
}

/** Sodium of softened or salty water, where it is tasted or pits metal. */
function salt({ completed, state, family, limits, say }: Tap): Finding | null {
  if (family !== 'beverage' && family !== 'drinking') return null;
  const { Na, Cl } = completed.water.mgL;
  const chlorideHigh = highOf(limits, 'chlorideMgL');
  if (chlorideHigh !== null && Cl > chlorideHigh)
    return {
      id: 'chloride',
      severity: 'bad',
      title: `Chloride ${say.mgL(Cl)}, the goal is at most ${say.mgL(chlorideHigh)}`,
      why: 'Softening does not touch it; stainless boilers pit. Only a membrane takes it out.',
    };
  if (Na > 100 && state.hardnessMgL < 40)
    return {
      id: 'sodium',
      severity: 'mind',
      title: `Sodium ${say.mgL(Na)} in place of hardness: this water was softened`,
      why: 'It tastes, and its alkalinity stays; a softener before it only adds to it.',
    };
  return null;
}

function corrosion({ completed, family }: Tap): Finding | null {
  if (family !== 'beverage' && family !== 'drinking') return null;
  const here = calciteState(completed.water, completed.water.temperatureC);
  if (!here.ok) return null;
  const index = ryznarIndex(here.value.pH, here.value.saturationIndex);
  return {
    id: 'corrosion',
    severity: index > 8.5 ? 'mind' : 'note',
    title: `Ryznar index ${index.toFixed(1)}: ${ryznarWord(index)}`,
    why: 'A tendency only: it knows nothing of chloride, oxygen or flow.',
  };
}

function seasons({ span, state, say }: Tap): Finding | null {
  const { weakestUScm, strongestUScm, lowestTemperatureC, highestTemperatureC } = span;
  if (weakestUScm === null || strongestUScm === null || strongestUScm < 1.1 * weakestUScm) return null;
  const factor = strongestUScm / state.ec25UScm;
  return {
    id: 'season',
    severity: factor > 1.25 ? 'mind' : 'note',
    title: `Over the year ${say.water(weakestUScm)} to ${say.water(strongestUScm)}`,
    why: `${say.of(lowestTemperatureC, 'temperatureC')} to ${say.of(highestTemperatureC, 'temperatureC')}. ${factor > 1.05 ? `At its strongest, resin is spent ${factor.toFixed(1)} times as fast as on this sample.` : 'This sample is near the strong end.'}`,
  };
}
