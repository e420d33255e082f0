import { DAY_MS } from '../quantity';
import type { Reading, System } from '../file';
import { feedViscosity } from '../membrane';
import { median, posterior, type Estimate } from '../numeric';
import { smallestStepUScm } from '../water';
import { inletBar, temperatureInMonth, type MembraneOperation } from '../train';
import { probeEc25, probeRoles, saltRemoved, type ProbeRoles } from './series';
import type { UnitMap, UnitState } from './unitMap';

/** What one reading says of a membrane unit, temperature, pressure and tap taken out; null where it does not tell. */
export interface Factors {
  readonly at: string;
  readonly readingId: string;
  /** ln of the membrane's water factor, 0 as its class has it. */
  readonly lnWater: Estimate | null;
  /** ln of its salt factor. */
  readonly lnSalt: Estimate | null;
  /** Share of the pressure that filters take beyond what clean ones do. */
  readonly filterShare: Estimate | null;
  /** The state of the hour it was read against. */
  readonly state: UnitState;
  /** What the last digit of the meter hides of the salt, in ln. */
  readonly roundedBy: number;
  /** ln of the product flow as it was read. */
  readonly lnProduct: number | null;
}

/** One standard deviation of what is read (science of faults, 1.3), as shares. */
const SD = {
  /** Jugs of product and of waste. */
  jug: 0.03,
  /** A meter's own scatter. */
  meter: 0.02,
  gauge: 0.02,
  /** The line from day to day, where nobody read the gauge. */
  lineUnread: 0.1,
  temperatureC: 0.5,
  temperatureUnreadC: 2.5,
  tapUnread: 0.1,
  /** A restrictor between two readings. */
  restrictor: 0.04,
  /** What filters take beyond clean, as a share of the pressure: open where waste tells of it, small where nothing does. */
  filter: 0.3,
  filterUnseen: 0.06,
  /** A membrane of which the reading says nothing. */
  unseen: 0.15,
  /** One whose product was measured: the reading alone speaks. */
  open: 2,
} as const;

const UNKNOWNS = ['lnWater', 'lnSalt', 'lnRestrictor', 'filter', 'temperature', 'line', 'tap'] as const;
type Unknowns = number[];
const ROUNDS = 6;

/** What is read of a unit, and what it is read against. */
export interface UnitAsRead {
  readonly map: UnitMap;
  readonly operation: MembraneOperation;
  /** Conductivity of the planned tap, and pressure at the membrane with it. */
  readonly tapUScm: number;
  readonly membraneBar: number;
  /** ln of the restrictor's flow against what is entered, as readings with clean filters about an instant (ms) have it. */
  readonly lnRestrictor: (ms: number) => number;
}

/** What filters took about the time of a reading, as readings around it have it: ln of the share of pressure left. */
export type FilterPrior = (at: string) => Estimate | null;

/** What a reading shows of product, waste and passage, as logarithms with their standard deviation. */
interface Shown {
  readonly lnProduct: Estimate | null;
  readonly lnWaste: Estimate | null;
  readonly lnPassage: Estimate | null;
  readonly roundedBy: number;
}

/**
 * Reads the state of a membrane out of a reading: the product, the waste and the salt it shows are held against the solved
 * unit at the pressure, temperature and tap of that hour, all with their doubts, and what is left is the membrane's, the
 * restrictor's or the filters'. Linearised Gaussian estimate, a few rounds (Gauss-Newton).
 *
 * @param filterPrior what the readings around it say of the filters, where they were looked at before
 * @returns null where the reading says nothing of the unit, or was taken far outside of what the log otherwise holds
 */
