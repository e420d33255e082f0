import { defineStore } from 'pinia';
import { ref } from 'vue';

/** Whether the quick reading stands open, and for which system; null lets the person choose. */
export const useQuickReading = defineStore('quickReading', () => {
  const open = ref(false);
  const systemId = ref<string | null>(null);
  function start(id: string | null): void {
    systemId.value = id;
    open.value = true;
  }
  return { open, systemId, start };
});
