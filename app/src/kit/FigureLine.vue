<script setup lang="ts">
/** Figures one after another, each with what it is. */
defineProps<{ figures: readonly (readonly [figure: string, says: string])[] }>();
</script>

<template>
  <dl class="figure-line">
    <div v-for="[figure, says] in figures" :key="says">
      <dt>{{ figure }}</dt>
      <dd>{{ says }}</dd>
    </div>
  </dl>
</template>

<!-- prettier-ignore -->
<style scoped>
.figure-line { display: flex; flex-wrap: wrap; gap: 4px 22px; margin: 0; }
.figure-line div { display: flex; gap: 5px; align-items: baseline; }
dt { font-weight: 720; font-size: 15px; }
dd { margin: 0; color: var(--muted); font-size: 13px; }
</style>
