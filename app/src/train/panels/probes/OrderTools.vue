<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose } from '@mdi/js';
import AppIcon from '../../../kit/AppIcon.vue';

/** What moves one of a line of figures earlier or later, or takes it away. */
defineProps<{
  /** What it is called. */
  name: string;
  first: boolean;
  last: boolean;
}>();
defineEmits<{ move: [by: number]; remove: [] }>();
</script>

<template>
  <span class="tools">
    <button type="button" class="tool" :aria-label="`${name} earlier in the line`" :disabled="first" @click="$emit('move', -1)">
      <AppIcon :path="mdiArrowUp" :size="18" />
    </button>
    <button type="button" class="tool" :aria-label="`${name} later in the line`" :disabled="last" @click="$emit('move', 1)">
      <AppIcon :path="mdiArrowDown" :size="18" />
    </button>
    <button type="button" class="tool" :aria-label="`Remove ${name}`" @click="$emit('remove')">
      <AppIcon :path="mdiClose" :size="18" />
    </button>
  </span>
</template>

<!-- prettier-ignore -->
<style scoped>
.tools { display: flex; justify-content: flex-end; }
.tool { border: 0; background: transparent; color: var(--muted); width: 34px; height: 36px; border-radius: 8px; cursor: pointer; display: grid; place-items: center; }
.tool:hover:not(:disabled) { color: var(--ink); background: var(--hair); }
.tool:disabled { opacity: 0.3; cursor: default; }
@media (max-width: 860px) { .tool { width: 44px; height: 44px; } }
</style>
