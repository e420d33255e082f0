import { describe, expect, it } from 'vitest';
import { mounting, reportTrain, stageFacts } from '../advice';
import { standingAt } from '../life';
import { priceList } from '../ledger';
import { expectedText, expectedToday, runbook, runbookSteps } from '../commission';
import { NOTHING_SAID, readDocument, systemIssue, writeDocument, type Reading, type System } from '../file';
import { dueOf, logFindings, standing } from '../log';
import { inSentence, METRIC_UNITS } from '../quantity';
import { systemFromTemplate } from '../template';
import { value } from '../testing/close';
import { tapWater } from '../train';
import { kindOf, newStage, PART_STATE, placed, STAGE_KINDS, stageKind, type Stage, type StageKind } from '.';

/** Every kind there is goes through the whole house: a new one that forgets something is named here. */
const base = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template: 'marineHousehold', at: '2026-01-01T00:00:00Z' });
const NOW = '2026-09-01T12:00:00Z';
const FITTED = '2026-03-01';
const isFitted = (stage: Stage): boolean => 'fittedOn' in stage;

/** A household unit with one more stage of a kind where such a stage belongs; a membrane stands in place of its own. */
function withOne(kind: StageKind): System {
  const stage: Stage = newStage(kind, 'new');
  const others = base.train.stages.filter((one) => one.kind !== 'membrane' || kind !== 'membrane');
  const stages = placed(others, 'fittedOn' in stage ? { ...stage, fittedOn: FITTED } : stage);
  const probes = base.train.probes.filter(({ after }) => after === 'tap' || stages.some(({ id }) => id === after));
  return { ...base, train: { ...base.train, stages, probes } };
}
const readings: Reading[] = ['2026-03-02', '2026-08-30'].map((day, i) => ({
  id: `r${i}`,
  systemId: 's',
  at: `${day}T08:00:00Z`,
  values: base.train.probes.map((probe) => ({
    probeId: probe.id,
    instrumentId: probe.instrumentId,
    shown: probe.after === 'tap' ? 120 : 3,
  })),
  pressureBar: 4,
  temperatureC: 15,
  productLPerH: null,
  wasteLPerH: null,
  meterL: 4000 * i,
  ...NOTHING_SAID,
}));

