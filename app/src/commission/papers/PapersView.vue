<script setup lang="ts">
import { paperOf, PAPER_KEYS, PAPER_LABELS, tubeLines, type PaperKey } from '@yes-clear/core/commission';
import { reportTrain, trainSentence } from '@yes-clear/core/advice';
import { useLocalStorage } from '@vueuse/core';
import { renderSVG } from 'uqr';
import { computed, nextTick, ref, shallowRef, toRaw, useTemplateRef, watch } from 'vue';
import DescentPicture from '../../descent/DescentPicture.vue';
import { descentInput } from '../../descent/descentInput';
import FindingCard from '../../kit/FindingCard.vue';
import NameField from '../../kit/NameField.vue';
import Segments from '../../kit/Segments.vue';
import { useNotice } from '../../kit/useNotice';
import { download, plainName } from '../../store/download';
import { fileFormat } from '../../store/fileFormat';
import { useOpenSystem } from '../../system/openSystem';
import { askBeside } from '../../worker/client';
import { useRoute } from 'vue-router';
import { flowDrawing } from '../parts/drawing/picture';
import { svgText } from '../parts/drawing/svgNode';
import { inlined } from './inlined';
import SystemLink from './SystemLink.vue';

/** The papers of a system, made in this browser; and the link that carries it. */
const current = useOpenSystem();
const { system } = current;
const notice = useNotice();
/** Who issues papers is of this workshop, not of a system; whom they are for is of the system, and stays in this browser. */
const workshop = useLocalStorage('yes-clear-workshop', '');
const customer = useLocalStorage(`yes-clear-customer-${current.id}`, '');
const size = useLocalStorage<'A4' | 'LETTER'>('yes-clear-paper', 'A4');
const SIZES = [
  { value: 'A4', title: 'A4' },
  { value: 'LETTER', title: 'Letter' },
] as const;

/** What the offer carries besides; a page that sends one here asks for its own. */
const asked = String(useRoute().query['with'] ?? '').split(',');
const withYear = ref(asked.includes('year'));
const withOptions = ref(asked.includes('options'));

/** An offer is of the system when new; its resin and filters have seen nothing. */
const fresh = computed(() => {
  const water = current.water.value;
  if (!system.value || !water?.ok) return null;
  const report = reportTrain(system.value, water.value.water, {}, undefined, water.value);
  return report.ok ? report.value : null;
});
const input = computed(() => (system.value && fresh.value ? descentInput(system.value, fresh.value, [], null) : null));
const descent = useTemplateRef<HTMLElement>('descent');

/** The address that carries the system, made by the file format's own part. */
const link = ref('');
watch(
  system,
  async (now) => {
    if (!now) return;
    const format = await fileFormat().catch(() => null);
    link.value = format ? `${location.origin}/open#${format.linkText(now, now.updatedAt)}` : '';
  },
  { immediate: true },
);
/** Most bytes a code holds (ISO/IEC 18004, version 40-L). */
const QR_BYTES = 2953;
const qrSvg = computed(() => (link.value === '' || link.value.length > QR_BYTES ? null : renderSVG(link.value, { ecc: 'L', border: 4 })));

const busy = ref<PaperKey | null>(null);
const trouble = shallowRef<string | null>(null);
async function make(key: PaperKey): Promise<void> {
  const [now, report] = [system.value, fresh.value];
  if (!now || !report) return;
  busy.value = key;
  trouble.value = null;
  try {
    await nextTick();
    const pictures = [...(descent.value?.querySelectorAll('svg') ?? [])];
    const lines = tubeLines(now, report.solved);
    const flow = flowDrawing(now, lines);
    const on = new Date().toISOString().slice(0, 10);
    const paper = paperOf(key, now, report, { workshop: workshop.value.trim(), customer: customer.value.trim() }, on);
    const more =
      key === 'offer' && (withYear.value || withOptions.value)
        ? await askBeside('offerPages', { system: toRaw(now), nowMs: Date.now(), year: withYear.value, options: withOptions.value })
        : null;
    if (more && !more.ok) throw new Error(more.error.message);
    // Signatures stay last.
    const at = paper.blocks.findIndex(({ kind }) => kind === 'signatures');
    const blocks = more?.ok ? paper.blocks.toSpliced(at < 0 ? paper.blocks.length : at, 0, ...more.value) : paper.blocks;
    const { makePdf } = await import('./makePdf');
    const blob = await makePdf(
      { ...paper, blocks },
      {
        size: size.value,
        pictures: {
          descent: pictures.length > 0 ? inlined(pictures) : null,
          drawing: { svg: svgText(flow.svg), width: flow.drawing.w, height: flow.drawing.h },
        },
        qrSvg: qrSvg.value,
        foot: `${now.name}, ${now.site} · ${paper.name} · ${on}${workshop.value.trim() === '' ? '' : ` · ${workshop.value.trim()}`}`,
      },
    );
    download(`${plainName(`${now.site} ${now.name} ${paper.name}`)}.pdf`, blob);
    notice.say(`${paper.name} saved as PDF.`);
  } catch (failure) {
    trouble.value = `The paper could not be made (${failure instanceof Error ? failure.message : String(failure)}). What is entered is kept; try again.`;
  } finally {
    busy.value = null;
  }
}
</script>

