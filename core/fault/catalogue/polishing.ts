import { byLog, evenly } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong with degassers, stacks, pairs of beds and dosing pumps (chapter on kinds: common practice, recalled). */
export const POLISHING_FAULTS: readonly Fault[] = [
  {
    id: 'sweepLost',
    weight: 4,
    words: {
      name: 'Degasser without sweep, or water in its fibres',
      sign: 'CO₂ behind it rises and pH falls, within minutes or over days; its loss stays.',
      remedy: 'Clean the air filter, drain the low point of the gas line, set the sweep again.',
      notTo: 'Wetted fibres: those drip for good.',
    },
    cost: { minutes: 15, parts: ['air filter'] },
    on: () => ({
      reads: (s, { product }) => ({
        product: product + evenly(0.05, 1.5, s),
        penProduct: product + evenly(0.3, 2, s),
        pH: evenly(6.3, 5.6, s),
      }),
      answers: { lookSweep: 0.85 },
    }),
  },
  {
    id: 'fibresWet',
    weight: 1,
    words: {
      name: 'Fibres of the degasser wetted or torn',
      sign: 'Water drips from its gas port and does not stop.',
      remedy: 'Exchange it, and find what wetted it: detergent, alcohol, oil, lacquer.',
      notTo: 'Condensate, which is gone once the low point is drained.',
    },
    cost: { minutes: 60, parts: ['degasser'] },
    on: () => ({
      reads: (s, { product }) => ({ product: product + evenly(0.05, 1, s), pH: evenly(6.4, 5.8, s) }),
      answers: { lookSweep: 0.95 },
    }),
  },
  {
    id: 'stackStarved',
    weight: 4,
    words: {
      name: 'Electrodeionizer short of current',
      sign: 'Silica leaks first, then the pH of the product sinks, then its resistivity.',
      remedy: 'Look at its supply and clamps, warm the feed, set the current again.',
      notTo: 'A surge of CO₂: there volts and amperes stand as before.',
    },
    cost: { minutes: 20, parts: [] },
    on: () => ({
      reads: (s, { product }) => ({
        product: product * byLog(1.5, 60, s),
        penProduct: product * byLog(1.5, 60, s),
        pH: evenly(6.6, 5.5, s),
      }),
      answers: { readStack: 0.9, silicaKit: 0.8 },
    }),
  },
  {
    id: 'stackScaled',
    weight: 2,
    words: {
      name: 'Electrodeionizer scaled or fouled',
      sign: 'More volts for the same current, less waste, more loss; what comes out gets worse by and by.',
      remedy: 'Clean it: 2 % hydrochloric acid against hardness, 5 % salt with 1 % caustic against organics. Then find the hardness.',
      notTo: 'A short current: there the volts fall with it.',
    },
    cost: { minutes: 240, parts: ['acid'] },
    on: () => ({
      reads: (s, { product }) => ({ product: product * byLog(1.2, 10, s), penProduct: product * byLog(1.2, 10, s) }),
      answers: { readStack: 0.8 },
    }),
  },
  {
    id: 'regenerationShort',
    weight: 4,
    words: {
      name: 'Regeneration weak or short',
      sign: 'Sodium slips from the first litre on: pH about 9, conductivity several times what it was.',
      remedy: 'Look at dose, strength, warmth of the caustic and at the distributor; regenerate again.',
      notTo: 'A spent cation bed: there it was good at first.',
    },
    cost: { minutes: 150, parts: ['acid', 'caustic'] },
    on: () => ({
      reads: (s, { product }) => ({ product: product * byLog(1.6, 10, s), penProduct: product * byLog(1.6, 10, s), pH: evenly(9, 10, s) }),
    }),
  },
  {
    id: 'anionSpent',
    weight: 4,
    words: {
      name: 'Anion bed spent before the cation bed',
      sign: 'Silica comes, then acid: pH 3 to 5 behind it.',
      remedy: 'Stop, regenerate; more anion resin or a degasser between the beds.',
      notTo: 'Sodium that slips: that is alkaline.',
    },
    cost: { minutes: 150, parts: ['caustic'] },
    on: () => ({
      reads: (s, { product }) => ({ product: product * byLog(1.5, 30, s), penProduct: product * byLog(1.5, 30, s), pH: evenly(5, 3.4, s) }),
      answers: { silicaKit: 0.95 },
    }),
  },
  {
    id: 'doseLost',
    weight: 5,
    words: {
      name: 'Dosing pump without prime',
      sign: 'It clicks and gives nothing; its tank does not fall.',
      remedy: 'Bleed it, look at foot valve, diaphragm and injection, prove its rate.',
      notTo: 'Weak stock: there the tank falls as it should.',
    },
    cost: { minutes: 20, parts: ['diaphragm'] },
    unseen: { harm: 'Scale settles, or chlorine reaches the membrane, and no meter shows it.', kit: 'lookDosing' },
    on: () => ({ answers: { lookDosing: 0.9 } }),
  },
];
