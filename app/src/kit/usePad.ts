import { furtherGauges, type System } from '@yes-clear/core/file';
import { shownUnitOf, type QuickLine } from '@yes-clear/core/log';
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';

/** One figure of a reading on the pad. */
export interface PadField {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
}

/** The figures of a reading as fields for a thumb: each writes its piece of the one line that is read. */
export function usePad(
  system: () => System | null,
  text: Ref<string>,
  parsed: ComputedRef<QuickLine | null>,
): {
  readonly fields: ComputedRef<readonly PadField[]>;
  readonly at: Ref<string>;
  readonly values: Ref<Record<string, string>>;
  readonly press: (key: string) => void;
  readonly next: () => void;
  readonly setDay: (day: string) => void;
  readonly startOn: (day: string) => void;
} {
  const jug = computed(() => (system()?.units.volume === 'gal' ? 'cup' : 'ml'));
  const fields = computed((): PadField[] => {
    const current = system();
    if (!current) return [];
    const { units, train, instruments } = current;
    const probes = train.probes.map((probe) => {
      const instrument = instruments.find(({ id }) => id === probe.instrumentId);
      return { key: probe.id, label: probe.name, unit: instrument ? shownUnitOf(instrument) : '' };
    });
    const hasMembrane = train.stages.some(({ kind }) => kind === 'membrane');
    return [
      ...probes,
      { key: 'pressure', label: 'Pressure', unit: units.pressure },
      ...furtherGauges(train, false).map(({ id, name }) => ({ key: `gauge:${id}`, label: name, unit: units.pressure })),
      { key: 'temperature', label: 'Water', unit: units.temperature },
      ...(hasMembrane
        ? [
            { key: 'product', label: 'Product', unit: `${jug.value === 'ml' ? 'mL' : 'cups'}/min` },
            { key: 'waste', label: 'Waste', unit: `${jug.value === 'ml' ? 'mL' : 'cups'}/min` },
          ]
        : []),
      ...furtherGauges(train, true).map(({ id, name }) => ({ key: `gauge:${id}`, label: name, unit: 'L/h' })),
      { key: 'meter', label: 'Meter', unit: units.volume },
    ];
  });
  const at = ref('');
  const values = ref<Record<string, string>>({});
  let written = '';
  watch(
    fields,
    (list) => {
      if (!list.some(({ key }) => key === at.value)) at.value = list[0]?.key ?? '';
    },
    { immediate: true },
  );

  /** The pieces of a line that somebody typed, each in its field. */
  function readBack(): void {
    const line = parsed.value;
    if (!line || text.value === written) return;
    const found: Record<string, string> = {};
    for (const token of line.tokens) {
      if (token.kind === 'when') found['when'] = token.text;
      if (token.kind === 'probe') found[fields.value[token.probe ?? 0]?.key ?? ''] = bare(token.text);
      if (token.kind === 'gauge') found[`gauge:${token.gauge}`] = bare(token.text);
      if (token.kind === 'pressure' || token.kind === 'temperature' || token.kind === 'meter') found[token.kind] = bare(token.text);
      if (token.kind === 'flows') {
        const [product = '', waste = ''] = token.text.split('/');
        found['product'] = bare(product);
        found['waste'] = bare(waste);
      }
      if (token.kind === 'note') found['note'] = `${found['note'] ?? ''} ${token.text}`.trim();
    }
    values.value = found;
  }
  const bare = (piece: string): string => /[\d.,]+/.exec(piece)?.[0] ?? '';
  watch([text, parsed], readBack, { immediate: true });

  function compose(): string {
    const v = (key: string): string => values.value[key] ?? '';
    const probes = system()?.train.probes ?? [];
    const last = probes.findLastIndex(({ id }) => v(id) !== '');
    const { pressure, temperature, volume } = system()!.units;
    const flows = v('product') === '' && v('waste') === '' ? '' : `${v('product') || '-'}/${v('waste') || '-'}${jug.value}`;
    // What is passed over holds its place where a later one is filled.
    const further = (flow: boolean, unit: string): string[] => {
      const own = furtherGauges(system()!.train, flow).map(({ id }) => v(`gauge:${id}`));
      return own.slice(0, own.findLastIndex((value) => value !== '') + 1).map((value) => (value || '-') + unit);
    };
    const pressures = further(false, pressure);
    const meters = further(true, 'L/h');
    return [
      v('when'),
      ...probes.slice(0, last + 1).map(({ id }) => v(id) || '-'),
      v('pressure') ? v('pressure') + pressure : pressures.length > 0 ? `-${pressure}` : '',
      ...pressures,
      v('temperature') && v('temperature') + temperature.replace('°', ''),
      flows || (meters.length > 0 ? '-L/h -L/h' : ''),
      ...meters,
      v('meter') && v('meter') + volume,
      v('note'),
    ]
      .filter((piece) => piece !== '')
      .join(' ');
  }
  function write(): void {
    written = compose();
    text.value = written;
  }
  function press(key: string): void {
    const now = values.value[at.value] ?? '';
    values.value = { ...values.value, [at.value]: key === '⌫' ? now.slice(0, -1) : now + key };
    write();
  }
  function next(): void {
    const i = fields.value.findIndex(({ key }) => key === at.value);
    at.value = fields.value[(i + 1) % fields.value.length]?.key ?? '';
  }
  function setDay(day: string): void {
    values.value = { ...values.value, when: day };
    write();
  }
  /** An empty pad, for a reading of a day. */
  function startOn(day: string): void {
    values.value = day === '' ? {} : { when: day };
    at.value = fields.value[0]?.key ?? '';
    write();
  }
  return { fields, at, values, press, next, setDay, startOn };
}
