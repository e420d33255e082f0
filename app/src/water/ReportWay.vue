<script setup lang="ts">
import { LONGEST_REPORT_TEXT, readReport, supplyText, type ReportRow, type SupplyZone } from '@yes-clear/core/report';
import { mdiFileOutline, mdiWaterPump } from '@mdi/js';
import { useFileDialog } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import AppIcon from '../kit/AppIcon.vue';
import FindingCard from '../kit/FindingCard.vue';
import { supplyReport, supplyZones } from '../store/supply';
import ReportPreview from './ReportPreview.vue';
import { useSample } from './useSample';

/** A report pasted, loaded or fetched; every row is shown with what it was taken for before any of it counts. */
const { sample, setReport, takeReport } = useSample();
const column = ref<number | null>(null);
const refused = ref<string | null>(null);
const told = ref<string | null>(null);
const left = ref<ReadonlySet<number>>(new Set());

const text = computed(() => sample.value?.report.text ?? '');
const title = ref('');
const read = computed(() => (text.value.trim() === '' ? null : readReport(text.value, column.value)));
const report = computed(() => (read.value?.ok ? read.value.value : null));
const problem = computed(
  () => refused.value ?? (read.value && !read.value.ok ? read.value.error.message : null) ?? report.value?.foreign ?? null,
);
const chosen = computed(
  () => report.value?.rows.filter((row): row is ReportRow & { value: object } => row.value !== null && !left.value.has(row.line)) ?? [],
);
/** Whether what counts is what stands here. */
const inUse = computed(() => JSON.stringify(chosen.value.map((row) => row.value)) === JSON.stringify(sample.value?.report.values ?? []));
watch(
  () => sample.value?.id,
  () => {
    refused.value = null;
    told.value = null;
    left.value = new Set();
    column.value = null;
  },
);

/** Takes a text as the report's; one too long for any report is refused and what stood there stays. */
function setText(next: string, name = ''): boolean {
  refused.value = null;
  told.value = null;
  if (next.length > LONGEST_REPORT_TEXT) {
    const outcome = readReport(next);
    refused.value = outcome.ok ? null : outcome.error.message;
    return false;
  }
  left.value = new Set();
  column.value = null;
  title.value = name;
  setReport('report text', { text: next });
  return true;
}
/** A paste is measured before the page has to lay it out. */
function pasted(event: ClipboardEvent): void {
  const clip = event.clipboardData?.getData('text/plain') ?? '';
  if (clip.length > LONGEST_REPORT_TEXT) {
    event.preventDefault();
    setText(clip);
  }
}
const { open: openFile, onChange } = useFileDialog({ accept: '.csv,.txt,.tsv,text/plain,text/csv', multiple: false, reset: true });
onChange(async (files) => {
  const file = files?.[0];
  if (!file) return;
  if (file.size > 20 * LONGEST_REPORT_TEXT) setText('x'.repeat(file.size > 5e7 ? 5e7 : file.size));
  else if (setText(await file.text(), file.name)) told.value = `${file.name} is read; look it over, then take it.`;
});

const zones = ref<readonly SupplyZone[]>([]);
const askingZones = ref(false);
async function askZones(): Promise<void> {
  askingZones.value = true;
  const list = await supplyZones();
  zones.value = list.zones;
  askingZones.value = false;
  if (list.offline === null) refused.value = null;
  else if (list.zones.length === 0)
    refused.value = `The supplier cannot be reached: ${list.offline}. Nothing was kept from earlier; paste the report instead.`;
  else
    told.value = `The supplier cannot be reached: ${list.offline}. ${list.zones.length} ${list.zones.length === 1 ? 'zone is' : 'zones are'} kept from earlier.`;
}
async function fetchZone(zone: string): Promise<void> {
  const outcome = await supplyReport(zone);
  if (!outcome.ok) {
    refused.value = outcome.message;
    return;
  }
  const { report: fetched, keptFrom } = outcome;
  setText(supplyText(fetched), `${fetched.name}, ${fetched.period.from} to ${fetched.period.to}`);
  told.value =
    keptFrom === null
      ? `${fetched.name}: fetched and kept for where there is no signal.`
      : `${fetched.name}: as kept on ${keptFrom.slice(0, 10)}.`;
}
function toggle(line: number): void {
  const next = new Set(left.value);
  if (!next.delete(line)) next.add(line);
  left.value = next;
}
function take(): void {
  takeReport(
    title.value || sample.value?.report.title || 'Report',
    chosen.value.map((row) => row.value!),
  );
  told.value = null;
}
const sourceTitle = computed(() => sample.value?.report.title ?? '');
</script>

<template>
  <div v-if="sample" class="report">
    <div class="row">
      <button class="button" type="button" @click="openFile()"><AppIcon :path="mdiFileOutline" />Load a file</button>
      <button v-if="zones.length === 0" class="button" type="button" :disabled="askingZones" @click="askZones">
        <AppIcon :path="mdiWaterPump" />{{ askingZones ? 'Asking…' : 'Ask the supplier' }}
      </button>
      <v-select
        v-else
        class="zones"
        :items="zones"
        item-value="zone"
        item-title="name"
        label="Zone"
        aria-label="Zone"
        @update:model-value="fetchZone"
      />
      <p class="muted small">CSV, a table copied from a page, or the text of a PDF. Nothing counts until you take it.</p>
    </div>
    <label class="labelled"
      ><span>Report</span
      ><textarea
        class="plain-input text"
        :value="text"
        rows="6"
        spellcheck="false"
        :maxlength="LONGEST_REPORT_TEXT"
        placeholder="Paste the table here, for example&#10;Calcium        mg/l   55&#10;Nitrate as N   mg/l   2.7"
        :aria-invalid="problem ? 'true' : 'false'"
        @paste="pasted"
        @input="setText(($event.target as HTMLTextAreaElement).value)"
      />
    </label>
    <p v-if="told" class="told" role="status">{{ told }}</p>
    <FindingCard v-if="problem" :finding="{ severity: 'bad', title: 'This is not taken', why: problem }" data-testid="report-error" />
    <template v-if="report && report.rows.length > 0">
      <ReportPreview :report="report" :left="left" :in-use="inUse" @toggle="toggle" @column="column = $event" />
      <div class="row take">
        <p v-if="inUse" class="muted">In use{{ sourceTitle ? `: ${sourceTitle}` : '' }}, {{ chosen.length }} figures.</p>
        <button v-else class="button primary" type="button" :disabled="chosen.length === 0 || report.foreign !== null" @click="take">
          Take {{ chosen.length === 1 ? 'this figure' : `these ${chosen.length} figures` }}
        </button>
      </div>
    </template>
  </div>
</template>

<!-- prettier-ignore -->
<style scoped>
.report { display: grid; gap: 12px; grid-column: 1 / -1; }
.text { font: 500 13.6px/1.5 var(--typed); resize: vertical; min-height: 120px; white-space: pre; overflow: auto; tab-size: 18; }
.zones { flex: 0 1 300px; }
.told { font-size: 13.6px; color: var(--good); font-weight: 600; }
.take { justify-content: flex-end; }
</style>
