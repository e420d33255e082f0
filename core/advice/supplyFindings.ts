import { feedPump, membraneStage, tankVolumeL, type System } from '../file';
import { L_PER_US_GALLON, roundForReading, THIN, type UnitPreference, words } from '../quantity';
import { pumpEnergy } from '../life';
import type { TrainFacts } from './facts';
import type { Finding } from '../stage';

/** Whether there is enough water, in winter and from the tank, and what tank and float do about it. */
export const supplyFindings = (system: System, facts: TrainFacts): (Finding | null)[] => [
  enoughWater(facts, system.units),
  tankLasts(system, facts, system.units),
  switching(facts),
  gasTank(facts, system.units),
  winter(system, facts, system.units),
  energy(system, facts),
  battery(system, facts),
];

/** Energy a cubic metre from which a recovery device is worth naming, kWh (our default), and what such a device gives back. */
const DEAR_KWH = 8;
const DEVICE_GIVES_BACK = 0.9;

/** What the pump of a high-pressure unit takes, with and without a device that gives the waste's pressure back. */
function energy(system: System, { solved, energyKWhPerM3, runHoursPerDay, demandLPerDay: need }: TrainFacts): Finding | null {
  const pump = feedPump(system.train.stages)?.pump;
  const without = pumpEnergy(system, solved, 0);
  if (pump?.kind !== 'displacement' || energyKWhPerM3 === null || without === null || without < DEAR_KWH) return null;
  const has = pump.energyRecovery > 0;
  // As it runs today with and without; told for the mean of the year.
  const today = pumpEnergy(system, solved) ?? energyKWhPerM3;
  const other = (energyKWhPerM3 / today) * (has ? without : (pumpEnergy(system, solved, DEVICE_GIVES_BACK) ?? without));
  const perDay = runHoursPerDay === null ? '' : ` A day's need takes ${((energyKWhPerM3 * need) / 1000).toFixed(1)}${THIN}kWh.`;
  return {
    id: 'energy',
    severity: 'note',
    title: `${energyKWhPerM3.toFixed(1)}${THIN}kWh for a cubic metre; ${other.toFixed(1)} ${has ? 'without the recovery device' : 'with a recovery device'}`,
    why: `${has ? 'Most of the pressure leaves with the waste, and the device gives it back.' : `Most of the pressure leaves with the waste; a device gives ${Math.round(100 * DEVICE_GIVES_BACK)}${THIN}% of it back.`}${perDay}`,
  };
}

/** What the pump of a boat's unit draws from a battery, and what a day's need takes out of it. */
function battery(system: System, { solved, energyKWhPerM3, demandLPerDay: need }: TrainFacts): Finding | null {
  const { goal, units } = system;
  const now = pumpEnergy(system, solved);
  if (goal.id !== 'watermaker' || energyKWhPerM3 === null || now === null || solved.productLPerH <= 0) return null;
  const say = words(units);
  // A kilowatt-hour a cubic metre is a watt-hour a litre.
  const watts = now * solved.productLPerH;
  const amps = (volts: number): string => `${roundForReading(watts / volts)}${THIN}A at ${volts}${THIN}V`;
  const day =
    need > 0 ? ` A day's ${say.of(need, 'volumeL')} take ${roundForReading((energyKWhPerM3 * need) / 12)}${THIN}Ah at 12${THIN}V.` : '';
  return {
    id: 'battery',
    severity: 'note',
    title: `The pump draws about ${amps(12)}, ${amps(24)}`,
    why: `${roundForReading(watts)}${THIN}W while it makes ${say.perHour(solved.productLPerH)}: ${roundForReading(units.volume === 'gal' ? energyKWhPerM3 * L_PER_US_GALLON : energyKWhPerM3)}${THIN}Wh for each ${units.volume === 'gal' ? 'gallon' : 'litre'}.${day}`,
  };
}

/** Starts a day beyond which a float is worth minding (our default). */
const MOST_STARTS = 24;

