import { awayFinding } from './away';
import { membraneShare } from './blend';
import { type Stage, byUrgency, type Finding, type FindingAction } from '../stage';
import type { System } from '../file';
import {
  against,
  allMet,
  assumedText,
  GOAL_ROWS,
  type LimitCheck,
  limitText,
  metByAssumption,
  missText,
  strengthTexts,
  untested,
  batchL,
} from '../goal';
import { inSentence, L_PER_US_GALLON, listed, METRIC_UNITS, THIN, type UnitPreference, words } from '../quantity';
import type { TrainFacts } from './facts';
import { housingFindings } from './housings';
import { membraneFindings, producing } from './membraneFindings';
import { orderFindings } from './orderFindings';
import { polishedStation, productStation } from '../train';
import { supplyFindings } from './supplyFindings';
import { withoutLimits } from './unset';
import { sayings, trainStandings } from '../life';

/** Near zero ppm says too little: sentences about pure water name µS/cm as well. */

/** Share of feed beyond which blending is no longer a membrane's work. */
const MOST_BLEND = 0.6;

/** Share of a carbon's capacity from which its change is spoken of (our default). */
const CARBON_MIND = 0.85;

/** Everything worth saying of a solved train: what is wrong, the goal, the rest by harm. */
export function trainFindings(system: System, facts: TrainFacts): Finding[] {
  const preference = system.units;
  const found: (Finding | null)[] = [
    producing(facts, preference),
    reachesGoal(facts, system),
    preparation(facts, system.goal, preference),
    ...supplyFindings(system, facts),
    ...orderFindings(system, facts),
    ...membraneFindings(system, facts),
    ...housingFindings(system, facts.solved),
    carbonSpent(system, facts),
    resinLasts(facts, preference),
    ...trainStandings(system, { ...facts, throughPerL: facts.year.throughPerL }).flatMap(sayings),
  ];
  const list = found.filter((finding): finding is Finding => finding !== null);
  // The goal stands first, but never above what is wrong; the rest by harm, in the order of the train.
  const goal = list.filter((f) => f.id === 'goal');
  const others = list.filter((f) => f.id !== 'goal').sort(byUrgency);
  const away = awayFinding(system);
  const wrong = others.filter((f) => f.hazard || (f.severity === 'bad' && goal[0]?.severity !== 'bad'));
  return [...(away ? [away] : []), ...wrong, ...goal, ...others.filter((f) => !wrong.includes(f))];
}

function reachesGoal(facts: TrainFacts, system: System): Finding | null {
  const { checks, solved, loop, judgedUScm } = facts;
  const { units: preference } = system;
  if (solved.unit?.noProduction) return null;
  const say = words(preference);
  const product = productStation(solved);
  const shown = (check: LimitCheck): string =>
    check.limit.quantity === 'ec25UScm' ? say.water(check.value) : limitText(check.limit.quantity, check.value, preference);
  if (checks.length === 0)
    return withoutLimits('goal', GOAL_ROWS[system.goal.id].label, system.goal.id, product.water, facts.demandLPerDay, preference);
  const missed = against(checks);
  const worst = missed[0];
  if (!worst) {
    const silica = checks.find((check) => check.limit.quantity === 'silicaMgL');
    const also = silica
      ? `, silica ${silica.assumed ? assumedText('silicaMgL', silica.value, silica.assumed.plusMinus, preference) : shown(silica)}`
      : '';
    const polished = polishedStation(solved);
    const ec = judgedUScm;
    const metric = words(METRIC_UNITS);
    const standing =
      !loop && metric.water(product.state.ec25UScm) !== metric.water(ec)
        ? `, ${metric.water(product.state.ec25UScm)} in the open ${inSentence(product.name)} once it has taken up CO₂ from the air`
        : '';
    const perhaps = metByAssumption(checks);
    const [first] = perhaps;
    if (first)
      return {
        id: 'goal',
        severity: 'mind',
        title: `${first.limit.label}, assumed ${assumedText(first.limit.quantity, first.value, first.assumed!.plusMinus, preference)}: ${boundText(first, preference)}`,
        why: `As assumed it meets the goal, and may not: measure ${listed(perhaps.map(({ limit }) => inSentence(limit.label)))} at the tap. Product ${say.water(ec)}; the other limits are met.`,
      };
    return {
      id: 'goal',
      severity: 'good',
      title: `Reaches the goal: ${say.water(ec)}${also}`,
      why: `${metric.water(ec)} ${loop ? 'at the outlets at the worst hour of the week' : `after ${inSentence(polished.name)}`}${standing}; ${metSays(checks)}.`,
    };
  }
  const { limit } = worst;
  const bound = worst.side === 'high' ? limit.high! : limit.low!;
  const figures =
    limit.quantity === 'ec25UScm'
      ? strengthTexts(worst.value, bound, preference)
      : missText(limit.quantity, worst.value, bound, preference);
  const factor =
    bound > 0 && worst.side === 'high' && limit.quantity !== 'pH' ? `: ${(worst.value / bound).toFixed(1)} times the limit` : '';
  const rest =
    missed.length > 1
      ? ` Also outside: ${missed
          .slice(1)
          .map((check) => `${inSentence(check.limit.label)} ${shown(check)}`)
          .join(', ')}.`
      : '';
  const most = `the goal is ${worst.side === 'high' ? 'at most' : 'at least'} ${figures.bound}`;
  if (worst.assumed)
    return {
      id: 'goal',
      severity: worst.verdict === 'unknown' || worst.side === 'low' ? 'mind' : 'bad',
      title: `${limit.label}, assumed ${assumedText(limit.quantity, worst.value, worst.assumed.plusMinus, preference)}: ${most}`,
      why: `Nobody measured it at the tap: measure it before anything is bought for it. ${limit.because}.${rest}${worst.side === 'low' ? ' Put minerals back or blend.' : ''}`,
      ...blending(worst, system, facts),
    };
  return {
    id: 'goal',
    severity: worst.side === 'low' ? 'mind' : 'bad',
    title: `${limit.label} ${figures.value}, ${most}`,
    why: `${limit.because}${factor}.${rest}${worst.side === 'low' && limit.quantity !== 'pH' ? ' Put minerals back or blend.' : ''}`,
    ...blending(worst, system, facts),
  };
}

