import { GAUGE_WORDS, type Gauge, type Place, type Probe, type System, type Train } from '@yes-clear/core/file';
import { METER_FORM_ROWS, type MeterForm } from '@yes-clear/core/template';
import { useNotice } from '../kit/useNotice';
import { idFor } from '../store/newId';
import type { OpenSystem } from '../system/openSystem';

/** What a probe is read by: a meter that is there, or a new one of a kind. */
export type MeterChoice = string | { readonly make: MeterForm };

/** One of a list a place up or down; at its ends it stays. */
function moved<T extends { readonly id: string }>(list: readonly T[], id: string, by: number): T[] {
  const from = list.findIndex((one) => one.id === id);
  const to = from + by;
  const next = [...list];
  if (from < 0 || to < 0 || to >= list.length) return next;
  [next[from], next[to]] = [next[to]!, next[from]!];
  return next;
}

/** Edits of probes, gauges and flow meters; each is one undoable step, and no reading is touched by any. */
export function useProbeEdits(current: OpenSystem): {
  readonly add: (place: Place, name: string, meter: MeterChoice) => void;
  readonly set: (id: string, changes: Partial<Pick<Probe, 'name' | keyof Place>>) => void;
  readonly setMeter: (id: string, meter: MeterChoice) => void;
  readonly remove: (id: string) => void;
  readonly move: (id: string, by: number) => void;
  readonly setMainGauge: (at: Train['gauge']) => void;
  readonly addGauge: (at: Gauge['at']) => void;
  readonly setGauge: (id: string, changes: Partial<Gauge>) => void;
  readonly removeGauge: (id: string) => void;
  readonly moveGauge: (id: string, by: number) => void;
} {
  const notice = useNotice();
  const train = (label: string, change: (train: Train) => Partial<Train>): void =>
    current.edit(label, (system) => ({ ...system, train: { ...system.train, ...change(system.train) } }));
  /** The meter chosen, made where it is new. */
  function withMeter(system: System, meter: MeterChoice): { readonly system: System; readonly instrumentId: string } {
    if (typeof meter === 'string') return { system, instrumentId: meter };
    const { label, make } = METER_FORM_ROWS[meter.make];
    const plain = label.split(',')[0]!;
    const same = system.instruments.filter(({ name }) => name.startsWith(plain)).length;
    const made = make(idFor('meter'), same > 0 ? `${plain} ${same + 1}` : plain);
    return { system: { ...system, instruments: [...system.instruments, made] }, instrumentId: made.id };
  }
  const probes = (system: System, change: (list: readonly Probe[]) => Probe[]): System => ({
    ...system,
    train: { ...system.train, probes: change(system.train.probes) },
  });
  return {
    add: ({ after, side, vessel }, name, meter) =>
      current.edit('probe placed', (before) => {
        const { system, instrumentId } = withMeter(before, meter);
        return probes(system, (list) => [...list, { id: idFor('probe'), name, after, side, vessel, instrumentId }]);
      }),
    set: (id, changes) =>
      current.edit(`probe ${id} ${Object.keys(changes)[0]}`, (system) =>
        probes(system, (list) => list.map((one) => (one.id === id ? { ...one, ...changes } : one))),
      ),
    setMeter: (id, meter) =>
      current.edit('meter of a probe', (before) => {
        const { system, instrumentId } = withMeter(before, meter);
        return probes(system, (list) => list.map((one) => (one.id === id ? { ...one, instrumentId } : one)));
      }),
    remove: (id) => {
      train('probe removed', ({ probes: list }) => ({ probes: list.filter((one) => one.id !== id) }));
      notice.say('Probe removed; what it read stays in the log. Ctrl+Z brings it back.');
    },
    move: (id, by) => train('order of the probes', ({ probes: list }) => ({ probes: moved(list, id, by) })),
    setMainGauge: (gauge) => train('place of the gauge', () => ({ gauge })),
    addGauge: (at) =>
      train('gauge placed', ({ gauges }) => {
        const same = gauges.filter((one) => one.at === at).length;
        return { gauges: [...gauges, { id: idFor('gauge'), name: same > 0 ? `${GAUGE_WORDS[at]} ${same + 1}` : GAUGE_WORDS[at], at }] };
      }),
    setGauge: (id, changes) =>
      train(`gauge ${id}`, ({ gauges }) => ({ gauges: gauges.map((one) => (one.id === id ? { ...one, ...changes } : one)) })),
    removeGauge: (id) => {
      train('gauge removed', ({ gauges }) => ({ gauges: gauges.filter((one) => one.id !== id) }));
      notice.say('Gauge removed; what it read stays in the log. Ctrl+Z brings it back.');
    },
    moveGauge: (id, by) => train('order of the gauges', ({ gauges }) => ({ gauges: moved(gauges, id, by) })),
  };
}
