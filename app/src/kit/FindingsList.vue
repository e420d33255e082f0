<script setup lang="ts">
import type { Finding, FindingAction } from '@yes-clear/core/stage';
import FindingCard from './FindingCard.vue';

defineProps<{ title: string; findings: readonly Finding[] }>();
defineEmits<{ mend: [action: FindingAction] }>();
</script>

<template>
  <section class="stack" :aria-label="title">
    <h2>{{ title }}</h2>
    <FindingCard v-for="finding in findings" :key="finding.id" :finding="finding" @mend="$emit('mend', $event)" />
  </section>
</template>
