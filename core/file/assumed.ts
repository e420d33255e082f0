import type { Assumable, Source, System } from './schema';
import { currentSample, withSample } from './select';

/**
 * Figures a template fills in that nobody has looked at: each is marked until somebody confirms it or types another, and
 * makes no phase done.
 */

/** The figure behind each mark. */
const FIGURE: Readonly<Record<Assumable, (source: Source) => unknown>> = {
  reading: (source) => [currentSample(source).reading, source.sampleId],
  temperature: (source) => [currentSample(source).temperatureC, source.sampleId],
  chlorine: (source) => [currentSample(source).chlorineMgL, currentSample(source).chloramineMgL],
  linePressure: (source) => source.linePressureBar,
};

/** A system after an edit, without the marks that the edit answered. */
export function answered(before: System, after: System): System {
  const { assumed } = after.source;
  if (assumed.length === 0) return after;
  const left = assumed.filter(
    (mark) =>
      JSON.stringify(FIGURE[mark](before.source)) === JSON.stringify(FIGURE[mark](after.source)) ||
      // Saying that nobody knows the amount answers nothing of it.
      (mark === 'chlorine' && isChloramineUntested(after.source)),
  );
  return left.length === assumed.length ? after : { ...after, source: { ...after.source, assumed: left } };
}

/** The same figures, confirmed as they stand. */
export const confirmed = (system: System, mark: Assumable): System => ({
  ...system,
  source: { ...system.source, assumed: system.source.assumed.filter((one) => one !== mark) },
});

/** Whether a reading nobody took gives way: a kit's hardness or alkalinity says more of this water than a template does. */
export function readingGivesWay(source: Source): boolean {
  const { way, kit } = currentSample(source);
  return source.assumed.includes('reading') && way === 'kit' && (kit.hardnessMgL !== null || kit.alkalinityMgL !== null);
}

/** Whether nothing of the tap was measured: its strength, and all that follows from it, is assumed. */
export function tapIsAssumed(source: Source): boolean {
  const { way } = currentSample(source);
  return way === 'usual' || (way !== 'report' && source.assumed.includes('reading') && !readingGivesWay(source));
}

/** Chloramine where a supply is known to hold it and nobody tested how much, mg/L as Cl2 (common practice: 1 to 4). */
const USUAL_CHLORAMINE_MG_L = 2;
/** A source with chloramine of an amount nobody knows: the usual one, marked as assumed. */
export const withUntestedChloramine = (source: Source): Source => ({
  ...withSample(source, { chloramineMgL: USUAL_CHLORAMINE_MG_L, chlorineMgL: 0 }),
  assumed: [...new Set([...source.assumed, 'chlorine' as const])],
});
export const isChloramineUntested = (source: Source): boolean =>
  source.assumed.includes('chlorine') &&
  currentSample(source).chloramineMgL === USUAL_CHLORAMINE_MG_L &&
  currentSample(source).chlorineMgL === 0;
