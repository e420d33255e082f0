import { describe, expect, it } from 'vitest';
import { NO_KIT, NO_REPORT, withSample, type Sample, type System } from '../file';
import { type GoalId, evenDemand } from '../goal';
import { readReport } from '../report';
import { expectWithin, value } from '../testing/close';
import { ammoniaAfterCarbonMgL } from '../water';
import { reportTrain } from './report';
import { seasonSpan, tapWater } from '../train';
import { systemFromTemplate } from '../template';
import { waterMeaning } from './meaning';
import type { Finding } from '../stage';

const unread = systemFromTemplate({ id: 's', name: 'Test', site: 'Bench', template: 'marineHousehold', at: '2026-11-23T10:00:00Z' });
/** The same, its figures confirmed. */
const base: System = { ...unread, source: { ...unread.source, assumed: [] } };
const forGoal = (id: GoalId, sample: Partial<Sample> = {}, change: (s: System) => System = (s) => s): System =>
  change({ ...base, goal: { ...base.goal, id }, source: withSample(base.source, sample) });
function meaning(system: System): Finding[] {
  const water = value(tapWater(system.source, system.instruments));
  const report = reportTrain(system, water.water);
  return waterMeaning(system, water, report.ok ? report.value.solved : null, seasonSpan(system.source, system.instruments));
}
const finding = (system: System, id: string): Finding | undefined => meaning(system).find((one) => one.id === id);
const plain = (text: string): string => text.replace(/[\u202f\u2009]/g, ' ');
const says = (system: System, id: string): string => {
  const one = finding(system, id);
  return one ? plain(`${one.severity}: ${one.title}. ${one.why}`) : '';
};
const kit = (changes: Partial<Sample['kit']>): Partial<Sample> => ({ way: 'kit', kit: { ...NO_KIT, ...changes } });
const pasted = (text: string, closeBalance = false): Partial<Sample> => ({
  way: 'report',
  report: { ...NO_REPORT, text, values: value(readReport(text)).rows.flatMap((row) => (row.value ? [row.value] : [])), closeBalance },
});
const CHALK =
  'Calcium 105 mg/l\nMagnesium 5 mg/l\nSodium 12 mg/l\nPotassium 2 mg/l\nAlkalinity 234 mg/l\nChloride 22 mg/l\nSulfate 25 mg/l\nNitrate 25 mg/l\nConductivity 590 µS/cm\npH 7.4';

