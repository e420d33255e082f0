import { describe, expect, it } from 'vitest';
import { systemFromTemplate } from '../train';
import { readDocument, systemSchema, writeDocument, TEMPLATE_IDS, type FileOutcome, type Reading, type SystemRecord } from './index';

const record: SystemRecord = {
  system: systemFromTemplate({ id: 'sys-1', name: 'Bench unit', site: 'Workshop', template: 'marinePair', at: '2026-11-23T10:00:00Z' }),
  readings: [
    {
      id: 'r1', systemId: 'sys-1', at: '2026-11-23T10:05:00Z', values: [{ probeId: 'probe-tap', instrumentId: 'meter', shown: 311 }],
      pressureBar: 4.1, temperatureC: 11.25, productLPerH: 24.6, wasteLPerH: 90, meterL: 5230, note: 'first',
    } satisfies Reading,
  ],
};
const saved = writeDocument([record], '2026-11-23T11:00:00Z');
/** The saved file with one change somewhere inside. */
function altered(change: (data: { records: { system: Record<string, never>; readings: never[] }[] } & Record<string, unknown>) => void): FileOutcome {
  const data = JSON.parse(saved);
  change(data);
  return readDocument(JSON.stringify(data));
}
const message = (outcome: FileOutcome): string => (outcome.ok ? '' : outcome.error.message);

describe('a file', () => {
  it('comes back identical', () => {
    const outcome = readDocument(saved);
    expect(outcome.ok && outcome.records).toEqual([record]);
    expect(outcome.ok && writeDocument(outcome.records, outcome.savedAt)).toBe(saved);
  });
  it.each(TEMPLATE_IDS)('every template is a valid system: %s', (template) => {
    const system = systemFromTemplate({ id: 'x', name: 'n', site: 's', template, at: '2026-11-23T10:00:00Z' });
    expect(systemSchema.parse(system)).toEqual(system);
  });
  it('says when it breaks off', () => expect(message(readDocument(saved.slice(0, 200)))).toContain('breaks off or is not JSON'));
  it.each(['[]', '{"a":1}', '"text"', 'null', '{"format":"other"}'])('says when it is another program’s: %s', (text) => expect(message(readDocument(text))).toContain('not a Yes Clear file'));
  it('says when it is newer', () => expect(message(altered((d) => (d['version'] = 9)))).toContain('newer Yes Clear (version 9)'));
  it('names path, value and expectation of a wrong value', () => {
    const outcome = altered((d) => ((d.records[0]!.system as Record<string, Record<string, unknown>>)['source']!['linePressureBar'] = -3));
    expect(outcome.ok ? [] : outcome.error.issues).toEqual([{ path: 'records[0].system.source.linePressureBar', value: '-3', expected: 'at least 0' }]);
    expect(message(outcome)).toContain('records[0].system.source.linePressureBar is -3; accepted is at least 0');
  });
  it.each<[string, (system: Record<string, any>) => void, string]>([ // eslint-disable-line @typescript-eslint/no-explicit-any
    ['a missing field', (s) => delete s['goal'], 'system.goal is missing; accepted is an object'],
    ['an unknown element', (s) => (s['train'].stages[3].elementClass = '9999'), 'system.train.stages[3].elementClass is "9999"; accepted is one of'],
    ['an extra key', (s) => (s['colour'] = 'blue'), 'no "colour" here'],
    ['a text for a number', (s) => (s['source'].linePressureBar = '4 bar'), 'is "4 bar"; accepted is a number'],
    ['a probe behind no stage', (s) => (s['train'].probes[1].after = 'gone'), 'train.probes[1].after is "gone"; accepted is "tap" or the id of a stage'],
    ['an unknown meter', (s) => (s['source'].sample.instrumentId = 'lost'), 'instrumentId is "lost"; accepted is the id of an instrument'],
    ['a bad date', (s) => (s['source'].sample.takenOn = 'yesterday'), 'accepted is a date such as'],
  ])('%s', (_, change, part) => expect(message(altered((d) => change(d.records[0]!.system)))).toContain(part));
  it('a reading of another system', () => expect(message(altered((d) => ((d.records[0]!.readings as unknown as { systemId: string }[])[0]!.systemId = 'zz')))).toContain('readings[0].systemId is "zz"'));
});
