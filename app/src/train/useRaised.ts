import { reportTrain } from '@yes-clear/core/advice';
import { raisedBy, type Finding, type Stage } from '@yes-clear/core/stage';
import type { OpenSystem } from '../system/openSystem';

/** What a proposed setting would raise that is not said of the train as it stands: a proposal says it before it is taken. */
export function useRaised(
  current: OpenSystem,
): (change: (stages: readonly Stage[]) => readonly Stage[]) => Pick<Finding, 'id' | 'title'>[] {
  const all = (report: { findings: readonly Finding[]; branches: readonly { findings: readonly Finding[] }[] }): Finding[] => [
    ...report.findings,
    ...report.branches.flatMap((branch) => branch.findings),
  ];
  return (change) => {
    const [system, water, solved] = [current.system.value, current.water.value, current.solved.value];
    if (!system || !water?.ok || !solved) return [];
    const branches = system.train.branches.map((branch) => ({ ...branch, stages: [...change(branch.stages)] }));
    const changed = { ...system, train: { ...system.train, stages: [...change(system.train.stages)], branches } };
    const report = reportTrain(changed, water.value.water, solved.use, undefined, water.value);
    return report.ok ? raisedBy(all(solved.report), all(report.value)) : [{ id: 'error', title: report.error.message }];
  };
}
