<script setup lang="ts">
import type { Step } from '@yes-clear/core/stage';
import { computed } from 'vue';
import { clockText, spanText, useTimers } from '../../kit/useTimers';
import { useKey } from '../../kit/useKeys';
import { useOpenSystem } from '../../system/openSystem';
import { useRunbook } from './useRunbook';

/** The wait of a step: begun here, told wherever its end finds the person. */
const props = defineProps<{ step: Step }>();
const { id: systemId, system } = useOpenSystem();
const { timers, now, start } = useTimers();
const book = useRunbook();
const id = computed(() => `${systemId}/${props.step.id}`);
const timer = computed(() => timers.value.find((one) => one.id === id.value) ?? null);
const left = computed(() => (timer.value ? (timer.value.endsAt - now.value) / 1000 : 0));
const done = computed(() => {
  const one = timer.value;
  return one ? Math.min(1, (now.value - one.startedAt) / (one.endsAt - one.startedAt)) : 0;
});
function toggle(): void {
  if (timer.value) book.keepWait(props.step);
  else start({ id: id.value, systemId, title: props.step.title, place: system.value?.name ?? '' }, props.step.minutes * 60);
}
useKey('t', toggle);
</script>

<template>
  <div class="timer" :class="{ runs: timer && left > 0, over: timer && left <= 0 }">
    <p v-if="timer" class="left" role="timer">
      {{ left > 0 ? clockText(left) : `Time is up${left < -60 ? `, ${spanText(-left)} ago` : ''}` }}
    </p>
    <p v-else class="left idle">{{ clockText(step.minutes * 60) }}</p>
    <span class="bar" aria-hidden="true"><i :style="{ width: `${100 * done}%` }" /></span>
    <button class="button" type="button" @click="toggle">
      {{ timer ? (left > 0 ? 'Stop the timer' : 'Seen') : `Start the ${spanText(step.minutes * 60)} timer` }} <kbd>T</kbd>
    </button>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.timer { display: grid; grid-template-columns: auto minmax(80px, 1fr) auto; gap: 16px; align-items: center; border: 1px solid var(--line); border-radius: 12px; background: var(--sheet); padding: 8px 14px; }
.left { font-size: 30px; line-height: 1.2; font-weight: 720; font-variant-numeric: tabular-nums; margin: 0; }
.idle { color: var(--muted); font-weight: 500; }
.over .left { color: var(--warning); }
.bar { height: 8px; border-radius: 4px; background: var(--hair); overflow: hidden; }
.bar i { display: block; height: 100%; background: var(--action); }
.over .bar i { background: var(--warning); }
@media (max-width: 860px) { .timer { grid-template-columns: minmax(0, 1fr) auto; } .bar { grid-column: 1 / -1; grid-row: 2; } .button { min-height: 48px; } kbd { display: none; } }
</style>
