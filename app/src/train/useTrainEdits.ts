import { lengthForRatio, speciesOfWater } from '@yes-clear/core/membrane';
import type { Stage, StageKind, System } from '@yes-clear/core/file';
import { membraneOperation, newStage, type FindingAction, type TrainReport } from '@yes-clear/core/train';
import type { CurrentSystem } from '../store/current';

/** Where a new stage belongs by common practice: sediment, carbon, pump, membrane, resin, tank. */
const PLACE: Record<StageKind, number> = { sediment: 0, carbon: 1, pump: 2, membrane: 3, resin: 4, tubing: 5, tank: 6 };

/** All edits of the train; each is one undoable step. */
export function useTrainEdits(current: CurrentSystem) {
  const stages = (label: string, change: (stages: readonly Stage[]) => Stage[]): void =>
    current.edit(label, (system) => ({ ...system, train: { ...system.train, stages: change(system.train.stages) } }));

  function change(id: string, changes: Partial<Stage>): void {
    stages(`stage ${id} ${Object.keys(changes).join()}`, (list) =>
      list.map((stage) => (stage.id === id ? ({ ...stage, ...changes } as Stage) : stage)),
    );
  }
  function add(kind: StageKind): string {
    const id = `${kind}-${crypto.randomUUID().slice(0, 8)}`;
    stages(`${kind} added`, (list) => {
      const at = list.findIndex((stage) => PLACE[stage.kind] > PLACE[kind]);
      const next = [...list];
      const same = list.filter((stage) => stage.kind === kind).length;
      const stage = newStage(kind, id);
      next.splice(at < 0 ? list.length : at, 0, { ...stage, name: same > 0 ? `${stage.name} ${same + 1}` : stage.name } as Stage);
      return next;
    });
    return id;
  }
  function move(id: string, by: number): void {
    stages('stage moved', (list) => {
      const from = list.findIndex((stage) => stage.id === id);
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
          probes: system.train.probes.map((probe) => (probe.after === id ? { ...probe, after: before } : probe)),
        },
      };
    });
  }
  /** Carries out what a finding offers; returns what stopped it, if anything did. */
  function mend(action: FindingAction, report: TrainReport): string | null {
    // The other actions mend the water, not the train.
    if (action.do !== 'setWasteRatio') return null;
    const system = current.system.value;
    const at = system && membraneOperation(system.train, system.source, report.solved);
    if (!at) return 'There is no membrane to set.';
    const species = speciesOfWater(at.feed);
    if (!species.ok) return species.error.message;
    const solved = lengthForRatio(at.unit, species.value, { ...at.conditions, temperatureC: at.feed.temperatureC }, action.ratio);
    if (!solved.ok) return solved.error.message;
    change(at.stage.id, { restrictor: { ...at.stage.restrictor, lengthMm: Math.round(solved.value * 10) / 10 } });
    return null;
  }
  return { change, add, move, order, remove, mend };
}
