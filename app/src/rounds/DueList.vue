<script setup lang="ts">
import { computed } from 'vue';
import { longDay } from '../time/dates';
import { byDay, type DueItem } from './useDue';

/** Work by its day, with why it falls there. */
const props = defineProps<{ items: readonly DueItem[] }>();
const days = computed(() => byDay(props.items));
</script>

<template>
  <div class="stack">
    <section v-for="day in days" :key="day.day" class="sheet day">
      <h3 :class="{ late: day.late }">{{ day.day }}</h3>
      <ul>
        <li v-for="item in day.items" :key="item.systemId + item.id">
          <RouterLink :to="{ name: 'log', params: { id: item.systemId } }"
            ><strong>{{ item.what }}</strong
            ><span>{{ item.system }} · {{ item.site }}</span></RouterLink
          >
          <small class="muted">{{ item.because }}{{ item.orderBy ? `; order by ${longDay(item.orderBy)}` : '' }}</small>
        </li>
      </ul>
    </section>
    <p v-if="items.length === 0" class="muted">Nothing falls due within these days.</p>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.day { padding: 10px 14px; display: grid; grid-template-columns: 120px 1fr; gap: 4px 14px; }
h3 { margin: 0; padding-top: 3px; }
.late { color: var(--bad); }
ul { list-style: none; margin: 0; padding: 0; display: grid; gap: 8px; }
li { display: grid; grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr); gap: 12px; align-items: baseline; }
a { display: grid; color: inherit; text-decoration: none; }
a:hover strong { text-decoration: underline; }
a strong::first-letter { text-transform: uppercase; }
a span, small { font-size: 13.3px; color: var(--muted); }
@media (max-width: 860px) { .day { grid-template-columns: 1fr; } li { grid-template-columns: 1fr; gap: 0; min-height: 44px; } }
</style>
