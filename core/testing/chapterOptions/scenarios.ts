import { CHAPTER_ROWS } from '../chapterRows';
import { sodiumChloride, solveUnitFlows, type UnitConditions } from '../../membrane';
import { askingOf, type Asked, type MembraneAnswer, type Physics } from './answers';
import { spacesOf, type Space } from './jobs';
import type { Judging } from './judging';
import { USUAL_PRICES } from './prices';
import { BAR_PER_PSI, DAYS_PER_YEAR } from '../../quantity';

/** Reference scenarios of the science of options (11), with their physics: salt alone in the tap, as many mg/L as the meter shows. */

export interface ScenarioTap {
  readonly ppm: number;
  readonly meqL: number;
  readonly linePressureBar: number;
}
const CO2_MEQ_L = 0.15;
const SILICA_MEQ_L = 0.15;
/** Share of the silica that passes a membrane. */
const SILICA_PASSAGE = 0.05;
const NACL_G_PER_MOL = 58.443;

/** What the tap's anion side carries with what no meter shows. */
export const tapLoads = (meqL: number): { cationMeqL: number; anionMeqL: number } => ({
  cationMeqL: meqL,
  anionMeqL: meqL + CO2_MEQ_L + SILICA_MEQ_L,
});

export const saltPhysics =
  (tap: ScenarioTap): Physics =>
  (membrane, at) => {
    const feedMgL = tap.ppm * at.strength;
    const feed = sodiumChloride(feedMgL);
    const conditions: UnitConditions = {
      linePressureBar: membrane.pump?.bar ?? tap.linePressureBar,
      prefilterBarPerLPerH: 0,
      permeatePressureBar: 0,
      temperatureC: at.temperatureC,
      law: 'mixture',
    };
    const solve = (recycleLPerH: number): ReturnType<typeof solveUnitFlows> =>
      solveUnitFlows(
        {
          row: CHAPTER_ROWS[membrane.elementClass],
          ranks: membrane.ranks,
          factors: at.factors,
          restrictor: { lengthMm: 300, boreMm: 1.2 },
          valve: { kind: 'recovery', recovery: membrane.recovery! },
          recycleLPerH,
        },
        feed,
        conditions,
      );
    let solved = solve(0);
    const held = membrane.pump?.heldFeedLPerH ?? null;
    if (held !== null && solved.ok && solved.value.feedLPerH < held) {
      let recycle = held - solved.value.feedLPerH;
      for (let round = 0; round < 30; round++) {
        solved = solve(recycle);
        if (!solved.ok) return null;
        const next = held - solved.value.feedLPerH;
        if (Math.abs(next - recycle) < 1e-6 * held) break;
        recycle = next;
      }
    }
    if (!solved.ok || solved.value.noProduction || !solved.value.permeateMmolL) return null;
    const flows = solved.value;
    const passage = (flows.permeateMmolL![0]! * NACL_G_PER_MOL) / feedMgL;
    const last = flows.ranks.at(-1)!.elements.at(-1)!;
    const answer: MembraneAnswer = {
      productLPerH: flows.permeateLPerH,
      feedLPerH: flows.feedLPerH,
      concentrateLPerH: 60 * last.concentrateLPerMin,
      ppm: feedMgL * passage,
      cationMeqL: tap.meqL * at.strength * passage,
      anionMeqL: tap.meqL * at.strength * passage + CO2_MEQ_L + SILICA_PASSAGE * SILICA_MEQ_L,
      gasMeqL: CO2_MEQ_L,
      alkalinityMgL: 0,
    };
    return answer;
  };

/** A site that forbids nothing, on a line of 50 psi; a tap without what the scenario does not ask of. */
export const SITE: Judging['site'] = {
  wallMm: null,
  capital: null,
  power: true,
  drain: true,
  leastWaste: null,
  visitsPerYear: null,
  leastBar: null,
  linePressureBar: 50 * BAR_PER_PSI,
};
export const TAP = { chlorineMgL: 0.5, chloramineMgL: 0, limeIndex: -0.4, chlorideMgL: 20, hardnessMgL: 100, alkalinityMgL: 80 } as const;

/** Scenario B, a window cleaner: a tap of 140 ppm, five days a week. */
const CLEANER = { ppm: 140, meqL: 2.789, linePressureBar: 50 * BAR_PER_PSI - 0.3 } as const;
const CLEANER_AGEING = { water: 0.07, salt: 0.1, mostYears: 4 } as const;
const cleanerAsked = (strength: number): Asked => askingOf(saltPhysics(CLEANER), { mean: 11, amplitude: 5 }, CLEANER_AGEING, strength);
const cleanerWater = (strength: number): Judging['water'] => ({
  ...TAP,
  ppm: CLEANER.ppm * strength,
  ...tapLoads(CLEANER.meqL * strength),
});
/** On its tap as it is every membrane part is solved once, whatever is asked. */
const CLEANER_ASKED = cleanerAsked(1);
export const windowCleaner = (litresPerWeek: number, changes: Partial<Judging> = {}): Judging => ({
  water: cleanerWater(1),
  need: {
    litresPerYear: (litresPerWeek / 7) * DAYS_PER_YEAR,
    litresPerDay: litresPerWeek / 5,
    largestDrawL: litresPerWeek / 5,
    hoursPerDay: 10,
  },
  goal: { ppm: 1, wantsResin: false, broughtTo: null },
  site: SITE,
  prices: USUAL_PRICES,
  ageing: CLEANER_AGEING,
  horizonYears: 6,
  rate: 0,
  rules: ['tank', 'production', 'scaling', 'crossflow', 'quality', 'resinLife'],
  crossFlowOn: 'new',
  mostChanges: 60,
  asked: CLEANER_ASKED,
  ...changes,
});
/** The same cleaner on a tap so many times as strong. */
export const onStrongerTap = (strength: number): Pick<Judging, 'water' | 'asked'> => ({
  water: cleanerWater(strength),
  asked: cleanerAsked(strength),
});
export const windowCleanerSpaces = (): Space[] =>
  spacesOf(
    'window',
    { carbonMgL: 0, bypass: 0 },
    {
      element: ['in25Low', 'in4Low', 'in4Lowest'],
      number: [1, 2],
      pump: ['line', 'cart'],
      recovery: [0.4, 0.5, 0.6],
      recycle: [true],
      scale: ['nothing'],
      resin: ['none', '1.2', '7', '11'],
      tankL: [250, 400, 650],
      vesselL: ['7', '11', '25', '2x11', '2x25'],
      prefilter: [false],
      reservoirL: [0],
    },
  );