export function factorsOf(
  system: System,
  reading: Reading,
  unit: UnitAsRead,
  roles: ProbeRoles,
  filterPrior: FilterPrior = () => null,
): Factors | null {
  const shown = shownBy(system, reading, roles, unit);
  if (!shown.lnProduct && !shown.lnPassage && !shown.lnWaste) return null;
  const given = conditionsOf(system, reading, unit, roles);
  const { map } = unit;
  if (!within(map.range, given)) return null;
  const seesWaste = shown.lnWaste !== null && map.hasRestrictor;
  const atLine = isReadAtLine(system, map);
  const prior: readonly Estimate[] = [
    { value: 0, sd: shown.lnProduct ? SD.open : SD.unseen },
    { value: 0, sd: SD.open },
    { value: unit.lnRestrictor(Date.parse(reading.at)), sd: SD.restrictor },
    !atLine
      ? { value: 0, sd: 1e-4 }
      : (filterPrior(reading.at) ?? { value: 0, sd: seesWaste && shown.lnProduct ? SD.filter : SD.filterUnseen }),
    given.temperatureC,
    given.lnBar,
    given.lnTap,
  ];
  const observed = [shown.lnProduct, map.hasRestrictor ? shown.lnWaste : null, shown.lnPassage];
  const stateOf = (z: Unknowns): UnitState => stateAt(z, unit, atLine);
  const predict = (z: Unknowns): readonly number[] => map.shows(stateOf(z));

  let z = prior.map(({ value }) => value);
  let covariance: number[][] | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const at = predict(z);
    const slopes = UNKNOWNS.map((name, i) => {
      const step = name === 'temperature' ? 0.5 : 0.02;
      const there = predict(z.map((value, j) => (i === j ? value + step : value)));
      return there.map((value, k) => (value - at[k]!) / step);
    });
    const moved = posterior(
      prior.map(({ value, sd }, i) => ({ value: value - z[i]!, sd })),
      observed.flatMap((seen, k) =>
        seen ? [{ row: slopes.map((slope) => slope[k]!), value: seen.value - at[k]!, weight: 1 / (seen.sd * seen.sd) }] : [],
      ),
    );
    if (!moved) return null;
    covariance = moved.covariance;
    const move = moved.mean;
    z = z.map((value, i) => value + move[i]!);
    // The map speaks of what it spans; beyond it a membrane is told to be out of range by the figures themselves.
    z[0] = Math.max(-1.2, Math.min(0.6, z[0]!));
    if (Math.max(...move.map(Math.abs)) < 1e-7) break;
  }
  const found = (i: number): Estimate => ({ value: z[i]!, sd: Math.sqrt(covariance![i]![i]!) });
  return {
    at: reading.at,
    readingId: reading.id,
    lnWater: shown.lnProduct ? found(0) : null,
    lnSalt: shown.lnPassage ? found(1) : null,
    filterShare: seesWaste && atLine && shown.lnProduct ? { value: 1 - Math.exp(-z[3]!), sd: Math.exp(-z[3]!) * found(3).sd } : null,
    state: stateOf(z),
    roundedBy: shown.roundedBy,
    lnProduct: shown.lnProduct?.value ?? null,
  };
}

/** Whether the pressure that is read stands before the filters, so that they lie between it and the membrane. */
const isReadAtLine = ({ train }: System, { held }: UnitMap): boolean => !held && train.gauge === 'line';

/** The unit's state behind the unknowns: what is left of the line's pressure reaches the membrane. */
function stateAt(z: Unknowns, { map, operation }: UnitAsRead, atLine: boolean): UnitState {
  const [lnWater, lnSalt, lnRestrictor, filter, temperatureC, lnBar, lnTap] = z as [number, number, number, number, number, number, number];
  const base = { temperatureC, lnWater, lnSalt, lnRestrictor, lnTap };
  const bar = Math.exp(lnBar);
  if (!atLine) return { ...base, membraneBar: bar };
  // Clean filters are laminar: what they take goes with the flow and the viscosity.
  const slope =
    (operation.conditions.prefilterBarPerLPerH * feedViscosity(temperatureC, 0)) / feedViscosity(operation.feed.temperatureC, 0);
  let membraneBar = bar * Math.exp(-filter);
  for (let round = 0; round < 2; round++) {
    const [lnProduct, lnWaste] = map.shows({ ...base, membraneBar });
    membraneBar = Math.max(0.3 * bar, bar - slope * (Math.exp(lnProduct) + Math.exp(lnWaste))) * Math.exp(-filter);
  }
  return { ...base, membraneBar };
}

/** Temperature, pressure and strength of the tap in the hour of a reading, read or expected. */
function conditionsOf(
  system: System,
  reading: Reading,
  { map, membraneBar, tapUScm }: UnitAsRead,
  roles: ProbeRoles,
): { readonly temperatureC: Estimate; readonly lnBar: Estimate; readonly lnTap: Estimate } {
  const { source, instruments } = system;
  const planned = inletBar(source);
  const unread = isReadAtLine(system, map) ? planned : membraneBar;
  const read = reading.pressureBar;
  const bar = read !== null && read > 0 ? (system.train.gauge === 'line' ? inletBar({ ...source, linePressureBar: read }) : read) : null;
  const tap = roles.tap ? probeEc25(reading, roles.tap.id, instruments) : null;
  return {
    temperatureC:
      reading.temperatureC === null
        ? { value: expectedTemperatureC(source, reading.at), sd: SD.temperatureUnreadC }
        : { value: reading.temperatureC, sd: SD.temperatureC },
    lnBar: bar === null ? { value: Math.log(unread), sd: SD.lineUnread } : { value: Math.log(bar), sd: SD.gauge },
    lnTap:
      tap === null || !(tap > 0)
        ? { value: 0, sd: SD.tapUnread }
        : { value: Math.max(-1.5, Math.min(1.5, map.strengthPower * Math.log(tap / tapUScm))), sd: SD.meter },
  };
}

