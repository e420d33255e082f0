<script setup lang="ts">
import { jobOf, objectives, spacesOfSystem, titleBy, TODAY, type Found } from '@yes-clear/core/choice';
import { formatQuantity, moneyText } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import PointsChart, { type ChartPoint } from '../kit/chart/PointsChart.vue';
import { useNotice } from '../kit/useNotice';
import { useOpenSystem } from '../system/openSystem';
import AxesDialog from './AxesDialog.vue';
import BoughtDialog from './BoughtDialog.vue';
import PricesDialog from './PricesDialog.vue';
import SideBySide from './SideBySide.vue';
import SiteColumn from './SiteColumn.vue';
import { useOptions } from './useOptions';
import WhyColumn from './WhyColumn.vue';
import WhyNotDialog from './WhyNotDialog.vue';

/** Compare options: which train to sell, solved one by one on this water. */
const open = useOpenSystem();
const { system } = open;
const router = useRouter();
const notice = useNotice();
const options = useOptions(open);
const { whole, recommended, progress, problem, stopped } = options;
const chosen = ref<string | null>(null);
const hovered = ref<string | null>(null);
const dialog = ref<'prices' | 'axes' | 'bought' | 'why' | null>(null);
const shown = (name: NonNullable<typeof dialog.value>) =>
  computed({ get: () => dialog.value === name, set: (on: boolean) => (dialog.value = on ? name : null) });
const [pricing, choosing, buying, asking] = [shown('prices'), shown('axes'), shown('bought'), shown('why')];

const at = computed(() => chosen.value ?? recommended.value?.id ?? null);
const spaces = computed(() => (system.value ? spacesOfSystem(system.value) : []));
const byId = computed(() => new Map((whole.value?.sifted.found ?? []).map((one) => [one.id, one])));
const title = computed(() => {
  if (!system.value || !at.value) return whole.value ? 'No train would do' : 'Compare options';
  return at.value === TODAY ? 'The train as it stands' : (titleBy(at.value, spaces.value) ?? 'Compare options');
});

/** So many rings are as good as all: the eye tells no more apart. */
const MOST_RINGS = 700;
const thinned = (found: readonly Found[], stays: (one: Found) => boolean = () => false): Found[] => {
  const every = Math.max(1, Math.ceil(found.length / MOST_RINGS));
  return found.filter((one, i) => i % every === 0 || stays(one));
};
/** Far out nothing is told apart: what costs many times the cheapest is counted, not drawn. */
const FAR = 3;
const dear = computed(() => FAR * Math.min(Infinity, ...(whole.value?.sifted.found ?? []).map(({ annualCost }) => annualCost)));
const points = computed(() => {
  const now = progress.value === null ? whole.value : null;
  const ring = (one: Found, y: number): ChartPoint => ({ id: one.id, x: one.annualCost, y, look: 'other' });
  // While they are solved the pictures fill, every one a ring.
  if (!now || !system.value) {
    const few = thinned(options.sofar.value);
    return { waste: few.map((one) => ring(one, one.wasteL)), visits: few.map((one) => ring(one, one.visitsPerYear)) };
  }
  const front = new Set(now.shown.chosen.front.map(({ place }) => now.sifted.found[place]!.id));
  const best = recommended.value?.id;
  const some = thinned(now.sifted.found, ({ id }) => front.has(id) || id === best || id === at.value);
  const look = ({ id }: Found): ChartPoint['look'] => (id === best ? 'best' : front.has(id) ? 'front' : 'other');
  const drawn = (y: (one: Found) => number): ChartPoint[] => [
    ...some.map((one) => ({ id: one.id, x: one.annualCost, y: y(one), look: look(one), ...(one.id === best && { name: 'recommended' }) })),
    ...(now.shown.today
      ? [{ id: TODAY, x: now.shown.today.annualCost, y: y(now.shown.today), look: 'today' as const, name: 'today' }]
      : []),
  ];
  const near = (all: ChartPoint[]): ChartPoint[] => all.filter(({ x, look: how }) => x <= dear.value || how === TODAY);
  return { waste: near(drawn(({ wasteL }) => wasteL)), visits: near(drawn(({ visitsPerYear }) => visitsPerYear)) };
});
const beyond = computed(() => (whole.value?.sifted.found ?? []).filter(({ annualCost }) => annualCost > dear.value).length);
const band = computed(() => {
  const best = recommended.value;
  const cheapest = best && byId.value.get(best.cheapest)?.annualCost;
  return cheapest != null && system.value ? { from: cheapest, to: cheapest * (1 + system.value.choice.tieBand) } : null;
});
const money = (value: number): string => moneyText(value, system.value!.prices.currency);
const amount = (value: number): string => String(Math.round(value));
const volume = (value: number): string => formatQuantity(value, 'volumeL', system.value!.units).text;
function says(id: string): readonly string[] {
  const one = id === TODAY ? whole.value?.shown.today : byId.value.get(id);
  if (!one) return [];
  const name = id === TODAY ? 'Today’s train' : (titleBy(id, spaces.value) ?? '');
  const [cost, waste, visits] = objectives(one);
  return [name, `${money(cost!)} a year`, `${volume(waste!)} of waste`, `${visits!.toFixed(1)} visits`];
}
async function pick(id: string): Promise<void> {
  chosen.value = id;
  await options.compare(id);
}
const using = ref(false);
async function use(): Promise<void> {
  const id = at.value;
  if (!id || id === TODAY || using.value) return;
  using.value = true;
  try {
    const train = await options.train(id);
    if (!train) return;
    if (!train.ok) {
      notice.say(train.error.message);
      return;
    }
    open.edit('train chosen', (s) => ({ ...s, train: train.value }));
    notice.say('The chosen train stands in Train. Ctrl+Z brings the old one back.');
    await router.push({ name: 'train' });
  } finally {
    using.value = false;
  }
}
const offer = (): void => void router.push({ name: 'build', query: { view: 'papers', with: 'options' } });
async function compareAsked(id: string): Promise<void> {
  dialog.value = null;
  await pick(id);
}
const job = computed(() => (system.value && open.tapState.value ? jobOf(system.value, open.tapState.value.ec25UScm) : null));
</script>