/** The bound an assumed figure comes nearest to, in words. */
function boundText({ limit, value }: LimitCheck, preference: UnitPreference): string {
  const { low, high, quantity } = limit;
  const nearLow = low !== null && (high === null || value - low < high - value);
  return `the goal is ${nearLow ? 'at least' : 'at most'} ${limitText(quantity, nearLow ? low : high!, preference)}`;
}

/** That the limits are met, and which of them nobody tested. */
function metSays(checks: readonly LimitCheck[]): string {
  const blank = checks.filter(untested).map(({ limit }) => inSentence(limit.label));
  if (blank.length === 0) return allMet(checks.length);
  return `${checks.length > blank.length ? `${checks.length - blank.length === 1 ? '1 limit is' : `${checks.length - blank.length} limits are`} met; ` : ''}${listed(blank)} not tested`;
}

/** Where a mineral is short behind a membrane, or too much is led past it: the share at which the whole goal is met. */
function blending(
  worst: LimitCheck,
  system: System,
  { solved, tap }: Pick<TrainFacts, 'solved' | 'tap'>,
): { readonly action?: FindingAction } {
  const { quantity } = worst.limit;
  const { stages } = system.train;
  const at = stages.findIndex((stage) => stage.id === solved.unitStageId);
  const membrane = stages[at];
  if (membrane?.kind !== 'membrane' || !BLENDED.includes(quantity)) return {};
  // What is too much is too much led past, if anything is.
  if (worst.side === 'high' && membrane.bypassShare === 0) return {};
  const past = solved.stations[blendPoint(stages.slice(0, at), quantity)]!;
  const softened = past.after !== solved.stations[at]!.after;
  const found = membraneShare(system, solved, softened ? past.after : null, tap);
  if (!found || found.missed.length > 0 || found.share > MOST_BLEND) return {};
  const share = Math.round(1000 * found.share) / 1000;
  return {
    action: {
      do: 'setBlend',
      share,
      after: softened ? past.after : null,
      label: `Lead ${Math.round(100 * share)}${THIN}% past the membrane${softened ? ', from before the softener' : ''}`,
    },
  };
}
/** What a blend sets. */
const BLENDED: readonly LimitCheck['limit']['quantity'][] = ['hardnessMgL', 'calciumHardnessMgL', 'alkalinityMgL', 'ec25UScm', 'tdsMgL'];

/**
 * The station whose water is led past: the membrane's feed; for hardness the water ahead of a softener, once it has
 * been through carbon, for chlorine must not reach the cup (common practice).
 */
function blendPoint(ahead: readonly Stage[], quantity: LimitCheck['limit']['quantity']): number {
  const softener = ahead.findIndex((stage) => stage.kind === 'softener');
  const carbon = ahead.findIndex((stage) => stage.kind === 'carbon');
  return quantity === 'hardnessMgL' && softener >= 0 && carbon >= 0 && carbon < softener ? softener : ahead.length;
}

/** A batch where none was asked for: a round figure in one's own unit. */
const USUAL_BATCH_L: Readonly<Record<UnitPreference['volume'], number>> = { L: 100, gal: 25 * L_PER_US_GALLON };
/** What is prepared at once: the largest batch that is asked for. */
const largestBatchL = ({ demand }: System['goal'], { volume }: UnitPreference): number =>
  demand.batches.length > 0 ? Math.max(...demand.batches.map(batchL)) : USUAL_BATCH_L[volume];

