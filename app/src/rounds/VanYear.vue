<script setup lang="ts">
import { DAY_MS, DAYS_PER_MONTH, inSentence, moneyText } from '@yes-clear/core/quantity';
import { countText } from '@yes-clear/core/stage';
import { USUAL_PACE, USUAL_POLICY, vanYear, type VanShare } from '@yes-clear/core/year';
import { useLocalStorage } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import HeaderBar from '../kit/HeaderBar.vue';
import QuantityField from '../kit/QuantityField.vue';
import { usualUnits } from '../kit/usualUnits';
import { useSystemHeads } from '../store/heads';
import { monthMark, shortDay } from '../time/dates';
import { vanShareBeside } from '../worker/client';

/** The van's year: visits, hours and parts to order by month, of every system kept here. */
const router = useRouter();
const heads = useSystemHeads();
const pace = useLocalStorage('yes-clear:van-pace', { ...USUAL_PACE });
const shares = shallowRef<readonly VanShare[]>([]);
const failed = shallowRef<readonly { readonly name: string; readonly why: string }[]>([]);
const done = ref(0);
let gone = false;
onScopeDispose(() => (gone = true));
async function read(): Promise<void> {
  const list = heads.value ?? [];
  const found: VanShare[] = [];
  const troubles: { name: string; why: string }[] = [];
  done.value = 0;
  for (const { id, name } of list) {
    if (gone || list !== heads.value) return;
    try {
      const share = await vanShareBeside(id, new Date().toISOString(), USUAL_POLICY.bundleDays);
      if (share?.ok) found.push(share.value);
      else if (share) troubles.push({ name, why: share.error.message });
    } catch (failure) {
      troubles.push({ name, why: failure instanceof Error ? failure.message : String(failure) });
    }
    done.value += 1;
    shares.value = [...found];
    failed.value = [...troubles];
  }
}
watch(heads, () => void read(), { immediate: true });
const months = computed(() => vanYear(shares.value, pace.value));
const start = computed(() => shares.value[0]?.startMs ?? Date.now());
const named = (month: number): string => monthMark(start.value + (month + 0.5) * DAYS_PER_MONTH * DAY_MS, 2);
const hoursText = (hours: number): string => (hours === 0 ? '–' : `${hours < 10 ? hours.toFixed(1) : Math.round(hours)}\u202fh`);
const total = computed(() => ({
  stops: months.value.reduce((sum, { stops }) => sum + stops.length, 0),
  hours: months.value.reduce((sum, { hours }) => sum + hours, 0),
}));
const most = computed(() => Math.max(1, ...months.value.map(({ hours }) => hours)));
document.title = 'The van’s year · Yes Clear';
</script>

<template>
  <div>
    <HeaderBar
      title="The van’s year"
      :subtitle="`${shares.length} ${shares.length === 1 ? 'system' : 'systems'} · from ${shortDay(start)}`"
    >
      <template #tools>
        <button class="button" type="button" @click="router.push({ name: 'rounds' })">Rounds</button>
      </template>
    </HeaderBar>
    <main class="van">
      <div class="page-head">
        <h1>{{ total.stops }} stops, {{ hoursText(total.hours) }} of work in twelve months</h1>
      </div>
      <p v-if="heads && done < heads.length" class="small muted" role="status">
        {{ done }} of {{ heads.length }} systems run through their year…
      </p>
      <div class="pace">
        <QuantityField
          label="To come, minutes"
          dimension="count"
          :low="0"
          :high="600"
          :units="usualUnits()"
          :model-value="pace.minutesToCome"
          @update:model-value="$event !== null && (pace = { ...pace, minutesToCome: $event })"
        />
        <QuantityField
          label="For a change, minutes"
          dimension="count"
          :low="0"
          :high="600"
          :units="usualUnits()"
          :model-value="pace.minutesAChange"
          @update:model-value="$event !== null && (pace = { ...pace, minutesAChange: $event })"
        />
      </div>
      <section class="sheet">
        <table class="figures" aria-label="Months">
          <thead>
            <tr>
              <th>Month</th>
              <th>Stops</th>
              <th>Work</th>
              <th class="gauge"></th>
              <th>Parts and visits</th>
              <th class="text">To order</th>
              <th class="text">Where</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="month in months" :key="month.month">
              <td>{{ named(month.month) }}</td>
              <td>{{ month.stops.length || '–' }}</td>
              <td>{{ hoursText(month.hours) }}</td>
              <td class="gauge" aria-hidden="true"><span :style="{ width: `${(100 * month.hours) / most}%` }"></span></td>
              <td>{{ month.costs.map(([currency, amount]) => moneyText(amount, currency)).join(', ') || '–' }}</td>
              <td class="text">
                <span v-for="piece in month.order" :key="piece.part" class="piece"
                  >{{ countText(piece) }}{{ piece.unit === 'piece' ? ' × ' : ' of '
                  }}{{ piece.unit === 'piece' ? piece.name : inSentence(piece.name) }}</span
                >
                <span v-if="month.order.length === 0" class="muted">nothing</span>
              </td>
              <td class="text">
                <span v-for="(stop, i) in month.stops" :key="i" class="piece"
                  >{{ shortDay(start + stop.day * DAY_MS) }} {{ stop.site }}: {{ stop.systems.join(', ') }}</span
                >
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <p v-for="one in failed" :key="one.name" class="small problem">{{ one.name }} is not in it: {{ one.why }}</p>
      <p class="small muted">
        What falls due within {{ USUAL_POLICY.bundleDays / 7 }} weeks at a system is changed along; systems of one site within three days
        are one stop. Dates move with what is drawn and read.
      </p>
    </main>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.van { padding: 16px 20px 40px; display: grid; gap: 12px; max-width: 1280px; }
.pace { display: flex; gap: 14px; flex-wrap: wrap; }
.pace > * { width: 190px; }
section { overflow-x: auto; }
td { vertical-align: top; }
.text { text-align: left; white-space: normal; min-width: 200px; }
.piece { display: block; line-height: 1.4; }
.gauge { width: 90px; min-width: 60px; }
.gauge span { display: block; height: 10px; margin-top: 5px; border-radius: 3px; background: var(--action); }
.problem { color: var(--bad); }
@media (max-width: 860px) { .van { padding: 12px 12px 30px; } .gauge { display: none; } }
</style>
