import { defineStore } from 'pinia';
import { redo, undo, type Done } from './edits';
import { useSaving } from './saving';

/** Undo and redo for everything done in this tab; outlives a reload. */
export const useHistory = defineStore('history', () => {
  const saving = useSaving();

  /** What was taken back or done again, in a sentence. */
  async function move(way: 'undo' | 'redo'): Promise<string> {
    const kept = await saving.keep(way, way === 'undo' ? undo : redo);
    if (!kept.ok) return `Not possible: ${kept.reason}. ${kept.remedy}`;
    if (kept.value === null) return `Nothing to ${way}.`;
    return `${way === 'undo' ? 'Undone' : 'Done again'}: ${kept.value.label}.${alsoLeft(kept.value)}`;
  }
  return { undo: () => move('undo'), redo: () => move('redo') };
});

const alsoLeft = ({ missed }: Done): string =>
  missed === 0
    ? ''
    : ` ${missed === 1 ? '1 place was' : `${missed} places were`} changed elsewhere meanwhile and stay${missed === 1 ? 's' : ''} as ${missed === 1 ? 'it is' : 'they are'}.`;