/** What to put to the product, by the litre and by the batch. */
function preparation({ prepared }: TrainFacts, goal: System['goal'], preference: UnitPreference): Finding | null {
  const say = words(preference);
  const litres = largestBatchL(goal, preference);
  const batch = say.of(litres, 'volumeL');
  if (!prepared.ok) return { id: 'prepare', severity: 'bad', title: 'The minerals cannot be put back as set', why: prepared.error.message };
  const { recipe } = prepared.value;
  const grams = (mgPerL: number): string => `${Number(((mgPerL * litres) / 1000).toPrecision(2))}${THIN}g`;
  switch (recipe.how) {
    case 'none':
      return null;
    case 'salt':
      return {
        id: 'prepare',
        severity: 'note',
        title: `Salt mix: ${recipe.saltGPerL.toFixed(1)}${THIN}g for each litre`,
        why: `About ${Number(((recipe.saltGPerL * litres) / 1000).toPrecision(2))}${THIN}kg for a batch of ${batch}; mixes hold 5 to 15${THIN}% of water, so finish by meter.`,
      };
    case 'minerals': {
      const { dose } = recipe;
      return {
        id: 'prepare',
        severity: 'note',
        title: `For ${batch}: ${grams(dose.calciumChlorideMgL)} CaCl₂·2H₂O, ${grams(dose.magnesiumSulfateMgL)} MgSO₄·7H₂O, ${grams(dose.bicarbonateMgL)} ${dose.bicarbonate}HCO₃`,
        why: 'Dissolve each by itself, then let the water stand open a day: its pH settles with the air.',
      };
    }
    case 'blend':
      return {
        id: 'prepare',
        severity: 'note',
        title: `Blend ${Math.round(100 * recipe.tapShare)}${THIN}% tap water back`,
        why: `${say.of(litres * recipe.tapShare, 'volumeL')} of tap to ${say.of(litres * (1 - recipe.tapShare), 'volumeL')} of product; its chlorine comes along unless it is taken after the carbon.`,
      };
  }
}

/** Carbon that is nearly used up, by what it has had to take. */
function carbonSpent(system: System, { solved }: TrainFacts): Finding | null {
  const worst = solved.carbons.reduce<(typeof solved.carbons)[number] | null>(
    (most, one) => (one.state.usedShare > (most?.state.usedShare ?? 0) ? one : most),
    null,
  );
  if (!worst || worst.state.usedShare < CARBON_MIND) return null;
  const name = system.train.stages.find((stage) => stage.id === worst.stageId)?.name ?? 'Carbon';
  return {
    id: 'carbonSpent',
    severity: worst.state.usedShare >= 1 ? 'bad' : 'mind',
    title: `${name}: ${Math.round(100 * worst.state.usedShare)}${THIN}% of its chlorine capacity is used`,
    why: 'By the litres of feed since it was fitted. Change it before chlorine reaches what stands behind it.',
  };
}

/** What uses up the anion side, in three shares. */
function sharesSay({ load }: NonNullable<TrainFacts['resin']>): string {
  const share = (meqL: number): string => `${Math.round((100 * meqL) / load.anionMeqL)}${THIN}%`;
  return `${share(load.strongMeqL)} of its load is strong ions, ${share(load.bicarbonateMeqL)} bicarbonate, ${share(load.weakAcidMeqL)} CO₂ and silica, which no meter shows.`;
}

function resinLasts({ resin, demandLPerDay: need }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!resin) return null;
  const say = words(preference);
  const { until, limiting } = resin.throughput;
  if (until.kind === 'unlimited')
    return { id: 'resin', severity: 'note', title: 'This water uses nothing of the resin', why: 'Nothing in it is taken up.' };
  if (resin.mostLPerH !== null)
    return {
      id: 'resin',
      severity: 'bad',
      title: `At ${say.of(resin.flowLPerH, 'flowLPerH')} this bed lets more than 1${THIN}% through from the first litre`,
      why: `Keep it under ${say.of(resin.mostLPerH, 'flowLPerH')}, set two side by side, or take a deeper one. At half of that flow new resin lasts about ${say.about(until.litres, 'volumeL')}.`,
    };
  const days = need > 0 ? until.litres / need : null;
  const what = resin.inLoop ? 'The polisher lasts' : resin.beds > 1 ? `${resin.beds} resins in series last` : 'New resin lasts';
  const { band, narrows } = resin;
  return {
    id: 'resin',
    severity: days !== null && days < 30 ? 'mind' : 'note',
    title:
      resin.inLoop && days !== null
        ? `${what} about ${say.days(days)}`
        : `${what} about ${say.about(until.litres, 'volumeL')}${days === null ? '' : `, ${say.days(days)}`}`,
    why: resin.inLoop
      ? `By what the make-up and the air bring it.${days !== null && days < 30 ? ' Permeate straight into a loop is dear: a mixed bed before the tank, or degassing, pays.' : ''}`
      : `Between ${say.about(band.p10 * until.litres, 'volumeL')} and ${say.about(band.p90 * until.litres, 'volumeL')}${narrows ? `: ${narrows} would narrow that most` : ''}. The ${limiting} side is spent first.${limiting === 'anion' ? ` ${sharesSay(resin)}` : ''}${resin.beds === 1 ? ` Alone it gives ${Math.round(100 * resin.usable)}${THIN}% of what it holds; with a second behind it, changed in turn, nearly all.` : ''}`,
  };
}
