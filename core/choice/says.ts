import { elementCount, isSeawaterElement, isSmallElement, type ElementClass, type VesselRank } from '../membrane';
import { atStart, formatQuantity, listed, moneyText, PPM_PER_USCM, THIN, words, type UnitPreference } from '../quantity';
import type { Doubts } from '../year';
import type { Row } from './compare';
import { cartridgeSized } from './jobs';
import type { Plan, Route } from './plan';
import type { Criterion, Recommendation } from './recommend';
import type { Rejection, RuleId } from './rules';
import type { Found } from './search';
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
export function titleOf({ membrane, resin, cartridge, scale, route, blends }: Plan): string {
  if (cartridge) return `A cartridge of ${cartridge.capacityMeq / 1000}${THIN}eq`;
  if (!membrane) return resin ? `Resin alone, ${bedsText(resin)}` : ROUTE_WORDS[route];
  const sea = isSeawaterElement(membrane.elementClass);
  const pump = membrane.pump && !sea ? (isSmallElement(membrane.elementClass) ? ' with a booster' : ' with a pump') : '';
  const soft = scale === 'softener' ? ' behind a softener' : '';
  return `${atStart(counted(elementCount(membrane.ranks), kindOfElement(membrane.elementClass)))}${pump}${soft}${resin || sea || blends ? '' : ', no resin'}`;
}
function kindOfElement(element: ElementClass): string {
  if (isSeawaterElement(element)) return 'seawater membrane';
  if (isSmallElement(element)) return 'small membrane';
  return `${element.startsWith('25') ? '2.5' : '4'}-inch membrane`;
}
/** How the elements of a membrane stand to each other; nothing of one alone. */
function arrangementText(ranks: readonly VesselRank[]): string {
  if (elementCount(ranks) === 1) return '';
  if (ranks.length === 1 && ranks[0]!.vessels > 1) return ' side by side';
  if (ranks.every(({ vessels }) => vessels === 1)) return ' in series';
  return ` in ranks of ${ranks.map(({ vessels }) => vessels).join(' and ')}`;
}
const bedsText = ({ beds, litresEach }: NonNullable<Plan['resin']>): string =>
  `${beds > 1 ? `${beds}${THIN}×${THIN}` : ''}${litresEach}${THIN}L`;

/** All that stands in it, one after the other. */
export function detailOf(plan: Plan, units: UnitPreference): string {
  const { membrane, resin, carbon, cartridge, tankL, scale } = plan;
  const say = words(units);
  const parts: string[] = [];
  if (carbon && carbon.litresEach < 1)
    parts.push(
      counted(
        carbon.blocks,
        carbon.chloramine ? 'carbon for chloramine' : 'carbon',
        carbon.chloramine ? 'carbons for chloramine' : 'carbons',
      ),
    );
  if (scale !== 'nothing') parts.push(scale === 'softener' ? 'softener' : 'inhibitor');
  if (membrane) {
    const count = elementCount(membrane.ranks);
    parts.push(`${count > 1 ? `${count}${THIN}×${THIN}` : ''}${membrane.elementClass}${arrangementText(membrane.ranks)}`);
    if (membrane.pump) parts.push(`${formatQuantity(membrane.pump.bar, 'pressureBar', units).text} by its pump`);
    if (membrane.recovery !== null) parts.push(`${say.ratio(1 / membrane.recovery - 1)} waste to product`);
    if (membrane.pump?.heldFeedLPerH && membrane.recovery !== null) parts.push('part of its waste led back');
  }
  if (cartridge) parts.push(`${Math.round(100 * cartridge.bypass)}${THIN}% past it`);
  if (resin) parts.push(`${bedsText(resin)} of resin${resin.beds > 1 ? ', lead and guard' : ''}`);
  if (tankL > 0) parts.push(`${say.of(tankL, 'volumeL')} tank`);
  if (plan.energyRecovery > 0) parts.push('pressure of the waste recovered');
  return parts.join(' · ');
}

/** What a rule pruned for, as the row of a count. */
export const RULE_WORDS: Readonly<Record<RuleId, string>> = {
  wall: 'Too wide for the wall',
  site: 'No drain or no power',
  tank: 'Tank too small for one draw',
  chloride: 'Too much chloride for a cartridge',
  reach: 'Not pure enough without resin',
  ratio: 'Too little waste',
  pressure: 'Pressure does not fit',
  production: 'Too little on the coldest day',
  carbon: 'Chlorine gets through',
  scaling: 'Lime in the membrane',
  crossflow: 'Too little cross-flow',
  quality: 'Not pure enough',
  resinLife: 'Resin changed too often',
  visits: 'More visits than allowed',
  capital: 'Dearer than may be spent',
};

const times = (perYear: number): string => `${perYear >= 10 ? Math.round(perYear) : perYear.toFixed(1)} times a year`;

