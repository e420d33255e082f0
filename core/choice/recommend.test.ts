import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { enumerateOptions, JOB_AXES, spaceSize, valueOf } from './axes';
import { recommend, whyNot, type Weighed } from './recommend';

const option = (id: string, annualCost: number, advisories = 0, visitsPerYear = 6, winterMargin = 2): Weighed => ({
  id,
  annualCost,
  advisories,
  visitsPerYear,
  winterMargin,
});

describe('the space of options', () => {
  // Of a cartridge the chapter counts one size twice: here they are four, by their resin.
  it('is as large as the chapter prints (O10)', () => {
    expect(Object.fromEntries(Object.entries(JOB_AXES).map(([job, axes]) => [job, spaceSize(axes)]))).toEqual({
      marine: 10_368,
      breeder: 5_184,
      resinAlone: 36,
      window: 20_736,
      espresso: 72,
      counter: 2_700,
      laboratory: 31_104,
      watermaker: 1_152,
    });
  });
  it('every option comes once, by an id that stays', () => {
    const ids = [...enumerateOptions(JOB_AXES.watermaker)].map(({ id }) => id);
    expect(ids).toHaveLength(1152);
    expect(new Set(ids).size).toBe(1152);
    expect([ids[0], ids[1], ids.at(-1)]).toEqual(['0.0.0.0.0.0.0', '0.0.0.0.0.0.1', '1.3.2.3.1.2.1']);
    const last = [...enumerateOptions(JOB_AXES.watermaker)].at(-1)!;
    expect(valueOf(JOB_AXES.watermaker, last, 'pressureBar')).toBe(60);
    expect(valueOf(JOB_AXES.watermaker, last, 'colour')).toBeUndefined();
    expect([...enumerateOptions([{ id: 'none', values: [] }])]).toEqual([]);
  });
});

describe('the one to take', () => {
  it('a saving within the band never buys a fragile train', () => {
    // The figures of the chapter's household case (O41): two elements with a booster against one without.
    const found = recommend([
      option('cheap', 450.85, 1, 7.58, 1.8),
      option('sturdy', 467.28, 0, 5.85, 4.13),
      option('dear', 520, 0, 2, 5),
    ])!;
    expect(found).toMatchObject({ id: 'sturdy', cheapest: 'cheap', by: 'advisories', tied: ['cheap', 'sturdy'] });
    expect(found.moreAYear).toBeCloseTo(16.43, 2);
  });
  it('of alike, the one with fewer visits, then more margin, then less cost; margin beyond three is none', () => {
    expect(recommend([option('a', 100, 0, 6.04), option('b', 103, 0, 5.5)])!).toMatchObject({ id: 'b', by: 'visits' });
    expect(recommend([option('a', 100, 0, 6.04, 1.5), option('b', 103, 0, 6.01, 2.5)])!).toMatchObject({ id: 'b', by: 'margin' });
    expect(recommend([option('a', 100, 0, 6, 3.2), option('b', 103, 0, 6, 4.8)])!).toMatchObject({ id: 'a', by: 'cost', moreAYear: 3 });
    expect(recommend([])).toBeNull();
  });
  it('does not depend on the order in which they come', () => {
    const one = fc.record({
      annualCost: fc.integer({ min: 90, max: 110 }),
      advisories: fc.integer({ min: 0, max: 2 }),
      visits: fc.integer({ min: 1, max: 4 }),
      margin: fc.integer({ min: 0, max: 5 }),
    });
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 12 }), fc.integer({ min: 0, max: 11 }), (list, turn) => {
        const options = list.map(({ annualCost, advisories, visits, margin }, i) =>
          option(`o${i}`, annualCost, advisories, visits, margin),
        );
        const k = turn % options.length;
        const found = recommend(options)!;
        expect(recommend([...options.slice(k), ...options.slice(0, k)].toReversed())).toEqual(found);
        const chosen = options.find(({ id }) => id === found.id)!;
        expect(chosen.annualCost).toBeLessThanOrEqual(1.05 * Math.min(...options.map(({ annualCost }) => annualCost)) + 1e-9);
      }),
    );
  });
  it('and why not another: beaten in everything, dearer, or second', () => {
    const options = [
      option('best', 100, 0, 4, 2),
      option('beaten', 120, 0, 6, 1),
      option('dearer', 130, 0, 3, 2),
      option('second', 102, 1, 3.9, 2),
    ];
    const vectors = options.map(({ annualCost, visitsPerYear, winterMargin }) => [annualCost, 10 * visitsPerYear, -winterMargin]);
    expect(whyNot(options, vectors, 'beaten')).toEqual({ kind: 'dominated', by: 'best', differences: [20, 20, 1] });
    expect(whyNot(options, vectors, 'dearer')).toEqual({ kind: 'dearer', aYear: 30 });
    expect(whyNot(options, vectors, 'second')).toEqual({ kind: 'second', by: 'advisories' });
    expect(whyNot(options, vectors, 'best')).toEqual({ kind: 'recommended' });
    expect(whyNot(options, vectors, 'nobody')).toBeNull();
  });
});
