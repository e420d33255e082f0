import { METRIC_UNITS } from '@yes-clear/core/quantity';
import { reportTrain, type TrainReport } from '@yes-clear/core/advice';
import type { System } from '@yes-clear/core/file';
import { kindOf, newStage, placed, STAGE_KINDS, type Stage, type StageKind } from '@yes-clear/core/stage';
import { systemFromTemplate } from '@yes-clear/core/template';
import { tapWater } from '@yes-clear/core/train';
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import VesselShape from '../descent/VesselShape.vue';
import StationLedger from './panels/ledger/StationLedger.vue';
import StageInspector from './stage/StageInspector.vue';

/** Every kind of stage on the screen: its column in the ledger, its fields, its drawing. */
const base = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
function withOne(kind: StageKind): { system: System; stage: Stage; report: TrainReport } {
  const stage: Stage = newStage(kind, 'new');
  const stages = placed(
    base.train.stages.filter((one) => one.kind !== 'membrane' || kind !== 'membrane'),
    stage,
  );
  const system = { ...base, train: { ...base.train, stages, probes: [] } };
  const water = tapWater(system.source, system.instruments);
  const report = water.ok ? reportTrain(system, water.value.water) : water;
  if (!report.ok) throw new Error(report.error.message);
  return { system, stage, report: report.value };
}
const select = {
  props: ['items', 'modelValue'],
  template: '<select :value="modelValue"><option v-for="i in items" :key="i.value">{{ i.title }}</option></select>',
};

describe.each(STAGE_KINDS)('%s on the screen', (kind) => {
  const { system, stage, report } = withOne(kind);
  it('has a column in the ledger, with a figure in every row', () => {
    const ledger = mount(StationLedger, {
      props: { system, solved: report.solved, origins: null, left: 100, columnWidth: 90, used: null, estimated: [], selected: 'new' },
    });
    const heads = ledger.findAll('[role=columnheader]').map((head) => head.text());
    const at = heads.lastIndexOf(stage.name);
    expect(at).toBeGreaterThan(0);
    for (const row of ledger.findAll('[role=row]').slice(1)) {
      const cell = row.findAll('[role=cell]')[at - 1]!;
      expect(cell.text()).toMatch(/^~?(-|−)?[\d\u202f.]+$/);
      expect(cell.classes()).toContain('on');
    }
  });
  it('is asked for by its own fields, and what is typed comes out as a stage', async () => {
    const inspector = mount(StageInspector, {
      props: { stage, system, report, first: false, last: false },
      global: { stubs: { VSelect: select, DayField: true } },
    });
    const asked = kindOf(stage).fields(stage, { units: METRIC_UNITS, linePressureBar: 4, unit: null, ahead: [] }).quantities;
    const labels = inspector.findAll('label').map((label) => label.text());
    for (const { label } of asked) expect(labels).toContain(label);
    const own = asked.findIndex(({ label, dimension }) => label !== 'Line pressure' && dimension !== 'count');
    const field = inspector.findAll('.quantity')[labels.indexOf(asked[own]!.label)]!;
    await field.get('input').setValue(`${(field.get('input').element as HTMLInputElement).value || '0.5'}1`);
    await field.get('input').trigger('blur');
    const said = inspector.emitted('change') ?? [];
    if (field.find('[role=alert]').exists()) expect(said).toEqual([]);
    else expect(said.at(-1)![0]).toMatchObject({ id: 'new', kind });
    expect(inspector.text()).not.toMatch(/NaN|undefined|Infinity/);
  });
  it('is drawn', () => {
    const vessel = {
      stageId: 'new',
      kind,
      name: 'n',
      box: { x: 10, y: 10, width: 30, height: 60 },
      from: '#111',
      to: '#eee',
      fill: 0.5,
      dry: false,
      dyed: false,
    };
    const drawing = mount(VesselShape, { props: { vessel, small: false, selected: false } });
    expect(drawing.element.querySelectorAll('rect, path, circle').length).toBeGreaterThan(0);
    expect(drawing.html()).not.toContain('NaN');
  });
});
