import { inSentence, atStart } from '../quantity';
import { kindOf, unitRanks, type Stage } from '../stage';
import { behind, isSamePlace, type Place } from './place';
import type { Gauge, Probe, Reading, Train } from './schema';
import { feedPump, lastTank } from './select';

export interface NamedPlace extends Place {
  /** What to call it, and a probe that stands there. */
  readonly label: string;
}

/** What a vessel of an array is called: its rank only where there are several. */
export function vesselName(ranks: readonly { readonly vessels: number }[], rank: number, vessel: number): string {
  const several = (ranks[rank]?.vessels ?? 1) > 1;
  if (ranks.length === 1) return `Vessel ${vessel + 1}`;
  return several ? `Rank ${rank + 1}, vessel ${vessel + 1}` : `Vessel ${rank + 1}`;
}

/** The places of one stage: behind it, and for a membrane its feed, its vessels and its waste. */
function placesOf(stage: Stage, recycled: boolean): NamedPlace[] {
  const name = inSentence(stage.name);
  const out: NamedPlace = { ...behind(stage.id), label: `After ${name}` };
  if (stage.kind !== 'membrane') return [out];
  const ranks = unitRanks(stage);
  const vessels =
    ranks.length > 1 || (ranks[0]?.vessels ?? 1) > 1
      ? ranks.flatMap(({ vessels: count }, rank) =>
          Array.from({ length: count }, (_, vessel): NamedPlace => ({
            after: stage.id,
            side: 'out',
            vessel: { rank, vessel },
            label: `${vesselName(ranks, rank, vessel)} of ${name}`,
          })),
        )
      : [];
  return [
    ...(recycled ? [{ after: stage.id, side: 'feed', vessel: null, label: `Feed of ${name}, recycle mixed in` } as const] : []),
    ...vessels,
    out,
    { after: stage.id, side: 'waste', vessel: null, label: `Waste of ${name}` },
  ];
}

/** Every place of a train where a probe can stand, in the order of the water. */
export function probePlaces({ stages, branches, loop }: Pick<Train, 'stages' | 'branches' | 'loop'>): NamedPlace[] {
  const tank = lastTank(stages);
  return [
    { ...behind('tap'), label: 'Tap' },
    ...stages.flatMap((stage) => placesOf(stage, stage.kind === 'membrane' && stage.recycleLPerH > 0)),
    ...(loop && tank ? [{ after: tank.id, side: 'return', vessel: null, label: 'Loop, coming back' } as const] : []),
    ...branches.flatMap((branch) =>
      branch.stages.map((stage): NamedPlace => ({
        ...behind(stage.id),
        label: `${atStart(branch.name)}, after ${inSentence(stage.name)}`,
      })),
    ),
  ];
}

/** Whether a probe's place is still among those of its train: its stage may have gone, or changed what it has. */
export const isPlace = (places: readonly Place[], place: Place): boolean => places.some((one) => isSamePlace(one, place));

/** How far along the train's own product line a place lies: −1 at the tap; null beside that line. */
export function alongTrain({ stages }: Pick<Train, 'stages'>, { after, side, vessel }: Place): number | null {
  if (side !== 'out' || vessel) return null;
  if (after === 'tap') return -1;
  const at = stages.findIndex(({ id }) => id === after);
  return at < 0 ? null : at;
}

/** The probe farthest along the product line, from one stage to before another; undefined where none stands there. */
export function lastProbeWithin(train: Pick<Train, 'stages' | 'probes'>, from: number, before: number): Probe | undefined {
  return train.probes.reduce<{ probe: Probe; at: number } | undefined>((last, probe) => {
    const at = alongTrain(train, probe);
    if (at === null || at < from || at >= before) return last;
    return last && last.at > at ? last : { probe, at };
  }, undefined)?.probe;
}

/** The last stage of a train that takes or gives what a meter shows; −1 where none does. */
const lastChange = ({ stages }: { readonly stages: readonly Stage[] }): number =>
  stages.findLastIndex((stage) => ['salt', 'minerals'].includes(kindOf(stage).touches(stage)));

/** The probe that reads the product: the last before use, behind all that changes the water. */
export const productProbe = (train: Pick<Train, 'stages' | 'probes'>): Probe | undefined =>
  lastProbeWithin(train, lastChange(train), train.stages.length);

