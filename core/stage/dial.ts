import { capacityLitres, decarbonised } from '../exchange';
import { STEAM_BOILER_C } from '../goal';
import { calciteState, hardnessOf, settleWater } from '../water';
import { cartridgeCapacity, exchanging, type Decarboniser } from './decarboniser';
import type { WaterAt } from './kind';

/** The water a bypass dial makes at one setting. */
export interface DialBlend {
  /** Hardness and alkalinity, mg/L as CaCO3. */
  readonly hardness: number;
  readonly alkalinity: number;
  /** Before its CO2 leaves; null where it cannot be worked out. */
  readonly pH: number | null;
  /** Lime that settles at a boiler's heat, mg/L. */
  readonly scale: number;
}

/** What a cartridge makes of the water that meets it at one setting of its dial; null where it cannot be worked out. */
export function dialBlend(stage: Decarboniser, before: Pick<WaterAt, 'water' | 'state'>, bypass: number): DialBlend | null {
  const blend = decarbonised(before.water, exchanging(stage, before), bypass);
  if (!blend.ok) return null;
  const { water } = blend.value;
  const state = settleWater(water, before.state.pH);
  const hot = calciteState(water, STEAM_BOILER_C);
  return {
    hardness: hardnessOf(water.mgL),
    alkalinity: water.alkalinityMgL,
    pH: state.ok ? state.value.pH : null,
    scale: hot.ok ? Math.max(0, hot.value.precipitationMgL) : 0,
  };
}

/** Litres a cartridge lasts at one setting, with the band of what is not known of it; null where nothing uses it up. */
export interface DialLitres {
  readonly bypass: number;
  readonly litres: { readonly low: number; readonly middle: number; readonly high: number } | null;
}
/**
 * How long a cartridge lasts along its dial, on a water of some carbonate hardness.
 *
 *
 * @param carbonateMgL hardness tied to alkalinity, mg/L as CaCO3
 * @param totalMgL all hardness, mg/L as CaCO3
 * @param spokenMgL hardness as box and table speak of it
 */
export function dialLitres(
  stage: Pick<Decarboniser, 'leak' | 'softens'> & Parameters<typeof cartridgeCapacity>[0],
  { carbonateMgL, totalMgL, spokenMgL }: { readonly carbonateMgL: number; readonly totalMgL: number; readonly spokenMgL: number },
  bypasses: readonly number[],
): DialLitres[] {
  const { capacityEq, doubt } = cartridgeCapacity(stage, spokenMgL);
  return bypasses.map((bypass) => {
    // What softens takes all of it, spoken of as such.
    const takenMgL = (stage.softens ? Math.max(carbonateMgL, totalMgL) : carbonateMgL) * (1 - stage.leak) * (1 - bypass);
    if (!(takenMgL > 0)) return { bypass, litres: null };
    const middle = capacityLitres(capacityEq, takenMgL);
    return { bypass, litres: { low: (1 - doubt) * middle, middle, high: (1 + doubt) * middle } };
  });
}
