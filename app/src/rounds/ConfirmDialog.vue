<script setup lang="ts">
/** Asks once before something leaves. */
defineProps<{ title: string; verb: string }>();
const emit = defineEmits<{ confirm: []; cancel: [] }>();
</script>

<template>
  <v-dialog :model-value="true" max-width="420" @update:model-value="emit('cancel')">
    <v-card class="confirm">
      <h1>{{ title }}</h1>
      <p><slot /></p>
      <div class="row end">
        <button class="button" type="button" @click="emit('cancel')">Keep it</button
        ><button class="button danger" type="button" @click="emit('confirm')">{{ verb }}</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.confirm { padding: 18px 20px; display: grid; gap: 12px; }
.end { justify-content: flex-end; }
</style>
