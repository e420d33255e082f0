import { onKeyStroke } from '@vueuse/core';

/** Whether a key press belongs to a field someone is typing in; a list, a tick box or a slider takes no letters. */
function typing(event: KeyboardEvent): boolean {
  const target = event.target;
  if (target instanceof HTMLInputElement) return target.inputMode !== 'none' && !['checkbox', 'radio', 'range'].includes(target.type);
  return target instanceof HTMLTextAreaElement || (target instanceof HTMLElement && target.isContentEditable);
}

/** A plain-key shortcut: never while typing, never with a modifier, never under an open dialog. */
export function useKey(key: string, act: (event: KeyboardEvent) => void): void {
  onKeyStroke(
    (event) => event.key.toLowerCase() === key.toLowerCase(),
    (event) => {
      if (typing(event) || event.ctrlKey || event.metaKey || event.altKey || document.querySelector('.v-overlay--active .v-card')) return;
      event.preventDefault();
      act(event);
    },
  );
}

/** Ctrl (or Cmd) with a key; works anywhere but leaves a field's own undo alone. */
export function useControlKey(key: string, act: (event: KeyboardEvent) => void, evenWhileTyping = false): void {
  onKeyStroke(
    (event) => event.key.toLowerCase() === key && (event.ctrlKey || event.metaKey),
    (event) => {
      if (!evenWhileTyping && typing(event)) return;
      event.preventDefault();
      act(event);
    },
  );
}

/** All shortcuts, for the list behind `?`. */
export const SHORTCUTS: readonly (readonly [key: string, does: string])[] = [
  ['1 – 5', 'Water, Goal, Train, Build, Log'],
  ['R', 'Quick reading'],
  ['N', 'New system'],
  ['A', 'Add a stage (Train)'],
  ['M', 'More water (Train)'],
  ['O', 'Compare options (Train)'],
  ['Y', 'Year ahead (Log)'],
  ['L', 'Next lens, Shift L the one before (Train)'],
  ['T', 'Start the timer (Build)'],
  ['U', 'Switch units'],
  ['← →', 'Walk the stages of the picture; Enter opens one'],
  ['Alt ← →', 'Move the stage'],
  ['Delete', 'Remove the stage'],
  ['Esc', 'Close the stage’s fields'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['Ctrl K', 'Go to anything'],
  ['?', 'This list'],
];