<template>
  <div v-if="system" class="options" :data-job="job" :data-took-ms="options.tookMs.value">
    <aside class="site">
      <SiteColumn :system="system" :options="options" @prices="dialog = 'prices'" @axes="dialog = 'axes'" @bought="dialog = 'bought'" />
    </aside>
    <main>
      <div class="page-head">
        <h1>{{ title }}</h1>
        <button class="button" type="button" :disabled="!whole" @click="dialog = 'why'">Why not…?</button>
        <button class="button" type="button" :disabled="!whole" @click="offer">Offer as PDF</button>
        <button
          class="button primary"
          type="button"
          :disabled="!at || at === TODAY || using || !options.rows.value.some((row) => row.id === at && row.route !== 'bought')"
          @click="use"
        >
          Use this train
        </button>
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div v-if="progress !== null" class="sheet wait" role="status">
        <p>Every train is being solved on this water…</p>
        <progress :value="progress" max="1" aria-label="Trains solved"></progress>
        <button class="button small" type="button" @click="options.stop">Stop</button>
      </div>
      <div v-if="stopped && progress === null" class="sheet wait">
        <p>Stopped. Nothing you entered is lost.</p>
        <button class="button small" type="button" @click="options.again">Go on</button>
      </div>
      <template v-if="(whole || options.sofar.value.length > 0) && !problem">
        <div v-if="points.waste.length > 0" class="plots">
          <div class="sheet">
            <PointsChart
              :label="`Cost a year against waste a year`"
              :points="points.waste"
              :active="hovered ?? at"
              :format-x="amount"
              :format-y="volume"
              :says="says"
              :band="band"
              @pick="pick"
              @point="hovered = $event"
            />
          </div>
          <div class="sheet">
            <PointsChart
              label="Cost a year against visits"
              :points="points.visits"
              :active="hovered ?? at"
              :format-x="amount"
              :format-y="(value) => String(Math.round(10 * value) / 10)"
              :says="says"
              :band="band"
              @pick="pick"
              @point="hovered = $event"
            />
          </div>
        </div>
        <p v-if="points.waste.length > 0" class="small muted">
          Filled: nothing is better in cost, waste, visits, winter and width at once. Rings: something is. Shaded: as cheap as the cheapest,
          within a twentieth.
          <template v-if="beyond > 0">{{ beyond }} more would do at over {{ FAR }} times the cost and are not drawn.</template>
        </p>
        <SideBySide v-if="whole" :system="system" :options="options" :chosen="at" @choose="chosen = $event" />
        <p class="small muted">
          Prices are placeholders until you type your own; what electricity, gas and water works ask for is theirs to say.
        </p>
      </template>
    </main>
    <aside class="why">
      <WhyColumn v-if="whole && !problem" :system="system" :options="options" />
    </aside>
    <PricesDialog v-model="pricing" :system="system" :of="open" />
    <AxesDialog v-model="choosing" :system="system" :options="options" :spaces="spaces" />
    <BoughtDialog v-model="buying" :system="system" :options="options" />
    <WhyNotDialog v-model="asking" :system="system" :options="options" :spaces="spaces" :from="at" @compare="compareAsked" />
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.options { display: grid; grid-template-columns: 252px minmax(0, 1fr) 306px; min-height: calc(100vh - var(--header)); }
main { padding: 14px 16px 28px; display: grid; gap: 10px; align-content: start; min-width: 0; }
.page-head { margin-bottom: 0; }
aside { background: var(--side); padding: 16px 14px 28px; display: grid; gap: 10px; align-content: start; }
.site { border-right: 1px solid var(--line); }
.why { border-left: 1px solid var(--line); }
.plots { display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 10px; }
.plots > div { min-width: 0; }
.wait { padding: 14px 16px; display: grid; gap: 10px; justify-items: start; }
progress { width: 100%; height: 8px; accent-color: var(--action); }
.problem { color: var(--bad); font-weight: 550; }
@media (max-width: 1120px) { .options { grid-template-columns: 240px minmax(0, 1fr); } .why { grid-column: 1 / -1; border-left: 0; border-top: 1px solid var(--line); } }
@media (max-width: 860px) {
  .options { grid-template-columns: minmax(0, 1fr); padding-bottom: 62px; }
  main { order: -1; padding: 12px; }
  .plots { grid-template-columns: minmax(0, 1fr); }
  .site { border-right: 0; border-top: 1px solid var(--line); order: 1; }
  .why { order: 0; }
}
</style>
