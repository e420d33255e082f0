import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BAR_PER_PSI } from '../quantity';
import { firstLook, ML_PER_MIN, REFERENCE_CHECKS, referenceTable } from '../testing/referenceFaults';
import { referenceRig } from '../testing/referenceRig';
import { CATALOGUE } from './catalogue';
import { decide, notExcluded, remedyOdds } from './decide';
import { diagnose, ranked, type Diagnosis, type FaultAnswer, type FaultReading } from './diagnose';
import { evidenceFor, soundBand } from './evidence';
import { nextChecks, separatedBy, type NextCheck } from './nextCheck';
import { SHARED } from './shared';
import { PLACE } from './nodes';

/** Checks F20 to F39 of the chapter on faults and its worked cases W and V: an independent program's figures. */

const s1 = referenceTable(1);
const s2 = referenceTable(2);
const found = (readings: readonly FaultReading[], answers: readonly FaultAnswer[] = [], table = s2): Diagnosis => {
  const outcome = diagnose(table, readings, answers);
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
};
const odds = ({ causes }: Diagnosis, id: string): number => causes.find((one) => one.id === id)!.probability;
const told = (diagnosis: Diagnosis, id: string, table = s2): NextCheck =>
  nextChecks(table, diagnosis, REFERENCE_CHECKS).find((one) => one.id === id)!;
const place = (id: string, table = s2): number => table.hypotheses.findIndex((one) => one.id === id);
const ml = (value: number): number => value * ML_PER_MIN;

