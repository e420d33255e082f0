<script setup lang="ts">
import CartridgeShape from '../CartridgeShape.vue';
import type { Drawn } from './drawn';

/** A sediment filter and the dirt in it. */
defineProps<Drawn>();
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#f7f2e5" caught="#d9cba6" />
</template>
