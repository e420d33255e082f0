export { inverse, linearSlope, solveLinear } from './linear';
export { normalCumulative, normalDensity, normalQuantile } from './normal';
export { findRoot, findRootNear } from './root';
export { runToEnd } from './steps';
export { posterior, type Estimate, type Observed } from './posterior';
export { lineAt, lineBetween, robustLine, slopeOf, type FittedLine, type LinePoint } from './robustLine';
export { mean, median, middleSpread, normalSpread } from './middle';
export { seeded, type Seeded } from './seeded';
