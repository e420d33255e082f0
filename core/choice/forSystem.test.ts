import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gatherFacts } from '../advice';
import { systemSchema, type System } from '../file';
import { runToEnd } from '../numeric';
import { DAYS_PER_YEAR } from '../quantity';
import { expectWithin } from '../testing/close';
import { DEMO_FILES, readDemo } from '../testing/demo';
import { tapWater } from '../train';
import { boundedFront, paretoFront } from './front';
import { cheapestByRoute, shortList } from './sensitivity';
import type { Route } from './spaces';
import {
  benchOf,
  candidate,
  candidates,
  changeText,
  choose,
  joined,
  lookAt,
  rejectionText,
  RULES,
  rowBy,
  RULE_WORDS,
  searchOf,
  shownOf,
  siftOptions,
  trainBy,
  whyNotThis,
  type Bench,
  type Figures,
  type OptionsSifted,
} from '.';

const must = <T>(outcome: { ok: true; value: T } | { ok: false; error: { message: string } }): T => {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
};
const searched = (system: System): { bench: Bench; sifted: OptionsSifted } => {
  const bench = must(benchOf(system));
  return { bench, sifted: searchOf(bench) };
};
/** Within a hundredth: what a quick look may err against the whole solve. */
const close = (quick: number, full: number): void =>
  expect(Math.abs(quick - full), `${quick} for ${full}`).toBeLessThanOrEqual(0.01 * Math.abs(full));

/** The demonstration's systems, narrowed where a whole search would take long. */
const SYSTEMS = DEMO_FILES.map((name) => {
  const { system } = readDemo(name);
  const kept =
    name === 'orbindle-lab-skid'
      ? [
          { axis: 'array', values: ['1:1', '2:2', '3:2'] },
          { axis: 'recovery', values: [0.5, 0.6] },
          { axis: 'uv', values: [true] },
        ]
      : name === 'veldrastix-van-tank'
        ? [
            { axis: 'recovery', values: [0.5, 0.7] },
            { axis: 'number', values: [1, 'one', 'twoInParallel'] },
          ]
        : [];
  return { name, system: { ...system, choice: { ...system.choice, kept } } };
});

