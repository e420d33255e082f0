import { prefilterBarPerLPerH } from '../pretreatment';

/** What a cartridge of resin or calcite takes at 1 gal/min, bar (our estimate). */
const CARTRIDGE_LOSS_BAR = 0.1;

/** Pressure slope of a cartridge that does not clog, bar per L/h. */
export const cartridgeSlopeBar = (_stage: unknown, _flowLPerH: number, temperatureC: number): number =>
  prefilterBarPerLPerH({ cleanLossBar: CARTRIDGE_LOSS_BAR, loading: 0 }, temperatureC);

/** bar per metre of water column. */
export const BAR_PER_METRE = 0.0980665;

/** Usual lives by the calendar, days (common practice): filters, carbon and inhibitors six months. */
export const HALF_YEAR_DAYS = 183;
