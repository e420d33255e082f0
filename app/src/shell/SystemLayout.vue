<script setup lang="ts">
import { rememberUnits } from '../kit/usualUnits';
import { UNIT_PRESETS, presetOf, withPreset, type UnitPreference } from '@yes-clear/core/quantity';
import { computed, watchEffect } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { provideOpenSystem } from '../system/openSystem';
import { useSaving } from '../store/saving';
import { useSystemHeads } from '../store/heads';
import HeaderBar from '../kit/HeaderBar.vue';
import PageBoundary from './PageBoundary.vue';
import PhaseRail from './PhaseRail.vue';
import { PHASES, type PhaseKey } from './router';
import TimerStrip from '../kit/TimerStrip.vue';
import TroubleBar from '../kit/TroubleBar.vue';
import UnitMenu from './UnitMenu.vue';
import { usePhaseStates } from './usePhaseStates';
import { useQuickReading } from '../kit/useQuickReading';
import { useKey } from '../kit/useKeys';
import { monthOfYear } from '../time/dates';

/** The frame of one system: header, phases, and the page of the phase. */
const props = defineProps<{ id: string }>();
const route = useRoute();
const router = useRouter();
const quick = useQuickReading();
const current = provideOpenSystem(props.id);
const states = usePhaseStates(current);
const heads = useSystemHeads();
const order = computed(() => (heads.value ?? []).findIndex((head) => head.id === props.id) + 1);
/** Pages beside a phase's own show as that phase. */
const BESIDE: Readonly<Record<string, PhaseKey>> = { options: 'train', year: 'log' };
const phase = computed(() => PHASES.find(({ key }) => key === route.name || key === BESIDE[String(route.name)])?.key ?? null);
const saving = useSaving();
const place = computed(() =>
  heads.value ? `${order.value} of ${heads.value.length} ${heads.value.length === 1 ? 'system' : 'systems'}` : '',
);
/** Since when it stands, in place of its number, where that was said. */
const since = computed(() => {
  const day = current.system.value?.build.stands.since;
  return day ? `stands since ${monthOfYear(day)}` : null;
});
const title = computed(() => current.system.value?.name ?? '');
watchEffect(() => {
  document.title = title.value === '' ? 'Yes Clear' : `${title.value} – Yes Clear`;
});

const go = (key: PhaseKey): void => void router.push({ name: key, params: { id: props.id } });
PHASES.forEach((candidate, i) => useKey(String(i + 1), () => go(candidate.key)));
useKey('r', () => quick.startTyping(props.id));
/** The next set of units in their order; after a choice of one's own, the first. */
useKey('u', () => {
  const units = current.units.value;
  const at = UNIT_PRESETS.findIndex(({ key }) => key === presetOf(units));
  switchUnits(withPreset(units, UNIT_PRESETS[(at + 1) % UNIT_PRESETS.length]!.key));
});
function switchUnits(units: UnitPreference): void {
  rememberUnits(units);
  current.edit('units', (s) => ({ ...s, units }));
}
</script>

<template>
  <div>
    <template v-if="current.system.value">
      <HeaderBar
        :title="current.system.value.name"
        :subtitle="[current.system.value.site, since, saving.says ?? (since ? null : place)].filter((one) => one).join(' · ')"
      >
        <PhaseRail :system-id="id" :active="phase" :states="states" />
        <template #tools>
          <button class="button quick" type="button" @click="quick.start(id)">
            <span class="long">Quick reading</span><span class="short">Read</span> <kbd>R</kbd>
          </button>
          <UnitMenu :model-value="current.units.value" @update:model-value="switchUnits" />
        </template>
      </HeaderBar>
      <TroubleBar />
      <TimerStrip />
      <RouterView v-slot="{ Component, route: to }">
        <PageBoundary :key="String(to.name)"><component :is="Component" /></PageBoundary>
      </RouterView>
    </template>
    <template v-else-if="current.removed.value">
      <HeaderBar :title="current.removed.value.system.name" subtitle="Removed in another tab" />
      <TroubleBar />
      <div class="gone panel" role="alert">
        <p>
          This system was removed in another tab. It stands here as it was last seen, with
          {{ current.removed.value.readings.length }} readings.
        </p>
        <div class="row">
          <button class="button primary" type="button" @click="current.restore()">Bring it back</button>
          <RouterLink class="button" to="/">Leave it removed</RouterLink>
        </div>
      </div>
    </template>
    <template v-else-if="current.missing.value">
      <HeaderBar title="Not here" subtitle="This browser holds no such system" />
      <div class="gone panel">
        <p>This system is not kept in this browser. It may have been removed, or it lives in a file elsewhere.</p>
        <RouterLink class="button" to="/">To Rounds</RouterLink>
      </div>
    </template>
    <template v-else>
      <HeaderBar title="Opening…" subtitle="Reading what is kept in this browser" />
      <TroubleBar />
    </template>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.gone { display: grid; gap: 12px; justify-items: start; padding: 40px 20px; }
.short { display: none; }
@media (max-width: 860px) { .long, .quick kbd { display: none; } .short { display: inline; } .quick { min-height: 42px; } }
</style>
