import { byLog, evenly } from '../hypothesis';
import type { Rig } from '../rig';
import type { Fault } from './fault';

/** What may be wrong with the membrane and its housing. */

/** A pair of exponents along the elements, from the first to the last; what stands between lies between. */
const along = (rig: Rig, first: number, last: number): number[] =>
  Array.from({ length: rig.elements }, (_, i) => (rig.elements === 1 ? first : first + ((last - first) * i) / (rig.elements - 1)));
/** Changes of the last element alone. */
const lastOnly = (rig: Rig, water: number, salt: number): { readonly water: number; readonly salt: number }[] =>
  Array.from({ length: rig.elements }, (_, i) => (i === rig.elements - 1 ? { water, salt } : { water: 1, salt: 1 }));

export const MEMBRANE_FAULTS: readonly Fault[] = [
  {
    id: 'fouled',
    weight: 6,
    words: {
      name: 'Membrane fouled',
      sign: 'Product is down while the waste is unchanged; the first element loses most.',
      remedy: 'Flush it, clean it if it is worth cleaning, else replace it; measure the silt density before the next one.',
      notTo: 'Back-pressure, which goes when the product line is taken off, and cold water.',
    },
    action: 'membrane',
    cost: { minutes: 60, parts: ['membrane'] },
    on: (rig) => ({
      change: (s) => {
        const x = byLog(0.35, 0.85, s);
        const exponents = rig.elements === 1 ? [1] : along(rig, 1.2, 0.8);
        return { defects: { elements: exponents.map((power) => ({ water: x ** power, salt: 1 })) } };
      },
    }),
  },
  {
    id: 'scaled',
    weight: 5,
    words: {
      name: 'Membrane scaled, last element first',
      sign: 'The last element gives little and salty water; the others are as they were.',
      remedy: 'Clean it with acid while it is early; then raise the waste or soften the feed.',
      notTo: 'An old restrictor left in (there the waste is low too), or a torn seal (there the flow is not down).',
    },
    action: 'membrane',
    cost: { minutes: 60, parts: ['membrane'] },
    on: (rig) => ({
      change: (s) => {
        const x = rig.elements === 1 ? byLog(0.3, 0.85, s) : byLog(0.15, 0.75, s);
        return { defects: { elements: lastOnly(rig, x, 1 / x) } };
      },
    }),
  },
  {
    id: 'oxidised',
    weight: 5,
    words: {
      name: 'Membrane oxidised by chlorine',
      sign: 'Strength and product are both up, on every element.',
      remedy: 'Put the carbon right first, then fit a new membrane, or the new one goes the same way.',
      notTo: 'A torn seal: there it is one element only.',
    },
    cost: { minutes: 60, parts: ['carbon', 'membrane'] },
    on: (rig) => ({
      change: (s) => {
        const x = byLog(2, 10, s);
        return { defects: { elements: along(rig, 1, 0.8).map((power) => ({ salt: x ** power, water: x ** (power / 4) })) } };
      },
    }),
  },
  {
    id: 'sealLeak',
    weight: 4,
    words: {
      name: 'Product-tube O-ring torn or unseated',
      sign: 'Strength is up, flow a little up, and it is one element alone.',
      remedy: 'Shut the feed and let the pressure out. Fit new rings, wetted with water, and seat the element straight.',
      notTo: 'An oxidised membrane (all elements), the first minutes after a rest, a meter that errs.',
    },
    cost: { minutes: 25, parts: ['O-rings'] },
    on: (rig) => ({
      change: (s) => ({ defects: { leakLPerH: byLog(0.01, 0.25, s) * rig.soundProductLPerH } }),
      answers: { inspectSeals: 0.8 },
    }),
  },
  {
    id: 'brineSeal',
    weight: 2,
    words: {
      name: 'Brine seal reversed or torn',
      sign: 'Strength is up a little and product down a little; less so when the waste is throttled.',
      remedy: 'Shut the feed, let the pressure out, and refit the element with the lip towards the feed.',
      notTo: 'A fouled membrane.',
    },
    cost: { minutes: 25, parts: ['seal'] },
    on: () => ({ change: (s) => ({ defects: { slip: evenly(0.2, 0.9, s) } }), answers: { inspectSeals: 0.7 } }),
  },
  {
    id: 'dryMembrane',
    weight: 1,
    words: {
      name: 'Membrane not yet saturated',
      sign: 'Fitted a day or two ago; the product is low and rises by the hour.',
      remedy: 'Let it run an hour or two to drain, and read again.',
      notTo: 'A fouled membrane: a new one is not fouled.',
    },
    cost: { minutes: 10, parts: [] },
    on: (rig) => ({
      change: (s) => ({ defects: { elements: along(rig, 1, 1).map(() => ({ water: byLog(0.25, 0.75, s), salt: 1.3 })) } }),
    }),
  },
  {
    id: 'creep',
    weight: 6,
    words: {
      name: 'Read in the first minutes after a rest',
      sign: 'High at the start, and down within a few litres.',
      remedy: 'Nothing is broken: read after a quarter of an hour. Fewer and longer runs spare the resin.',
      notTo: 'A torn seal or a meter that errs: those do not come down.',
    },
    cost: { minutes: 0, parts: [] },
    on: () => ({
      reads: (s, { membrane, penMembrane }) => ({ membrane: membrane * byLog(1.6, 9, s), penMembrane: penMembrane * byLog(1.6, 9, s) }),
      answers: { askFirstMinute: 0.9, drainWhenFull: 0.15 },
    }),
  },
  {
    id: 'ammonia',
    weight: 2,
    words: {
      name: 'Ammonia passes at high pH',
      sign: 'A kit is positive, the strength is up by one to three, and the resin does not last.',
      remedy: 'Lower the pH of the feed or use strong resin; two blocks of carbon where the supply has chloramine.',
      notTo: 'Spent resin.',
    },
    cost: { minutes: 30, parts: ['carbon'] },
    unseen: { harm: 'Ammonia harms what lives in the tank.', kit: 'ammoniaKit' },
    on: () => ({
      reads: (s, truth) => {
        const more = evenly(0.5, 3, s);
        return {
          membrane: truth.membrane + more,
          later: truth.later + more,
          clean: truth.clean + more,
          penMembrane: truth.penMembrane + more,
        };
      },
      answers: { ammoniaKit: 0.95 },
    }),
  },
  {
    id: 'swapped',
    weight: 0.7,
    words: {
      name: 'Product and waste ports swapped',
      sign: 'A flood of product at the strength of the tap, and a trickle of waste.',
      remedy: 'Shut the feed and change the two lines over; throw out resin that saw it.',
      notTo: 'A restrictor that is missing.',
    },
    cost: { minutes: 10, parts: [] },
    on: () => ({
      reads: (s, truth) => ({
        membrane: truth.tap,
        later: truth.tap,
        clean: truth.tap,
        penMembrane: truth.tap,
        product: 0.98 * truth.tap,
        midResin: 0.99 * truth.tap,
        productFlow: truth.productFlow * byLog(5, 20, s),
        openFlow: truth.openFlow * byLog(5, 20, s),
        wasteFlow: truth.wasteFlow * byLog(0.02, 0.2, s),
        inlet: truth.inlet * evenly(0.8, 0.5, s),
      }),
      answers: { silicaKit: 0.95, ammoniaKit: 0.5, lookConnections: 0.97 },
    }),
  },
  {
    id: 'swMembrane',
    weight: 4,
    words: {
      name: 'Oil or chlorine on the seawater membrane',
      sign: 'After oil the flow is down; after chlorine both salt and flow are up.',
      remedy: 'Clean it, flush only through carbon, and replace it if it does not come back.',
      notTo: 'A warm or a cold sea.',
    },
    cost: { minutes: 90, parts: ['membrane'] },
    on: (rig) => ({
      jumpAt: 0.5,
      change: (s) => {
        const oily = s < 0.5;
        const x = oily ? byLog(0.2, 0.7, 2 * s) : byLog(2, 10, 2 * s - 1);
        return { defects: { elements: along(rig, 1, 1).map(() => (oily ? { water: x, salt: 1 } : { water: x ** 0.25, salt: x })) } };
      },
      answers: { smellOil: 0.4, chlorineStrip: 0.4 },
    }),
  },
];