/** Whether the train's own tank carries it over the week. */
function tankLasts(system: System, { smallestTankL }: TrainFacts, preference: UnitPreference): Finding | null {
  const tankL = tankVolumeL(system.train.stages);
  if (smallestTankL === null || tankL === 0 || tankL >= smallestTankL) return null;
  const say = words(preference);
  return {
    id: 'tank',
    severity: 'mind',
    title: `The tank of ${say.of(tankL, 'volumeL')} runs dry: the week needs ${say.of(smallestTankL, 'volumeL')} in store`,
    why: 'More is drawn at once than it holds and the unit can follow. A larger tank, smaller batches, or more output.',
  };
}

/** A float that switches the unit too often, or cannot switch it at all. */
function switching({ float }: TrainFacts): Finding | null {
  if (!float) return null;
  if (!float.ok) return { id: 'float', severity: 'bad', title: 'The float cannot switch the unit', why: float.error.message };
  const { startsPerDay } = float.value;
  if (startsPerDay <= MOST_STARTS) return null;
  return {
    id: 'float',
    severity: 'mind',
    title: `The float starts the unit ${Math.round(startsPerDay)} times a day`,
    why: `Each start brings the salt that crept through at rest, and wears the pump. Let the float stop further above where it starts, or fit a larger tank.`,
  };
}

/** A tank with gas: what it gives, and how long it takes. */
function gasTank({ bladder }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!bladder) return null;
  if (!bladder.ok) return { id: 'bladder', severity: 'bad', title: 'The tank never fills', why: bladder.error.message };
  const say = words(preference);
  const { heldL, hours, shutOffBar } = bladder.value;
  return {
    id: 'bladder',
    severity: 'note',
    title: `The closed tank gives ${say.of(heldL, 'volumeL')} and fills in ${say.hours(hours)}`,
    why: `Its gas pushes back up to ${say.of(shutOffBar, 'pressureBar')}, where the shut-off closes. Topped up after every glass, the product is at its poorest.`,
  };
}

/** How many times, with a decimal only where it tells something. */
const timesWords = (times: number): string =>
  `${times < 10 ? times.toFixed(1) : times < 1000 ? times.toFixed(0) : 'more than a thousand'} times`;

function enoughWater({ solved, demandLPerDay: need, runHoursPerDay }: TrainFacts, preference: UnitPreference): Finding | null {
  if (runHoursPerDay === null) return null;
  const say = words(preference);
  const made = solved.productLPerH * 24;
  if (made < need) {
    return {
      id: 'demand',
      severity: 'bad',
      title: `Makes ${say.perDay(made)}, the need is ${say.perDay(need)}`,
      why: `Short by ${say.perDay(need - made)} even when it never stops.`,
    };
  }
  return {
    id: 'demand',
    severity: 'good',
    title: `Makes ${say.perDay(made)}${need > 0 ? `, ${timesWords(made / need)} the need` : ''}`,
    why:
      need > 0 ? `A day's ${say.of(need, 'volumeL')} takes ${say.hours(runHoursPerDay)}.` : 'Nothing is needed yet: enter it under Goal.',
  };
}

function winter(system: System, { winter: cold, solved, demandLPerDay: need }: TrainFacts, preference: UnitPreference): Finding | null {
  if (!cold || !solved.unit || solved.unit.noProduction) return null;
  const say = words(preference);
  const made = solved.productLPerH * 24;
  const share = Math.round((100 * cold.productLPerDay) / made);
  const ratioText =
    cold.ratio === null || membraneStage(system.train.stages)?.valve
      ? ''
      : ` The ratio goes to ${say.ratio(cold.ratio)}, for the restrictor hardly feels the cold.`;
  const short = cold.productLPerDay < need;
  return {
    id: 'winter',
    severity: short ? 'bad' : cold.productLPerDay < 1.5 * need ? 'mind' : 'note',
    title: short
      ? `In winter it makes ${say.perDay(cold.productLPerDay)}, less than the need`
      : `Winter leaves ${share}${THIN}% of the output: ${say.perDay(cold.productLPerDay)}`,
    why: `At ${say.of(cold.temperatureC, 'temperatureC')}. ${short ? `Short by ${say.perDay(need - cold.productLPerDay)}.` : need > 0 ? `Still ${timesWords(cold.productLPerDay / need)} the need.` : ''}${ratioText}`,
  };
}