describe('what a water means', () => {
  it('to an espresso machine: lime at boiler heat, chloride and corrosion, and nothing of fish', () => {
    const chalk = forGoal('espresso', { ...pasted(CHALK), character: 'chalk' });
    // Row 73 of the water chapter: 147.5 ± 2 mg/L at 125 °C; the calcium alone would allow 262, the alkalinity 234.
    expect(says(chalk, 'scale')).toMatch(
      /bad: 14[5-9] mg\/L of lime at 125 °C, up to 234 mg\/L where it steams\. Untreated that is 89 g a month in the boiler/,
    );
    expect(says(chalk, 'corrosion')).toMatch(/Ryznar index 6\.9: a corrosive tendency/);
    expect(meaning(chalk).some((one) => one.id === 'ammonia' || one.id === 'spots')).toBe(false);
    expect(says(forGoal('espresso', { ...pasted(CHALK.replace('Chloride 22', 'Chloride 80')) }), 'chloride')).toMatch(
      /bad: Chloride 80 mg\/L, the goal is at most 50/,
    );
  });
  it('to a fish breeder at high pH: ammonia from chloramine, most of it free, and how much passes', () => {
    const high = forGoal('marineMakeUp', {
      ...kit({ pH: 9.4, alkalinityMgL: 60 }),
      reading: 90,
      chlorineMgL: 0,
      chloramineMgL: 2,
      temperatureC: 15,
    });
    // Rows 68 and 69: 0.395 mg/L of nitrogen, 0.41 of it free at 15 °C.
    expect(says(high, 'ammonia')).toMatch(
      /bad: 0\.4\d? mg\/L of ammonia nitrogen after carbon, 4[01] % of it free at pH 9\.4\. All of it from chloramine/,
    );
    const passage = Number(/through \((\d+) %\)/.exec(says(high, 'ammonia'))![1]);
    // Common practice, row 70: passage lies about the free share.
    expect(passage).toBeGreaterThan(25);
    expect(passage).toBeLessThan(65);
    const low = forGoal('marineMakeUp', { ...kit({ pH: 7.2, alkalinityMgL: 60 }), reading: 90, chlorineMgL: 0, chloramineMgL: 2 });
    expect(Number(/through \((\d+) %\)/.exec(says(low, 'ammonia'))![1])).toBeLessThan(15);
  });
  describe('of an ammonia kit', () => {
    // Handbook of kinds, 8.6: what a kit reads is chloramine as far as total chlorine goes.
    const read = (changes: Partial<Sample>, assumed: System['source']['assumed'] = []): System =>
      forGoal('freshwaterCommunity', { ...kit({ ammoniaMgL: 0.72 }), chlorineMgL: 0, ...changes }, (s) => ({
        ...s,
        source: { ...s.source, assumed },
      }));
    it('with total chlorine tested, tells ammonia and chloramine apart', () => {
      const { water, origins } = value(tapWater(read({ chloramineMgL: 1.5 }).source, base.instruments));
      expectWithin(water.mgL.NH4N, 0.4237, 0.005);
      expect([water.mgL.chloramine, origins.NH4N]).toEqual([1.5, 'measured']);
      // No nitrogen is lost or made: carbon sets all of it free.
      expectWithin(ammoniaAfterCarbonMgL(water.mgL), 0.72, 1e-6);
    });
    it('of mains whose chlorine nobody tested, takes two thirds for chloramine, as an assumption', () => {
      const { water, origins, plusMinusMgL } = value(tapWater(read({}, ['chlorine']).source, base.instruments));
      expectWithin(water.mgL.NH4N, 0.24, 0.005);
      expectWithin(ammoniaAfterCarbonMgL(water.mgL), 0.72, 1e-6);
      expect([origins.NH4N, origins.chloramine]).toEqual(['assumed', 'assumed']);
      expect(plusMinusMgL.NH4N).toBeGreaterThan(0.1);
      // No chloramine is dosed to a rain barrel.
      const rain = value(tapWater(read({ character: 'rain', reading: 20 }, ['chlorine']).source, base.instruments));
      expectWithin(rain.water.mgL.NH4N, 0.72, 1e-6);
    });
    it('that reads more than the conductivity holds, says so and takes the rest for chloramine', () => {
      const pure = read({ character: 'rain', reading: 10 });
      const kitted = { ...pure, source: withSample(pure.source, kit({ ammoniaMgL: 3 })) };
      expect(says(kitted, 'ammoniaHeld')).toMatch(
        /mind: The kit reads 3\.0 mg\/L of ammonia; .* can hold 2\.4 mg\/L\. Ammonia conducts, chloramine does not/,
      );
      const { water } = value(tapWater(kitted.source, base.instruments));
      expectWithin(water.mgL.NH4N, 2.37, 0.01);
      expect(finding(read({ reading: 240 }), 'ammoniaHeld')).toBeUndefined();
    });
    it('on a product that chloramine reaches, is told what of it is ammonia', () => {
      const bare = (s: System): System => ({
        ...s,
        train: { ...s.train, stages: s.train.stages.filter(({ kind }) => kind !== 'carbon' && kind !== 'membrane') },
      });
      const resinAlone = forGoal('marineMakeUp', { chlorineMgL: 0, chloramineMgL: 1.5 }, bare);
      expect(says(resinAlone, 'ammoniaKit')).toMatch(
        /An ammonia kit on the product reads 0\.3 mg\/L: 0\.3 mg\/L is chloramine\. No resin takes chloramine/,
      );
      expect(finding(forGoal('marineMakeUp', { chlorineMgL: 0.5, chloramineMgL: 0 }), 'ammoniaKit')).toBeUndefined();
    });
  });
  it('to a window: mineral left on a square metre', () => {
    const van = forGoal('windowCleaning', { character: 'chalk', reading: 295 }, (s) => ({ ...s, goal: { ...s.goal, crewLimitPpm: 5 } }));
    // Row 33: residue 348 mg/L; 30 mL of it hold 10.4 mg.
    expect(says(van, 'spots')).toMatch(
      /mind: The tap would leave 10\.[45] mg of mineral on each m² of glass\. With 30 mL .* 5 ppm it is about 0\.1[05]? mg/,
    );
  });
  it('to carbon: grams of chlorine in a year of feed', () => {
    const system = forGoal('windowCleaning', { chlorineMgL: 1 }, (s) => ({
      ...s,
      goal: { ...s.goal, demand: evenDemand(100, 'day') },
      train: { ...s.train, stages: s.train.stages.filter((stage) => stage.kind !== 'membrane') },
    }));
    expect(says(system, 'chlorine')).toContain('A year brings the carbon 37 g of it, at 100 L/day of feed');
  });
  it('to drinkers: nitrate, taste and softened sodium', () => {
    expect(says(forGoal('drinking', { ...kit({ nitrateMgL: 62 }) }), 'nitrate')).toMatch(/bad: Nitrate 62 mg\/L, the goal is at most 50/);
    expect(says(forGoal('drinking', { character: 'softened', reading: 300 }), 'sodium')).toMatch(
      /mind: Sodium 1\d\d mg\/L in place of hardness/,
    );
    expect(says(forGoal('drinking', { character: 'chalk', reading: 295 }), 'strength')).toContain('Taste of so much: good');
  });
  it('names silica and the share that must go', () => {
    expect(says(forGoal('marineMakeUp', kit({ silicaMgL: 10 })), 'silica')).toMatch(/Silica 10 mg\/L: 99\.0 % must go/);
    expect(finding(forGoal('windowCleaning'), 'silica')).toBeUndefined();
  });
  it('says how sure it is', () => {
    expect(says(forGoal('marineMakeUp'), 'sure')).toMatch(/note: 1 reading, everything else assumed/);
    expect(says(forGoal('marineMakeUp', pasted(CHALK)), 'sure')).toMatch(/good: 1\d of 19 figures known/);
  });
  it('calls no figure measured that a template filled in', () => {
    expect(says(unread, 'sure')).toMatch(/mind: Nothing of this water was measured: the reading is assumed/);
    expect(says(unread, 'chlorine')).toMatch(/Chlorine about 0\.5 mg\/L.*Assumed; a test strip tells/);
    expect(says(base, 'chlorine')).toMatch(/Chlorine 0\.5 mg\/L must go/);
  });
});

