import { gaugeValue, type Gauge, type Reading, type System } from '../file';
import { speciesOfWater, waterOfSpecies } from '../membrane';
import { AGEING, probeEc25, probeRoles, standing, trackResin, type CoursePoint, type ProbeRoles, type ResinTracking } from '../log';
import { median } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR, ok, PPM_PER_USCM, type Outcome } from '../quantity';
import { deionizes, kindOf, type FaultId, type Stage } from '../stage';
import {
  membraneOperation,
  polishedStation,
  solveTrain,
  tapWater,
  temperatureInMonth,
  type MembraneOperation,
  type SolvedTrain,
} from '../train';
import { settleWater } from '../water';
import { CATALOGUE } from './catalogue';
import type { Fault } from './catalogue/fault';
import type { FaultReading } from './diagnose';
import { bandAt, CONDITIONS } from './evidence';
import { KIND_IDS, scaled, type KindId, type YesNoId } from './kinds';
import { PLACE, type NodeTable } from './nodes';
import type { Available } from './nextCheck';
import { ageFactor, COLDER_BY_C, SEASON_FACTOR, WORK_DAYS, WORK_FACTOR } from './prior';
import { PLAIN_BESIDE, type Beside, type Rig, type Solved } from './rig';
import { shapeFactors, type Series } from './shape';
import { WITH_BASELINE, WITHOUT_BASELINE, type SharedSd } from './shared';
import { unitRig, type UnitOnSite } from './unitRig';

/** A system of somebody's own, as the search for faults sees it. */
export interface SearchGround {
  readonly rig: Rig;
  readonly faults: readonly Fault[];
  readonly available: Available;
  readonly shared: SharedSd;
  /** Whether readings at the hand-over, or enough since, say what this very system does. */
  readonly hasBaseline: boolean;
  /** What the table of nodes depends on: one with the same key is the same table. */
  readonly key: string;
}

/** What is known of a system when the search begins. */
export interface SystemAsRun {
  readonly system: System;
  /** Readings before those that are judged. */
  readonly before: readonly Reading[];
  /** The train as the calendar lets expect it today, whatever its log says, and its membrane unit as its log has left it; null without one. */
  readonly solved: SolvedTrain;
  readonly operation: MembraneOperation | null;
  readonly tracking: ResinTracking | null;
  /** The membrane's course by the log, without the reading that is judged; empty where there is none. */
  readonly course: readonly Pick<CoursePoint, 'at' | 'factors' | 'outlier'>[];
  readonly now: string;
}

/** Half of the solver's slices: what is wrong with a train is a hundred times what they err by, and every cause errs alike. */
const SLICES = 4;
/** Purest that is worth telling from pure, ppm. */
const PUREST_PPM = 0.1;
/** Readings from which a log says what its system does, without a hand-over. */
const ENOUGH_READINGS = 6;

/**
 * Prepares the search for faults on a system from its record alone: solved as the calendar lets expect it, whatever its log
 * says of parts that were measured.
 *
 * @param course the membrane's course by the log, without the reading that is judged
 */
export function groundAsPlanned(
  system: System,
  { before, course, now }: Pick<SystemAsRun, 'before' | 'course' | 'now'>,
): Outcome<SearchGround> {
  const water = tapWater(system.source, system.instruments);
  if (!water.ok) return water;
  const planned = standing(system, [], water.value.water, now, water.value);
  if (!planned.ok) return planned;
  const { report } = planned.value;
  const fresh = solveTrain(system.train, system.source, water.value.water);
  return searchGround({
    system,
    before,
    solved: report.solved,
    operation: membraneOperation(report.train, system.source, report.solved),
    // Nobody knows how old the resin of a system without a log is.
    tracking: before.length > 0 && fresh.ok ? trackResin(system, before, fresh.value, now) : null,
    course,
    now,
  });
}

