import { BAR_PER_PSI } from '@yes-clear/core/quantity';
import { scaleLinear, scaleLog } from 'd3-scale';
import type { DescentInput, Drawing, Frame } from './drawing';
import { HEIGHT, SIZES } from './sizes';

/** The axis: what the height stands for, and the marks up its side. */

/** Level of what the height stands for, and the range the axis shows. */
export interface LevelScale {
  (value: number): number;
  readonly low: number;
  readonly high: number;
}

/** Least the axis spans from top to foot, so that a small fall does not look like a large one. */
const LEAST_SPAN = 8;

/** Room around what is drawn, for each decade the water falls, and for each use that runs in a lane below, px. */
const PLAIN_PX = 176;
const DECADE_PX = 37;
const LANE_PX = 26;

/** Height of the large picture: as much as the water's fall asks for, so that what falls little leaves room for the lens. */
export function largeHeight(input: DescentInput): number {
  if (input.height === 'pressure') return HEIGHT.least;
  const { high, low } = levelRange(input);
  const lanes = (input.branches?.length ?? 0) + (input.loop ? 1 : 0);
  const wanted = PLAIN_PX + DECADE_PX * Math.log10(high / low) + LANE_PX * lanes;
  return Math.round(Math.min(HEIGHT.most, Math.max(HEIGHT.least, wanted)));
}

/** Highest and lowest conductivity the axis shows, with room around what is drawn. */
function levelRange(input: DescentInput): { readonly high: number; readonly low: number } {
  const levels = [...input.stations.map((station) => station.state.ec25UScm), ...(input.waste ? [input.waste.ec25UScm] : [])];
  const high = Math.min(1e5, Math.max(...levels, 10) * 1.6);
  const goalHigh = input.goal?.high ?? Infinity;
  const low = Math.max(0.035, Math.min(...levels, goalHigh / 1.6) * 0.62);
  return { high, low: Math.min(low, high / LEAST_SPAN) };
}

/**
 * The level scale: conductivity on a log axis, saltier upwards, with room around what is drawn.
 *
 * @param footPx room to leave under the lowest level, for lines that run below their own
 */
export function levelScale(input: DescentInput, frame: Frame, footPx = 0): LevelScale {
  const s = SIZES[frame.size];
  const { high, low } = levelRange(input);
  const scale = scaleLog()
    .domain([high, low])
    .range([s.top, frame.height - s.bottom - footPx])
    .clamp(true);
  return Object.assign((ec: number) => scale(Math.max(ec, 1e-3)), { low, high });
}

/** The level scale of the pressure view: bar in proportion, from nothing at the foot. */
export function pressureScale(input: DescentInput, frame: Frame, footPx = 0): LevelScale {
  const s = SIZES[frame.size];
  const high = Math.max(1, ...input.stations.map((station) => station.pressureBar ?? 0), input.waste?.pressureBar ?? 0) * 1.12;
  const scale = scaleLinear()
    .domain([high, 0])
    .range([s.top, frame.height - s.bottom - footPx])
    .clamp(true);
  return Object.assign((bar: number) => scale(bar), { low: 0, high });
}

/** A few round pressures up the axis, round in the unit they are named in. */
export function pressureTicks(y: LevelScale, unit: DescentInput['pressureUnit']): Drawing['ticks'] {
  const barPerUnit = { psi: BAR_PER_PSI, bar: 1, kPa: 0.01 }[unit];
  return scaleLinear()
    .domain([0, y.high / barPerUnit])
    .ticks(5)
    .map((pressure) => ({ y: y(pressure * barPerUnit), text: `${pressure} ${unit}` }));
}

const STRENGTHS = [1e5, 1e4, 1e3, 100, 10, 1, 0.1];

/** Every decade the axis shows, named; on a short axis twice and five times as well. */
export function strengthTicks(y: LevelScale): Drawing['ticks'] {
  const seen = (values: readonly number[]): number[] => values.filter((ec) => ec <= y.high && ec >= y.low);
  const decades = seen(STRENGTHS);
  const shown = decades.length > 1 ? decades : seen(STRENGTHS.flatMap((ec) => [5 * ec, 2 * ec, ec]));
  return shown.map((ec) => ({ y: y(ec), text: ec >= 10_000 ? `${ec / 1000} mS` : `${ec} µS` }));
}
