import type { UnitPreference } from '../quantity';
import { kindOf, type Around, type Known, type Stage } from '../stage';
import { allStages, lastTank, type System } from '../file';
import { runsInto, waysOf } from '../train';
import type { TrainReport } from './report';

/**
 * What a solved train knows of one of its stages.
 *
 * @param resinLeft share of a resin that is left, by the log; null where the log does not tell
 */
export function knownOf(stage: Stage, report: TrainReport, units: UnitPreference, resinLeft: number | null = null): Known<Stage> {
  const { solved, train, scale, float, bladder } = report;
  const last = lastTank(train.stages)?.id === stage.id;
  const way = waysOf(train, solved).find(({ stages }) => stages.some(({ id }) => id === stage.id));
  const at = way?.stages.findIndex(({ id }) => id === stage.id) ?? -1;
  return {
    units,
    before: (way && runsInto(way.stages, way.stations, at)) ?? null,
    after: way?.stations[at + 1] ?? null,
    worn: allStages(train).find(({ id }) => id === stage.id) ?? stage,
    resin: solved.resins.find(({ stageId }) => stageId === stage.id) ?? null,
    carbon: solved.carbons.find(({ stageId }) => stageId === stage.id)?.state ?? null,
    unit: unitOf(stage.id, report),
    safeRecovery: scale?.safeRecovery ?? null,
    float: last && float?.ok ? float.value : null,
    bladder: last && bladder?.ok ? bladder.value : null,
    resinLeft,
  };
}

/** The membrane unit of a stage: the first pass, or the second. */
function unitOf(stageId: string, { solved: { unit, unitStageId, secondPass } }: TrainReport): Known<Stage>['unit'] {
  if (stageId === unitStageId) return unit;
  return secondPass?.waste.after === stageId ? secondPass.unit : null;
}

/** Figures that belong to one stage alone, read from the solved train: name and text. */
export const stageFacts = (stage: Stage, report: TrainReport, units: UnitPreference): readonly (readonly [string, string])[] =>
  kindOf(stage).facts(knownOf(stage, report, units));

/** What stands around a stage of a train, for the fields it is asked by. */
export function aroundOf(
  stage: Stage,
  { train, source: { linePressureBar }, units }: Pick<System, 'train' | 'source' | 'units'>,
  report: TrainReport | null,
): Around {
  const at = train.stages.findIndex(({ id }) => id === stage.id);
  return { units, linePressureBar, unit: report && unitOf(stage.id, report), ahead: train.stages.slice(0, Math.max(0, at)) };
}
