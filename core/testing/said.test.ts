import { GALLON_UNITS, METRIC_UNITS } from '../quantity';
import { readdirSync, readFileSync } from 'node:fs';
import { priceList } from '../ledger';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import {
  footLine,
  loopReport,
  moreWater,
  mounting,
  reportTrain,
  seasonMonths,
  stageFacts,
  trainSentence,
  trainTitle,
  tunable,
  tuned,
  waterMeaning,
  type TrainReport,
} from '../advice';
import { expectedText, expectedToday, paperOf, partsOf, runbook, trimAdvice } from '../commission';
import { allStages, PLACEHOLDER_PRICES, readDocument, type Reading, type System, type SystemRecord, type TemplateId } from '../file';
import { dueOf, logFindings, standing } from '../log';
import { trainUse } from '../log/use';
import { kindOf, newStage, placed, STAGE_KINDS, stageKind, type Finding, type Stage, type StageOf } from '../stage';
import { systemFromTemplate } from '../template';
import { membraneOperation, seasonSpan, tapWater } from '../train';
import { settleWater, type Water } from '../water';

/**
 * Everything that is said, of systems in good order and in every kind of trouble, kept as text in `said/`. A change of a
 * sign, a figure or a word shows here as a line; where it is meant, `npx vitest run core/testing -u` writes it anew, and
 * the difference is read before it is committed.
 */
/** Placeholders alone, as a job without prices of its own has them. */
const PRICES = priceList({ prices: PLACEHOLDER_PRICES, choice: { visitCost: 10, prices: [] } as never });
const NOW = '2026-11-23T10:00:00Z';
const from = (template: TemplateId): System =>
  systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: '2026-01-01T00:00:00Z' });
const source = (system: System, changes: Partial<System['source']>): System => ({ ...system, source: { ...system.source, ...changes } });
const sample = (system: System, changes: Partial<System['source']['samples'][number]>): System =>
  source(system, { assumed: [], samples: system.source.samples.map((one) => ({ ...one, ...changes })) });
const kit = (system: System, changes: Partial<System['source']['samples'][number]['kit']>, reading: number | null = null): System =>
  sample(system, { way: 'kit', reading, kit: { ...system.source.samples[0]!.kit, ...changes } });
const train = (system: System, changes: Partial<System['train']>): System => ({ ...system, train: { ...system.train, ...changes } });
const stage = <K extends Stage['kind']>(system: System, kind: K, changes: Partial<StageOf<K>>): System =>
  train(system, { stages: system.train.stages.map((one) => (one.kind === kind ? ({ ...one, ...changes } as Stage) : one)) });
const added = (system: System, at: number, ...stages: Stage[]): System =>
  train(system, { stages: system.train.stages.toSpliced(at, 0, ...stages) });
const without = (system: System, ...ids: string[]): System =>
  train(system, {
    stages: system.train.stages.filter(({ id }) => !ids.includes(id)),
    probes: system.train.probes.filter(({ after }) => !ids.includes(after)),
  });
const goal = (system: System, changes: Partial<System['goal']>): System => ({ ...system, goal: { ...system.goal, ...changes } });
const demand = (system: System, litres: number): System =>
  goal(system, { demand: { ...system.goal.demand, dayL: new Array<number>(7).fill(litres) } });
const trade = (system: System): System => ({ ...system, units: { ...GALLON_UNITS, hardness: 'gpg' } });

