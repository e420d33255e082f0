import { byLog, evenly } from '../hypothesis';
import type { Fault } from './fault';

/** What may be wrong with polishing resin. `membrane` of the truth is what it is fed. */
export const RESIN_FAULTS: readonly Fault[] = [
  {
    id: 'resinSpent',
    weight: 12,
    words: {
      name: 'Resin exhausted',
      sign: 'What comes out rises towards what goes in, and the colour is gone.',
      remedy: 'Change the first cartridge and move the guard forward.',
      notTo: 'Channelling (early and flat), carbon dioxide (low pH, long before the forecast), the first minutes after a rest.',
    },
    action: 'resin',
    cost: { minutes: 20, parts: ['resin'] },
    on: () => ({
      reads: (s, { membrane }) => ({
        product: membrane * byLog(0.06, 1, s),
        penProduct: membrane * byLog(0.06, 1, s),
        midResin: membrane * byLog(0.7, 1, s),
        pH: evenly(5.2, 6.2, s),
      }),
      answers: { silicaKit: 0.9, ammoniaKit: 0.3 },
    }),
  },
  {
    id: 'resinChannel',
    weight: 3,
    words: {
      name: 'Resin channelling',
      sign: 'Early, low and flat, and it rises with the flow.',
      remedy: 'Pack it again, tap it down, and stand it upright.',
      notTo: 'Spent resin: that keeps rising.',
    },
    cost: { minutes: 20, parts: [] },
    on: () => ({
      reads: (s, { membrane }) => ({ product: membrane * byLog(0.03, 0.35, s), penProduct: membrane * byLog(0.03, 0.35, s) }),
      answers: { silicaKit: 0.6 },
    }),
  },
  {
    id: 'resinPoisoned',
    weight: 1,
    words: {
      name: 'Preservative went through the resin',
      sign: 'High at once after work on the membrane, does not rinse out, and smells.',
      remedy: 'Throw the resin out, and rinse the membrane longer to drain.',
      notTo: 'The first rinse of new resin, which is over within ten bed volumes.',
    },
    cost: { minutes: 40, parts: ['resin'] },
    on: () => ({
      reads: (s) => ({ product: byLog(6, 150, s), penProduct: byLog(6, 150, s), midResin: byLog(4, 150, s), pH: 4.6 }),
      answers: { silicaKit: 0.5 },
    }),
  },
  {
    id: 'co2Early',
    weight: 3,
    words: {
      name: 'Carbon dioxide spends the anion side early',
      sign: 'One to four ppm at a pH about 5, long before the forecast.',
      remedy: 'Degas the permeate, or raise the pH of the feed.',
      notTo: 'Spent resin.',
    },
    cost: { minutes: 60, parts: ['resin'] },
    on: () => ({
      reads: (s) => ({ product: byLog(0.8, 4, s), penProduct: byLog(0.8, 4, s), midResin: byLog(1, 5, s), pH: evenly(5.3, 4.8, s) }),
      answers: { silicaKit: 0.85 },
    }),
  },
  {
    id: 'acidBand',
    weight: 1.5,
    words: {
      name: 'Acid band: it reads above its feed',
      sign: 'More comes out than goes in, at a pH about 4.',
      remedy: 'Change the resin now.',
      notTo: 'A meter that errs, or preservative in the resin.',
    },
    action: 'resin',
    cost: { minutes: 20, parts: ['resin'] },
    on: () => ({
      reads: (s, { membrane }) => ({
        product: membrane * byLog(1.15, 2.5, s),
        penProduct: membrane * byLog(1.15, 2.5, s),
        midResin: membrane * byLog(0.9, 2.5, s),
        pH: evenly(4.4, 3.8, s),
      }),
      answers: { silicaKit: 0.95 },
    }),
  },
  {
    id: 'silicaBand',
    weight: 3,
    words: {
      name: 'Silica passes at 0 ppm',
      sign: 'The meter shows nothing, and brown algae grow.',
      remedy: 'Change the resin earlier; put a silica stage second.',
      notTo: 'Clean water.',
    },
    cost: { minutes: 20, parts: ['resin'] },
    unseen: { harm: 'Silica feeds diatoms and spots glass.', kit: 'silicaKit' },
    on: () => ({ answers: { silicaKit: 0.95 } }),
  },
  {
    id: 'airUptake',
    weight: 4,
    words: {
      name: 'Open sample took up carbon dioxide',
      sign: 'A pen in a glass shows one or two while the in-line meter shows 0.',
      remedy: 'Nothing is broken: read in line, or in a beaker that overflows from the bottom.',
      notTo: 'Resin beginning to be spent.',
    },
    cost: { minutes: 0, parts: [] },
    on: () => ({ reads: (s, { product }) => ({ penProduct: product + evenly(0.3, 1.5, s) }) }),
  },
  {
    id: 'organics',
    weight: 4,
    words: {
      name: 'Marks at 0 ppm: organics, detergent, antifreeze or the brush',
      sign: 'No meter shows anything; the glass does.',
      remedy: 'Wash or change the pads, flush the tank, put carbon after it, and have the water looked at.',
      notTo: 'Spent resin.',
    },
    cost: { minutes: 45, parts: ['carbon'] },
    unseen: { harm: 'It marks every pane.', kit: 'foamTest' },
    on: () => ({ answers: { foamTest: 0.7 } }),
  },
];