/** Prepares the search for faults on a system; an error where its unit cannot be solved. */
function searchGround(run: SystemAsRun): Outcome<SearchGround> {
  const { system, before } = run;
  const rig = run.operation ? membraneRig(run, run.operation) : ok(stillRig(run));
  if (!rig.ok) return rig;
  const ids = new Set(faultIds(system));
  const has = (id: FaultId): boolean => ids.has(id);
  const own = CATALOGUE.filter(({ id }) => has(id));
  const shaped = shapeOdds(
    run,
    own.map(({ id }) => id),
  );
  const faults = own.map((fault, i) => ({ ...fault, weight: fault.weight * oddsFactor(run, fault.id) * shaped[i]! }));
  const hasBaseline = system.build.commissioned?.readingId != null || before.filter(({ counts }) => counts).length >= ENOUGH_READINGS;
  const shared = hasBaseline ? WITH_BASELINE : WITHOUT_BASELINE;
  return ok({
    rig: rig.value,
    faults,
    available: availableOn(system, run.operation, has),
    shared,
    hasBaseline,
    key: JSON.stringify([run.operation, run.solved.stations.map(({ state }) => state.ec25UScm), [...ids], hasBaseline]),
  });
}

/** Goals whose water something lives in. */
const AQUARIUM: ReadonlySet<string> = new Set(['marineMakeUp', 'reefTank', 'softWaterBreeding', 'freshwaterCommunity']);

/** Causes that a system can have by the parts it has. */
export function faultIds(system: System): FaultId[] {
  const { stages, branches, loop, probes } = system.train;
  const all: readonly Stage[] = [...stages, ...branches.flatMap((branch) => branch.stages)];
  const hasMembrane = all.some(({ kind }) => kind === 'membrane');
  const own = all.flatMap((stage) => kindOf(stage).faults(stage));
  const hasResin = own.includes('resinSpent');
  const found = new Set<FaultId>([
    'healthy',
    'feedStrong',
    ...(hasMembrane ? (['lineLow'] as const) : []),
    ...own,
    ...(hasMembrane && hasResin ? (['resinPoisoned'] as const) : []),
    ...(loop ? (['loopSlow', 'ventCo2'] as const) : []),
    ...(probes.length > 0 ? (['meterFault', 'meterScale', 'probePlace'] as const) : []),
  ]);
  if (!AQUARIUM.has(system.goal.id)) found.delete('ammonia');
  // A displacement pump gives the flow, whatever the line does.
  if (own.includes('pumpSlip')) for (const id of ['lineLow', 'restrictorTight', 'restrictorWide', 'swapped'] as const) found.delete(id);
  return CATALOGUE.map(({ id }) => id).filter((id) => found.has(id));
}

/** The membrane unit of a system, as its log has left it. */
function membraneRig(run: SystemAsRun, { unit, feed, conditions }: MembraneOperation): Outcome<Rig> {
  const species = speciesOfWater(feed);
  if (!species.ok) return species;
  const { ids } = species.value;
  const expectedC = expectedTemperature(run, feed.temperatureC);
  const tapPpm = run.solved.stations[0]!.state.ec25UScm * PPM_PER_USCM;
  const feedPpm = strengthOf(ids, species.value.mmolL, expectedC) ?? tapPpm;
  const site: UnitOnSite = {
    unit,
    feed: species.value,
    conditions: { ...conditions, temperatureC: expectedC },
    slices: SLICES,
    // What comes to the membrane is the tap, but for what stages ahead took out.
    strengthPpm: (mmolL) => {
      const ppm = strengthOf(ids, mmolL, expectedC);
      if (ppm !== null) return ppm;
      const sum = (list: ArrayLike<number>): number => Array.from(list).reduce((total, c) => total + c, 0);
      return (feedPpm * sum(mmolL)) / sum(species.value.mmolL);
    },
    beside: besideOf(run),
    tapShare: tapPpm / Math.max(feedPpm, 1e-9),
  };
  return unitRig(site);
}

/** What a mixture of species shows on a meter, ppm; null where it cannot be told. */
function strengthOf(ids: Parameters<typeof waterOfSpecies>[0], mmolL: ArrayLike<number>, temperatureC: number): number | null {
  const state = settleWater(waterOfSpecies(ids, mmolL, temperatureC));
  return state.ok ? state.value.ec25UScm * PPM_PER_USCM : null;
}

/** The water's temperature this month; the planned one where the year is not known. */
function expectedTemperature({ system, now }: SystemAsRun, planned: number): number {
  const month = temperatureInMonth(system.source.season, new Date(now).getUTCMonth());
  return Number.isFinite(month) ? Math.min(44, Math.max(1, month)) : planned;
}

