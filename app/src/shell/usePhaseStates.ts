import { openWork } from '@yes-clear/core/commission';
import { demandLPerWeek } from '@yes-clear/core/goal';
import type { Finding } from '@yes-clear/core/stage';
import { computed, type ComputedRef } from 'vue';
import type { OpenSystem } from '../system/openSystem';
import type { PhaseKey } from './router';

export type PhaseState = 'done' | 'attention' | 'nothing';
export type PhaseStates = Record<PhaseKey, PhaseState>;

const worst = (findings: readonly Finding[]): PhaseState =>
  findings.some((f) => f.severity === 'bad' || f.severity === 'mind') ? 'attention' : 'done';

/** How each phase of a system stands, for the dots in the rail. */
export function usePhaseStates(current: OpenSystem): ComputedRef<PhaseStates> {
  return computed(() => {
    const system = current.system.value;
    const solved = current.solved.value;
    if (!system) return { water: 'nothing', goal: 'nothing', train: 'nothing', build: 'nothing', log: 'nothing', faults: 'nothing' };
    const water = current.water.value;
    const log = current.readings.value.length === 0 ? 'nothing' : worst(solved?.logFindings ?? []);
    return {
      water: !water?.ok || water.value.warning !== null || system.source.assumed.length > 0 ? 'attention' : 'done',
      goal: demandLPerWeek(system.goal.demand) > 0 ? (solved?.report.verdict === 'missed' ? 'attention' : 'done') : 'nothing',
      train: solved
        ? worst([...solved.report.findings, ...solved.report.branches.flatMap(({ findings }) => findings)])
        : current.error.value
          ? 'attention'
          : 'nothing',
      build: openWork(system) ? 'attention' : system.build.commissioned ? 'done' : 'nothing',
      log,
      // What the log finds amiss is where a search begins.
      faults: log === 'attention' ? 'attention' : 'nothing',
    };
  });
}
