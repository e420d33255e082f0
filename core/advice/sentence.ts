import { words, type UnitPreference } from '../quantity';
import type { SolvedTrain } from '../train';

/** The train in one sentence, for those who hear the picture instead of seeing it. */
export function trainSentence(solved: SolvedTrain, preference: UnitPreference): string {
  const say = words(preference);
  const parts = solved.stations.map((station, i) =>
    i === 0 ? `Tap at ${say.water(station.state.ec25UScm)}` : `${station.name} leaves ${say.water(station.state.ec25UScm)}`,
  );
  const waste =
    solved.waste && solved.unit?.wasteToProduct
      ? `; waste at ${say.water(solved.waste.state.ec25UScm)}, ${say.ratio(solved.unit.wasteToProduct)}`
      : '';
  return `${parts.join(', then ')}${waste}.`;
}
