<script setup lang="ts">
import { samplePorts, withPortReading, type SamplePort } from '@yes-clear/core/advice';
import { THIN, words } from '@yes-clear/core/quantity';
import { computed } from 'vue';
import FindingCard from '../../../kit/FindingCard.vue';
import QuantityField from '../../../kit/QuantityField.vue';
import { useOpenSystem } from '../../../system/openSystem';

/** A row for the product port of each vessel: what it should read, what it did read, and which is out of line. */
const current = useOpenSystem();
const units = computed(() => current.units.value);
const say = computed(() => words(units.value));
const ports = computed(() =>
  current.system.value && current.solved.value ? samplePorts(current.system.value, current.solved.value.report.solved) : [],
);
const odd = computed(() => ports.value.filter(({ verdict }) => verdict === 'high'));
const readCount = computed(() => ports.value.filter(({ read }) => read !== null).length);
const VERDICTS: Readonly<Record<SamplePort['verdict'], string>> = {
  unread: '',
  fits: 'fits',
  high: 'too high',
  low: 'lower than the others',
};
function set({ stageId, rank, vessel }: SamplePort, ec25UScm: number | null): void {
  if (ec25UScm === null) return;
  current.edit(`port ${rank} ${vessel}`, (system) =>
    withPortReading(system, { stageId, rank, vessel, ec25UScm, at: new Date().toISOString() }),
  );
}
</script>

<template>
  <section v-if="ports.length > 0" class="ports" aria-label="Sample ports">
    <p class="muted small">
      One meter, port after port, the unit running steadily for half an hour. Expected is by today's water, pressure and temperature.
    </p>
    <table>
      <thead>
        <tr>
          <th scope="col">Product port of</th>
          <th scope="col">Expected</th>
          <th scope="col">Read</th>
          <th scope="col">Beside the others</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="port in ports" :key="port.name" :class="port.verdict">
          <th scope="row">{{ port.name }}</th>
          <td>{{ say.water(port.expectedUScm) }}</td>
          <td>
            <QuantityField
              class="bare"
              :label="`${port.name} reads`"
              look="column"
              dimension="conductivityUScm"
              optional
              empty="not read"
              :high="200000"
              :units="units"
              :model-value="port.read?.ec25UScm ?? null"
              @update:model-value="set(port, $event)"
            />
          </td>
          <td class="verdict">{{ port.against === null ? '–' : `${port.against.toFixed(1)}${THIN}×, ${VERDICTS[port.verdict]}` }}</td>
        </tr>
      </tbody>
    </table>
    <FindingCard
      v-if="odd.length > 0"
      :finding="{
        severity: 'mind',
        title: `${odd.map(({ name }) => name).join(' and ')}: out of line`,
        why: 'An O-ring of its connector first, the element after it: probe along its product tube, and change places with a neighbour to see what moves with it.',
      }"
    />
    <FindingCard
      v-else-if="readCount === ports.length"
      :finding="{
        severity: 'good',
        title: 'All ports read alike',
        why: 'What the product lacks is common to all: the water, the age, or the pressure.',
      }"
    />
  </section>
</template>

<!-- prettier-ignore -->
<style scoped>
.bare :deep(label) { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
.bare :deep(.box) { max-width: 150px; }
.ports { display: grid; gap: 10px; }
table { border-collapse: collapse; width: 100%; max-width: 720px; font-size: 14.3px; }
th, td { text-align: left; padding: 5px 10px 5px 0; border-top: 1px solid var(--hair); font-weight: 450; }
thead th { color: var(--muted); font-size: 13px; border-top: 0; }
tbody th { font-weight: 650; }
.high .verdict { color: var(--warning); font-weight: 700; }
.fits .verdict { color: var(--good); }
</style>