/** A system without a membrane: nothing of it goes through the solver. */
function stillRig(run: SystemAsRun): Rig {
  const tap = run.solved.stations[0]!.state.ec25UScm * PPM_PER_USCM;
  const flow = Math.max(1e-3, run.solved.productLPerH);
  const solved: Solved = {
    tap,
    membrane: tap,
    line: Math.max(1e-3, run.system.source.linePressureBar),
    inlet: Math.max(1e-3, run.system.source.linePressureBar),
    temperature: run.solved.stations[0]!.water.temperatureC,
    productFlow: flow,
    wasteFlow: 1,
    openFlow: flow,
    ratioStrength: 1,
    ratioFlow: 1,
  };
  return {
    elements: 0,
    soundProductLPerH: flow,
    beside: besideOf(run),
    solve: ({ feedShare = 1, warmerC = 0 }) =>
      ok({ ...solved, tap: tap * feedShare, membrane: tap * feedShare, temperature: solved.temperature + warmerC }),
  };
}

/** What is read beside what the solver says, where nothing is wrong. */
function besideOf({ system, solved, operation }: SystemAsRun): (truth: Solved) => Beside {
  const { stages } = system.train;
  const pure = stages.some(({ kind }) => kind === 'resin')
    ? PUREST_PPM
    : stages.some(deionizes)
      ? Math.max(PUREST_PPM, PPM_PER_USCM * polishedStation(solved).state.ec25UScm)
      : null;
  const blend = solved.stations.at(-1)!.state;
  const hardness = Math.max(1, blend.hardnessMgL);
  return (truth) => ({
    ...PLAIN_BESIDE,
    product: pure ?? truth.membrane,
    penProduct: pure ?? truth.membrane,
    blendHardness: hardness,
    nightResistivity: 5,
    returnFlow: Math.max(1e-3, system.train.loop?.flowLPerH ?? 1),
    pumpFlow: operation?.conditions.pump?.kind === 'displacement' ? operation.conditions.pump.flowLPerH : 1,
    recycleFlow: Math.max(1e-3, solved.unit?.recycleLPerH ?? 1),
  });
}

/** Causes of what makes water pure: where there is one, its outlet is read. */
const POLISHED: readonly FaultId[] = ['resinSpent', 'sweepLost', 'stackStarved', 'anionSpent'];

/** Kinds and checks a system has a place for. */
function availableOn({ train }: System, operation: MembraneOperation | null, has: (id: FaultId) => boolean): Available {
  const roles = train.probes.length > 0;
  const when = <T>(condition: boolean, ...list: T[]): T[] => (condition ? list : []);
  const elements = operation ? operation.unit.ranks.reduce((sum, { elementsPerVessel }) => sum + elementsPerVessel, 0) : 0;
  const kinds: KindId[] = [
    'tap',
    'temperature',
    ...when<KindId>(operation !== null, 'membrane', 'later', 'productFlow', 'wasteFlow', 'penMembrane', 'penTap'),
    ...when<KindId>(operation !== null && roles, 'clean'),
    ...when<KindId>(operation !== null && operation.conditions.pump?.kind !== 'displacement', 'line', 'inlet'),
    ...when<KindId>(operation?.conditions.pump?.kind === 'displacement', 'inlet', 'pumpFlow'),
    ...when<KindId>(has('backPressure'), 'openFlow'),
    ...when<KindId>(elements > 1, 'ratioStrength', 'ratioFlow'),
    ...when<KindId>(POLISHED.some(has), 'product', 'penProduct', 'pH'),
    ...when<KindId>(train.stages.filter(({ kind }) => kind === 'resin').length > 1, 'midResin'),
    ...when<KindId>(has('softenerSpent'), 'softHardness'),
    ...when<KindId>(has('cartridgeSpent'), 'blendHardness', 'shutHardness'),
    ...when<KindId>(has('ventCo2'), 'nightResistivity'),
    ...when<KindId>(has('loopSlow'), 'returnFlow'),
    ...when<KindId>(has('recycleWide'), 'recycleFlow'),
  ];
  const checks: YesNoId[] = [
    ...when<YesNoId>(has('carbonSpent'), 'chlorineStrip', 'freeChlorineStrip'),
    ...when<YesNoId>(has('silicaBand') || has('stackStarved') || has('anionSpent'), 'silicaKit'),
    ...when<YesNoId>(has('ammonia') || has('chloramineThrough'), 'ammoniaKit'),
    ...when<YesNoId>(has('shutoff'), 'drainWhenFull', 'countStarts'),
    ...when<YesNoId>(has('swapped') || has('probePlace'), 'lookConnections'),
    ...when<YesNoId>(has('sealLeak'), 'inspectSeals', 'askFirstMinute'),
    ...when<YesNoId>(has('uvLamp'), 'lampCheck'),
    ...when<YesNoId>(has('airLeak'), 'liftHose'),
    ...when<YesNoId>(has('reliefLeak'), 'feelRelief'),
    ...when<YesNoId>(has('organics'), 'foamTest'),
    ...when<YesNoId>(has('swMembrane'), 'smellOil'),
    ...when<YesNoId>(has('softenerBypass'), 'lookSoftener'),
    ...when<YesNoId>(has('sweepLost'), 'lookSweep'),
    ...when<YesNoId>(has('stackStarved'), 'readStack'),
    ...when<YesNoId>(has('doseLost'), 'lookDosing'),
  ];
  return { kinds: [...new Set(kinds)], checks };
}

