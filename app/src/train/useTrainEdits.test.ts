import { membraneStage, type System } from '@yes-clear/core/file';
import { membraneOperation, tapWater } from '@yes-clear/core/train';
import { reportTrain, type TrainReport } from '@yes-clear/core/advice';
import { systemFromTemplate } from '@yes-clear/core/template';
import { describe, expect, it } from 'vitest';
import { computed, shallowRef } from 'vue';
import type { OpenSystem } from '../system/openSystem';
import { useTrainEdits } from './useTrainEdits';

/** A system that is edited in memory. */
function bench(template: 'marinePair' | 'marineHousehold' = 'marinePair') {
  const system = shallowRef<System | null>(systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' }));
  const labels: string[] = [];
  const current = {
    system,
    solved: computed(() => ({ operation: membraneOperation(system.value!.train, system.value!.source, report().solved) })),
    edit: (label: string, change: (s: System) => System) => {
      labels.push(label);
      system.value = change(system.value!);
    },
  } as unknown as OpenSystem;
  const ids = (): string[] => system.value!.train.stages.map((stage) => stage.id);
  const report = (): TrainReport => {
    const water = tapWater(system.value!.source, system.value!.instruments);
    const outcome = water.ok ? reportTrain(system.value!, water.value.water) : water;
    if (!outcome.ok) throw new Error(outcome.error.message);
    return outcome.value;
  };
  return { system, labels, ids, report, edits: useTrainEdits(current) };
}

describe('editing a train', () => {
  it('puts a new stage where it belongs: sediment, carbon, membrane, resin, tank', () => {
    const { edits, ids } = bench();
    const carbon = edits.add('carbon');
    expect(ids().indexOf(carbon)).toBe(ids().indexOf('membrane') - 1);
    const resin = edits.add('resin');
    expect(ids().indexOf(resin)).toBe(ids().indexOf('tank') - 1);
    const tank = edits.add('tank');
    expect(ids().at(-1)).toBe(tank);
  });
  it('numbers a second stage of a kind', () => {
    const { edits, system } = bench('marineHousehold');
    const id = edits.add('resin');
    expect(system.value!.train.stages.find((stage) => stage.id === id)!.name).toBe('Resin 2');
  });
  it('moves one place at a time and stops at the ends', () => {
    const { edits, ids } = bench();
    edits.move('carbon-1', -1);
    expect(ids().slice(0, 2)).toEqual(['carbon-1', 'sediment']);
    edits.move('carbon-1', -1);
    expect(ids()[0]).toBe('carbon-1');
    edits.move('tank', 1);
    expect(ids().at(-1)).toBe('tank');
  });
  it('takes an order as dragged', () => {
    const { edits, ids } = bench('marineHousehold');
    edits.order(['carbon', 'sediment', 'membrane', 'resin', 'tank']);
    expect(ids()).toEqual(['carbon', 'sediment', 'membrane', 'resin', 'tank']);
  });
  it('moves the probe of a removed stage to the one before it', () => {
    const { edits, system } = bench();
    edits.remove('resin-2');
    expect(system.value!.train.probes.map((probe) => probe.after)).toEqual(['tap', 'membrane', 'resin-1']);
    edits.remove('resin-1');
    expect(system.value!.train.probes.map((probe) => probe.after)).toEqual(['tap', 'membrane', 'membrane']);
  });
  it('names each edit, so that typing in one field is one step back', () => {
    const { edits, labels, system } = bench();
    const membrane = membraneStage(system.value!.train.stages)!;
    edits.change({ ...membrane, waterFactor: 0.9 }, 'Output against new');
    edits.change({ ...membrane, waterFactor: 0.8 }, 'Output against new');
    expect(membraneStage(system.value!.train.stages)!.waterFactor).toBe(0.8);
    edits.change({ ...membrane, saltFactor: 1.1 }, 'Salt passage against new');
    expect(labels[0]).toBe(labels[1]);
    expect(labels[2]).not.toBe(labels[1]);
  });
  it('sets the restrictor for a ratio, on the whole unit', () => {
    const { edits, report } = bench();
    expect(edits.mend({ do: 'setWasteRatio', ratio: 4.5, why: 'scale', label: '' })).toBeNull();
    expect(report().solved.unit!.wasteToProduct).toBeCloseTo(4.5, 2);
  });
  it('says so when no length of this bore gives it', () => {
    const { edits, system } = bench();
    const before = system.value;
    expect(edits.mend({ do: 'setWasteRatio', ratio: 30, why: 'own', label: '' })).toContain('Fit a larger one');
    expect(system.value).toBe(before);
  });
});
