import type { Branch, Goal, Stage, System } from '../file';
import {
  decarbonised,
  flushL,
  meterPresetL,
  ratingAgrees,
  sizeSoftener,
  SODIUM_PER_HARDNESS,
  softenerCapacityEqPerL,
  softenerLeakageMgL,
  type SoftenerPlan,
} from '../exchange';
import { GOAL_ROWS, STEAM_BOILER_C } from '../goal';
import { THIN } from '../quantity';
import { UV_END_OF_LIFE, UV_GOAL_MJ_PER_CM2, uvDoseMJPerCm2 } from '../storage';
import { CACO3_G_PER_EQ, hardnessOf, MOLAR_MASS } from '../water';
import type { Finding } from './finding';
import type { TrainFacts } from './facts';
import { litresPerProduct, type SolvedTrain } from './solved';
import type { Station } from './walk';
import { words, inSentence } from './words';

/** A stage where it stands: what comes in, what leaves, and how much of it. */
export interface Treating {
  readonly stage: Stage;
  readonly before: Station;
  readonly after: Station;
  readonly litresPerDay: number;
  readonly goal: Pick<Goal, 'id'> & Partial<Pick<Goal, 'school'>>;
}

/** The stages of the train, each where it stands: up to the membrane they see all feed, behind it the product. */
export function trainTreating(system: System, solved: SolvedTrain, demandLPerDay: number): Treating[] {
  const { stages } = system.train;
  return stages.flatMap((stage, i) => {
    const [before, after] = [solved.stations[i], solved.stations[i + 1]];
    if (!before || !after) return [];
    return [{ stage, before, after, litresPerDay: demandLPerDay * litresPerProduct(solved, stages, i), goal: system.goal }];
  });
}

/** The stages of a branch, each where it stands. */
export const branchTreating = (branch: Branch, stations: readonly Station[]): Treating[] =>
  branch.stages.map((stage, i) => ({
    stage,
    before: stations[i]!,
    after: stations[i + 1]!,
    litresPerDay: branch.litresPerDay,
    goal: branch.goal,
  }));

/** A stage where it stands, in the train or in a branch; null where no water reaches it. */
export const treatingAt = (
  system: System,
  report: Pick<TrainFacts, 'solved' | 'demandLPerDay'> & {
    readonly branches: readonly { readonly branch: Branch; readonly stations: readonly Station[] }[];
  },
  stageId: string,
): Treating | null =>
  [
    ...trainTreating(system, report.solved, report.demandLPerDay),
    ...report.branches.flatMap(({ branch, stations }) => branchTreating(branch, stations)),
  ].find(({ stage }) => stage.id === stageId) ?? null;

/** What the stages that change hardness, or make water safe, have to say for themselves. */
export function treatmentFindings(system: System, at: Treating): Finding[] {
  switch (at.stage.kind) {
    case 'softener':
      return softenerFindings(system, at);
    case 'decarboniser':
      return decarboniserFindings(system, at);
    case 'inhibitor':
      return inhibitorFindings(system, at);
    case 'uv':
      return uvFindings(at);
    default:
      return [];
  }
}

/** A softener's plan on the water that meets it. */
export function softenerPlan({ stage, before, litresPerDay }: Treating): ReturnType<typeof sizeSoftener> | null {
  if (stage.kind !== 'softener') return null;
  return sizeSoftener({
    volumeL: stage.volumeL,
    saltGPerL: stage.saltGPerL,
    hardnessMgL: hardnessOf(before.water.mgL),
    ironMgL: before.water.mgL.Fe,
    litresPerDay: Math.max(0.01, litresPerDay),
    reserveShare: stage.reserveShare,
  });
}

/** Hardness behind a softener that is an alarm: a grain a gallon. */
const SOFT_ALARM_MGL = 17.1;
/** Dissolved iron from which a softener is in trouble, mg/L. */
const IRON_MIND_MGL = 0.3;

