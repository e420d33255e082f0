import type { System } from '../file';
import { strengthened, type Water } from '../water';
import { type SeasonSpan, solveTrain, temperatureInMonth, wasteToProduct, yearlyCourse } from '../train';

/** One month of a year of feed. */
export interface SeasonMonth {
  /** 0 is January. */
  readonly month: number;
  readonly temperatureC: number;
  /** Strength of the feed against today's sample. */
  readonly strength: number;
  readonly productLPerDay: number;
  readonly wasteToProduct: number | null;
  /** Behind the membrane; null where nothing is made. */
  readonly permeateUScm: number | null;
}

/** Strongest month north of the equator: September (common practice). */
export const STRONGEST_MONTH = 8;

/**
 * Output, ratio and quality month by month, from the span of the source: temperature as a yearly wave, coldest in
 * February, strength as one that peaks in September.
 *
 * @param ec25UScm conductivity of today's sample, against which the span's strengths are taken
 */
export function seasonMonths(system: System, feed: Water, ec25UScm: number, span: SeasonSpan): SeasonMonth[] {
  const weakest = span.weakestUScm === null ? 1 : span.weakestUScm / ec25UScm;
  const strongest = span.strongestUScm === null ? 1 : span.strongestUScm / ec25UScm;
  return Array.from({ length: 12 }, (_, month) => {
    const temperatureC = temperatureInMonth(span, month);
    const strength = yearlyCourse(weakest, strongest, month, STRONGEST_MONTH);
    const solved = solveTrain(system.train, system.source, { ...strengthened(feed, strength), temperatureC });
    const behind = solved.ok
      ? solved.value.stations.find((station) => station.after === solved.value.unitStageId && station.kind === 'membrane')
      : undefined;
    return {
      month,
      temperatureC,
      strength,
      productLPerDay: solved.ok ? solved.value.productLPerH * 24 : 0,
      wasteToProduct: solved.ok ? wasteToProduct(solved.value) : null,
      permeateUScm: behind?.state.ec25UScm ?? null,
    };
  });
}
