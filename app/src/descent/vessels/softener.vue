<script setup lang="ts">
import CartridgeShape from '../CartridgeShape.vue';
import type { Drawn } from './drawn';

/** A softener. */
defineProps<Drawn>();
</script>

<template>
  <CartridgeShape :vessel="vessel" :small="small" housing="#cdb8c9" />
</template>
