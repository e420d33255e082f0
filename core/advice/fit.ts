import type { System } from '../file';
import type { Outcome } from '../quantity';
import { systemFromAnswers, templatesFor, type Answers, type NewSystem } from '../template';
import { tapWater } from '../train';
import { reportTrain, type TrainReport } from './report';

/** How a train does on its water, worse with every figure: findings that are bad, findings to be minded, the farthest limit crossed as a ratio. */
type Standing = readonly [bad: number, mind: number, crossed: number];

const LOST: Standing = [Infinity, 0, 0];

function standing(report: Outcome<TrainReport>): Standing {
  if (!report.ok) return LOST;
  const { findings, checks } = report.value;
  const of = (severity: 'bad' | 'mind'): number => findings.filter((finding) => finding.severity === severity).length;
  const crossed = checks.map(({ limit, value, side }) =>
    side === 'high' && limit.high ? value / limit.high : side === 'low' && limit.low && value > 0 ? limit.low / value : 1,
  );
  return [of('bad'), of('mind'), Math.max(1, ...crossed)];
}

/** Whether one stands better than another: by the first figure in which they differ. */
function better(one: Standing, other: Standing): boolean {
  const at = one.findIndex((figure, index) => figure !== other[index]);
  return at >= 0 && one[at]! < other[at]!;
}

/** A system as answers make it, and how it does on its water. */
export interface Fitting {
  readonly system: System;
  readonly report: Outcome<TrainReport>;
}

type Start = Omit<NewSystem, 'template' | 'name'>;

/**
 * The system that two answers make: of the templates that may fit, each solved on this water, the one with the least
 * against it; the plainer of two that do as well.
 */
export function fitting(answers: Answers, start: Start): Fitting {
  const [plainest, ...others] = templatesFor(answers).map((template) => {
    const system = systemFromAnswers(answers, template, start);
    const water = tapWater(system.source, system.instruments);
    const report = water.ok ? reportTrain(system, water.value.water, {}, undefined, water.value) : water;
    return { system, report, standing: standing(report) };
  });
  return others.reduce((best, other) => (better(other.standing, best.standing) ? other : best), plainest!);
}

/** That system alone; where one template may fit, nothing is solved for it. */
export function fittingSystem(answers: Answers, start: Start): System {
  const [only, ...others] = templatesFor(answers);
  return others.length > 0 ? fitting(answers, start).system : systemFromAnswers(answers, only, start);
}
