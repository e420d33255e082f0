<script setup lang="ts">
import { computed } from 'vue';

/** A figure on the scale of what is accepted: the band, the expected, the read with its doubt. */
const props = defineProps<{
  low: number | null;
  high: number | null;
  expected: number | null;
  read: number | null;
  doubt: number;
  good: boolean;
}>();
/** From a little below all of them to a little above; a side that is open runs to the end. */
const span = computed(() => {
  const all = [props.low, props.high, props.expected, props.read].filter((one): one is number => one !== null);
  if (all.length < 2) return null;
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const room = Math.max((most - least) * 0.22, Math.abs(most) * 0.03, 1e-9);
  // Nothing here goes below nothing.
  return { from: least >= 0 ? Math.max(0, least - room) : least - room, to: most + room };
});
const place = (value: number): number => {
  const { from, to } = span.value!;
  return Math.min(100, Math.max(0, (100 * (value - from)) / (to - from)));
};
const band = computed(() => {
  if (!span.value || (props.low === null && props.high === null)) return null;
  const left = props.low === null ? 0 : place(props.low);
  return { left: `${left}%`, width: `${(props.high === null ? 100 : place(props.high)) - left}%` };
});
</script>

<template>
  <div v-if="span" class="gauge" aria-hidden="true">
    <span v-if="band" class="band" :style="band" />
    <span v-if="expected !== null" class="tick" :style="{ left: `${place(expected)}%` }" />
    <template v-if="read !== null">
      <span
        v-if="doubt > 0"
        class="whisker"
        :style="{ left: `${place(read - doubt)}%`, width: `${place(read + doubt) - place(read - doubt)}%` }"
      />
      <span class="dot" :class="{ good }" :style="{ left: `${place(read)}%` }" />
    </template>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.gauge { position: relative; height: 22px; margin: 6px 8px 2px; }
.gauge::before { content: ''; position: absolute; inset: 8px 0; border-radius: 4px; background: var(--hair); }
.band { position: absolute; top: 8px; bottom: 8px; background: color-mix(in srgb, var(--good) 24%, var(--sheet)); border-radius: 3px; }
.tick { position: absolute; top: 3px; bottom: 3px; width: 2.5px; margin-left: -1.25px; background: var(--good); }
.whisker { position: absolute; top: 10.25px; height: 1.5px; background: var(--ink); }
.dot { position: absolute; top: 4px; width: 14px; height: 14px; margin-left: -7px; border-radius: 50%; background: var(--warning); border: 2px solid var(--sheet); box-shadow: 0 0 0 1px var(--ink); }
.dot.good { background: var(--good); }
</style>
