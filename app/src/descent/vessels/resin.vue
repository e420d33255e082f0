<script setup lang="ts">
import { computed } from 'vue';
import CartridgeShape from '../CartridgeShape.vue';
import { insideOf, type Drawn } from './drawn';

/** A bed of resin: spent above, fresh below, the way a front travels down it. */
const props = defineProps<Drawn>();
const inside = computed(() => insideOf(props));
const spent = computed(() => inside.value.height * props.vessel.fill);
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#f7f2e5" />
  <rect class="spent" :x="inside.x" :y="inside.y" :width="inside.width" :height="spent" />
  <rect class="fresh" :x="inside.x" :y="inside.y + spent" :width="inside.width" :height="inside.height - spent" />
</template>

<!-- prettier-ignore -->
<style scoped>
.spent { fill: var(--resin-spent); }
.fresh { fill: var(--resin-fresh); }
</style>
