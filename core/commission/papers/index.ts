import type { TrainReport } from '../../advice';
import type { System } from '../../file';
import type { Paper, PaperKey, Parties } from './blocks';
import { buildSheet } from './buildSheet';
import { card } from './card';
import { labels } from './labels';
import { offer } from './offer';
import { record } from './record';

export { PAPER_KEYS, PAPER_LABELS, type Block, type Label, type Paper, type PaperKey, type Parties } from './blocks';
export { lineSays } from './buildSheet';
export { recordedWork } from './record';

/**
 * A paper of a system as plain blocks.
 *
 * @param report the train as it is built: new for an offer, as it stands for the rest
 * @param on the day it is printed
 */
export function paperOf(key: PaperKey, system: System, report: TrainReport, parties: Parties, on: string): Paper {
  switch (key) {
    case 'offer':
      return offer(system, report, parties, on);
    case 'buildSheet':
      return buildSheet(system, report, on);
    case 'record':
      return record(system, parties, on);
    case 'labels':
      return labels(system, report);
    case 'card':
      return card(system, report, parties);
  }
}
