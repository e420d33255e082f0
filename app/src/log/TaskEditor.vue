<script setup lang="ts">
import { allStages, taskSchema, type Task } from '@yes-clear/core/file';
import { computed, ref } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import QuantityField from '../kit/QuantityField.vue';
import Segments from '../kit/Segments.vue';
import { useNotice } from '../kit/useNotice';
import { useUndo } from '../kit/useUndo';
import { newId } from '../store/newId';
import { useOpenSystem } from '../system/openSystem';
import { dayField } from '../time/dates';

/** A task of one's own: what is done, to what, how often. */
const props = defineProps<{ task: Task | null }>();
const emit = defineEmits<{ close: [] }>();
const current = useOpenSystem();
const notice = useNotice();
const undo = useUndo();
const says = ref(props.task?.says ?? '');
const stageId = ref(props.task?.stageId ?? '');
const rhythm = ref<'days' | 'use'>(props.task?.everyDays === null ? 'use' : 'days');
const days = ref<number | null>(props.task?.everyDays ?? 7);
const tried = ref(false);
const RHYTHMS = [
  { value: 'days', title: 'Every so many days' },
  { value: 'use', title: 'At every use' },
] as const;
const stages = computed(() => (current.system.value ? allStages(current.system.value.train) : []));
const wrong = computed(() =>
  says.value.trim() === ''
    ? 'Say in a few words what is done.'
    : rhythm.value === 'days' && days.value === null
      ? 'Days are empty: 7 is once a week.'
      : '',
);
function keep(): void {
  tried.value = true;
  if (wrong.value !== '') return;
  const task: Task = {
    id: props.task?.id ?? newId(),
    says: says.value.trim(),
    stageId: stageId.value || null,
    everyDays: rhythm.value === 'use' ? null : days.value,
    since: props.task?.since ?? dayField(current.now.value),
  };
  current.edit('own task', (s) => ({ ...s, tasks: [...s.tasks.filter(({ id }) => id !== task.id), task] }));
  emit('close');
}
function remove(): void {
  current.edit('task removed', (s) => ({ ...s, tasks: s.tasks.filter(({ id }) => id !== props.task?.id) }));
  notice.say('Task removed; when it was done stays written down.', undo);
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="480" @update:model-value="emit('close')">
    <v-card class="dialog-card">
      <DialogHead :title="task ? 'Own task' : 'A task of your own'" @close="emit('close')" />
      <label class="labelled"
        ><span>What is done</span
        ><input v-model="says" class="plain-input" maxlength="80" placeholder="flush two minutes before use" aria-label="What is done"
      /></label>
      <label class="labelled"
        ><span>To what</span>
        <select v-model="stageId" class="plain-input" aria-label="To what">
          <option value="">the whole system</option>
          <option v-for="stage in stages" :key="stage.id" :value="stage.id">{{ stage.name }}</option>
        </select></label
      >
      <Segments v-model="rhythm" label="How often" :choices="RHYTHMS" />
      <QuantityField
        v-if="rhythm === 'days'"
        label="Days from one time to the next"
        dimension="count"
        :units="current.units.value"
        :of="taskSchema.shape.everyDays"
        :model-value="days"
        optional
        empty="days"
        @update:model-value="days = $event"
      />
      <p v-if="tried && wrong !== ''" class="wrong" role="alert">{{ wrong }}</p>
      <div class="row">
        <button class="button primary" type="button" @click="keep">Keep it</button>
        <button v-if="task" class="button danger" type="button" @click="remove">Remove</button>
      </div>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.wrong { color: var(--bad); font-weight: 550; font-size: 13.5px; }
</style>
