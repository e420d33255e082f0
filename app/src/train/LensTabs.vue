<script setup lang="ts">
import { computed, useTemplateRef } from 'vue';
import { useKey } from '../kit/useKeys';
import { useWorkbench } from './useWorkbench';

/** The lenses side by side: one is open; arrows walk along them. */
const bench = useWorkbench();
const { lens, lenses, stage } = bench;
const buttons = useTemplateRef<HTMLButtonElement[]>('buttons');
const at = computed(() => lenses.value.findIndex(({ id }) => id === lens.value?.id));
function step(by: number, focus: boolean): void {
  const count = lenses.value.length;
  const next = (at.value + by + count) % count;
  const id = lenses.value[next]?.id;
  if (id) bench.open(id);
  if (focus) buttons.value?.[next]?.focus();
}
useKey('l', (event) => step(event.shiftKey ? -1 : 1, false));
</script>

<template>
  <div class="tabs" role="tablist" aria-label="Lenses" @keydown.right.prevent="step(1, true)" @keydown.left.prevent="step(-1, true)">
    <button
      v-for="one in lenses"
      :id="`lens-${one.id}`"
      :key="one.id"
      ref="buttons"
      type="button"
      role="tab"
      aria-controls="lens"
      :aria-selected="one.id === lens?.id"
      :tabindex="one.id === lens?.id ? 0 : -1"
      @click="bench.open(one.id)"
    >
      {{ one.title }} <small v-if="one.kind !== null && one.kind === stage?.kind">selected</small>
    </button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.tabs { display: flex; gap: 2px; overflow-x: auto; border-bottom: 1px solid var(--line); padding: 0 10px; scrollbar-width: none; }
button { border: 0; border-bottom: 3px solid transparent; background: transparent; color: var(--muted); font: inherit; font-weight: 640; padding: 9px 12px 7px; cursor: pointer; white-space: nowrap; min-height: 40px; }
button:hover { color: var(--ink); }
button[aria-selected='true'] { color: var(--ink); border-bottom-color: var(--action); }
button:focus-visible { outline-offset: -3px; }
small { font-size: 13px; font-weight: 650; color: var(--action); }
</style>