<template>
  <main v-if="system" class="papers">
    <h1>Papers of this system</h1>
    <div class="who">
      <label
        >From, your workshop<NameField v-model="workshop" class="plain-input" label="From, your workshop" :maxlength="80" may-be-empty
      /></label>
      <label
        >For, the customer<NameField v-model="customer" class="plain-input" label="For, the customer" :maxlength="80" may-be-empty
      /></label>
      <div class="size"><span>Paper</span><Segments v-model="size" label="Paper" :choices="SIZES" /></div>
    </div>
    <FindingCard
      v-if="current.error.value"
      :finding="{ severity: 'mind', title: 'No paper can be made yet', why: current.error.value.message }"
    />
    <FindingCard v-if="trouble" :finding="{ severity: 'bad', title: 'No paper was made', why: trouble }" />
    <ul class="list">
      <li v-for="key in PAPER_KEYS" :key="key" class="sheet">
        <div>
          <h3>{{ PAPER_LABELS[key].name }}</h3>
          <p class="small">{{ PAPER_LABELS[key].says }}</p>
          <p v-if="key === 'offer'" class="more small">
            <label><input v-model="withYear" type="checkbox" /> with the year ahead</label>
            <label><input v-model="withOptions" type="checkbox" /> with what it was chosen among</label>
          </p>
        </div>
        <button class="button" :class="{ primary: key === 'offer' }" type="button" :disabled="busy !== null || !fresh" @click="make(key)">
          {{ busy === key ? 'Making it…' : `${PAPER_LABELS[key].name} as PDF` }}
        </button>
      </li>
    </ul>
    <p class="small muted">Made in this browser, nothing is sent anywhere. Names of workshop and customer stay here and on the paper.</p>
    <div v-if="input" ref="descent" class="away" aria-hidden="true" inert>
      <DescentPicture :input="input" size="large" :sentence="trainSentence(fresh!.solved, system.units)" :column-width="96" />
    </div>
  </main>
  <aside class="stack">
    <SystemLink :link="link" :qr-svg="qrSvg" />
  </aside>
</template>

<!-- prettier-ignore -->
<style scoped>
.papers { display: grid; gap: 14px; align-content: start; max-width: 860px; }
h1 { font-size: 20px; }
.who { display: flex; flex-wrap: wrap; gap: 12px 18px; align-items: flex-end; }
.who label { display: grid; gap: 4px; font-size: 13px; font-weight: 600; color: var(--muted); flex: 1 1 220px; }
.size { display: grid; gap: 4px; font-size: 13px; font-weight: 600; color: var(--muted); }
.list { list-style: none; margin: 0; padding: 0; display: grid; gap: 10px; }
.list li { display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; justify-content: space-between; padding: 12px 16px; }
.list li > div { flex: 1 1 320px; }
/* Large enough for a thumb. */
.more { display: flex; flex-wrap: wrap; gap: 0 18px; }
.more label { display: flex; gap: 7px; align-items: center; min-height: 34px; }
.list .button { min-width: 220px; justify-content: center; min-height: 44px; }
/* Drawn for the papers, seen only there. */
.away { position: absolute; left: -6000px; top: 0; width: 1100px; background: #fffdf8; }
@media (max-width: 860px) { .list .button { flex: 1 1 100%; min-height: 48px; } }
</style>
