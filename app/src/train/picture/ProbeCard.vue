<script setup lang="ts">
import { alongTrain, isSamePlace, lastProbeWithin, nameMoved, probePlaces, type Place } from '@yes-clear/core/file';
import { ordinal } from '@yes-clear/core/quantity';
import { computed, ref } from 'vue';
import NameField from '../../kit/NameField.vue';
import { useOpenSystem } from '../../system/openSystem';
import MeterSelect from '../MeterSelect.vue';
import { useProbeEdits, type MeterChoice } from '../useProbeEdits';

/** What opens where somebody pressed on a tube or a probe: place one here, move the nearest here, change or remove the one that stands here. */
const props = defineProps<{ place: Place; probeId: string | null }>();
const emit = defineEmits<{ done: [] }>();
const current = useOpenSystem();
const edits = useProbeEdits(current);
const train = computed(() => current.system.value!.train);
const instruments = computed(() => current.system.value!.instruments);
const probe = computed(() => train.value.probes.find(({ id }) => id === props.probeId) ?? null);
const label = computed(() => probePlaces(train.value).find((one) => isSamePlace(one, props.place))?.label ?? 'Here');
/** The probe one would carry here: the nearest before it on the line that does not read the tap, or else the last of all. */
const nearest = computed(() => {
  const at = alongTrain(train.value, props.place);
  const before = at === null ? undefined : lastProbeWithin(train.value, 0, at);
  return before ?? train.value.probes.findLast(({ after }) => after !== 'tap') ?? null;
});
const name = ref(label.value);
const meter = ref<MeterChoice>(nearest.value?.instrumentId ?? instruments.value[0]!.id);
function add(): void {
  edits.add(props.place, name.value, meter.value);
  emit('done');
}
function moveHere(): void {
  const { after, side, vessel } = props.place;
  if (nearest.value) edits.set(nearest.value.id, { after, side, vessel, name: nameMoved(nearest.value.name, label.value) });
  emit('done');
}
function remove(): void {
  if (probe.value) edits.remove(probe.value.id);
  emit('done');
}
</script>

<template>
  <div class="card sheet" role="dialog" :aria-label="probe ? probe.name : 'New probe here'">
    <header>
      <strong>{{ probe ? label : 'New probe here' }}</strong>
      <span class="muted small">{{ probe ? '' : `added as ${ordinal(train.probes.length)} number` }}</span>
    </header>
    <label class="line"
      ><span>Name</span>
      <NameField
        v-if="probe"
        class="plain-input"
        label="Name of the probe"
        :maxlength="80"
        :model-value="probe.name"
        @update:model-value="edits.set(probe.id, { name: $event })"
      />
      <NameField
        v-else
        class="plain-input"
        label="Name of the probe"
        :maxlength="80"
        :model-value="name"
        @update:model-value="name = $event"
      />
    </label>
    <div class="line">
      <span>Meter</span>
      <MeterSelect
        v-if="probe"
        label="Meter of the probe"
        :instruments="instruments"
        :model-value="probe.instrumentId"
        @update:model-value="edits.setMeter(probe.id, $event)"
      />
      <MeterSelect v-else v-model="meter" label="Meter of the probe" :instruments="instruments" />
    </div>
    <div class="acts">
      <template v-if="probe">
        <button class="button" type="button" @click="emit('done')">Done</button>
        <button class="button danger" type="button" @click="remove">Remove</button>
      </template>
      <template v-else>
        <button class="button primary" type="button" @click="add">Place probe</button>
        <button v-if="nearest" class="button" type="button" @click="moveHere">Move “{{ nearest.name }}” here</button>
      </template>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.card { padding: 12px 14px; display: grid; gap: 9px; width: min(340px, calc(100vw - 24px)); }
header { display: flex; justify-content: space-between; gap: 10px; align-items: baseline; }
.line { display: grid; grid-template-columns: 56px minmax(0, 1fr); gap: 8px; align-items: center; }
.acts { display: flex; flex-wrap: wrap; gap: 8px; }
</style>
