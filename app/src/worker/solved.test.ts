import { readFileSync } from 'node:fs';
import { lifeOf, simulateBeds } from '@yes-clear/core/exchange';
import { readDocument, type SystemRecord } from '@yes-clear/core/file';
import { describe, expect, it } from 'vitest';
import { solveSystem, type KnownLives, type Solved } from './solved';

const read = readDocument(readFileSync(new URL('../../../demo/tressimoor-coral-nursery.yesclear.json', import.meta.url), 'utf8'));
if (!read.ok) throw new Error(read.error.message);
const record = read.records[0]!;
/** The demonstration's first resin, made smaller until it stands at its fronts. */
const small = ({ system }: SystemRecord, volumeL: number): SystemRecord['system'] => ({
  ...system,
  train: {
    ...system.train,
    stages: system.train.stages.map((stage) => (stage.id === 'resin-1' && stage.kind === 'resin' ? { ...stage, volumeL } : stage)),
  },
});
const NOW = `${record.readings.at(-1)!.at.slice(0, 10)}T12:00:00Z`;
const solved = (volumeL: number, lives?: KnownLives): Solved => {
  const outcome = solveSystem(small(record, volumeL), record.readings, NOW, lives);
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
};
const silica = ({ report }: Solved): number => report.solved.stations.find(({ after }) => after === 'resin-1')!.water.mgL.SiO2;

describe('a resin near its fronts', () => {
  it('is a first estimate until its row has been run, then the train reads the run', () => {
    const first = solved(1.5);
    expect(first.estimated.map(({ stageId }) => stageId)).toEqual(['resin-1']);
    const { key, chain, litres } = first.estimated[0]!;
    const run = simulateBeds(chain.beds, chain.water, chain.flowLPerH, { least: 1.2 * litres });
    if (!run.ok) throw new Error(run.error.message);
    const then = solved(1.5, new Map([[key, lifeOf(run.value)]]));
    expect(then.estimated).toEqual([]);
    expect(silica(then)).not.toBe(silica(first));
    // Both are of one bed: on a steep edge an estimate within a few times, not another water.
    expect(Math.abs(Math.log(silica(then) / silica(first)))).toBeLessThan(Math.log(6));
  });
  it('far from them nothing is asked', () => expect(solved(20).estimated).toEqual([]));
});
