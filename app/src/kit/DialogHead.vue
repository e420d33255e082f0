<script setup lang="ts">
/** What a dialog is for, and the way out of it. */
defineProps<{ title: string }>();
defineEmits<{ close: [] }>();
</script>

<template>
  <div class="dialog-head">
    <h1>{{ title }}</h1>
    <button class="button small" type="button" @click="$emit('close')">Close</button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.dialog-head { display: flex; justify-content: space-between; align-items: center; }
@media (max-width: 860px) { .button { min-height: 44px; } }
</style>
