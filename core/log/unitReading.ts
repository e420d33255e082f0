import type { Gauge, Reading, System } from '../file';
import { feedViscosity, pumpOutletBar } from '../membrane';
import type { Estimate } from '../numeric';
import { inletBar, temperatureInMonth, type MembraneOperation } from '../train';
import { smallestStepUScm } from '../water';
import { probeEc25, saltRemoved, type ProbeRoles } from './series';
import type { UnitMap, UnitShows } from './unitMap';

/** What a reading holds of a membrane unit, in logarithms with their doubt, and what the unit would show in a state (science of logs, 2 and 3). */

/** What is read of a unit, and what it is read against. */
export interface UnitAsRead {
  readonly map: UnitMap;
  readonly operation: MembraneOperation;
  /** Conductivity of the planned tap, and pressure at the membrane with it. */
  readonly tapUScm: number;
  readonly membraneBar: number;
}

/** One standard deviation of what is read (science of faults, 1.3), as shares. */
export const READ_SD = {
  jug: 0.027,
  /** A meter's own scatter. */
  meter: 0.02,
  gauge: 0.015,
  /** The line from day to day, where nobody read the gauge. */
  lineUnread: 0.1,
  temperatureC: 0.4,
  temperatureUnreadC: 1.5,
  tapUnread: 0.1,
} as const;

/** The hour of a reading: temperature, pressure where the gauge is, strength of the tap against the planned one. */
export interface Hour {
  readonly temperatureC: Estimate;
  readonly lnBar: Estimate;
  readonly lnTap: Estimate;
}

/** Where the pressure of an hour is known, along the flow. */
export type KnownAt = 'line' | 'filters' | 'membrane';

/** What a reading shows of the unit. */
export interface UnitSeen {
  readonly hour: Hour;
  readonly knownAt: KnownAt;
  readonly lnProduct: Estimate | null;
  readonly lnWaste: Estimate | null;
  readonly lnPassage: Estimate | null;
  /** Further gauges, ln of bar. */
  readonly lnFilters: Estimate | null;
  readonly lnMembrane: Estimate | null;
  /** What the last digit of the meter hides of the salt, in ln. */
  readonly roundedBy: number;
}

/** Takes a reading apart; null where it says nothing of the unit. */
export function seenOf(system: System, reading: Reading, unit: UnitAsRead, roles: ProbeRoles): UnitSeen | null {
  const flow = (value: number | null): Estimate | null =>
    value !== null && value > 0 ? { value: Math.log(value), sd: READ_SD.jug } : null;
  const share = unit.operation.stage.bypassShare;
  const lnProduct = flow(reading.productLPerH === null ? null : reading.productLPerH * (1 - share));
  const lnWaste = unit.map.hasRestrictor ? flow(reading.wasteLPerH) : null;
  const { lnPassage, roundedBy } = passageOf(system, reading, roles);
  if (!lnProduct && !lnPassage && !flow(reading.wasteLPerH)) return null;
  const knownAt = unit.map.held ? 'membrane' : system.train.gauge;
  const further = (at: Gauge['at']): Estimate | null => {
    const gauge = system.train.gauges.find((one) => one.at === at);
    const bar = reading.also.find(({ gaugeId }) => gaugeId === gauge?.id)?.value ?? null;
    return bar !== null && bar > 0 && at !== knownAt ? { value: Math.log(bar), sd: READ_SD.gauge } : null;
  };
  return {
    hour: hourOf(system, reading, unit, roles, knownAt),
    knownAt,
    lnProduct,
    lnWaste,
    lnPassage,
    lnFilters: further('filters'),
    lnMembrane: further('membrane'),
    roundedBy,
  };
}

function passageOf(system: System, reading: Reading, roles: ProbeRoles): Pick<UnitSeen, 'lnPassage' | 'roundedBy'> {
  const removed = saltRemoved(reading, roles, system.instruments);
  const after = roles.afterMembrane && probeEc25(reading, roles.afterMembrane.id, system.instruments);
  const meter = system.instruments.find(({ id }) => id === roles.afterMembrane?.instrumentId);
  const roundedBy = meter && after ? smallestStepUScm(meter) / Math.sqrt(12) / after : 0;
  if (removed === null || removed >= 1 || removed <= -0.5) return { lnPassage: null, roundedBy };
  // What is blended past the membrane drowns what comes through it: each meter's scatter counts as much more.
  const share = roles.blendShare;
  const before = roles.tap ? probeEc25(reading, roles.tap.id, system.instruments) : null;
  const through = (1 - removed) * (before ?? 0) * (1 - share);
  const [byAfter, byTap] = share > 0 && before && after ? [after / through, 1 + (share * before) / through] : [1, 1];
  return {
    lnPassage: { value: Math.log(1 - removed), sd: Math.hypot(READ_SD.meter * byAfter, READ_SD.meter * byTap, roundedBy * byAfter) },
    roundedBy: roundedBy * byAfter,
  };
}

