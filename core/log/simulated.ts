import { NOTHING_SAID, type Instrument, type Reading, type System } from '../file';
import { seeded, type Seeded } from '../numeric';
import { DAY_MS, DAYS_PER_YEAR, fail, ok, type Outcome } from '../quantity';
import type { Stage } from '../stage';
import { atPlace, solveTrain, tapWater, temperatureInMonth, type SolvedTrain } from '../train';
import { readingFromEc25, STRONGEST_MG_L, strengthened, type Water } from '../water';

/** What is true of a system at an instant, whatever its meters say. */
export interface TrueState {
  readonly temperatureC: number;
  readonly linePressureBar: number;
  /** Strength of the tap against the planned water. */
  readonly tap: number;
  /** Factors of the membrane's water and salt permeability. */
  readonly water: number;
  readonly salt: number;
  /** Share of the way to a closed filter. */
  readonly loading: number;
  /** Share of its salt the first resin lets through: 0 while it holds. */
  readonly slips: number;
  /** Flow of the restrictor at the same pressure against new: scale lowers it; 1 where nothing is said. */
  readonly restrictor?: number;
}
/** Flow through a turbulent capillary goes with its bore to this power (Blasius, recalled). */
const BORE_POWER = 19 / 7;

/** A system in a true state, solved. */
export function solvedIn(system: System, feed: Water, state: TrueState): Outcome<SolvedTrain> {
  const stages = system.train.stages.map((stage): Stage => {
    if (stage.kind === 'membrane') {
      const boreMm = stage.restrictor.boreMm * (state.restrictor ?? 1) ** (1 / BORE_POWER);
      return { ...stage, waterFactor: state.water, saltFactor: state.salt, restrictor: { ...stage.restrictor, boreMm } };
    }
    return 'loading' in stage ? { ...stage, loading: state.loading } : stage;
  });
  const water = { ...strengthened(feed, state.tap), temperatureC: state.temperatureC };
  return solveTrain({ ...system.train, stages }, { ...system.source, linePressureBar: state.linePressureBar }, water);
}

/** How readings scatter about the truth, one standard deviation. */
export interface Scatter {
  readonly meter: number;
  readonly jug: number;
  readonly gauge: number;
  readonly temperatureC: number;
}
/** Readings as careful people take them (science of faults, 1.3). */
export const USUAL_SCATTER: Scatter = { meter: 0.02, jug: 0.03, gauge: 0.02, temperatureC: 0.5 };

/** What a meter shows of a water: with its own gain, to its own step, at most the end of its scale. */
export function shownBy(ec25UScm: number, instrument: Instrument, gain = 1): number {
  const shown = Math.max(0, (readingFromEc25(ec25UScm, instrument.scale) ?? STRONGEST_MG_L) * gain * instrument.gain + instrument.offset);
  return Math.round(shown / instrument.resolution) * instrument.resolution;
}

/** What is read of a system in a true state by somebody who reads all of it. */
export function readingOf(
  system: System,
  solved: SolvedTrain,
  state: TrueState,
  at: { readonly id: string; readonly at: string; readonly meterL: number | null; readonly gains?: Readonly<Record<string, number>> },
  chance: Seeded,
  scatter: Scatter = USUAL_SCATTER,
): Reading {
  const off = (share: number): number => Math.exp(share * chance.normal());
  const values = system.train.probes.flatMap((probe) => {
    const instrument = system.instruments.find(({ id }) => id === probe.instrumentId);
    const here = atPlace(solved, probe);
    if (!instrument || !here) return [];
    const at25 = here.state.ec25UScm;
    const behindResin = solved.stations.findIndex(({ after, kind }) => kind === 'resin' && after === probe.after);
    const slipped = behindResin > 0 ? at25 + state.slips * solved.stations[behindResin - 1]!.state.ec25UScm : at25;
    return [
      {
        probeId: probe.id,
        instrumentId: instrument.id,
        shown: shownBy(slipped * off(scatter.meter), instrument, at.gains?.[instrument.id] ?? 1),
      },
    ];
  });
  const bar = system.train.gauge === 'line' ? state.linePressureBar : (solved.unit?.feedPressureBar ?? state.linePressureBar);
  const waste = solved.waste?.flowLPerH ?? null;
  return {
    id: at.id,
    systemId: system.id,
    at: at.at,
    values,
    pressureBar: bar * off(scatter.gauge),
    temperatureC: state.temperatureC + scatter.temperatureC * chance.normal(),
    productLPerH: solved.unit ? solved.productLPerH * off(scatter.jug) : null,
    wasteLPerH: waste === null ? null : waste * off(scatter.jug),
    meterL: at.meterL,
    ...NOTHING_SAID,
  };
}

