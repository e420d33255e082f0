import { membraneStage } from '../file';
import { LIMIT_LABELS, limitText, missText, strengthTexts, type LimitQuantity } from '../goal';
import { changedInTurn } from '../life';
import {
  ELEMENT_ROWS,
  elementCount,
  elementText,
  isSeawaterElement,
  isSmallElement,
  type ElementClass,
  type VesselRank,
} from '../membrane';
import { atStart, formatQuantity, inSentence, listed, moneyText, THIN, words, type UnitPreference } from '../quantity';
import { kindOf, unitRanks, type Stage, type StageOf } from '../stage';
import type { Doubts } from '../year';
import type { Row } from './compare';
import type { Rejection, RuleId } from './option';
import type { Criterion, Recommendation } from './recommend';
import type { Found } from './search';
import type { Route } from './spaces';
import type { TurningInput } from './sensitivity';

/** Options in words: what one is, why it is the one, why another is not. */

const COUNTS = ['no', 'one', 'two', 'three', 'four', 'five', 'six'];
const counted = (count: number, one: string, many = `${one}s`): string => `${COUNTS[count] ?? count} ${count === 1 ? one : many}`;

export const ROUTE_WORDS: Readonly<Record<Route, string>> = {
  resin: 'Resin alone',
  membrane: 'A membrane alone',
  membraneAndResin: 'Membrane and resin',
  cartridge: 'A cartridge',
};

/** Spaces of a job, as they are offered. */
export const SPACE_WORDS: Readonly<Record<string, string>> = {
  membrane: 'With a membrane',
  small: 'Small membranes',
  resin: 'Resin alone',
  cartridge: 'A cartridge',
  stack: 'With an electrodeionizer',
};
/** What a row side by side is there for. */
export const ROLE_WORDS: Readonly<Record<Row['role'], string>> = {
  today: 'Today’s',
  recommended: 'Recommended',
  cheapest: 'Cheapest',
  leastWaste: 'Least waste',
  fewestVisits: 'Fewest visits',
  bought: 'Bought',
  asked: 'Asked for',
};

/** An option in a few words. */
export function titleOf(stages: readonly Stage[]): string {
  const cartridge = stages.find((stage): stage is StageOf<'decarboniser'> => stage.kind === 'decarboniser');
  const membrane = membraneStage(stages);
  const beds = bedsText(stages);
  if (!membrane) {
    if (cartridge && !beds) return `A cartridge of ${cartridge.volumeL}${THIN}L of resin`;
    return beds ? `Resin alone, ${beds}` : 'Filters alone';
  }
  const sea = isSeawaterElement(membrane.elementClass);
  const pumped = stages.some(({ kind }) => kind === 'pump');
  const pump = pumped && !sea ? (isSmallElement(membrane.elementClass) ? ' with a booster' : ' with a pump') : '';
  const before = stages.slice(0, stages.indexOf(membrane)).find((stage) => kindOf(stage).touches(stage) === 'minerals');
  const soft = before ? ` behind a ${inSentence(before.name)}` : '';
  const kind = kindOfElement(membrane.elementClass);
  return `${atStart(counted(elementCount(unitRanks(membrane)), kind))}${pump}${soft}${beds || sea || membrane.bypassShare > 0 ? '' : ', no resin'}`;
}
function kindOfElement(element: ElementClass): string {
  if (isSeawaterElement(element)) return 'seawater membrane';
  if (isSmallElement(element)) return 'small membrane';
  return `${ELEMENT_ROWS[element].size === 'in25' ? '2.5' : '4'}-inch membrane`;
}
/** How the elements of a membrane stand to each other; nothing of one alone. */
function arrangementText(ranks: readonly VesselRank[]): string {
  if (elementCount(ranks) === 1) return '';
  if (ranks.length === 1 && ranks[0]!.vessels > 1) return ' side by side';
  if (ranks.every(({ vessels }) => vessels === 1)) return ' in series';
  return ` in ranks of ${ranks.map(({ vessels }) => vessels).join(' and ')}`;
}
/** The resin of a train by its litres; nothing without any. */
function bedsText(stages: readonly Stage[]): string {
  const litres = stages.flatMap((stage) => (stage.kind === 'resin' ? [stage.volumeL] : []));
  const [first] = litres;
  if (first === undefined) return '';
  return litres.every((one) => one === first)
    ? `${litres.length > 1 ? `${litres.length}${THIN}×${THIN}` : ''}${first}${THIN}L`
    : `${litres.join(' and ')}${THIN}L`;
}

