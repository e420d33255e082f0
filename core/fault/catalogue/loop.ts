import { evenly } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong with a loop, its tank and its lamp. */
export const LOOP_FAULTS: readonly Fault[] = [
  {
    id: 'ventCo2',
    weight: 4,
    words: {
      name: 'Tank vent lets in carbon dioxide',
      sign: 'The tank sinks towards 1 MΩ·cm at rest, and the polisher does not last.',
      remedy: 'Fit a new absorber on the vent.',
      notTo: 'Spent resin.',
    },
    cost: { minutes: 10, parts: ['vent absorber'] },
    on: () => ({ reads: (s, { nightResistivity }) => ({ nightResistivity: Math.min(nightResistivity, evenly(2.5, 0.9, s)) }) }),
  },
  {
    id: 'uvLamp',
    weight: 3,
    words: {
      name: 'Ultraviolet lamp weak or dark',
      sign: 'Counts or organic carbon are up while the resistivity is good.',
      remedy: 'Change the lamp and clean the sleeve. Never look at a burning lamp.',
      notTo: 'A loop that runs too slowly.',
    },
    cost: { minutes: 20, parts: ['lamp'] },
    unseen: { harm: 'Germs grow where nobody measures.', kit: 'lampCheck' },
    on: () => ({ answers: { lampCheck: 0.9 } }),
  },
  {
    id: 'loopSlow',
    weight: 2,
    words: {
      name: 'Loop runs too slowly',
      sign: 'The last outlet is worse than the first, and counts rise.',
      remedy: 'Look at the pump and balance the valves.',
      notTo: 'A weak lamp.',
    },
    cost: { minutes: 30, parts: [] },
    on: () => ({ reads: (s, { returnFlow }) => ({ returnFlow: returnFlow * evenly(0.2, 0.7, s) }) }),
  },
];
