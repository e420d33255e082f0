import { describe, expect, it } from 'vitest';
import { BAR_PER_PSI, DAYS_PER_YEAR } from '../quantity';
import {
  askingOf,
  judgePlan,
  onStrongerTap,
  saltPhysics,
  SITE,
  siftAll,
  siftPart,
  spacesOf,
  TAP,
  tapLoads,
  USUAL_PRICES,
  windowCleaner,
  windowCleanerSpaces,
  type ChapterSifted,
  type Figures,
  type Judged,
  type Judging,
  type Physics,
  type Priced,
  type Space,
} from '../testing/chapterOptions';
import { breakEvenVolume, candidate, candidateCount, choose, joined, turningsOf, vectorOf, whyNot } from '.';

/** Reference scenarios of the science of options (section 11), worked out there by an independent program: O40 to O54. */

const sifted = siftAll;
const counts = ({ pruned }: ChapterSifted): Record<string, number> =>
  Object.fromEntries(Object.entries(pruned).map(([rule, { count }]) => [rule, count]));
const judgedOf = (spaces: readonly Space[], judging: Judging, wanted: Record<string, unknown>): Judged => {
  for (const space of spaces)
    for (let i = 0, ids = idsOf(space); i < ids.length; i++) {
      const one = candidate(spaces, ids[i]!)!;
      if (Object.entries(wanted).every(([axis, value]) => one.choice[axis] === value)) return judgePlan(space.planOf(one.choice), judging);
    }
  throw new Error(`no option with ${JSON.stringify(wanted)}`);
};
const idsOf = ({ id, axes }: Space): string[] =>
  axes.reduce<string[]>(
    (ids, { values }) => ids.flatMap((head) => values.map((_, k) => (head === '' ? `${id}:${k}` : `${head}.${k}`))),
    [''],
  );
const figures = (judged: Judged): Figures => {
  if (!judged.admissible) throw new Error(judged.rejection.rule);
  return judged.figures;
};
const rule = (judged: Judged): string => (judged.admissible ? 'none' : judged.rejection.rule);
/** Within a share of what is expected. */
const near = (value: number, expected: number, share: number): void =>
  expect(Math.abs(value / expected - 1), `${value} for ${expected}`).toBeLessThan(share);

