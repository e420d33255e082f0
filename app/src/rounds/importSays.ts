import { SYSTEM_PARTS } from '@yes-clear/core/file';
import type { ImportDone, ImportPlan } from '../store/transfer';

/** What became of a file, in a sentence or two: what came in, and what of either side did not. */
export function importSays({ known }: ImportPlan, { opened, left, beside }: ImportDone): string {
  const [first] = opened;
  if (!first && beside > 0) return 'Brought back from this file: records of meters and pictures.';
  if (!first) return known.length > 0 ? 'Everything in this file is here already.' : 'Nothing was changed.';
  const came = opened.length === 1 ? `Opened ${first.system.name}.` : `Opened ${opened.length} systems.`;
  const stayed = left.map(({ name, from, parts }) => {
    const said = parts.map((part) => SYSTEM_PARTS[part]).join(', ');
    return `${name}: ${said} of ${from === 'here' ? 'this browser' : 'the file'} stand${parts.length === 1 ? 's' : ''}.`;
  });
  return [came, ...stayed].join(' ');
}