/** All that stands in it, one after the other. */
export function detailOf(stages: readonly Stage[], units: UnitPreference): string {
  const say = words(units);
  const parts: string[] = [];
  const membrane = membraneStage(stages);
  const count = (kind: Stage['kind']): number => stages.filter((stage) => stage.kind === kind).length;
  for (const stage of stages) {
    switch (stage.kind) {
      case 'carbon':
        if (stage === stages.find(({ kind }) => kind === 'carbon')) parts.push(counted(count('carbon'), 'carbon'));
        break;
      case 'pump':
        if (stage.pump.kind === 'booster') parts.push(`${formatQuantity(stage.pump.bypassBar, 'pressureBar', units).text} by its pump`);
        if (stage.pump.kind === 'displacement') {
          parts.push(`${say.perHour(stage.pump.flowLPerH)} pumped`);
          if (stage.pump.energyRecovery > 0) parts.push('pressure of the waste recovered');
        }
        break;
      case 'membrane': {
        const elements = elementCount(unitRanks(stage));
        parts.push(
          `${elements > 1 ? `${COUNTS[elements] ?? elements} of ` : ''}${elementText(stage.elementClass, units)}${arrangementText(unitRanks(stage))}`,
        );
        if (stage.valve?.kind === 'recovery') parts.push(`${say.ratio(1 / stage.valve.recovery - 1)} waste to product`);
        if (stage.valve?.kind === 'pressure') parts.push(`held at ${formatQuantity(stage.valve.bar, 'pressureBar', units).text}`);
        if (stage.valve === null) parts.push(`tube of ${stage.restrictor.boreMm.toFixed(2)}${THIN}mm bore`);
        if (stage.recycleLPerH > 0) parts.push('part of its waste led back');
        if (stage.bypassShare > 0) parts.push(`${Math.round(100 * stage.bypassShare)}${THIN}% led past it`);
        break;
      }
      case 'decarboniser':
        parts.push(`${Math.round(100 * stage.bypass)}${THIN}% past it`);
        break;
      case 'tank':
        parts.push(`${say.of(stage.volumeL, 'volumeL')} tank`);
        break;
      case 'resin':
        break;
      default:
        // Filters stand ahead of everything; any other kind is named.
        if (!kindOf(stage).prefilter) parts.push(inSentence(kindOf(stage).label));
    }
  }
  const beds = bedsText(stages);
  if (beds) parts.push(`${beds} of resin${changedInTurn(stages) ? ', lead and guard' : ''}`);
  return (membrane || parts.length > 0 ? parts : ['nothing but pipe']).join(' · ');
}

/** What an element is asked too much of. */
const ELEMENT_WORDS: Readonly<Record<string, string>> = {
  flux: 'On the warmest day a square metre makes',
  recovery: 'An element takes, of its own feed,',
  feedflow: 'An element is fed',
  drop: 'The pressure an element takes is',
};

/** What a rule pruned for, as the row of a count. */
export const RULE_WORDS: Readonly<Record<RuleId, string>> = {
  wall: 'Too wide for the wall',
  site: 'No drain or no power',
  tank: 'Tank too small for one draw',
  ratio: 'Too little waste',
  pressure: 'Pressure does not fit',
  production: 'Too little on the coldest day',
  carbon: 'Carbon changed too often',
  scaling: 'Lime in the membrane',
  element: 'Too much asked of the membrane',
  quality: 'Misses the goal',
  feed: 'Fed what it does not bear',
  resinLife: 'Resin changed too often',
  visits: 'More visits than allowed',
  capital: 'Dearer than may be spent',
};