const house = from('marineHousehold');
const skid = from('skid');
const boat = from('watermaker');
const bar = from('espressoBar');
const TROUBLE: Readonly<Record<string, System>> = {
  'household, no carbon, chlorine 2': sample(without(house, 'carbon'), { chlorineMgL: 2, chloramineMgL: 1 }),
  'household, chloramine 2': sample(house, { chlorineMgL: 0, chloramineMgL: 2 }),
  'household, hot feed': sample(house, { temperatureC: 50 }),
  'household, 8 bar': source(house, { linePressureBar: 8 }),
  'household, 2 bar': source(house, { linePressureBar: 2 }),
  'household, no pressure': source(house, { linePressureBar: 0 }),
  'household, narrow restrictor': stage(house, 'membrane', {
    restrictor: { form: 'tube', lengthMm: 300, boreMm: 0.7, assumed: false, flushLever: false },
  }),
  'household, wide restrictor': stage(house, 'membrane', {
    restrictor: { form: 'tube', lengthMm: 100, boreMm: 2, assumed: false, flushLever: false },
  }),
  'household, very hard': kit(house, { hardnessMgL: 500, alkalinityMgL: 400, pH: 7.4, silicaMgL: 25, nitrateMgL: 60 }, 600),
  'household, soda': kit(house, { hardnessMgL: 20, alkalinityMgL: 300, pH: 8.2, ammoniaMgL: 1.5 }, 350),
  'household, silt 6': source(house, { silt: { initialSeconds: 30, finalSeconds: 80, minutes: 10 }, turbidityNTU: 4 }),
  'household, a silt test that does not hold': source(house, { silt: { initialSeconds: 30, finalSeconds: 20, minutes: 10 } }),
  'household, carbon first on dirty water': train(source(house, { turbidityNTU: 4 }), {
    stages: [house.train.stages[1]!, house.train.stages[0]!, ...house.train.stages.slice(2)],
  }),
  'household, carbon first on clear water': train(house, {
    stages: [house.train.stages[1]!, house.train.stages[0]!, ...house.train.stages.slice(2)],
  }),
  'household, resin first': train(house, {
    stages: [house.train.stages[3]!, ...house.train.stages.filter(({ kind }) => kind !== 'resin')],
  }),
  'household, worn membrane': stage(house, 'membrane', { waterFactor: 0.6, saltFactor: 2.5 }),
  'household, leaky membrane': stage(house, 'membrane', { waterFactor: 1, saltFactor: 3 }),
  'household, gas tank': stage(house, 'tank', { openToAir: false, prechargeBar: 0.5, volumeL: 15 }),
  'household, gas tank that cannot fill': stage(house, 'tank', { openToAir: false, prechargeBar: 4, volumeL: 15 }),
  'household, float upside down': stage(house, 'tank', { startShare: 0.9, stopShare: 0.5 }),
  'household, busy float': demand(stage(house, 'tank', { startShare: 0.895, stopShare: 0.9, volumeL: 20 }), 100),
  'household, ten times the need': demand(house, 900),
  'household, nothing needed': demand(house, 0),
  'household, one batch of 400': goal(house, {
    demand: { ...house.goal.demand, batches: [{ id: 'b', name: 'Change', weekday: 5, hour: 9, count: 1, litres: 400 }] },
  }),
  'household, minerals put back': goal(house, {
    id: 'softWaterBreeding',
    prepare: { how: 'minerals', hardnessMgL: 80, calciumShare: 0.75, alkalinityMgL: 40, bicarbonate: 'K' },
  }),
  'household, salt put in': goal(house, { id: 'reefTank', prepare: { how: 'salt', salinity: 35 } }),
  'household, tap blended back': goal(house, { id: 'freshwaterCommunity', prepare: { how: 'blend', tapShare: 0.3 } }),
  'household, nobody measured': sample(house, { way: 'usual', reading: null, character: 'chalk' }),
  'household, rain': sample(house, { way: 'usual', reading: null, character: 'rain' }),
  'household, calcite behind': added(house, 4, newStage('calcite', 'calcite')),
  'household, long thin tube': added(house, 0, { ...newStage('tubing', 'tube'), boreMm: 3, lengthM: 40, riseM: 6 }),
  'household, a year of two waters': source(house, {
    season: { lowestTemperatureC: 4, highestTemperatureC: 24, weakestUScm: 300, strongestUScm: 900 },
  }),
  'household, a year of nearly one water': source(house, {
    season: { lowestTemperatureC: 8, highestTemperatureC: 18, weakestUScm: 430, strongestUScm: 490 },
  }),
  'household, a tank too small': demand(stage(house, 'tank', { volumeL: 5 }), 120),
  'household, a sample at its strongest': source(house, {
    season: { lowestTemperatureC: 8, highestTemperatureC: 18, weakestUScm: 200, strongestUScm: 482 },
  }),
  'household, booster': added(house, 2, newStage('pump', 'pump')),
  'household, thousand gallons': trade(house),
  'pair, thousand gallons': trade(from('marinePair')),
  'skid, driven hard': stage(skid, 'pump', { pump: { kind: 'centrifugal', shutOffBar: 30, atLPerH: 6000, atBar: 22, speed: 1.2 } }),
  'skid, recovery 85 %': stage(skid, 'membrane', { valve: { kind: 'recovery', recovery: 0.85 }, recycleKv: null, recycleLPerH: 0 }),
  'skid, two passes': added(
    skid,
    4,
    { ...newStage('pump', 'pump-2'), pump: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 0.8 } },
    { ...newStage('membrane', 'membrane-2'), elementClass: 'in4Low', valve: { kind: 'recovery', recovery: 0.7 } },
  ),
  'skid, a loop too slow': train(skid, { loop: { flowLPerH: 300, boreMm: 40, surfaceM2: 1, ventFilter: false } }),
  'skid, weak lamp': stage(skid, 'uv', { intensityMWPerCm2: 3 }),
  'boat, 68 bar, recovery device': stage(stage(boat, 'membrane', { valve: { kind: 'pressure', bar: 64 } }), 'pump', {
    pump: { kind: 'displacement', flowLPerH: 900, reliefBar: 80, energyRecovery: 0.9 },
  }),
  'boat, fed five times its flow': stage(stage(boat, 'membrane', { valve: { kind: 'needle', kvM3PerH: 1 } }), 'pump', {
    pump: { kind: 'displacement', flowLPerH: 4000, reliefBar: 80, energyRecovery: 0 },
  }),
  'household, gypsum': kit(house, { hardnessMgL: 900, alkalinityMgL: 60, pH: 7.2 }, 1000),
  'boat, warm sea': sample(boat, { temperatureC: 29 }),
  'bar, bypass closed': stage(bar, 'decarboniser', { bypass: 0 }),
  'bar, bypass open': stage(bar, 'decarboniser', { bypass: 1 }),
  'bar, rating that does not agree': stage(bar, 'decarboniser', { volumeL: 0.9 }),
  'bar, too hard': kit(bar, { hardnessMgL: 600, alkalinityMgL: 520, pH: 7.3 }, 700),
  'bar, softened before': added(bar, 2, newStage('softener', 'softener')),
  'bar, hard and a small softener': kit(
    added(bar, 0, { ...newStage('softener', 'softener'), volumeL: 1, saltGPerL: 60 }),
    { hardnessMgL: 500, alkalinityMgL: 300, pH: 7.4 },
    500,
  ),
  'weak counter, strong water': source(from('counterSoft'), { samples: from('counterHard').source.samples }),
  'van, strictly 0': goal(from('vanTank'), { crewLimitPpm: 0 }),
  'vessel, hard': kit(from('resinVessel'), { hardnessMgL: 350, alkalinityMgL: 280, pH: 7.4 }, 400),
};

