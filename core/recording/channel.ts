import { readingSchema, type Instrument, type Sensor, type System } from '../file';
import { boundsOf, type Dimension } from '../quantity';

/** What a meter on the air stands for in a system: a probe, or one of the figures a reading has. */
export type Figure = 'pressureBar' | 'temperatureC' | 'productLPerH' | 'wasteLPerH' | 'meterL';
export type Channel = Figure | `probe:${string}`;

/** What a figure is called, and in what it is measured. */
export const FIGURES: Readonly<Record<Figure, { readonly name: string; readonly dimension: Dimension }>> = {
  pressureBar: { name: 'Pressure', dimension: 'pressureBar' },
  temperatureC: { name: 'Temperature', dimension: 'temperatureC' },
  productLPerH: { name: 'Product flow', dimension: 'flowLPerH' },
  wasteLPerH: { name: 'Waste flow', dimension: 'flowLPerH' },
  meterL: { name: 'Meter total', dimension: 'volumeL' },
};

/** The figure a meter on the air stands for, where it is none of a probe. */
export const FIGURE_OF: Readonly<Record<Exclude<Sensor['reads'], 'probe'>, Figure>> = {
  temperature: 'temperatureC',
  pressure: 'pressureBar',
  product: 'productLPerH',
  waste: 'wasteLPerH',
  meter: 'meterL',
};

/** The channel a meter on the air is taken for; null where its probe is not there any more. */
export function channelOf({ train }: Pick<System, 'train'>, { reads, probeId }: Pick<Sensor, 'reads' | 'probeId'>): Channel | null {
  if (reads !== 'probe') return FIGURE_OF[reads];
  return train.probes.some(({ id }) => id === probeId) ? `probe:${probeId}` : null;
}

/** The probe of a channel; null of a figure. */
export const probeOf = (channel: Channel): string | null => (channel.startsWith('probe:') ? channel.slice('probe:'.length) : null);

/** The instrument at a channel's probe; null of a figure. */
export function instrumentAt({ train, instruments }: Pick<System, 'train' | 'instruments'>, channel: Channel): Instrument | null {
  const probe = train.probes.find(({ id }) => id === probeOf(channel));
  return instruments.find(({ id }) => id === probe?.instrumentId) ?? null;
}

/** The instruments that stand at the probes of channels, by probe: what a recording keeps of the day it was made. */
export function instrumentsAt(system: Pick<System, 'train' | 'instruments'>, channels: readonly Channel[]): Record<string, string> {
  return Object.fromEntries(
    channels.flatMap((channel) => {
      const [probe, instrument] = [probeOf(channel), instrumentAt(system, channel)];
      return probe !== null && instrument ? [[probe, instrument.id]] : [];
    }),
  );
}

const { values, ...figures } = readingSchema.shape;
const SHOWN = boundsOf(values.element.shape.shown);
/** What the model takes of each figure: looked up once, for it is asked of millions. */
const BOUNDS = new Map((Object.keys(FIGURES) as Figure[]).map((figure) => [figure as Channel, boundsOf(figures[figure])]));

/** Whether a figure can be what its channel says: the bounds that a typed reading has. */
export function canBe(channel: Channel, value: number): boolean {
  const { low = -Infinity, high = Infinity } = BOUNDS.get(channel) ?? SHOWN;
  return value >= low && value <= high;
}
