import { prefilterBarPerLPerH } from '../pretreatment';
import type { Mounting } from './kind';

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
