import { sodiumChloride, solveUnitFlows, ELEMENT_ROWS, type UnitConditions } from '../membrane';
import type { MembraneAnswer, Physics } from '../choice';

/** Physics of the reference scenarios of the science of options (11): salt alone in the tap, as many mg/L as the meter shows. */

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
          row: ELEMENT_ROWS[membrane.elementClass],
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
