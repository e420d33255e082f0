import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_KIT, TEMPLATE_IDS, withSample as changedSample, type Sample, type System, type TemplateId } from '../file';
import { evenDemand } from '../goal';
import { pumpEnergy } from '../life';
import { expectNear, expectWithin, value } from '../testing/close';
import { settleWater, type Water } from '../water';
import { newStage } from '../stage';
import { systemFromTemplate } from '../template';
import { polishedStation, productStation, type SolvedTrain, solveTrain, tapWater } from '../train';
import { stageFacts } from './known';
import { moreWater } from './moreWater';
import { reportTrain, type TrainReport } from './report';
import { footLine, trainTitle } from './inShort';
import { trainSentence } from './sentence';

const system = (template: TemplateId = 'marineHousehold', change: (s: System) => System = (s) => s): System =>
  change(systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template, at: '2026-11-23T10:00:00Z' }));
const water = (s: System): Water => value(tapWater(s.source, s.instruments)).water;
const solve = (s: System): SolvedTrain => value(solveTrain(s.train, s.source, water(s)));
const report = (s: System): TrainReport => value(reportTrain(s, water(s)));
const withSource =
  (change: Partial<System['source']>) =>
  (s: System): System => ({ ...s, source: { ...s.source, ...change } });
const withSample =
  (change: Partial<Sample>) =>
  (s: System): System => ({ ...s, source: changedSample(s.source, change) });

describe('the tap', () => {
  it('turns a reading into conductivity by the scale of its own meter', () => {
    const at07 = system('marineHousehold', (s) => ({
      ...s,
      instruments: [{ ...s.instruments[0]!, scale: { kind: 'factor', factor: 0.7 } }],
    }));
    expectWithin(value(settleWater({ ...water(at07), temperatureC: 25 })).ec25UScm, 240 / 0.7, 0.002);
  });
  it('refuses a reading of 0 and a lost meter', () => {
    const zero = system('marineHousehold', withSample({ reading: 0 }));
    expect(tapWater(zero.source, zero.instruments)).toMatchObject({ ok: false, error: { field: 'reading' } });
    expect(tapWater(zero.source, [])).toMatchObject({ ok: false, error: { field: 'instrumentId' } });
  });
});

