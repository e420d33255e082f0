import { describe, expect, it } from 'vitest';
import { ionicLoad, lifeKey, lifeOf, POLISH_FLOORS, simulateBeds, type BedLife, type ColumnRun } from '../exchange';
import { type Stage, type StageOf, newStage, type TrainUse } from '../stage';
import type { System } from '../file';
import { expectNear, expectWithin, value } from '../testing/close';
import { columnMarks, livesAsked, outMgL, resinChain, unspentMm, withLives } from './column';
import { systemFromTemplate } from '../template';
import { solveTrain, tapWater } from '../train';

const system = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marinePair', at: '2026-11-23T10:00:00Z' });
const solvedOf = (of: System) => value(solveTrain(of.train, of.source, value(tapWater(of.source, of.instruments)).water));
const solved = solvedOf(system);
const resin = system.train.stages.find((stage): stage is StageOf<'resin'> => stage.id === 'resin-1')!;

describe('the row of beds a column is run with', () => {
  it('ends at the stage asked for and starts at the first of the row', () => {
    const one = resinChain(system.train.stages, solved, 'resin-1')!;
    const two = resinChain(system.train.stages, solved, 'resin-2')!;
    expect([one.beds.length, two.beds.length]).toEqual([1, 2]);
    // Both meet the water behind the membrane.
    const permeate = solved.stations.find((station) => station.after === 'membrane')!;
    expect(two.water).toBe(permeate.water);
    expect(two.flowLPerH).toBe(permeate.flowLPerH);
  });
  it('tubing between two beds does not part them, a tank does', () => {
    const between = (stage: Stage): System => {
      const at = system.train.stages.findIndex((one) => one.id === 'resin-2');
      const stages = [...system.train.stages];
      stages.splice(at, 0, stage);
      return { ...system, train: { ...system.train, stages } };
    };
    const beds = (of: System): number => resinChain(of.train.stages, solvedOf(of), 'resin-2')!.beds.length;
    expect(beds(between(newStage('tubing', 'hose')))).toBe(2);
    expect(beds(between(newStage('tank', 'between')))).toBe(1);
  });
  it('what is no resin, or has no water, has none', () => {
    expect(resinChain(system.train.stages, solved, 'membrane')).toBeNull();
    expect(resinChain(system.train.stages, solved, 'gone')).toBeNull();
    const dry = solvedOf({ ...system, source: { ...system.source, linePressureBar: 0 } });
    expect(resinChain(system.train.stages, dry, 'resin-1')).toBeNull();
  });
});

describe('the marks in its life', () => {
  const chain = resinChain(system.train.stages, solved, 'resin-1')!;
  const run: ColumnRun = value(simulateBeds(chain.beds, chain.water, chain.flowLPerH));
  const marks = columnMarks(system, resin, run);
  it('come in the order they happen, within the run', () => {
    expect(marks.length).toBeGreaterThanOrEqual(3);
    marks.slice(1).forEach((mark, i) => expect(mark.litres).toBeGreaterThanOrEqual(marks[i]!.litres));
    for (const mark of marks) expect(mark.litres).toBeLessThanOrEqual(run.litres.at(-1)!);
  });
  it('silica passes the goal before the meter shows a ppm', () => {
    const at = (id: string): number => marks.find((mark) => mark.id === id)!.litres;
    expect(at('silica')).toBeLessThan(at('meter'));
    const limit = 0.1;
    const k = run.litres.findIndex((litres) => litres >= at('silica'));
    expect(outMgL(run, 'SiO2')[k]!).toBeGreaterThanOrEqual(limit * 0.9);
  });
  it('the meter shows 1 ppm from a half on: 1 µS/cm at factor 0.5', () => {
    const at = marks.find((mark) => mark.id === 'meter')!.litres;
    const k = run.litres.findIndex((litres) => litres >= at);
    expect(run.ec25UScm[k]!).toBeGreaterThanOrEqual(1);
    expect(run.ec25UScm[k - 1]!).toBeLessThanOrEqual(1);
  });
  it('colour shrinks from the whole bed to nothing; the change comes at a centimetre', () => {
    expectWithin(unspentMm(run, resin.depthMm, 0), resin.depthMm, 1e-9);
    const left = run.moments.map((_, k) => unspentMm(run, resin.depthMm, k));
    left.slice(1).forEach((mm, k) => expect(mm).toBeLessThanOrEqual(left[k]! + 1e-9));
    const at = marks.find((mark) => mark.id === 'colour')!.litres;
    const k = run.moments.findIndex((moment) => moment.litres >= at);
    expect(left[k]!).toBeLessThanOrEqual(10);
    expect(columnMarks(system, { ...resin, resinClass: 'mixedBed' }, run).some((mark) => mark.id === 'colour')).toBe(false);
  });
  it('a crew that runs on has a mark of its own', () => {
    const crew: System = { ...system, goal: { ...system.goal, id: 'windowCleaning', crewLimitPpm: 2 } };
    const own = columnMarks(crew, resin, run);
    const meter = own.find((mark) => mark.id === 'meter')!;
    const limit = own.find((mark) => mark.id === 'crew');
    if (limit) expect(limit.litres).toBeGreaterThan(meter.litres);
    expect(own.some((mark) => mark.id === 'silica')).toBe(false);
  });
});