/** What is to be minded of an option that would do. */
const MINDED: Readonly<Partial<Record<RuleId, string>>> = {
  scaling: 'lime is near',
  element: 'its membrane works hard',
  quality: 'the goal as far as the tap is known',
  feed: 'its stack works near what it bears',
};
/** Whether an option would do, where nothing prunes it. */
export const wouldDoText = (advisories: readonly RuleId[]): string =>
  ['yes', ...advisories.flatMap((rule) => MINDED[rule] ?? [])].join('; ');

const times = (perYear: number): string => `${perYear >= 10 ? Math.round(perYear) : perYear.toFixed(1)} times a year`;

/** Why an option was pruned, with its figure and the limit. */
export function rejectionText({ rule, field, value, limit }: Rejection, units: UnitPreference, currency: string): string {
  const say = words(units);
  switch (rule) {
    case 'wall':
      return `It needs ${say.of(value, 'lengthMm')}, the wall has ${say.of(limit, 'lengthMm')}.`;
    case 'site':
      return field === 'drain' ? 'There is no drain for its waste.' : 'There is no power for its pump.';
    case 'tank':
      return limit > 0
        ? `Its tank holds ${say.of(limit, 'volumeL')}; ${say.of(value, 'volumeL')} are drawn at once.`
        : `It has no tank; ${say.of(value, 'volumeL')} are drawn at once.`;
    case 'ratio':
      return `It wastes only ${say.ratio(value)} on a tap that is not softened; ${say.ratio(limit)} is asked for.`;
    case 'pressure':
      return value > limit
        ? `${say.of(value, 'pressureBar')} is above the ${say.of(limit, 'pressureBar')} its membrane bears.`
        : `The line has ${say.of(value, 'pressureBar')}; without a pump ${say.of(limit, 'pressureBar')} is wanted.`;
    case 'production':
      return `On the coldest day an old membrane serves a need of ${say.perDay(limit)}; ${say.perDay(value)} are needed.`;
    case 'carbon':
      return `Its carbon is used up ${times(value)}; at most ${Math.round(limit)} are put up with.`;
    case 'scaling':
      return `The saturation index of its waste is ${say.index(value)}; above ${say.index(limit)} lime falls out without a softener or an inhibitor.`;
    case 'element':
      return field === 'crossflow'
        ? `On the coldest day an element is rinsed with 1/${value.toFixed(1)} of the waste its class wants.`
        : `${ELEMENT_WORDS[field] ?? 'An element works'} ${value.toFixed(1)} times what its class is meant for.`;
    case 'quality': {
      const quantity = field as LimitQuantity;
      const figures = quantity === 'ec25UScm' ? strengthTexts(value, limit, units) : missText(quantity, value, limit, units);
      return `On the warmest day, with an old membrane, ${inSentence(LIMIT_LABELS[quantity])} is ${figures.value}; the goal is ${value > limit ? 'at most' : 'at least'} ${figures.bound}.`;
    }
    case 'feed':
      return `Hardness, iron or chlorine reach its electrodeionizer: ${value.toFixed(1)} times what it bears.`;
    case 'resinLife':
      return `It wants new resin ${times(value)}; at most ${Math.round(limit)} are put up with.`;
    case 'visits':
      return `It takes ${value.toFixed(1)} visits a year; at most ${limit} are allowed.`;
    case 'capital':
      return `It costs ${moneyText(value, currency)} to buy; ${moneyText(limit, currency)} may be spent.`;
  }
}

