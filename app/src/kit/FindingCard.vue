<script setup lang="ts">
import type { Finding, FindingAction } from '@yes-clear/core/stage';

/** A bold sentence that carries its number, one line of why, and where possible the button that mends it. */
defineProps<{ finding: Pick<Finding, 'severity' | 'title' | 'why' | 'action'> }>();
defineEmits<{ mend: [action: FindingAction] }>();
</script>

<template>
  <article class="finding sheet" :class="finding.severity">
    <h4>{{ finding.title }}</h4>
    <p>{{ finding.why }}</p>
    <button v-if="finding.action" class="button small" type="button" @click="$emit('mend', finding.action)">
      {{ finding.action.label }}
    </button>
  </article>
</template>

<!-- prettier-ignore -->
<style scoped>
.finding { padding: 9px 13px 11px; border-left-width: 4px; border-left-color: var(--line); }
.finding.note { border-left-width: 1px; }
.finding.good { border-left-color: var(--good); }
.finding.mind { border-left-color: var(--warning); }
.finding.bad { border-left-color: var(--bad); }
h4 { margin: 0; font-size: 14.5px; line-height: 1.3; font-weight: 700; text-wrap: pretty; }
p { font-size: 13.3px; line-height: 1.4; margin-top: 3px; text-wrap: pretty; }
.button { margin-top: 8px; }
</style>
