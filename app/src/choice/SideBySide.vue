<script setup lang="ts">
import { rejectionText, ROLE_WORDS, RULE_WORDS, wouldDoText, type Row } from '@yes-clear/core/choice';
import { energyText } from '@yes-clear/core/advice';
import { COST_LINES, COST_WORDS } from '@yes-clear/core/ledger';
import type { System } from '@yes-clear/core/file';
import { moneyText, words } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import DescentPicture from '../descent/DescentPicture.vue';
import { useAnswer } from '../worker/useAnswer';
import type { Options } from './useOptions';

/** Options line by line beside today's; the best of each line stands out. */
const props = defineProps<{ system: System; options: Options; chosen: string | null }>();
defineEmits<{ choose: [id: string] }>();
const rows = computed(() => props.options.rows.value);
const { answer: pictures } = useAnswer('optionPictures', () => ({
  system: props.system,
  use: props.options.use(),
  ids: rows.value.filter(({ route }) => route !== 'bought').map(({ id }) => id),
}));
const money = (amount: number): string => moneyText(amount, props.system.prices.currency);
const say = computed(() => words(props.system.units));
interface Line {
  readonly label: string;
  readonly of: (row: Row) => number | null;
  readonly text: (value: number) => string;
  /** Which end is the better one; null where neither is. */
  readonly best: 'low' | 'high' | null;
}
const lines = computed<readonly Line[]>(() => [
  { label: 'Cost a year', of: ({ figures }) => figures.annualCost, text: money, best: 'low' },
  {
    label: 'of that, running it',
    of: ({ figures }) => figures.running,
    text: money,
    best: 'low',
  },
  { label: 'To buy', of: ({ figures }) => figures.capital, text: (value) => (value === 0 ? 'stands' : money(value)), best: null },
  { label: 'Waste a year', of: ({ figures }) => figures.wasteL, text: (value) => say.value.of(value, 'volumeL'), best: 'low' },
  { label: 'Visits a year', of: ({ figures }) => figures.visitsPerYear, text: (value) => value.toFixed(1), best: 'low' },
  { label: 'Coldest day ÷ need', of: ({ figures }) => figures.winterMargin, text: (value) => value.toFixed(1), best: 'high' },
  {
    label: 'Wall',
    of: ({ figures }) => (figures.widthMm > 0 ? figures.widthMm : null),
    text: (value) => `${Math.round(value / 10) * 10}\u202fmm`,
    best: 'low',
  },
  {
    label: 'Power',
    of: ({ figures: { kWh, feedL, wasteL } }) => (kWh > 0 ? (1000 * kWh) / (feedL - wasteL) : null),
    text: (value) => energyText(value, props.system),
    best: 'low',
  },
]);
const shownLines = computed(() => lines.value.filter(({ of }) => rows.value.some((row) => of(row) !== null)));
const costLines = computed(() => COST_LINES.filter((line) => rows.value.some(({ figures }) => (figures.lines[line] ?? 0) >= 0.5)));
/** The best of a line among those that would do. */
function isBest({ of, best }: Line, row: Row): boolean {
  if (!best || row.rejection) return false;
  const values = rows.value.filter(({ rejection }) => !rejection).flatMap((one) => of(one) ?? []);
  const own = of(row);
  if (own === null || values.length < 2) return false;
  return best === 'low' ? own <= Math.min(...values) : own >= Math.max(...values);
}
</script>

<template>
  <section class="sheet side" aria-label="Side by side">
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col">Side by side</th>
            <th v-for="row in rows" :key="row.id" scope="col" :class="{ on: row.id === chosen }">
              <button type="button" class="pick" :aria-pressed="row.id === chosen" @click="$emit('choose', row.id)">
                {{ ROLE_WORDS[row.role] }}
              </button>
              <button
                v-if="row.role === 'asked' || row.role === 'bought'"
                type="button"
                class="away"
                :aria-label="`Take ${row.title} away`"
                @click="options.hide(row.id)"
              >
                ×
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr class="pictures">
            <td></td>
            <td v-for="row in rows" :key="row.id">
              <div v-if="pictures?.[row.id]" class="strip">
                <DescentPicture :input="pictures[row.id]!.input" size="thumb" :sentence="pictures[row.id]!.sentence" />
              </div>
              <strong>{{ row.title }}</strong>
            </td>
          </tr>
          <tr v-for="line in shownLines" :key="line.label">
            <th scope="row">{{ line.label }}</th>
            <td v-for="row in rows" :key="row.id" :class="{ best: isBest(line, row), strong: line.label === 'Cost a year' }">
              {{ line.of(row) === null ? '–' : line.text(line.of(row)!) }}
            </td>
          </tr>
          <tr>
            <th scope="row">Would it do?</th>
            <td v-for="row in rows" :key="row.id" class="word">
              <span v-if="row.rejection" class="bad"
                >{{ RULE_WORDS[row.rejection.rule] }}: {{ rejectionText(row.rejection, system.units, system.prices.currency) }}</span
              >
              <span v-else-if="row.route === 'bought'" class="muted">by its maker’s word</span>
              <span v-else :class="row.advisories.length > 0 ? 'mind' : 'good'">{{ wouldDoText(row.advisories) }}</span>
            </td>
          </tr>
        </tbody>
        <tbody>
          <tr class="what">
            <th scope="row">What stands in it</th>
            <td v-for="row in rows" :key="row.id">{{ row.detail }}</td>
          </tr>
        </tbody>
        <tbody class="lines">
          <tr>
            <th scope="col" :colspan="rows.length + 1">What the cost is made of, a year</th>
          </tr>
          <tr v-for="line in costLines" :key="line">
            <th scope="row">{{ COST_WORDS[line] }}</th>
            <td v-for="row in rows" :key="row.id">{{ (row.figures.lines[line] ?? 0) >= 0.5 ? money(row.figures.lines[line]!) : '–' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.side { min-width: 0; }
.scroll { overflow-x: auto; }
table { border-collapse: collapse; width: 100%; font-size: 13.6px; table-layout: fixed; min-width: 560px; }
th, td { padding: 7px 10px; text-align: right; vertical-align: top; border-top: 1px solid var(--hair); }
thead th { border-top: 0; color: var(--muted); font-weight: 650; }
th:first-child, td:first-child { text-align: left; width: 136px; font-weight: 450; padding-left: 14px; }
thead th:first-child, .lines th:first-child { font-weight: 650; color: var(--muted); }
.pick { border: 0; background: transparent; font: inherit; color: inherit; cursor: pointer; padding: 3px 0; border-bottom: 2px solid transparent; }
.pick[aria-pressed='true'] { color: var(--action); border-bottom-color: var(--action); }
.away { border: 0; background: transparent; color: var(--muted); font-size: 17px; cursor: pointer; padding: 0 0 0 8px; }
.pictures td, .what td { font-size: 13px; line-height: 1.35; }
.what td { color: var(--muted); }
.pictures strong { display: block; font-size: 13.3px; }
.strip { margin-bottom: 4px; }
.best { color: var(--good); font-weight: 700; }
.strong { font-weight: 700; }
.word { font-size: 13px; line-height: 1.35; }
.bad { color: var(--bad); }
.mind { color: var(--warning); }
.good { color: var(--good); }
</style>
