<script setup lang="ts">
import { settingShare, tableRow, type StageOf } from '@yes-clear/core/stage';
import { parseQuantity, percent, shownUnit, words } from '@yes-clear/core/quantity';
import { mdiClose } from '@mdi/js';
import { computed, ref } from 'vue';
import AppIcon from '../../../kit/AppIcon.vue';
import { useOpenSystem } from '../../../system/openSystem';
import { useTrainEdits } from '../../useTrainEdits';

/** The settings of a dial as its maker prints them, each with the share that goes past: typed once, and set by a press. */
const props = defineProps<{ stage: StageOf<'decarboniser'>; hardnessMgL: number | null }>();
const edits = useTrainEdits(useOpenSystem());
const label = ref('');
const share = ref('');
const refused = ref('');
type Settings = StageOf<'decarboniser'>['settings'];
const keep = (settings: Settings): void => edits.change({ ...props.stage, settings }, 'settings of the dial');
function add(): void {
  const past = Number(share.value.replace('%', '').replace(',', '.').trim());
  refused.value =
    label.value.trim() === ''
      ? 'Setting is empty: what stands on the dial, such as 3 or B.'
      : share.value.trim() === '' || !Number.isFinite(past) || past < 0 || past > 100
        ? `Share past it is ${share.value.trim() || 'empty'}; 0 to 100 % can be entered.`
        : '';
  if (refused.value !== '') return;
  const one = { label: label.value.trim(), bypass: past / 100 };
  keep([...props.stage.settings.filter((other) => other.label !== one.label), one].sort((a, b) => a.bypass - b.bypass));
  label.value = '';
  share.value = '';
}
const set = (bypass: number): void => edits.change({ ...props.stage, bypass }, 'Bypass');

/** Its maker's table: up to which hardness which setting, and the litres it prints for it. */
const { units } = useOpenSystem();
const hardness = ref('');
const rowLabel = ref('');
const rowLitres = ref('');
const tableRefused = ref('');
type Table = StageOf<'decarboniser'>['table'];
const rows = computed(() => [...props.stage.table].sort((a, b) => a.hardnessMgL - b.hardnessMgL));
const now = computed(() => (props.hardnessMgL === null ? null : tableRow(props.stage, props.hardnessMgL)));
const keepTable = (table: Table): void => edits.change({ ...props.stage, table }, 'table of the dial');
function addRow(): void {
  const upTo = parseQuantity(hardness.value, 'hardnessMgL', {
    field: 'Hardness',
    low: 1,
    high: 2000,
    defaultUnit: shownUnit('hardnessMgL', units.value),
  });
  const litres =
    rowLitres.value.trim() === ''
      ? null
      : parseQuantity(rowLitres.value, 'volumeL', { field: 'Litres', low: 1, defaultUnit: shownUnit('volumeL', units.value) });
  tableRefused.value = !upTo.ok
    ? upTo.error.message
    : rowLabel.value.trim() === ''
      ? 'Setting is empty: what the table says for that hardness.'
      : litres !== null && !litres.ok
        ? litres.error.message
        : '';
  if (!upTo.ok || tableRefused.value !== '') return;
  const one = { hardnessMgL: upTo.value.value, label: rowLabel.value.trim(), litres: litres?.ok ? litres.value.value : null };
  keepTable(
    [...props.stage.table.filter((other) => other.hardnessMgL !== one.hardnessMgL), one].sort((a, b) => a.hardnessMgL - b.hardnessMgL),
  );
  hardness.value = '';
  rowLabel.value = '';
  rowLitres.value = '';
}
const say = computed(() => words(units.value));
const shareOf = (label: string): number | null => settingShare(props.stage, label);
</script>

