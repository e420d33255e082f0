import { byLog } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong with what is read, not with the water. */
export const METER_FAULTS: readonly Fault[] = [
  {
    id: 'meterFault',
    weight: 5,
    words: {
      name: 'Meter drifted, its battery low or its tips dirty',
      sign: 'One place is off or unsteady, and the rest is as it was.',
      remedy: 'Clean the tips, change the battery, and hold it against another meter in one glass.',
      notTo: 'A torn seal, or the first minutes after a rest.',
    },
    cost: { minutes: 10, parts: ['battery'] },
    on: () => ({
      jumpAt: 0.5,
      reads: (s, { membrane, later }) => {
        const factor = s < 0.5 ? byLog(0.2, 0.6, 2 * s) : byLog(1.7, 5, 2 * s - 1);
        return { membrane: membrane * factor, later: later * factor };
      },
    }),
  },
  {
    id: 'meterScale',
    weight: 5,
    words: {
      name: 'Two meters, two scales',
      sign: 'The same ratio between two meters wherever both are read.',
      remedy: 'Hold both in one glass of tap water and keep their factors.',
      notTo: 'A meter that errs: there the ratio differs by place.',
    },
    cost: { minutes: 5, parts: [] },
    on: () => ({
      reads: (s, { penMembrane, penTap, penProduct }) => {
        const factor = byLog(0.7, 1.45, s);
        return { penMembrane: penMembrane * factor, penTap: penTap * factor, penProduct: penProduct * factor };
      },
    }),
  },
  {
    id: 'probePlace',
    weight: 3,
    words: {
      name: 'Probe in the wrong place, crosswise or in air',
      sign: 'It reads what another stage reads, or jumps with bubbles.',
      remedy: 'Look where it sits, let the air out, and turn it with the flow.',
      notTo: 'A meter that errs.',
    },
    cost: { minutes: 5, parts: [] },
    on: () => ({
      jumpAt: 0.5,
      reads: (s, { membrane, later, clean, product }) => {
        if (s >= 0.5) return { membrane: product, later: product, clean: product };
        const factor = byLog(0.05, 0.6, 2 * s);
        return { membrane: membrane * factor, later: later * factor, clean: clean * factor };
      },
      answers: { lookConnections: 0.8 },
    }),
  },
];
