import { describe, expect, it } from 'vitest';
import { newStage } from '../stage';
import { systemFromTemplate } from '../template';
import {
  alongTrain,
  behind,
  gaugePlaces,
  isPlace,
  outletPlace,
  probePlaces,
  probesWith,
  probesWithout,
  productProbe,
  type Train,
  type TemplateId,
} from '.';

const from = (template: TemplateId): Train =>
  systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' }).train;
const labels = (train: Train): string[] => probePlaces(train).map(({ label }) => label);

describe('places of a train', () => {
  it('are behind every stage, and in the waste of a membrane', () =>
    expect(labels(from('breeder'))).toEqual([
      'Tap',
      'After sediment',
      'After carbon',
      'After membrane',
      'Waste of membrane',
      'After drum',
    ]));
  it('are in a recycle, at each vessel of an array, and in what a loop brings back', () => {
    const found = labels(from('skid'));
    expect(found.filter((label) => /^Feed of .*, recycle mixed in$/.test(label))).toHaveLength(1);
    expect(found.filter((label) => /vessel|rank/i.test(label)).length).toBeGreaterThan(1);
    expect(found).toContain('Loop, coming back');
  });
  it('are behind the stages of a use', () => expect(labels(from('counterHard'))).toContain('Espresso, after espresso cartridge'));
  it('a place that is gone is none: a recycle that was closed', () => {
    const skid = from('skid');
    const membrane = skid.stages.find(({ kind }) => kind === 'membrane')!;
    const feed = { after: membrane.id, side: 'feed', vessel: null } as const;
    expect(isPlace(probePlaces(skid), feed)).toBe(true);
    const shut = { ...skid, stages: skid.stages.map((stage) => (stage.kind === 'membrane' ? { ...stage, recycleLPerH: 0 } : stage)) };
    expect(isPlace(probePlaces(shut), feed)).toBe(false);
  });
  it('gauges stand where there is a pressure to read', () => {
    expect(gaugePlaces(from('resinVessel'))).not.toContain('membrane');
    expect(gaugePlaces(from('skid'))).toEqual(expect.arrayContaining(['line', 'membrane', 'concentrate', 'recycle', 'loop']));
    expect(gaugePlaces(from('breeder'))).not.toContain('concentrate');
  });
});

describe('the probe of the product', () => {
  it('is the last behind what changes the water', () => {
    expect(productProbe(from('marineHousehold'))?.name).toBe('After resin');
    expect(productProbe(from('counterHard'))?.name).toBe('To the counter');
    expect(outletPlace(from('marineHousehold'))).toEqual(behind('resin'));
  });
  it('is none where nothing is read behind the last stage', () => {
    const train = from('marineHousehold');
    expect(productProbe({ ...train, probes: train.probes.filter(({ name }) => name !== 'After resin') })).toBeUndefined();
  });
  it('does not go by the order of the line', () => {
    const train = from('marineHousehold');
    expect(productProbe({ ...train, probes: [...train.probes].reverse() })?.name).toBe('After resin');
  });
  it('goes along with a resin that is added at the end, with the name that says where it stands', () => {
    const train = from('marineHousehold');
    const second = newStage('resin', 'second');
    const at = train.stages.findIndex(({ kind }) => kind === 'resin') + 1;
    const stages = [...train.stages.slice(0, at), { ...second, name: 'Resin 2' }, ...train.stages.slice(at)];
    const probes = probesWith(train, stages);
    expect(productProbe({ ...train, stages, probes })).toMatchObject({ after: 'second', name: 'After resin 2' });
    expect(probes.find(({ name }) => name === 'After membrane')?.after).toBe('membrane');
  });
  it('stays where what is added changes nothing a meter shows', () => {
    const train = from('marineHousehold');
    const stages = [...train.stages, newStage('uv', 'lamp')];
    expect(probesWith(train, stages)).toEqual(train.probes);
  });
  it('moves back when its stage goes; what only that stage had goes with it', () => {
    const train = from('marineHousehold');
    const waste = { ...train.probes[0]!, id: 'w', after: 'membrane', side: 'waste' } as const;
    const left = probesWithout({ ...train, probes: [...train.probes, waste] }, 'membrane');
    expect(left.some(({ id }) => id === 'w')).toBe(false);
    expect(left.every(({ after }) => after !== 'membrane')).toBe(true);
  });
  it('lies along the product line, not in the waste', () => {
    const train = from('breeder');
    expect(alongTrain(train, behind('tap'))).toBe(-1);
    expect(alongTrain(train, { after: 'membrane', side: 'waste', vessel: null })).toBeNull();
  });
});