<template>
  <section class="own" aria-label="Settings as printed">
    <h3>Its own settings</h3>
    <ul v-if="stage.settings.length > 0">
      <li v-for="one in stage.settings" :key="one.label">
        <button
          type="button"
          class="button small"
          :class="{ primary: Math.abs(one.bypass - stage.bypass) < 0.005 }"
          :aria-pressed="Math.abs(one.bypass - stage.bypass) < 0.005"
          @click="set(one.bypass)"
        >
          {{ one.label }}
        </button>
        <span>{{ percent(one.bypass) }} past it</span>
        <button
          type="button"
          class="tool"
          :aria-label="`Remove setting ${one.label}`"
          @click="keep(stage.settings.filter(({ label: other }) => other !== one.label))"
        >
          <AppIcon :path="mdiClose" :size="17" />
        </button>
      </li>
    </ul>
    <form class="add" @submit.prevent="add">
      <input v-model="label" class="plain-input" maxlength="12" placeholder="setting" aria-label="Setting on the dial" />
      <input
        v-model="share"
        class="plain-input"
        maxlength="8"
        inputmode="decimal"
        placeholder="% past it"
        aria-label="Share past it at this setting"
      />
      <button type="submit" class="button small">Add</button>
    </form>
    <p v-if="refused !== ''" class="wrong" role="alert">{{ refused }}</p>
    <h3>Its maker’s table, by {{ stage.hardnessIs }} hardness</h3>
    <ul v-if="rows.length > 0">
      <li v-for="row in rows" :key="row.hardnessMgL" class="row" :class="{ now: row.hardnessMgL === now?.hardnessMgL }">
        <span>up to {{ say.of(row.hardnessMgL, 'hardnessMgL') }}</span>
        <button
          v-if="shareOf(row.label) !== null"
          type="button"
          class="button small"
          :aria-label="`Set ${row.label}`"
          @click="set(shareOf(row.label)!)"
        >
          {{ row.label }}
        </button>
        <span v-else>{{ row.label }}, share not typed</span>
        <span>{{ row.litres === null ? '' : say.of(row.litres, 'volumeL') }}</span>
        <button
          type="button"
          class="tool"
          :aria-label="`Remove the row up to ${say.of(row.hardnessMgL, 'hardnessMgL')}`"
          @click="keepTable(stage.table.filter(({ hardnessMgL: other }) => other !== row.hardnessMgL))"
        >
          <AppIcon :path="mdiClose" :size="17" />
        </button>
      </li>
    </ul>
    <p v-if="now && hardnessMgL !== null" class="small muted">
      This water has {{ say.of(hardnessMgL, 'hardnessMgL') }}: the table says {{ now.label
      }}{{ now.litres === null ? '' : `, ${say.of(now.litres, 'volumeL')}` }}.
    </p>
    <form class="add three" @submit.prevent="addRow">
      <input v-model="hardness" class="plain-input" maxlength="20" placeholder="up to" aria-label="Hardness up to which the row holds" />
      <input v-model="rowLabel" class="plain-input" maxlength="12" placeholder="setting" aria-label="Setting the table says" />
      <input v-model="rowLitres" class="plain-input" maxlength="20" placeholder="litres" aria-label="Litres the table prints" />
      <button type="submit" class="button small" aria-label="Keep this row">Add</button>
    </form>
    <p v-if="tableRefused !== ''" class="wrong" role="alert">{{ tableRefused }}</p>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.own { display: grid; gap: 6px; }
h3 { margin: 0; font-size: 14px; }
ul { list-style: none; margin: 0; padding: 0; }
li { display: grid; grid-template-columns: auto 1fr auto; gap: 10px; align-items: center; padding: 2px 0; font-size: 14px; }
.add { display: grid; grid-template-columns: 1fr 1fr auto; gap: 6px; align-items: center; }
li.row { grid-template-columns: 1.2fr auto 1fr auto; }
li.now { background: var(--select); border-radius: 8px; padding-inline: 6px; }
.add.three { grid-template-columns: 1.3fr 1fr 1fr auto; }
.tool { border: 0; background: transparent; color: var(--muted); width: 34px; height: 34px; border-radius: 8px; cursor: pointer; display: grid; place-items: center; }
.wrong { color: var(--bad); font-size: 13px; font-weight: 550; margin: 0; }
@media (max-width: 860px) { .button, .tool { min-height: 44px; min-width: 44px; } }
</style>