const plain = (text: string): string => text.replaceAll('\u202f', ' ');
const told = ({ id, severity, title, why, action }: Finding): string =>
  `  [${severity}] ${id}: ${plain(title)}\n      ${plain(why)}${action ? `\n      → ${plain(JSON.stringify(action))}` : ''}`;
const few = (value: number | null): string => (value === null ? '–' : String(Number(value.toPrecision(4))));

/** What a skid is set to for several targets. */
function tunedTo(system: System, feed: Water): string[] {
  if (!tunable(system)) return [];
  return [
    [500, 0.5, 0],
    [1200, 0.6, 300],
    [90, 0.3, 0],
    [40, 0.1, 0],
    [90_000, 0.5, 0],
  ].map(([permeateLPerH, recovery, recycleLPerH]) => {
    const found = tuned(system, feed, { permeateLPerH: permeateLPerH!, recovery: recovery!, recycleLPerH: recycleLPerH! });
    return found.ok
      ? `  ${permeateLPerH} at ${recovery}: ${JSON.stringify(found.value, (_, at: unknown) => (typeof at === 'number' ? Number(at.toPrecision(3)) : at))}`
      : `  ${permeateLPerH} at ${recovery}: ${plain(found.error.message)} (accepted ${found.error.accepted})`;
  });
}

