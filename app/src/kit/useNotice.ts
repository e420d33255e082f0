import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** What can be done about what was just said, by touch as well as by key. */
export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

/** The one line at the foot of the screen that says what just happened. */
export const useNotice = defineStore('notice', () => {
  const text = ref('');
  const open = ref(false);
  const action = shallowRef<NoticeAction | null>(null);
  function say(message: string, what: NoticeAction | null = null): void {
    text.value = message;
    action.value = what;
    open.value = true;
  }
  return { text, open, action, say };
});