describe('what the solver says of each cause', () => {
  const shown = (elements: 1 | 2, id: string, severity = 0.5) => {
    const rig = referenceRig(elements);
    const fault = CATALOGUE.find((one) => one.id === id)!;
    const solved = rig.solve(fault.on(rig).change?.(severity, rig) ?? {});
    if (!solved.ok) throw new Error(solved.error.message);
    return solved.value;
  };
  it('F20: the two systems with nothing wrong', () => {
    const one = shown(1, 'healthy');
    const two = shown(2, 'healthy');
    for (const [value, wanted, share] of [
      [one.productFlow, 8.2433, 0.005],
      [one.membrane, 5.694, 0.01],
      [one.wasteFlow, 45.669, 0.005],
      [two.productFlow, 16.2836, 0.005],
      [two.membrane, 5.45, 0.01],
      [two.wasteFlow, 90.641, 0.005],
      [two.inlet, 4.0459, 0.005],
    ] as const)
      expect(Math.abs(value / wanted - 1)).toBeLessThan(share);
  });
  it.each([
    [2, 'prefilter', 7.74, 172.8, 1197, 38.4],
    [2, 'fouled', 8.36, 150.9, 1512, 58.8],
    [2, 'scaled', 13.1, 182.8, 1512, 58.8],
    [2, 'oxidised', 16.37, 377.7, 1509, 58.6],
    [2, 'sealLeak', 16.97, 284.8, 1511, 58.7],
    [2, 'restrictorTight', 6.97, 271.6, 361.9, 59.5],
    [2, 'restrictorWide', 4.88, 264.0, 3260, 57.4],
    [2, 'oldRestrictor', 8.9, 160.2, 645.9, 59.4],
    [2, 'lineLow', 8.38, 156.6, 1139, 35.0],
    [2, 'backPressure', 7.77, 166.1, 1512, 58.8],
    [2, 'coldWater', 4.91, 204.9, 1478, 58.5],
    [2, 'feedStrong', 11.26, 253.9, 1511, 58.7],
    [1, 'prefilter', 7.82, 87.9, 602.5, 38.9],
    [1, 'scaled', 17.33, 70.5, 761.5, 59.4],
    [1, 'backPressure', 7.88, 84.9, 761.5, 59.4],
  ] as const)('F21 to F27: %d element, %s half way', (elements, id, ppm, product, waste, psi) => {
    const { membrane, productFlow, wasteFlow, inlet } = shown(elements, id);
    expect(Math.abs(membrane / ppm - 1)).toBeLessThan(0.02);
    expect(Math.abs(productFlow / ml(product) - 1)).toBeLessThan(0.01);
    expect(Math.abs(wasteFlow / ml(waste) - 1)).toBeLessThan(0.01);
    expect(Math.abs(inlet / BAR_PER_PSI / psi - 1)).toBeLessThan(0.01);
  });
  it.each([
    ['healthy', 1.1, 0.99],
    ['fouled', 0.87, 1.26],
    ['scaled', 6.96, 0.34],
    ['oxidised', 0.9, 0.92],
    ['sealLeak', 0.21, 0.9],
    ['oldRestrictor', 4.8, 0.17],
  ] as const)('F26: second element against the first, %s', (id, strength, flow) => {
    const { ratioStrength, ratioFlow } = shown(2, id);
    expect(Math.abs(ratioStrength / strength - 1)).toBeLessThan(0.03);
    expect(Math.abs(ratioFlow / flow - 1)).toBeLessThan(0.03);
  });
  it('F28: how what is not exactly known moves the sound readings', () => {
    const node = s2.nodes.find(({ hypothesis }) => hypothesis === 0)!;
    const moved = (kind: keyof typeof PLACE, error: (typeof SHARED)[number]): number =>
      node.moved[PLACE[kind] * SHARED.length + SHARED.indexOf(error)]!;
    for (const [kind, error, wanted] of [
      ['productFlow', 'lnWater', 0.038],
      ['productFlow', 'lnLine', 0.063],
      ['productFlow', 'temperatureC', 0.054],
      ['productFlow', 'jug', 0.02],
      ['membrane', 'lnSalt', 0.082],
      ['membrane', 'lnFeed', 0.071],
      ['membrane', 'lnLine', -0.041],
      ['membrane', 'inline', 0.025],
      ['membrane', 'lnWater', -0.022],
      ['membrane', 'temperatureC', 0.018],
      ['wasteFlow', 'lnRestrictor', 0.039],
      ['wasteFlow', 'lnLine', 0.033],
    ] as const)
      expect(Math.abs(moved(kind, error) - wanted)).toBeLessThan(0.002);
  });
  it('F34: how often the solver is asked', () => {
    expect([s2.solves, s1.solves]).toEqual([598, 553]);
  });
  it('F38: cold water lowers the product, not the purity; a clogged filter lowers the waste, fouling does not (common practice)', () => {
    const sound = shown(2, 'healthy');
    expect(shown(2, 'coldWater').productFlow).toBeLessThan(0.85 * sound.productFlow);
    expect(shown(2, 'coldWater').membrane).toBeLessThan(sound.membrane);
    expect(shown(2, 'prefilter').wasteFlow).toBeLessThan(0.85 * sound.wasteFlow);
    expect(Math.abs(shown(2, 'fouled').wasteFlow / sound.wasteFlow - 1)).toBeLessThan(0.01);
  });
});

const W1 = firstLook(252, 5, 0, 59, 14.5, 265, 1500);
const W2 = firstLook(248, 7, 0, 60, 15, 172, 1190);
const W3 = firstLook(255, 8, 0, 59, 14, 170, 1500);
const W4 = firstLook(247, 24, 0, 61, 15, 284, 1520);
const W5 = firstLook(251, 5, 4, 60, 15.5, 276, 1515);
const W6 = firstLook(250, 5, 0, 60, 15, 270, 150);
const PEN = { kind: 'penMembrane', value: 23 } as const;
const NOT_FIRST = [{ check: 'askFirstMinute', yes: false }] as const;