describe('the train reads the column where a bed stands near its fronts', () => {
  const house = systemFromTemplate({ id: 's', name: 'n', site: 's', template: 'marineHousehold', at: '2026-11-23T10:00:00Z' });
  const { water } = value(tapWater(house.source, house.instruments));
  const fresh = value(solveTrain(house.train, house.source, water));
  const chain = resinChain(house.train.stages, fresh, 'resin')!;
  const run = value(simulateBeds(chain.beds, chain.water, chain.flowLPerH));
  const load = ionicLoad(chain.water);
  const after = (litres: number): TrainUse => ({
    resin: { cationEq: (litres * load.cationMeqL) / 1000, anionEq: (litres * load.anionMeqL) / 1000, passedL: litres },
  });
  const lives = new Map([[lifeKey(chain), lifeOf(run)]]);
  const solvedAt = (litres: number, known: ReadonlyMap<string, BedLife>): { silica: number; nitrate: number; asked: number } => {
    const used = after(litres);
    const first = value(solveTrain(house.train, house.source, water, used));
    const asked = livesAsked(house.train.stages, first, used);
    const solved = value(solveTrain(house.train, house.source, water, withLives(used, asked, known)));
    const { mgL } = solved.stations.find((station) => station.after === 'resin')!.water;
    return { silica: mgL.SiO2, nitrate: mgL.NO3, asked: asked.length };
  };
  const end = run.litres.at(-1)!;
  const at = (values: readonly number[], litres: number): number => {
    const k = run.litres.findIndex((one) => one >= litres);
    const share = (litres - run.litres[k - 1]!) / (run.litres[k]! - run.litres[k - 1]!);
    return values[k - 1]! + share * (values[k]! - values[k - 1]!);
  };

  it('gives the cells’ silica and nitrate at its own litres, with the floor', () => {
    for (const share of [0.5, 0.7, 0.8, 0.9]) {
      const { silica, nitrate, asked } = solvedAt(share * end, lives);
      expect(asked).toBe(1);
      expectWithin(silica, at(outMgL(run, 'SiO2'), share * end) + POLISH_FLOORS.cartridge.silicaMgL, 1e-6);
      expectNear(nitrate, at(outMgL(run, 'NO3'), share * end), 1e-9);
    }
  });
  it('the first estimate stands until then, and past the end of the run; a fresh bed asks for none', () => {
    const estimate = solvedAt(0.8 * end, new Map());
    expect(estimate.asked).toBe(1);
    expect(estimate.silica).not.toBe(solvedAt(0.8 * end, lives).silica);
    expect(solvedAt(3 * end, lives).silica).toBe(solvedAt(3 * end, new Map()).silica);
    expect(solvedAt(0.1 * end, lives).asked).toBe(0);
  });
  it('a run further than its default is asked for where a bed stands further', () =>
    expect(value(simulateBeds(chain.beds, chain.water, chain.flowLPerH, { least: 2 * end })).litres.at(-1)!).toBeGreaterThan(1.9 * end));
  it('one key is one run: three digits of the water, two of the flow', () => {
    const near = {
      ...chain,
      flowLPerH: chain.flowLPerH * 1.0001,
      water: { ...chain.water, carbonMmolL: chain.water.carbonMmolL * 1.00001 },
    };
    expect(lifeKey(near)).toBe(lifeKey(chain));
    expect(lifeKey({ ...chain, flowLPerH: 2 * chain.flowLPerH })).not.toBe(lifeKey(chain));
    expect(lifeKey({ ...chain, beds: [{ ...chain.beds[0]!, packing: 0.75 }] })).not.toBe(lifeKey(chain));
  });
});
