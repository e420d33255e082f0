import { decarbonised } from '@yes-clear/core/exchange';
import type { StageOf } from '@yes-clear/core/file';
import type { Station } from '@yes-clear/core/train';
import { calciteState, hardnessOf, settleWater } from '@yes-clear/core/water';

/** Heat at which an espresso boiler works. */
const BOILER_C = 125;

/** The water a bypass dial makes at one setting. */
export interface DialBlend {
  readonly hardness: number;
  readonly alkalinity: number;
  readonly pH: number | null;
  /** Lime that settles at a boiler's heat, mg/L. */
  readonly scale: number;
}
export interface BlendsAsked {
  readonly stage: StageOf<'decarboniser'>;
  readonly before: Station;
  readonly bypasses: readonly number[];
}

export function dialBlend(stage: StageOf<'decarboniser'>, before: Station, bypass: number): DialBlend | null {
  const blend = decarbonised(before.water, stage, bypass);
  if (!blend.ok) return null;
  const { water } = blend.value;
  const state = settleWater(water, before.state.pH);
  const hot = calciteState(water, BOILER_C);
  return {
    hardness: hardnessOf(water.mgL),
    alkalinity: water.alkalinityMgL,
    pH: state.ok ? state.value.pH : null,
    scale: hot.ok ? Math.max(0, hot.value.precipitationMgL) : 0,
  };
}
