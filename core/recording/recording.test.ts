import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../template';
import { readingSchema } from '../file/schema';
import { blockEnd, blocksOf, joinedBlock, rolledUp, samplesOf, trace, type Block } from './block';
import { channelOf, type Channel } from './channel';
import { isRecorded, joinedDays, readingOfDay, recordedDays } from './day';
import { packedFigures, unpackedBlock } from './packed';
import { joinedSamples, NO_SAMPLES, ordered, without, type Samples } from './samples';

const T0 = Date.UTC(2026, 0, 10);
const MINUTE = 60_000;
const HOUR = 3_600_000;
const DAY = 86_400_000;
const of = (pairs: readonly (readonly [number, number])[]): Samples =>
  ordered(
    pairs.map(([at]) => at),
    pairs.map(([, value]) => value),
  );
const list = ({ at, value }: Samples): [number, number][] => [...at].map((ms, i) => [ms, value[i]!]);

const anySamples = fc
  .uniqueArray(fc.tuple(fc.integer({ min: 0, max: 90 * 24 * 60 }), fc.double({ min: 0, max: 1000, noNaN: true })), {
    selector: ([minute]) => minute,
    maxLength: 120,
  })
  .map((pairs) => of(pairs.map(([minute, value]) => [T0 + minute * MINUTE, value])));

describe('packed samples', () => {
  it('come in order of time, and of one instant the first stands', () => {
    expect(
      list(
        of([
          [3, 30],
          [1, 10],
          [3, 31],
          [2, 20],
        ]),
      ),
    ).toEqual([
      [1, 10],
      [2, 20],
      [3, 30],
    ]);
  });
  it('go into blocks and come out as they were', () => {
    fc.assert(
      fc.property(anySamples, fc.constantFrom('kept' as const, 'every' as const), (samples, tier) => {
        const blocks = blocksOf(tier, samples);
        for (const block of blocks) expect(block.startMs + block.at.at(-1)!).toBeLessThan(blockEnd(block));
        expect(list(samplesOf([...blocks].reverse()))).toEqual(list(samples));
      }),
    );
  });
  it('of two recordings are joined without a figure lost or counted twice', () => {
    fc.assert(
      fc.property(anySamples, anySamples, (a, b) => {
        const joined = list(joinedSamples(a, b));
        const expected = new Map([...list(b), ...list(a)]);
        expect(joined).toEqual([...expected].sort(([x], [y]) => x - y));
        expect(list(without(b, a)).every(([ms]) => !a.at.includes(ms))).toBe(true);
        expect(list(joinedSamples(a, without(b, a)))).toEqual(joined);
      }),
    );
  });
  it('joined into a block that is there, whatever came first', () => {
    fc.assert(
      fc.property(anySamples, fc.nat(120), (samples, cut) => {
        const [a, b] = [list(samples).filter((_, i) => i % 3 !== cut % 3), list(samples)].map((pairs) => blocksOf('kept', of(pairs)));
        const both = new Map<number, Block>(a!.map((block) => [block.startMs, block]));
        for (const block of b!) both.set(block.startMs, both.has(block.startMs) ? joinedBlock(both.get(block.startMs)!, block) : block);
        expect(list(samplesOf([...both.values()]))).toEqual(list(samples));
      }),
    );
  });
});

describe('coarser tiers', () => {
  it('keep the middle of a minute with its lowest, highest and number', () => {
    const raw = blocksOf(
      'every',
      of([
        [T0, 5],
        [T0 + 10_000, 7],
        [T0 + 20_000, 90],
        [T0 + 61_000, 4],
      ]),
    );
    const [minute] = rolledUp(raw, 'minute', false);
    expect([...minute!.at]).toEqual([0, MINUTE]);
    expect([...minute!.value]).toEqual([7, 4]);
    expect([[...minute!.low!], [...minute!.high!], [...minute!.count!]]).toEqual([
      [5, 4],
      [90, 4],
      [3, 1],
    ]);
    // An hour of minutes still knows the spike and every figure behind it.
    const [hour] = rolledUp([minute!], 'hour', false);
    expect([hour!.value[0], hour!.low![0], hour!.high![0], hour!.count![0]]).toEqual([5.5, 4, 90, 4]);
  });
  it('keep the last figure of a total', () => {
    const raw = blocksOf(
      'every',
      of([
        [T0, 100],
        [T0 + 10_000, 101],
        [T0 + 20_000, 103],
      ]),
    );
    expect(rolledUp(raw, 'minute', true)[0]!.value[0]).toBe(103);
  });
  it('count every figure once, however they are rolled up', () => {
    fc.assert(
      fc.property(anySamples, (samples) => {
        const minutes = rolledUp(blocksOf('every', samples), 'minute', false);
        const hours = rolledUp(minutes, 'hour', false);
        const counted = (blocks: readonly Block[]): number => blocks.reduce((sum, { count }) => sum + count!.reduce((a, b) => a + b, 0), 0);
        expect([counted(minutes), counted(hours)]).toEqual([samples.at.length, samples.at.length]);
        for (const { value, low, high } of hours) value.forEach((one, i) => expect(one >= low![i]! && one <= high![i]!).toBe(true));
      }),
    );
  });
  it('of a minute that was rolled up twice keep the fuller one', () => {
    const [few] = rolledUp(blocksOf('every', of([[T0, 5]])), 'minute', false);
    const [all] = rolledUp(
      blocksOf(
        'every',
        of([
          [T0, 5],
          [T0 + 1000, 9],
          [T0 + 2000, 9],
        ]),
      ),
      'minute',
      false,
    );
    for (const joined of [joinedBlock(few!, all!), joinedBlock(all!, few!)]) expect([joined.value[0], joined.count![0]]).toEqual([9, 3]);
  });
});

