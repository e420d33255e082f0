import { BEYOND_SAYS } from '../water';
import type { SolvedTrain, Station } from '../train';

/** A doubt that belongs to a figure of a station: how the figure is shown, and what is said under the ledger. */
export interface FigureDoubt {
  readonly after: string;
  readonly figure: 'pH' | 'ec';
  readonly plusMinus: number | null;
  readonly says: string;
}

/** Feed pH above which what a membrane leaves is least certain. */
const UNSURE_PH = 8;
/** Doubt of the pH behind a membrane on such a feed, and of any polished water, which takes the air's CO2 at once. */
const PH_DOUBT = { membrane: 1, polished: 0.5 } as const;
/** Water this pure has no pH of its own, µS/cm. */
const POLISHED_USCM = 1;

/** Doubts at the figures of a solved train, in the order of its stations. */
export function figureDoubts(solved: SolvedTrain): FigureDoubt[] {
  const stations: readonly Station[] = [...solved.stations, ...(solved.waste ? [solved.waste] : [])];
  const feed = solved.stations.find((_, i) => solved.stations[i + 1]?.kind === 'membrane');
  let behind = false;
  return stations.flatMap((station): FigureDoubt[] => {
    const found: FigureDoubt[] = [];
    const isWaste = station === solved.waste;
    if (station.kind === 'membrane' && !isWaste) behind = true;
    if (!isWaste && station.state.ec25UScm < POLISHED_USCM)
      found.push({
        after: station.after,
        figure: 'pH',
        plusMinus: PH_DOUBT.polished,
        says: 'The pH of polished water is a reading of the air: ±0.5.',
      });
    else if (!isWaste && behind && feed && feed.state.pH > UNSURE_PH)
      found.push({
        after: station.after,
        figure: 'pH',
        plusMinus: PH_DOUBT.membrane,
        says: `On a feed of pH ${feed.state.pH.toFixed(1)} the pH behind the membrane is ±1: between 8 and 9.4 nobody measured.`,
      });
    if (station.state.beyond)
      found.push({ after: isWaste ? 'waste' : station.after, figure: 'ec', plusMinus: null, says: BEYOND_SAYS[station.state.beyond] });
    return found;
  });
}