/** The smallest change that would let an option pass the rule it breaks. */
export function changeText({ rule, field, value, limit }: Rejection, units: UnitPreference, currency: string): string {
  const say = words(units);
  switch (rule) {
    case 'wall':
      return `A wall of ${say.of(Math.ceil(value / 10) * 10, 'lengthMm')} would let it in.`;
    case 'site':
      return field === 'drain' ? 'A drain would let it in.' : 'Mains power would let it in.';
    case 'tank':
      return `Drawing no more than ${say.of(limit, 'volumeL')} at once would let it in.`;
    case 'ratio':
      return `Allowing ${say.ratio(value)} would let it in.`;
    case 'production':
      return `A need of ${say.perDay(limit)} would let it in.`;
    case 'quality':
      return field === 'ec25UScm'
        ? `A goal of ${say.water(value)} would let it in.`
        : `A limit of ${limitText(field as LimitQuantity, value, units)} would let it in.`;
    case 'resinLife':
    case 'visits':
      return `${value.toFixed(1)} of them a year would have to be put up with.`;
    case 'capital':
      return `${moneyText(value, currency)} to spend would let it in.`;
    case 'pressure':
      return value > limit ? 'A regulator ahead of it would let it in.' : 'A booster would let it in.';
    case 'scaling':
      return 'A softener, an inhibitor or a lower recovery would let it in.';
    case 'element':
      return field === 'crossflow' || field === 'recovery'
        ? 'More waste, or leading part of it back, would let it in.'
        : 'More elements, or less pressure, would let it in.';
    case 'feed':
      return 'A softener ahead of its membrane would let it in.';
    case 'carbon':
      return 'More carbon would let it in.';
  }
}

/** What told the recommended one from the cheapest, in a few words. */
const BETTER: Readonly<Record<Exclude<Criterion, 'cost' | 'order'>, (best: Found, cheap: Found) => string>> = {
  advisories: (best, cheap) => `comes near ${counted(best.advisories, 'limit')} where the cheapest comes near ${cheap.advisories}`,
  visits: (best, cheap) => `needs ${best.visitsPerYear.toFixed(1)} visits a year instead of ${cheap.visitsPerYear.toFixed(1)}`,
  margin: (best, cheap) =>
    `makes ${best.winterMargin.toFixed(1)} times the need on the coldest day instead of ${cheap.winterMargin.toFixed(1)}`,
};

/** Why this one: heading and reason. */
export function reasonText(
  { by, moreAYear }: Recommendation,
  best: Found,
  cheapest: Found,
  currency: string,
): readonly [title: string, why: string] {
  if (by === 'cost' || by === 'order')
    return [
      'The cheapest to keep, and sturdy enough',
      moreAYear > 0 ? `The next one costs ${moneyText(moreAYear, currency)} a year more.` : 'There is no other that would do.',
    ];
  return [
    `${moneyText(moreAYear, currency)} a year dearer than the cheapest, and sturdier`,
    `It ${BETTER[by](best, cheapest)}. What costs within a twentieth of the cheapest is taken for as cheap.`,
  ];
}

const CRITERION_WORDS: Readonly<Record<Criterion, string>> = {
  cost: 'it costs more',
  advisories: 'it comes near more limits',
  visits: 'it needs more visits',
  margin: 'it has less to spare in winter',
  order: 'nothing tells them apart but their order',
};
export const secondText = (by: Criterion): string => `It costs about as much, but ${CRITERION_WORDS[by]}.`;
export const dearerText = (aYear: number, currency: string): string => `It would do, but costs ${moneyText(aYear, currency)} a year more.`;

/** Beaten in everything: by how much in what. */
export function dominatedText(own: Found, by: Found, units: UnitPreference, currency: string): string {
  const say = words(units);
  const worse: string[] = [];
  if (own.annualCost - by.annualCost >= 1) worse.push(`${moneyText(own.annualCost - by.annualCost, currency)} a year dearer`);
  if (own.wasteL - by.wasteL >= 500) worse.push(`${say.of(own.wasteL - by.wasteL, 'volumeL')} a year more waste`);
  if (own.visitsPerYear - by.visitsPerYear >= 0.1) worse.push(`${(own.visitsPerYear - by.visitsPerYear).toFixed(1)} more visits a year`);
  if (by.winterMargin - own.winterMargin >= 0.05 && own.winterMargin < 3) worse.push('less to spare in winter');
  if (own.widthMm - by.widthMm >= 10) worse.push(`${say.of(own.widthMm - by.widthMm, 'lengthMm')} wider`);
  return `Another is better or as good in everything: this one is ${listed(worse)}.`;
}

