import { booksOf, hardestLoads, judgeTrain, rests, scaleLimits, wasteScale, type TrainFacts } from '../advice';
import type { System } from '../file';
import { against, GOAL_ROWS, metByAssumption, type LimitCheck, type LimitQuantity } from '../goal';
import { buyingCost, type Costs, type PartCost } from '../ledger';
import { sayings, servedChlorineMgL, timesPerYear, trainStandings, type ResinLife, type TrainYear } from '../life';
import { ELEMENT_ROWS, isSeawaterElement, isSmallElement, type UnitSolution } from '../membrane';
import { DAYS_PER_YEAR } from '../quantity';
import { deionizes, type Stage, type TrainUse } from '../stage';
import { inletBar, type SolvedTrain } from '../train';
import type { Bench } from './bench';
import type { Age, Day } from './heads';
import { capitalRecovery } from './money';
import { routeOf, type Route } from './spaces';
import type { Taken } from './taken';

/** One option, held against the goal, the site and the year by the functions every other page asks: judge, lives, ledger. */

/**
 * What prunes an option, cheapest first; the first that does is kept (science of options, 2.2: carbon comes later here, for
 * its life is of a whole year; what is asked of the elements earlier, for it takes one solve and prunes most).
 */
export const RULES = [
  'wall',
  'site',
  'tank',
  'ratio',
  'pressure',
  'element',
  'production',
  'scaling',
  'quality',
  'feed',
  'carbon',
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

/** An option as a train, and what is known of it when somebody asks. */
export interface Look {
  /** The system with this train. */
  readonly system: System;
  /** Waste to product it is set for; null where it has no say in it. */
  readonly wasteToProduct: number | null;
  /** It stands there already: nothing is bought. */
  readonly owned: boolean;
  /** What its stages have been through; nothing where it is new. */
  readonly use?: TrainUse;
  /** Its stages as they were laid down, row by row, before its membrane is set: for what no water decides. */
  readonly rows: readonly (readonly Stage[])[];
  readonly taken: Taken;
  /** Solved up to its membrane at least, and whole. */
  readonly unitOn: (day: Day, age: Age) => SolvedTrain | null;
  readonly on: (day: Day, age: Age) => SolvedTrain | null;
  /** Of what its unit makes as it was solved, what goes on past the stages behind it. */
  readonly goesOn: number;
  /** What is made with what comes after the membrane, against the unit as it was solved; 1 where it was solved with it. */
  readonly eased: (solved: SolvedTrain) => number;
  readonly year: () => TrainYear | null;
  /** Worked out once for all options that differ behind their membrane alone, at one need. */
  readonly ofUnit: <T>(what: string, of: () => T) => T;
  /** Worked out once for all options that differ in what only stores. */
  readonly shared: <T>(what: string, of: () => T) => T;
  /** The same solved in full, where this is a quick look: asked where a limit is near. */
  readonly sure: (() => Look) | null;
}

export interface Figures {
  readonly annualCost: number;
  /** Of that, what it takes to run: without visits and buying. */
  readonly running: number;
  readonly capital: number;
  readonly lines: Costs;
  readonly parts: readonly PartCost[];
  readonly resin: ResinLife | null;
  readonly feedL: number;
  readonly wasteL: number;
  readonly kWh: number;
  readonly visitsPerYear: number;
  /** Changes of resin or of a cartridge a year. */
  readonly changesPerYear: number;
  /** What it makes on the coldest day at the end of its membrane, against the need of a day. */
  readonly winterMargin: number;
  readonly widthMm: number;
  readonly hours: number;
}

/** Share of a tank that can be drawn. */
const USABLE_TANK = 0.9;
/** Room an output keeps above the need. */
const OUTPUT_MARGIN = 1.1;
/** Pressure below which a small membrane wants a pump, bar (common practice: 45 psi). */
const LEAST_BAR = 3.1;
/** An index so far above the one acted on is sure scale. */
const SCALES_BEYOND = 1;
/** A limit of an element passed by less than so many times is told, not pruned; of its flux, which is money spent on fouling, by less. */
const ADVISORY = { times: 2, flux: 1.5 } as const;
const ASKED = ['flux', 'recovery', 'crossflow', 'feedflow', 'drop'] as const;
const mostOf = (id: (typeof ASKED)[number]): number => (id === 'flux' ? ADVISORY.flux : ADVISORY.times);
/** A carbon is changed no more often than that, times a year. */
const MOST_CARBONS = 12;
/** Margin of an option that makes its water as fast as it is drawn. */
const AMPLE_MARGIN = 3;

const over = (rule: RuleId, field: string, value: number, limit: number | null): Rejection | null =>
  limit !== null && value > limit * (1 + 1e-12) ? { rule, field, value, limit } : null;
const under = (rule: RuleId, field: string, value: number, limit: number | null): Rejection | null =>
  limit !== null && value < limit * (1 - 1e-12) ? { rule, field, value, limit } : null;

const widthMm = ({ wallM }: Taken): number => Math.round(1000 * wallM);

/** What is made on a day against what a day needs. */
const marginOf = ({ productLPerH }: SolvedTrain, { hoursPerDay, litresPerDay }: Bench['need']): number =>
  litresPerDay > 0 ? (hoursPerDay * productLPerH) / litresPerDay : Infinity;

/** The figure and bound of a limit that is missed. */
const missOf = ({ limit, value, side }: LimitCheck): { readonly field: LimitQuantity; readonly value: number; readonly limit: number } => ({
  field: limit.quantity,
  value,
  limit: side === 'low' ? limit.low! : limit.high!,
});

/** Nearer to a limit than this a quick look may err. */
const NEAR = 0.02;
const isAt = (value: number, bound: number): boolean => Math.abs(value / bound - 1) < NEAR;
const isNear = ({ limit: { low, high }, value }: LimitCheck): boolean =>
  [low, high].some((bound) => bound !== null && bound > 0 && isAt(value, bound));

/** What the site is asked about an option. */
export type OfSite = Pick<Look, 'taken' | 'wasteToProduct'>;
type SiteRule = (of: OfSite, bench: Bench) => Rejection | null;
/** What the site and the stages alone decide, before anything is solved. */
const OF_SITE: readonly SiteRule[] = [
  ({ taken }, { system: { choice } }) => over('wall', 'wallMm', widthMm(taken), choice.wallMm),
  ({ taken }, { system: { choice } }) => {
    if (taken.drains && !choice.drain) return { rule: 'site', field: 'drain', value: 1, limit: 0 };
    return taken.powered && !choice.power ? { rule: 'site', field: 'power', value: 1, limit: 0 } : null;
  },
  ({ taken: { membrane, tankL } }, { need, job }) => {
    // What is drawn through resin alone comes as fast as it is drawn; a counter's unit has its own store.
    if (job === 'counter' || job === 'espresso' || (!membrane && tankL === null)) return null;
    return over('tank', 'largestDrawL', need.largestDrawL, USABLE_TANK * (tankL ?? 0));
  },
  ({ taken: { membrane, softened }, wasteToProduct }, { system: { choice } }) =>
    membrane && isSmallElement(membrane.elementClass) && !softened && wasteToProduct !== null
      ? under('ratio', 'leastWaste', wasteToProduct, choice.leastWaste)
      : null,
  ({ taken: { membrane, pumped } }, { system: { source } }) =>
    membrane && isSmallElement(membrane.elementClass) && !pumped ? under('pressure', 'linePressureBar', inletBar(source), LEAST_BAR) : null,
];

/** What of the site and its stages speaks against an option, but for rules that are waived; null where nothing does. */
export function againstSite(of: Pick<Look, 'taken' | 'wasteToProduct'>, bench: Bench, waived: readonly RuleId[] = []): Rejection | null {
  for (const rule of OF_SITE) {
    const found = rule(of, bench);
    if (found && !waived.includes(found.rule)) return found;
  }
  return null;
}

type Solved = 'element' | 'pressure' | 'production' | 'scaling' | 'quality' | 'feed';
/** What each rule makes of an option as it is solved, in their order; those that need the figures of a year are judged with them. */
const JUDGES: Readonly<Record<Solved, (look: Look, bench: Bench) => Verdict>> = {
  element: (look) => {
    const { membrane } = look.taken;
    if (!membrane) return null;
    return look.ofUnit('element', () => {
      let near = false;
      for (const day of ['cold', 'warm'] as const) {
        const solved = look.unitOn(day, 'new');
        // Nothing can be told of a unit that keeps next to nothing of its feed as waste: it is asked for all of it. One
        // that makes nothing at all is told by its output.
        if (!solved?.unit)
          return (
            look.unitOn('cold', 'old') && {
              rule: 'element',
              field: 'recovery',
              value: 1 / ELEMENT_ROWS[membrane.elementClass].limits.maxRecovery,
              limit: 1,
            }
          );
        const loadsOf = (unit: UnitSolution): ReturnType<typeof hardestLoads> => hardestLoads(membrane, unit, rests(look.system, solved));
        const quick = loadsOf(solved.unit);
        // So near to what prunes that a quick look may err: solved in full.
        const exact = look.sure && ASKED.some((id) => isAt(quick[id], mostOf(id))) ? look.sure().unitOn(day, 'new')?.unit : null;
        const loads = exact ? loadsOf(exact) : quick;
        for (const id of ASKED) {
          if (loads[id] > mostOf(id)) return { rule: 'element', field: id, value: loads[id], limit: 1 };
          near ||= loads[id] > 1;
        }
      }
      return near ? 'advisory' : null;
    });
  },
  pressure: ({ taken: { membrane }, unitOn, ofUnit }, { system: { source } }) => {
    if (!membrane) return null;
    return ofUnit('pressure', () =>
      over(
        'pressure',
        'linePressureBar',
        unitOn('cold', 'old')?.unit?.feedPressureBar ?? inletBar(source),
        ELEMENT_ROWS[membrane.elementClass].limits.maxPressureBar,
      ),
    );
  },
  production: ({ taken: { membrane }, unitOn, ofUnit, sure, goesOn }, { need }) => {
    if (!membrane) return null;
    const ofHead = ofUnit('margin', () => {
      const cold = unitOn('cold', 'old');
      return cold ? marginOf(cold, need) : 0;
    });
    const quick = goesOn * ofHead;
    // So near to what is wanted that a quick look may err: solved in full.
    const exact = sure && isAt(quick, OUTPUT_MARGIN) ? sure().unitOn('cold', 'old') : null;
    const margin = exact ? marginOf(exact, need) : quick;
    // Less is asked for, or it runs longer: what it could serve stands against what is needed.
    return margin < OUTPUT_MARGIN
      ? { rule: 'production', field: 'litresPerDay', value: need.litresPerDay, limit: (margin * need.litresPerDay) / OUTPUT_MARGIN }
      : null;
  },
  scaling: (look) => {
    const { membrane } = look.taken;
    if (!membrane || isSeawaterElement(membrane.elementClass)) return null;
    return look.ofUnit('scaling', () => {
      const warm = look.unitOn('warm', 'new');
      if (!warm?.unit) return null;
      const limits = scaleLimits(look.system, warm);
      const scale = wasteScale(warm.unit, limits);
      if (!scale) return null;
      const acted = limits.calciteIndex;
      const beyond = scale.index - acted;
      if (beyond > SCALES_BEYOND) return { rule: 'scaling', field: 'index', value: scale.index, limit: acted + SCALES_BEYOND };
      return beyond > 0 || scale.minerals.length > 0 ? 'advisory' : null;
    });
  },
  quality: (look, bench) => {
    const alone = resinAlone(look, bench);
    if (alone) return alone;
    const of = (one: Look): readonly LimitCheck[] | null => {
      const warm = one.on('warm', 'old');
      return warm && judgeTrain(one.system, warm, bench.feed, bench.tap).checks;
    };
    const checks = look.shared('quality', () => {
      const quick = of(look);
      return quick && look.sure && quick.some(isNear) ? of(look.sure()) : quick;
    });
    if (!checks) return null;
    const missed = checks.find(({ verdict }) => verdict === 'missed');
    if (missed) return { rule: 'quality', ...missOf(missed) };
    // What only an assumption decides never prunes: it is told.
    return against(checks).length > 0 || metByAssumption(checks).length > 0 ? 'advisory' : null;
  },
  feed: (look) => look.shared('feed', () => ruined(look)),
};
/** A stack is ruined by what its membrane lets through: by how many times it is past what it bears. */
function ruined({ rows, system, on }: Look): Verdict {
  const ids = new Set(rows.flat().flatMap((stage) => (deionizes(stage) ? [stage.id] : [])));
  const warm = ids.size > 0 ? on('warm', 'old') : null;
  if (!warm) return null;
  const said = trainStandings(system, { solved: warm, demandLPerDay: 0 }).flatMap((one) => (ids.has(one.stage.id) ? sayings(one) : []));
  const bad = said.find(({ severity }) => severity === 'bad');
  if (bad) return { rule: 'feed', field: bad.id, value: bad.times ?? 1, limit: 1 };
  return said.some(({ severity }) => severity === 'mind') ? 'advisory' : null;
}
/** Rules by which all options of one head fail, if one does. */
export const OF_HEAD: ReadonlySet<RuleId> = new Set<RuleId>(['element', 'pressure', 'scaling']);
const IN_ORDER = Object.entries(JUDGES) as [Solved, (typeof JUDGES)[Solved]][];
/**
 * Resin alone for what lives, on a tap with chloramine: no resin takes it, and the one carbon ahead of resin is passed as
 * fast as somebody opens the tap (common practice).
 */
function resinAlone({ taken: { membrane, polishes } }: Look, { feed, system }: Bench): Rejection | null {
  if (membrane || !polishes || !GOAL_ROWS[system.goal.id].living) return null;
  return over('quality', 'chlorineMgL', feed.mgL.chloramine, servedChlorineMgL(system));
}

/** Rules of the site and the year of a train that are judged by its figures. */
function ofYear(figures: Figures, { system: { choice }, mostChanges }: Bench): readonly (Rejection | null)[] {
  const carbons = figures.parts.filter(({ line }) => line === 'carbon').map(({ life }) => timesPerYear(life));
  return [
    over('carbon', 'carbon', Math.max(0, ...carbons), MOST_CARBONS),
    over('resinLife', 'mostChanges', figures.changesPerYear, mostChanges),
    over('visits', 'visitsPerYear', figures.visitsPerYear, choice.visitsPerYear),
    over('capital', 'capital', figures.capital, choice.capital),
  ];
}

/** Whether a train would do, and what it would cost a year to keep. */
export type Judged =
  | { readonly admissible: false; readonly rejection: Rejection }
  | { readonly admissible: true; readonly figures: Figures; readonly advisories: readonly RuleId[] };

const NOTHING_MADE: Rejection = { rule: 'production', field: 'litresPerDay', value: 1, limit: 0 };

/**
 * Judges an option by the rules in their order, and works out a year of it where none prunes.
 *
 * @param waived rules that are not asked: what an option would come to if the site or the goal gave way
 */
export function judgeOption(look: Look, bench: Bench, waived: readonly RuleId[] = []): Judged {
  const site = againstSite(look, bench, waived);
  return site ? { admissible: false, rejection: site } : judgeSolved(look, bench, waived);
}

/** The same of an option that nothing of the site speaks against. */
export function judgeSolved(look: Look, bench: Bench, waived: readonly RuleId[] = []): Judged {
  const advisories: RuleId[] = [];
  for (const [rule, judge] of IN_ORDER) {
    if (waived.includes(rule)) continue;
    const found = judge(look, bench);
    if (found === 'advisory') advisories.push(rule);
    else if (found) return { admissible: false, rejection: found };
  }
  const figures = figuresOf(look, bench);
  if (!figures) return { admissible: false, rejection: NOTHING_MADE };
  const rejection = ofYear(figures, bench).find((found) => found !== null && !waived.includes(found.rule));
  return rejection ? { admissible: false, rejection } : { admissible: true, figures, advisories };
}

/** What of a year's figures does not hang on what only stores. */
function booksOfLook(
  { system, year, use = {} }: Look,
  { need, prices, strength }: Bench,
): (Pick<TrainFacts, 'resin' | 'ledger'> & { readonly hoursPerL: number }) | null {
  const found = year();
  if (!found || !(found.mean.productLPerH > 0)) return null;
  const drawn = { productLPerDay: need.litresPerYear / DAYS_PER_YEAR, tapLPerDay: need.tapLPerYear / DAYS_PER_YEAR };
  return { ...booksOf(system, found, use, strength, drawn, prices), hoursPerL: found.hoursPerL };
}

/** A year of an option by line, what it takes to buy, and what it has to spare; null where nothing comes through it. */
export function figuresOf(look: Look, bench: Bench): Figures | null {
  const { need, prices, system } = bench;
  const { rows, taken } = look;
  // By need and prices as well: heads are kept while more is drawn, or it costs more.
  const books = look.shared(`books ${bench.booked}`, () => booksOfLook(look, bench));
  if (!books) return null;
  const { ledger, resin, hoursPerL } = books;
  const capital = look.owned ? 0 : buyingCost(rows.flat(), prices);
  const buying = capital * capitalRecovery(system.choice.rate, system.choice.horizonYears);
  const hasMembrane = taken.membrane !== null;
  const cold = hasMembrane ? look.unitOn('cold', 'old') : null;
  const polishes = ledger.parts.filter(({ line }) => line === 'resin' || line === 'cartridges');
  return {
    annualCost: ledger.running + ledger.visits + buying,
    running: ledger.running,
    capital,
    lines: buying > 0 ? { ...ledger.lines, capital: buying } : ledger.lines,
    parts: ledger.parts,
    resin,
    feedL: ledger.feedL,
    wasteL: ledger.wasteL,
    kWh: ledger.kWh,
    visitsPerYear: ledger.visitsPerYear,
    changesPerYear: Math.max(0, ...polishes.map(({ life }) => timesPerYear(life))),
    winterMargin: cold ? look.goesOn * look.eased(cold) * marginOf(cold, need) : AMPLE_MARGIN,
    widthMm: widthMm(taken),
    hours: need.litresPerYear * (hasMembrane ? hoursPerL : 0),
  };
}

export const routeOfLook = ({ taken }: Look): Route => routeOf(taken);
