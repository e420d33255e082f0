<script setup lang="ts">
import type { Declaration } from '@yes-clear/core/fault';
import { THIN } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import { faultName } from '../kit/faultText';
import Segments from '../kit/Segments.vue';

/** The cause is named, with how sure one is, and what else it might be. */
const props = defineProps<{ causes: readonly string[] }>();
const emit = defineEmits<{ close: []; name: [said: Declaration] }>();
const items = computed(() => props.causes.map((value) => ({ value, title: faultName(value) })));
const cause = ref<string | null>(null);
const SURE = ['50', '60', '70', '80', '90', '95', '99'].map((value) => ({ value, title: `${value}${THIN}%` }));
const sure = ref('80');
const also = ref<string[]>([]);
const others = computed(() => items.value.filter(({ value }) => value !== cause.value));
const MOST_ALSO = 2;
function name(): void {
  if (cause.value === null) return;
  emit('name', {
    cause: cause.value as Declaration['cause'],
    confidence: Number(sure.value) / 100,
    also: also.value.filter((one) => one !== cause.value).slice(0, MOST_ALSO) as Declaration['also'],
  });
}
</script>

<template>
  <v-dialog :model-value="true" max-width="560" aria-label="Name the cause" @update:model-value="$emit('close')">
    <form class="sheet dialog" @submit.prevent="name">
      <DialogHead title="Name the cause" @close="$emit('close')" />
      <label class="labelled"><span>It is</span><v-select v-model="cause" :items="items" aria-label="It is" /></label>
      <div class="labelled">
        <span>How sure are you?</span>
        <Segments v-model="sure" look="chips" label="How sure are you" :choices="SURE" />
      </div>
      <label class="labelled"
        ><span>If not that, one of these two</span
        ><v-select v-model="also" :items="others" multiple :rules="[]" aria-label="If not that, one of these two"
      /></label>
      <p v-if="also.length > MOST_ALSO" class="small wrong">Two at most: the first two count.</p>
      <p class="muted small">Then it is over: what was hidden is told, and the shortest way to it.</p>
      <div class="row">
        <button class="button primary" type="submit" :disabled="cause === null">Name it</button>
      </div>
    </form>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.dialog { padding: 16px 18px 18px; display: grid; gap: 13px; }
.wrong { color: var(--bad); }
@media (max-width: 860px) { .dialog .button { min-height: 44px; } }
</style>