const AGEING = { water: 0.12, salt: 0.2, mostYears: 3 };
describe('scenario A: pure water at home', () => {
  const meqL = 3.6501;
  const judging: Judging = {
    water: { ...TAP, ppm: 180, ...tapLoads(meqL) },
    need: { litresPerYear: (30 + 100 / 7) * DAYS_PER_YEAR, litresPerDay: 30 + 100 / 7, largestDrawL: 100, hoursPerDay: 24 },
    goal: { ppm: 1, wantsResin: true, broughtTo: null },
    site: { ...SITE, wallMm: 550, leastWaste: 3, leastBar: 45 * BAR_PER_PSI },
    prices: USUAL_PRICES,
    ageing: AGEING,
    horizonYears: 6,
    rate: 0,
    rules: ['wall', 'tank', 'reach', 'ratio', 'pressure', 'production', 'carbon', 'crossflow', 'resinLife'],
    crossFlowOn: 'old',
    mostChanges: 26,
    asked: askingOf(saltPhysics({ ppm: 180, meqL, linePressureBar: 50 * BAR_PER_PSI - 0.2 }), { mean: 12, amplitude: 6 }, AGEING),
  };
  const spaces = spacesOf(
    'marine',
    { carbonMgL: 0.5, bypass: 0 },
    {
      element: ['household50', 'household75', 'household100', 'household150'],
      number: ['one', 'twoInSeries'],
      wasteToProduct: [2, 3, 4],
      carbon: ['one', 'two'],
      resin: ['none', '0.6', '1.2', '2x1.2'],
      tankL: [60, 120, 200],
    },
  );
  const all = sifted(spaces, judging);
  const chosen = choose(all.found);

  it('O40: so many are tried, and so many pruned by each rule', () => {
    expect(candidateCount(spaces)).toBe(1164);
    expect(all.tried).toBe(1164);
    expect(counts(all)).toEqual({ tank: 388, reach: 192, ratio: 192, carbon: 48, crossflow: 24, resinLife: 4 });
    expect(all.found).toHaveLength(316);
  });
  it('O41: front, cheapest, recommended, and the knee', () => {
    expect(Math.abs(chosen.front.length - 12)).toBeLessThanOrEqual(1);
    const { id, cheapest, by, moreAYear } = chosen.recommendation!;
    expect(candidate(spaces, cheapest)!.choice).toMatchObject({
      element: 'household75',
      number: 'one',
      booster: false,
      wasteToProduct: 3,
      resin: '2x1.2',
      tankL: 120,
    });
    expect(candidate(spaces, id)!.choice).toMatchObject({
      element: 'household50',
      number: 'twoInSeries',
      booster: true,
      wasteToProduct: 3,
      resin: '2x1.2',
      tankL: 120,
    });
    expect(by).toBe('advisories');
    const [first, best] = [all.found.find((one) => one.id === cheapest)!, all.found.find((one) => one.id === id)!];
    near(first.annualCost, 450.85, 0.01);
    near(first.visitsPerYear, 7.58, 0.01);
    near(first.winterMargin, 1.8, 0.02);
    expect(first.advisories).toBe(1);
    near(best.annualCost, 467.28, 0.01);
    near(best.visitsPerYear, 5.85, 0.01);
    near(best.winterMargin, 4.13, 0.02);
    expect(best.advisories).toBe(0);
    near(moreAYear, 467.28 - 450.85, 0.02);
    expect(candidate(spaces, all.found[chosen.nearestToIdeal!.point]!.id)!.choice).toMatchObject({
      element: 'household50',
      number: 'twoInSeries',
      booster: true,
      resin: '1.2',
    });
  });
  it('O42: what the recommended one comes to, by line', () => {
    const one = candidate(spaces, chosen.recommendation!.id)!;
    const year = figures(judgePlan(one.space.planOf(one.choice), judging));
    expect(year.capital).toBe(416);
    near(year.ppm / 180, 0.02105, 0.015);
    near(year.hours, 1441, 0.015);
    near(year.lines.resin!, 42.1, 0.015);
    near(year.lines.water!, 129.4, 0.015);
    near(year.lines.sewer!, 97.1, 0.015);
    near(year.lines.energy!, 10.8, 0.015);
    near(year.wasteL, 48_526, 0.015);
    expect(Object.values(year.lines).reduce((sum, amount) => sum + amount, 0)).toBeCloseTo(year.annualCost, 9);
  });
  it('O43: why not each of these', () => {
    const base = {
      element: 'household50',
      number: 'twoInSeries',
      booster: true,
      wasteToProduct: 3,
      carbon: 'one',
      resin: '2x1.2',
      tankL: 120,
    };
    expect(rule(judgedOf(spaces, judging, { ...base, tankL: 60 }))).toBe('tank');
    expect(rule(judgedOf(spaces, judging, { ...base, wasteToProduct: 2 }))).toBe('ratio');
    expect(rule(judgedOf(spaces, judging, { ...base, resin: 'none' }))).toBe('reach');
    expect(rule(judgedOf(spaces, judging, { ...base, element: 'household150', wasteToProduct: 4 }))).toBe('carbon');
    expect(rule(judgedOf(spaces, judging, { ...base, number: 'one', booster: false }))).toBe('crossflow');
    expect(rule(judgedOf(spaces, judging, { vesselL: '1.2', tankL: 120 }))).toBe('resinLife');
  });
  it('O44: resin alone', () => {
    near(figures(judgedOf(spaces, judging, { vesselL: '11', tankL: 120 })).annualCost, 1028, 0.005);
    near(figures(judgedOf(spaces, judging, { vesselL: '7', tankL: 120 })).annualCost, 1091.3, 0.005);
  });
  it('says why not another one that would do: beaten, dearer, or second by a criterion', () => {
    const vectors = all.found.map(vectorOf);
    const ofId = (id: string) => whyNot(all.found, vectors, id);
    expect(ofId(chosen.recommendation!.id)).toEqual({ kind: 'recommended' });
    expect(ofId(chosen.recommendation!.cheapest)).toEqual({ kind: 'second', by: 'advisories' });
    const elevenLitres = all.found.find(({ route, annualCost }) => route === 'resin' && annualCost < 1030)!;
    expect(ofId(elevenLitres.id)).toMatchObject({ kind: 'dearer' });
  });
  it('is the same on two workers as on one, and whatever way options come', () => {
    const parts = [1, 0].map((part) => siftPart(spaces, judging, part, 2));
    const together = [0, 1, 2].map((part) => siftPart(spaces, judging, part, 3));
    const plain = { tried: all.tried, found: all.found };
    // Joined in whatever order, they are the whole search.
    for (const some of [parts, together]) {
      const whole = joined(some, spaces);
      expect({ tried: whole.tried, found: whole.found }).toEqual(plain);
      expect(counts(whole)).toEqual(counts(all));
    }
  });
});

