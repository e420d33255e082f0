import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAULT_IDS, type FaultId } from '../../stage';
import { benchOf } from '../../testing/benches';
import { faultOf } from '../catalogue';
import { faultIds } from '../onSystem';
import { act, replay, type BenchAction } from './act';
import { EXERCISES, exerciseOf, FREE_PLAY, type Exercise } from './exercises';
import { HARMS, type HarmId } from './harm';
import { creditOf, givenTo, judge, pathOf, scoreOf, surpriseOf } from './judge';
import { mendingEffort, NOTHING_TO_MEND, priceOf, REPAIR_IDS, repairOf } from './repairs';
import { startBench, type BenchState } from './state';
import { BENCH_SYSTEM_IDS, benchSystem, type Bench, type BenchSystemId } from './systems';
import { toolsOf } from './tools';
import { soundTruth, truthOf } from './truth';

const exercise = (id: string): Exercise => {
  const found = exerciseOf(id);
  if (!found.ok) throw new Error(found.error.message);
  return found.value;
};
/** A rig with one thing hidden in it, at half its severity. */
function rigWith(system: BenchSystemId, hidden: FaultId, seed = 1): { bench: Bench; one: Exercise; start: BenchState } {
  const bench = benchOf(system);
  const one: Exercise = { ...exercise(`free-${system}`), hidden: [[hidden]], severity: [0.5, 0.5] };
  return { bench, one, start: startBench(bench, one, seed) };
}
const valve = (name: 'feed' | 'pump' | 'release' | 'line' | 'outlet' | 'pressure', to: string, atOnce = false): BenchAction =>
  ({ kind: 'valve', valve: name, to, atOnce }) as BenchAction;
const tool = (id: string): BenchAction => ({ kind: 'tool', tool: id });

describe('score', () => {
  it('is the chapter’s (F35)', () => {
    expect([scoreOf(21, 21, 1), scoreOf(50, 21, 1), scoreOf(15, 21, 1)]).toEqual([100, 52, 100]);
    expect(scoreOf(50, 21, 0.6)).toBe(31);
    // Confidence in bits: the chapter's two examples.
    expect(surpriseOf(0.8)).toBeCloseTo(-0.32, 2);
    expect(surpriseOf(0.3)).toBeCloseTo(-1.74, 2);
  });
  it('credit: the cause, its remedy, among those named, or none', () => {
    const hiding = (...ids: FaultId[]) => ({ hidden: ids.map((id) => ({ id, severity: 0.5 })), mended: [] });
    const said = (cause: FaultId, ...also: FaultId[]) => ({ cause, confidence: 0.8, also });
    expect(creditOf(said('sealLeak'), hiding('sealLeak'))).toBe(1);
    // A fouled and a scaled membrane are cleaned or replaced alike.
    expect(creditOf(said('fouled'), hiding('scaled'))).toBe(0.6);
    expect(creditOf(said('fouled', 'coldWater'), hiding('coldWater'))).toBe(0.3);
    expect(creditOf(said('fouled'), hiding('coldWater'))).toBe(0);
    // Of two faults, one named is not enough unless the other is mended or named too.
    expect(creditOf(said('recycleWide'), hiding('recycleWide', 'meterFault'))).toBe(0.6);
    expect(creditOf(said('recycleWide', 'meterFault'), hiding('recycleWide', 'meterFault'))).toBe(1);
    expect(creditOf(said('recycleWide'), { ...hiding('recycleWide', 'meterFault'), mended: ['battery'] })).toBe(1);
  });
  it('what a declaration gives to all causes is 1', () => {
    const said = { cause: 'fouled', confidence: 0.7, also: ['scaled', 'coldWater'] } as const;
    const ids = FAULT_IDS.slice(0, 30);
    expect(ids.reduce((sum, id) => sum + givenTo(said, id, ids.length), 0)).toBeCloseTo(1, 12);
    expect(ids.reduce((sum, id) => sum + givenTo({ ...said, also: [] }, id, ids.length), 0)).toBeCloseTo(1, 12);
  });
});

