<script setup lang="ts">
import { allStages, asItStands, isBeingDescribed, stoodBefore, withFittedOn, withStands, type Stands } from '@yes-clear/core/file';
import type { Stage } from '@yes-clear/core/stage';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import DayField from '../kit/DayField.vue';
import DialogHead from '../kit/DialogHead.vue';
import StandsChoice from '../kit/StandsChoice.vue';
import { useOpenSystem } from '../system/openSystem';

/** What stands there: how it came to be, since when each part is in, and that it is described as it stands. */
const open = defineModel<boolean>({ required: true });
const current = useOpenSystem();
const router = useRouter();
const system = computed(() => current.system.value!);
const parts = computed(() =>
  allStages(system.value.train).filter((stage): stage is Stage & { fittedOn: string | null } => 'fittedOn' in stage),
);
const setFitted = (id: string, day: string | null): void => current.edit(`stage ${id} fitted`, (before) => withFittedOn(before, id, day));
const setStands = (stands: Stands): void => current.edit('how it came to be', (before) => withStands(before, stands));
function fix(): void {
  const first = isBeingDescribed(system.value);
  current.edit('as it stands', (before) => asItStands(before, new Date().toISOString()));
  open.value = false;
  // What stands and runs is read next.
  if (first) void router.push({ name: 'log', params: { id: system.value.id } });
}
</script>

<template>
  <v-dialog v-model="open" max-width="640">
    <v-card class="there sheet">
      <DialogHead title="What stands there" @close="open = false" />
      <StandsChoice :model-value="system.build.stands" @update:model-value="setStands" />
      <section v-if="parts.length > 0" aria-label="Since when each part is in">
        <h3>Since when is each part in?</h3>
        <p class="muted small">About is enough. What nobody knows stays empty: nothing of it falls due, and the log says so.</p>
        <ul>
          <li v-for="stage in parts" :key="stage.id">
            <DayField
              class="date"
              :label="stage.name"
              optional
              :model-value="stage.fittedOn"
              @update:model-value="setFitted(stage.id, $event)"
            />
          </li>
        </ul>
      </section>
      <div v-if="stoodBefore(system)" class="end">
        <p class="muted small">
          {{
            isBeingDescribed(system)
              ? 'Set the stages, labels and probes as they are. What is changed after this is a change to what stands.'
              : 'It is fixed as it stands. What is changed now is a change to it; Build makes its steps.'
          }}
        </p>
        <button class="button" :class="{ primary: isBeingDescribed(system) }" type="button" @click="fix">
          {{ isBeingDescribed(system) ? 'This is how it stands' : 'Take it as it is now' }}
        </button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.there { padding: 14px 18px 18px; display: grid; gap: 14px; }
ul { list-style: none; margin: 8px 0 0; padding: 0; }
li { border-top: 1px solid var(--hair); padding: 4px 0; }
.date { display: grid; grid-template-columns: minmax(0, 1fr) 170px; gap: 10px; align-items: center; }
.end { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: center; justify-content: space-between; }
.end p { flex: 1 1 260px; }
</style>
