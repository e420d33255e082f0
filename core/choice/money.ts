/** Money over years: what is paid at once, again and again, and evenly. Textbook annuities (recalled). Rates a year, times in years. */

/** Below this a rate is none. */
const NO_RATE = 1e-12;

/** What a capital costs a year over a horizon, as a share of it. */
export const capitalRecovery = (rate: number, years: number): number =>
  Math.abs(rate) < NO_RATE ? 1 / years : rate / -Math.expm1(-years * Math.log1p(rate));

/** What a cost at a moment is worth today. */
export const presentValue = (cost: number, atYears: number, rate: number): number => cost * (1 + rate) ** -atYears;

/** What an even cost a year is worth today, over a horizon. */
export const presentValueEven = (costPerYear: number, years: number, rate: number): number =>
  Math.abs(rate) < NO_RATE ? costPerYear * years : (costPerYear * -Math.expm1(-years * Math.log1p(rate))) / Math.log1p(rate);

/** How often something that lasts so long is bought again within a horizon: never at its very end. */
export const renewalsWithin = (lastsYears: number, years: number): number => Math.max(0, Math.ceil(years / lastsYears - NO_RATE) - 1);

/** What all renewals of something are worth today. */
export function presentValueRenewals(cost: number, lastsYears: number, years: number, rate: number): number {
  let sum = 0;
  for (let k = 1; k <= renewalsWithin(lastsYears, years); k++) sum += presentValue(cost, k * lastsYears, rate);
  return sum;
}

/** What a present value costs a year. */
export const equivalentAnnualCost = (value: number, years: number, rate: number): number => value * capitalRecovery(rate, years);

/** One way to the water: what it costs to buy, to keep, and by the litre. */
export interface Route {
  readonly capital: number;
  readonly fixedPerYear: number;
  readonly perLitre: number;
}
/**
 * Litres a year from which a route that is dearer to buy and cheaper by the litre wins.
 *
 * @returns litres, or which of the two wins whatever is used
 */
export function breakEvenVolume(cheapToBuy: Route, cheapToRun: Route, years: number, rate: number): number | 'cheapToBuy' | 'cheapToRun' {
  const share = capitalRecovery(rate, years);
  const more = cheapToRun.capital * share + cheapToRun.fixedPerYear - cheapToBuy.capital * share - cheapToBuy.fixedPerYear;
  const saved = cheapToBuy.perLitre - cheapToRun.perLitre;
  if (more <= 0) return saved >= 0 ? 'cheapToRun' : 'cheapToBuy';
  return saved > 0 ? more / saved : 'cheapToBuy';
}
