import { computed, ref, type Ref, type WritableComputedRef } from 'vue';

const PREFIX = 'yes-clear:line:';
/** One draft a system, whoever shows it: what is logged in one place is gone from the other. */
const drafts = new Map<string, Ref<string>>();

function draftOf(id: string): Ref<string> {
  const known = drafts.get(id);
  if (known) return known;
  const draft = ref(read(PREFIX + id));
  drafts.set(id, draft);
  return draft;
}

/** What is being typed for a system and is no reading yet: outlives a look at another page, a reload and a crash. */
export function useDraft(systemId: () => string | null): WritableComputedRef<string> {
  return computed({
    get: () => {
      const id = systemId();
      return id === null ? '' : draftOf(id).value;
    },
    set: (text) => {
      const id = systemId();
      if (id === null) return;
      draftOf(id).value = text;
      write(PREFIX + id, text);
    },
  });
}

function read(key: string): string {
  try {
    return localStorage.getItem(key) ?? '';
  } catch {
    return '';
  }
}
function write(key: string, text: string): void {
  try {
    if (text === '') localStorage.removeItem(key);
    else localStorage.setItem(key, text);
  } catch {
    // Full or forbidden: it lasts as long as the page.
  }
}
