<script setup lang="ts">
import { isUsualRatio, USUAL_RATIO } from '@yes-clear/core/membrane';
import { computed } from 'vue';

/** Where a measured ratio stands between the two schools and the target. */
const props = defineProps<{ ratio: number | null; target: number }>();
const HIGH = 8;
const at = (ratio: number): string => `${(100 * (Math.min(HIGH, Math.max(1, ratio)) - 1)) / (HIGH - 1)}%`;
const fine = computed(() => props.ratio !== null && isUsualRatio(props.ratio));
const marks = computed(() => [1, USUAL_RATIO.least, USUAL_RATIO.most, HIGH].filter((mark) => Math.abs(mark - props.target) > 0.5));
</script>

<template>
  <div
    class="scale"
    role="img"
    :aria-label="
      ratio === null ? 'No ratio yet' : `${ratio.toFixed(1)} to 1, wanted ${target} to 1, usual ${USUAL_RATIO.least} to ${USUAL_RATIO.most}`
    "
  >
    <div class="track">
      <i class="usual" :style="{ left: at(USUAL_RATIO.least), width: `calc(${at(USUAL_RATIO.most)} - ${at(USUAL_RATIO.least)})` }" />
      <i class="target" :style="{ left: at(target) }" />
      <i v-if="ratio !== null" class="dot" :class="{ fine }" :style="{ left: at(ratio) }" />
    </div>
    <div class="figures">
      <span v-for="mark in marks" :key="mark" :style="{ left: at(mark) }">{{ mark === 1 || mark === HIGH ? mark : `${mark} : 1` }}</span>
      <strong :style="{ left: at(target) }">{{ target }} : 1</strong>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.scale { max-width: 300px; margin: 18px 10px 0; }
.track { position: relative; height: 15px; border-radius: 8px; background: var(--hair); }
.track i { position: absolute; top: 0; }
.usual { height: 100%; background: color-mix(in srgb, var(--good) 24%, var(--hair)); }
.target { width: 3px; height: 25px; top: -5px !important; background: var(--good); transform: translateX(-1.5px); }
.dot { width: 19px; height: 19px; top: -2px !important; border-radius: 50%; background: var(--warning); border: 2.5px solid var(--sheet); transform: translateX(-50%); }
.dot.fine { background: var(--good); }
.figures { position: relative; height: 24px; font-size: 13px; color: var(--muted); }
.figures > * { position: absolute; top: 6px; transform: translateX(-50%); white-space: nowrap; }
.figures strong { color: var(--good); }
</style>
