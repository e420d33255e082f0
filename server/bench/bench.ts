import { DAY_MS } from '@yes-clear/core/quantity';
import { chanceAt, scatterAt, slowScatter } from './chance';
import type { Fault, SetFault } from './faults';
import { HOUSE, SENSORS, type BenchSensor } from './sensors';
import { courseAt, litresAt, loopUScmAt, runningAt } from './rig';

/** One figure of a pack of RFC 8428, its time aside. */
export interface Sent {
  readonly n: string;
  readonly u: string;
  readonly v: number;
}

/** From one look at the meters to the next, ms. */
export const TICK_MS = 10_000;
/** Scatter of a figure, share of it; of a temperature in K, of a total none. */
const SCATTER: Readonly<Record<BenchSensor['unit'], number>> = { 'S/m': 0.01, Pa: 0.008, Cel: 0.1, 'm3/s': 0.012, m3: 0 };
/** Gain a conductivity cell gains a year, ln: deposits on its faces. */
const DRIFT_PER_YEAR = 0.03;
/** A sensor falls silent for ten minutes once in a hundred. */
const DROPOUT = { ms: 600_000, share: 0.01 } as const;
/** Creep behind a membrane at rest, and how soon it is rinsed away, h. */
const CREEP = { times: 6, restH: 8, rinseH: 0.08 } as const;
const YEAR_MS = 365.25 * DAY_MS;

/** What the meters of the bench would say at an instant: the same whenever it is asked for. */
export function benchAt(ms: number, faults: readonly SetFault[] = []): Sent[] {
  const tick = Math.floor(ms / TICK_MS);
  const here = faults.filter(({ sinceMs }) => sinceMs <= ms);
  const rig = new Set(here.filter(({ sensor }) => sensor === null).map(({ fault }) => fault));
  const of = (name: string, fault: Fault): SetFault | undefined => here.find((one) => one.sensor === name && one.fault === fault);
  return SENSORS.flatMap(({ name, unit }): Sent[] => {
    if (of(name, 'silent') || chanceAt(`${name} drops`, Math.floor(ms / DROPOUT.ms)) < DROPOUT.share) return [];
    const frozen = of(name, 'frozen');
    const at = frozen ? frozen.sinceMs : ms;
    const own = frozen ? Math.floor(at / TICK_MS) : tick;
    const truth = trueAt(name, at, rig);
    const drift = unit === 'S/m' ? Math.exp((DRIFT_PER_YEAR * (at % YEAR_MS)) / YEAR_MS) * (of(name, 'meterHigh') ? 4 / 3 : 1) : 1;
    const off = SCATTER[unit] * scatterAt(name, own);
    const v = unit === 'Cel' ? truth + off : truth * drift * Math.exp(off);
    return [{ n: name, u: unit, v: Number(v.toPrecision(6)) }];
  });
}

/** What is true at a meter, in the unit it sends. */
function trueAt(name: string, ms: number, faults: ReadonlySet<Fault>): number {
  if (name === 'bench:loop:outlet') return loopUScmAt(ms) * 1e-4;
  const course = courseAt(ms, faults);
  const made = runningAt(ms);
  const running = made.running && !faults.has('waterOff');
  switch (name.slice(HOUSE.length)) {
    case 'tap':
      return course.tapUScm * 1e-4;
    case 'membrane':
      return course.membraneUScm * 1e-4 * crept(made);
    case 'resin':
      return course.resinUScm * 1e-4;
    case 'pressure':
      return faults.has('waterOff') ? 0 : course.lineBar * 1e5 * Math.exp(0.05 * slowScatter('line', ms, 3_600_000) + (running ? 0 : 0.04));
    case 'temperature':
      return course.temperatureC + 0.4 * Math.sin((2 * Math.PI * (ms % DAY_MS)) / DAY_MS);
    case 'product':
      return running ? course.productLPerH / 3.6e6 : 0;
    case 'waste':
      return running ? course.wasteLPerH / 3.6e6 : 0;
    case 'litres':
      return litresAt(ms) / 1000;
    default:
      throw new Error(`There is no meter ${name}.`);
  }
}

/** Times the strength behind a membrane that it has while it runs: salt creeps through at rest and is rinsed away. */
function crept({ running, forH }: ReturnType<typeof runningAt>): number {
  const built = (restH: number): number => (CREEP.times - 1) * (1 - Math.exp(-restH / CREEP.restH));
  return 1 + (running ? built(8) * Math.exp(-forH / CREEP.rinseH) : built(forH));
}