/** Temperature, pressure and strength of the tap in the hour of a reading, read or expected. */
function hourOf(system: System, reading: Reading, { map, membraneBar, tapUScm }: UnitAsRead, roles: ProbeRoles, knownAt: KnownAt): Hour {
  const { source, instruments } = system;
  const unread = knownAt === 'membrane' ? membraneBar : inletBar(source);
  const read = reading.pressureBar;
  const bar = read !== null && read > 0 ? (knownAt === 'line' ? inletBar({ ...source, linePressureBar: read }) : read) : null;
  const tap = roles.tap ? probeEc25(reading, roles.tap.id, instruments) : null;
  return {
    temperatureC:
      reading.temperatureC === null
        ? { value: expectedTemperatureC(source, reading.at), sd: READ_SD.temperatureUnreadC }
        : { value: reading.temperatureC, sd: READ_SD.temperatureC },
    lnBar: bar === null ? { value: Math.log(unread), sd: READ_SD.lineUnread } : { value: Math.log(bar), sd: READ_SD.gauge },
    lnTap:
      tap === null || !(tap > 0)
        ? { value: 0, sd: READ_SD.tapUnread }
        : { value: Math.max(-1.5, Math.min(1.5, map.strengthPower * Math.log(tap / tapUScm))), sd: READ_SD.meter },
  };
}

/** Temperature the season has on a day, °C. */
export function expectedTemperatureC({ season }: System['source'], at: string): number {
  const day = new Date(at);
  return temperatureInMonth(season, day.getUTCMonth() + day.getUTCDate() / 30 - 0.5);
}

/** How far beyond what a map spans it still speaks. */
const BEYOND = { degrees: 2, share: 1.1 } as const;

/** Whether an hour lies where the unit's answers are known: a slip of the pen does not. */
export const within = ({ lowC, highC, lowBar, highBar }: UnitMap['range'], hour: Hour, knownAt: KnownAt): boolean =>
  hour.temperatureC.value >= lowC - BEYOND.degrees &&
  hour.temperatureC.value <= highC + BEYOND.degrees &&
  // A pressure that is read elsewhere is held to the range where it is worked out for the membrane.
  (knownAt !== 'membrane' || (Math.exp(hour.lnBar.value) >= lowBar / BEYOND.share && Math.exp(hour.lnBar.value) <= highBar * BEYOND.share));

/** The unit's own state, factors as natural logarithms against what is entered; filters against clean ones. */
export interface UnitFactors {
  readonly lnWater: number;
  readonly lnSalt: number;
  readonly lnRestrictor: number;
  readonly lnFilter: number;
}

/** What a unit shows in a state and an hour: flows and passage in ln, and pressures along the way, bar. */
export interface Shows {
  readonly lnProduct: number;
  readonly lnWaste: number;
  readonly lnPassage: number;
  readonly filtersBar: number;
  readonly membraneBar: number;
}

const ROUNDS = { direct: 2, pumped: 5 } as const;

/**
 * What the unit shows. The pressure is known where the gauge is; filters, which are laminar, and the pump's curve lie
 * between it and the membrane, at the flow that follows from it (science of logs, 2.3).
 */
export function showsAt(
  { map, operation }: Pick<UnitAsRead, 'map' | 'operation'>,
  { lnWater, lnSalt, lnRestrictor, lnFilter }: UnitFactors,
  hour: { readonly temperatureC: number; readonly lnBar: number; readonly lnTap: number },
  knownAt: KnownAt,
): Shows {
  const base = { temperatureC: hour.temperatureC, lnWater, lnSalt, lnRestrictor, lnTap: hour.lnTap };
  const bar = Math.exp(hour.lnBar);
  const told = (shows: UnitShows, filtersBar: number, membraneBar: number): Shows => ({
    lnProduct: shows[0],
    lnWaste: shows[1],
    lnPassage: shows[2],
    filtersBar,
    membraneBar,
  });
  if (knownAt === 'membrane') return told(map.shows({ ...base, membraneBar: bar }), NaN, bar);
  const { pump } = operation.conditions;
  const resistance =
    (operation.conditions.prefilterBarPerLPerH * feedViscosity(hour.temperatureC, 0) * Math.exp(lnFilter)) /
    feedViscosity(operation.feed.temperatureC, 0);
  const atMembrane = (flowLPerH: number): readonly [filters: number, membrane: number] => {
    const filters = knownAt === 'filters' ? bar : Math.max(0.02 * bar, bar - resistance * flowLPerH);
    const raised = pump && pump.kind !== 'displacement' ? pumpOutletBar(pump, filters, flowLPerH) : filters;
    return [filters, Math.min(1.2 * map.range.highBar, Math.max(0.8 * map.range.lowBar, raised))];
  };
  let flow = pump ? operation.stage.recycleLPerH : 0;
  let [filtersBar, membraneBar] = atMembrane(flow);
  let shows = map.shows({ ...base, membraneBar });
  let before: { readonly flow: number; readonly gap: number } | null = null;
  for (let round = 0; round < (pump ? ROUNDS.pumped : ROUNDS.direct); round++) {
    const gap = Math.exp(shows[0]) + Math.exp(shows[1]) - flow;
    // More flow leaves less pressure, and so less flow: by the slope between the last two, a half where there is none yet.
    const slope: number = before && before.flow !== flow ? (gap - before.gap) / (flow - before.flow) : flow === 0 || !pump ? -1 : -2;
    before = { flow, gap };
    flow = Math.max(0, flow - gap / Math.min(-1, slope));
    [filtersBar, membraneBar] = atMembrane(flow);
    shows = map.shows({ ...base, membraneBar });
  }
  return told(shows, filtersBar, membraneBar);
}
