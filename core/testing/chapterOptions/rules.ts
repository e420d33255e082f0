import { carbonLeak, contactTimeS } from '../../pretreatment';
import { ELEMENT_ROWS, isSmallElement, MAX_CHLORINE_MG_L } from '../../membrane';
import type { Plan } from './plan';
import type { Figures } from './figures';
import { blendShare, marginOf, type Judging } from './judging';

/** What prunes an option, cheapest first; the first that does is kept (science of options, 2.2). */
export const RULES = [
  'wall',
  'site',
  'tank',
  'chloride',
  'reach',
  'ratio',
  'pressure',
  'production',
  'carbon',
  'scaling',
  'crossflow',
  'quality',
  'resinLife',
  'visits',
  'capital',
] as const;
export type RuleId = (typeof RULES)[number];

/** Which rule an option breaks, by what of the site, goal or water, with its figure and the limit that would have let it through. */
export interface Rejection {
  readonly rule: RuleId;
  readonly field: string;
  readonly value: number;
  readonly limit: number;
}
type Verdict = Rejection | 'advisory' | null;

/** Share of a tank that can be drawn. */
export const USABLE_TANK = 0.9;
/** Room an output keeps above the need. */
const OUTPUT_MARGIN = 1.1;
/** A carbon is judged when it is so far spent. */
const CARBON_LEFT = 0.2;
/** Saturation index of the waste from which scale is sure without a softener or an inhibitor. */
const SCALES_AT = 1;
/** Chloride no cartridge brings down, mg/L (common practice: steel of machines rusts above it). */
const MOST_CHLORIDE_MG_L = 50;
/** A limit broken by less than so many times is told, not pruned. */
const ADVISORY_FACTOR = 2;

const over = (rule: RuleId, field: string, value: number, limit: number | null): Rejection | null =>
  limit !== null && value > limit * (1 + 1e-12) ? { rule, field, value, limit } : null;
const under = (rule: RuleId, field: string, value: number, limit: number | null): Rejection | null =>
  limit !== null && value < limit * (1 - 1e-12) ? { rule, field, value, limit } : null;

/** Saturation index of the waste at a recovery: what stands in it is so many times as strong. */
export const wasteIndex = (limeIndex: number, recovery: number): number => limeIndex + 3 * Math.log10(1 / (1 - recovery));

