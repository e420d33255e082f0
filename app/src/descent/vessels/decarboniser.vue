<script setup lang="ts">
import CartridgeShape from '../CartridgeShape.vue';
import type { Drawn } from './drawn';

/** A decarbonising cartridge. */
defineProps<Drawn>();
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#b9a7c9" />
</template>
