import { byLog, evenly } from '../hypothesis';
import type { Truth } from '../rig';
import type { Fault } from './fault';

/** What may be wrong with softeners and with cartridges behind a dial. `tap` carries no hardness: kits tell of it as shares. */
export const SOFTENER_FAULTS: readonly Fault[] = [
  {
    id: 'softenerSpent',
    weight: 6,
    words: {
      name: 'Softener exhausted or out of salt',
      sign: 'Hard behind the softener, with the conductivity as before.',
      remedy: 'Fill up salt, break a bridge if there is one, and regenerate.',
      notTo: 'A bypass left open: there it is hard at once after service.',
    },
    cost: { minutes: 20, parts: ['salt'] },
    on: () => ({ reads: (s, truth) => ({ softHardness: evenly(0.2, 1, s) * hardOf(truth) }) }),
  },
  {
    id: 'softenerBypass',
    weight: 2,
    words: {
      name: 'Softener bypass left open',
      sign: 'Hard behind the softener from one day to the next.',
      remedy: 'Close the bypass.',
      notTo: 'An exhausted softener: that goes by and by.',
    },
    cost: { minutes: 5, parts: [] },
    on: () => ({
      reads: (s, truth) => ({ softHardness: evenly(0.3, 1, s) * hardOf(truth) }),
      answers: { lookSoftener: 0.9 },
    }),
  },
  {
    id: 'bypassWrong',
    weight: 5,
    words: {
      name: 'Bypass dial set wrong',
      sign: 'Hardness and pH are off the plan in the same sense, and follow the dial.',
      remedy: 'Set the dial to the plan and check the blend with a drop kit.',
      notTo: 'A spent cartridge: that does not follow the dial.',
    },
    cost: { minutes: 5, parts: [] },
    on: () => ({ reads: (s, { blendHardness }) => ({ blendHardness: blendHardness * byLog(0.45, 2.2, s) }) }),
  },
  {
    id: 'cartridgeSpent',
    weight: 8,
    words: {
      name: 'Cartridge exhausted',
      sign: 'The blend is near the tap’s carbonate hardness, even with the bypass shut.',
      remedy: 'Change the cartridge, flush it, and set its litres to nothing.',
      notTo: 'A dial set wrong.',
    },
    cost: { minutes: 15, parts: ['cartridge'] },
    on: () => ({
      reads: (s, { blendHardness, shutHardness }) => ({
        blendHardness: blendHardness * evenly(1.2, 2.2, s),
        shutHardness: shutHardness + blendHardness * evenly(0.8, 2, s),
      }),
    }),
  },
];

/** Hardness of what the softener is fed, mg/L as CaCO₃: the blend's of a counter, or what its strength lets expect. */
const hardOf = ({ blendHardness, tap }: Truth): number => (blendHardness > 1 ? blendHardness : 0.6 * tap);