/** What each rule makes of a plan. */
const JUDGES: Readonly<Record<RuleId, (plan: Plan, judging: Judging) => Verdict>> = {
  wall: ({ widthMm }, { site }) => over('wall', 'wallMm', widthMm, site.wallMm),
  site: ({ membrane }, { site }) => {
    if (membrane && !site.drain) return { rule: 'site', field: 'drain', value: 1, limit: 0 };
    return membrane?.pump && !site.power ? { rule: 'site', field: 'power', value: 1, limit: 0 } : null;
  },
  tank: ({ tankL, membrane }, { need }) =>
    membrane || tankL > 0 ? over('tank', 'largestDrawL', need.largestDrawL, USABLE_TANK * tankL) : null,
  chloride: ({ cartridge, membrane }, { water }) =>
    cartridge && !membrane ? over('chloride', 'chlorideMgL', water.chlorideMgL, MOST_CHLORIDE_MG_L) : null,
  reach: ({ resin, membrane, cartridge }, { goal, water, asked }) => {
    if (!goal.wantsResin || resin || cartridge) return null;
    const ppm = membrane ? (asked(membrane).warmOld()?.ppm ?? water.ppm) : water.ppm;
    return { rule: 'reach', field: 'goal', value: ppm, limit: goal.ppm ?? 0 };
  },
  ratio: ({ membrane }, { site }) =>
    membrane?.recovery && !membrane.softened && isSmallElement(membrane.elementClass)
      ? under('ratio', 'leastWaste', 1 / membrane.recovery - 1, site.leastWaste)
      : null,
  pressure: ({ membrane }, { site }) => {
    if (!membrane) return null;
    const bar = membrane.pump?.bar ?? site.linePressureBar;
    const most = over('pressure', 'linePressureBar', bar, ELEMENT_ROWS[membrane.elementClass].limits.maxPressureBar);
    if (most || membrane.pump || !isSmallElement(membrane.elementClass)) return most;
    return under('pressure', 'linePressureBar', site.linePressureBar, site.leastBar);
  },
  production: (plan, judging) => {
    const { need, asked } = judging;
    if (!plan.membrane) return null;
    const cold = asked(plan.membrane).coldOld();
    const margin = cold ? marginOf(cold.productLPerH, blendShare(plan, cold, judging), need) : 0;
    // Less is asked for, or it runs longer: what it could serve stands against what is needed.
    return margin < OUTPUT_MARGIN
      ? { rule: 'production', field: 'litresPerDay', value: need.litresPerDay, limit: (margin * need.litresPerDay) / OUTPUT_MARGIN }
      : null;
  },
  carbon: ({ carbon, membrane }, { water, asked }) => {
    if (!membrane) return null;
    if (!carbon) return over('carbon', 'chlorineMgL', water.chlorineMgL, MAX_CHLORINE_MG_L);
    const warm = asked(membrane).warmNew();
    if (!warm) return null;
    const contact = contactTimeS(carbon.blocks * carbon.litresEach, warm.feedLPerH);
    const leaks = (disinfectant: 'chlorine' | 'chloramine', mgL: number): number =>
      mgL * carbonLeak('block', disinfectant, contact * (carbon.chloramine && disinfectant === 'chloramine' ? CATALYTIC : 1), CARBON_LEFT);
    return over(
      'carbon',
      'chlorineMgL',
      leaks('chlorine', water.chlorineMgL) + leaks('chloramine', water.chloramineMgL),
      MAX_CHLORINE_MG_L,
    );
  },
  scaling: ({ membrane, scale }, { water }) => {
    if (!membrane?.recovery || scale !== 'nothing') return null;
    const index = wasteIndex(water.limeIndex, membrane.recovery);
    return index > SCALES_AT ? { rule: 'scaling', field: 'limeIndex', value: index, limit: SCALES_AT } : index > 0 ? 'advisory' : null;
  },
  crossflow: ({ membrane }, { asked, crossFlowOn }) => {
    if (!membrane) return null;
    const cold = crossFlowOn === 'old' ? asked(membrane).coldOld() : asked(membrane).coldNew();
    if (!cold) return null;
    const least = 60 * ELEMENT_ROWS[membrane.elementClass].limits.minConcentrateLPerMin;
    const found = under('crossflow', 'recovery', cold.concentrateLPerH, least / ADVISORY_FACTOR);
    return found ?? (cold.concentrateLPerH < least ? 'advisory' : null);
  },
  quality: (plan, judging) => {
    const { goal, water, asked } = judging;
    if (plan.resin || goal.ppm === null) return null;
    const warm = plan.membrane ? asked(plan.membrane).warmOld() : null;
    const blend = warm ? blendShare(plan, warm, judging) : 0;
    return over('quality', 'goal', (warm?.ppm ?? water.ppm) * (1 - blend) + blend * water.ppm, goal.ppm);
  },
  // Those that need the figures of a year are judged with them.
  resinLife: () => null,
  visits: () => null,
  capital: () => null,
};
/** Catalytic carbon takes chloramine about as many times faster (our assumption, factor 2). */
const CATALYTIC = 4;

export const rejectionOf = (rule: RuleId, plan: Plan, judging: Judging): Verdict => JUDGES[rule](plan, judging);

/** The last rules: what a year of a plan breaks. */
export function rejectionOfYear(rule: RuleId, figures: Figures, { site, mostChanges }: Judging): Rejection | null {
  switch (rule) {
    case 'resinLife':
      return over(rule, 'mostChanges', figures.changesPerYear, mostChanges);
    case 'visits':
      return over(rule, 'visitsPerYear', figures.visitsPerYear, site.visitsPerYear);
    case 'capital':
      return over(rule, 'capital', figures.capital, site.capital);
    default:
      return null;
  }
}
