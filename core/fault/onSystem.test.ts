import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { readDocument, TEMPLATE_IDS, type Reading, type System } from '../file';
import { FAULT_IDS } from '../stage';
import { systemFromTemplate } from '../template';
import { CATALOGUE } from './catalogue';
import { hypothesesOf } from './catalogue/fault';
import { diagnose, ranked, type FaultReading } from './diagnose';
import { asFaultReadings, calibrated, faultIds, groundAsPlanned, type SearchGround } from './onSystem';
import { nextChecks } from './nextCheck';
import { buildNodes, type NodeTable } from './nodes';
import { WITH_BASELINE, WITHOUT_BASELINE } from './shared';
import { CHECK_WORDS, KIND_WORDS } from './words';

const NOW = '2026-11-23T12:00:00Z';
const DEMO = fileURLToPath(new URL('../../demo/', import.meta.url));
const demo = readdirSync(DEMO).map((file) => {
  const read = readDocument(readFileSync(`${DEMO}${file}`, 'utf8'));
  if (!read.ok) throw new Error(read.error.message);
  return read.records[0]!;
});
const named = (part: string): { system: System; readings: readonly Reading[] } => demo.find(({ system }) => system.id.includes(part))!;

function ground(system: System, before: readonly Reading[]): SearchGround {
  const found = groundAsPlanned(system, { before, course: [], now: NOW });
  if (!found.ok) throw new Error(found.error.message);
  return found.value;
}
function tableOf({ rig, faults, shared }: SearchGround): NodeTable {
  const table = buildNodes(rig, hypothesesOf(faults, rig), shared);
  if (!table.ok) throw new Error(table.error.message);
  return table.value;
}

describe('the catalogue', () => {
  it('holds every cause that stages bring, once, in whole sentences', () => {
    expect(CATALOGUE.map(({ id }) => id)).toEqual([...new Set(CATALOGUE.map(({ id }) => id))]);
    expect(new Set(CATALOGUE.map(({ id }) => id))).toEqual(new Set(FAULT_IDS));
    // 53 faults, and nothing wrong.
    expect(CATALOGUE).toHaveLength(54);
    for (const { words } of CATALOGUE) {
      expect(words.name).toMatch(/^[A-Z][^.]*$/);
      for (const text of [words.sign, words.remedy, words.notTo]) expect(text).toMatch(/^[A-Z].*\.$/);
    }
    for (const { how } of [...Object.values(KIND_WORDS), ...Object.values(CHECK_WORDS)]) expect(how).toMatch(/^[A-Z].*\.$/);
    for (const { question } of Object.values(CHECK_WORDS)) expect(question).toMatch(/\?$/);
  });
  it('what opens a housing or can flood says so first', () => {
    expect(CHECK_WORDS.inspectSeals.caution).toMatch(/Shut the feed/);
    expect(KIND_WORDS.openFlow.caution).toMatch(/bucket/);
    expect(CHECK_WORDS.lampCheck.caution).toMatch(/Never look/);
  });
  it('gives each system the causes its parts allow', () => {
    const ids = (part: string): readonly string[] => faultIds(named(part).system);
    expect(ids('van')).toEqual(expect.arrayContaining(['restrictorTight', 'resinSpent', 'shutoff', 'organics']));
    expect(ids('van')).not.toContain('ammonia');
    expect(ids('coral')).toEqual(expect.arrayContaining(['ammonia', 'oldRestrictor']));
    expect(ids('watermaker')).toEqual(expect.arrayContaining(['pumpSlip', 'reliefLeak', 'swMembrane']));
    for (const none of ['oxidised', 'restrictorTight', 'resinSpent', 'lineLow']) expect(ids('watermaker')).not.toContain(none);
    expect(ids('espresso')).toEqual(expect.arrayContaining(['cartridgeSpent', 'bypassWrong']));
    for (const none of ['fouled', 'coldWater', 'lineLow']) expect(ids('espresso')).not.toContain(none);
    expect(ids('skid')).toEqual(expect.arrayContaining(['loopSlow', 'ventCo2', 'uvLamp', 'recycleWide', 'pumpWeak']));
  });
});

