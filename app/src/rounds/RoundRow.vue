<script setup lang="ts">
import { focusMenu } from '../kit/focusMenu';
import { shortDay } from '../time/dates';
import { percent, THIN } from '@yes-clear/core/quantity';
import DescentPicture from '../descent/DescentPicture.vue';
import { useElementVisibility } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import type { RoundLine } from './useRounds';

/** One system in Rounds: its line in small, what is left, and the sentence that matters. */
const props = defineProps<{ line: RoundLine }>();
const round = computed(() => props.line.round);
/** The picture is drawn once its row comes near the screen: a hundred are not drawn for the ten that are seen. */
const seen = useElementVisibility(useTemplateRef<HTMLElement>('picture'), { once: true, rootMargin: '400px' });
const toLog = computed(() => round.value !== null && round.value.finding !== null && round.value.hasReadings);
/** The next piece of work, where it is not what the finding says. */
const next = computed(() => {
  const [first] = [...(round.value?.due ?? [])].sort((a, b) => a.at.localeCompare(b.at));
  if (!first || (first.id.endsWith('-resin') && round.value?.finding?.id === 'resin')) return '';
  return `${shortDay(first.at)}: ${first.what}`;
});
defineEmits<{ save: [id: string]; remove: [line: RoundLine] }>();
</script>

<template>
  <article class="sheet round" :class="{ away: round?.away }">
    <RouterLink class="who" :to="{ name: toLog ? 'log' : 'train', params: { id: line.id } }">
      <strong>{{ line.name }}</strong><span>{{ line.site }}</span>
    </RouterLink>
    <div ref="picture" class="line">
      <DescentPicture v-if="round?.picture && seen" :input="round.picture.input" size="thumb" :sentence="round.picture.sentence" />
    </div>
    <div class="gauge">
      <template v-if="round && round.output !== null"
        ><span>Membrane {{ percent(round.output) }}</span
        ><i class="track"
          ><b
            :class="round.output < 0.85 ? 'worn' : 'membrane'"
            :style="{ width: `${Math.max(2, Math.min(100, 100 * round.output))}%` }" /></i
      ></template>
      <template v-else-if="round && round.saltRemoved !== null"
        ><span>Holds back {{ (round.saltRemoved * 100).toFixed(1) }}{{ THIN }}%</span
        ><i class="track"><b class="membrane" :style="{ width: `${Math.max(2, (round.saltRemoved - 0.8) * 500)}%` }" /></i
      ></template>
    </div>
    <div class="gauge">
      <template v-if="round && round.resinLeft !== null"
        ><span>Resin {{ percent(round.resinLeft) }} left</span
        ><i class="track"
          ><b :class="round.resinLeft < 0.15 ? 'low' : 'resin'" :style="{ width: `${Math.max(2, round.resinLeft * 100)}%` }" /></i
      ></template>
    </div>
    <div v-if="!round" class="says muted">Being worked out…</div>
    <div v-else-if="round.finding" class="says" :class="round.finding.severity">
      <strong>{{ round.finding.title }}</strong>
      <span v-if="next" class="next">{{ next }}</span>
    </div>
    <v-menu location="bottom end" @update:model-value="focusMenu">
      <template #activator="{ props: activator }"
        ><button class="more" type="button" v-bind="activator" :aria-label="`More for ${line.name}`">⋯</button></template
      >
      <v-list>
        <v-list-item title="Save as file" @click="$emit('save', line.id)" />
        <v-list-item title="Remove from this browser" @click="$emit('remove', line)" />
      </v-list>
    </v-menu>
  </article>
</template>

<!-- prettier-ignore -->
<style scoped>
.round { display: grid; grid-template-columns: minmax(150px, 1.15fr) 186px 128px 128px minmax(150px, 1.2fr) 30px; gap: 16px; align-items: center; padding: 10px 8px 10px 14px; position: relative; }
/* Of hundreds of rows only those to be seen are laid out. */
.round { content-visibility: auto; contain-intrinsic-size: auto 92px; }
.round.away .line, .round.away .who { opacity: 0.5; }
.round:hover { border-color: var(--muted); }
.who { display: grid; color: inherit; text-decoration: none; min-width: 0; }
.who::after { content: ''; position: absolute; inset: 0; border-radius: 12px; }
.who span { color: var(--muted); font-size: 13.3px; }
.gauge { display: grid; gap: 5px; font-size: 13.3px; color: var(--muted); }
.track { height: 8px; border-radius: 5px; background: var(--hair); overflow: hidden; display: block; }
.track b { display: block; height: 100%; border-radius: 5px; }
.membrane { background: var(--action); }
.resin { background: var(--resin); }
.low { background: var(--bad); }
.worn { background: var(--warning); }
.next { display: block; color: var(--muted); }
.says { font-size: 13.8px; line-height: 1.32; text-wrap: pretty; }
.says strong { font-weight: 650; }
.says.bad { color: var(--bad); }
.says.mind { color: var(--warning); }
.more { position: relative; z-index: 1; border: 0; background: transparent; color: var(--muted); font-size: 20px; height: 36px; width: 30px; border-radius: 8px; cursor: pointer; }
.more:hover { background: var(--hair); }
@media (max-width: 1180px) { .round { grid-template-columns: minmax(130px, 1fr) 150px 112px 112px minmax(130px, 1fr) 30px; gap: 12px; } }
@media (max-width: 860px) {
  .round { grid-template-columns: 1fr 1fr; padding: 12px 14px; row-gap: 8px; }
  .who, .line, .says { grid-column: 1 / -1; }
  .who { padding-right: 40px; }
  .more { position: absolute; right: 6px; top: 8px; height: 44px; width: 44px; }
}
</style>