describe('exercises', () => {
  it('are the eighteen of the chapter, on rigs that can have what they hide', () => {
    expect(EXERCISES.map(({ id }) => id)).toEqual(Array.from({ length: 18 }, (_, i) => String(i + 1)));
    expect(EXERCISES.map(({ level }) => level)).toEqual([1, 1, 1, 1, 2, 2, 2, 2, 2, 2, 3, 3, 3, 3, 3, 4, 4, 4]);
    for (const { system, hidden, teaches, asks } of EXERCISES) {
      const own = faultIds(benchSystem(system));
      for (const id of (hidden ?? []).flat()) expect(own).toContain(id);
      expect(teaches).toMatch(/^[A-Z].*\.$/);
      expect(asks).toMatch(/\?$/);
    }
    expect(FREE_PLAY.map(({ system }) => system)).toEqual(BENCH_SYSTEM_IDS);
    expect(exerciseOf('19')).toMatchObject({ ok: false, error: { field: 'exercise', value: '19' } });
  });
  it('every cause is mended by something or needs no mending, never both', () => {
    for (const id of FAULT_IDS) {
      const mended = REPAIR_IDS.some((repair) => repairOf(repair).mends.includes(id));
      expect([id, mended]).toEqual([id, !NOTHING_TO_MEND.includes(id)]);
      expect(Number.isFinite(mendingEffort(id, 1))).toBe(true);
    }
    // A fault whose remedy opens a membrane's housing is never mended for nothing.
    expect(mendingEffort('oxidised', 2)).toBe(60 + (60 * 90) / 45);
    expect(priceOf('membrane', 4)).toBe(180);
  });
  it.each(['1', '2', '5', '12', '13'])('exercise %s is found by the best checks, for 100 points', (id) => {
    const one = exercise(id);
    const bench = benchOf(one.system);
    let found = 0;
    for (const seed of [1, 2, 3, 4]) {
      const start = startBench(bench, one, seed);
      // The way of the best checks, made by hand: what a person would do who always takes the hint.
      const own = judge(bench, one, start, [], { cause: 'healthy', confidence: 0.5, also: [] });
      if (!own.ok) throw new Error(own.error.message);
      const { state, entries } = replay(
        bench,
        one,
        start,
        own.value.optimal.steps.map(({ check }) => ({ kind: 'check', check })),
      );
      const judged = judge(bench, one, state, entries, { cause: own.value.optimal.cause as FaultId, confidence: 0.9, also: [] });
      if (!judged.ok) throw new Error(judged.error.message);
      expect(judged.value.path.steps).toEqual(own.value.optimal.steps);
      expect(judged.value.effort.total).toBeCloseTo(judged.value.effortRef, 9);
      expect(judged.value.missed).toBeNull();
      if (judged.value.credit === 1) {
        expect(judged.value.score).toBe(100);
        found += 1;
      }
    }
    expect(found).toBeGreaterThanOrEqual(3);
  });
});

