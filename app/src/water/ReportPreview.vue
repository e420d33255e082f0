<script setup lang="ts">
import type { ReadReport, RowFate } from '@yes-clear/core/report';
import { computed } from 'vue';

/** Each row of a report beside what it was taken for, or why it was not. */
const props = defineProps<{ report: ReadReport; left: ReadonlySet<number>; inUse: boolean }>();
const emit = defineEmits<{ toggle: [line: number]; column: [index: number] }>();

const FATE: Record<RowFate, string> = {
  taken: 'taken',
  notUsed: 'not used',
  unknown: 'not known',
  noValue: 'no figure',
  ambiguous: 'unclear',
  repeated: 'a second time',
  refused: 'refused',
};
const counts = computed(() => {
  const of = (...fates: RowFate[]): number => props.report.rows.filter((row) => fates.includes(row.fate)).length;
  return [
    `${of('taken')} understood`,
    of('ambiguous', 'refused', 'noValue') > 0 ? `${of('ambiguous', 'refused', 'noValue')} to look at` : '',
    of('notUsed', 'repeated') > 0 ? `${of('notUsed', 'repeated')} not needed` : '',
    of('unknown') > 0 ? `${of('unknown')} not known` : '',
  ].filter(Boolean);
});
</script>

<template>
  <div class="preview">
    <div class="head">
      <strong>{{ counts.join(', ') }}</strong>
      <div v-if="report.columns.length > 1" class="columns">
        <span class="muted small">Figures from</span>
        <div class="segments" role="radiogroup" aria-label="Column of figures">
          <button
            v-for="choice in report.columns.slice(0, 5)"
            :key="choice.index"
            type="button"
            role="radio"
            :aria-checked="choice.index === report.column"
            @click="emit('column', choice.index)"
          >
            {{ choice.label || `column ${choice.index + 1}` }}
          </button>
        </div>
      </div>
    </div>
    <div class="scroll">
      <table class="figures" aria-label="Rows of the report">
        <thead>
          <tr>
            <th>In the report</th>
            <th class="num">Figure</th>
            <th class="unit">Unit</th>
            <th class="says">Taken as</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in report.rows" :key="row.line" :class="[row.fate, { left: left.has(row.line) }]">
            <td>{{ row.name }}</td>
            <td class="num typed">{{ row.figure || '–' }}</td>
            <td class="unit">{{ row.unit || '–' }}</td>
            <td class="says">
              <label v-if="row.value" class="pick"
                ><input
                  type="checkbox"
                  :checked="!left.has(row.line)"
                  :aria-label="`Take ${row.name}`"
                  @change="emit('toggle', row.line)"
                />{{ row.says }}</label
              >
              <template v-else
                ><b>{{ FATE[row.fate] }}</b> · {{ row.says }}</template
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.preview { border: 1px solid var(--hair); border-radius: 10px; overflow: hidden; }
.head { display: flex; justify-content: space-between; align-items: center; gap: 8px 16px; flex-wrap: wrap; padding: 9px 14px; background: var(--side); }
.columns { display: flex; align-items: center; gap: 10px; }
.columns .segments button { min-height: 30px; padding: 3px 10px; font-size: 13.3px; }
.scroll { overflow: auto; max-height: 420px; }
td { vertical-align: top; }
.unit, .says { text-align: left !important; }
.says { white-space: normal !important; min-width: 220px; }
.pick { display: flex; gap: 8px; align-items: flex-start; cursor: pointer; }
.pick input { margin-top: 3px; accent-color: var(--action); width: 15px; height: 15px; }
.notUsed td, .unknown td, .repeated td, .left td { color: var(--muted); }
.ambiguous .says b, .refused .says b, .noValue .says b { color: var(--warning); }
.left .pick { text-decoration: line-through; }
</style>
