import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readDocument, type System } from '../file';
import { expectWithin, value } from '../testing/close';
import { tapWater } from '../train';
import { cartridgeChanged, lagStage, type CartridgeChange } from './cartridges';
import { logFindings } from './findings';
import { standing } from './standing';
import { trackResin, type ResinTracking } from './resin';

const NOW = '2026-11-23T10:00:00Z';
const outcome = readDocument(readFileSync(new URL('../../demo/tressimoor-coral-nursery.yesclear.json', import.meta.url), 'utf8'));
if (!outcome.ok) throw new Error(outcome.error.message);
const { system, readings } = outcome.records[0]!;
const seen = (of: System): ResinTracking => {
  const feed = value(tapWater(of.source, of.instruments)).water;
  return value(standing(of, readings, feed, NOW)).tracking!;
};
const before = seen(system);
const change = (changes: Partial<CartridgeChange> = {}): CartridgeChange => ({
  how: 'moveUp',
  ended: 'breakthrough',
  day: '2026-11-23',
  id: 'c1',
  ...changes,
});
const resin = (of: System, id: string) => {
  const stage = of.train.stages.find((one) => one.id === id);
  return stage?.kind === 'resin' ? stage : null;
};

describe('a resin cartridge is changed', () => {
  it('the lag moves up with what it has, new resin stands behind it, both count from today', () => {
    const loaded: System = {
      ...system,
      train: {
        ...system.train,
        stages: system.train.stages.map((stage) =>
          stage.id === 'resin-2' ? { ...stage, volumeL: 1.2, carriedEq: { cation: 0.01, anion: 0.02 } } : stage,
        ) as System['train']['stages'],
      },
    };
    const after = cartridgeChanged(loaded, before, change());
    expect(resin(after, 'resin-1')).toMatchObject({ volumeL: 1.2, carriedEq: { cation: 0.01, anion: 0.02 }, fittedOn: '2026-11-23' });
    expect(resin(after, 'resin-2')).toMatchObject({ volumeL: 1.2, carriedEq: { cation: 0, anion: 0 }, fittedOn: '2026-11-23' });
    expect(lagStage(after)?.id).toBe('resin-2');
  });
  it('the forecast starts anew: nearly all is left, and for longer', () => {
    const after = seen(cartridgeChanged(system, before, change()));
    expect(before.remaining.p50).toBeLessThan(0.6);
    expect(after.remaining.p50).toBeGreaterThan(0.97);
    expect(after.daysLeft!.p10).toBeGreaterThan(before.daysLeft!.p10);
  });
  it('what the old one took up is written down and moves the belief', () => {
    const after = cartridgeChanged(system, before, change());
    expect(after.cartridges).toHaveLength(1);
    expect(after.cartridges[0]).toMatchObject({ name: 'Resin 1', side: 'anion', ended: 'breakthrough', intervals: before.points.length });
    expectWithin(after.cartridges[0]!.loadEq, before.anionEq, 1e-9);
    // It broke through at half of what its class promises: the next is believed to hold less, and surer.
    const next = seen(after);
    expect(next.learnedFrom).toBe(1);
    expect(next.capacityEq).toBeLessThan(0.7 * before.capacityEq);
    expect(next.capacitySd).toBeLessThan(before.capacitySd);
  });
  it('taken out before it broke through it never lowers the belief', () => {
    const next = seen(cartridgeChanged(system, before, change({ how: 'renew', ended: 'removedBefore' })));
    expect(next.capacityEq).toBeGreaterThanOrEqual(before.capacityEq);
  });
  it('a cartridge of another size is taken at this one’s volume', () => {
    const spent = cartridgeChanged(system, before, change({ how: 'renew' }));
    const twice = { ...spent, cartridges: spent.cartridges.map((old) => ({ ...old, volumeL: 2 * old.volumeL, loadEq: 2 * old.loadEq })) };
    expectWithin(seen(twice).capacityEq, seen(spent).capacityEq, 1e-9);
  });
  it('without readings since it is followed by the planned use, and counts what it brought', () => {
    const stages = system.train.stages.map((stage) =>
      stage.kind === 'resin' ? { ...stage, carriedEq: { cation: 0, anion: 0.3 }, fittedOn: '2026-11-13' } : stage,
    ) as System['train']['stages'];
    const carried = { ...system, train: { ...system.train, stages } };
    const feed = value(tapWater(system.source, system.instruments)).water;
    const tracking = trackResin(carried, [], value(standing(carried, [], feed, NOW)).report.solved, NOW)!;
    expect(tracking.anionEq).toBeGreaterThan(0.3);
    expect([tracking.points.length, tracking.rateFrom]).toEqual([0, 'design']);
  });
});

describe('a cartridge with a bypass, by its litres', () => {
  const file = readDocument(readFileSync(new URL('../../demo/quonsle-espresso.yesclear.json', import.meta.url), 'utf8'));
  if (!file.ok) throw new Error(file.error.message);
  const { system: bar, readings: log } = file.records[0]!;
  const feed = value(tapWater(bar.source, bar.instruments)).water;
  const found = (now: string) => {
    const today = value(standing(bar, log, feed, now));
    return logFindings(bar, log, today.report.solved, null, now, null, today).find((finding) => finding.id === 'cartridge-decarboniser')!;
  };
  it('46 days at 60 L a day are some 2,760 L of what its meter is set to', () => {
    const { title, severity } = found(NOW);
    expect(severity).toBe('good');
    expect(title.replaceAll('\u202f', '')).toMatch(/^Cartridge has had 2[678]\d\dL of 5\d\d0L$/);
  });
  it('weeks later it is due, and says so', () => expect(found('2027-03-01T10:00:00Z')).toMatchObject({ severity: 'bad' }));
});