describe.each(STAGE_KINDS)('%s, from end to end', (kind) => {
  const system = withOne(kind);
  const stage = system.train.stages.find(({ id }) => id === 'new')!;
  const feed = value(tapWater(system.source, system.instruments)).water;
  const report = value(reportTrain(system, feed));

  it('is declared whole: words, a place, a form', () => {
    const spec = stageKind(kind);
    expect(spec.kind).toBe(kind);
    expect(spec.label).toMatch(/^[A-Z].{1,30}$/);
    expect(spec.says).toMatch(/^[A-Z].{5,60}$/);
    expect(spec.defaults.name.length).toBeGreaterThan(2);
    expect(Number.isInteger(spec.place)).toBe(true);
  });
  it('a new one begins nothing anew but what belongs to the piece', () => {
    const used = { ...stage, ...Object.fromEntries(PART_STATE.filter((key) => key in stage).map((key) => [key, 'used'])) } as Stage;
    const fresh = kindOf(used).renewed(used);
    const anew = Object.keys(fresh).filter((key) => fresh[key as keyof Stage] !== used[key as keyof Stage]);
    for (const key of anew) expect(PART_STATE).toContain(key);
  });
  it('is solved, and leaves a station with water and pressure', () => {
    const station = report.solved.stations.find(({ after }) => after === 'new')!;
    expect(station.kind).toBe(kind);
    for (const figure of [station.state.ec25UScm, station.state.pH, station.pressureBar, station.flowLPerH])
      expect(Number.isFinite(figure)).toBe(true);
    expect(station.flowLPerH).toBeGreaterThan(0);
  });
  it('changes of the water what it says it changes', () => {
    const touches = kindOf(stage).touches(stage);
    // Hungry for lime, as water behind a membrane is.
    const soft = { ...feed, mgL: { ...feed.mgL, Ca: 2 }, alkalinityMgL: 6, carbonMmolL: 0.3 };
    const { water } = value(kindOf(stage).treat(stage, { water: soft, flowLPerH: 20, use: {}, inLoop: false }));
    // Membranes and pumps are solved by the network.
    if (touches === 'nothing' || kind === 'membrane') expect(water).toEqual(soft);
    else expect(water).not.toEqual(soft);
    if (touches === 'traces') expect(water.mgL.Ca).toBe(soft.mgL.Ca);
    if (touches === 'minerals' || (touches === 'salt' && kind !== 'membrane')) expect(water.mgL.Ca).not.toBe(soft.mgL.Ca);
  });
  it('weighs something and takes room', () => {
    const { wetKg, wallM } = kindOf(stage).mounting(stage);
    expect(wetKg).toBeGreaterThan(0);
    // Tanks stand on the floor, tubing hangs along its way.
    expect(wallM > 0).toBe(!['tank', 'line'].includes(stageKind(kind).form));
    const [before, after] = [mounting(system.train.stages.filter((one) => one !== stage)), mounting(system.train.stages)];
    expect(after.wetKg + after.tankKg - before.wetKg - before.tankKg).toBeCloseTo(wetKg, 9);
  });
  it('has a price, or says that none is asked for', () => {
    const price = kindOf(stage).price(stage, priceList(system));
    if (price !== null) expect(price).toBeGreaterThan(0);
    expect(report.ledger.running).toBeGreaterThan(0);
    expect(kindOf(stage).buys(stage, priceList(system))).toBeGreaterThanOrEqual(0);
  });
  it('is asked by fields the model takes, and says its figures in words', () => {
    const fields = kindOf(stage).fields(stage, { units: METRIC_UNITS, linePressureBar: 4, unit: null, ahead: [] });
    expect(fields.quantities.length).toBeGreaterThan(0);
    for (const [name, text] of stageFacts(stage, report, system.units)) expect(`${name}: ${text}`).not.toMatch(/NaN|undefined|Infinity/);
    const standings = standingAt(system, report, 'new')!;
    for (const finding of kindOf(stage).findings(standings))
      expect(`${finding.title} ${finding.why}`).not.toMatch(/NaN|undefined|Infinity/);
  });
  it('has its work in the runbook where it has any', () => {
    const expected = value(expectedToday(system, { linePressureBar: null, temperatureC: null }));
    const steps = runbookSteps(runbook(system, expected));
    expect(steps.some(({ stageId }) => stageId === 'new')).toBe(!['tubing', 'sediment', 'carbon'].includes(kind));
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    for (const { title, how, minutes, measures } of steps) {
      expect(`${title} ${how}`).not.toMatch(/NaN|undefined|Infinity|null/);
      expect(minutes).toBeGreaterThan(0);
      for (const measure of measures)
        expect(`${measure.label} ${expectedText(measure, system.units)}`).not.toMatch(/NaN|undefined|Infinity|–/);
    }
  });
  it('wears by its log, is due where it has upkeep, and the log finds words', () => {
    const today = value(standing(system, readings, feed, NOW));
    const due = dueOf(system, today, NOW).filter(({ says }) => says.endsWith(inSentence(stage.name)));
    const at = standingAt(system, today.report, 'new')!;
    // What litres alone bring round, and not within ten years, is not planned.
    const upkeep = kindOf(stage)
      .upkeep(stage, at)
      .filter(({ everyDays, afterDays, litresLeft }) => everyDays ?? afterDays ?? (litresLeft ?? Infinity) < 3650 * at.litresPerDay);
    // A membrane has no day it was fitted on: it is due by its own life.
    expect(due.length).toBe(kind === 'membrane' ? 1 : isFitted(stage) ? upkeep.length : 0);
    for (const { at } of due) expect(Date.parse(at)).toBeGreaterThan(Date.parse(FITTED));
    for (const finding of logFindings(system, readings, today.report.solved, today.tracking, NOW))
      expect(`${finding.title} ${finding.why}`).not.toMatch(/NaN|undefined|Infinity/);
  });
  it('is kept, and read back the same', () => {
    expect(systemIssue(system)).toBeNull();
    const read = readDocument(writeDocument([{ system, readings }], NOW));
    expect(read.ok && read.records[0]!.system.train.stages).toEqual(system.train.stages);
  });
});
