<script setup lang="ts">
import { computed, ref } from 'vue';

/** A row of bars that are dragged, or moved by the arrow keys. Heights are shares of `most`. */
const props = defineProps<{
  label: string;
  values: readonly number[];
  names: readonly string[];
  /** The same names in full, for those who hear them. */
  spoken: readonly string[];
  /** Top of the paper, in the values' unit. */
  most: number;
  /** One step of an arrow key. */
  step: number;
  say: (value: number, index: number) => string;
  /** Names are written under every so many bars. */
  every?: number;
}>();
const emit = defineEmits<{ set: [index: number, value: number] }>();
const paper = ref<HTMLElement | null>(null);
const held = ref<number | null>(null);

/** Top of the scale while dragging stays still, so that the hand and the bar keep together. */
const frozen = ref<number | null>(null);
const top = computed(() => frozen.value ?? props.most);
const height = (value: number): string => `${Math.min(100, (100 * value) / top.value)}%`;

function valueAt(event: PointerEvent): number {
  const box = paper.value!.getBoundingClientRect();
  return Math.max(0, Math.min(1, (box.bottom - event.clientY) / box.height)) * top.value;
}
const indexAt = (event: PointerEvent): number => {
  const box = paper.value!.getBoundingClientRect();
  return Math.max(0, Math.min(props.values.length - 1, Math.floor(((event.clientX - box.left) / box.width) * props.values.length)));
};
/** Rounded to half a step, so that dragging leaves no odd digits. */
const rounded = (value: number): number => Math.round((2 * value) / props.step) * (props.step / 2);
function start(event: PointerEvent): void {
  frozen.value = props.most;
  held.value = indexAt(event);
  paper.value!.setPointerCapture(event.pointerId);
  emit('set', held.value, rounded(valueAt(event)));
}
function drag(event: PointerEvent): void {
  // Sweeping along draws a whole day in one stroke.
  if (held.value !== null) emit('set', (held.value = indexAt(event)), rounded(valueAt(event)));
}
function stop(): void {
  held.value = null;
  frozen.value = null;
}
function key(event: KeyboardEvent, index: number): void {
  const by = { ArrowUp: 1, ArrowDown: -1, PageUp: 5, PageDown: -5 }[event.key];
  if (by !== undefined) {
    event.preventDefault();
    emit('set', index, Math.max(0, props.values[index]! + by * props.step));
  }
  const move = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
  if (move !== undefined) {
    event.preventDefault();
    (paper.value?.children[(index + move + props.values.length) % props.values.length] as HTMLElement | undefined)?.focus();
  }
}
</script>

<template>
  <div class="bars" role="group" :aria-label="label">
    <div ref="paper" class="paper" @pointerdown="start" @pointermove="drag" @pointerup="stop" @pointercancel="stop">
      <div
        v-for="(value, i) in values"
        :key="i"
        class="bar"
        role="slider"
        tabindex="0"
        :aria-label="`${label}, ${spoken[i]}`"
        aria-valuemin="0"
        :aria-valuenow="Number(value.toPrecision(4))"
        :aria-valuetext="say(value, i)"
        :title="`${spoken[i]}: ${say(value, i)}`"
        @keydown="key($event, i)"
      >
        <i :style="{ height: height(value) }" :class="{ held: held === i }" />
      </div>
    </div>
    <div class="names" aria-hidden="true">
      <span v-for="(name, i) in names" :key="i">{{ i % (every ?? 1) === 0 ? name : '' }}</span>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.paper { display: flex; gap: 3px; height: 112px; border-bottom: 1.5px solid var(--ink); touch-action: none; cursor: ns-resize; background: repeating-linear-gradient(to top, transparent 0 27px, var(--hair) 27px 28px); }
.bar { flex: 1 1 0; display: flex; align-items: flex-end; min-width: 0; }
.bar i { display: block; width: 100%; background: #9db7ba; border: 1px solid #33535a; border-bottom: 0; border-radius: 3px 3px 0 0; min-height: 2px; }
.bar:hover i, .bar i.held { background: #33535a; }
.names { display: flex; gap: 3px; font-size: 13px; color: var(--muted); margin-top: 3px; }
.names span { flex: 1 1 0; text-align: center; white-space: nowrap; overflow: visible; min-width: 0; }
</style>