describe('a recording on a screen', () => {
  it('loses no spike, and never has more points than it was cut into', () => {
    const samples = of(Array.from({ length: 10_000 }, (_, i) => [T0 + i * MINUTE, i === 4321 ? 999 : 10 + (i % 3)]));
    const points = trace(samples, T0, T0 + 10_000 * MINUTE, 100);
    expect(points.length).toBeLessThanOrEqual(201);
    expect(points.some(({ x, y }) => y === 999 && x === T0 + 4321 * MINUTE)).toBe(true);
    expect(Math.min(...points.map(({ y }) => y))).toBe(10);
    expect(points.every(({ x }, i) => i === 0 || x > points[i - 1]!.x)).toBe(true);
  });
  it('shows few samples as they are', () => {
    expect(
      trace(
        of([
          [T0, 1],
          [T0 + DAY, 2],
        ]),
        T0,
        T0 + DAY,
        100,
      ),
    ).toEqual([{ x: T0, y: 1 }]);
  });
});

describe('a day of a recording', () => {
  const minutes = (n: number, value: (minute: number) => number): Samples =>
    of(Array.from({ length: n }, (_, i) => [T0 + i * MINUTE, value(i)]));
  const runs = (minute: number): boolean => minute >= 360 && minute < 600;

  it('counts what was read while water was made, not the night at rest', () => {
    const channels = new Map<Channel, Samples>([
      ['productLPerH', minutes(1440, (m) => (runs(m) ? 12 : 0))],
      // Salt creeps through at rest; a spike stands in the middle of the run.
      ['probe:membrane', minutes(1440, (m) => (m === 480 ? 500 : runs(m) ? 6 : 40))],
      ['meterL', minutes(1440, (m) => 1000 + m / 10)],
    ]);
    const [day, ...rest] = recordedDays(channels);
    expect(rest).toEqual([]);
    expect(new Map(day!.figures)).toEqual(
      new Map<string, number>([
        ['productLPerH', 12],
        ['probe:membrane', 6],
        ['meterL', 1143.9],
      ]),
    );
    expect(day!.count).toBe(3 * 1440);
    expect(day!.at).toBe(T0 + 480 * MINUTE);
  });
  it('on which nothing flowed has its total alone; a trickle through a closed valve is no run', () => {
    const still = new Map<Channel, Samples>([
      ['productLPerH', minutes(1440, () => 0)],
      ['probe:membrane', minutes(1440, () => 40)],
      ['meterL', minutes(1440, () => 1000)],
    ]);
    expect(recordedDays(still)[0]!.figures).toEqual([['meterL', 1000]]);
    const trickle = new Map<Channel, Samples>([...still, ['productLPerH', minutes(1440, () => 0.2)]]);
    expect(recordedDays(trickle, 12)[0]!.figures.map(([channel]) => channel)).toEqual(['meterL']);
  });
  it('what crept through in the night does not count for having been read just before the run', () => {
    const channels = new Map<Channel, Samples>([
      ['productLPerH', of([[T0 + 10 * MINUTE, 12], [T0 + 20 * MINUTE, 12]])], // prettier-ignore
      ['probe:membrane', of([[T0, 60], [T0 + 2 * MINUTE, 61], [T0 + 10 * MINUTE - 2000, 6], [T0 + 20 * MINUTE, 6]])], // prettier-ignore
    ]);
    expect(new Map(recordedDays(channels)[0]!.figures).get('probe:membrane')).toBe(6);
  });
  it('without a flow meter its total tells when water was made', () => {
    const channels = new Map<Channel, Samples>([
      ['meterL', minutes(1440, (m) => 1000 + 0.2 * Math.min(Math.max(0, m - 360), 240))],
      ['probe:membrane', minutes(1440, (m) => (runs(m) ? 6 : 40))],
    ]);
    expect(new Map(recordedDays(channels)[0]!.figures)).toEqual(new Map([['meterL', 1048], ['probe:membrane', 6]])); // prettier-ignore
  });
  it('with neither counts all of it, by the middle', () => {
    const [day] = recordedDays(
      new Map<Channel, Samples>([
        [
          'temperatureC',
          of([
            [T0 + HOUR, 9],
            [T0 + 2 * HOUR, 10],
            [T0 + 3 * HOUR, 55],
          ]),
        ],
      ]),
    );
    expect(day!.figures).toEqual([['temperatureC', 10]]);
  });
  it('leaves out days on which nothing was heard, and figures that cannot be', () => {
    const days = recordedDays(
      new Map<Channel, Samples>([
        [
          'temperatureC',
          of([
            [T0, 10],
            [T0 + 3 * DAY, 11],
            [T0 + 4 * DAY, 300],
          ]),
        ],
      ]),
    );
    expect(days.map(({ day }) => day - T0 / DAY)).toEqual([0, 3]);
  });
  it('is a reading the model takes, that nobody typed', () => {
    const system = systemFromTemplate({ id: 's', name: 'S', site: 'S', template: 'marinePair', at: '2026-01-01T00:00:00Z' });
    const [day] = recordedDays(
      new Map<Channel, Samples>([
        ['probe:probe-tap', of([[T0, 311]])],
        ['pressureBar', of([[T0, 4]])],
      ]),
    );
    const reading = readingOfDay(system, 'air-s', day!, { 'probe-tap': system.instruments[0]!.id });
    expect(readingSchema.safeParse(reading).success).toBe(true);
    expect(reading).toMatchObject({ pressureBar: 4, temperatureC: null, values: [{ probeId: 'probe-tap', shown: 311 }] });
    expect(isRecorded(reading)).toBe(true);
    expect(isRecorded({ id: 'r1' })).toBe(false);
  });
  it('that was counted again stands in place of what was counted before', () => {
    const day = (n: number, count: number) => ({ day: n, at: n * DAY, count, figures: [] });
    expect(joinedDays([day(1, 5), day(2, 3)], [day(2, 9), day(3, 1)])).toEqual([day(1, 5), day(2, 9), day(3, 1)]);
  });
  it('stands for nothing once its probe is gone', () => {
    const system = systemFromTemplate({ id: 's', name: 'S', site: 'S', template: 'marinePair', at: '2026-01-01T00:00:00Z' });
    expect(channelOf(system, { reads: 'probe', probeId: 'probe-tap' })).toBe('probe:probe-tap');
    expect(channelOf(system, { reads: 'probe', probeId: 'gone' })).toBeNull();
    expect(channelOf(system, { reads: 'waste', probeId: null })).toBe('wasteLPerH');
    expect(list(NO_SAMPLES)).toEqual([]);
  });
});

