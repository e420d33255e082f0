<script setup lang="ts">
import { computed } from 'vue';
import { radiusOf, type Drawn } from './drawn';

/** Two beds side by side, each used from above as far as its cycle has gone. */
const props = defineProps<Drawn>();
const GAP = 0.1;
const beds = computed(() => {
  const { x, y, width, height } = props.vessel.box;
  const each = (width * (1 - GAP)) / 2;
  return [x, x + width - each].map((left) => ({ x: left, y, width: each, height }));
});
const inset = computed(() => (props.small ? 1 : 2.5));
</script>

<template>
  <g v-for="(bed, i) in beds" :key="i">
    <rect class="body" :x="bed.x" :y="bed.y" :width="bed.width" :height="bed.height" :rx="radiusOf(props) / 2" fill="#f7f2e5" />
    <template v-if="!small">
      <rect
        :class="i === 0 ? 'cation' : 'anion'"
        :x="bed.x + inset"
        :y="bed.y + bed.height * 0.25"
        :width="bed.width - 2 * inset"
        :height="bed.height * 0.7"
      />
      <rect
        class="used"
        :x="bed.x + inset"
        :y="bed.y + bed.height * 0.25"
        :width="bed.width - 2 * inset"
        :height="bed.height * 0.7 * vessel.fill"
      />
    </template>
  </g>
</template>

<!-- prettier-ignore -->
<style scoped>
.cation { fill: #b9855a; }
.anion { fill: #d9b56a; }
.used { fill: var(--resin-used); opacity: 0.8; }
</style>