function softenerFindings(system: System, at: Treating): Finding[] {
  const { stage, before } = at;
  if (stage.kind !== 'softener') return [];
  const say = words(system.units);
  const planned = softenerPlan(at);
  if (!planned) return [];
  if (!planned.ok) {
    const nothing = hardnessOf(before.water.mgL) < 0.1;
    return nothing
      ? [
          {
            id: `softener-${stage.id}`,
            severity: 'note',
            title: `${stage.name} meets ${say.of(0, 'hardnessMgL')} of hardness`,
            why: 'There is nothing here to soften: it could go.',
          },
        ]
      : [{ id: `softener-${stage.id}`, severity: 'bad', title: `${stage.name} cannot be planned`, why: planned.error.message }];
  }
  const plan: SoftenerPlan = planned.value;
  const leak = softenerLeakageMgL(
    softenerCapacityEqPerL(stage.saltGPerL),
    before.state.hardnessMgL / CACO3_G_PER_EQ + before.water.mgL.Na / MOLAR_MASS.Na,
  );
  const sodium = SODIUM_PER_HARDNESS * Math.max(0, before.state.hardnessMgL - leak);
  const found: Finding[] = [
    {
      id: `softener-${stage.id}`,
      severity: plan.days < 1 ? 'bad' : plan.days < 3 ? 'mind' : 'note',
      title:
        plan.days < 1
          ? `${stage.name} is spent after ${say.of(plan.litresBetween, 'volumeL')}, within the day`
          : `${stage.name} regenerates every ${plan.days.toFixed(1)} days with ${plan.saltKg.toFixed(1)}${THIN}kg of salt`,
      why: `${plan.saltKgPerYear.toFixed(0)}${THIN}kg of salt a year; ${Math.round(100 * plan.wasteShare)}${THIN}% of the water goes down the drain with it. About ${say.mgL(leak)} of hardness slips through, and ${say.mgL(sodium)} of sodium comes for the rest. Look at the salt every two months.`,
    },
  ];
  if (leak > SOFT_ALARM_MGL)
    found.push({
      id: `softener-leak-${stage.id}`,
      severity: 'mind',
      title: `About ${say.mgL(leak)} of hardness slips through ${inSentence(stage.name)}`,
      why: 'Above 17 mg/L it is an alarm. More salt at each regeneration lowers it.',
    });
  if (before.water.mgL.Fe > IRON_MIND_MGL)
    found.push({
      id: `softener-iron-${stage.id}`,
      severity: 'mind',
      title: `Iron ${say.mgL(before.water.mgL.Fe)} stays on the resin`,
      why: 'Use salt with resin cleaner, and regenerate at least every four days.',
    });
  return found;
}

/** Acid that attacks brass and copper below this. */
const LEAST_PH = 6.3;
/** Months after which a cartridge is changed whatever its litres (common practice). */
const CARTRIDGE_MONTHS = 12;
/** Hardness tied to alkalinity up to which such cartridges are made, mg/L (our reading of usual charts). */
const MADE_FOR_MGL = 430;

/** What a decarbonising cartridge does: litres, the meter's figure, and which comes first. */
export interface CartridgeLife {
  /** Null when nothing uses it up. */
  readonly litres: number | null;
  readonly presetL: number | null;
  readonly months: number;
  readonly by: 'capacity' | 'time';
}

export function cartridgeLife(at: Treating): CartridgeLife | null {
  const { stage, before, litresPerDay } = at;
  if (stage.kind !== 'decarboniser') return null;
  const blend = decarbonised(before.water, stage, stage.bypass);
  if (!blend.ok) return null;
  const { until } = blend.value;
  if (until.kind === 'unlimited') return { litres: null, presetL: null, months: CARTRIDGE_MONTHS, by: 'time' };
  const presetL = meterPresetL(until.litres);
  const months = litresPerDay > 0 ? presetL / litresPerDay / 30.4 : Infinity;
  return months < CARTRIDGE_MONTHS
    ? { litres: until.litres, presetL, months, by: 'capacity' }
    : { litres: until.litres, presetL, months: CARTRIDGE_MONTHS, by: 'time' };
}

