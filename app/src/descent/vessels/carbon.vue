<script setup lang="ts">
import CartridgeShape from '../CartridgeShape.vue';
import type { Drawn } from './drawn';

/** Carbon, and how far it is used. */
defineProps<Drawn>();
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#4a4a46" caught="#33332f" />
</template>
