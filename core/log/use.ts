import { DAY_MS, DAYS_PER_YEAR } from '../quantity';
import { membraneStage, type Reading, type System } from '../file';
import { productLPerDay } from '../goal';
import { litresPerProduct, meanExposure, type SolvedTrain } from '../train';
import type { StageUse, TrainUse } from '../stage';
import type { ResinTracking } from './resin';
import { countsSince } from './services';
import { litresCounted } from './litres';

/**
 * What each stage has been through since it was fitted: years by the calendar, litres by the log, equivalents by the
 * resin's own tracking. Stages up to the membrane see all feed, those behind it the product, those of a use its share.
 *
 * @param solved the train when new, for the share of feed that becomes product
 * @param now instant up to which use is counted
 */
export function trainUse(
  system: System,
  readings: readonly Reading[],
  solved: SolvedTrain,
  tracking: ResinTracking | null,
  now: string,
): TrainUse {
  const litres = litresCounted(system, readings);
  const nowMs = Date.parse(now);
  const design = productLPerDay(system.goal);
  const { stages } = system.train;
  const use: Record<string, StageUse> = {};
  stages.forEach((stage, i) => {
    if (!('fittedOn' in stage) || stage.fittedOn === null) return;
    const sinceMs = Date.parse(`${stage.fittedOn}T00:00:00Z`);
    if (!(nowMs > sinceMs)) return;
    const countsMs = Date.parse(`${countsSince(system, stage) ?? stage.fittedOn}T00:00:00Z`);
    const productL = litres.at(nowMs) - litres.at(Math.min(countsMs, nowMs));
    use[stage.id] = {
      years: (nowMs - sinceMs) / DAY_MS / DAYS_PER_YEAR,
      passedL: productL * litresPerProduct(solved, stages, i),
    };
    if (stage.kind === 'carbon') use[stage.id] = spared(stage.id, use[stage.id]!, solved, use);
  });
  const membrane = membraneStage(stages);
  const { water, flowLPerH } = solved.stations[0]!;
  const mean = membrane && use[membrane.id] && flowLPerH > 0 ? meanExposure(system.train, water, flowLPerH, use) : null;
  if (membrane && mean) {
    const hours = use[membrane.id]!.passedL! / flowLPerH;
    use[membrane.id] = { ...use[membrane.id], chlorineMgLHours: mean.chlorineMgL * hours, chloramineMgLHours: mean.chloramineMgL * hours };
  }
  for (const branch of system.train.branches)
    for (const stage of branch.stages) {
      if (!('fittedOn' in stage) || stage.fittedOn === null) continue;
      const sinceMs = Date.parse(`${stage.fittedOn}T00:00:00Z`);
      if (!(nowMs > sinceMs)) continue;
      const days = (nowMs - sinceMs) / DAY_MS;
      // A use draws its share of all that was made.
      const share = design > 0 ? (litres.at(nowMs) - litres.at(sinceMs)) / design : days;
      use[stage.id] = { years: days / DAYS_PER_YEAR, passedL: share * branch.litresPerDay };
    }
  if (tracking) {
    // Of a row each bed has taken up its own share.
    const whole = tracking.beds.reduce((sum, bed) => sum + bed.used, 0);
    for (const bed of tracking.beds) {
      const share = whole > 0 ? bed.used / whole : 1 / tracking.beds.length;
      use[bed.stageId] = { ...use[bed.stageId], cationEq: tracking.cationEq * share, anionEq: tracking.anionEq * share };
    }
  }
  return use;
}

/** A second carbon sees chlorine only once the ones before it are spent: what they could take is not counted against it. */
function spared(id: string, own: StageUse, solved: SolvedTrain, use: TrainUse): StageUse {
  const ahead = solved.carbons.slice(
    0,
    solved.carbons.findIndex((carbon) => carbon.stageId === id),
  );
  const taken = ahead.reduce((sum, carbon) => sum + Math.min(use[carbon.stageId]?.passedL ?? 0, carbon.state.litresLeft ?? 0), 0);
  return { ...own, passedL: Math.max(0, (own.passedL ?? 0) - taken) };
}
