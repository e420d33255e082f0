import { currentSample, readDocument, withSample, type SystemRecord } from '@yes-clear/core/file';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { roundOf } from './round';

const NOW = '2026-11-23T10:00:00Z';
function demo(name: string): SystemRecord {
  const outcome = readDocument(readFileSync(new URL(`../../../demo/${name}.yesclear.json`, import.meta.url), 'utf8'));
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.records[0]!;
}
const coral = demo('tressimoor-coral-nursery');

describe('a round', () => {
  it('shows what is left, what is held back, and the sentence that matters most', () => {
    const round = roundOf(coral, NOW);
    // Of the row of two: the first bed is more than half used.
    expect(round.resinLeft).toBeGreaterThan(0.55);
    expect(round.resinLeft).toBeLessThan(0.8);
    expect(round.saltRemoved).toBeCloseTo(1 - 7 / 299, 3);
    // Nothing is due within the month.
    expect(round.urgency).toBe('fine');
    const later = roundOf(coral, '2026-12-28T10:00:00Z');
    expect(later.urgency).toBe('month');
    expect(later.finding!.title).toMatch(/^Have resin in stock by \d+ January 2027$/);
  });
  it('lists what falls due with its date: resin by its forecast, filters by six months', () => {
    const { due } = roundOf(demo('veldrastix-van-tank'), NOW);
    const filter = due.find((item) => item.says.includes('pre-filter'))!;
    expect(filter.at.slice(0, 10)).toBe('2026-12-08');
    expect(due.some((item) => item.says.includes('have resin ready'))).toBe(true);
  });
  it.each(readdirSync(new URL('../../../demo/', import.meta.url)))(
    '%s: every date of the demonstration is a date, none a century away',
    (file) => {
      const { due, finding } = roundOf(demo(file.replace('.yesclear.json', '')), NOW);
      expect(finding).not.toBeNull();
      for (const { at } of due) expect(Math.abs(Date.parse(at) - Date.parse(NOW))).toBeLessThan(3650 * 86_400_000);
    },
  );
  it('a counter: its cartridge by litres, its salt every two months', () => {
    const says = roundOf(demo('frambleth-counter'), NOW).due.map((item) => item.says);
    expect(says).toContain('Coffee and ice counter: salt of softener');
    expect(says).toContain('Coffee and ice counter: change espresso cartridge');
    const bar = roundOf(demo('quonsle-espresso'), NOW).due.find((item) => item.says.includes('cartridge'))!;
    // 46 days gone of some 2.8 months.
    expect(bar.at.slice(0, 7)).toMatch(/2026-12|2027-01/);
  });
  it('a system without readings is judged by its train', () => {
    const round = roundOf({ ...coral, readings: [] }, NOW);
    expect(round.finding?.id).toBe('scale');
    // Its resin by the day it was fitted and the planned use.
    expect(round.resinLeft).toBeCloseTo(0.63, 1);
    expect(round.saltRemoved).toBeGreaterThan(0.97);
  });
  it('a product above the goal asks for action now', () => {
    const last = coral.readings.at(-1)!;
    const spoiled = {
      ...last,
      id: 'x',
      at: '2026-11-23T09:00:00Z',
      values: last.values.map((value, i) => (i === 2 ? { ...value, shown: 9 } : value)),
    };
    const round = roundOf({ ...coral, readings: [...coral.readings, spoiled] }, NOW);
    expect(round.urgency).toBe('now');
    expect(round.finding!.title).toContain('Product reads');
  });
  it('a water that contradicts itself stands under act now, with the reason and no NaN', () => {
    const { system } = coral;
    const wrong = { ...system, source: withSample(system.source, { kit: { ...currentSample(system.source).kit, hardnessMgL: 900 } }) };
    const round = roundOf({ system: wrong, readings: coral.readings }, NOW);
    expect([round.urgency, round.picture]).toEqual(['now', null]);
    expect(round.finding!.why).toContain('Hardness 900');
    expect(JSON.stringify(round)).not.toContain('NaN');
  });
});