describe('scenario B: a window cleaner', () => {
  const at = windowCleaner;
  const spaces = windowCleanerSpaces();
  const all = sifted(spaces, at(2500));
  const chosen = choose(all.found);
  const bestOf = (judging: Judging, resinAlone: boolean): number =>
    Math.min(
      Infinity,
      ...sifted(spaces, judging)
        .found.filter(({ route }) => (route === 'resin') === resinAlone)
        .map(({ annualCost }) => annualCost),
    );
  const ahead = (judging: Judging): number => bestOf(judging, true) - bestOf(judging, false);

  it('O45: tried, pruned, left, and the front', () => {
    expect(all.tried).toBe(437);
    const expected: Record<string, number> = { tank: 288, production: 44, crossflow: 40, quality: 15, resinLife: 3 };
    for (const [id, count] of Object.entries(expected)) expect(Math.abs((counts(all)[id] ?? 0) - count), id).toBeLessThanOrEqual(4);
    expect(Math.abs(all.found.length - 47)).toBeLessThanOrEqual(4);
    expect(Math.abs(chosen.front.length - 7)).toBeLessThanOrEqual(4);
  });
  it('O46: the recommended one is the cheapest', () => {
    const { id, cheapest } = chosen.recommendation!;
    expect(id).toBe(cheapest);
    const one = candidate(spaces, id)!;
    expect(one.choice).toMatchObject({ element: 'in4Lowest', number: 1, pump: 'cart', recovery: 0.6, resin: '11', tankL: 650 });
    const year = figures(judgePlan(one.space.planOf(one.choice), at(2500)));
    near(year.annualCost, 1505.7, 0.015);
    expect(year.capital).toBe(1354);
    near(year.ppm, 3.2, 0.015);
    near(year.visitsPerYear, 5.4, 0.015);
    near(year.hours, 564, 0.015);
  });
  it('O47: resin alone, common practice: heavy users want a membrane', () => {
    const one = figures(judgedOf(spaces, at(2500), { vesselL: '25' }));
    const two = figures(judgedOf(spaces, at(2500), { vesselL: '2x25' }));
    near(one.annualCost, 5616, 0.005);
    near(two.annualCost, 5124, 0.005);
    near(one.changesPerYear, 33.2, 0.005);
    near(two.changesPerYear, 29.8, 0.005);
  });
  it('O48: litres a week, strength, horizon and resin price at which the answer turns', () => {
    const turn = (of: (x: number) => Judging, x0: number): number => {
      const { below, above } = turningsOf((x) => ahead(of(x)), x0, { low: x0 / 5, high: 5 * x0, scale: 'geometric' });
      const found = below !== 'none' ? below : above;
      return found === 'none' ? NaN : found.at;
    };
    near(
      turn((x) => at(x), 300),
      167.1,
      0.02,
    );
    near(
      turn((x) => at(300, { horizonYears: x }), 6),
      2.13,
      0.02,
    );
    near(
      turn((x) => at(2500, { prices: { ...USUAL_PRICES, resinPerL: x } }), 3),
      0.733,
      0.02,
    );
    const stronger = (ppm: number): Judging => at(300, onStrongerTap(ppm / 140));
    // A membrane part is solved anew for each strength: two are enough to see the turn. The chapter's 90.6 lies 2.6 % off:
    // it lets silica follow the strength, which its own section 7 and this product do not.
    expect(ahead(stronger(90.6 * 0.97))).toBeLessThan(0);
    expect(ahead(stronger(90.6 * 1.01))).toBeGreaterThan(0);
  });
  it('O49: what wins at 100 and at 300 L a week', () => {
    const best = (litres: number) => {
      const { found } = sifted(spaces, at(litres));
      const first = found.reduce((a, b) => (b.annualCost < a.annualCost ? b : a));
      return { cost: first.annualCost, choice: candidate(spaces, first.id)!.choice };
    };
    const little = best(100);
    near(little.cost, 271.1, 0.015);
    expect(little.choice).toMatchObject({ vesselL: '25' });
    const more = best(300);
    near(more.cost, 506.3, 0.015);
    expect(more.choice).toMatchObject({ element: 'in25Low', pump: 'cart', recovery: 0.6, resin: '7', tankL: 250 });
  });
});