/** Why an option was pruned, with its figure and the limit. */
export function rejectionText({ rule, field, value, limit }: Rejection, units: UnitPreference, currency: string): string {
  const say = words(units);
  const ppm = (shown: number): string => say.water(shown / PPM_PER_USCM);
  switch (rule) {
    case 'wall':
      return `It needs ${Math.round(value)}${THIN}mm, the wall has ${Math.round(limit)}.`;
    case 'site':
      return field === 'drain' ? 'There is no drain for its waste.' : 'There is no power for its pump.';
    case 'tank':
      return limit > 0
        ? `Its tank holds ${say.of(limit, 'volumeL')}; ${say.of(value, 'volumeL')} are drawn at once.`
        : `It has no tank; ${say.of(value, 'volumeL')} are drawn at once.`;
    case 'chloride':
      return `The tap has ${say.mgL(value)} of chloride; a cartridge leaves it, and a machine rusts above ${say.mgL(limit)}.`;
    case 'reach':
      return `Without resin it gives ${ppm(value)}; the goal is ${ppm(limit)}.`;
    case 'ratio':
      return `It wastes only ${say.ratio(value)} on a tap that is not softened; ${say.ratio(limit)} is asked for.`;
    case 'pressure':
      return value > limit
        ? `${say.of(value, 'pressureBar')} is above the ${say.of(limit, 'pressureBar')} its membrane bears.`
        : `The line has ${say.of(value, 'pressureBar')}; without a pump ${say.of(limit, 'pressureBar')} is wanted.`;
    case 'production':
      return `On the coldest day an old membrane serves a need of ${say.perDay(limit)}; ${say.perDay(value)} are needed.`;
    case 'carbon':
      return `Behind a carbon that is mostly spent ${value.toFixed(2)}${THIN}mg/L of chlorine reach the membrane; it bears ${limit.toFixed(1)}.`;
    case 'scaling':
      return `The lime index of its waste is ${say.index(value)}; above ${say.index(limit)} lime falls out without a softener or an inhibitor.`;
    case 'crossflow':
      return `${say.perHour(value)} leave the last membrane on the coldest day; below ${say.perHour(limit)} dirt settles in it.`;
    case 'quality':
      return `On the warmest day an old membrane gives ${ppm(value)}; the goal is ${ppm(limit)}.`;
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
      return `A wall of ${Math.ceil(value / 10) * 10}${THIN}mm would let it in.`;
    case 'site':
      return field === 'drain' ? 'A drain would let it in.' : 'Mains power would let it in.';
    case 'tank':
      return `Drawing no more than ${say.of(limit, 'volumeL')} at once would let it in.`;
    case 'ratio':
      return `Allowing ${say.ratio(value)} would let it in.`;
    case 'production':
      return `A need of ${say.perDay(limit)} would let it in.`;
    case 'reach':
    case 'quality':
      return `A goal of ${say.water(2 * value)} would let it in.`;
    case 'resinLife':
    case 'visits':
      return `${value.toFixed(1)} of them a year would have to be put up with.`;
    case 'capital':
      return `${moneyText(value, currency)} to spend would let it in.`;
    case 'pressure':
      return value > limit ? 'A regulator ahead of it would let it in.' : 'A booster would let it in.';
    case 'scaling':
      return 'A softener, an inhibitor or a lower recovery would let it in.';
    case 'crossflow':
      return 'More waste, or leading part of it back, would let it in.';
    case 'carbon':
      return 'More carbon would let it in.';
    case 'chloride':
      return 'Only a membrane takes chloride out.';
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
  if (own.widthMm - by.widthMm >= 10) worse.push(`${Math.round(own.widthMm - by.widthMm)}${THIN}mm wider`);
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
  size: 'Cartridge',
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
};
const LITRE_AXES = ['tankL', 'drumL', 'reservoirL'];
/** One value of an axis as it is called. */
export function axisValueText(axis: string, value: string | number | boolean, units: UnitPreference): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (LITRE_AXES.includes(axis)) return value === 0 ? 'none' : formatQuantity(Number(value), 'volumeL', units).text;
  if (axis === 'wasteToProduct') return words(units).ratio(Number(value));
  if (axis === 'recovery') return `${Math.round(100 * Number(value))}${THIN}%`;
  if (axis === 'pressureBar') return formatQuantity(Number(value), 'pressureBar', units).text;
  if (axis === 'size') return `${cartridgeSized(Number(value))[1] / 1000}${THIN}eq`;
  if (axis === 'resin' || axis === 'vesselL') {
    if (value === 'none') return 'none';
    const [litres, silica] = String(value).split('+');
    return `${litres!.replace('x', `${THIN}×${THIN}`)}${THIN}L${silica ? ' and a silica stage' : ''}`;
  }
  return VALUE_WORDS[String(value)] ?? String(value);
}
