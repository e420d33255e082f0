<script setup lang="ts">
import { WORK_LABELS } from '@yes-clear/core/commission';
import { inSentence } from '@yes-clear/core/quantity';
import { mdiCheck, mdiMinus } from '@mdi/js';
import { computed, ref } from 'vue';
import AppIcon from '../../kit/AppIcon.vue';
import { spanText } from '../../kit/useTimers';
import { useRunbook } from './useRunbook';

/** The steps in their order, each with its state; on a phone they fold under their head. */
const book = useRunbook();
const open = ref(false);
const made = computed(() => book.steps.value.filter(({ id }) => book.settled(id)).length);
const left = computed(() => (book.minutesLeft.value === 0 ? 'all done' : `${spanText(book.minutesLeft.value * 60)} to go`));
const kind = computed(() => {
  const { kind: what, stageId } = book.work.value ?? { kind: 'newBuild' as const, stageId: null };
  const part = what === 'partChange' ? book.changeable.value.find(({ id }) => id === stageId) : undefined;
  return part ? `Change ${inSentence(part.name)}` : WORK_LABELS[what];
});
function choose(id: string): void {
  book.go(id);
  open.value = false;
}
</script>

<template>
  <div>
    <button class="fold" type="button" :aria-expanded="open" @click="open = !open">
      <h2>
        {{ kind }} <span class="muted">{{ made }} of {{ book.steps.value.length }} · {{ left }}</span>
      </h2>
    </button>
    <div class="list" :class="{ open }">
      <section v-for="(section, i) in book.sections.value" :key="i">
        <h3>{{ section.title }}</h3>
        <ol>
          <li v-for="s in section.steps" :key="s.id">
            <button
              type="button"
              class="step"
              :class="{
                on: book.step.value?.id === s.id,
                done: book.done.value.has(s.id),
                left: book.deviations.value.get(s.id)?.how === 'skipped',
                off: book.deviations.value.get(s.id)?.how === 'accepted',
              }"
              :aria-current="book.step.value?.id === s.id ? 'step' : undefined"
              @click="choose(s.id)"
            >
              <span class="badge"
                ><AppIcon v-if="book.done.value.has(s.id)" :path="mdiCheck" :size="14" /><AppIcon
                  v-else-if="book.settled(s.id)"
                  :path="mdiMinus"
                  :size="14"
                /><template v-else>{{ book.numberOf.value.get(s.id) }}</template></span
              ><span>{{ s.title }}<span v-if="book.settled(s.id) && !book.done.value.has(s.id)" class="sr"> (left out)</span></span>
            </button>
          </li>
        </ol>
      </section>
      <slot />
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.fold { border: 0; background: transparent; padding: 0; font: inherit; color: inherit; text-align: left; width: 100%; cursor: default; }
.fold h2 span { font-weight: 450; }
section h3 { padding: 10px 0 3px; }
ol { list-style: none; margin: 0; padding: 0; }
.step { display: flex; align-items: flex-start; gap: 9px; width: 100%; border: 1px solid transparent; border-radius: 9px; background: transparent; font: 450 14px/1.3 var(--digits); color: var(--ink); text-align: left; padding: 4px 8px; cursor: pointer; }
.step:hover { background: var(--hair); }
.step.on { background: var(--sheet); border-color: var(--line); font-weight: 680; }
.step.done, .step.left { color: var(--muted); }
.badge { flex: none; display: inline-grid; place-items: center; width: 20px; height: 20px; border-radius: 50%; border: 1.4px solid var(--line); font-size: 13px; font-weight: 650; background: var(--sheet); color: var(--ink); }
.done .badge { background: var(--good); border-color: var(--good); color: var(--sheet); }
.off .badge { background: var(--warning); border-color: var(--warning); }
.left .badge { border-color: var(--warning); color: var(--warning); }
.on:not(.done) .badge { border-color: var(--action); color: var(--action); }
.sr { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
@media (max-width: 860px) {
  .fold { cursor: pointer; min-height: 36px; }
  .list { display: none; }
  .list.open { display: block; }
  .step { min-height: 44px; align-items: center; }
}
</style>