/** What the shape of the membrane's course says for each cause. */
function shapeOdds({ course, system }: SystemAsRun, ids: readonly FaultId[]): number[] {
  const dayOf = (at: string): number => Date.parse(at) / DAY_MS;
  const series = (of: 'lnWater' | 'lnSalt', outlier: 'water' | 'salt'): Series => {
    const points = course.filter(({ factors, outlier: out }) => factors[of] !== null && !out[outlier]);
    return { days: points.map(({ at }) => dayOf(at)), y: points.map(({ factors }) => factors[of]!.value) };
  };
  const worked = system.services.filter(({ stageId }) => stageId !== null);
  const stages = new Map(system.train.stages.map((stage) => [stage.id, stage]));
  const raised = worked.flatMap(({ stageId }) => {
    const stage = stages.get(stageId!);
    return stage ? kindOf(stage).raises : [];
  });
  return shapeFactors(
    [series('lnWater', 'water'), series('lnSalt', 'salt')],
    ids,
    worked.map(({ at }) => dayOf(at)),
    raised,
  );
}

/** What a log makes of a cause's odds: the age of what wears, work of the last days, the season. */
function oddsFactor(run: SystemAsRun, id: FaultId): number {
  const { system, now, tracking } = run;
  const at = Date.parse(now);
  let factor = 1;
  let aged = false;
  for (const stage of system.train.stages) {
    const { wears, raises } = kindOf(stage);
    if (wears?.causes.includes(id) && 'fittedOn' in stage && stage.fittedOn !== null) {
      const age = ageFactor((at - Date.parse(`${stage.fittedOn}T00:00:00Z`)) / YEAR_MS / wears.years);
      // Of two alike the older one speaks.
      factor = aged ? Math.max(factor, age) : age;
      aged = true;
    }
    const worked = system.services.some(
      ({ stageId, at: when }) => stageId === stage.id && at - Date.parse(when) >= 0 && at - Date.parse(when) <= WORK_DAYS * DAY_MS,
    );
    if (worked && raises.includes(id)) factor *= WORK_FACTOR;
  }
  if (id === 'resinSpent' && tracking) factor *= ageFactor(Math.max(0, 1 - tracking.remaining.p50));
  if (id === 'coldWater' && colderThanAtBaseline(run)) factor *= SEASON_FACTOR;
  return factor;
}

function colderThanAtBaseline(run: SystemAsRun): boolean {
  const { system, before } = run;
  const baseline = before.find(({ id }) => id === system.build.commissioned?.readingId) ?? before[0];
  if (!baseline || baseline.temperatureC === null) return false;
  const expected = expectedTemperature(run, baseline.temperatureC);
  return baseline.temperatureC - expected > COLDER_BY_C;
}

/** What a further gauge or flow meter tells the search. */
const GAUGE_KINDS: Partial<Record<Gauge['at'], KindId>> = { line: 'line', membrane: 'inlet', recycle: 'recycleFlow', loop: 'returnFlow' };

