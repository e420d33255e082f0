import type { Sensor, System } from '../file';
import { canRead } from './senml';

/** Which meter on the air likely stands where, by its name and unit: proposed to a person, never taken by itself. */

/** Words of names as gateways write them (common practice), by what they stand for. */
const WORDS: Readonly<Record<Exclude<Sensor['reads'], 'probe'>, RegExp>> = {
  temperature: /\b(temp|temperature|t)\b/,
  pressure: /\b(pressure|press|bar|line|inlet|feed|p)\b/,
  product: /\b(product|permeate|produced)\b/,
  waste: /\b(waste|concentrate|brine|drain|reject)\b/,
  meter: /\b(total|totaliser|totalizer|volume|meter|litres|liters)\b/,
};
/** Words of the places probes stand at; the more a name has of them, the likelier. */
const PLACES: readonly (readonly [at: RegExp, names: RegExp])[] = [
  [/\b(tap|source|mains)\b/, /\b(tap|feed|inlet|raw|mains|source|supply)\b/],
  [/\bmembrane\b/, /\b(membrane|ro|permeate)\b/],
  [/\b(resin|bed|di)\b/, /\b(resin|di|deionised|deionized|product|outlet|mixed)\b/],
  [/\b(tank|loop|return)\b/, /\b(tank|loop|return)\b/],
];

/** A name as words: rig:afterMembrane_2 is rig after membrane 2. */
const wordsOf = (text: string): string =>
  text
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[^A-Za-z0-9]+/g, ' ')
    .toLowerCase();

interface OnAir {
  readonly name: string;
  readonly title: string;
  readonly unit: string;
}

interface Candidate extends Pick<Sensor, 'reads' | 'probeId'> {
  readonly meter: OnAir;
  readonly score: number;
}

/** How well a meter's name goes with a probe's: shared words, and words of the same place. */
function likeness(meter: string, probe: string): number {
  const own = probe.split(' ').filter((word) => word.length > 1 && word !== 'after');
  const shared = own.filter((word) => meter.split(' ').includes(word)).length;
  const places = PLACES.filter(([at, names]) => at.test(probe) && names.test(meter)).length;
  return 2 * shared + places;
}

/** Proposals by name of the meter: what it would stand for. Only where one place fits better than any other, and each place once. */
export function proposedPairs(
  { train }: Pick<System, 'train'>,
  onAir: readonly OnAir[],
): ReadonlyMap<string, Pick<Sensor, 'reads' | 'probeId'>> {
  const taken = new Set<string>();
  const proposals = new Map<string, Pick<Sensor, 'reads' | 'probeId'>>();
  const ranked = onAir
    .flatMap((meter) => {
      const words = wordsOf(`${meter.name} ${meter.title}`);
      return canRead(meter.unit).flatMap((reads): Candidate[] => {
        if (reads !== 'probe') {
          // A temperature or a pressure says by its unit what it is; of a flow alone it is the product's most likely.
          const byUnit = reads === 'temperature' || reads === 'pressure' || reads === 'product' ? 1 : 0;
          return [{ meter, reads, probeId: null, score: byUnit + (WORDS[reads].test(words) ? 2 : 0) }];
        }
        return train.probes.map(({ id, name }) => ({ meter, reads, probeId: id, score: likeness(words, wordsOf(name)) }));
      });
    })
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score);
  for (const one of ranked) {
    const place = one.probeId ?? one.reads;
    if (taken.has(place) || proposals.has(one.meter.name)) continue;
    const rivals = ranked.filter((other) => other.score === one.score && other !== one);
    const isDoubtful = rivals.some(
      (other) =>
        (other.meter === one.meter && !taken.has(other.probeId ?? other.reads)) ||
        ((other.probeId ?? other.reads) === place && !proposals.has(other.meter.name)),
    );
    if (isDoubtful) continue;
    taken.add(place);
    proposals.set(one.meter.name, { reads: one.reads, probeId: one.probeId });
  }
  return proposals;
}
