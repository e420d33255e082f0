import { kvForFlow, type UnitFlows } from '../membrane';
import { percent } from '../quantity';

/** Gauges and flow meters of a skid as they stand. */
export interface SkidReadings {
  readonly feedPressureBar: number | null;
  readonly productLPerH: number | null;
  readonly wasteLPerH: number | null;
  readonly recycleLPerH: number | null;
}

/** What to do to one of the three valves. */
export interface ValveTurn {
  readonly valve: 'recycle' | 'concentrate' | 'throttle';
  readonly name: string;
  readonly turn: 'open' | 'close' | 'leave';
  /** Share of its opening to be gained or lost; of the pressure, for the throttle. */
  readonly by: number;
  readonly says: string;
}

/** Within this a valve is left as it stands: flow meters show no less (our judgement). */
const STANDS = 0.06;

const NAMES = { recycle: 'Recycle valve', concentrate: 'Concentrate valve', throttle: 'Pump throttle' } as const;

function turn(valve: ValveTurn['valve'], share: number): ValveTurn {
  const which = Math.abs(share) <= STANDS ? 'leave' : share > 0 ? 'open' : 'close';
  const name = NAMES[valve];
  const by = Math.abs(share);
  const much = by > 0.6 ? 'well over half' : `about ${percent(by)}`;
  const says =
    which === 'leave'
      ? `${name}: leave it.`
      : valve === 'throttle'
        ? `${name}: ${which} it until the gauge ${which === 'open' ? 'rises' : 'falls'} by ${much}.`
        : `${name}: ${which} it until its flow ${which === 'open' ? 'rises' : 'falls'} by ${much}.`;
  return { valve, name, turn: which, by, says };
}

/**
 * Three valves of which each moves the other two: the opening each has now, by its flow and pressure, against the one it
 * has in the solved unit. Turned in this order, one at a time, they arrive; turned after their flows alone they circle.
 *
 * @param target the unit as it should run today
 * @param suctionBar pressure before the pump, to which the recycle returns
 * @returns null while a reading is missing, or the unit makes nothing
 */
export function valveTurns(target: UnitFlows, read: SkidReadings, suctionBar: number): ValveTurn[] | null {
  const { feedPressureBar, productLPerH, wasteLPerH, recycleLPerH } = read;
  if (feedPressureBar === null || productLPerH === null || wasteLPerH === null || recycleLPerH === null || target.noProduction) return null;
  if (!(target.recycleLPerH > 0) || !(target.concentrateLPerH > 0) || !(feedPressureBar > 0)) return null;
  // The elements take pressure by about the square of the flow along them.
  const along = (waste: number, product: number, recycle: number): number => waste + recycle + product / 2;
  const lost = target.feedPressureBar - target.concentratePressureBar;
  const flows = along(wasteLPerH, productLPerH, recycleLPerH) / along(target.concentrateLPerH, target.permeateLPerH, target.recycleLPerH);
  const concentrateBar = Math.max(0.1, feedPressureBar - lost * flows ** 1.7);
  const share = (now: number, nowBar: number, wanted: number, wantedBar: number): number =>
    now > 0 ? kvForFlow(wanted, Math.max(0.05, wantedBar)) / kvForFlow(now, Math.max(0.05, nowBar)) - 1 : 1;
  return [
    turn('recycle', share(recycleLPerH, concentrateBar - suctionBar, target.recycleLPerH, target.concentratePressureBar - suctionBar)),
    turn('concentrate', share(wasteLPerH, concentrateBar, target.concentrateLPerH, target.concentratePressureBar)),
    turn('throttle', target.feedPressureBar / feedPressureBar - 1),
  ];
}