/** What is not known, as the comparison was run with it. */
export function doubtsText({ use, strength, co2, resinCapacity, prices }: Doubts): string {
  const within = (share: number): string => `±${Math.round(100 * share)}${THIN}%`;
  return `Use ${within(use)}, tap ${within(strength)}, CO₂ ${within(co2)}, resin ${within(resinCapacity)}, prices ${within(prices)}.`;
}

export const INPUT_WORDS: Readonly<Record<TurningInput, string>> = {
  litres: 'Water drawn',
  strength: 'Tap strength',
  horizon: 'Years kept',
  resinPrice: 'Resin price',
  waterPrice: 'Water price',
  sewerPrice: 'Sewer price',
  visitPrice: 'A visit',
  energyPrice: 'Power price',
};

/** What is chosen among, as it is called. */
export const AXIS_WORDS: Readonly<Record<string, string>> = {
  element: 'Membrane',
  number: 'How many',
  booster: 'Booster',
  wasteToProduct: 'Waste to product',
  carbon: 'Carbon',
  resin: 'Resin',
  tankL: 'Tank',
  drumL: 'Drum',
  finish: 'Behind it',
  vesselL: 'Vessel',
  prefilter: 'Filter ahead',
  reservoirL: 'Tank behind',
  pump: 'Pressure',
  recovery: 'Recovery',
  recycle: 'Waste led back',
  scale: 'Against lime',
  softener: 'Softener',
  unit: 'Unit',
  iceFilter: 'Ice filter',
  cartridgeL: 'Resin in its cartridge',
  array: 'Vessels by rank',
  pretreatment: 'Ahead of it',
  degassing: 'Degasser',
  polisher: 'Polisher',
  uv: 'UV lamp',
  pressureBar: 'Pressure',
  energyRecovery: 'Energy recovery',
  flush: 'Fresh-water flush',
};
const VALUE_WORDS: Readonly<Record<string, string>> = {
  one: 'one',
  two: 'two',
  twoInSeries: 'two in series',
  twoInParallel: 'two side by side',
  chloramine: 'two for chloramine',
  none: 'none',
  line: 'of the line',
  booster: 'by a booster',
  cart: 'by a cart pump',
  nothing: 'nothing',
  inhibitor: 'inhibitor',
  softener: 'softener',
  blend: 'tap blended back',
  remineralise: 'calcite',
  both: 'both',
  small: 'small',
  middle: 'middling',
  large: 'large',
  some: 'some',
  much: 'much',
  single: 'one bed',
  leadAndLag: 'lead and guard',
  electro: 'electrodeionizer',
};
const LITRE_AXES = ['tankL', 'drumL', 'reservoirL', 'cartridgeL'];
/** One value of an axis as it is called. */
export function axisValueText(axis: string, value: string | number | boolean, units: UnitPreference): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (LITRE_AXES.includes(axis)) return value === 0 ? 'none' : formatQuantity(Number(value), 'volumeL', units).text;
  if (axis === 'wasteToProduct') return words(units).ratio(Number(value));
  if (axis === 'recovery') return `${Math.round(100 * Number(value))}${THIN}%`;
  if (axis === 'pressureBar') return formatQuantity(Number(value), 'pressureBar', units).text;
  if (axis === 'resin' || axis === 'vesselL') {
    if (value === 'none') return 'none';
    const [litres, silica] = String(value).split('+');
    return `${litres!.replace('x', `${THIN}×${THIN}`)}${THIN}L${silica ? ' and a silica stage' : ''}`;
  }
  if (axis === 'element') return elementText(value as ElementClass, units);
  return VALUE_WORDS[String(value)] ?? String(value);
}