describe('the worked cases', () => {
  it.each([
    ['W1', W1, [], { healthy: 0.569, carbonSpent: 0.171, shutoff: 0.114, silicaBand: 0.085 }],
    ['W2', W2, [], { prefilter: 0.996 }],
    ['W3', W3, [], { fouled: 0.638, backPressure: 0.314, dryMembrane: 0.028, scaled: 0.011 }],
    ['W3b', [...W3, { kind: 'openFlow', value: ml(172) }, { kind: 'ratioFlow', value: 1.2 }], [], { fouled: 0.9995 }],
    ['W4', W4, [], { creep: 0.49, meterFault: 0.264, sealLeak: 0.212, healthy: 0.017 }],
    ['W4b', [...W4, PEN], NOT_FIRST, { sealLeak: 0.779, creep: 0.213 }],
    ['W4c', [...W4, PEN, { kind: 'ratioStrength', value: 0.15 }], NOT_FIRST, { sealLeak: 0.9995 }],
    ['W5', W5, [], { resinSpent: 0.792, co2Early: 0.185 }],
    ['W5b', [...W5, { kind: 'midResin', value: 5 }, { kind: 'pH', value: 5.9 }], [], { resinSpent: 0.952, co2Early: 0.04 }],
    ['W6', W6, [], { healthy: 0.402, restrictorTight: 0.282, carbonSpent: 0.121 }],
    ['W6b', [...W6, { kind: 'penMembrane', value: 5 }], [], { healthy: 0.51, restrictorTight: 0.09 }],
  ] as readonly (readonly [string, readonly FaultReading[], readonly FaultAnswer[], Readonly<Record<string, number>>])[])(
    '%s',
    (_, readings, answers, wanted) => {
      const diagnosis = found(readings, answers);
      for (const [id, probability] of Object.entries(wanted)) expect(Math.abs(odds(diagnosis, id) - probability)).toBeLessThan(0.01);
      const [first, second] = Object.keys(wanted);
      expect(ranked(diagnosis)[0]!.id).toBe(first);
      if (second && wanted[second]! > 0.1) expect(ranked(diagnosis)[1]!.id).toBe(second);
    },
  );
  it.each([
    ['W1', W1, { chlorineStrip: 0.485, drainWhenFull: 0.388, silicaKit: 0.369 }],
    ['W3', W3, { openFlow: 0.901, ratioFlow: 0.838 }],
    ['W4', W4, { askFirstMinute: 0.458, penMembrane: 0.86 }],
    ['W5', W5, { product: 0.182, pH: 0.388 }],
    ['W6', W6, { wasteFlow: 0.917 }],
  ] as const)('%s: what the next checks would tell, in bits', (_, readings, wanted) => {
    const diagnosis = found(readings);
    for (const [id, bits] of Object.entries(wanted)) expect(Math.abs(told(diagnosis, id).informationBits - bits)).toBeLessThan(0.02);
  });
  it('W1: a clean look leaves what no meter sees, with its kit', () => {
    const diagnosis = found(W1);
    expect(diagnosis.entropyBits).toBeCloseTo(1.92, 2);
    expect(
      notExcluded(diagnosis)
        .map(({ id }) => id)
        .sort(),
    ).toEqual(['carbonSpent', 'shutoff', 'silicaBand']);
    expect(decide(s2, diagnosis, nextChecks(s2, diagnosis, REFERENCE_CHECKS))).toMatchObject({
      kind: 'check',
      check: { id: 'chlorineStrip' },
    });
  });
  it('W2: how clogged the filter is, what says so, and that it is time to change it', () => {
    const diagnosis = found(W2);
    const { severity } = ranked(diagnosis)[0]!;
    expect(severity.mean).toBeCloseTo(0.5, 1);
    expect(Math.abs(severity.low - 0.36)).toBeLessThan(0.03);
    expect(Math.abs(severity.high - 0.62)).toBeLessThan(0.03);
    expect(decide(s2, diagnosis, nextChecks(s2, diagnosis, REFERENCE_CHECKS))).toMatchObject({ kind: 'remedy', cause: place('prefilter') });
    const against = (id: string): Readonly<Record<string, number>> =>
      Object.fromEntries(evidenceFor(s2, place('prefilter'), place(id), W2).map(({ reading, nats }) => [W2[reading]!.kind, nats]));
    expect(Math.abs(against('healthy')['productFlow']! - 5.6)).toBeLessThan(0.15);
    expect(Math.abs(against('healthy')['wasteFlow']! - 6)).toBeLessThan(0.15);
    expect(Math.abs(against('fouled')['wasteFlow']! - 6)).toBeLessThan(0.15);
    expect(evidenceFor(s2, place('prefilter'), place('healthy'), W2)[0]!.words).toBe('all but rules out the other');
  });
  it('W3, W4: the check that comes next, and the two it sets apart', () => {
    const line = decide(s2, found(W3), nextChecks(s2, found(W3), REFERENCE_CHECKS));
    expect(line).toMatchObject({ kind: 'check', check: { id: 'openFlow' } });
    expect(separatedBy(s2, found(W3), 'openFlow')).toEqual([place('fouled'), place('backPressure')]);
    expect(separatedBy(s2, found(W1), 'chlorineStrip')).toEqual([place('healthy'), place('carbonSpent')]);
    expect(decide(s2, found(W4), nextChecks(s2, found(W4), REFERENCE_CHECKS))).toMatchObject({
      kind: 'check',
      check: { id: 'askFirstMinute' },
    });
  });
  it('W6: a slipped digit is read again before anything else; read again, it is forgotten', () => {
    const diagnosis = found(W6);
    expect(diagnosis.bad.map((p) => Number(p.toFixed(2)))[6]).toBeCloseTo(0.79, 1);
    expect(Math.abs(diagnosis.bad[1]! - 0.22)).toBeLessThan(0.02);
    expect(decide(s2, diagnosis, nextChecks(s2, diagnosis, REFERENCE_CHECKS))).toEqual({ kind: 'readAgain', reading: 6 });
    expect(odds(found(firstLook(250, 5, 0, 60, 15, 270, 1500)), 'healthy')).toBeCloseTo(0.569, 1);
    expect(found([...W6, { kind: 'penMembrane', value: 5 }]).bad[6]).toBeGreaterThan(0.98);
  });
  it('V1: a strip that is positive on a system that reads well; V2: cold water', () => {
    const strip = found(firstLook(250, 6, 0, 60, 15, 136, 760), [{ check: 'chlorineStrip', yes: true }], s1);
    expect(Math.abs(odds(strip, 'carbonSpent') - 0.866)).toBeLessThan(0.02);
    expect(Math.abs(odds(strip, 'healthy') - 0.091)).toBeLessThan(0.02);
    expect(odds(found(firstLook(245, 5, 0, 60, 6, 103, 735), [], s1), 'coldWater')).toBeGreaterThan(0.99);
  });
  it('F29: what a sound system would read at the tap, pressure and temperature of the day', () => {
    const given = firstLook(311, 37, 0, 59, 11, 232, 1486);
    const psi = soundBand(s2, 'membrane', given)!;
    for (const [value, wanted] of [
      [psi.middle, 6.48],
      [psi.low, 5.63],
      [psi.high, 7.43],
      [soundBand(s2, 'productFlow', given)!.middle, ml(232)],
      [soundBand(s2, 'productFlow', given)!.low, ml(218)],
      [soundBand(s2, 'productFlow', given)!.high, ml(247)],
      [soundBand(s2, 'wasteFlow', given)!.middle, ml(1486)],
      [soundBand(s2, 'wasteFlow', given)!.low, ml(1405)],
      [soundBand(s2, 'wasteFlow', given)!.high, ml(1572)],
    ] as const)
      expect(Math.abs(value / wanted - 1)).toBeLessThan(0.015);
  });
  it('F39: how likely the readings are under a cause, over its severities', () => {
    for (const [readings, id, wanted] of [
      [W2, 'prefilter', 4.772],
      [W3, 'fouled', 4.369],
      [W3, 'backPressure', 4.353],
      [W3, 'dryMembrane', 3.032],
      [W4, 'sealLeak', 4.088],
      [W4, 'creep', 4.518],
    ] as const)
      expect(Math.abs(found(readings).lnLikelihood[place(id)]! - wanted)).toBeLessThan(0.06);
  });
});

