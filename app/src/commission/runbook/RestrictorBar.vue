<script setup lang="ts">
import type { TrimAdvice } from '@yes-clear/core/commission';
import { formatIn } from '@yes-clear/core/quantity';
import { computed } from 'vue';

/** The restrictor drawn to length, with this cut and where the target is expected. */
const props = defineProps<{ advice: TrimAdvice; lengthMm: number; target: number }>();
const cm = (mm: number): string => formatIn(mm, 'lengthMm', 'cm').text;
const share = (mm: number): string => `${Math.min(100, Math.max(0, (100 * mm) / props.lengthMm))}%`;
const cut = computed(() => (props.advice.kind === 'cut' ? props.advice : null));
const title = computed(() => {
  switch (props.advice.kind) {
    case 'onTarget':
      return 'On target: leave the restrictor as it is';
    case 'cut':
      return `Restrictor: cut ${cm(props.advice.cutMm)}, then measure again`;
    case 'fitSize':
      return props.advice.mLPerMin === null
        ? `No fixed restrictor as sold gives ${props.target} : 1 here: a tube or a needle valve does`
        : `Fit one of ${props.advice.mLPerMin} mL/min for ${props.target} : 1`;
    case 'fitLonger':
      return 'Too much goes to waste: fit a longer or smaller restrictor';
    case 'fitLarger':
      return `Even the bare end would not reach ${props.target} : 1: fit a larger restrictor`;
  }
});
const says = computed(() => {
  if (cut.value) {
    const { expectedMm, expectedLowMm, expectedHighMm } = cut.value;
    return `${cm(props.lengthMm)} now · ${props.target} : 1 expected near ${cm(expectedMm)} (${cm(expectedLowMm)} to ${cm(expectedHighMm)})`;
  }
  if (props.advice.kind === 'fitLonger')
    return props.advice.expectedMm === null
      ? 'A cut cannot be undone.'
      : `A cut cannot be undone. With this bore ${props.target} : 1 needs about ${cm(props.advice.expectedMm)}.`;
  if (props.advice.kind === 'fitSize') return 'Sizes as they are sold, rated at 60 psi; the next one up where none fits.';
  return `${cm(props.lengthMm)} long.`;
});
</script>

<template>
  <section class="sheet panel restrictor">
    <div class="words">
      <h2>{{ title }}</h2>
      <p class="small muted">{{ says }}</p>
    </div>
    <div class="tube" :class="{ cutting: cut }">
      <i class="rest" :style="{ width: cut ? share(cut.lengthAfterMm) : '100%' }" />
      <template v-if="cut">
        <b :style="{ left: share(cut.expectedMm) }"
          ><span :class="{ left: cut.expectedMm > lengthMm * 0.55 }">{{ target }} : 1 expected</span></b
        >
        <b class="now" :style="{ left: share(cut.lengthAfterMm) }"
          ><span>this cut, {{ cm(cut.lengthAfterMm) }}</span></b
        >
      </template>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.restrictor { display: grid; gap: 12px; }
.words { display: flex; justify-content: space-between; gap: 6px 20px; flex-wrap: wrap; align-items: baseline; }
.tube { position: relative; height: 14px; border-radius: 7px; background: var(--ink); margin: 6px 2px; }
.tube.cutting { margin-bottom: 34px; }
.rest { position: absolute; inset: 0 auto 0 0; border-radius: 7px; background: var(--action); }
b { position: absolute; top: -8px; height: 30px; border-left: 2px dashed var(--bad); font-weight: 450; }
b span { position: absolute; top: 32px; left: 0; transform: translateX(-50%); font-size: 13px; color: var(--ink); white-space: nowrap; }
b.now span { left: auto; right: -4px; transform: none; top: 32px; }
b span.left { transform: translateX(-100%); }
</style>
