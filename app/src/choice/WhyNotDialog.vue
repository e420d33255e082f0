<script setup lang="ts">
import {
  AXIS_WORDS,
  axisValueText,
  changeText,
  dearerText,
  dominatedText,
  rejectionText,
  RULE_WORDS,
  secondText,
  SPACE_WORDS,
  type Axis,
  type Why,
} from '@yes-clear/core/choice';
import type { System } from '@yes-clear/core/file';
import { computed, ref, shallowRef, watch } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import type { Options } from './useOptions';

/** "Why not …?" for any train one names, put together axis by axis. */
const props = defineProps<{
  system: System;
  options: Options;
  spaces: readonly { readonly id: string; readonly axes: readonly Axis[] }[];
  from: string | null;
}>();
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ compare: [id: string] }>();
const space = ref('');
const places = ref<number[]>([]);
const axes = computed(() => props.spaces.find(({ id }) => id === space.value)?.axes ?? []);
watch(
  open,
  (now) => {
    if (!now) return;
    const [name, rest] = (props.from ?? '').split(':');
    const known = props.spaces.find(({ id }) => id === name) ?? props.spaces[0];
    space.value = known?.id ?? '';
    places.value = known && name === known.id && rest ? rest.split('.').map(Number) : (known?.axes.map(() => 0) ?? []);
  },
  { immediate: true },
);
function go(id: string): void {
  space.value = id;
  places.value = axes.value.map(() => 0);
}
const id = computed(() => `${space.value}:${places.value.join('.')}`);
const why = shallowRef<Why | null>(null);
watch([id, open], async () => {
  if (!open.value || places.value.length !== axes.value.length) return;
  const asked = id.value;
  const answer = await props.options.why(asked).catch(() => null);
  if (asked === id.value) why.value = answer;
});
const said = computed((): { readonly title: string; readonly text: string } | null => {
  const now = why.value;
  const { units, prices } = props.system;
  const found = (wanted: string) => props.options.whole.value?.sifted.found.find((one) => one.id === wanted);
  if (!now) return null;
  switch (now.kind) {
    case 'recommended':
      return { title: 'This is the one to take', text: 'Nothing that would do is both as cheap and sturdier.' };
    case 'pruned':
      return {
        title: RULE_WORDS[now.rejection.rule],
        text: `${rejectionText(now.rejection, units, prices.currency)} ${changeText(now.rejection, units, prices.currency)}${now.others.length > 0 ? ` Then it would still break: ${now.others.map((rule) => RULE_WORDS[rule].toLowerCase()).join(', ')}.` : ''}`,
      };
    case 'dominated': {
      const [own, by] = [found(id.value), found(now.by)];
      return {
        title: 'Another is better in everything',
        text: own && by ? dominatedText(own, by, units, prices.currency) : 'Another is as good or better in everything.',
      };
    }
    case 'dearer':
      return { title: 'It would do, and costs more', text: dearerText(now.aYear, prices.currency) };
    case 'second':
      return { title: 'It would do, and is second', text: secondText(now.by) };
  }
});
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <v-card class="dialog-card">
      <DialogHead title="Why not…?" @close="open = false" />
      <div class="row">
        <button
          v-for="one in spaces"
          :key="one.id"
          type="button"
          class="button small"
          :class="{ primary: one.id === space }"
          @click="go(one.id)"
        >
          {{ SPACE_WORDS[one.id] ?? one.id }}
        </button>
      </div>
      <div class="axes">
        <label v-for="(axis, k) in axes" :key="axis.id" class="labelled">
          <span>{{ AXIS_WORDS[axis.id] ?? axis.id }}</span>
          <select v-model.number="places[k]" class="plain-input">
            <option v-for="(value, i) in axis.values" :key="i" :value="i">{{ axisValueText(axis.id, value, system.units) }}</option>
          </select>
        </label>
      </div>
      <div v-if="said" class="said" role="status">
        <strong>{{ said.title }}</strong>
        <p>{{ said.text }}</p>
      </div>
      <div class="row end">
        <button type="button" class="button" @click="emit('compare', id)">Put it side by side</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.axes { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 10px 14px; }
.said { border-left: 4px solid var(--action); padding: 4px 0 4px 12px; font-size: 14px; }
.end { justify-content: flex-end; }
@media (max-width: 480px) { .axes { grid-template-columns: minmax(0, 1fr); } }
</style>