/** What is advised on a restrictor after jugs that measured more or less waste. */
function trimmed(system: System, report: TrainReport): string[] {
  const at = membraneOperation(report.train, system.source, report.solved);
  if (!at || at.unit.valve) return [];
  return [1.2, 3, 5, 9].map((wasteToProduct) => {
    const advice = trimAdvice(at.unit, at.feed, at.conditions, { wasteToProduct, uncertainty: 0.1, recovery: 1 / (1 + wasteToProduct) }, 4);
    return `  ${wasteToProduct} : 1 measured: ${plain(JSON.stringify(advice, (_, one: unknown) => (typeof one === 'number' ? Number(one.toPrecision(3)) : one)))}`;
  });
}

/** All that is said of a system on its own. */
function said(system: System): string {
  const water = tapWater(system.source, system.instruments);
  if (!water.ok) return `tap: ${water.error.message}`;
  const solved = reportTrain(system, water.value.water, {}, undefined, water.value);
  if (!solved.ok) return `cannot be solved: ${solved.error.field}: ${plain(solved.error.message)}`;
  const report = solved.value;
  const loop = loopReport(system, report.solved);
  const expected = expectedToday(system, { linePressureBar: null, temperatureC: null });
  const state = settleWater(water.value.water);
  const span = seasonSpan(system.source, system.instruments);
  return [
    plain(trainTitle(system, report)),
    plain(trainSentence(report.solved, system.units)),
    footLine(system, report)
      .map(([figure, says]) => plain(`${figure} ${says}`))
      .join(' · '),
    `mounting ${Object.entries(mounting(system.train.stages))
      .map(([key, value]) => `${key} ${few(value)}`)
      .join(', ')}`,
    `a year ${Object.entries(report.ledger.lines)
      .map(([key, value]) => `${key} ${few(value)}`)
      .join(', ')}`,
    'findings',
    ...report.findings.map(told),
    ...report.branches.flatMap((branch) => [`use ${branch.branch.name}`, ...branch.findings.map(told)]),
    'meaning of the tap',
    ...waterMeaning(system, water.value, report.solved, span).map(told),
    'stages',
    ...allStages(system.train).map(
      (one) =>
        `  ${one.name}: ${stageFacts(one, report, system.units)
          .map(([name, text]) => plain(`${name} ${text}`))
          .join(' · ')}`,
    ),
    ...(loop
      ? [
          'loop',
          loop.ok
            ? `  ${few(loop.value.restMOhmCm)} MΩ·cm, ${few(Math.min(...loop.value.week.map((one) => one.outletMOhmCm)))} at its worst, ${few(loop.value.velocityMPerS)} and ${few(loop.value.returnVelocityMPerS)} m/s, polisher ${few(loop.value.polisherDays)} days, recovers in ${few(loop.value.recoversH)} h, ${few(loop.value.startsPerDay)} starts`
            : `  ${plain(loop.error.message)}`,
          ...(loop.ok ? loop.value.findings.map(told) : []),
        ]
      : []),
    'more water',
    ...moreWater(system, water.value.water).map(
      (one) =>
        `  ${one.id} ${plain(one.label)}: ${few(one.productLPerDay)} L/day, ${few(one.times)} times, waste ${few(one.wasteToProduct)}, passes ${few(one.saltPassage)}, ${few(one.productUScm)} µS/cm, index ${few(one.wasteIndex)}, parts ${one.parts.map(plain).join(', ')} for ${few(one.partsCost)}, ${few(one.costPerM3)} a m³${one.possible ? '' : ', not possible'}${one.against ? `, against: ${plain(one.against)}` : ''}${one.mind ? `, mind: ${plain(one.mind)}` : ''}`,
    ),
    ...(state.ok && report.solved.unit
      ? [
          'seasons',
          `  ${seasonMonths(system, water.value.water, state.value.ec25UScm, span)
            .map((month) => `${few(month.productLPerDay)}/${few(month.wasteToProduct)}/${few(month.permeateUScm)}`)
            .join(' ')}`,
        ]
      : []),
    'tuned',
    ...tunedTo(system, water.value.water),
    'trim',
    ...trimmed(system, report),
    'runbook',
    ...runbook(system, expected.ok ? expected.value : null).flatMap(({ title, steps }) => [
      `  ${title}`,
      ...steps.flatMap((step) => [
        `    ${step.id} ${step.minutes} min${step.waits ? ', waited' : ''}${step.tool ? ` (${step.tool})` : ''}: ${plain(step.title)}. ${plain(`${step.before ? `First: ${step.before} ` : ''}${step.how}`)} ${step.cautions.map((caution) => `! ${caution.title}: ${caution.text}`).join(' ')}`,
        ...step.measures.map(
          (measure) =>
            `      ? ${measure.label}: ${plain(expectedText(measure, system.units))} (${plain(measure.because)}) - ${measure.ifLow ?? ''} + ${measure.ifHigh ?? ''}`,
        ),
      ]),
    ]),
    'parts',
    ...partsOf(system, report.solved).map(
      (one) =>
        `  ${one.group}: ${plain(one.name)}, ${Number(one.count.toFixed(2))} ${one.unit}, ${plain(one.why)}, ${one.price === null ? 'no price' : few(one.price)}`,
    ),
    ...(['offer', 'buildSheet', 'record', 'labels', 'card'] as const).flatMap((key) => [
      key,
      ...paperOf(key, system, report, { workshop: 'Workshop', customer: 'Customer' }, '2026-11-28').blocks.map(
        (block) => `  ${plain(JSON.stringify(block))}`,
      ),
    ]),
  ].join('\n');
}