describe.each(SYSTEMS)('$name', ({ system }) => {
  const { bench, sifted } = searched(system);
  const shown = shownOf(bench, sifted);

  it('finds trains that would do, and every other one broke a rule', () => {
    const pruned = Object.values(sifted.pruned).reduce((sum, one) => sum + one.count, 0);
    expect(sifted.found.length + pruned).toBe(sifted.tried);
    expect(sifted.found.length).toBeGreaterThan(0);
    expect(shown.rows.some(({ role }) => role === 'today')).toBe(true);
    expect(shown.rows.some(({ role }) => role === 'recommended')).toBe(true);
  });
  it('lays the same ahead for all that share a head, and the same behind for all that share a tail', () => {
    const [heads, tails] = [new Map<string, string>(), new Map<string, string>()];
    for (const one of candidates(bench.spaces)) {
      const { head, tail, target } = one.space.lay(one.choice);
      const [ahead, behind] = [JSON.stringify([head, target]), JSON.stringify(tail)];
      if ((heads.get(one.headKey) ?? ahead) !== ahead || (tails.get(one.tailKey) ?? behind) !== behind) expect.fail(one.id);
      heads.set(one.headKey, ahead);
      tails.set(one.tailKey, behind);
    }
    expect(heads.size).toBeGreaterThan(0);
  });
  it('recommends one of the front within the band of the cheapest', () => {
    const { recommendation, front } = shown.chosen;
    const best = sifted.found.find(({ id }) => id === recommendation!.id)!;
    const least = Math.min(...sifted.found.map(({ annualCost }) => annualCost));
    expect(best.annualCost).toBeLessThanOrEqual(1.05 * least);
    expect(front.length).toBeGreaterThan(0);
    expect(choose([...sifted.found].reverse()).recommendation?.id).toBe(recommendation!.id);
  });
  it('costs a year what its lines come to, and feed is product and waste', () => {
    for (const { figures } of shown.rows) {
      const sum = Object.values(figures.lines).reduce((total, amount) => total + amount, 0);
      expect(sum).toBeCloseTo(figures.annualCost, 6);
      expect(figures.feedL - figures.wasteL).toBeCloseTo(bench.need.litresPerYear, 3);
    }
  });
  it('is kept by the file, with the probes of today’s train, near the ratio it was judged at', () => {
    const { id } = shown.chosen.recommendation!;
    const one = candidate(bench.spaces, id)!;
    const { target } = one.space.lay(one.choice);
    const train = must(trainBy(id, system));
    expect(systemSchema.safeParse({ ...system, train }).error).toBeUndefined();
    expect(train.probes.map((probe) => probe.id)).toEqual(system.train.probes.map((probe) => probe.id));
    for (const { after } of train.probes)
      expect(
        after === 'tap' || [...train.stages, ...train.branches.flatMap(({ stages }) => stages)].some((stage) => stage.id === after),
      ).toBe(true);
    const { unit } = lookAt(one, bench).on('mean', 'new')!;
    if (target) close(unit!.wasteToProduct!, target.wasteToProduct);
  });
  it('is built as it was judged: what the workbench says of the train is what the search said of the option', () => {
    const tap = must(tapWater(system.source, system.instruments));
    // Most of its options that would do, a few of them solved whole.
    const step = Math.max(1, Math.floor(sifted.found.length / 4));
    const asked = new Set([shown.chosen.recommendation!.id, ...sifted.found.filter((_, i) => i % step === 0).map(({ id }) => id)]);
    for (const id of asked) {
      const quick = sifted.found.find((one) => one.id === id)!;
      const { figures } = rowBy(id, 'asked', system)!;
      close(quick.annualCost, figures.annualCost);
      close(quick.wasteL, figures.wasteL);
      close(quick.winterMargin, figures.winterMargin);
      // Resin near the plateau of its weak acids ends by one front or by the next: its visits go with that.
      expectWithin(quick.visitsPerYear, figures.visitsPerYear, 0.015);
      const train = must(trainBy(id, system));
      const facts = must(gatherFacts({ ...system, train }, tap.water, {}, undefined, tap));
      const { running } = facts.ledger;
      // An option is costed with its membrane half way through its years, the workbench with a new one.
      const aged = figures.annualCost - (figures.lines.capital ?? 0) - (figures.lines.visits ?? 0);
      expect(Math.abs(running / aged - 1), id).toBeLessThan(train.stages.some(({ kind }) => kind === 'membrane') ? 0.25 : 0.01);
      expect(facts.ledger.feedL - facts.ledger.wasteL).toBeCloseTo(facts.demandLPerDay * DAYS_PER_YEAR, 3);
    }
  });
  it('says of any of its trains why not', () => {
    let asked = 0;
    for (const { id } of candidates(bench.spaces)) {
      asked += 1;
      if (asked % 401 !== 1) continue;
      const why = whyNotThis(id, system, sifted)!;
      if (why.kind !== 'pruned') continue;
      expect(rejectionText(why.rejection, system.units, 'EUR')).toMatch(/\d|drain|power|tank/);
      expect(changeText(why.rejection, system.units, 'EUR')).toMatch(/\.$/);
    }
    expect(whyNotThis(shown.chosen.recommendation!.id, system, sifted)).toEqual({ kind: 'recommended' });
    expect(whyNotThis('membrane:99.0', system, sifted)).toBeNull();
  });
});

describe('what the site allows', () => {
  const { system } = readDemo('tressimoor-coral-nursery');
  const narrow = { ...system.choice, kept: [{ axis: 'element', values: ['household50', 'household75'] }] };
  const on = (choice: Partial<System['choice']>): OptionsSifted => searched({ ...system, choice: { ...narrow, ...choice } }).sifted;
  const plain = on({});

  it('a narrow wall, no power, no drain, little to spend, few visits: each prunes by its own rule', () => {
    expect(on({ wallMm: 440 }).pruned.wall!.count).toBeGreaterThan(0);
    expect(on({ power: false }).pruned.site!.nearest.rejection.field).toBe('power');
    const dry = on({ drain: false });
    expect(dry.found.every(({ route }) => route === 'resin')).toBe(true);
    const poor = on({ capital: 350 });
    expect(poor.pruned.capital!.count).toBeGreaterThan(0);
    expect(poor.found.every(({ capital }) => capital <= 350)).toBe(true);
    expect(on({ visitsPerYear: 8 }).found.every(({ visitsPerYear }) => visitsPerYear <= 8)).toBe(true);
    expect(plain.found.length).toBeGreaterThan(poor.found.length);
  });
  it('where nothing would do, says by each rule the smallest change that lets one through, and that change does', () => {
    const asked = { ...system, choice: { ...narrow, visitsPerYear: 3 } };
    const { bench, sifted } = searched(asked);
    expect(sifted.found).toHaveLength(0);
    const shown = shownOf(bench, sifted);
    expect(shown.chosen.recommendation).toBeNull();
    const visits = shown.smallest.find(({ rejection }) => rejection.rule === 'visits')!;
    expect(visits.rejection.value).toBeGreaterThan(3);
    expect(on({ visitsPerYear: visits.rejection.value }).found.length).toBeGreaterThan(0);
    expect(on({ visitsPerYear: visits.rejection.value - 0.05 }).found).toHaveLength(0);
  });
  it('refuses what cannot be, naming it (O56)', () => {
    const refused = (changes: Partial<System>): string => {
      const outcome = benchOf({ ...system, ...changes });
      return outcome.ok ? 'accepted' : outcome.error.field;
    };
    expect(refused({ choice: { ...system.choice, horizonYears: 0 } })).toBe('horizonYears');
    expect(refused({ choice: { ...system.choice, rate: 0.5 } })).toBe('discountRate');
    expect(refused({ prices: { ...system.prices, resinPerL: -1 } })).toBe('prices.resinPerL');
    expect(refused({ choice: { ...system.choice, prices: [{ part: 'household75', each: -1 }] } })).toBe('prices.household75');
    const idle = { ...system.goal, demand: { ...system.goal.demand, dayL: [0, 0, 0, 0, 0, 0, 0], batches: [] } };
    expect(refused({ goal: idle })).toBe('demand');
  });
  it('a dearer part moves what is built of it, and a typed price stands in place of the placeholder', () => {
    const dear = searched({ ...system, choice: { ...narrow, prices: [{ part: 'household50', each: 500 }] } }).sifted;
    const { spaces } = must(benchOf({ ...system, choice: narrow }));
    const best = candidate(spaces, choose(dear.found).recommendation!.id)!;
    expect(best.choice['element']).toBe('household75');
  });
});