describe('the rig', () => {
  it('is the same for the same seed and actions (F36), and another for another seed', () => {
    const one = exercise('11');
    const bench = benchOf('pair');
    const actions: BenchAction[] = [tool('tap'), tool('productFlow'), valve('line', 'off'), tool('productFlow'), { kind: 'ask' }];
    const run = (seed: number) => replay(bench, one, startBench(bench, one, seed), actions);
    expect(run(7)).toEqual(run(7));
    expect(run(7).entries).not.toEqual(run(8).entries);
    // Both of its causes come up.
    const drawn = new Set(Array.from({ length: 12 }, (_, seed) => startBench(bench, one, seed).hidden[0]!.id));
    expect(drawn).toEqual(new Set(['sealLeak', 'oxidised']));
  });
  it('a reading’s own error does not depend on what was read before it', () => {
    const { bench, one, start } = rigWith('pair', 'sealLeak');
    const figure = (actions: BenchAction[]) =>
      replay(bench, one, start, actions)
        .entries.flatMap(({ readings }) => readings)
        .find(({ kind }) => kind === 'wasteFlow')!.value;
    expect(figure([tool('tap'), tool('line'), tool('wasteFlow')])).toBe(figure([tool('wasteFlow')]));
    const twice = replay(bench, one, start, [tool('wasteFlow'), tool('wasteFlow')]).entries.flatMap(({ readings }) => readings);
    expect(twice[0]!.value).not.toBe(twice[1]!.value);
  });
  it('mended, it reads as a sound one would with the same errors; a sound part changes its tolerance alone', () => {
    const { bench, one, start } = rigWith('household', 'prefilter');
    const sound = { ...start, hidden: [] };
    const mended = replay(bench, one, start, [
      valve('feed', 'shut'),
      valve('release', 'open'),
      { kind: 'repair', repair: 'prefilter' },
      valve('release', 'shut'),
      valve('feed', 'open'),
    ]);
    const truth = (state: BenchState) => {
      const found = truthOf(bench, state);
      if (!found.ok) throw new Error(found.error.message);
      return found.value;
    };
    expect(mended.state.harm).toEqual([]);
    expect(truth(mended.state)).toEqual(truth(sound));
    const other = replay(bench, one, start, [{ kind: 'repair', repair: 'restrictor' }]).state;
    expect(truth(other).wasteFlow / truth(start).wasteFlow).not.toBe(1);
    expect(Math.abs(Math.log(truth(other).wasteFlow / truth(start).wasteFlow))).toBeLessThan(0.25);
    // What is read after the fault is mended says nothing of the cause any more.
    const read = act(bench, one, mended.state, tool('productFlow'));
    expect(read.ok && read.value.entry.readings[0]!.countsAs).toBeNull();
  });
  it('valves, cartridges and warmth move the water as they should', () => {
    const { bench, one, start } = rigWith('pair', 'backPressure');
    const read = (actions: BenchAction[], id: string) => {
      const done = replay(bench, one, start, [...actions, tool(id)]).entries.at(-1)!;
      return done.readings[0]!;
    };
    const on = read([], 'productFlow');
    const off = read([valve('line', 'off')], 'productFlow');
    expect(off.value).toBeGreaterThan(1.15 * on.value);
    expect([on.countsAs, off.countsAs]).toEqual(['productFlow', 'openFlow']);
    const flushed = read([valve('release', 'open')], 'wasteFlow');
    expect(flushed.value).toBeGreaterThan(1.5 * read([], 'wasteFlow').value);
    expect(flushed.countsAs).toBeNull();
    const warm = read([{ kind: 'warm', toC: 25 }], 'productFlow');
    expect(warm.value).toBeGreaterThan(1.1 * on.value);
    const clogged = rigWith('household', 'prefilter');
    const without = replay(clogged.bench, clogged.one, clogged.start, [
      tool('productFlow'),
      { kind: 'takeOut', what: 'sediment' },
      valve('feed', 'open'),
      tool('productFlow'),
    ]);
    const flows = without.entries.flatMap(({ readings }) => readings.map(({ value }) => value));
    expect(flows[1]!).toBeGreaterThan(1.15 * flows[0]!);
  });
  it('the first minutes after a rest are over after a quarter of an hour', () => {
    const { bench, one, start } = rigWith('household', 'creep');
    const [first, later] = replay(bench, one, start, [tool('tap'), { kind: 'run', minutes: 15 }, tool('tap')]).entries.filter(
      ({ readings }) => readings.length > 0,
    );
    const membrane = (entry: typeof first) => entry!.readings.find(({ kind }) => kind === 'membrane')!;
    expect(membrane(first).value).toBeGreaterThan(2 * membrane(later).value);
    expect([membrane(first).countsAs, membrane(later).countsAs]).toEqual(['membrane', 'later']);
  });
  it('what cannot be done is said, and no time passes', () => {
    const { bench, one, start } = rigWith('pair', 'healthy');
    const shut = replay(bench, one, start, [valve('feed', 'shut')]).state;
    expect(act(bench, one, shut, tool('tap'))).toMatchObject({
      ok: false,
      error: { field: 'feed', message: 'No water runs: open the feed first.' },
    });
    expect(act(bench, one, start, tool('wrench'))).toMatchObject({ ok: false, error: { field: 'tool', value: 'wrench' } });
    expect(act(bench, one, start, valve('feed', 'half'))).toMatchObject({ ok: false });
    expect(act(bench, one, start, valve('pump', 'off'))).toMatchObject({ ok: false, error: { field: 'valve' } });
    expect(act(bench, one, start, { kind: 'run', minutes: -5 })).toMatchObject({ ok: false, error: { field: 'minutes', value: -5 } });
    const off = replay(bench, one, start, [valve('line', 'off')]).state;
    expect(act(bench, one, off, tool('tap'))).toMatchObject({ ok: false, error: { field: 'line' } });
    const hurried = exercise('18');
    const late = replay(bench, hurried, startBench(bench, hurried, 3), [{ kind: 'run', minutes: 14 }]);
    expect(act(bench, hurried, late.state, tool('productFlow'))).toMatchObject({
      ok: false,
      error: { message: 'The customer leaves in 1 min: there is no time for that. Name the cause.' },
    });
  });
});

