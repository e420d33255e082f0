<script setup lang="ts">
import { runbook, runbookSteps, type RunbookStep } from '@yes-clear/core/commission';
import { mdiCheck } from '@mdi/js';
import { useWakeLock } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import FindingCard from '../kit/FindingCard.vue';
import TrainStrip from '../kit/TrainStrip.vue';
import { useOpenSystem } from '../system/openSystem';
import RatioStep from './RatioStep.vue';
import TrimStep from './TrimStep.vue';

/** Build: the runbook made from this train, one step at a time, each with its caution beside it. */
/** On site the hands are wet: the screen stays on while the runbook is open. */
const wake = useWakeLock();
onMounted(() => void wake.request('screen').catch(() => undefined));
onBeforeUnmount(() => void wake.release().catch(() => undefined));
const current = useOpenSystem();
const { system } = current;
const sections = computed(() => (system.value ? runbook(system.value) : []));
const steps = computed(() => runbookSteps(sections.value));
const done = computed(() => new Set(system.value?.build.done ?? []));
const chosen = ref<string | null>(null);
const step = computed<RunbookStep | null>(
  () => steps.value.find((s) => s.id === chosen.value) ?? steps.value.find((s) => !done.value.has(s.id)) ?? steps.value.at(-1) ?? null,
);
const numberOf = computed(() => new Map(steps.value.map((s, i) => [s.id, i + 1])));
const doneCount = computed(() => steps.value.filter((s) => done.value.has(s.id)).length);
const minutesLeft = computed(() => steps.value.filter((s) => !done.value.has(s.id)).reduce((sum, s) => sum + s.minutes, 0));
const leftText = computed(() =>
  minutesLeft.value === 0 ? 'all done' : `${Math.floor(minutesLeft.value / 60)} h ${String(minutesLeft.value % 60).padStart(2, '0')} to go`,
);
watch(
  () => step.value?.id,
  () => window.scrollTo({ top: 0 }),
);

function mark(id: string, made: boolean): void {
  current.edit(made ? 'step done' : 'step reopened', (s) => ({
    ...s,
    build: { ...s.build, done: made ? [...new Set([...s.build.done, id])] : s.build.done.filter((other) => other !== id) },
  }));
}
function finish(id: string): void {
  mark(id, true);
  const at = steps.value.findIndex((s) => s.id === id);
  chosen.value = steps.value.slice(at + 1).find((s) => !done.value.has(s.id))?.id ?? null;
}
function ratioSaved(id: string): void {
  mark(id, true);
  chosen.value = id === 'ratio' ? 'trim' : (steps.value[steps.value.findIndex((s) => s.id === id) + 1]?.id ?? null);
}
const phone = ref(false);
</script>

<template>
  <div v-if="system" class="work with-list">
    <nav aria-label="Runbook">
      <button class="fold" type="button" :aria-expanded="phone" @click="phone = !phone">
        <h2>
          Runbook <span class="muted">{{ doneCount }} of {{ steps.length }} · {{ leftText }}</span>
        </h2>
      </button>
      <div class="list" :class="{ open: phone }">
        <section v-for="section in sections" :key="section.title">
          <h3>{{ section.title }}</h3>
          <ol>
            <li v-for="s in section.steps" :key="s.id">
              <button
                type="button"
                class="step"
                :class="{ on: step?.id === s.id, done: done.has(s.id) }"
                :aria-current="step?.id === s.id ? 'step' : undefined"
                @click="
                  chosen = s.id;
                  phone = false;
                "
              >
                <span class="badge"
                  ><AppIcon v-if="done.has(s.id)" :path="mdiCheck" :size="14" /><template v-else>{{ numberOf.get(s.id) }}</template></span
                >{{ s.title }}
              </button>
            </li>
          </ol>
        </section>
      </div>
    </nav>
    <main v-if="step">
      <h1 class="title">{{ step.title }}</h1>
      <p class="how">
        {{ step.how
        }}<template v-if="step.tool === 'ratio' || step.tool === 'ratioAgain'">
          Any jug will do: type “1 1/4 cup”, “0.33 L” or “330 ml”.</template
        >
      </p>
      <div v-if="step.cautions.length > 0" class="stack here">
        <FindingCard
          v-for="caution in step.cautions"
          :key="caution.title"
          :finding="{ severity: 'mind', title: caution.title, why: caution.text }"
        />
      </div>
      <RatioStep
        v-if="step.tool === 'ratio' || step.tool === 'ratioAgain'"
        :key="step.id"
        :again="step.tool === 'ratioAgain'"
        @saved="ratioSaved(step.id)"
      />
      <TrimStep v-else-if="step.tool === 'trim'" @measure="chosen = 'ratio'" @done="finish(step.id)" />
      <div v-if="step.tool !== 'ratio'" class="row end">
        <button v-if="!done.has(step.id)" class="button primary big" type="button" @click="finish(step.id)">Done, next step</button>
        <button v-else class="button" type="button" @click="mark(step.id, false)">Not done after all</button>
        <span class="muted small">{{ step.minutes >= 60 ? `${Math.round(step.minutes / 60)} h` : `about ${step.minutes} min` }}</span>
      </div>
    </main>
    <aside class="stack">
      <TrainStrip />
      <section v-if="step && step.cautions.length > 0" class="stack beside">
        <h2>Mind this here</h2>
        <FindingCard
          v-for="caution in step.cautions"
          :key="caution.title"
          :finding="{ severity: 'mind', title: caution.title, why: caution.text }"
        />
      </section>
      <p class="small muted">Work on mains plumbing and mains-voltage pumps belongs to licensed trades where local codes say so.</p>
    </aside>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.fold { border: 0; background: transparent; padding: 0; font: inherit; color: inherit; text-align: left; width: 100%; cursor: default; }
.fold h2 span { font-weight: 450; }
section h3 { padding: 14px 0 4px; }
ol { list-style: none; margin: 0; padding: 0; }
.step { display: flex; align-items: center; gap: 9px; width: 100%; border: 1px solid transparent; border-radius: 9px; background: transparent; font: 450 14px/1.25 var(--digits); color: var(--ink); text-align: left; padding: 5px 8px; cursor: pointer; }
.step:hover { background: var(--hair); }
.step.on { background: var(--sheet); border-color: var(--line); font-weight: 680; }
.step.done { color: var(--muted); }
.badge { flex: none; display: inline-grid; place-items: center; width: 20px; height: 20px; border-radius: 50%; border: 1.4px solid var(--line); font-size: 13px; font-weight: 650; background: var(--sheet); color: var(--ink); }
.done .badge { background: var(--good); border-color: var(--good); color: var(--sheet); }
.on:not(.done) .badge { border-color: var(--action); color: var(--action); }
.title { font-size: 24px; }
.how { margin: 4px 0 12px; max-width: 640px; color: var(--ink); font-size: 15.5px; }
.end { margin-top: 20px; }
.big { min-height: 46px; }
main { max-width: 820px; }
.here { display: none; margin-bottom: 16px; }
@media (max-width: 860px) {
  .fold { cursor: pointer; min-height: 36px; }
  .list { display: none; }
  .list.open { display: block; }
  .step { min-height: 44px; }
  /* On a phone the caution stands above the work, where the hand is. */
  .here { display: grid; }
  .beside { display: none; }
  .big { flex: 1; justify-content: center; min-height: 52px; }
}
</style>
