<script setup lang="ts">
import { BENCH_SYSTEMS, EXERCISES, FREE_PLAY } from '@yes-clear/core/fault';
import { THIN } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import HeaderBar from '../kit/HeaderBar.vue';
import { usePracticeRecord } from './usePracticeRecord';

/** The exercises of the practice bench, free play by a number, and how one has done so far. */
const router = useRouter();
const record = usePracticeRecord();
const LEVELS = ['', 'First steps', 'One check more', 'What meters hide', 'Without a net'] as const;
const levels = computed(() =>
  ([1, 2, 3, 4] as const).map((level) => ({
    level,
    title: LEVELS[level],
    rows: EXERCISES.filter((one) => one.level === level).map((one) => ({
      ...one,
      rig: BENCH_SYSTEMS[one.system].name,
      best: record.best(one.id),
    })),
  })),
);
const done = computed(() => EXERCISES.filter(({ id }) => record.best(id) !== null).length);
const kept = record.kept;
const bits = (value: number): string => value.toFixed(2).replace('-', '−');
const seed = ref('');
const seedNumber = computed(() => (/^\d{1,9}$/.test(seed.value.trim()) ? Number(seed.value) : null));
const play = (exercise: string): void =>
  void router.push({
    name: 'bench',
    params: { exercise, seed: String(seedNumber.value ?? 1 + Math.floor(Math.random() * 99_999)) },
  });
document.title = 'Practice · Yes Clear';
</script>

<template>
  <div>
    <HeaderBar title="Practice" :subtitle="`${done} of ${EXERCISES.length} exercises done`">
      <template #tools><RouterLink class="button" to="/">Rounds</RouterLink></template>
    </HeaderBar>
    <div class="work">
      <main class="stack">
        <header>
          <h1>Find the fault, where nothing floods.</h1>
          <p class="muted">
            A simulated rig, solved like a real one, with something hidden in it. Read what you need, mind the minutes, and name the cause.
          </p>
        </header>
        <section v-for="group in levels" :key="group.level">
          <h3>{{ group.title }}</h3>
          <ol>
            <li v-for="one in group.rows" :key="one.id">
              <RouterLink class="sheet row-link" :to="{ name: 'bench', params: { exercise: one.id, seed: '1' } }">
                <span class="number typed">{{ one.id }}</span>
                <span class="what"
                  ><strong>{{ one.asks }}</strong
                  ><span class="muted small">{{ one.rig }} · “{{ one.customer }}”</span></span
                >
                <span class="best">{{ one.best === null ? '' : `${one.best} of 100` }}</span>
              </RouterLink>
            </li>
          </ol>
        </section>
      </main>
      <aside>
        <section>
          <h2>Free play</h2>
          <p class="muted small">Whatever a number draws; the same number is the same rig for everybody.</p>
          <label class="labelled"
            ><span>Number of the rig</span
            ><input v-model="seed" class="plain-input" inputmode="numeric" placeholder="any" aria-label="Number of the rig"
          /></label>
          <p v-if="seed.trim() && seedNumber === null" class="wrong small">
            “{{ seed }}” is no number of a rig; accepted is 0 to 999999999.
          </p>
          <div class="rigs">
            <button
              v-for="one in FREE_PLAY"
              :key="one.id"
              class="button small"
              type="button"
              :disabled="seed.trim() !== '' && seedNumber === null"
              @click="play(one.id)"
            >
              {{ BENCH_SYSTEMS[one.system].name }}
            </button>
          </div>
        </section>
        <section>
          <h2>Your record</h2>
          <template v-if="kept">
            <p>
              <strong>{{ kept.right }} of {{ kept.count }}</strong> named rightly; you were
              <strong>{{ Math.round(100 * kept.confidence) }}{{ THIN }}%</strong> sure on average.
            </p>
            <p class="small muted">
              What was hidden you gave {{ bits(kept.ownBits) }} bit on average (0 is certain and right); the search, on what you had read,
              {{ bits(kept.searchBits) }}.
            </p>
            <button class="button small" type="button" @click="record.forget">Forget it</button>
          </template>
          <p v-else class="muted small">Nothing yet. It stays in this browser.</p>
        </section>
      </aside>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.stack { display: grid; gap: 16px; align-content: start; }
header { display: grid; gap: 4px; }
h1 { font-size: 22px; }
section { display: grid; gap: 8px; }
ol { list-style: none; margin: 0; padding: 0; display: grid; gap: 7px; }
.row-link { display: grid; grid-template-columns: 30px minmax(0, 1fr) max-content; gap: 10px; align-items: center; padding: 9px 13px; text-decoration: none; color: var(--ink); }
.row-link:hover { border-color: var(--muted); }
.number { color: var(--muted); }
.what { display: grid; min-width: 0; }
.best { font-weight: 650; color: var(--good); white-space: nowrap; }
aside { display: grid; gap: 24px; align-content: start; }
.rigs { display: flex; flex-wrap: wrap; gap: 7px; }
.wrong { color: var(--bad); }
@media (max-width: 860px) { .rigs .button, .plain-input { min-height: 44px; } }
</style>
