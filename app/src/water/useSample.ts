import { idFor } from '../store/newId';
import {
  confirmed,
  currentSample,
  emptySample,
  withSample,
  type Assumable,
  type Kit,
  type Sample,
  type Source,
} from '@yes-clear/core/file';
import type { ReportValue } from '@yes-clear/core/report';
import { CHARACTER_ROWS, CHARACTERS } from '@yes-clear/core/water';
import { computed } from 'vue';
import { useOpenSystem } from '../system/openSystem';

/** The kinds of supply as a list offers them. */
export const CHARACTER_CHOICES = CHARACTERS.map((key) => ({
  title: CHARACTER_ROWS[key].label,
  value: key,
  props: { subtitle: CHARACTER_ROWS[key].says },
}));

/** The sample being looked at, and the ways to change it. */
export function useSample() {
  const current = useOpenSystem();
  const source = computed(() => current.system.value?.source ?? null);
  const sample = computed(() => (source.value ? currentSample(source.value) : null));

  const setSource = (label: string, changes: Partial<Source>): void =>
    current.edit(label, (system) => ({ ...system, source: { ...system.source, ...changes } }));
  const set = (label: string, changes: Partial<Sample>): void =>
    current.edit(label, (system) => ({ ...system, source: withSample(system.source, changes) }));
  const setKit = (label: string, changes: Partial<Kit>): void =>
    current.edit(label, (system) => {
      const { kit } = currentSample(system.source);
      return { ...system, source: withSample(system.source, { kit: { ...kit, ...changes } }) };
    });
  const setReport = (label: string, changes: Partial<Sample['report']>): void =>
    current.edit(label, (system) => {
      const { report } = currentSample(system.source);
      return { ...system, source: withSample(system.source, { report: { ...report, ...changes } }) };
    });
  /** Takes figures of a report; a temperature in it becomes the sample's. */
  function takeReport(title: string, values: readonly ReportValue[]): void {
    const temperature = values.find((value) => value.quantity === 'temperatureC');
    current.edit('report taken', (system) => {
      const { report, temperatureC } = currentSample(system.source);
      return {
        ...system,
        source: withSample(system.source, {
          way: 'report',
          report: { ...report, title: title.slice(0, 200), values: [...values] },
          temperatureC: temperature?.value ?? temperatureC,
        }),
      };
    });
  }
  /** A new dated sample like the present one, empty of figures, and the one to plan with from now on. */
  function add(): void {
    const day = current.now.value.slice(0, 10);
    current.edit('new sample', (system) => {
      const { source: old } = system;
      const id = idFor('sample');
      const next = { ...emptySample(id, day, currentSample(old)), reading: currentSample(old).reading };
      return { ...system, source: { ...old, samples: [...old.samples, next], sampleId: id } };
    });
  }
  function remove(): void {
    current.edit('sample removed', (system) => {
      const { source: old } = system;
      const rest = old.samples.filter((candidate) => candidate.id !== old.sampleId);
      const last = rest.at(-1);
      return last ? { ...system, source: { ...old, samples: rest, sampleId: last.id } } : system;
    });
  }
  const isAssumed = (mark: Assumable): boolean => source.value?.assumed.includes(mark) ?? false;
  const confirm = (mark: Assumable): void => current.edit('figure confirmed', (system) => confirmed(system, mark));
  return { current, source, sample, isAssumed, confirm, set, setSource, setKit, setReport, takeReport, add, remove };
}

/** A field that must hold a number keeps the last one while it is empty. */
export const needed = (write: (value: number) => void) => (value: number | null) => {
  if (value !== null) write(value);
};