const DEMO = new URL('../../demo/', import.meta.url);
const demo: SystemRecord[] = readdirSync(DEMO)
  .filter((name) => name.endsWith('.yesclear.json'))
  .flatMap((name) => {
    const read = readDocument(readFileSync(new URL(name, DEMO), 'utf8'));
    return read.ok ? [...read.records] : [];
  });
/** The last readings as they might have been. */
const TURNS: Readonly<Record<string, (readings: readonly Reading[]) => Reading[]>> = {
  'as it is': (readings) => [...readings],
  'last reading ten times as strong': (readings) =>
    readings.map((one, i) =>
      i === readings.length - 1 ? { ...one, values: one.values.map((value) => ({ ...value, shown: 10 * value.shown + 5 })) } : one,
    ),
  'last waste twice, product half': (readings) =>
    readings.map((one, i) => (i === readings.length - 1 ? { ...one, wasteLPerH: 60, productLPerH: 6 } : one)),
  'last ratio of 1': (readings) =>
    readings.map((one, i) => (i === readings.length - 1 ? { ...one, wasteLPerH: 10, productLPerH: 10 } : one)),
  'the last but one leapt and came back': (readings) =>
    readings.map((one, i) =>
      i === readings.length - 2
        ? { ...one, values: one.values.map((value, k) => (k === one.values.length - 1 ? { ...value, shown: value.shown + 12 } : value)) }
        : one,
    ),
  'the last three rise': (readings) =>
    readings.map((one, i) =>
      i > readings.length - 4
        ? {
            ...one,
            values: one.values.map((value, k) =>
              k === one.values.length - 1 ? { ...value, shown: 2 * (i - readings.length + 4) } : value,
            ),
          }
        : one,
    ),
  'nothing for three months': (readings) => readings.filter(({ at }) => at < '2026-08-20'),
  'only two readings': (readings) => readings.slice(0, 2),
  none: () => [],
  'a reading from the future': (readings) => [
    ...readings,
    ...readings.slice(-1).map((one) => ({ ...one, id: 'late', at: '2027-06-01T08:00:00Z' })),
  ],
};
function saidOfLog({ system, readings }: SystemRecord): string {
  const water = tapWater(system.source, system.instruments);
  const today = water.ok ? standing(system, readings, water.value.water, NOW, water.value) : water;
  if (!today.ok) return plain(today.error.message);
  const { report, tracking, use } = today.value;
  return [
    ...logFindings(system, readings, report.solved, tracking, NOW, today.value.membrane, today.value).map(told),
    ...dueOf(system, today.value, NOW).map(({ at, says }) => `  due ${at.slice(0, 10)} ${says}`),
    ...(tracking
      ? [
          `  counted from ${tracking.volumeFrom} and ${tracking.rateFrom}, learned from ${tracking.learnedFrom}, sd ${few(tracking.capacitySd)}, longest gap ${few(tracking.longestGapDays)} days, ${few(tracking.litres)} L`,
          `  tracking ${tracking.stageId}: ${few(tracking.cationEq)} and ${few(tracking.anionEq)} eq, left ${few(tracking.remaining.p10)} ${few(tracking.remaining.p50)} ${few(tracking.remaining.p90)}, days ${tracking.daysLeft ? `${few(tracking.daysLeft.p10)} ${few(tracking.daysLeft.p50)} ${few(tracking.daysLeft.p90)}` : '–'}`,
        ]
      : []),
    ...Object.entries(use).map(
      ([id, one]) =>
        `  use ${id}: ${Object.entries(one)
          .map(([key, value]) =>
            typeof value === 'number'
              ? `${key} ${few(value)}`
              : `${key} ${Object.values(value as Record<string, number | null>)
                  .map(few)
                  .join(' ')}`,
          )
          .join(', ')}`,
    ),
    ...allStages(report.train).map(
      (one) =>
        `  ${one.name}: ${stageFacts(one, report, system.units)
          .map(([name, text]) => plain(`${name} ${text}`))
          .join(' · ')}`,
    ),
  ].join('\n');
}