/** A reading of the log as the search takes it: each figure as what it tells of. */
export function asFaultReadings(system: System, reading: Reading, roles: ProbeRoles = probeRoles(system)): FaultReading[] {
  const strength = (kind: KindId, probeId: string | undefined): FaultReading[] => {
    const ec = probeId === undefined ? null : probeEc25(reading, probeId, system.instruments);
    return ec === null ? [] : [{ kind, value: ec * PPM_PER_USCM }];
  };
  const figure = (kind: KindId, value: number | null): FaultReading[] => (value === null ? [] : [{ kind, value }]);
  const pumped = system.train.gauge === 'membrane';
  const resin = roles.afterResin?.id;
  return [
    ...strength('tap', roles.tap?.id),
    ...(roles.blendShare > 0 ? [] : strength('membrane', roles.afterMembrane?.id)),
    ...(resin === roles.afterMembrane?.id ? [] : strength('product', resin)),
    ...figure(pumped ? 'inlet' : 'line', reading.pressureBar),
    ...figure('temperature', reading.temperatureC),
    ...figure('productFlow', reading.productLPerH),
    ...figure('wasteFlow', reading.wasteLPerH),
    ...system.train.gauges.flatMap(({ id, at }) => {
      const kind = GAUGE_KINDS[at];
      return kind ? figure(kind, gaugeValue(reading, id)) : [];
    }),
  ];
}

/** Readings a system's own figures are taken from: the first ones, or those from its hand-over on. */
const REFERENCE_READINGS = 5;
const YEAR_MS = DAYS_PER_YEAR * DAY_MS;
/** What a year's ageing does to a kind, in ln. */
const AGED: Partial<Record<KindId, number>> = {
  productFlow: AGEING.water,
  openFlow: AGEING.water,
  membrane: AGEING.salt,
  later: AGEING.salt,
  clean: AGEING.salt,
  penMembrane: AGEING.salt,
};
/** Kinds that go with one that was read. */
const GOES_WITH: Partial<Record<KindId, readonly KindId[]>> = {
  productFlow: ['productFlow', 'openFlow'],
  membrane: ['membrane', 'later', 'clean', 'penMembrane'],
  tap: ['tap', 'penTap'],
  wasteFlow: ['wasteFlow'],
  line: ['line'],
  inlet: ['inlet'],
};

/**
 * A table of nodes as this very system is: what its first readings were against the solver, at the pressure, warmth and tap
 * of their days, is carried on to every node. What a class of element, a tube or a pump curve leaves open is taken out
 * so, and what changed since stays to be seen.
 */
export function calibrated(table: NodeTable, { system, before, now }: Pick<SystemAsRun, 'system' | 'before' | 'now'>): NodeTable {
  const sound = table.nodes.find(({ hypothesis }) => table.hypotheses[hypothesis]!.id === 'healthy');
  const first = before.filter(({ counts }) => counts);
  const from = Math.max(
    0,
    first.findIndex(({ id }) => id === system.build.commissioned?.readingId),
  );
  const reference = first.slice(from, from + REFERENCE_READINGS);
  if (!sound || reference.length === 0) return table;
  const roles = probeRoles(system);
  const off = new Map<KindId, number[]>();
  for (const reading of reference) {
    const read = asFaultReadings(system, reading, roles);
    const years = (Date.parse(now) - Date.parse(reading.at)) / YEAR_MS;
    for (const { kind, value } of read) {
      if (!GOES_WITH[kind]) continue;
      const given = read.filter((one) => CONDITIONS.includes(one.kind) && one.kind !== kind && !(kind === 'inlet' && one.kind === 'line'));
      const { middle } = bandAt(sound, kind, given);
      // The unit is aged to today: what it has aged since that reading is not this system's own.
      const list = off.get(kind) ?? [];
      list.push(scaled(kind, value) - scaled(kind, middle) + (AGED[kind] ?? 0) * years);
      off.set(kind, list);
    }
  }
  const shift = new Float64Array(KIND_IDS.length);
  for (const [kind, list] of off) for (const other of GOES_WITH[kind]!) shift[PLACE[other]] = median(list);
  return { ...table, nodes: table.nodes.map((node) => ({ ...node, expected: node.expected.map((u, i) => u + shift[i]!) })) };
}