/** A year or more of a system's life, as it is set. */
export interface LifeStory {
  /** Instant of the first reading, days it goes on, and days from one reading to the next. */
  readonly from: string;
  readonly days: number;
  readonly everyDays: number;
  /** Change of the membrane's factors a year, in ln. */
  readonly waterPerYear: number;
  readonly saltPerYear: number;
  /** Jumps of its factors, in ln. */
  readonly jumps: readonly { readonly day: number; readonly water: number; readonly salt: number }[];
  /** Days on which the filters are changed, and days a filter lasts until it is nearly closed. */
  readonly filterChanges: readonly number[];
  readonly filterDays: number;
  /** Gain of each meter a year, in ln. */
  readonly drift: Readonly<Record<string, number>>;
  /** Change of the restrictor's flow a year, in ln. */
  readonly restrictorPerYear?: number;
  /** Days from which the supply is another, with its strength against the one before. */
  readonly supplies?: readonly { readonly day: number; readonly times: number }[];
  /** The day every probe is read with another meter, and what that shows against the old one. */
  readonly newMeter?: { readonly day: number; readonly times: number };
  /** Towns whose water comes by turns: strength of the second against the first, and the share of readings it has. */
  readonly towns?: { readonly times: number; readonly share: number };
  readonly seed: number;
  readonly scatter?: Scatter;
}

/** A log and what is true behind each of its readings. */
export interface SimulatedLog {
  readonly readings: readonly Reading[];
  readonly truth: readonly { readonly at: string; readonly day: number; readonly state: TrueState }[];
}

/** Scatter of the line from day to day, and of the water's temperature about its season. */
const LINE_SD = 0.06;
const SEASON_SD_C = 1;
const TAP_SD = 0.04;

/** What is true on a day of a story. */
export function trueState(system: System, story: LifeStory, day: number, chance: Seeded): TrueState {
  const at = new Date(Date.parse(story.from) + day * DAY_MS);
  const years = day / DAYS_PER_YEAR;
  const jumped = story.jumps.filter((jump) => jump.day <= day);
  const sum = (of: 'water' | 'salt'): number => jumped.reduce((total, jump) => total + jump[of], 0);
  const fitted = story.filterChanges.filter((changed) => changed <= day).at(-1) ?? 0;
  return {
    temperatureC: Math.max(
      2,
      temperatureInMonth(system.source.season, at.getUTCMonth() + at.getUTCDate() / 30 - 0.5) + SEASON_SD_C * chance.normal(),
    ),
    linePressureBar: system.source.linePressureBar * Math.exp(LINE_SD * chance.normal()),
    tap: Math.exp(TAP_SD * chance.normal()) * supplyAt(story, day, chance),
    water: Math.exp(story.waterPerYear * years + sum('water')),
    salt: Math.exp(story.saltPerYear * years + sum('salt')),
    loading: Math.min(0.95, ((day - fitted) / story.filterDays) ** 1.5 * 0.9),
    slips: 0,
    restrictor: Math.exp((story.restrictorPerYear ?? 0) * years),
  };
}

/** Strength of the supply of a day against the planned one. */
function supplyAt({ supplies = [], towns }: LifeStory, day: number, chance: Seeded): number {
  const changed = supplies.filter((one) => one.day <= day).reduce((times, one) => times * one.times, 1);
  // A story without towns draws no chance: its log stays what it was.
  return changed * (towns && chance.next() < towns.share ? towns.times : 1);
}

/**
 * Lives a story through with the solver and reads it as a person would.
 *
 * @returns an error of the solver, where a state makes no water
 */
export function simulatedLog(system: System, story: LifeStory): Outcome<SimulatedLog> {
  const tap = tapWater(system.source, system.instruments);
  if (!tap.ok) return tap;
  const chance = seeded(story.seed);
  const readings: Reading[] = [];
  const truth: SimulatedLog['truth'][number][] = [];
  for (let day = 0; day <= story.days; day += story.everyDays) {
    const at = new Date(Date.parse(story.from) + day * DAY_MS).toISOString();
    const state = trueState(system, story, day, chance);
    const solved = solvedIn(system, tap.value.water, state);
    if (!solved.ok) return solved;
    if (solved.value.unit?.noProduction)
      return fail('linePressureBar', state.linePressureBar, 'a pressure that makes water', 'Nothing is made here.');
    const since = story.newMeter && day >= story.newMeter.day ? story.newMeter.times : 1;
    const gains = Object.fromEntries(
      system.instruments.map(({ id }) => [id, since * Math.exp(((story.drift[id] ?? 0) * day) / DAYS_PER_YEAR)]),
    );
    readings.push(readingOf(system, solved.value, state, { id: `r${day}`, at, meterL: null, gains }, chance, story.scatter));
    truth.push({ at, day, state });
  }
  return ok({ readings, truth });
}
