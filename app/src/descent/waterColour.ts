import { scaleLinear } from 'd3-scale';

/**
 * The one scale of water colour: by conductivity, from brine to pure, growing lighter all the way so that
 * it survives colour blindness and grey print. Nothing else in the product uses these colours.
 */
const STOPS: readonly (readonly [log10UScm: number, colour: string])[] = [
  [5, '#3a1d12'],
  [4, '#6a3a1c'],
  [3, '#a06c28'],
  [2.3, '#a5873a'],
  [2, '#93994c'],
  [1.5, '#74a468'],
  [1, '#60b194'],
  [0.3, '#5db7b5'],
  [0, '#66bccf'],
  [-0.7, '#86c6e4'],
  [-1.3, '#aadbf4'],
];

const ramp = scaleLinear<string>()
  .domain(STOPS.map(([at]) => at).reverse())
  .range(STOPS.map(([, colour]) => colour).reverse())
  .clamp(true);

/** Colour of water of a conductivity at 25 °C, µS/cm. */
export function waterColour(ec25UScm: number): string {
  return ramp(Math.log10(Math.max(ec25UScm, 1e-3)));
}
