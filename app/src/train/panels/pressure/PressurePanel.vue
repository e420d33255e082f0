<script setup lang="ts">
import { pressureSteps, trainSentence } from '@yes-clear/core/advice';
import { words } from '@yes-clear/core/quantity';
import { computed, useTemplateRef } from 'vue';
import DescentPicture from '../../../descent/DescentPicture.vue';
import { useScrolledTogether } from '../../useScrolledTogether';
import { useWorkbench } from '../../useWorkbench';

/** Where the pressure goes: the same train with its height standing for pressure, and what each stage takes or gives. */
const bench = useWorkbench();
const { drawn, report, input } = bench;
const host = useTemplateRef<HTMLElement>('host');
useScrolledTogether(host, bench.scrolled);
const say = computed(() => words(drawn.value!.units));
const bar = (value: number): string => say.value.of(Math.abs(value), 'pressureBar');
const steps = computed(() => (report.value && drawn.value ? pressureSteps(drawn.value.train.stages, report.value.solved) : []));
const line = computed(() => report.value?.solved.stations[0]?.pressureBar ?? 0);
const membrane = computed(() => report.value?.solved.unit?.feedPressureBar ?? null);
</script>

<template>
  <section v-if="drawn && report && input" class="pressure" aria-label="Pressure">
    <div ref="host" class="scroller">
      <DescentPicture
        :input="{ ...input, height: 'pressure' }"
        size="large"
        :sentence="trainSentence(report.solved, drawn.units)"
        :selected="bench.selected.value"
        :column-width="bench.columnWidth.value"
        :left="bench.left"
        @select="bench.select"
      />
    </div>
    <p class="says">
      The line gives <strong>{{ bar(line) }}</strong><template v-if="membrane !== null"
        >, the membrane is fed with <strong>{{ bar(membrane) }}</strong></template
      >.
      <template v-for="step in steps" :key="step.id">
        <span class="step">{{ step.name }} {{ step.bar < 0 ? 'takes' : 'adds' }} {{ bar(step.bar) }}</span>
      </template>
    </p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.scroller { overflow-x: auto; overflow-y: hidden; }
.says { padding: 4px 14px 12px; font-size: 14px; display: flex; flex-wrap: wrap; gap: 2px 16px; }
.step { color: var(--muted); }
</style>
