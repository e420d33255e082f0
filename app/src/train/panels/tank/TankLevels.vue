<script setup lang="ts">
import { formatQuantity, percent, type UnitPreference } from '@yes-clear/core/quantity';
import type { StageOf } from '@yes-clear/core/stage';
import { computed } from 'vue';
import { spread } from '../../../kit/chart/round';

/** A tank with the two levels its float switches at. */
const props = defineProps<{ tank: StageOf<'tank'>; units: UnitPreference }>();
const TOP = 16;
const HEIGHT = 148;
const y = (share: number): number => TOP + HEIGHT * (1 - share);
const litres = (share: number): string => formatQuantity(share * props.tank.volumeL, 'volumeL', props.units).text;
const floats = computed(() => props.tank.openToAir || props.tank.prechargeBar === null);
const levels = computed(() =>
  floats.value
    ? [
        { share: props.tank.stopShare, text: `stops at ${percent(props.tank.stopShare)}, ${litres(props.tank.stopShare)}` },
        { share: props.tank.startShare, text: `starts at ${percent(props.tank.startShare)}, ${litres(props.tank.startShare)}` },
      ]
    : [],
);
/** Two words need so much room, px. */
const APART = 16;
const textYs = computed(() =>
  spread(
    levels.value.map(({ share }) => y(share)),
    APART,
  ),
);
</script>

<template>
  <svg
    viewBox="0 0 220 180"
    width="220"
    height="180"
    role="img"
    :aria-label="`Tank of ${litres(1)}${levels.map(({ text }) => `, ${text}`).join('')}`"
  >
    <rect v-if="floats" class="water" x="8" :y="y(tank.stopShare)" width="64" :height="HEIGHT * tank.stopShare" />
    <path class="walls" :d="`M7 ${TOP} V${TOP + HEIGHT} H73 V${TOP}`" />
    <text class="size" x="40" y="178" text-anchor="middle">{{ litres(1) }}</text>
    <g v-for="(level, i) in levels" :key="level.text">
      <line x1="8" x2="80" :y1="y(level.share)" :y2="y(level.share)" />
      <text x="86" :y="textYs[i]! + 4.5">{{ level.text }}</text>
    </g>
  </svg>
</template>

<!-- prettier-ignore -->
<style scoped>
svg { font-family: var(--digits); font-size: 13px; max-width: 100%; }
text { fill: var(--ink); }
.water { fill: var(--select); }
.walls { fill: none; stroke: var(--ink); stroke-width: 2.4; }
line { stroke: var(--action); stroke-width: 1.6; stroke-dasharray: 5 4; }
.size { font-weight: 680; }
</style>