describe('a system of somebody’s own', () => {
  it.each(demo.map((record) => [record.system.name, record] as const))(
    '%s: laid down whole, and a likely cause for its newest reading',
    (_, { system, readings }) => {
      const known = ground(system, readings.slice(0, -1));
      const laid = tableOf(known);
      expect(laid.leftOut.length).toBeLessThanOrEqual(1);
      const table = calibrated(laid, { system, before: readings.slice(0, -1), now: NOW });
      for (const { expected, ownSd } of table.nodes) for (const value of [...expected, ...ownSd]) expect(Number.isFinite(value)).toBe(true);
      const found = diagnose(table, asFaultReadings(system, readings.at(-1)!));
      if (!found.ok) throw new Error(found.error.message);
      expect(found.value.misfit).toBe(false);
      expect(found.value.causes.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 12);
      const checks = nextChecks(table, found.value, known.available);
      expect(checks[0]!.informationBits).toBeGreaterThan(0.05);
    },
  );
  it('the stories of the demonstration: a well one is well, an ageing membrane and a strong tap are seen', () => {
    const leading = (part: string): { id: string; probability: number } => {
      const { system, readings } = named(part);
      const before = readings.slice(0, -1);
      const table = calibrated(tableOf(ground(system, before)), { system, before, now: NOW });
      const found = diagnose(table, asFaultReadings(system, readings.at(-1)!));
      return ranked((found as { value: Parameters<typeof ranked>[0] }).value)[0]!;
    };
    expect(leading('coral').id).toBe('healthy');
    expect(leading('watermaker').id).toBe('healthy');
    expect(leading('ice').id).toBe('feedStrong');
    expect(['scaled', 'fouled', 'brineSeal']).toContain(leading('van').id);
  });
  it('what this very system does is taken from its first readings, and what changed since stays to be seen', () => {
    const { system, readings } = named('coral');
    const before = readings.slice(0, -1);
    const laid = tableOf(ground(system, before));
    // The same system, of which every flow was always a third higher than its class lets expect.
    const stronger = before.map((one) => ({ ...one, productLPerH: one.productLPerH && one.productLPerH * 1.33 }));
    const odds = (table: NodeTable, product: number): number => {
      const read: FaultReading[] = asFaultReadings(system, { ...readings.at(-1)!, productLPerH: product });
      const found = diagnose(table, read);
      return found.ok ? found.value.causes.find(({ id }) => id === 'healthy')!.probability : Number.NaN;
    };
    const usual = readings.at(-1)!.productLPerH!;
    const plain = calibrated(laid, { system, before, now: NOW });
    const own = calibrated(laid, { system, before: stronger, now: NOW });
    expect(odds(own, usual * 1.33)).toBeCloseTo(odds(plain, usual), 1);
    expect(odds(own, usual)).toBeLessThan(0.65 * odds(plain, usual));
  });
  it('without a hand-over and with a short log less is taken for known', () => {
    const { system, readings } = named('van');
    const fresh = { ...system, build: { ...system.build, commissioned: null } };
    expect(ground(fresh, readings.slice(0, 3)).shared).toBe(WITHOUT_BASELINE);
    expect(ground(fresh, readings).shared).toBe(WITH_BASELINE);
  });
  it('work of the last days raises what that work causes, age what wears', () => {
    const { system, readings } = named('van');
    const membrane = system.train.stages.find(({ kind }) => kind === 'membrane')!;
    const weight = (changed: System, id: string): number => ground(changed, readings).faults.find((one) => one.id === id)!.weight;
    const worked: System = {
      ...system,
      services: [
        {
          id: 'w',
          at: '2026-11-21T08:00:00Z',
          stageId: membrane.id,
          instrumentId: null,
          taskId: null,
          name: membrane.name,
          work: 'changed',
          why: 'due',
          note: '',
          fittedOn: null,
          passedL: null,
        },
      ],
    };
    expect(weight(worked, 'sealLeak') / weight(system, 'sealLeak')).toBeCloseTo(8, 9);
    const fitted = (day: string): System => ({
      ...system,
      train: { ...system.train, stages: system.train.stages.map((one) => (one.kind === 'membrane' ? { ...one, fittedOn: day } : one)) },
    });
    expect(weight(fitted('2020-11-23'), 'fouled')).toBeGreaterThan(10 * weight(fitted('2026-10-23'), 'fouled'));
  });
  it('a system of every template can be searched', () => {
    for (const id of TEMPLATE_IDS) {
      const system = systemFromTemplate({ id: 'x', name: 'x', site: 'y', template: id, at: NOW });
      const table = tableOf(ground(system, []));
      const found = diagnose(table, []);
      expect(found.ok && found.value.causes.length).toBeGreaterThan(4);
    }
  });
});
