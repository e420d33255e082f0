import { describe, expect, it } from 'vitest';
import { probePlaces, type System, type TemplateId } from '../file';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { settleWater } from '../water';
import { atGauge, atPlace, solveTrain, tapWater, type SolvedTrain } from '.';

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
const solved = (system: System): SolvedTrain =>
  value(solveTrain(system.train, system.source, value(tapWater(system.source, system.instruments)).water));
const membraneOf = ({ train }: System): string => train.stages.find(({ kind }) => kind === 'membrane')!.id;

describe('what is expected at a place', () => {
  it.each(['marineHousehold', 'skid', 'counterHard', 'watermaker', 'vanCart'] as const)('%s: every place has its water', (template) => {
    const system = from(template);
    const train = solved(system);
    for (const place of probePlaces(system.train)) expect(atPlace(train, place)?.state.ec25UScm, place.label).toBeGreaterThan(0);
  });
  it('a recycle makes the feed stronger than what is led to the pump, and the waste stronger still', () => {
    const system = from('skid');
    const train = solved(system);
    const at = membraneOf(system);
    const feed = atPlace(train, { after: at, side: 'feed', vessel: null })!.state.ec25UScm;
    const waste = atPlace(train, { after: at, side: 'waste', vessel: null })!.state.ec25UScm;
    expect(feed).toBeGreaterThan(train.stations[0]!.state.ec25UScm);
    expect(waste).toBeGreaterThan(feed);
    // The mixture by balance of a solute that no stage makes: fresh and recycled chloride over both flows.
    const unit = train.unit!;
    const mixed =
      ((unit.membraneFeedLPerH - unit.recycleLPerH) *
        train.stations.find(({ kind }) => kind === 'carbon' || kind === 'sediment')!.water.mgL.Cl +
        unit.recycleLPerH * unit.concentrate.mgL.Cl) /
      unit.membraneFeedLPerH;
    expect(unit.mixedFeed.mgL.Cl / mixed).toBeCloseTo(1, 2);
    expect(feed).toBeCloseTo(value(settleWater(unit.mixedFeed)).ec25UScm, 6);
  });
  it('a vessel of the second rank makes stronger water than one of the first', () => {
    const system = from('skid');
    const train = solved(system);
    const at = (rank: number): number =>
      atPlace(train, { after: membraneOf(system), side: 'out', vessel: { rank, vessel: 0 } })!.state.ec25UScm;
    expect(at(1)).toBeGreaterThan(at(0));
  });
  it('is nothing where the place is gone', () => {
    const train = solved(from('marineHousehold'));
    expect(atPlace(train, { after: 'nowhere', side: 'out', vessel: null })).toBeNull();
    expect(atPlace(train, { after: 'resin', side: 'waste', vessel: null })).toBeNull();
  });
});

describe('what a gauge should show', () => {
  it("falls from the membrane to the concentrate, and is the line's at the line", () => {
    const system = from('skid');
    const train = solved(system);
    const show = (at: Parameters<typeof atGauge>[2]): number => atGauge(system, train, at)!;
    expect(show('line')).toBe(system.source.linePressureBar);
    expect(show('membrane')).toBeGreaterThan(show('concentrate'));
    expect(show('filters')).toBeLessThan(show('line'));
    expect(show('recycle')).toBe(train.unit!.recycleLPerH);
    expect(show('product') + show('waste')).toBeCloseTo(train.unit!.membraneFeedLPerH - show('recycle'), 3);
  });
  it('nothing where nothing flows', () => expect(atGauge(from('resinVessel'), solved(from('resinVessel')), 'membrane')).toBeNull());
});
