<script setup lang="ts">
import { STANDS_HOW, STANDS_WORDS, type Stands } from '@yes-clear/core/file';
import DayField from './DayField.vue';
import Segments from './Segments.vue';

/** Whether a system is planned, or stands already and since when. */
const stands = defineModel<Stands>({ required: true });
const HOWS = STANDS_HOW.map((value) => ({ value, title: STANDS_WORDS[value].label }));
</script>

<template>
  <div class="stands">
    <div class="named">
      <span>It is</span>
      <Segments
        look="chips"
        label="How it came to be"
        :choices="HOWS"
        :model-value="stands.how"
        @update:model-value="stands = { how: $event, since: $event === 'new' ? null : stands.since }"
      />
      <DayField
        v-if="stands.how !== 'new'"
        label="Stands since"
        optional
        :model-value="stands.since"
        @update:model-value="stands = { ...stands, since: $event }"
      />
    </div>
    <p class="muted small">{{ STANDS_WORDS[stands.how].says }}</p>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.stands { display: grid; gap: 4px; }
.named { display: flex; flex-wrap: wrap; align-items: center; gap: 10px; font-size: 13.3px; font-weight: 600; color: var(--muted); }
</style>