describe('a bought set', () => {
  it('is held against what is built by its own figures: price, energy a litre, parts', () => {
    const { system } = readDemo('wibberjack-watermaker');
    const set = {
      id: 'set',
      name: 'Set with recovery',
      price: 9000,
      partsPerYear: 300,
      visitsPerYear: 1,
      kWhPerM3: 3.5,
      productLPerH: 60,
      wasteToProduct: 9,
      commonSpares: false,
      support: true,
    };
    const row = rowBy('set', 'bought', { ...system, choice: { ...system.choice, bought: [set] } })!;
    const litres = 150 * 365.25;
    expect(row.figures.capital).toBe(9000);
    expect(row.figures.lines.capital).toBeCloseTo(1500, 6);
    expect(row.figures.lines.energy).toBeCloseTo((litres / 1000) * 3.5 * system.prices.powerPerKWh, 6);
    expect(row.detail).toContain('spares of its maker only');
  });
});

describe('the bound prune', () => {
  it('O55: the front is the same with it and without, on random points of two, three and five objectives', () => {
    for (const size of [2, 3, 5])
      fc.assert(
        fc.property(
          fc.array(fc.array(fc.tuple(fc.nat(20), fc.nat(6)), { minLength: size, maxLength: size }), { minLength: 1, maxLength: 300 }),
          (rows) => {
            const points = rows.map((row) => row.map(([value]) => value));
            const bounds = rows.map((row) => row.map(([value, less]) => value - less));
            const { front, asked } = boundedFront(bounds, (place) => points[place]!);
            expect(front).toEqual(paretoFront(points));
            expect(asked).toBeLessThanOrEqual(points.length);
          },
        ),
        { numRuns: 60 },
      );
  });
  it('the cheapest of each route is on the short list', () => {
    const { system } = readDemo('tressimoor-coral-nursery');
    const { bench, sifted } = searched(system);
    const judged = sifted.found.map(({ id, route, annualCost }) => ({
      one: candidate(bench.spaces, id)!,
      route: route as Route,
      figures: { annualCost } as Figures,
    }));
    const found = cheapestByRoute(shortList(judged), bench, lookAt);
    for (const route of new Set(sifted.found.map((one) => one.route)))
      expect(found.get(route as Route)).toBe(
        Math.min(...sifted.found.filter((one) => one.route === route).map(({ annualCost }) => annualCost)),
      );
  });
});

describe('words', () => {
  it('every rule has a name, and says its figure and its limit', () => {
    const { system } = readDemo('tressimoor-coral-nursery');
    for (const rule of RULES) {
      expect(RULE_WORDS[rule].length).toBeGreaterThan(8);
      const text = rejectionText({ rule, field: rule === 'quality' ? 'hardnessMgL' : 'drain', value: 7, limit: 3 }, system.units, 'EUR');
      expect(text.endsWith('.')).toBe(true);
      expect(text).not.toMatch(/NaN|undefined/);
    }
    expect(rejectionText({ rule: 'visits', field: 'visitsPerYear', value: 9.14, limit: 5 }, system.units, 'EUR')).toBe(
      'It takes 9.1 visits a year; at most 5 are allowed.',
    );
  });
  it('parts joined in any order are one search', () => {
    const { system } = readDemo('quonsle-espresso');
    const { bench, sifted } = searched(system);
    const parts = [2, 0, 1].map((part) => runToEnd(siftOptions(bench, part, 3)));
    expect(joined(parts, bench.spaces)).toEqual(joined([sifted], bench.spaces));
  });
});