describe('harm', () => {
  const harmOf = (system: BenchSystemId, hidden: FaultId, actions: BenchAction[]): readonly HarmId[] => {
    const { bench, one, start } = rigWith(system, hidden);
    const done = replay(bench, one, start, actions);
    // Nothing in the way of what is tried here.
    expect(done.entries).toHaveLength(actions.length);
    return done.state.harm;
  };
  const OPEN: BenchAction = { kind: 'repair', repair: 'rings' };
  const MEMBRANE: BenchAction = { kind: 'repair', repair: 'membrane' };
  it.each<[string, BenchSystemId, FaultId, BenchAction[], HarmId[]]>([
    ['a housing opened with the feed on', 'pair', 'healthy', [OPEN], ['pressure']],
    ['with the feed shut alone', 'pair', 'healthy', [valve('feed', 'shut'), OPEN], ['pressure']],
    ['with the pressure let out', 'pair', 'healthy', [valve('feed', 'shut'), valve('release', 'open'), OPEN], []],
    [
      'let out before the feed is shut',
      'pair',
      'healthy',
      [valve('release', 'open'), valve('release', 'shut'), valve('feed', 'shut'), OPEN],
      ['pressure'],
    ],
    ['the seals looked at under pressure', 'pair', 'healthy', [tool('inspectSeals')], ['pressure']],
    ['a pump left on with its feed shut', 'cart', 'healthy', [valve('feed', 'shut'), { kind: 'ask' }], ['pump']],
    ['switched off within ten seconds', 'cart', 'healthy', [valve('feed', 'shut'), valve('pump', 'off'), { kind: 'ask' }], []],
    ['switched off first', 'cart', 'healthy', [valve('pump', 'off'), valve('feed', 'shut'), { kind: 'ask' }], []],
    [
      'brought up at once',
      'watermaker',
      'healthy',
      [valve('pump', 'off'), valve('pump', 'on'), valve('pressure', 'working', true)],
      ['relief'],
    ],
    ['brought up slowly', 'watermaker', 'healthy', [valve('pump', 'off'), valve('pump', 'on'), valve('pressure', 'working')], []],
    ['a relief valve plugged', 'watermaker', 'reliefLeak', [{ kind: 'plugRelief' }], ['relief']],
    ['hot feed', 'household', 'coldWater', [{ kind: 'warm', toC: 55 }], ['hotFeed']],
    ['warm feed', 'household', 'coldWater', [{ kind: 'warm', toC: 25 }], []],
    [
      'carbon out for long',
      'pair',
      'healthy',
      [
        valve('feed', 'shut'),
        valve('release', 'open'),
        { kind: 'takeOut', what: 'all' },
        valve('release', 'shut'),
        valve('feed', 'open'),
        tool('productFlow'),
      ],
      ['chlorine'],
    ],
    [
      'sediment alone out',
      'pair',
      'healthy',
      [
        valve('feed', 'shut'),
        valve('release', 'open'),
        { kind: 'takeOut', what: 'sediment' },
        valve('release', 'shut'),
        valve('feed', 'open'),
        tool('productFlow'),
      ],
      [],
    ],
    ['poor water to the tank', 'pair', 'resinPoisoned', [valve('outlet', 'to tank'), tool('productFlow')], ['badWater']],
    ['good water to the tank', 'pair', 'healthy', [valve('outlet', 'to tank'), tool('productFlow')], []],
    [
      'nobody beside a tank whose shut-off sticks',
      'pair',
      'shutoff',
      [valve('outlet', 'to tank'), { kind: 'run', minutes: 30 }],
      ['floor'],
    ],
    ['somebody beside it', 'pair', 'shutoff', [valve('outlet', 'to tank'), tool('drainWhenFull')], []],
    [
      'new membrane, resin in the path',
      'pair',
      'scaled',
      [valve('feed', 'shut'), valve('release', 'open'), MEMBRANE, valve('release', 'shut'), valve('feed', 'open'), tool('wasteFlow')],
      ['preservative'],
    ],
    [
      'rinsed for an hour first',
      'pair',
      'scaled',
      [
        valve('feed', 'shut'),
        valve('release', 'open'),
        MEMBRANE,
        valve('release', 'shut'),
        valve('line', 'off'),
        valve('feed', 'open'),
        { kind: 'run', minutes: 60 },
        valve('line', 'on'),
        tool('wasteFlow'),
      ],
      [],
    ],
  ])('%s (%s)', (_, system, hidden, actions, harm) => expect(harmOf(system, hidden, actions)).toEqual(harm));
  it('counts once, in minutes, and says what would have kept it off', () => {
    const { bench, one, start } = rigWith('pair', 'healthy');
    const done = replay(bench, one, start, [OPEN, valve('feed', 'open'), OPEN]);
    expect(done.entries.map(({ harm }) => harm.length)).toEqual([1, 0, 0]);
    const judged = judge(bench, one, done.state, done.entries, { cause: 'healthy', confidence: 0.9, also: [] });
    expect(judged.ok && judged.value.effort.harm).toBe(HARMS.pressure.minutes);
    // The chapter's table.
    expect(Object.fromEntries(Object.entries(HARMS).map(([id, { minutes }]) => [id, minutes]))).toEqual({
      floor: 240,
      preservative: 120,
      chlorine: 60,
      pressure: 60,
      pump: 90,
      relief: 240,
      badWater: 60,
      hotFeed: 60,
    });
    for (const { caution, title } of Object.values(HARMS)) for (const text of [caution, title]) expect(text).toMatch(/^[A-Z].*\.$/);
    expect(HARMS.pressure.caution).toMatch(/Shut the feed.*gauge reads nothing/);
  });
  it('resin that preservative went through has to be bought, and reads so', () => {
    const { bench, one, start } = rigWith('pair', 'healthy');
    const done = replay(bench, one, start, [{ kind: 'repair', repair: 'clean' }, valve('feed', 'open'), tool('tap')]);
    expect(done.state.harm).toContain('preservative');
    expect(done.state.spent).toBe(priceOf('clean', 2) + priceOf('resin', 2));
    const after = act(bench, one, done.state, tool('tap'));
    expect(after.ok && after.value.entry.readings.find(({ kind }) => kind === 'product')!.value).toBeGreaterThan(5);
  });
});