describe('scenario C: a counter', () => {
  const [KH, TARGET] = [200, 60];
  const black: Physics = (membrane) => ({
    productLPerH: 100,
    feedLPerH: 100 / membrane.recovery!,
    concentrateLPerH: 1000,
    ppm: 10,
    cationMeqL: 0.1,
    anionMeqL: 0.3,
    gasMeqL: 0.15,
    alkalinityMgL: 0.03 * KH,
  });
  const DAYS = 312;
  const at = (litresPerDay: number, { kh = KH, unit = null as number | null, visit = 60, chloride = 28 } = {}): Judging => ({
    water: { ...TAP, ppm: 330, cationMeqL: 6, anionMeqL: 6, limeIndex: 0.2, chlorideMgL: chloride, hardnessMgL: 260, alkalinityMgL: kh },
    need: { litresPerYear: litresPerDay * DAYS, litresPerDay, largestDrawL: 0, hoursPerDay: 24 },
    goal: { ppm: null, wantsResin: false, broughtTo: { quantity: 'alkalinityMgL', value: TARGET } },
    site: SITE,
    prices: { ...USUAL_PRICES, visit, part: (part: Priced) => (part === 'beverageUnit' && unit !== null ? unit : USUAL_PRICES.part(part)) },
    ageing: AGEING,
    horizonYears: 5,
    rate: 0,
    rules: ['chloride', 'scaling', 'resinLife'],
    crossFlowOn: 'new',
    mostChanges: 12,
    asked: askingOf(black, { mean: 15, amplitude: 0 }, AGEING),
  });
  const lane = (kh: number): number => (TARGET - 0.03 * kh) / (kh - 0.03 * kh);
  const kept = {
    softener: ['none', 'large'],
    unit: ['small'],
    recovery: [0.5],
    iceFilter: [false],
    size: [1, 2, 3, 4],
    prefilter: [false],
  };
  const spacesAt = (kh = KH): Space[] => spacesOf('counter', { carbonMgL: 0, bypass: lane(kh) }, kept);
  const best = (judging: Judging, kh = KH) => {
    const spaces = spacesAt(kh);
    const { found } = sifted(spaces, judging);
    const of = (route: string): number =>
      Math.min(Infinity, ...found.filter((one) => one.route === route).map(({ annualCost }) => annualCost));
    const first = found.reduce((a, b) => (b.annualCost < a.annualCost ? b : a));
    return { cartridge: of('cartridge'), membrane: of('membrane'), first, choice: candidate(spaces, first.id)!.choice };
  };
  const turn = (ahead: (x: number) => number, x0: number): number | 'none' => {
    const { below, above } = turningsOf(ahead, x0, { low: x0 / 5, high: 5 * x0, scale: 'geometric' });
    const found = below !== 'none' ? below : above;
    return found === 'none' ? 'none' : found.at;
  };

  it('O50: bypass, litres, the recommended one and its rival at 20 L a day', () => {
    expect(lane(KH)).toBeCloseTo(0.2784, 4);
    const at20 = best(at(20));
    near(at20.cartridge, 392.55, 0.001);
    near(at20.membrane, 851.98, 0.001);
    near(at20.first.visitsPerYear, 1.293, 0.001);
    expect(at20.choice).toMatchObject({ size: 4 });
    near((at20.first.visitsPerYear ** -1 * 20 * DAYS) / 0.9, 5361.8, 0.001);
  });
  it('O51: at 8, 60 and 400 L a day', () => {
    const [little, more, much] = [best(at(8)), best(at(60)), best(at(400))];
    expect(little.choice).toMatchObject({ size: 3 });
    near(little.first.annualCost, 242.99, 0.002);
    expect(more.choice).toMatchObject({ softener: 'large' });
    near(more.first.annualCost, 927.95, 0.002);
    near(much.first.annualCost, 1573.69, 0.002);
  });
  it('O52: where the answer turns', () => {
    const ahead = (judging: Judging, kh = KH): number => {
      const { cartridge, membrane } = best(judging, kh);
      return membrane - cartridge;
    };
    near(turn((x) => ahead(at(x)), 40) as number, 47.3, 0.003);
    near(turn((x) => ahead(at(40, { unit: x })), 1900) as number, 1285.6, 0.003);
    near(turn((x) => ahead(at(40, { visit: x })), 60) as number, 269.6, 0.003);
    near(turn((x) => ahead(at(40, { kh: x }), x), 200) as number, 224.2, 0.003);
  });
  it('O53: at 20 L a day no price of the unit and no visit turns it', () => {
    const ahead = (judging: Judging): number => best(judging).membrane - best(judging).cartridge;
    expect(turn((x) => ahead(at(20, { unit: x })), 50)).toBe('none');
    expect(ahead(at(20, { unit: 10 }))).toBeGreaterThan(0);
    expect(turn((x) => ahead(at(20, { visit: x })), 1000)).toBe('none');
  });
  it('O54: chloride prunes cartridges, lime a membrane without a softener', () => {
    const { found, pruned } = sifted(spacesAt(), at(20, { chloride: 60 }));
    expect(pruned.chloride!.count).toBe(4);
    expect(pruned.scaling!.count).toBe(1);
    expect(found).toHaveLength(1);
  });
});

describe('break-even by the textbook', () => {
  it('is none where the cheap one to buy is the cheap one to run', () => {
    const cheap = { capital: 100, fixedPerYear: 0, perLitre: 0.01 };
    expect(breakEvenVolume(cheap, { capital: 200, fixedPerYear: 0, perLitre: 0.02 }, 6, 0)).toBe('cheapToBuy');
  });
});
