<script setup lang="ts">
import {
  GROUP_LABELS,
  HANGING_ROWS,
  hangingOf,
  HOOK_UP_SETS,
  lineSays,
  partsCsv,
  partsOf,
  partsTotal,
  standsSays,
  sumOf,
  toolsSays,
  tubeLines,
  type PricedPart,
} from '@yes-clear/core/commission';
import { HANGINGS, HOOK_UPS, TUBE_COLOURS, type Build, type Hanging, type HookUp, type TubeColour } from '@yes-clear/core/file';
import { formatIn, formatQuantity, THIN, atStart } from '@yes-clear/core/quantity';
import { countText, FLOAT_HOLE_MM, CARTRIDGE_CLEARANCE_MM, PART_GROUPS } from '@yes-clear/core/stage';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import { download, plainName } from '../../store/download';
import FindingCard from '../../kit/FindingCard.vue';
import NameField from '../../kit/NameField.vue';
import QuantityField from '../../kit/QuantityField.vue';
import { idFor } from '../../store/newId';
import { useOpenSystem } from '../../system/openSystem';
import DrawingPicture from './DrawingPicture.vue';
import OwnPart from './OwnPart.vue';
import PriceField from './PriceField.vue';

/** What the train is built of: drawn with every port, listed with why and how many, priced for this job. */
const current = useOpenSystem();
const { system } = current;
const solved = computed(() => current.solved.value?.report.solved ?? null);
const lines = computed(() => (system.value ? tubeLines(system.value, solved.value) : []));
const parts = computed(() => (system.value ? partsOf(system.value, solved.value) : []));
const groups = computed(() =>
  PART_GROUPS.map((group) => ({ group, label: GROUP_LABELS[group], rows: parts.value.filter((one) => one.group === group) })).filter(
    ({ rows }) => rows.length > 0,
  ),
);
const total = computed(() => partsTotal(parts.value, system.value?.build.markUp ?? 0));
const currency = computed(() => system.value?.prices.currency ?? '');
const tubing = computed(() => lines.value.reduce((sum, { lengthMm }) => sum + lengthMm, 0));
const guessed = computed(() => lines.value.filter(({ measured }) => !measured).length);
const stands = computed(() => (system.value ? standsSays(system.value) : null));
const head = computed(() => {
  if (!system.value) return '';
  const listedParts = parts.value.filter(({ group }) => group !== 'spares').length;
  const metres = formatIn(tubing.value, 'lengthMm', system.value.units.length === 'in' ? 'ft' : 'm').text;
  return `${listedParts} parts, ${guessed.value > 0 ? 'about ' : ''}${metres} of tubing, ${stands.value!.text}`;
});
const amount = (one: PricedPart): string => (one.price === null ? '–' : (one.price * one.count).toFixed(2));
const sum = (rows: readonly PricedPart[]): string => (rows.some(({ price }) => price !== null) ? sumOf(rows).toFixed(2) : '–');

const edit = (label: string, changes: (build: Build) => Partial<Build>): void =>
  current.edit(label, (s) => ({ ...s, build: { ...s.build, ...changes(s.build) } }));
function setPrice(one: PricedPart, each: number | null): void {
  if (one.own)
    return edit('price', ({ ownParts }) => ({ ownParts: ownParts.map((own) => (own.id === one.part ? { ...own, each } : own)) }));
  edit('price', ({ partPrices }) => {
    const others = partPrices.filter(({ part }) => part !== one.part);
    return { partPrices: each === null ? others : [...others, { part: one.part, each }] };
  });
}
const setCurrency = (text: string): void => current.edit('currency', (s) => ({ ...s, prices: { ...s.prices, currency: text } }));
const chosen = ref<string | null>(null);
const line = computed(() => lines.value.find(({ id }) => id === chosen.value) ?? null);
const lengthField = useTemplateRef<HTMLElement>('lengthField');
function choose(id: string): void {
  chosen.value = id;
  void nextTick(() => lengthField.value?.querySelector('input')?.focus());
}
const setLength = (id: string, lengthMm: number): void =>
  edit('length of tubing', (build) => ({ lines: [...build.lines.filter((one) => one.id !== id), { id, lengthMm }] }));
