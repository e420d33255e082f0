export {
  buyingCost,
  COST_LINES,
  COST_WORDS,
  chemicalsPerDay,
  drainedLPerDay,
  fillingOf,
  ledgerOf,
  litresPerYear,
  perM3,
  RUNNING_COSTS,
  waterCosts,
  workCost,
  type CostLine,
  type Costs,
  type Ledger,
  type PartCost,
} from './ledger';
export { priceList, pricedByJob, type PriceList } from './prices';
