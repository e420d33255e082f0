import type { System } from '../file';
import { costUnit, formatQuantity, moneyText, THIN, words } from '../quantity';
import { polishedStation, wasteToProduct } from '../train';
import { mounting } from './mounting';
import type { TrainReport } from './report';

/** What the train does, over its picture. */
export function trainTitle(system: System, { solved, tapReadUScm }: TrainReport): string {
  if (solved.unit?.noProduction) return 'Nothing comes through this train';
  const say = words(system.units);
  const count = system.train.stages.length;
  // What was read stays what was read; the completed water may stand a little beside it.
  const [from, to] = [tapReadUScm ?? solved.stations[0]!.state.ec25UScm, polishedStation(solved).state.ec25UScm];
  return `From ${say.water(from)} to ${say.water(to)} in ${count} ${count === 1 ? 'stage' : 'stages'}`;
}

/** Figures of the whole train: each with what it is. */
export function footLine(system: System, report: TrainReport): readonly (readonly [figure: string, says: string])[] {
  const { solved, demandLPerDay, runHoursPerDay, resin, energyKWhPerM3, cost } = report;
  const { units } = system;
  const weight = mounting(system.train.stages);
  const say = words(units);
  const per = costUnit(units);
  const ratio = wasteToProduct(solved);
  // With a blend or a second pass the membrane's own ratio, told beside its waste, is another.
  const ofUnit = say.ratio(solved.unit?.wasteToProduct ?? 0);
  const hours = runHoursPerDay === null || runHoursPerDay > 24 ? null : say.hours(runHoursPerDay);
  return [
    [say.perDay(solved.productLPerH * 24), 'made'],
    ...(ratio ? [[say.ratio(ratio), say.ratio(ratio) === ofUnit ? 'waste' : 'waste in all'] as const] : []),
    [say.perDay(demandLPerDay), 'needed'],
    ...(hours ? [[hours, 'run'] as const] : []),
    ...(energyKWhPerM3 === null ? [] : [[`${energyKWhPerM3.toFixed(energyKWhPerM3 < 10 ? 1 : 0)}${THIN}kWh/m³`, 'pump'] as const]),
    ...(cost === null ? [] : [[moneyText((cost.total * per.litres) / 1000, system.prices.currency), `for ${per.label}`] as const]),
    [`${weight.wetKg >= 10 ? Math.round(weight.wetKg) : weight.wetKg.toFixed(1)}${THIN}kg`, 'wet'],
    ...(resin?.throughput.until.kind === 'litres'
      ? [[formatQuantity(resin.throughput.until.litres, 'volumeL', units).text, 'new resin'] as const]
      : []),
  ];
}