/** The kinds of pump and of waste control, each with fields of its own. */
const VARIANTS: readonly Stage[] = [
  { ...newStage('pump', 'x'), pump: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 1 } },
  { ...newStage('pump', 'x'), pump: { kind: 'displacement', flowLPerH: 700, reliefBar: 65, energyRecovery: 0 } },
  { ...newStage('membrane', 'x'), valve: { kind: 'needle', kvM3PerH: 0.2 } },
  { ...newStage('membrane', 'x'), valve: { kind: 'pressure', bar: 55 } },
  { ...newStage('membrane', 'x'), valve: { kind: 'recovery', recovery: 0.5 }, recycleKv: 0.6, bypassShare: 0.1 },
  { ...newStage('membrane', 'x'), arrangement: 'array', elementClass: 'in4Low' },
  { ...newStage('membrane', 'x'), arrangement: 'series', elementClass: 'in25Sea' },
  { ...newStage('tank', 'x'), openToAir: false, prechargeBar: 0.5 },
];
const asked = (one: Stage): string =>
  kindOf(one)
    .fields(one, { units: METRIC_UNITS, linePressureBar: 4, unit: null, ahead: [newStage('carbon', 'c'), newStage('softener', 's')] })
    .quantities.map(
      ({ label, value, dimension, low, high }) => `  field ${label}: ${value} ${dimension} from ${low ?? '–'} to ${high ?? '–'}`,
    )
    .join('\n');
const variants = VARIANTS.map((one) => `${JSON.stringify(one)}\n  ${JSON.stringify(kindOf(one).mounting(one))}\n${asked(one)}`).join('\n');

/** Every kind as it is declared: what is offered, asked, weighed, priced, kept up. */
const declared = STAGE_KINDS.map((kind) => {
  const spec = stageKind(kind);
  const one: Stage = newStage(kind, 'x');
  const fields = kindOf(one).fields(one, {
    units: METRIC_UNITS,
    linePressureBar: 4,
    unit: null,
    ahead: [newStage('carbon', 'c'), newStage('membrane', 'm'), newStage('pump', 'p')],
  });
  const slope = [5, 25].map((temperatureC) => few(kindOf(one).slopeBar(one, 100, temperatureC)));
  return [
    `${kind}: ${spec.label}. ${spec.says}. place ${spec.place}, ${spec.form}, touches ${spec.touches(newStage(kind, 'one') as never)}${spec.prefilter ? ', flushed first' : ''}${spec.inUses ? ', in uses' : ''}, folded "${spec.folded}"`,
    `  starts with ${JSON.stringify(spec.defaults)}`,
    `  takes ${JSON.stringify(z.toJSONSchema(spec.schema, { unrepresentable: 'any' }).properties, (key, at) => (key === 'pattern' ? undefined : (at as unknown)))}`,
    `  slope ${slope.join(' and ')}, lifts ${few(kindOf<Stage>(one).riseBar(one))}, ${JSON.stringify(kindOf(one).mounting(one))}, price ${few(kindOf(one).price(one, PRICES))}`,
    ...[1, 40]
      .map((volumeL) => ('volumeL' in one ? `  of ${volumeL} L: ${JSON.stringify(kindOf<Stage>(one).mounting({ ...one, volumeL }))}` : ''))
      .filter(Boolean),
    ...fields.choices.map(
      ({ label, value, items }) => `  choice ${label}: ${value} of ${items.map((item) => `${item.value} ${item.title}`).join('; ')}`,
    ),
    ...fields.quantities.map(
      (asked) =>
        `  field ${asked.label}: ${asked.value} ${asked.dimension} ${asked.unit ?? ''} from ${asked.low ?? '–'} to ${asked.high ?? '–'}${asked.folded ? ', folded' : ''}${asked.optional ? `, or ${asked.optional.empty}` : ''}`,
    ),
    ...kindOf<Stage>(one)
      .upkeep(one, null)
      .map((upkeep) => `  upkeep ${JSON.stringify(upkeep)}`),
  ].join('\n');
}).join('\n');