const lineText = computed(() => (line.value && system.value ? `${lineSays(system.value, line.value)}; ${line.value.size.name}` : ''));
const LINES = [
  { key: 'feed', label: 'Feed' },
  { key: 'product', label: 'Product' },
  { key: 'waste', label: 'Waste' },
] as const;
const setColour = (key: (typeof LINES)[number]['key'], colour: string): void =>
  edit('tubing colours', ({ colours }) => ({ colours: { ...colours, [key]: (colour || null) as TubeColour | null } }));
const sameColours = computed(() => {
  const colours = system.value?.build.colours;
  const set = Object.values(colours ?? {}).filter((colour) => colour !== null);
  return new Set(set).size < set.length;
});
const hangs = computed(() => hangingOf(system.value!));
const setHangs = (value: string): void => edit('where it hangs', () => ({ hangs: value as Hanging }));
const setHookUp = (value: string): void => edit('hook-up', () => ({ hookUp: (value || null) as HookUp | null }));
function saveCsv(): void {
  if (!system.value) return;
  const name = plainName(`${system.value.site} ${system.value.name}`);
  // A spreadsheet takes the mark for UTF-8.
  download(`${name}-parts.csv`, new Blob([`\uFEFF${partsCsv(parts.value, currency.value)}`], { type: 'text/csv;charset=utf-8' }));
}
const print = (): void => window.print();
const hasFloat = computed(() => parts.value.some(({ part }) => part === 'float-valve'));
const addOwn = (own: { name: string; count: number; each: number | null }): void =>
  edit('part added', ({ ownParts }) => ({ ownParts: [...ownParts, { id: idFor('part'), ...own }] }));
const removeOwn = (id: string): void => edit('part removed', ({ ownParts }) => ({ ownParts: ownParts.filter((own) => own.id !== id) }));
</script>

