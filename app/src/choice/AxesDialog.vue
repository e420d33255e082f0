<script setup lang="ts">
import { AXIS_WORDS, axisValueText, SPACE_WORDS, type Axis } from '@yes-clear/core/choice';
import type { System } from '@yes-clear/core/file';
import DialogHead from '../kit/DialogHead.vue';
import type { Options } from './useOptions';

/** Which values of each axis are tried: what is not to be had, or not wanted, is left out. */
const props = defineProps<{
  system: System;
  options: Options;
  spaces: readonly { readonly id: string; readonly axes: readonly Axis[] }[];
}>();
const open = defineModel<boolean>({ required: true });
type Value = string | number | boolean;
const kept = (axis: string, all: readonly Value[]): readonly Value[] =>
  props.system.choice.kept.find((one) => one.axis === axis)?.values ?? all;
function toggle(axis: string, all: readonly Value[], value: Value): void {
  const now = kept(axis, all);
  const next = now.includes(value) ? now.filter((one) => one !== value) : [...now, value];
  // One value at least is left: an axis without any leaves no train.
  if (!all.some((one) => next.includes(one))) return;
  const others = props.system.choice.kept.filter((one) => one.axis !== axis);
  const whole = all.every((one) => next.includes(one));
  props.options.set(`axis ${axis}`, { kept: whole ? others : [...others, { axis, values: [...next] }] });
}
</script>

<template>
  <v-dialog v-model="open" max-width="620">
    <v-card class="dialog-card">
      <DialogHead title="What to try" @close="open = false" />
      <section v-for="space in spaces" :key="space.id">
        <h3>{{ SPACE_WORDS[space.id] ?? space.id }}</h3>
        <div v-for="axis in space.axes" :key="axis.id" class="axis" role="group" :aria-label="AXIS_WORDS[axis.id] ?? axis.id">
          <span>{{ AXIS_WORDS[axis.id] ?? axis.id }}</span>
          <div class="chips">
            <button
              v-for="value in axis.values"
              :key="String(value)"
              type="button"
              class="button small"
              :class="{ primary: kept(axis.id, axis.values).includes(value) }"
              :aria-pressed="kept(axis.id, axis.values).includes(value)"
              @click="toggle(axis.id, axis.values, value)"
            >
              {{ axisValueText(axis.id, value, system.units) }}
            </button>
          </div>
        </div>
      </section>
      <div v-if="system.choice.kept.length > 0" class="row">
        <button type="button" class="button small" @click="options.set('axes', { kept: [] })">Try everything again</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.axis { display: grid; grid-template-columns: 130px minmax(0, 1fr); gap: 8px; align-items: start; margin-top: 8px; font-size: 13.6px; }
.axis > span { padding-top: 5px; color: var(--muted); }
.chips { display: flex; gap: 6px; flex-wrap: wrap; }
@media (max-width: 480px) { .axis { grid-template-columns: minmax(0, 1fr); } }
</style>
