export { ACTION_MINUTES, replay, type BenchAction, type BenchEntry, type BenchReading } from './act';
export { EXERCISES, exerciseOf, FREE_PLAY, type Exercise } from './exercises';
export { HARMS, type HarmId } from './harm';
export { hintOf, isIdle, judge, pathOf, type Declaration, type Judgement, type Path, type PathStep } from './judge';
export { priceOf, repairOf, REPAIRS, repairsFor, type RepairId } from './repairs';
export { startBench, type BenchState } from './state';
export {
  BENCH_SYSTEMS,
  benchGround,
  benchSteps,
  hasValve,
  isVented,
  valveLabel,
  VALVES,
  type Bench,
  type BenchSystemId,
  type ValveId,
  type Valves,
} from './systems';
export { toolsOf, type Tool } from './tools';
export { soundTruth } from './truth';