<template>
  <section v-if="system" class="wide">
    <div class="row head">
      <h1>{{ head }}</h1>
      <span class="buttons">
        <button class="button" type="button" @click="saveCsv">Parts as CSV</button>
        <button class="button" type="button" @click="print">Print</button>
      </span>
    </div>
    <section class="sheet" aria-label="Flow drawing">
      <DrawingPicture :system="system" :lines="lines" :chosen="chosen" @choose="choose" />
      <div class="under">
        <div v-if="line" ref="lengthField" class="length">
          <QuantityField
            :key="line.id"
            :label="`Length of line ${line.letter}`"
            dimension="lengthMm"
            :low="10"
            :high="1000000"
            :units="system.units"
            :assumed="!line.measured"
            :model-value="line.lengthMm"
            @confirm="setLength(line.id, line.lengthMm)"
            @update:model-value="$event !== null && setLength(line.id, $event)"
          />
          <p class="small muted">{{ lineText }}</p>
        </div>
        <p v-else class="small muted hint">
          {{
            guessed > 0
              ? `A tilde marks ${guessed === 1 ? 'a length' : `${guessed} lengths`} nobody measured here: press it and type yours.`
              : 'Press a length to change it.'
          }}
        </p>
        <div class="row colours">
          <label v-for="one in LINES" :key="one.key"
            >{{ one.label
            }}<select :value="system.build.colours[one.key] ?? ''" @change="setColour(one.key, ($event.target as HTMLSelectElement).value)">
              <option value="">not set</option>
              <option v-for="colour in TUBE_COLOURS" :key="colour" :value="colour">{{ colour }}</option>
            </select></label
          >
          <span v-if="sameColours" class="small warn">Two kinds of water in one colour.</span>
        </div>
      </div>
    </section>
  </section>
  <main v-if="system" class="parts">
    <section class="sheet list" aria-label="Parts list">
      <table>
        <thead>
          <tr>
            <th scope="col">Part</th>
            <th scope="col" class="why">Why this many</th>
            <th scope="col" class="n">Count</th>
            <th scope="col" class="n">Each</th>
            <th scope="col" class="n">{{ currency }}</th>
          </tr>
        </thead>
        <tbody v-for="{ group, label, rows } in groups" :key="group">
          <tr class="group">
            <th scope="rowgroup" colspan="4">{{ label }}</th>
            <td class="n">{{ sum(rows) }}</td>
          </tr>
          <tr v-for="one in rows" :key="one.part">
            <th scope="row">
              {{ one.name }}
              <button v-if="one.own" class="link" type="button" :aria-label="`Take ${one.name} off the list`" @click="removeOwn(one.part)">
                take off
              </button>
            </th>
            <td class="why">{{ one.why }}</td>
            <td class="n count" data-label="Count">{{ countText(one) }}</td>
            <td class="n" data-label="Each">
              <PriceField :label="`Price of ${one.name}`" :model-value="one.price" @update:model-value="setPrice(one, $event)" />
            </td>
            <td class="n" :data-label="currency">{{ amount(one) }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <th scope="row" colspan="4">Parts, without spares</th>
            <td class="n">{{ total.parts.toFixed(2) }}</td>
          </tr>
          <tr>
            <th scope="row" colspan="3">Mark-up</th>
            <td class="n">
              <span class="mark"
                ><PriceField
                  label="Mark-up in per cent"
                  :most="500"
                  :model-value="100 * system.build.markUp"
                  @update:model-value="edit('mark-up', () => ({ markUp: ($event ?? 0) / 100 }))"
                />{{ THIN }}%</span
              >
            </td>
            <td class="n">{{ total.markUp.toFixed(2) }}</td>
          </tr>
          <tr class="total">
            <th scope="row" colspan="4">{{ total.unpriced > 0 ? 'Total, at least' : 'Total' }}</th>
            <td class="n">{{ total.total.toFixed(2) }}</td>
          </tr>
        </tfoot>
      </table>
      <OwnPart @add="addOwn" />
      <label class="currency"
        >Prices in<NameField class="plain-input" label="Currency" :maxlength="8" :model-value="currency" @update:model-value="setCurrency"
      /></label>
    </section>
  </main>
  <aside v-if="system" class="stack">
    <FindingCard
      v-if="total.unpriced > 0"
      :finding="{
        severity: 'mind',
        title: `${total.unpriced} ${total.unpriced === 1 ? 'part has' : 'parts have'} no price yet`,
        why: 'The total is without them. Type what one costs where “no price” stands; it is kept for this job.',
      }"
    />
    <FindingCard
      :finding="{
        severity: 'mind',
        title: `${atStart(stands!.text)}: ${HANGING_ROWS[hangs].card.title}`,
        why: `${HANGING_ROWS[hangs].card.why}, ${formatQuantity(1000 * stands!.wallM, 'lengthMm', system.units).text} wide. Leave ${formatQuantity(CARTRIDGE_CLEARANCE_MM, 'lengthMm', system.units).text} under the cartridges to take them out.`,
      }"
    />
    <FindingCard
      v-if="hasFloat"
      :finding="{
        severity: 'note',
        title: `One hole of ${FLOAT_HOLE_MM}\u202fmm for the float valve`,
        why: 'Above the full level, with room under the lid; that fits quarter-inch bulkheads.',
      }"
    />
    <section class="sheet card">
      <h3>Where it hangs</h3>
      <select :value="hangs" aria-label="Where it hangs" @change="setHangs(($event.target as HTMLSelectElement).value)">
        <option v-for="key in HANGINGS" :key="key" :value="key">{{ HANGING_ROWS[key].label }}</option>
      </select>
      <p class="small muted">
        {{ system.build.hangs === null ? 'As such systems usually do; its fixings and tools follow.' : 'Its fixings and tools follow.' }}
      </p>
    </section>
    <section class="sheet card">
      <h3>How the feed is taken</h3>
      <select :value="system.build.hookUp ?? ''" aria-label="Hook-up" @change="setHookUp(($event.target as HTMLSelectElement).value)">
        <option value="">not chosen yet</option>
        <option v-for="key in HOOK_UPS" :key="key" :value="key">{{ HOOK_UP_SETS[key].label }}</option>
      </select>
      <p class="small muted">
        {{ system.build.hookUp ? HOOK_UP_SETS[system.build.hookUp].says : 'Its pieces come onto the list.' }} Cold side only; local codes
        and licensed trades first.
      </p>
    </section>
    <section class="sheet card">
      <h3>Tools</h3>
      <p class="small">{{ toolsSays(system) }}</p>
    </section>
  </aside>
