import { capacityLitres, decarbonised } from '../exchange';
import { STEAM_BOILER_C } from '../goal';
import { MG_L_PER_DH } from '../quantity';
import { calciteState, hardnessOf, settleWater } from '../water';
import type { Decarboniser } from './decarboniser';
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
  const blend = decarbonised(before.water, stage, bypass);
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

/** Hardnesses and settings for which a box commonly prints the litres: 5 to 17 °dH, 0 to 60 % (common practice). */
const CHART_DH = [5, 8, 11, 14, 17];
const CHART_BYPASS = [0, 0.2, 0.4, 0.6];

/** Litres a cartridge lasts at other hardnesses and settings: the chart from the box, computed. */
export const capacityChart = ({
  capacityEq,
  leak,
}: Pick<Decarboniser, 'capacityEq' | 'leak'>): {
  readonly bypasses: readonly number[];
  readonly rows: readonly { readonly hardnessMgL: number; readonly litres: readonly number[] }[];
} => ({
  bypasses: CHART_BYPASS,
  rows: CHART_DH.map((dH) => {
    const hardnessMgL = dH * MG_L_PER_DH;
    return { hardnessMgL, litres: CHART_BYPASS.map((bypass) => capacityLitres(capacityEq, hardnessMgL * (1 - leak) * (1 - bypass))) };
  }),
});
