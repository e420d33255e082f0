export { AGENTS, doseForPH, MG_PER_MEQ, sulfiteForChlorine, withAgent, type Agent } from './agents';
export { dosesMlPerH, EVEN_STROKES, stockGPerL, tankDays } from './pump';
export { highestLimits, limitsAtDose, UNHELD, type PercentMineral, type ScaleLimits } from './scaleLimits';
