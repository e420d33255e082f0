export { linearSlope, solveLinear } from './linear';
export { normalCumulative, normalDensity, normalQuantile } from './normal';
export { findRoot, findRootNear } from './root';
export { runToEnd } from './steps';