describe('solving', () => {
  it.each(TEMPLATE_IDS)('%s: a station a stage, all finite, water only gets cleaner until the tank', (template) => {
    const s = system(template);
    const solved = solve(s);
    expect(solved.stations.map((station) => station.after)).toEqual(['tap', ...s.train.stages.map((stage) => stage.id)]);
    // Softeners and calcite give for what they take, an open tank takes up CO2.
    // A pump that takes concentrate back carries the mixture, stronger than the tap.
    const cleaning = solved.stations
      .filter((_, i, all) => !all.slice(0, i + 1).some(({ kind }) => kind === 'calcite'))
      .filter((station) => !['tank', 'pump', 'softener'].includes(station.kind))
      .map((station) => station.state.ec25UScm);
    const gives = s.train.stages.some((stage) => stage.kind === 'softener') ? 1.04 : 1.002;
    cleaning.slice(1).forEach((ec, i) => expect(ec).toBeLessThanOrEqual(cleaning[i]! * gives));
    for (const station of solved.stations) {
      for (const figure of [station.flowLPerH, station.pressureBar, station.state.pH, station.state.ec25UScm])
        expect(Number.isFinite(figure)).toBe(true);
    }
  });
  it('is plain data: the solution survives JSON', () => {
    const solved = solve(system('marinePair'));
    expect(JSON.parse(JSON.stringify(solved))).toEqual(solved);
  });
  it('conserves water between feed, product and waste', () => {
    const solved = solve(system());
    expectWithin(solved.productLPerH + solved.waste!.flowLPerH, solved.stations[0]!.flowLPerH, 1e-9);
  });
  it('filters take pressure in proportion to flow, and more when loaded', () => {
    const loaded = system('marineHousehold', (s) => ({
      ...s,
      train: { ...s.train, stages: s.train.stages.map((stage) => (stage.kind === 'sediment' ? { ...stage, loading: 0.9 } : stage)) },
    }));
    const clean = solve(system()).stations[1]!.pressureBar;
    expect(solve(loaded).stations[1]!.pressureBar).toBeLessThan(clean - 0.05);
  });
  it('a tank a floor up costs output', () => {
    const lifted = system('marineHousehold', (s) => ({
      ...s,
      train: { ...s.train, stages: s.train.stages.map((stage) => (stage.kind === 'tank' ? { ...stage, liftM: 10 } : stage)) },
    }));
    // 10 m of water are 0.98 bar of the 3.9 the membrane has.
    expectWithin(solve(lifted).productLPerH / solve(system()).productLPerH, 0.75, 0.04);
  });
  it('carbon removes chlorine; without it the membrane is in danger', () => {
    expect(solve(system()).stations[2]!.water.mgL.chlorine).toBeLessThan(0.01);
    const bare = system('marineHousehold', (s) => ({
      ...s,
      train: { ...s.train, stages: s.train.stages.filter((stage) => stage.kind !== 'carbon') },
    }));
    const finding = report(bare).findings.find((f) => f.id === 'chlorine');
    expect(finding).toMatchObject({ severity: 'bad' });
    expect(finding!.title).toContain('0.5');
  });
  it('chloramine leaves ammonia behind the carbon', () => {
    const s = system(
      'marinePair',
      withSample({ chlorineMgL: 0, chloramineMgL: 2, way: 'kit', kit: { ...NO_KIT, pH: 8.5, alkalinityMgL: 80 } }),
    );
    const solved = solve(s);
    // 2.0 mg/L as Cl2 hold 0.395 mg/L N (water chapter, row 69).
    // What little the carbon lets through still holds its share.
    const behind = solved.stations[3]!.water.mgL;
    expectWithin(behind.NH4N + (behind.chloramine * 0.395) / 2, 0.395, 0.005);
    expect(solved.stations[4]!.water.mgL.NH4N).toBeGreaterThan(0.02);
    expect(productStation(solved).water.mgL.NH4N).toBeLessThan(0.0011);
  });
  it('spent resin lets the water through', () => {
    const s = system();
    const used = value(solveTrain(s.train, s.source, water(s), { resin: { cationEq: 50, anionEq: 50 } }));
    expectWithin(polishedStation(used).state.ec25UScm, used.stations[3]!.state.ec25UScm, 0.01);
    // The floor of a small cartridge (corrections, section 8).
    expectNear(polishedStation(solve(s)).state.ec25UScm, 0.111, 0.002);
  });
  it('resin whose anion side is spent leaves acid, while the membrane before it leaves a weak soda', () => {
    const s = system();
    const spent = polishedStation(value(solveTrain(s.train, s.source, water(s), { resin: { cationEq: 0.1, anionEq: 0.37 } })));
    expect(spent.state.pH).toBeLessThan(5.3);
  });
  it('zero pressure makes nothing and says how to mend it', () => {
    const r = report(system('marineHousehold', withSource({ linePressureBar: 0 })));
    expect(r.solved.productLPerH).toBe(0);
    expect(r.findings.find((f) => f.id === 'noProduction')!.why).toContain('Raise the line pressure');
  });
  it('two membrane stages are refused with the way out', () => {
    const s = system('marineHousehold', (base) => ({
      ...base,
      train: { ...base.train, stages: [...base.train.stages, newStage('membrane', 'second')] },
    }));
    const outcome = solveTrain(s.train, s.source, water(s));
    expect(outcome.ok ? '' : outcome.error.message).toContain('put both elements into one stage');
  });
  it('random trains converge and never show NaN', () => {
    const stage = fc.constantFrom('sediment', 'carbon', 'resin', 'tank', 'membrane');
    fc.assert(
      fc.property(
        fc.array(stage, { maxLength: 8 }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.double({ min: 20, max: 2000, noNaN: true }),
        (kinds, bar, reading) => {
          const once = kinds.filter((kind, i) => kind !== 'membrane' || kinds.indexOf('membrane') === i);
          const s = system('marineHousehold', (base) =>
            withSample({ reading })(
              withSource({ linePressureBar: bar })({
                ...base,
                train: { ...base.train, stages: once.map((kind, i) => newStage(kind as 'tank', `s${i}`)) },
              }),
            ),
          );
          const outcome = reportTrain(s, water(s));
          expect(outcome.ok ? '' : outcome.error.message).toBe('');
          const text = JSON.stringify(outcome);
          expect(text).not.toMatch(/NaN|Infinity/);
          expect(text).not.toContain('"ec25UScm":null');
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe('findings', () => {
  const titles = (s: System): string =>
    report(s)
      .findings.map((f) => `${f.title} ${f.why}`)
      .join('\n')
      .replaceAll('\u202f', ' ');
  it('say that the goal is met, with the number', () =>
    expect(report(system()).findings[0]).toMatchObject({ id: 'goal', severity: 'good' }));
  it('say by how much a goal is missed', () => {
    const bare = system('marineHousehold', (s) => ({
      ...s,
      train: { ...s.train, stages: s.train.stages.filter((stage) => stage.kind !== 'resin') },
    }));
    expect(report(bare).findings[0]).toMatchObject({ severity: 'bad' });
    expect(titles(bare)).toMatch(/Conductivity 10\.\d µS\/cm, the goal is at most 2\.0 µS\/cm/);
  });
  it('a crew with its own limit is judged by it', () => {
    const crew = (ppm: number): System =>
      system('vanTank', (s) => ({
        ...s,
        goal: { ...s.goal, crewLimitPpm: ppm },
        train: { ...s.train, stages: s.train.stages.filter((stage) => stage.kind !== 'resin') },
      }));
    expect(report(crew(0)).findings[0]!.severity).toBe('bad');
    expect(report(crew(20)).findings[0]!.severity).toBe('good');
  });
  it('winter, demand, pressure and ratio carry their numbers', () => {
    expect(
      titles(
        system(
          'marineHousehold',
          withSource({ season: { lowestTemperatureC: 4, highestTemperatureC: 20, weakestUScm: null, strongestUScm: null } }),
        ),
      ),
    ).toMatch(/Winter leaves 6\d % of the output/);
    expect(titles(system('marineHousehold', (s) => ({ ...s, goal: { ...s.goal, demand: evenDemand(500, 'day') } })))).toContain(
      'the need is 500 L/day',
    );
    expect(titles(system('marineHousehold', withSource({ linePressureBar: 2.5 })))).toContain('Line pressure 2.50 bar is low');
    expect(titles(system('marineHousehold', withSource({ linePressureBar: 6.5 })))).toContain('Line pressure 6.50 bar is too high');
  });
  it('scaling names the ratio that avoids it, or that none does', () => {
    const chalk = titles(system('marineHousehold', withSample({ character: 'chalk', reading: 300 })));
    expect(chalk).toContain('so no ratio cures it');
    const soft = titles(system('marineHousehold', withSample({ character: 'softSurface', reading: 60 })));
    expect(soft).toMatch(/No scale at/);
    const between = report(system('marineHousehold', withSample({ reading: 170 }))).findings.find((f) => f.id === 'scale')!;
    expect(between.severity === 'good' || between.action?.do === 'setWasteRatio').toBe(true);
  });
  it('most of the resin goes to dissolved CO2 behind a membrane, and it is said', () =>
    expect(titles(system())).toMatch(/17 % of its load is strong ions, 26 % bicarbonate, 58 % CO₂ and silica, which no meter shows/));
  it('carbon that chloramine uses up in days is told by its days, and not where there is enough of it', () => {
    const bound = (times: number): string =>
      report(
        system('vanTank', (s) => ({
          ...withSample({ chlorineMgL: 0, chloramineMgL: 2 })(s),
          train: {
            ...s.train,
            stages: s.train.stages.map((one) => (one.kind === 'carbon' ? { ...one, volumeL: 8, ratedL: one.ratedL * times } : one)),
          },
        })),
      )
        .findings.map(({ title }) => title)
        .join();
    expect(bound(1)).toMatch(/Carbon lasts about \d+ (days|weeks) against chloramine/);
    expect(bound(40)).not.toContain('against chloramine');
  });
  it('a second element shortens the contact with carbon, and More water says so', () => {
    const house = system();
    const pair = moreWater(house, water(house)).find(({ id }) => id === 'series')!;
    const said = /The carbon gets (\d+).s of contact instead of (\d+)/.exec(pair.mind!);
    expect(Number(said![1])).toBeLessThan(0.85 * Number(said![2]));
  });
  it('the first litres of a fresh bed after a night stand above its floor', () => {
    const house = system();
    const resin = house.train.stages.find(({ kind }) => kind === 'resin')!;
    const [, text] = stageFacts(resin, report(house), { ...house.units, strength: 'µS/cm' }).find(([name]) => name.startsWith('First'))!;
    // Floor of a cartridge: 0.4 µmol/L of salt; five times that conducts 0.25 µS/cm above pure water.
    expectWithin(Number(/[\d.]+/.exec(text)![0]), 0.055 + 5 * 0.4e-3 * 126.45, 0.15);
  });
  describe('what nobody measured', () => {
    const known = (s: System): TrainReport => {
      const tap = value(tapWater(s.source, s.instruments));
      return value(reportTrain(s, tap.water, {}, undefined, tap));
    };
    const bar = (kit: Partial<Sample['kit']> | null, reading = 350): System =>
      system('espressoBar', (s) =>
        withSource({ assumed: [] })(withSample({ reading, ...(kit ? { way: 'kit', kit: { ...NO_KIT, ...kit } } : { way: 'meter' }) })(s)),
      );
    const goal = (s: System): string => known(s).findings.find(({ id }) => id === 'goal')!.title;
    it('a limit missed by a figure that was assumed says so, with its doubt; a measured one is a fact', () => {
      expect(goal(bar(null))).toMatch(/, assumed [\d.]+ ± [\d.]+.*: the goal is at (most|least)/);
      expect(goal(bar({ hardnessMgL: 300, alkalinityMgL: 240 }))).not.toContain('assumed');
    });
    it('is not ranked as a fact unless no kit could save it', () => {
      const checks = (s: System): string[] =>
        known(s)
          .checks.filter(({ verdict, side }) => verdict !== 'met' && side !== null)
          .map((check) => `${check.limit.quantity} ${check.verdict === 'unknown' ? 'perhaps' : 'surely'}`);
      // On a middling tap the cartridge leaves what it leaves within a kit's reach; on a strong one nothing helps.
      const tested = checks(bar({ hardnessMgL: 300, alkalinityMgL: 240, pH: 7.4 })).filter((check) =>
        /^(hardness|alkalinity|pH)/.test(check),
      );
      for (const check of tested) expect(check).toContain('surely');
      expect(known(bar(null)).checks.filter(({ assumed }) => assumed).length).toBeGreaterThan(2);
    });
    it('chlorine of a template is assumed until somebody looks', () => {
      const house = system();
      expect(value(tapWater(house.source, house.instruments)).origins.chlorine).toBe('assumed');
      const looked = { ...house, source: { ...house.source, assumed: [] } };
      expect(value(tapWater(looked.source, looked.instruments)).origins.chlorine).toBe('measured');
    });
    it('a reading of 350 ppm stays 350 in the title, whatever the completed water comes to', () => {
      const odd = bar({ hardnessMgL: 330, alkalinityMgL: 260, pH: 7.6 });
      expect(known(odd).tapReadUScm).toBe(700);
      expect(trainTitle({ ...odd, units: { ...odd.units, strength: 'ppm' } }, known(odd))).toMatch(/^From 350.ppm/);
    });
  });
  it('a boat is told its amps at both voltages, and what a day takes out of the battery', () => {
    const boat = system('watermaker', (s) => ({ ...s, goal: { ...s.goal, demand: evenDemand(120, 'day') } }));
    const made = report(boat);
    const { title, why } = made.findings.find(({ id }) => id === 'battery')!;
    const [, at12, at24] = /about ([\d.]+).A at 12.V, ([\d.]+).A at 24.V/.exec(title)!;
    // P = p·Q/(36 η) by its definition: 12 V carry twice the amps of 24.
    const watts = pumpEnergy(boat, made.solved)! * made.solved.productLPerH;
    expectWithin(Number(at12), watts / 12, 0.02);
    expectWithin(Number(at24), watts / 24, 0.02);
    expect(why).toMatch(/A day's 120.L take \d+.Ah at 12.V/);
    expect(footLine(boat, made)[0]![0]).toMatch(/L\/h$/);
    expect(report(system()).findings.some(({ id }) => id === 'battery')).toBe(false);
  });
  it('read the train in one sentence', () => {
    const s = system();
    expect(trainSentence(solve(s), s.units)).toMatch(/^Tap at .* then Membrane leaves .*; waste at /);
  });
});
