<script setup lang="ts">
import { allStages, type Cartridge, type Service } from '@yes-clear/core/file';
import { cartridgeChanged, lagStage, nextCarbon, serviced, WORK_WORDS, worksOn } from '@yes-clear/core/log';
import { atStart, inSentence, words } from '@yes-clear/core/quantity';
import type { ServiceWork } from '@yes-clear/core/stage';
import { computed, ref, watch } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import Segments from '../kit/Segments.vue';
import { useNotice } from '../kit/useNotice';
import { idFor, newId } from '../store/newId';
import { useUndo } from '../kit/useUndo';
import { useOpenSystem } from '../system/openSystem';
import { dayField, dayOfYear, daysBetween } from '../time/dates';

/** Work on a part or a meter: what was done and why, what the old one had behind it, and what counts anew from then. */
const props = defineProps<{ on?: string | null }>();
const emit = defineEmits<{ close: [] }>();
const current = useOpenSystem();
const notice = useNotice();
const undo = useUndo();
const today = dayField(new Date());
const day = ref(today);
const note = ref('');
const WHY: readonly { value: Service['why']; title: string }[] = [
  { value: 'due', title: 'It was due' },
  { value: 'spent', title: 'It was spent' },
  { value: 'early', title: 'Before it was' },
  { value: 'broken', title: 'It was broken' },
  { value: 'other', title: 'Other' },
];
const why = ref<Service['why']>('due');

const subjects = computed(() => {
  const system = current.system.value;
  if (!system) return [];
  const stages = allStages(system.train).map((stage) => ({ value: `stage:${stage.id}`, title: stage.name }));
  const used = new Set(system.train.probes.map(({ instrumentId }) => instrumentId));
  return [...stages, ...system.instruments.filter(({ id }) => used.has(id)).map(({ id, name }) => ({ value: `meter:${id}`, title: name }))];
});
const chosen = ref<string>('');
watch(
  [subjects, () => props.on],
  ([list, on]) => {
    if (on && list.some(({ value }) => value === on)) chosen.value = on;
    else if (!list.some(({ value }) => value === chosen.value)) chosen.value = list[0]?.value ?? '';
  },
  { immediate: true },
);
const stage = computed(() => {
  const system = current.system.value;
  return system && chosen.value.startsWith('stage:')
    ? (allStages(system.train).find(({ id }) => `stage:${id}` === chosen.value) ?? null)
    : null;
});
const tracking = computed(() => {
  const seen = current.solved.value?.tracking ?? null;
  return seen && stage.value?.id === seen.stageId ? seen : null;
});
const lag = computed(() => (current.system.value && tracking.value ? lagStage(current.system.value) : null));
/** What stands behind it in its row, and moves up. */
const behindIt = computed(() => lag.value ?? (current.system.value && stage.value ? nextCarbon(current.system.value, stage.value) : null));
const works = computed((): { value: ServiceWork; title: string }[] => {
  const system = current.system.value;
  if (!system) return [];
  const list: readonly ServiceWork[] = stage.value
    ? [...(lag.value ? (['movedUp'] as const) : []), ...worksOn(system, stage.value)]
    : ['cleaned', 'compared', 'battery', 'adjusted', 'changed'];
  return list.map((value) => ({
    value,
    title: value === 'movedUp' && behindIt.value ? `${behindIt.value.name} moved up, a new one behind it` : atStart(WORK_WORDS[value]),
  }));
});
const work = ref<ServiceWork>('changed');
watch(works, (list) => {
  if (!list.some(({ value }) => value === work.value)) work.value = list[0]?.value ?? 'changed';
});
/** What the old one has behind it. */
const behind = computed(() => {
  const system = current.system.value;
  const one = stage.value;
  if (!system || !one || !('fittedOn' in one)) return '';
  if (one.fittedOn === null) return 'Nobody wrote down when it was fitted.';
  const litres = current.solved.value?.use[one.id]?.passedL;
  const days = daysBetween(one.fittedOn, day.value);
  const passed = litres === undefined ? '' : `, ${words(system.units).about(litres, 'volumeL')} through it by the log`;
  return `In since ${dayOfYear(one.fittedOn)}: ${days} ${days === 1 ? 'day' : 'days'}${passed}.`;
});
const problem = computed(() => (day.value === '' ? 'Say on which day.' : day.value > today ? 'That day lies ahead.' : null));

function save(): void {
  const system = current.system.value;
  if (!system || problem.value) return;
  const at = day.value === today ? new Date().toISOString() : new Date(`${day.value}T12:00`).toISOString();
  const use = current.solved.value?.use ?? {};
  const done = {
    id: newId(),
    at,
    stageId: stage.value?.id ?? null,
    instrumentId: chosen.value.startsWith('meter:') ? chosen.value.slice('meter:'.length) : null,
    work: work.value,
    why: why.value,
    note: note.value.trim(),
  };
  const seen = tracking.value;
  const isResin = seen !== null && (work.value === 'changed' || work.value === 'movedUp');
  const ended: Cartridge['ended'] = why.value === 'spent' ? 'breakthrough' : 'removedBefore';
  const title = subjects.value.find(({ value }) => value === chosen.value)?.title ?? '';
  current.edit('work on a part', (s) => {
    const written = serviced(s, done, use);
    if (!isResin) return written;
    const how = work.value === 'movedUp' ? 'moveUp' : 'renew';
    const moved = cartridgeChanged(s, seen, { how, ended, day: day.value, id: idFor('cartridge') });
    return { ...moved, services: written.services };
  });
  notice.say(`${title}: ${WORK_WORDS[work.value]}, written down.`, undo);
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="640" scrollable @update:model-value="emit('close')">
    <v-card class="change">
      <DialogHead title="Work on a part" @close="emit('close')" />
      <Segments v-model="chosen" look="chips" label="Part" :choices="subjects" />
      <p v-if="behind" class="small muted">{{ behind }}</p>
      <Segments v-model="work" look="chips" label="What was done" :choices="works" />
      <Segments v-model="why" look="chips" label="Why" :choices="WHY" />
      <p v-if="tracking && (work === 'changed' || work === 'movedUp')" class="small muted">
        {{
          why === 'spent'
            ? 'That it was spent at this load is learned from.'
            : 'That it still held at this load is learned from: the next one’s date moves.'
        }}
        Keep resin out of preservative, and rinse it to the drain until the meter reads 0.
        {{ lag ? 'The new one never goes first.' : '' }}
      </p>
      <div class="row">
        <label class="labelled"><span>On</span><input v-model="day" class="plain-input" type="date" :max="today" /></label>
        <label class="labelled grow"
          ><span>Note</span
          ><input v-model="note" class="plain-input" type="text" maxlength="500" placeholder="brown, torn, make of the new one"
        /></label>
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button class="button primary log" type="button" :disabled="problem !== null" @click="save">
        Write down: {{ inSentence(works.find(({ value }) => value === work)?.title ?? '') }}
      </button>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.change { padding: 16px 18px 18px; display: grid; gap: 13px; overflow-y: auto; }
.row { gap: 12px; flex-wrap: wrap; align-items: end; }
.grow { flex: 1 1 220px; }
.problem { color: var(--bad); font-weight: 550; }
.log { justify-content: center; min-height: 44px; }
@media (max-width: 860px) { .change :deep(.chips .button) { min-height: 42px; } .plain-input { min-height: 44px; } }
</style>
