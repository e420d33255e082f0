<script setup lang="ts">
import { computed } from 'vue';
import { countText } from '@yes-clear/core/stage';
import { toLoad, type DueItem } from './useDue';

/** What to load into the van for the work of the next days: how many, what size, for which systems. */
const props = defineProps<{ items: readonly DueItem[] }>();
const load = computed(() => toLoad(props.items));
</script>

<template>
  <section class="sheet panel">
    <table v-if="load.length > 0" class="figures" aria-label="To load">
      <thead>
        <tr>
          <th>Piece</th>
          <th>How many</th>
          <th>For</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="piece in load" :key="piece.part">
          <td>{{ piece.name }}</td>
          <td>{{ countText(piece) }}</td>
          <td class="for">{{ piece.for.join(', ') }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="muted">The work of these days asks for no parts.</p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
td, th { text-align: left; white-space: normal; }
td:nth-child(2), th:nth-child(2) { text-align: right; white-space: nowrap; width: 90px; }
.for { color: var(--muted); }
</style>