/** The place the product is read at: behind the last stage that changes the water. */
export const outletPlace = (train: Pick<Train, 'stages'>): Place => behind(train.stages[lastChange(train)]?.id ?? 'tap');

/** The name of a probe that goes to another place: one that says where it stood says where it stands, one that somebody gave stays. */
export const nameMoved = (name: string, label: string): string => (/^(?:after|behind) /i.test(name) ? label : name);

/**
 * The probes of a train to which a stage was added: what read the product reads it behind the new stage, where that
 * changes the water.
 */
export function probesWith(before: Pick<Train, 'stages' | 'probes'>, stages: readonly Stage[]): Probe[] {
  const product = productProbe(before);
  const end = lastChange({ stages });
  const last = stages[end];
  const moves = product && last && !before.stages.some(({ id }) => id === last.id);
  if (!moves) return before.probes;
  const name = nameMoved(product.name, `After ${inSentence(last.name)}`);
  return before.probes.map((probe) => (probe.id === product.id ? { ...probe, after: last.id, name } : probe));
}

/** The probes of a train from which a stage was taken: they move to what is before it; what only it had goes with it. */
export function probesWithout(train: Train, id: string): Probe[] {
  const at = train.stages.findIndex((stage) => stage.id === id);
  const branch = train.branches.find((one) => one.stages.some((stage) => stage.id === id));
  const inBranch = branch?.stages.findIndex((stage) => stage.id === id) ?? -1;
  const before = branch ? (branch.stages[inBranch - 1]?.id ?? branch.after) : (train.stages[at - 1]?.id ?? 'tap');
  return train.probes.flatMap((probe) => {
    if (probe.after !== id) return [probe];
    return probe.side === 'out' && !probe.vessel ? [{ ...probe, after: before }] : [];
  });
}

/** What reads a pressure, and what a flow. */
export const readsFlow = ({ at }: Pick<Gauge, 'at'>): boolean => ['product', 'waste', 'recycle', 'loop'].includes(at);

/** What a gauge or a flow meter is read in. */
export const gaugeDimension = (gauge: Pick<Gauge, 'at'>): 'flowLPerH' | 'pressureBar' => (readsFlow(gauge) ? 'flowLPerH' : 'pressureBar');

/** What a further gauge showed at a reading; null where it was not read. */
export const gaugeValue = ({ also }: Pick<Reading, 'also'>, id: string): number | null =>
  also.find(({ gaugeId }) => gaugeId === id)?.value ?? null;

/** Further gauges of a train, or its flow meters, in their order; product and waste are figures every reading has. */
export const furtherGauges = ({ gauges }: Pick<Train, 'gauges'>, flow: boolean): Gauge[] =>
  gauges.filter((gauge) => readsFlow(gauge) === flow && gauge.at !== 'product' && gauge.at !== 'waste');

/** What gauges and flow meters are called by where they stand. */
export const GAUGE_WORDS: Readonly<Record<Gauge['at'], string>> = {
  line: 'Line pressure',
  filters: 'After filters',
  membrane: 'At the membrane',
  concentrate: 'Concentrate',
  distribution: 'Distribution',
  product: 'Product flow',
  waste: 'Waste flow',
  recycle: 'Recycle flow',
  loop: 'Loop flow',
};

/** Places of this train where a gauge or a flow meter can stand. */
export function gaugePlaces(train: Pick<Train, 'stages' | 'loop'>): Gauge['at'][] {
  const membrane = train.stages.find((stage) => stage.kind === 'membrane');
  const pumped = feedPump(train.stages) !== undefined;
  return [
    'line',
    ...(train.stages.some((stage) => kindOf(stage).prefilter) ? (['filters'] as const) : []),
    ...(membrane ? (pumped ? (['membrane', 'concentrate'] as const) : (['membrane'] as const)) : []),
    ...(lastTank(train.stages) ? (['distribution'] as const) : []),
    'product',
    ...(membrane ? (['waste'] as const) : []),
    ...(membrane?.kind === 'membrane' && membrane.recycleLPerH > 0 ? (['recycle'] as const) : []),
    ...(train.loop ? (['loop'] as const) : []),
  ];
}
