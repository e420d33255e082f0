<script setup lang="ts">
import { computed } from 'vue';
import { insideOf, radiusOf, type Drawn } from './vessels/drawn';

/** A cartridge in its housing, filled from below by what it has caught. */
const props = defineProps<Drawn & { housing: string; caught?: string }>();
const inside = computed(() => insideOf(props));
</script>

<template>
  <rect
    class="body"
    :x="vessel.box.x"
    :y="vessel.box.y"
    :width="vessel.box.width"
    :height="vessel.box.height"
    :rx="radiusOf(props)"
    :fill="housing"
  />
  <rect
    v-if="caught && vessel.fill > 0.02 && !small"
    :x="inside.x"
    :y="inside.y + inside.height * (1 - vessel.fill)"
    :width="inside.width"
    :height="inside.height * vessel.fill"
    :fill="caught"
    rx="3"
  />
</template>
