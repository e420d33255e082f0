export { inverse, linearSlope, solveLinear } from './linear';
export { normalCumulative, normalDensity, normalQuantile } from './normal';
export { findRoot, findRootNear } from './root';
export { runToEnd } from './steps';
export { lineAt, lineBetween, robustLine, slopeOf, type Estimate, type FittedLine, type LinePoint } from './robustLine';
export { mean, median, middleSpread } from './middle';
export { seeded, type Seeded } from './seeded';