</template>

<!-- prettier-ignore -->
<style scoped>
.wide { grid-column: 1 / -1; display: grid; grid-template-columns: minmax(0, 1fr); gap: 12px; padding: 14px 20px 0; min-width: 0; }
.parts { display: grid; gap: 12px; align-content: start; }
.head { justify-content: space-between; align-items: center; gap: 10px 20px; }
h1 { font-size: 20px; }
.buttons { display: flex; gap: 8px; }
.under { display: flex; flex-wrap: wrap; gap: 8px 24px; justify-content: space-between; align-items: flex-start; padding: 10px 14px 12px; border-top: 1px solid var(--hair); }
.length { display: flex; gap: 14px; align-items: center; flex-wrap: wrap; }
.length .quantity { width: 210px; }
.hint { max-width: 420px; }
.colours { gap: 12px; align-items: flex-end; }
label { display: grid; gap: 3px; font-size: 13px; font-weight: 600; color: var(--muted); }
select { font: 450 14px var(--digits); padding: 7px 9px; border: 1px solid var(--line); border-radius: 8px; background: var(--paper); color: var(--ink); }
.warn { color: var(--warning); font-weight: 650; }
.list { padding: 4px 10px 12px; }
table { width: 100%; border-collapse: collapse; font-size: 14px; }
th, td { text-align: left; padding: 2px 8px; border-bottom: 1px solid var(--hair); font-weight: 450; vertical-align: baseline; }
thead th { color: var(--muted); font-weight: 650; font-size: 13px; }
.why { color: var(--muted); text-wrap: pretty; }
.n { text-align: right; font-variant-numeric: tabular-nums; white-space: nowrap; }
.group th, .group td { background: var(--side); font-weight: 700; }
.total th, .total td { font-weight: 760; font-size: 16px; }
.mark { white-space: nowrap; }
.currency { display: flex; align-items: center; gap: 8px; padding: 10px 8px 0; }
.currency .plain-input { width: 90px; }
.card { padding: 10px 14px 12px; display: grid; gap: 6px; }
.link { border: 0; background: transparent; color: var(--muted); font: inherit; font-size: 13px; text-decoration: underline; cursor: pointer; padding: 2px 4px; }
@media (max-width: 860px) {
  .wide { padding: 12px 12px 0; }
  table, tbody, thead, tfoot, tr, th, td { display: block; }
  thead { display: none; }
  tr { display: flex; flex-wrap: wrap; justify-content: space-between; border-bottom: 1px solid var(--hair); padding: 4px 0; }
  th, td { border: 0; padding: 3px 6px; }
  .group { background: var(--side); padding: 4px 0; }
  .group th, .group td { background: transparent; }
  tr th[scope='row'] { flex: 1 1 100%; }
  td.why { flex: 1 1 100%; padding-top: 0; font-size: 13.3px; }
  td[data-label]::before { content: attr(data-label) ' '; color: var(--muted); font-size: 13px; }
  tfoot tr th[scope='row'] { flex: 1 1 50%; }
  .buttons .button { min-height: 44px; }
}
/* A foot would stand on every sheet. */
@media print { tfoot { display: table-row-group; } .buttons, .under, aside, .link, .currency { display: none !important; } .sheet { border: 0; } input::placeholder { color: transparent; } }
</style>
