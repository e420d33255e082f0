<script setup lang="ts">
import { settingShare, tableRow, type StageOf } from '@yes-clear/core/stage';
import { parseQuantity, shownUnit, words } from '@yes-clear/core/quantity';
import { mdiClose } from '@mdi/js';
import { computed, ref } from 'vue';
import AppIcon from '../../../kit/AppIcon.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useTrainEdits } from '../../useTrainEdits';

/** The table a maker prints for a dial: up to which hardness which setting, and the litres it prints for it. */
const props = defineProps<{ stage: StageOf<'decarboniser'>; hardnessMgL: number | null }>();
const emit = defineEmits<{ set: [bypass: number] }>();
const open = useOpenSystem();
const { units } = open;
const edits = useTrainEdits(open);
const hardness = ref('');
const label = ref('');
const litresText = ref('');
const refused = ref('');
type Table = StageOf<'decarboniser'>['table'];
const rows = computed(() => [...props.stage.table].sort((a, b) => a.hardnessMgL - b.hardnessMgL));
const now = computed(() => (props.hardnessMgL === null ? null : tableRow(props.stage, props.hardnessMgL)));
const keep = (table: Table): void => edits.change({ ...props.stage, table }, 'table of the dial');
function add(): void {
  const upTo = parseQuantity(hardness.value, 'hardnessMgL', {
    field: 'Hardness',
    low: 1,
    high: 2000,
    defaultUnit: shownUnit('hardnessMgL', units.value),
  });
  const litres =
    litresText.value.trim() === ''
      ? null
      : parseQuantity(litresText.value, 'volumeL', { field: 'Litres', low: 1, defaultUnit: shownUnit('volumeL', units.value) });
  refused.value = !upTo.ok
    ? upTo.error.message
    : label.value.trim() === ''
      ? 'Setting is empty: what the table says for that hardness.'
      : litres !== null && !litres.ok
        ? litres.error.message
        : '';
  if (!upTo.ok || refused.value !== '') return;
  const one = { hardnessMgL: upTo.value.value, label: label.value.trim(), litres: litres?.ok ? litres.value.value : null };
  keep([...props.stage.table.filter((other) => other.hardnessMgL !== one.hardnessMgL), one].sort((a, b) => a.hardnessMgL - b.hardnessMgL));
  hardness.value = '';
  label.value = '';
  litresText.value = '';
}
const say = computed(() => words(units.value));
const shareOf = (setting: string): number | null => settingShare(props.stage, setting);
</script>

<template>
  <h3>Its maker’s table, by {{ stage.hardnessIs }} hardness</h3>
  <ul v-if="rows.length > 0">
    <li v-for="row in rows" :key="row.hardnessMgL" :class="{ now: row.hardnessMgL === now?.hardnessMgL }">
      <span>up to {{ say.of(row.hardnessMgL, 'hardnessMgL') }}</span>
      <button
        v-if="shareOf(row.label) !== null"
        type="button"
        class="button small"
        :aria-label="`Set ${row.label}`"
        @click="emit('set', shareOf(row.label)!)"
      >
        {{ row.label }}
      </button>
      <span v-else>{{ row.label }}, share not typed</span>
      <span>{{ row.litres === null ? '' : say.of(row.litres, 'volumeL') }}</span>
      <button
        type="button"
        class="tool"
        :aria-label="`Remove the row up to ${say.of(row.hardnessMgL, 'hardnessMgL')}`"
        @click="keep(stage.table.filter(({ hardnessMgL: other }) => other !== row.hardnessMgL))"
      >
        <AppIcon :path="mdiClose" :size="17" />
      </button>
    </li>
  </ul>
  <p v-if="now && hardnessMgL !== null" class="small muted">
    This water has {{ say.of(hardnessMgL, 'hardnessMgL') }}: the table says {{ now.label
    }}{{ now.litres === null ? '' : `, ${say.of(now.litres, 'volumeL')}` }}.
  </p>
  <form class="add" @submit.prevent="add">
    <input v-model="hardness" class="plain-input" maxlength="20" placeholder="up to" aria-label="Hardness up to which the row holds" />
    <input v-model="label" class="plain-input" maxlength="12" placeholder="setting" aria-label="Setting the table says" />
    <input v-model="litresText" class="plain-input" maxlength="20" placeholder="litres" aria-label="Litres the table prints" />
    <button type="submit" class="button small" aria-label="Keep this row">Add</button>
  </form>
  <p v-if="refused !== ''" class="wrong" role="alert">{{ refused }}</p>
</template>

<!-- prettier-ignore -->
<style scoped>
h3 { margin: 0; font-size: 14px; }
ul { list-style: none; margin: 0; padding: 0; }
li { display: grid; grid-template-columns: 1.2fr auto 1fr auto; gap: 10px; align-items: center; padding: 2px 0; font-size: 14px; }
.add { display: grid; grid-template-columns: 1.3fr 1fr 1fr auto; gap: 6px; align-items: center; }
li.now { background: var(--select); border-radius: 8px; padding-inline: 6px; }
.tool { border: 0; background: transparent; color: var(--muted); width: 34px; height: 34px; border-radius: 8px; cursor: pointer; display: grid; place-items: center; }
.wrong { color: var(--bad); font-size: 13px; font-weight: 550; margin: 0; }
@media (max-width: 860px) { .button, .tool { min-height: 44px; min-width: 44px; } }
</style>
