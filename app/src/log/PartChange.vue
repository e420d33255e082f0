<script setup lang="ts">
import { allStages, type Service } from '@yes-clear/core/file';
import { behindInRow, fittedBefore, serviced, trainUse, WORK_WORDS, worksOn, type WorkRead } from '@yes-clear/core/log';
import { atStart, inSentence, words } from '@yes-clear/core/quantity';
import type { ServiceWork, TrainUse } from '@yes-clear/core/stage';
import { computed, ref, watch } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import Segments from '../kit/Segments.vue';
import { useNotice } from '../kit/useNotice';
import { newId } from '../store/newId';
import { useUndo } from '../kit/useUndo';
import { useOpenSystem } from '../system/openSystem';
import { dayField, dayOfYear, daysBetween } from '../time/dates';

/** Work on a part or a meter: what was done and why, what the old one had behind it, and what counts anew from then. */
const props = defineProps<{ on?: string | null; offered?: WorkRead | null }>();
const emit = defineEmits<{ close: [] }>();
const current = useOpenSystem();
const notice = useNotice();
const undo = useUndo();
const today = dayField(new Date());
// What somebody wrote beside a reading stands in the fields; it counts once it is pressed.
const day = ref(props.offered?.at ? dayField(props.offered.at) : today);
const note = ref(props.offered?.text ?? '');
const WHY: readonly { value: Service['why']; title: string }[] = [
  { value: 'notSaid', title: 'Not said' },
  { value: 'due', title: 'It was due' },
  { value: 'spent', title: 'It was spent' },
  { value: 'early', title: 'Still good' },
  { value: 'broken', title: 'It was broken' },
  { value: 'other', title: 'Other' },
];
// A preset answer is none: nobody said why until somebody does.
const why = ref<Service['why']>(props.offered?.why ?? 'notSaid');

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
  return seen && seen.beds.some(({ stageId }) => stageId === stage.value?.id) ? seen : null;
});
/** The next one of its row, which moves up. */
const behindIt = computed(() => (current.system.value && stage.value ? (behindInRow(current.system.value, stage.value)[0] ?? null) : null));
/** Whether the product's readings already tell how the resin ended: then nobody is asked. */
const productTells = computed(() => tracking.value !== null && tracking.value.points.length > 1 && work.value !== 'cleaned');
const works = computed((): { value: ServiceWork; title: string }[] => {
  const system = current.system.value;
  if (!system) return [];
  const list: readonly ServiceWork[] = stage.value
    ? sortedWorks(worksOn(system, stage.value))
    : ['cleaned', 'compared', 'battery', 'adjusted', 'changed'];
  return list.map((value) => ({
    value,
    title: value === 'movedUp' && behindIt.value ? `${behindIt.value.name} moved up, new one last` : atStart(WORK_WORDS[value]),
  }));
});
/** In a row the usual work comes first: the next one moves up. */
const sortedWorks = (list: readonly ServiceWork[]): readonly ServiceWork[] =>
  list.includes('movedUp') && stage.value?.kind === 'resin' ? ['movedUp', ...list.filter((one) => one !== 'movedUp')] : list;
const work = ref<ServiceWork>(props.offered?.work ?? 'changed');
watch(works, (list) => {
  if (!list.some(({ value }) => value === work.value)) work.value = list[0]?.value ?? 'changed';
});
/** What parts had been through on the day of the work: of one that was changed again since, nothing is known here. */
const useThen = computed((): TrainUse => {
  const [system, solved, one] = [current.system.value, current.solved.value, stage.value];
  if (!system || !solved) return {};
  if (day.value === today || !one) return solved.use;
  const until = new Date(`${day.value}T12:00`).toISOString();
  return fittedBefore(system, one, day.value) === ('fittedOn' in one ? one.fittedOn : null)
    ? trainUse(system, current.readings.value, solved.report.solved, null, until)
    : {};
});
/** What the old one has behind it. */
const behind = computed(() => {
  const system = current.system.value;
  const one = stage.value;
  if (!system || !one || !('fittedOn' in one)) return '';
  const since = fittedBefore(system, one, day.value);
  if (since === null) return 'Nobody wrote down when it was fitted.';
  const litres = useThen.value[one.id]?.passedL;
  const days = daysBetween(since, day.value);
  const passed = litres === undefined ? '' : `, ${words(system.units).about(litres, 'volumeL')} through it by the log`;
  return `In since ${dayOfYear(since)}: ${days} ${days === 1 ? 'day' : 'days'}${passed}.`;
});
const problem = computed(() => (day.value === '' ? 'Say on which day.' : day.value > today ? 'That day lies ahead.' : null));

function save(): void {
  const system = current.system.value;
  if (!system || problem.value) return;
  const at = day.value === today ? new Date().toISOString() : new Date(`${day.value}T12:00`).toISOString();
  const done = {
    id: newId(),
    at,
    stageId: stage.value?.id ?? null,
    instrumentId: chosen.value.startsWith('meter:') ? chosen.value.slice('meter:'.length) : null,
    work: work.value,
    why: why.value,
    note: note.value.trim(),
  };
  const title = subjects.value.find(({ value }) => value === chosen.value)?.title ?? '';
  current.edit('work on a part', (s) => serviced(s, done, useThen.value));
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
          productTells
            ? 'What it took up is learned from the readings of the product before this day.'
            : why === 'spent' || why === 'early'
              ? 'The product was not read: your answer counts for a little.'
              : 'The product was not read: say whether it was spent, if you know.'
        }}
        Keep resin out of preservative, and rinse it to the drain until the meter reads 0.
        {{ behindIt ? 'The new one never goes first.' : '' }}
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
