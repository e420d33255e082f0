<script setup lang="ts">
import type { Finding, FindingAction } from '@yes-clear/core/stage';
import { computed, ref } from 'vue';
import FindingCard from './FindingCard.vue';

/** Findings one under the other; of many, those that matter most are open and the rest a click away. */
const props = defineProps<{ title: string; findings: readonly Finding[]; open?: number }>();
defineEmits<{ mend: [action: FindingAction] }>();
const all = ref(false);
const shown = computed(() => (all.value ? props.findings : props.findings.slice(0, props.open)));
const rest = computed(() => props.findings.length - (props.open ?? props.findings.length));
</script>

<template>
  <section class="stack" :aria-label="title">
    <h2>{{ title }}</h2>
    <FindingCard v-for="finding in shown" :key="finding.id" :finding="finding" @mend="$emit('mend', $event)" />
    <button v-if="rest > 0" type="button" class="sheet rest" :aria-expanded="all" @click="all = !all">
      {{ all ? 'Fewer' : `${rest} more ${rest === 1 ? 'remark' : 'remarks'}` }}
    </button>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.rest { text-align: left; padding: 9px 13px; font: inherit; font-weight: 680; font-size: 14.5px; color: var(--ink); cursor: pointer; }
.rest:hover { border-color: var(--muted); }
</style>
