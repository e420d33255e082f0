<script setup lang="ts">
import YearAhead from './YearAhead.vue';

/** Year ahead, with what the log says of today. */
</script>

<template>
  <main><YearAhead state="today" beside /></main>
</template>