describe('judging', () => {
  it('sees parts bought early, idle checks, and when the cause first led', () => {
    const { bench, one, start } = rigWith('pair', 'restrictorTight');
    const actions: BenchAction[] = [
      valve('feed', 'shut'),
      valve('release', 'open'),
      { kind: 'repair', repair: 'carbon' },
      valve('release', 'shut'),
      valve('feed', 'open'),
      tool('tap'),
      tool('wasteFlow'),
      tool('productFlow'),
    ];
    const { state, entries } = replay(bench, one, start, actions);
    const judged = judge(bench, one, state, entries, { cause: 'restrictorTight', confidence: 0.9, also: [] });
    if (!judged.ok) throw new Error(judged.error.message);
    const { credit, boughtEarly, firstLed, path, effort, effortRef, surpriseBits, score } = judged.value;
    expect([credit, boughtEarly]).toEqual([1, ['carbon']]);
    expect(path.steps.map(({ check }) => check)).toEqual(['tap', 'membrane', 'product', 'wasteFlow', 'productFlow']);
    expect(path.steps[firstLed!]!.lead).toBe('restrictorTight');
    expect(path.steps.slice(0, firstLed!).every(({ lead }) => lead !== 'restrictorTight')).toBe(true);
    expect(surpriseBits.own).toBeCloseTo(Math.log2(0.9), 9);
    // 15 EUR of carbon are twenty minutes; the trim that mends it is still to be made.
    expect(effort).toMatchObject({ parts: 20, harm: 0, mending: 10 });
    expect(effort.total).toBeGreaterThan(effortRef);
    expect(score).toBe(scoreOf(effort.total, effortRef, 1));
    expect(path.steps.at(-1)!.truth).toBeGreaterThan(0.799);
  });
  it('bits are those of the question before and after, and their sum is what was settled', () => {
    const { bench, one, start } = rigWith('household', 'resinSpent');
    const { state, entries } = replay(bench, one, start, [tool('tap'), tool('silicaKit'), tool('temperature')]);
    const path = pathOf(bench, state.hidden, entries);
    if (!path.ok) throw new Error(path.error.message);
    const { startBits, steps } = path.value;
    expect(steps.reduce((sum, { bits }) => sum + bits, 0)).toBeCloseTo(startBits - steps.at(-1)!.entropyBits, 9);
    expect(steps.map(({ at }) => at)).toEqual([1.5, 1.5, 1.5, 6.5, 7]);
  });
  it('refuses causes this rig cannot have, and a confidence that is none', () => {
    const { bench, one, start } = rigWith('household', 'healthy');
    expect(judge(bench, one, start, [], { cause: 'pumpSlip', confidence: 0.5, also: [] })).toMatchObject({
      ok: false,
      error: { field: 'cause' },
    });
    expect(judge(bench, one, start, [], { cause: 'healthy', confidence: 0, also: [] })).toMatchObject({
      ok: false,
      error: { field: 'confidence' },
    });
  });
  it('whatever is done, figures stay figures, time never runs back and harm counts once', () => {
    const { bench, one, start } = rigWith('household', 'sealLeak');
    const tools = toolsOf(bench.ground.available).map(({ id }) => tool(id));
    const actions: BenchAction[] = [
      ...tools,
      valve('feed', 'shut'),
      valve('feed', 'open'),
      valve('release', 'open'),
      valve('release', 'shut'),
      valve('line', 'off'),
      valve('line', 'on'),
      valve('outlet', 'to tank'),
      ...REPAIR_IDS.map((repair): BenchAction => ({ kind: 'repair', repair })),
      { kind: 'takeOut', what: 'all' },
      { kind: 'takeOut', what: 'none' },
      { kind: 'warm', toC: 55 },
      { kind: 'warm', toC: null },
      { kind: 'run', minutes: 60 },
      { kind: 'ask' },
      { kind: 'hint' },
    ];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...actions), { maxLength: 14 }), (some) => {
        const { state, entries } = replay(bench, one, start, some);
        let clock = 0;
        for (const { at, readings } of entries) {
          expect(at).toBeGreaterThanOrEqual(clock);
          clock = at;
          for (const { value } of readings) expect(Number.isFinite(value) && value >= -5).toBe(true);
        }
        expect(new Set(state.harm).size).toBe(state.harm.length);
        expect(state.minutes).toBeCloseTo(
          entries.reduce((sum, { minutes }) => sum + minutes, 0),
          9,
        );
      }),
      { numRuns: 60, seed: 5 },
    );
  });
});

it('a sound rig reads what its sheet from the hand-over says', () => {
  const bench = benchOf('household');
  const sound = soundTruth(bench);
  expect(sound.ok && faultOf('healthy') !== null && sound.value.productFlow).toBeCloseTo(bench.ground.rig.soundProductLPerH, 3);
});
