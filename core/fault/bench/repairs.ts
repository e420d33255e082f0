import type { FaultId } from '../../stage';
import { minutesOf } from '../kinds';
import type { SharedError } from '../shared';

/** What can be fitted or put right on the bench: minutes for one person, money for the parts, and what it mends. */
export interface Repair {
  readonly label: string;
  readonly minutes: number;
  /** Parts, EUR (common practice). */
  readonly price: number;
  readonly mends: readonly FaultId[];
  /** A housing is opened for it. */
  readonly opens?: true;
  /** It leaves preservative or cleaner in the membrane. */
  readonly leaves?: 'preservative';
  /** Its price is that of each element. */
  readonly each?: 'element';
  /** What a new part brings of its own tolerance. */
  readonly redraws?: readonly SharedError[];
}
export const REPAIRS = {
  prefilter: { label: 'New pre-filters', minutes: 15, price: 8, mends: ['prefilter'], opens: true },
  carbon: { label: 'New carbon', minutes: 20, price: 15, mends: ['carbonSpent', 'chloramineThrough', 'ammonia'], opens: true },
  membrane: {
    label: 'New membrane',
    minutes: 60,
    price: 45,
    mends: ['fouled', 'scaled', 'oxidised', 'swMembrane'],
    opens: true,
    leaves: 'preservative',
    each: 'element',
    redraws: ['lnWater', 'lnSalt'],
  },
  clean: {
    label: 'Clean the membrane',
    minutes: 60,
    price: 10,
    mends: ['fouled', 'scaled', 'swMembrane'],
    leaves: 'preservative',
  },
  rings: { label: 'New O-rings', minutes: 25, price: 3, mends: ['sealLeak'], opens: true },
  brineSeal: { label: 'Seat the brine seal', minutes: 25, price: 3, mends: ['brineSeal'], opens: true },
  restrictor: {
    label: 'New restrictor',
    minutes: 15,
    price: 6,
    mends: ['restrictorTight', 'restrictorWide'],
    redraws: ['lnRestrictor'],
  },
  trim: { label: 'Trim the restrictor', minutes: 10, price: 0, mends: ['restrictorTight'] },
  oldRestrictor: { label: 'Take an old restrictor out', minutes: 10, price: 0, mends: ['oldRestrictor'] },
  ports: { label: 'Lines to their ports', minutes: 10, price: 0, mends: ['swapped'] },
  productLine: { label: 'Shorter line, tank set right', minutes: 20, price: 0, mends: ['backPressure'] },
  shutOff: { label: 'New shut-off and check valve', minutes: 20, price: 18, mends: ['shutoff', 'shortCycle', 'shutClosed'] },
  supply: { label: 'Open every valve, set the regulator', minutes: 15, price: 0, mends: ['lineLow'] },
  pump: { label: 'New pump', minutes: 45, price: 90, mends: ['pumpWeak'] },
  pumpSeals: { label: 'Belt and pump seals', minutes: 60, price: 60, mends: ['pumpSlip'] },
  reliefValve: { label: 'New relief valve', minutes: 45, price: 80, mends: ['reliefLeak'] },
  clamps: { label: 'Tighten the suction', minutes: 20, price: 4, mends: ['airLeak'] },
  recycle: { label: 'Set the recycle to plan', minutes: 10, price: 0, mends: ['recycleWide'] },
  resin: {
    label: 'New resin',
    minutes: 20,
    price: 15,
    mends: ['resinSpent', 'acidBand', 'silicaBand', 'resinPoisoned', 'co2Early'],
    opens: true,
  },
  repack: { label: 'Pack the resin again', minutes: 20, price: 0, mends: ['resinChannel'], opens: true },
  cartridge: { label: 'New cartridge', minutes: 15, price: 60, mends: ['cartridgeSpent'] },
  dial: { label: 'Dial to the plan', minutes: 5, price: 0, mends: ['bypassWrong'] },
  salt: { label: 'Salt, and regenerate', minutes: 20, price: 10, mends: ['softenerSpent'] },
  softenerBypass: { label: 'Close the softener’s bypass', minutes: 5, price: 0, mends: ['softenerBypass'] },
  probe: { label: 'Seat the probe', minutes: 5, price: 0, mends: ['probePlace'] },
  battery: { label: 'Clean tips, new battery', minutes: 10, price: 5, mends: ['meterFault'], redraws: ['inline'] },
  factors: { label: 'Both meters in one glass', minutes: 5, price: 0, mends: ['meterScale'] },
  absorber: { label: 'New absorber on the vent', minutes: 10, price: 25, mends: ['ventCo2'] },
  lamp: { label: 'New lamp', minutes: 20, price: 70, mends: ['uvLamp'] },
  loop: { label: 'Balance the loop', minutes: 30, price: 0, mends: ['loopSlow'] },
  sweep: { label: 'Clean the air filter, drain the gas line', minutes: 15, price: 8, mends: ['sweepLost'] },
  fibres: { label: 'New degasser', minutes: 60, price: 600, mends: ['fibresWet'], opens: true },
  current: { label: 'Clamps and current to plan', minutes: 20, price: 0, mends: ['stackStarved'] },
  stack: { label: 'Clean the electrodeionizer', minutes: 240, price: 30, mends: ['stackScaled'] },
  regenerate: { label: 'Regenerate both beds by the plan', minutes: 150, price: 25, mends: ['regenerationShort', 'anionSpent'] },
  dosing: { label: 'Prime the dosing pump, new diaphragm', minutes: 20, price: 20, mends: ['doseLost'] },
  pads: { label: 'Wash the pads, flush the tank', minutes: 45, price: 12, mends: ['organics'] },
} as const satisfies Record<string, Repair>;
export type RepairId = keyof typeof REPAIRS;
export const REPAIR_IDS = Object.keys(REPAIRS) as readonly RepairId[];
export const repairOf = (id: RepairId): Repair => REPAIRS[id];

/** Causes nothing has to be mended of: what is done about them is knowing, waiting, or reading otherwise. */
export const NOTHING_TO_MEND: readonly FaultId[] = ['healthy', 'coldWater', 'feedStrong', 'dryMembrane', 'creep', 'airUptake'];

/** Whether one of these repairs mends a cause. */
export const isMendedBy = (repairs: readonly RepairId[], fault: FaultId): boolean =>
  repairs.some((repair) => repairOf(repair).mends.includes(fault));

/** Repairs a rig can have, by the causes it can have. */
export const repairsFor = (ids: readonly string[]): RepairId[] =>
  REPAIR_IDS.filter((id) => repairOf(id).mends.some((fault) => ids.includes(fault)));

/** What a repair's parts cost on a rig of so many elements, EUR. */
export const priceOf = (id: RepairId, elements: number): number => {
  const { price, each } = repairOf(id);
  return each === 'element' ? price * Math.max(1, elements) : price;
};

/** The least effort that mends a cause, as minutes of work; nothing where nothing has to be mended. */
export const mendingEffort = (fault: FaultId, elements: number): number =>
  Math.min(
    ...REPAIR_IDS.filter((id) => repairOf(id).mends.includes(fault)).map((id) => repairOf(id).minutes + minutesOf(priceOf(id, elements))),
    ...(NOTHING_TO_MEND.includes(fault) ? [0] : []),
  );
