import { byLog, evenly } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong with what the system is given: pressure, warmth, strength. */
export const SUPPLY_FAULTS: readonly Fault[] = [
  {
    id: 'lineLow',
    weight: 5,
    words: {
      name: 'Line pressure low',
      sign: 'Product and waste are both down, strength is up, and the gauge is low with water running.',
      remedy: 'Open every valve before the system and set the regulator; below 3 bar (45 psi) fit a booster pump.',
      notTo: 'A clogged pre-filter: there the gauge before it is as always.',
    },
    cost: { minutes: 15, parts: [] },
    on: () => ({ change: (s) => ({ lineShare: evenly(0.4, 0.8, s) }) }),
  },
  {
    id: 'coldWater',
    weight: 7,
    words: {
      name: 'Cold water',
      sign: 'Product is down by 3 to 4 % for each degree, and the strength has gone slightly down, not up.',
      remedy: 'Nothing is broken. A larger tank carries the winter; warm the feed only within the membrane’s limit.',
      notTo: 'A fouled membrane: brought to 25 °C, its output stays where it was.',
    },
    cost: { minutes: 0, parts: [] },
    on: () => ({ change: (s) => ({ warmerC: -evenly(4, 11, s) }) }),
  },
  {
    id: 'feedStrong',
    weight: 5,
    words: {
      name: 'Tap stronger than assumed',
      sign: 'Tap and membrane are up in the same ratio.',
      remedy: 'Enter the water as it is now, and plan the resin anew.',
      notTo: 'An oxidised membrane: there the share held back falls.',
    },
    cost: { minutes: 10, parts: [] },
    on: () => ({ change: (s) => ({ feedShare: byLog(1.3, 3, s) }) }),
  },
  {
    id: 'pumpWeak',
    weight: 4,
    words: {
      name: 'Pump failing',
      sign: 'The pressure after the pump is low, it is loud or hot, and the waste is down.',
      remedy: 'Check voltage and valves, then the diaphragm or impeller; replace the pump if it stays weak.',
      notTo: 'Low line pressure: compare the gauge on the suction side.',
    },
    cost: { minutes: 45, parts: ['pump'] },
    on: () => ({ change: (s) => ({ pumpShare: evenly(0.2, 0.8, s) }) }),
  },
];
