<script setup lang="ts">
import CartridgeShape from '../CartridgeShape.vue';
import type { Drawn } from './drawn';

/** A calcite bed. */
defineProps<Drawn>();
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#f4efe6" />
</template>
