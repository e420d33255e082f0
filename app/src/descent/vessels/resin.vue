<script setup lang="ts">
import { computed } from 'vue';
import CartridgeShape from '../CartridgeShape.vue';
import { insideOf, type Drawn } from './drawn';

/**
 * A bed of resin: used above, fresh below, the way a front travels down it. One that changes colour is drawn in two tones
 * of one; one that shows nothing on site by strokes that thin where it is used.
 */
const props = defineProps<Drawn>();
const inside = computed(() => insideOf(props));
const used = computed(() => inside.value.height * props.vessel.fill);
const APART = { fresh: 3, used: 9 } as const;
const strokes = computed(() => {
  const { y, height } = inside.value;
  const found: number[] = [];
  for (let at = y + 2; at < y + height - 1; at += at < y + used.value ? APART.used : APART.fresh) found.push(at);
  return found;
});
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#f7f2e5" />
  <template v-if="vessel.dyed">
    <rect class="used" :x="inside.x" :y="inside.y" :width="inside.width" :height="used" />
    <rect class="fresh" :x="inside.x" :y="inside.y + used" :width="inside.width" :height="inside.height - used" />
  </template>
  <line v-for="y in strokes" v-else :key="y" class="stroke" :x1="inside.x" :x2="inside.x + inside.width" :y1="y" :y2="y" />
</template>

<!-- prettier-ignore -->
<style scoped>
.used { fill: var(--resin-used); }
.fresh { fill: var(--resin-fresh); }
.stroke { stroke: var(--resin-fresh); stroke-width: 1.2; }
</style>
