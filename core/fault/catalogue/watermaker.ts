import { evenly } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong with a high-pressure pump and what holds its pressure. */
export const WATERMAKER_FAULTS: readonly Fault[] = [
  {
    id: 'pumpSlip',
    weight: 4,
    words: {
      name: 'High-pressure pump slipping',
      sign: 'Less flow at the same revolutions, and the pressure cannot be reached.',
      remedy: 'Belt first, then seals and valves.',
      notTo: 'A relief valve that leaks by: there the flow is right with the valve open.',
    },
    cost: { minutes: 60, parts: ['belt', 'pump seals'] },
    on: () => ({
      change: (s) => ({ pumpShare: evenly(0.5, 0.9, s) }),
      reads: (s, { pumpFlow }) => ({ pumpFlow: pumpFlow * evenly(0.5, 0.9, s) }),
    }),
  },
  {
    id: 'reliefLeak',
    weight: 3,
    words: {
      name: 'Relief or regulating valve leaking by',
      sign: 'The flow is right with the valve open; under pressure it sags, and the bypass hose is warm or runs.',
      remedy: 'Lap it or replace it. Never plug a relief valve.',
      notTo: 'A pump that slips.',
    },
    cost: { minutes: 45, parts: ['relief valve'] },
    on: () => ({ change: (s) => ({ pumpShare: 1 - evenly(0.05, 0.6, s) }), answers: { feelRelief: 0.9 } }),
  },
  {
    id: 'airLeak',
    weight: 4,
    words: {
      name: 'Air leak on the suction side',
      sign: 'Bubbles in the flow meter, and a needle that shakes.',
      remedy: 'Tighten the clamps and look at the seal of the strainer.',
      notTo: 'A pump that slips.',
    },
    cost: { minutes: 20, parts: ['clamps'] },
    on: () => ({
      change: (s) => ({ pumpShare: evenly(0.2, 0.9, s) }),
      reads: (s, { pumpFlow }) => ({ pumpFlow: pumpFlow * evenly(0.2, 0.9, s) }),
      answers: { liftHose: 0.9 },
    }),
  },
];
