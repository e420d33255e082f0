<script setup lang="ts">
import { radiusOf, type Drawn } from './drawn';

/** A chamber with its lamp. */
const props = defineProps<Drawn>();
</script>

<template>
  <rect
    class="body"
    :x="vessel.box.x"
    :y="vessel.box.y + vessel.box.height * 0.18"
    :width="vessel.box.width"
    :height="vessel.box.height * 0.64"
    :rx="radiusOf(props)"
    fill="#f7f2e5"
  />
  <rect
    :x="vessel.box.x + vessel.box.width / 2 - (small ? 1.5 : 4)"
    :y="vessel.box.y + vessel.box.height * 0.26"
    :width="small ? 3 : 8"
    :height="vessel.box.height * 0.48"
    rx="4"
    fill="#a678d8"
  />
</template>
