import { tapIsAssumed, type System } from '../file';
import {
  costUnit,
  formatQuantity,
  L_PER_US_GALLON,
  moneyText,
  percent,
  roundForReading,
  THIN,
  words,
  type UnitPreference,
} from '../quantity';
import { settleWater } from '../water';
import { wasteToProduct } from '../train';
import { perM3 } from '../ledger';
import { mounting } from './mounting';
import type { TrainReport } from './report';

/** What the train does, over its picture. */
export function trainTitle(system: System, { solved, prepared, tapReadUScm, judgedUScm }: TrainReport): string {
  if (solved.unit?.noProduction) return 'Nothing comes through this train';
  const say = words(system.units);
  const count = system.train.stages.length;
  // What was read stays what was read; the completed water may stand a little beside it.
  const [from, to] = [tapReadUScm ?? solved.stations[0]!.state.ec25UScm, judgedUScm];
  const blend = prepared.ok && prepared.value.recipe.how === 'blend' ? settleWater(prepared.value.water) : null;
  const share = prepared.ok && prepared.value.recipe.how === 'blend' ? prepared.value.recipe.tapShare : 0;
  return `From ${tapIsAssumed(system.source) ? 'an assumed ' : ''}${say.water(from)} to ${say.water(to)} in ${count} ${count === 1 ? 'stage' : 'stages'}${blend?.ok ? `, ${say.water(blend.value.ec25UScm)} with ${percent(share)} tap` : ''}`;
}

/** Figures of the whole train: each with what it is. */
export function footLine(system: System, report: TrainReport): readonly (readonly [figure: string, says: string])[] {
  const { solved, demandLPerDay, usedLPerDay, runHoursPerDay, resin, energyKWhPerM3, ledger } = report;
  const { goal, units } = system;
  const weight = mounting(system.train.stages);
  const say = words(units);
  const per = costUnit(units);
  const ratio = wasteToProduct(solved);
  // With a blend or a second pass the membrane's own ratio, told beside its waste, is another.
  const ofUnit = say.ratio(solved.unit?.wasteToProduct ?? 0);
  const hours = runHoursPerDay === null || runHoursPerDay > 24 ? null : say.hours(runHoursPerDay);
  return [
    // A boat counts the hours its unit runs.
    [goal.id === 'watermaker' ? say.perHour(solved.productLPerH) : say.perDay(solved.productLPerH * 24), 'made'],
    ...(ratio ? [[say.ratio(ratio), say.ratio(ratio) === ofUnit ? 'waste' : 'waste in all'] as const] : []),
    [say.perDay(demandLPerDay), 'needed'],
    ...(usedLPerDay > demandLPerDay ? [[say.perDay(usedLPerDay), 'used with the tap'] as const] : []),
    ...(hours ? [[hours, 'run'] as const] : []),
    ...(energyKWhPerM3 === null ? [] : [[energyText(energyKWhPerM3, system), 'power'] as const]),
    ...(ledger.productL > 0 && solved.productLPerH > 0
      ? [[moneyText((perM3(ledger.running, ledger) * per.litres) / 1000, system.prices.currency), `for ${per.label}`] as const]
      : []),
    [say.kg(weight.wetKg), 'wet'],
    ...(resin?.throughput.until.kind === 'litres'
      ? [
          [
            resinText(resin.throughput.until.litres, demandLPerDay, units),
            resin.mostLPerH === null ? 'new resin' : 'new resin, slower',
          ] as const,
        ]
      : []),
  ];
}

/** Litres new resin makes; nobody plans beyond ten years. */
const resinText = (litres: number, perDay: number, units: UnitPreference): string =>
  litres > TEN_YEARS * perDay && perDay > 0 ? 'over 10 years' : formatQuantity(litres, 'volumeL', units).text;
const TEN_YEARS = 3650;

/** Energy by what the plant is spoken of in: a cubic metre, a litre on a boat, a gallon where volumes are gallons. */
export const energyText = (kWhPerM3: number, { goal, units }: Pick<System, 'goal' | 'units'>): string => {
  if (units.volume === 'gal') return `${roundForReading(kWhPerM3 * L_PER_US_GALLON)}${THIN}Wh/gal`;
  return `${kWhPerM3.toFixed(kWhPerM3 < 10 ? 1 : 0)}${THIN}${goal.id === 'watermaker' ? 'Wh/L' : 'kWh/m³'}`;
};

/** The water as it is used where tap is blended back: reading, hardness and pH; null where it is used as it comes. */
export function usedSays(system: System, { prepared }: TrainReport): string | null {
  if (!prepared.ok || prepared.value.recipe.how !== 'blend') return null;
  const state = settleWater(prepared.value.water);
  if (!state.ok) return null;
  const say = words(system.units);
  const { ec25UScm, hardnessMgL, pH } = state.value;
  return `As used, with ${percent(prepared.value.recipe.tapShare)} tap: ${say.water(ec25UScm)}, hardness ${say.of(hardnessMgL, 'hardnessMgL')}, pH ${pH.toFixed(1)}.`;
}

/** What gathers in a drum, L. */
const DRUM_L = 200;
/** Chlorine in the waste that is worth a word, mg/L. */
const TELLS_CHLORINE_MG_L = 0.05;

/** The waste of a day, and how soon a drum of it is full, today and in the cold; null where none is made or needed. */
export function wasteSays(system: System, { solved, demandLPerDay, winter }: TrainReport): string | null {
  const ratio = wasteToProduct(solved);
  if (!solved.waste || !ratio || demandLPerDay <= 0) return null;
  const say = words(system.units);
  const { ec25UScm, hardnessMgL } = solved.waste.state;
  const barrelL = system.choice.wasteBarrelL ?? DRUM_L;
  const { chlorine, chloramine } = solved.waste.water.mgL;
  // Plants and tanks mind it: what carbon let by is in the waste as well.
  const chlorinated = chlorine + chloramine > TELLS_CHLORINE_MG_L ? `, with ${say.mgL(chlorine + chloramine)} of chlorine` : '';
  // By the day, as the rest of the sentence: what is made is the day's need.
  const drum = (of: number): string => {
    const days = barrelL / (demandLPerDay * of);
    return days < 2 ? say.hours(24 * days) : say.days(days);
  };
  const cold = winter?.ratio ? `, ${drum(winter.ratio)} at ${say.of(winter.temperatureC, 'temperatureC')}` : '';
  return `With it goes ${say.perDay(ratio * demandLPerDay)} of waste at ${say.water(ec25UScm)} and ${say.of(hardnessMgL, 'hardnessMgL')} of hardness${chlorinated}; kept for cleaning or the garden, ${say.of(barrelL, 'volumeL')} of it gather in ${drum(ratio)}${cold}.`;
}
