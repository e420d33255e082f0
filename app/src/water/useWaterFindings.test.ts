import type { UnitPreference } from '@yes-clear/core/quantity';
import { completeWater, type CompletedWater, type PartialAnalysis } from '@yes-clear/core/water';
import { describe, expect, it } from 'vitest';
import { waterFindings } from './useWaterFindings';

const metric: UnitPreference = { system: 'metric', hardness: 'mg/L CaCO₃', ppmFactor: 0.5 };
function water(change: Partial<PartialAnalysis>): CompletedWater {
  const outcome = completeWater({ character: 'municipal', temperatureC: 12, ec25UScm: 480, ...change });
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}
const says = (completed: CompletedWater): string =>
  waterFindings(completed, metric)
    .map((finding) => `${finding.severity} ${finding.title}. ${finding.why}`)
    .join('\n')
    .replaceAll('\u202f', ' ');

describe('what a water means', () => {
  it('says how little one reading knows, and how much a kit adds', () => {
    expect(says(water({}))).toContain('note 1 reading, everything else assumed');
    expect(says(water({ hardnessMgL: 150, alkalinityMgL: 110, pH: 7.6 }))).toContain('good Known: meter reading, hardness, alkalinity, pH');
  });
  it('gives strength, pH and dissolved CO2 as figures', () => {
    expect(says(water({}))).toMatch(/480 µS\/cm, about \d{3} mg\/L dissolved\. pH 7\.\d at 12 °C, \d\.\d mg\/L of dissolved CO₂/);
  });
  it('warns of scale with the amount a boiler drops', () => {
    const chalk = says(water({ character: 'chalk', ec25UScm: 640 }));
    expect(chalk).toMatch(/mind Calcite index \+0\.\d as it comes, \+0\.\d at 60 °C\. Heated to 60 °C it drops up to \d\d\.\d mg\/L/);
    expect(says(water({ character: 'softSurface', ec25UScm: 90 }))).toContain('It dissolves lime rather than dropping it');
  });
  it('names chloramine by what it leaves behind', () => {
    const treated = water({});
    const chloraminated = { ...treated, water: { ...treated.water, mgL: { ...treated.water.mgL, chloramine: 2 } } };
    // 2.0 mg/L as Cl2 hold 0.395 mg/L of nitrogen.
    expect(says(chloraminated)).toContain('leaves up to 0.4 mg/L of ammonia nitrogen');
  });
  it('passes on a contradiction that was small enough to work with', () => {
    expect(says(water({ ec25UScm: 560, hardnessMgL: 300, alkalinityMgL: 240, temperatureC: 25 }))).toContain(
      'mind These numbers only just fit one water',
    );
  });
});
