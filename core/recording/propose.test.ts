import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { proposedPairs } from './propose';

/** Names as gateways and boards write them (common practice). */
const system = systemFromTemplate({ id: 's', name: 'S', site: 'S', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const proposed = (...meters: (readonly [name: string, unit: string, title?: string])[]): Record<string, string> =>
  Object.fromEntries(
    [
      ...proposedPairs(
        system,
        meters.map(([name, unit, title = '']) => ({ name, unit, title })),
      ),
    ].map(([name, { reads, probeId }]) => [name, probeId ?? reads]),
  );

describe('a pairing by name and unit', () => {
  it('finds probes and figures of a usual rig', () => {
    expect(
      proposed(
        ['rig:tap', 'S/m'],
        ['rig:afterMembrane', 'S/m'],
        ['rig:di_out', 'uS/cm'],
        ['rig:temperature', 'Cel'],
        ['rig:inlet', 'Pa'],
        ['rig:product', 'm3/s'],
        ['rig:waste', 'm3/s'],
        ['rig:total', 'm3'],
      ),
    ).toEqual({
      'rig:tap': 'probe-tap',
      'rig:afterMembrane': 'probe-membrane',
      'rig:di_out': 'probe-resin',
      'rig:temperature': 'temperature',
      'rig:inlet': 'pressure',
      'rig:product': 'product',
      'rig:waste': 'waste',
      'rig:total': 'meter',
    });
  });
  it('proposes nothing where two fit alike, and nothing of another unit', () => {
    expect(proposed(['a:ec', 'S/m'], ['b:ec', 'S/m'])).toEqual({});
    expect(proposed(['one:temperature', 'Cel'], ['two:temperature', 'Cel'])).toEqual({});
    expect(proposed(['rig:tap', 'lux'])).toEqual({});
  });
  it('tells two flows apart by their titles, and takes a lone one for the product’s', () => {
    expect(proposed(['b:product', 'm3/s', 'Product flow'], ['b:waste', 'm3/s', 'Waste flow'])).toEqual({
      'b:product': 'product',
      'b:waste': 'waste',
    });
    expect(proposed(['b:flow', 'l/s'])).toEqual({ 'b:flow': 'product' });
    expect(proposed(['a:flow', 'l/s'], ['b:flow', 'l/s'])).toEqual({});
  });
  it('reads titles too', () => {
    expect(proposed(['x1', 'S/m', 'Tap, in-line meter'])).toEqual({ x1: 'probe-tap' });
  });
});
