import { newStage, withNew, type FindingAction, type Stage, type StageKind } from '@yes-clear/core/stage';
import { idFor } from '../store/newId';
import { restrictorFor } from '@yes-clear/core/advice';
import { mapStages, probesWith, probesWithout, type Branch, type System } from '@yes-clear/core/file';
import type { OpenSystem } from '../system/openSystem';

/** All edits of the train; each is one undoable step. */
export function useTrainEdits(current: OpenSystem) {
  /** Changes the stages as a whole, under a label of its own. */
  const stages = (label: string, change: (stages: readonly Stage[]) => Stage[]): void =>
    current.edit(label, (system) => ({ ...system, train: { ...system.train, stages: change(system.train.stages) } }));

  /** Puts a stage in place of the one with its id, in the train or in a branch. `what` was changed of it: edits of one thing join. */
  function change(stage: Stage, what: string): void {
    current.edit(`stage ${stage.id} ${what}`, (system) => ({
      ...system,
      train: mapStages(system.train, (one) => (one.id === stage.id ? stage : one)),
    }));
  }
  function add(kind: StageKind, variant: string | null = null): string {
    const id = idFor(kind);
    current.edit(`${kind} added`, (system) => {
      const { train } = system;
      const same = train.stages.filter((stage) => stage.kind === kind).length;
      const stage: Stage = newStage(kind, id);
      const list = withNew(train.stages, same > 0 ? { ...stage, name: `${stage.name} ${same + 1}` } : stage, variant);
      return { ...system, train: { ...train, stages: list, probes: probesWith(train, list) } };
    });
    return id;
  }
  function move(id: string, by: number): void {
    stages('stage moved', (list) => {
      const from = list.findIndex((stage) => stage.id === id);
      // A stage of a branch stays in its branch.
      if (from < 0) return [...list];
      const to = Math.max(0, Math.min(list.length - 1, from + by));
      const next = [...list];
      const [stage] = next.splice(from, 1);
      if (stage) next.splice(to, 0, stage);
      return next;
    });
  }
  function order(ids: readonly string[]): void {
    stages('stages reordered', (list) =>
      ids.map((id) => list.find((stage) => stage.id === id)).filter((stage): stage is Stage => stage !== undefined),
    );
  }
  function remove(id: string): void {
    // A probe behind a stage that goes moves to the stage before it.
    current.edit('stage removed', (system: System) => {
      const at = system.train.stages.findIndex((stage) => stage.id === id);
      const before = system.train.stages[at - 1]?.id ?? 'tap';
      return {
        ...system,
        train: {
          ...system.train,
          stages: system.train.stages.filter((stage) => stage.id !== id),
          branches: system.train.branches.map((branch) => ({
            ...branch,
            after: branch.after === id ? before : branch.after,
            stages: branch.stages.filter((stage) => stage.id !== id),
          })),
          probes: probesWithout(system.train, id),
        },
      };
    });
  }
  /** Changes the branches as a whole. */
  const branches = (label: string, change: (branches: readonly Branch[]) => Branch[]): void =>
    current.edit(label, (system) => ({ ...system, train: { ...system.train, branches: change(system.train.branches) } }));
  /** Carries out what a finding offers; returns what stopped it, if anything did. */
  function mend(action: FindingAction): string | null {
    if (action.do === 'setBlend') {
      stages('blend', (list) =>
        list.map((stage) => (stage.kind === 'membrane' ? { ...stage, bypassShare: action.share, bypassAfter: action.after } : stage)),
      );
      return null;
    }
    if (action.do === 'order') {
      order(action.ids);
      return null;
    }
    if (action.do === 'setRegulator') {
      current.edit('regulator', (system) => ({ ...system, source: { ...system.source, regulatorBar: action.bar } }));
      return null;
    }
    // The other actions mend the water, not the train.
    if (action.do !== 'setWasteRatio') return null;
    const at = current.solved.value?.operation ?? null;
    if (!at) return 'There is no membrane to set.';
    const restrictor = restrictorFor(at, action.ratio);
    if (!restrictor.ok) return restrictor.error.message;
    // What is set is what is wanted from now on, on every page.
    current.edit('restrictor', (system) => ({
      ...system,
      train: {
        ...system.train,
        wasteTarget: action.ratio,
        wasteWhy: action.why,
        stages: system.train.stages.map((stage) =>
          stage.id === at.stage.id && stage.kind === 'membrane' ? { ...stage, restrictor: restrictor.value } : stage,
        ),
      },
    }));
    return null;
  }
  return { stages, branches, change, add, move, order, remove, mend };
}