/** How far beyond what a map spans it still speaks. */
const BEYOND = { degrees: 2, share: 1.1 } as const;

/** Whether a reading's hour lies where the unit's answers are known: a slip of the pen does not. */
const within = (
  { lowC, highC, lowBar, highBar }: UnitMap['range'],
  given: { readonly temperatureC: Estimate; readonly lnBar: Estimate },
): boolean =>
  given.temperatureC.value >= lowC - BEYOND.degrees &&
  given.temperatureC.value <= highC + BEYOND.degrees &&
  Math.exp(given.lnBar.value) >= lowBar / BEYOND.share &&
  Math.exp(given.lnBar.value) <= highBar * BEYOND.share;

/** Temperature the season has on a day, °C. */
function expectedTemperatureC({ season }: System['source'], at: string): number {
  const day = new Date(at);
  return temperatureInMonth(season, day.getUTCMonth() + day.getUTCDate() / 30 - 0.5);
}

/** Product, waste and passage as the reading has them. */
function shownBy(system: System, reading: Reading, roles: ProbeRoles, { operation }: UnitAsRead): Shown {
  const flow = (value: number | null): Estimate | null => (value !== null && value > 0 ? { value: Math.log(value), sd: SD.jug } : null);
  const share = operation.stage.bypassShare;
  const product = reading.productLPerH === null ? null : reading.productLPerH * (1 - share);
  const removed = saltRemoved(reading, roles, system.instruments);
  const after = roles.afterMembrane && probeEc25(reading, roles.afterMembrane.id, system.instruments);
  const meter = system.instruments.find(({ id }) => id === roles.afterMembrane?.instrumentId);
  const blur = meter && after ? smallestStepUScm(meter) / Math.sqrt(12) / after : 0;
  return {
    lnProduct: flow(product),
    lnWaste: flow(reading.wasteLPerH),
    roundedBy: blur,
    lnPassage:
      removed === null || removed >= 1 || removed <= -0.5
        ? null
        : { value: Math.log(1 - removed), sd: Math.hypot(SD.meter * Math.SQRT2, blur) },
  };
}

/** Days around a change of filters in which they count as clean. */
const CLEAN_DAYS = 21;

/**
 * ln of the restrictor's flow against what is entered, from readings taken while the filters were clean: one figure from one
 * change of the restrictor to the next, for it was cut, or its valve turned.
 *
 * @param cleanSince instants from which the filters were clean for a while, ms
 * @param changedAt instants at which the restrictor may have been changed, ms
 */
export function restrictorAsRead(
  system: System,
  readings: readonly Reading[],
  unit: Omit<UnitAsRead, 'lnRestrictor'>,
  cleanSince: readonly number[],
  changedAt: readonly number[],
): (ms: number) => number {
  if (!unit.map.hasRestrictor) return () => 0;
  const roles = probeRoles(system);
  const asRead = { ...unit, lnRestrictor: () => 0 };
  const stretch = (ms: number): number => changedAt.filter((change) => change <= ms).length;
  const seen = readings.flatMap((reading) => {
    if (reading.wasteLPerH === null || reading.wasteLPerH <= 0) return [];
    const given = conditionsOf(system, reading, asRead, roles);
    if (!within(unit.map.range, given)) return [];
    const state = stateAt(
      [0, 0, 0, 0, given.temperatureC.value, given.lnBar.value, given.lnTap.value],
      asRead,
      isReadAtLine(system, unit.map),
    );
    const ms = Date.parse(reading.at);
    const clean = cleanSince.some((since) => ms >= since && ms < since + CLEAN_DAYS * DAY_MS);
    return [{ stretch: stretch(ms), clean, off: Math.log(reading.wasteLPerH) - unit.map.shows(state)[1] }];
  });
  const middle = (list: readonly { readonly off: number }[]): number | null =>
    list.length === 0 ? null : median(list.map(({ off }) => off));
  const found = new Map(
    [...new Set(seen.map((one) => one.stretch))].map((key) => {
      const own = seen.filter((one) => one.stretch === key);
      return [key, middle(own.filter(({ clean }) => clean)) ?? middle(own)!];
    }),
  );
  return (ms) => found.get(stretch(ms)) ?? 0;
}
