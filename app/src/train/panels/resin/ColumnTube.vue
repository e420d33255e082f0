<script setup lang="ts">
import { RESIN_ROWS, type ColumnRun, type Side, type ResinClassId } from '@yes-clear/core/exchange';
import { computed } from 'vue';
import { ION_LOOK } from './ions';

/** One side of a bed at a moment: what sits where along its length, the water coming in at the top. */
const props = defineProps<{ run: ColumnRun; side: Side; moment: number; resin: ResinClassId }>();
const HEIGHT = 236;
const WIDTH = 74;
/** What is free looks as in the picture of the train: its colour, or the strokes of a bed that shows nothing. */
const APART = 4;
const STROKES = Math.floor(HEIGHT / APART);
const ids = computed(() => (props.side === 'cation' ? props.run.cations : props.run.anions));

const rows = computed(() => props.run.cells[props.side]);
/** Cells of equal height; in each the ions side by side, the strongest held first, what is left free at the right. */
const cells = computed(() => {
  const shares = props.run.moments[props.moment]?.[props.side];
  const n = ids.value.length;
  if (!shares) return [];
  return Array.from({ length: rows.value }, (_, c) => {
    let from = 0;
    return ids.value
      .map((_id, k) => n - 1 - k)
      .flatMap((i) => {
        const share = shares[c * n + i]!;
        if (share < 0.004) return [];
        const piece = { id: ids.value[i]!, x: from * WIDTH, width: share * WIDTH };
        from += share;
        return [piece];
      });
  });
});
/** Names stand beside the bed, each at the middle of what its ion holds. */
const names = computed(() => {
  const placed: { id: string; text: string; colour: string; y: number }[] = [];
  for (const id of ids.value) {
    // Where it stands: the middle of all it holds; too thin to see goes without a name.
    let [held, moment, most] = [0, 0, 0];
    cells.value.forEach((pieces, c) => {
      const width = pieces.find((one) => one.id === id)?.width ?? 0;
      held += width;
      moment += width * (c + 0.5);
      most = Math.max(most, width);
    });
    if (most < 0.18 * WIDTH || held < 1.5 * WIDTH) continue;
    placed.push({ id, text: ION_LOOK[id].name, colour: ION_LOOK[id].colour, y: (moment / held / rows.value) * HEIGHT });
  }
  placed.sort((a, b) => a.y - b.y);
  placed.forEach((name, i) => {
    const above = placed[i - 1];
    if (above && name.y - above.y < 15) name.y = above.y + 15;
  });
  return placed;
});
const title = computed(() => (props.side === 'cation' ? 'Cation resin' : 'Anion resin'));
const spent = computed(() => {
  const shares = props.run.moments[props.moment]?.[props.side];
  return shares ? Math.round((100 * shares.reduce((sum, share) => sum + share, 0)) / rows.value) : 0;
});
const says = computed(
  () =>
    `${title.value} ${spent.value} % loaded${names.value.length > 0 ? `: ${names.value.map((name) => name.text).join(', ')} from the inlet on` : ''}`,
);
</script>

<template>
  <figure class="tube" :aria-label="says">
    <figcaption>
      {{ title }} <strong>{{ spent }} %</strong>
    </figcaption>
    <svg :viewBox="`-3 -3 190 ${HEIGHT + 6}`" width="190" :height="HEIGHT + 6" aria-hidden="true">
      <rect x="0" y="0" :width="WIDTH" :height="HEIGHT" rx="9" class="free" :class="{ dyed: RESIN_ROWS[resin].colours }" />
      <g v-if="!RESIN_ROWS[resin].colours" :clip-path="`url(#tube-${side})`">
        <line v-for="k in STROKES" :key="k" class="stroke" x1="0" :x2="WIDTH" :y1="k * APART" :y2="k * APART" />
      </g>
      <g :clip-path="`url(#tube-${side})`">
        <template v-for="(pieces, c) in cells" :key="c">
          <rect
            v-for="piece in pieces"
            :key="piece.id"
            :x="piece.x"
            :y="(c / rows) * HEIGHT"
            :width="piece.width + 0.3"
            :height="HEIGHT / rows + 0.6"
            :fill="ION_LOOK[piece.id].colour"
          />
        </template>
      </g>
      <rect x="0" y="0" :width="WIDTH" :height="HEIGHT" rx="9" class="wall" />
      <text v-for="name in names" :key="name.id" :x="WIDTH + 8" :y="Math.min(HEIGHT - 4, name.y + 4.5)" class="name">
        <tspan :fill="name.colour">■</tspan>
        {{ name.text }}
      </text>
      <clipPath :id="`tube-${side}`"><rect x="0" y="0" :width="WIDTH" :height="HEIGHT" rx="9" /></clipPath>
    </svg>
    <small class="muted">{{ RESIN_ROWS[resin].label.toLowerCase() }}, free at the right</small>
  </figure>
</template>

<!-- prettier-ignore -->
<style scoped>
.tube { margin: 0; display: grid; gap: 4px; justify-items: start; }
figcaption { font-size: 13.4px; font-weight: 650; }
.free { fill: var(--side); }
.free.dyed { fill: var(--resin-fresh); }
.stroke { stroke: var(--resin-fresh); stroke-width: 1.2; }
.wall { fill: none; stroke: var(--ink); stroke-width: 1.8; }
.name { font-size: 13px; fill: var(--ink); font-weight: 620; }
svg { max-width: 100%; }
</style>