/** The days on which something begins to be said of a log that nobody writes on, or is said more gravely, in a year and a half. */
function turningDays({ system, readings }: SystemRecord): string {
  const water = tapWater(system.source, system.instruments);
  const today = water.ok ? standing(system, readings, water.value.water, NOW, water.value) : water;
  if (!today.ok) return plain(today.error.message);
  const { report, tracking } = today.value;
  const last = new Map<string, string>();
  const lines: string[] = [];
  for (let day = 0; day <= 550; day += 1) {
    const now = new Date(Date.parse(NOW) + day * 86_400_000).toISOString();
    const then = { ...today.value, use: trainUse(system, readings, report.solved, tracking, now) };
    const said = [
      ...logFindings(system, readings, report.solved, tracking, now, today.value.membrane, then).map(
        ({ id, severity }) => [id, severity] as const,
      ),
      ...dueOf(system, then, now).map(({ says }) => [`due ${says}`, 'listed'] as const),
    ];
    const here = new Map(said);
    for (const [id, how] of here) if (last.get(id) !== how) lines.push(`day ${day}: ${id} ${how}`);
    for (const id of last.keys()) if (!here.has(id)) lines.push(`day ${day}: ${id} no more`);
    last.clear();
    for (const [id, how] of here) last.set(id, how);
  }
  return plain(lines.join('\n'));
}

const file = (name: string): string => `./said/${name}.txt`;
describe('what is said', () => {
  it('of every kind of stage', () => expect(declared).toMatchFileSnapshot(file('kinds')));
  it('of pumps, waste controls, arrangements and tanks', () => expect(variants).toMatchFileSnapshot(file('variants')));
  it.each([
    'marineHousehold',
    'marinePair',
    'breeder',
    'vanTank',
    'vanCart',
    'resinVessel',
    'skid',
    'watermaker',
    'espressoBar',
    'counterSoft',
    'counterHard',
  ] as const)('of the template %s', (template) => expect(said(from(template))).toMatchFileSnapshot(file(`template ${template}`)));
  it.each(STAGE_KINDS.filter((kind) => kind !== 'membrane'))('of a household unit with one more: %s', (kind) => {
    return expect(said(train(house, { stages: placed(house.train.stages, newStage(kind, 'more')) }))).toMatchFileSnapshot(
      file(`household with one more ${kind}`),
    );
  });
  it.each(demo.map((record) => [record.system.name, record] as const))('of %s as the days go by', (name, record) =>
    expect(turningDays(record)).toMatchFileSnapshot(file(`days ${name}`)),
  );
  it.each(Object.entries(TROUBLE))('of trouble: %s', (name, system) => expect(said(system)).toMatchFileSnapshot(file(`trouble ${name}`)));
  it.each(
    demo.flatMap((record) =>
      Object.entries(TURNS).map(([turn, change]) => [record.system.name, turn, { ...record, readings: change(record.readings) }] as const),
    ),
  )('by the log of %s, %s', (name, turn, record) => expect(saidOfLog(record)).toMatchFileSnapshot(file(`log ${name}, ${turn}`)));
});
