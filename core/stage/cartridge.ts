import { prefilterBarPerLPerH } from '../pretreatment';
import { flushL } from '../exchange';
import { formatQuantity, inSentence } from '../quantity';
import type { Mounting, StepsAround, Thread } from './kind';
import { FLOOD, seen, type StepEntry } from './step';

/** What a cartridge of resin or calcite takes at 1 gal/min, bar (our estimate). */
const CARTRIDGE_LOSS_BAR = 0.1;

/** Pressure slope of a cartridge that does not clog, bar per L/h. */
export const cartridgeSlopeBar = (_stage: unknown, _flowLPerH: number, temperatureC: number): number =>
  prefilterBarPerLPerH({ cleanLossBar: CARTRIDGE_LOSS_BAR, loading: 0 }, temperatureC);

/** Weight full and width of a cartridge of resin or calcite that puts minerals in or takes them, kg and m (our estimates). */
export const mineralCartridge = ({ volumeL }: { readonly volumeL: number }): Mounting => ({
  wetKg: 0.8 + 1.3 * volumeL,
  wallM: volumeL < 6 ? 0.16 : 0.3,
});

/** Slower than this the water has all the time it needs, L/h. */
export const SLOWEST_L_PER_H = 1e-3;

/** bar per metre of water column. */
export const BAR_PER_METRE = 0.0980665;

/** Usual lives by the calendar, days (common practice): filters, carbon and inhibitors six months. */
export const HALF_YEAR_DAYS = 183;

/** What a household housing takes; more is a vessel (our judgement), L. */
export const CARTRIDGE_SIZED_L = 3;
/** Ports of what holds so many litres: small housings a quarter inch, vessels three quarters (common practice). */
export const vesselThread = (litres: number): Thread => (litres < CARTRIDGE_SIZED_L ? '1/4' : '3/4');
/** A filter that takes less than this clean is a large one, with ports to match (our judgement), bar. */
export const LARGE_LOSS_BAR = 0.03;
/** What plastic filter housings hold, 125 psi, and vessels of glass fibre, 150 psi (common practice: their own label says), bar. */
export const HOUSING_BAR = 8.6;
export const VESSEL_BAR = 10.3;
/** Room under a cartridge to take it out, mm (common practice: about 15 cm). */
export const CARTRIDGE_CLEARANCE_MM = 150;
/** A drop of the usual kit, mg/L as CaCO3 (common practice: 5 mL of sample). */
export const ONE_DROP_MGL = 17.8;

/** What a flush of filters is watched for. */
export const flushedUntil = (carbon: boolean): string => (carbon ? 'no black carbon dust shows' : 'it runs clear');

/**
 * How a filter or carbon is flushed before it serves: all that stand ahead of a membrane together, with the membrane
 * still out; one behind it, or one that feeds a machine, by litres.
 */
export function filterFlush(
  { id, name, volumeL }: { readonly id: string; readonly name: string; readonly volumeL: number },
  { side, units, carbon }: Pick<StepsAround<unknown>, 'side' | 'units' | 'carbon'>,
): StepEntry[] {
  const clear = carbon
    ? seen('clear', 'Runs clear, no black dust', 'Ten minutes more. Dust that gets past stays in what follows.')
    : seen('clear', 'Runs clear', 'Ten minutes more. What gets past stays in what follows.');
  if (side !== 'behind')
    return [
      {
        id: 'flush-filters',
        act: 'flushFilters',
        place: 'rinse',
        title: 'Flush the filters, 10 min',
        before: side === 'ahead' ? 'The membrane is still out.' : null,
        how: `To the drain${side === 'ahead' ? ', with the membrane still out' : ''}, until ${flushedUntil(carbon)}.`,
        minutes: 10,
        waits: true,
        measures: [clear],
        cautions: [FLOOD],
      },
    ];
  return [
    {
      id: `flush-${id}`,
      act: 'flushCartridge',
      place: 'cartridges',
      title: `Flush ${inSentence(name)}, ${formatQuantity(flushL(volumeL), 'volumeL', units).text}`,
      how: 'To the drain, before anything behind it gets its first water.',
      minutes: 10,
      measures: [clear],
    },
  ];
}