describe('a block in a file', () => {
  it('comes out as it went in, in every tier', () => {
    fc.assert(
      fc.property(anySamples, (samples) => {
        const raw = blocksOf('kept', samples);
        for (const block of [...raw, ...rolledUp(raw, 'minute', false), ...rolledUp(raw, 'hour', true)]) {
          const back = unpackedBlock(block.tier, block.startMs, packedFigures(block));
          expect(back.ok && back.value).toEqual(block);
        }
      }),
    );
  });
  it('that was cut short or changed is refused, never half of it taken', () => {
    const [block] = blocksOf('kept', of(Array.from({ length: 50 }, (_, i) => [T0 + i * MINUTE, i])));
    const text = packedFigures(block!);
    for (const bad of [text.slice(0, text.length / 2), '', 'AAAA', text.replace(/^.../, 'zzz')]) {
      const back = unpackedBlock('kept', block!.startMs, bad);
      expect(back.ok ? back.value.at.length : back.error.message).toMatch(/cut short or changed/);
    }
    expect(unpackedBlock('minute', block!.startMs, text).ok).toBe(false);
  });
  it('is a fraction of the text it came from', () => {
    const [block] = blocksOf('kept', of(Array.from({ length: 43_000 }, (_, i) => [T0 - (T0 % (30 * DAY)) + i * MINUTE, 300 + (i % 7)])));
    expect(packedFigures(block!).length).toBeLessThan(43_000);
  });
});