function decarboniserFindings(system: System, at: Treating): Finding[] {
  const { stage, before, after, goal } = at;
  if (stage.kind !== 'decarboniser') return [];
  const say = words(system.units);
  const life = cartridgeLife(at);
  const found: Finding[] = [];
  if (stage.bypass >= 1)
    found.push({
      id: `bypass-${stage.id}`,
      severity: 'mind',
      title: `All water goes past ${inSentence(stage.name)}: bypass 100${THIN}%`,
      why: 'It treats nothing and is never spent. Close the dial, or take it out.',
    });
  else if (life?.litres)
    found.push({
      id: `cartridge-${stage.id}`,
      severity: life.months < 1 ? 'mind' : 'note',
      title: `${stage.name} lasts ${say.of(life.litres, 'volumeL')}: set its meter to ${say.of(life.presetL!, 'volumeL')}`,
      why: `${life.by === 'capacity' ? `At ${say.perDay(at.litresPerDay)} that is ${life.months.toFixed(1)} months` : 'A year comes first: change it after 12 months'}. Flush ${say.of(flushL(stage.volumeL), 'volumeL')} before use.`,
    });
  const carbonate = Math.min(before.state.alkalinityMgL, before.state.hardnessMgL);
  if (carbonate > MADE_FOR_MGL)
    found.push({
      id: `toohard-${stage.id}`,
      severity: 'bad',
      title: `${say.of(carbonate, 'hardnessMgL')} of carbonate hardness is more than such cartridges are made for`,
      why: `Up to about ${say.of(MADE_FOR_MGL, 'hardnessMgL')}. Soften or use a membrane before it.`,
    });
  if (after.state.pH < LEAST_PH && stage.bypass < 1)
    found.push({
      id: `acid-${stage.id}`,
      severity: 'mind',
      title: `pH ${after.state.pH.toFixed(1)} behind ${inSentence(stage.name)}, before the CO₂ leaves`,
      why: `Below ${LEAST_PH} brass and copper suffer. A higher bypass, or a cartridge that gives magnesium.`,
    });
  if (before.state.alkalinityMgL > before.state.hardnessMgL + 5)
    found.push({
      id: `soda-${stage.id}`,
      severity: 'mind',
      title: `Alkalinity ${say.of(before.state.alkalinityMgL, 'alkalinityMgL')} is more than hardness ${say.of(before.state.hardnessMgL, 'hardnessMgL')}`,
      why: 'This water was softened: the cartridge takes what hardness there is and leaves sodium bicarbonate.',
    });
  if (!ratingAgrees(stage.capacityEq, stage.volumeL))
    found.push({
      id: `rating-${stage.id}`,
      severity: 'mind',
      title: `${(stage.capacityEq / stage.volumeL).toFixed(1)}${THIN}eq in a litre of resin: rating and volume do not agree`,
      why: 'Such resin holds 1 to 4. Look at the label again.',
    });
  if (GOAL_ROWS[goal.id].heatedC !== null && after.state.alkalinityMgL < 20)
    found.push({
      id: `flat-${stage.id}`,
      severity: 'mind',
      title: `Only ${say.of(after.state.alkalinityMgL, 'alkalinityMgL')} of alkalinity is left`,
      why: 'The cup turns sour and the boiler corrodes. Open the bypass.',
    });
  return found;
}

/** Limits of phosphate against scale (common practice). */
const INHIBITOR_HARDNESS_MGL = 350;
const INHIBITOR_C = 80;
/** Dissolved matter up to which filtration with inhibition does for a counter (common practice). */
const WEAK_WATER_MGL = 250;

function inhibitorFindings(system: System, { stage, before, goal }: Treating): Finding[] {
  if (stage.kind !== 'inhibitor') return [];
  const say = words(system.units);
  const { heatedC } = GOAL_ROWS[goal.id];
  const found: Finding[] = [];
  if (before.state.tdsMgL > WEAK_WATER_MGL && GOAL_ROWS[goal.id].family === 'beverage')
    found.push({
      id: `layout-${stage.id}`,
      severity: 'mind',
      title: `${say.mgL(before.state.tdsMgL)} dissolved: this layout is for water below about ${say.mgL(WEAK_WATER_MGL)}`,
      why: 'Above it a counter wants a softener, a membrane with blending, and polishing: there is a template for it.',
    });
  if (before.state.hardnessMgL > INHIBITOR_HARDNESS_MGL)
    found.push({
      id: `inhibitor-${stage.id}`,
      severity: 'bad',
      title: `${say.of(before.state.hardnessMgL, 'hardnessMgL')} of hardness is more than ${inSentence(stage.name)} can hold`,
      why: `Up to about ${say.of(INHIBITOR_HARDNESS_MGL, 'hardnessMgL')}. Soften, or use a membrane.`,
    });
  if (heatedC !== null && heatedC > INHIBITOR_C)
    found.push({
      id: `inhibitor-hot-${stage.id}`,
      severity: 'mind',
      title: `${stage.name} holds scale only below ${say.of(INHIBITOR_C, 'temperatureC')}`,
      why: `${heatedC >= STEAM_BOILER_C ? 'It does not protect a steam boiler' : `Here water is heated to ${say.of(heatedC, 'temperatureC')}`}: give what boils a cartridge of its own. Change every 6 months.`,
    });
  return found;
}

function uvFindings({ stage, before }: Treating): Finding[] {
  if (stage.kind !== 'uv' || !(before.flowLPerH > 0)) return [];
  const dose = uvDoseMJPerCm2(stage.intensityMWPerCm2 * UV_END_OF_LIFE, stage.chamberL, before.flowLPerH);
  const short = dose < UV_GOAL_MJ_PER_CM2;
  return [
    {
      id: `uv-${stage.id}`,
      severity: short ? 'mind' : 'good',
      title: `${stage.name} gives ${dose.toFixed(0)}${THIN}mJ/cm² at the end of its life`,
      why: short
        ? `Disinfection asks for ${UV_GOAL_MJ_PER_CM2} (NSF/ANSI 55 class A). A slower flow, or a stronger lamp.`
        : `Disinfection asks for ${UV_GOAL_MJ_PER_CM2}. Lamps last about 9,000 hours; it stands before the polisher where organics matter.`,
    },
  ];
}