describe('what holds whatever is read', () => {
  it('F30: without readings there is the prior', () => {
    const total = s2.hypotheses.reduce((sum, { weight }) => sum + weight, 0);
    expect(total).toBeCloseTo(126.7, 9);
    found([]).causes.forEach(({ probability }, h) => expect(probability).toBeCloseTo(s2.hypotheses[h]!.weight / total, 12));
  });
  it('F31: what cannot be is named, with what would be accepted', () => {
    const refused = (readings: readonly FaultReading[]): string => {
      const outcome = diagnose(s2, readings);
      return outcome.ok ? '' : `${outcome.error.field}: ${outcome.error.accepted}`;
    };
    expect(refused([{ kind: 'membrane', value: -3 }])).toBe('membrane: 0 or more');
    expect(refused([{ kind: 'pH', value: 15 }])).toBe('pH: 0 to 14');
    expect(refused([{ kind: 'temperature', value: 61 }])).toBe('temperature: −5 to 60 °C');
    expect(refused([{ kind: 'membrane', value: Number.NaN }])).toBe('membrane: 0 or more');
    const spoilt = (change: object) => diagnose({ ...s2, hypotheses: s2.hypotheses.map((one) => ({ ...one, ...change })) }, W1);
    expect(spoilt({ answers: { chlorineStrip: 0 } })).toMatchObject({
      ok: false,
      error: { field: 'rate.chlorineStrip', accepted: '0.01 to 0.99' },
    });
    expect(spoilt({ weight: 0 })).toMatchObject({ ok: false, error: { field: 'catalogue' } });
    expect(spoilt({ weight: 1001 })).toMatchObject({ ok: false, error: { accepted: '0 to 1000' } });
  });
  it('F33: a reading that says nothing changes nothing', () => {
    const vague = { ...s2, nodes: s2.nodes.map((node) => ({ ...node, ownSd: node.ownSd.map((sd, i) => (i === PLACE.inlet ? 1e6 : sd)) })) };
    const [before, after] = [found(W3), found([...W3, { kind: 'inlet', value: 3 }], [], vague)];
    before.causes.forEach(({ probability }, h) => expect(Math.abs(after.causes[h]!.probability - probability)).toBeLessThan(0.0005));
  });
  const someReadings = fc
    .record({
      tap: fc.double({ min: 0, max: 2000, noNaN: true }),
      membrane: fc.double({ min: 0, max: 2000, noNaN: true }),
      product: fc.double({ min: 0, max: 500, noNaN: true }),
      psi: fc.double({ min: 0, max: 150, noNaN: true }),
      temperatureC: fc.double({ min: -5, max: 60, noNaN: true }),
      productMl: fc.double({ min: 0, max: 5000, noNaN: true }),
      wasteMl: fc.double({ min: 0, max: 9000, noNaN: true }),
    })
    .map((r) => firstLook(r.tap, r.membrane, r.product, r.psi, r.temperatureC, r.productMl, r.wasteMl));
  it('posteriors sum to one, no figure is none, and the order of readings does not matter (F32)', () => {
    fc.assert(
      fc.property(someReadings, fc.boolean(), (readings, yes) => {
        const answers = [{ check: 'chlorineStrip', yes }] as const;
        const one = found(readings, answers);
        expect(one.causes.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 12);
        for (const { probability, severity } of one.causes)
          for (const value of [probability, severity.mean, severity.low, severity.high]) expect(Number.isFinite(value)).toBe(true);
        const other = found([...readings].reverse(), answers);
        one.causes.forEach(({ probability }, h) => expect(other.causes[h]!.probability).toBe(probability));
        expect([...other.bad].reverse()).toEqual([...one.bad]);
        for (const { informationBits } of nextChecks(s2, one, { kinds: ['openFlow', 'pH'], checks: ['silicaKit'] })) {
          expect(informationBits).toBeGreaterThanOrEqual(0);
          expect(informationBits).toBeLessThanOrEqual(one.entropyBits + 1e-12);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('struck out and put back, a reading leaves no trace', () => {
    const before = found(W4);
    found(W4.slice(1));
    expect(found(W4)).toEqual(before);
  });
  it('contradictory readings fit nothing, and are not believed', () => {
    const diagnosis = found(firstLook(250, 900, 300, 3, 50, 4000, 1));
    expect(diagnosis.misfit).toBe(true);
    expect(decide(s2, diagnosis, [])).toMatchObject({ kind: 'nothingFits' });
  });
  it('causes with the same remedy are one remedy', () => {
    const diagnosis = found(W5);
    const sum = odds(diagnosis, 'resinSpent') + odds(diagnosis, 'acidBand');
    expect(remedyOdds(s2, diagnosis)[place('resinSpent')]).toBeCloseTo(sum, 12);
  });
});