describe('a report against itself', () => {
  it('sound: every test passed', () =>
    expect(says(forGoal('drinking', { ...pasted(CHALK), character: 'chalk' }), 'balance')).toMatch(
      /good: The report agrees with itself.* All 4 tests/,
    ));
  it('contradicting: by how much, and a way to close it', () => {
    const wrong = forGoal('drinking', { ...pasted(CHALK.replace('Sodium 12', 'Sodium 1.2')), character: 'chalk' });
    const one = finding(wrong, 'balance')!;
    expect(plain(one.title)).toMatch(/The report contradicts itself: charges miss by −[34]\.\d %/);
    expect(one.action).toEqual({ do: 'closeBalance', close: true, label: 'Close on sodium' });
    const closed = forGoal('drinking', { ...pasted(CHALK.replace('Sodium 12', 'Sodium 1.2'), true), character: 'chalk' });
    expect(says(closed, 'balance')).toMatch(/closed on sodium/);
  });
  it('a conductivity in the wrong unit is found out', () =>
    expect(says(forGoal('drinking', { ...pasted(CHALK.replace('590', '59')), character: 'chalk' }), 'conductivity')).toMatch(
      /Calculated over measured conductivity: \d+\.\d\d, accepted is 0\.90 to 1\.1/,
    ));
});

describe('the kind of supply', () => {
  it.each([
    [{ reading: 1500 }, 'brackish'],
    [
      { ...pasted('Calcium 2 mg/l\nMagnesium 0.3 mg/l\nSodium 139 mg/l\nAlkalinity 234 mg/l\nChloride 22 mg/l\nSulfate 25 mg/l') },
      'softened',
    ],
    [{ reading: 8 }, 'rain'],
  ] as const)('%# speaks of %s', (sample, character) => {
    expect(finding(forGoal('drinking', sample as Partial<Sample>), 'kind')?.action).toMatchObject({ do: 'setCharacter', character });
  });
  it('is not doubted without reason', () => expect(finding(forGoal('drinking', { reading: 250 }), 'kind')).toBeUndefined());
});

describe('the year', () => {
  const two = (reading: number): System =>
    forGoal('marineMakeUp', { reading: 200 }, (s) => ({
      ...s,
      source: { ...s.source, samples: [...s.source.samples, { ...s.source.samples[0]!, id: 'sample-2', takenOn: '2026-08-01', reading }] },
    }));
  it('is spanned by the dated samples where nothing else is entered', () => {
    const span = seasonSpan(two(300).source, base.instruments);
    expect([Math.round(span.weakestUScm!), Math.round(span.strongestUScm!)]).toEqual([400, 600]);
    expect(says(two(300), 'season')).toMatch(/mind: Over the year 400 µS\/cm to 600 µS\/cm\. .* 1\.5 times as fast/);
    expect(finding(two(205), 'season')).toBeUndefined();
  });
  it('what is entered goes before what the samples show', () => {
    const system = two(300);
    const span = seasonSpan({ ...system.source, season: { ...system.source.season, strongestUScm: 900 } }, base.instruments);
    expect(span.strongestUScm).toBe(900);
  });
});

describe('two waters blended', () => {
  const blend = (share: number): System =>
    forGoal('marineMakeUp', { reading: 250 }, (s) => ({
      ...s,
      source: {
        ...s.source,
        second: {
          name: 'Rain',
          share,
          sample: { ...s.source.samples[0]!, id: 'rain', character: 'rain', reading: 8, chlorineMgL: 0, chloramineMgL: 0 },
        },
      },
    }));
  it('chlorine and calcium go by share', () => {
    const alone = value(tapWater(blend(0).source, base.instruments)).water;
    const half = value(tapWater(blend(0.5).source, base.instruments)).water;
    expect(half.mgL.chlorine).toBeCloseTo(alone.mgL.chlorine / 2, 3);
    expect(half.mgL.Ca / alone.mgL.Ca).toBeGreaterThan(0.5);
    expect(half.mgL.Ca / alone.mgL.Ca).toBeLessThan(0.53);
  });
  it('an impossible second water is named', () => {
    const system = blend(0.5);
    const second = {
      ...system.source.second!,
      sample: { ...system.source.second!.sample, way: 'kit' as const, kit: { ...NO_KIT, hardnessMgL: 900 } },
    };
    const outcome = tapWater({ ...system.source, second }, base.instruments);
    expect(outcome.ok ? '' : outcome.error.message).toMatch(/^Rain: Hardness 900/);
  });
});
