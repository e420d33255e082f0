<script setup lang="ts">
import { upkeepRuleSchema, type UpkeepRule } from '@yes-clear/core/file';
import type { UpkeepRow } from '@yes-clear/core/log';
import { inSentence } from '@yes-clear/core/quantity';
import { ref } from 'vue';
import DialogHead from '../kit/DialogHead.vue';
import QuantityField from '../kit/QuantityField.vue';
import { useNotice } from '../kit/useNotice';
import { useUndo } from '../kit/useUndo';
import { newId } from '../store/newId';
import { useOpenSystem } from '../system/openSystem';

/** The rule of one piece of upkeep in this system: days, litres, whichever comes first, and why it is set so. */
const props = defineProps<{ row: UpkeepRow }>();
const emit = defineEmits<{ close: [] }>();
const current = useOpenSystem();
const notice = useNotice();
const undo = useUndo();
const days = ref(props.row.rule ? props.row.rule.days : props.row.days);
const litres = ref(props.row.rule ? props.row.rule.litres : props.row.litres);
const reason = ref(props.row.rule?.reason ?? '');
const isSame = ({ stageId, says }: Pick<UpkeepRule, 'stageId' | 'says'>): boolean =>
  stageId === props.row.stageId && says === props.row.says;
function keep(rule: UpkeepRule | null): void {
  current.edit('rule of upkeep', (system) => ({
    ...system,
    upkeep: [...system.upkeep.filter((one) => !isSame(one)), ...(rule ? [rule] : [])],
  }));
  notice.say(rule ? 'The rule of this system stands.' : 'Back to the usual rule.', undo);
  emit('close');
}
function save(): void {
  const { stageId, says, rule } = props.row;
  keep({ id: rule?.id ?? newId(), stageId, says, days: days.value, litres: litres.value, reason: reason.value.trim() });
}
</script>

<template>
  <v-dialog :model-value="true" max-width="480" @update:model-value="emit('close')">
    <v-card class="dialog-card">
      <DialogHead :title="`When to ${row.says} ${inSentence(row.name)}`" @close="emit('close')" />
      <p class="small muted">Days, litres, or both: whichever comes first. Left empty, one does not count.</p>
      <div class="row">
        <QuantityField
          label="Days"
          dimension="count"
          :model-value="days"
          :units="current.units.value"
          :of="upkeepRuleSchema.shape.days"
          optional
          @update:model-value="days = $event"
        />
        <QuantityField
          label="Volume through it"
          dimension="volumeL"
          :model-value="litres"
          :units="current.units.value"
          :of="upkeepRuleSchema.shape.litres"
          optional
          @update:model-value="litres = $event"
        />
      </div>
      <label class="labelled"
        ><span>Why</span
        ><input v-model="reason" class="plain-input" type="text" maxlength="300" placeholder="muddy after rain, asked for by the owner"
      /></label>
      <button class="button primary" type="button" :disabled="days === null && litres === null" @click="save">Set this rule</button>
      <button v-if="row.rule" class="button" type="button" @click="keep(null)">Back to the usual rule</button>
    </v-card>
  </v-dialog>
</template>

<!-- prettier-ignore -->
<style scoped>
.row { align-items: start; }
p { margin: 0; }
.button { justify-content: center; min-height: 44px; }
</style>
