import { defineStore } from 'pinia';
import { ref } from 'vue';

/** The one line at the foot of the screen that says what just happened. */
export const useNotice = defineStore('notice', () => {
  const text = ref('');
  const open = ref(false);
  function say(message: string): void {
    text.value = message;
    open.value = true;
  }
  return { text, open, say };
});
