import { evenly } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong ahead of the membrane: filters and carbon. */
export const FILTER_FAULTS: readonly Fault[] = [
  {
    id: 'prefilter',
    weight: 9,
    words: {
      name: 'Pre-filter clogged',
      sign: 'Product and waste go down together, and pressure is lost across the cartridges.',
      remedy: 'Fit new cartridges, and find out where the dirt comes from.',
      notTo: 'A fouled membrane: there the waste stays as it was.',
    },
    cost: { minutes: 15, parts: ['pre-filter'] },
    on: () => ({ change: (s) => ({ filterShare: evenly(0.1, 0.6, s) }) }),
  },
  {
    id: 'carbonSpent',
    weight: 6,
    words: {
      name: 'Carbon exhausted, chlorine passes',
      sign: 'No meter shows anything until the membrane is ruined.',
      remedy: 'Change the carbon now; where there are two, the guard moves forward and the new one goes behind it.',
      notTo: 'Chloramine passing: there a strip for free chlorine stays clear and one for total chlorine does not.',
    },
    cost: { minutes: 20, parts: ['carbon'] },
    unseen: { harm: 'Chlorine ruins a membrane for good.', kit: 'chlorineStrip' },
    on: () => ({ answers: { chlorineStrip: 0.95, freeChlorineStrip: 0.9 } }),
  },
  {
    id: 'chloramineThrough',
    weight: 4,
    words: {
      name: 'Carbon too small for chloramine',
      sign: 'Total chlorine behind the carbon rises with flow, and ammonia comes with it.',
      remedy: 'Add a second or a catalytic block, or let the water through more slowly.',
      notTo: 'Spent carbon: there free chlorine shows too.',
    },
    cost: { minutes: 30, parts: ['carbon'] },
    unseen: { harm: 'Chloramine ages a membrane slowly, and its ammonia reaches the tank.', kit: 'chlorineStrip' },
    on: () => ({ answers: { chlorineStrip: 0.95, freeChlorineStrip: 0.05, ammoniaKit: 0.6 } }),
  },
];
