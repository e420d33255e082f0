import { byLog, evenly } from '../hypothesis';
import type { Fault } from './fault';

/** The restrictor of the single unit the second was added to (reference set; a restrictor of that make on site otherwise). */
const OLD_RESTRICTOR = { lengthMm: 200, boreMm: 1.2018887 };

/** What may be wrong with what holds the flows: restrictor, shut-off, valves, lines. */
export const FLOW_FAULTS: readonly Fault[] = [
  {
    id: 'restrictorTight',
    weight: 5,
    words: {
      name: 'Restrictor too long, kinked or blocked',
      sign: 'Waste is low and strength up; the product hardly changes.',
      remedy: 'Take it off and let it run ten seconds, rinse or clean it, and cut only in small steps.',
      notTo: 'An old restrictor left in: there the product halves too.',
    },
    cost: { minutes: 15, parts: ['restrictor'] },
    on: () => ({ change: (s) => ({ defects: { restrictorFlow: byLog(0.08, 0.7, s) } }) }),
  },
  {
    id: 'restrictorWide',
    weight: 3,
    words: {
      name: 'Restrictor too short or missing, or the flush valve open',
      sign: 'Waste is high, and the pressure at the inlet sags.',
      remedy: 'Close the flush valve; fit a restrictor and trim it.',
      notTo: 'Low line pressure.',
    },
    cost: { minutes: 15, parts: ['restrictor'] },
    on: () => ({ change: (s) => ({ defects: { restrictorFlow: byLog(1.4, 3.5, s) } }) }),
  },
  {
    id: 'oldRestrictor',
    weight: 1.5,
    words: {
      name: 'Old restrictor left between the membranes',
      sign: 'The second membrane hardly works, and the waste is less than half of what was designed.',
      remedy: 'Take the old one out of the line between the two.',
      notTo: 'A scaled second element, or a restrictor that is too tight.',
    },
    cost: { minutes: 10, parts: [] },
    on: () => ({
      change: (s) => ({ defects: { throttle: { afterElements: 1, restrictor: OLD_RESTRICTOR }, restrictorFlow: evenly(0.9, 1.1, s) } }),
      answers: { lookConnections: 0.9 },
    }),
  },
  {
    id: 'shutoff',
    weight: 4,
    words: {
      name: 'Shut-off or check valve stuck open: it runs to drain',
      sign: 'Water goes to the drain with the tank full.',
      remedy: 'Replace shut-off and check valve; see that the float closes.',
      notTo: 'A restrictor that is too wide.',
    },
    cost: { minutes: 20, parts: ['shut-off valve', 'check valve'] },
    unseen: { harm: 'Water runs away day and night.', kit: 'drainWhenFull' },
    on: () => ({ answers: { drainWhenFull: 0.95 } }),
  },
  {
    id: 'shortCycle',
    weight: 3,
    words: {
      name: 'Check valve leaking: it starts every few minutes',
      sign: 'It starts and stops, and every start reads high.',
      remedy: 'Fit a new check valve, and give the shut-off a wider band.',
      notTo: 'A rest now and then, which reads high once.',
    },
    cost: { minutes: 15, parts: ['check valve'] },
    on: () => ({
      reads: (s, truth) => ({ membrane: truth.membrane * byLog(1.1, 3, s), penMembrane: truth.penMembrane * byLog(1.1, 3, s) }),
      answers: { countStarts: 0.95, askFirstMinute: 0.6, drainWhenFull: 0.3 },
    }),
  },
  {
    id: 'shutClosed',
    weight: 2,
    words: {
      name: 'Shut-off stuck closed, or the float jammed',
      sign: 'Nothing comes at all.',
      remedy: 'Lift the float and open the line; free or replace the valve.',
      notTo: 'Low line pressure.',
    },
    cost: { minutes: 20, parts: ['shut-off valve'] },
    on: () => ({ reads: () => ({ productFlow: 0, wasteFlow: 0, openFlow: 0 }) }),
  },
  {
    id: 'backPressure',
    weight: 3,
    words: {
      name: 'Product line too long or too high, or the tank’s pre-charge wrong',
      sign: 'Product is down and strength up, with the waste unchanged; it comes back when the line is taken off.',
      remedy: 'Shorten or widen the line, set the pre-charge with the tank empty, or lower the tank.',
      notTo: 'A fouled membrane.',
    },
    cost: { minutes: 20, parts: [] },
    on: () => ({ change: (s) => ({ backBar: evenly(0.4, 2.6, s) }) }),
  },
  {
    id: 'recycleWide',
    weight: 3,
    words: {
      name: 'Recycle valve too far open',
      sign: 'Less goes to the drain, the strength is up, and the same flow takes more pressure.',
      remedy: 'Set the recycle to the plan by its meter.',
      notTo: 'A scaled membrane.',
    },
    cost: { minutes: 10, parts: [] },
    on: () => ({
      change: (s) => ({ recycleShare: byLog(1.3, 3, s) }),
      reads: (s, { recycleFlow }) => ({ recycleFlow: recycleFlow * byLog(1.3, 3, s) }),
    }),
  },
];
