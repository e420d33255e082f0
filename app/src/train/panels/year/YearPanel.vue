<script setup lang="ts">
import YearAhead from '../../../year/YearAhead.vue';

/** The year ahead of the train as it is planned: everything new. */
</script>

<template>
  <div class="panel"><YearAhead state="new" :beside="false" /></div>
</template>
