import type { Goal, GoalId, LimitQuantity } from './schema';
import { MG_L_PER_DH } from '../quantity';

export type { LimitQuantity } from './schema';

export interface Limit {
  readonly quantity: LimitQuantity;
  readonly label: string;
  readonly low: number | null;
  readonly high: number | null;
  /** Where the limit comes from. */
  readonly origin: string;
  /** Why it matters, in a few words. */
  readonly because: string;
  /** Whether a pen or in-line meter can see a breach. */
  readonly meterSees: boolean;
  /** On the water as it is used; or, for what is too low, once it has stood open and its carbon dioxide has left. */
  readonly judged: 'asUsed' | 'onceOpen';
}

/** A set of limits some people work by. */
export interface School {
  readonly id: string;
  readonly label: string;
  readonly limits: readonly Limit[];
  /** What the school also asks for and no model can tell: a laboratory must. */
  readonly unseen: readonly string[];
}

export type GoalFamily = 'aquarium' | 'cleaning' | 'laboratory' | 'beverage' | 'drinking' | 'own';

export interface GoalRow {
  readonly label: string;
  readonly says: string;
  readonly family: GoalFamily;
  /** Temperature at which lime matters for this use, °C; null where it does not. */
  readonly heatedC: number | null;
  readonly schools: readonly [School, ...School[]];
  /** Judged as the train leaves it, whatever is put to it afterwards; else as it is used, with that in it. */
  readonly judgesProduct: boolean;
  /** Something lives in it: chloramine and ammonia are poison there. */
  readonly living: boolean;
  /** ppm limits people run by, for goals that leave the figure to the crew. */
  readonly ppmSchools: readonly { readonly ppm: number; readonly label: string }[];
}

export const LIMIT_LABELS: Readonly<Record<LimitQuantity, string>> = {
  ec25UScm: 'Conductivity',
  tdsMgL: 'Dissolved solids',
  residueMgL: 'Dry residue',
  salinity: 'Salinity',
  hardnessMgL: 'Hardness',
  calciumHardnessMgL: 'Calcium hardness',
  alkalinityMgL: 'Alkalinity',
  pH: 'pH',
  calciumMgL: 'Calcium',
  magnesiumMgL: 'Magnesium',
  sodiumMgL: 'Sodium',
  chlorideMgL: 'Chloride',
  sulfateMgL: 'Sulfate',
  nitrateMgL: 'Nitrate',
  phosphateMgL: 'Phosphate',
  silicaMgL: 'Silica',
  fluorideMgL: 'Fluoride',
  boronMgL: 'Boron',
  ammoniaMgL: 'Ammonia, total as N',
  chlorineMgL: 'Chlorine and chloramine',
  boilerScaleMgL: 'Lime in a steam boiler',
};

/** Quantities a conductivity meter answers to, more or less. */
const METER_SEES: ReadonlySet<LimitQuantity> = new Set(['ec25UScm', 'tdsMgL', 'residueMgL', 'salinity']);

const TRADE = 'common practice';
const ASTM = 'ASTM D1193 (recalled)';
const ISO = 'ISO 3696 (recalled)';
const WHO = 'WHO guidelines (recalled)';
const AMERICAN = 'American coffee association, 2009 (recalled)';
const EUROPEAN = 'European coffee association chart (recalled, ±10)';

/** A limit of the trade; `from` names another origin. */
const limit = (quantity: LimitQuantity, low: number | null, high: number | null, because: string, from = TRADE): Limit => ({
  quantity,
  label: LIMIT_LABELS[quantity],
  low,
  high,
  origin: from,
  because,
  meterSees: METER_SEES.has(quantity),
  judged: 'asUsed',
});
/** A pH that counts as too low only once carbon dioxide has left. */
const pH = (low: number | null, high: number | null, because: string, from = TRADE): Limit => ({
  ...limit('pH', low, high, because, from),
  judged: 'onceOpen',
});
const school = (id: string, label: string, limits: readonly Limit[], unseen: readonly string[] = []): School => ({
  id,
  label,
  limits,
  unseen,
});
/** The only way of a goal nobody quarrels over. */
const usual = (limits: readonly Limit[]): readonly [School] => [school('usual', 'Usual limits', limits)];

const NO_CHLORINE = limit('chlorineMgL', null, 0.02, 'Kills livestock and membranes');
const dH = (degrees: number): number => degrees * MG_L_PER_DH;
const microgram = (amount: number): number => amount / 1000;

const astm = (id: string, label: string, ec: number, sodium: number, chloride: number, silica: number | null, toc: number | null): School =>
  school(
    `astm-${id}`,
    label,
    [
      limit('ec25UScm', null, ec, `${Number((1 / ec).toPrecision(2))} MΩ·cm at 25 °C`, ASTM),
      limit('sodiumMgL', null, microgram(sodium), `${sodium} µg/L`, ASTM),
      limit('chlorideMgL', null, microgram(chloride), `${chloride} µg/L`, ASTM),
      ...(silica === null ? [] : [limit('silicaMgL', null, microgram(silica), `${silica} µg/L`, ASTM)]),
      ...(id === 'IV' ? [limit('pH', 5, 8, 'Only this grade has a pH', ASTM)] : []),
    ],
    [
      // By conductivity the third type is purer than the second, which is made by distillation.
      ...(id === 'II' ? ['made by distillation'] : []),
      ...(toc === null ? [] : [`organic carbon at most ${toc} µg/L`]),
      ...(id === 'I' ? ['cannot be verified in a bottle, only in line'] : []),
    ],
  );

export const GOAL_ROWS: Readonly<Record<GoalId, GoalRow>> = {
  marineMakeUp: {
    label: 'Marine make-up',
    says: 'A blank slate for salt mix and top-up: nothing on the meter, and nothing a meter cannot see.',
    family: 'aquarium',
    heatedC: null,
    judgesProduct: true,
    living: true,
    schools: usual([
      limit('ec25UScm', null, 2, 'Reads 0 to 1 ppm'),
      limit('silicaMgL', null, 0.1, 'Feeds diatoms; no meter sees it'),
      limit('ammoniaMgL', null, 0.02, 'Passes the membrane at high pH'),
      limit('nitrateMgL', null, 0.2, 'Feeds algae'),
      limit('phosphateMgL', null, 0.02, 'Feeds algae'),
      NO_CHLORINE,
    ]),
    ppmSchools: [],
  },
  reefTank: {
    label: 'Reef tank, salt mixed in',
    says: 'The water of the tank itself: judged after the salt mix.',
    family: 'aquarium',
    heatedC: null,
    judgesProduct: false,
    living: true,
    schools: usual([
      limit('salinity', 34, 36, 'Open sea'),
      limit('alkalinityMgL', dH(7), dH(11), '7 to 11 °dKH; corals build with it'),
      limit('calciumMgL', 400, 450, 'Corals build with it'),
      limit('magnesiumMgL', 1250, 1400, 'Keeps calcium in solution'),
      limit('ammoniaMgL', null, 0.02, 'Poison to everything in the tank'),
      limit('phosphateMgL', null, 0.05, 'Feeds algae, stunts corals'),
      NO_CHLORINE,
    ]),
    ppmSchools: [],
  },
  softWaterBreeding: {
    label: 'Soft-water breeding',
    says: 'Low in everything but not empty: a little mineral must come back or be left in.',
    family: 'aquarium',
    heatedC: null,
    judgesProduct: false,
    living: true,
    schools: [
      school(
        'usual',
        'Usual limits',
        [
          limit('ec25UScm', 20, 150, 'Emptier, nothing buffers it'),
          limit('hardnessMgL', null, dH(4), 'Eggs fail in harder water'),
          limit('alkalinityMgL', null, dH(2), 'Holds the pH up'),
          NO_CHLORINE,
        ],
        ['pH 5 to 6.8 in the tank: peat, leaves or acid set it, not the water that is put in'],
      ),
    ],
    ppmSchools: [],
  },
  freshwaterCommunity: {
    label: 'Freshwater community tank',
    says: 'Middling water for mixed fish and plants, safe of chlorine and ammonia.',
    family: 'aquarium',
    heatedC: null,
    judgesProduct: false,
    living: true,
    schools: [
      school(
        'usual',
        'Usual limits',
        [
          limit('ec25UScm', 150, 600, 'Neither empty nor hard'),
          limit('hardnessMgL', dH(4), dH(15), '4 to 15 °dH'),
          limit('alkalinityMgL', dH(3), dH(10), 'Holds the pH steady'),
          limit('nitrateMgL', null, 25, 'Feeds algae, burdens fish'),
          limit('ammoniaMgL', null, 0.05, 'Poison once the pH rises'),
          NO_CHLORINE,
        ],
        ['pH 6.5 to 7.8 in the tank: what breathes in it sets that, not the water that is put in'],
      ),
    ],
    ppmSchools: [],
  },
  windowCleaning: {
    label: 'Window cleaning',
    says: 'Dries without a mark. Spots are minerals; each crew has its own limit.',
    family: 'cleaning',
    heatedC: null,
    judgesProduct: false,
    living: false,
    schools: usual([]),
    ppmSchools: [
      { ppm: 0, label: 'Strictly 0 at the brush' },
      { ppm: 10, label: 'Up to 10 is fine' },
      { ppm: 50, label: 'Run to 50, spots likely' },
    ],
  },
  laboratory: {
    label: 'Laboratory',
    says: 'Reagent water by one of the two standards, as conductivity at the outlet and traces no meter sees.',
    family: 'laboratory',
    heatedC: null,
    judgesProduct: false,
    living: false,
    schools: [
      astm('I', 'ASTM I', 0.056, 1, 1, 3, 50),
      astm('II', 'ASTM II', 1, 5, 5, 3, 50),
      astm('III', 'ASTM III', 0.25, 10, 10, 500, 200),
      astm('IV', 'ASTM IV', 5, 50, 50, null, null),
      school('iso-1', 'ISO 1', [limit('ec25UScm', null, 0.1, '10 MΩ·cm', ISO), limit('silicaMgL', null, 0.01, '10 µg/L', ISO)]),
      school(
        'iso-2',
        'ISO 2',
        [
          limit('ec25UScm', null, 1, '1 MΩ·cm', ISO),
          limit('silicaMgL', null, 0.02, '20 µg/L', ISO),
          limit('residueMgL', null, 1, 'After drying', ISO),
        ],
        ['oxidisable matter at most 0.08 mg/L as oxygen'],
      ),
      school(
        'iso-3',
        'ISO 3',
        [
          limit('ec25UScm', null, 5, '0.2 MΩ·cm', ISO),
          limit('pH', 5, 7.5, 'Only this grade has a pH', ISO),
          limit('residueMgL', null, 2, 'After drying', ISO),
        ],
        ['oxidisable matter at most 0.4 mg/L as oxygen'],
      ),
    ],
    ppmSchools: [],
  },
  espresso: {
    label: 'Espresso machine',
    says: 'Enough hardness for taste, too little to scale the boiler, little chloride.',
    family: 'beverage',
    heatedC: 125,
    judgesProduct: false,
    living: false,
    schools: usual([
      limit('hardnessMgL', 50, 175, 'Taste below, scale above', EUROPEAN),
      limit('alkalinityMgL', 40, 75, 'Sour below, dull and scaling above', EUROPEAN),
      pH(6.5, 8, 'Corrosion below', EUROPEAN),
      limit('chlorideMgL', null, 50, 'Pits stainless boilers; careful makers ask 30'),
      limit('boilerScaleMgL', null, 10, 'Lime dropped at 125 °C, closed', 'ours'),
      limit('chlorineMgL', null, 0.05, 'Tastes, and eats seals'),
    ]),
    ppmSchools: [],
  },
  brewWater: {
    label: 'Brewed coffee and tea',
    says: 'Minerals that carry taste, and no smell.',
    family: 'beverage',
    heatedC: 95,
    judgesProduct: false,
    living: false,
    schools: [
      school('american', 'American, 2009', [
        limit('tdsMgL', 75, 250, 'Target 150', AMERICAN),
        limit('calciumHardnessMgL', 17, 85, 'Target 68', AMERICAN),
        limit('alkalinityMgL', 30, 50, 'About 40; the span is ours', AMERICAN),
        pH(6.5, 7.5, 'Target 7.0', AMERICAN),
        limit('sodiumMgL', null, 30, 'About 10; the span is ours', AMERICAN),
        limit('chlorineMgL', null, 0.05, 'None to be tasted', AMERICAN),
      ]),
      school('european', 'European chart', [
        limit('hardnessMgL', 50, 175, 'Taste below, scale above', EUROPEAN),
        limit('alkalinityMgL', 40, 75, 'Sour below, dull above', EUROPEAN),
        pH(6.5, 8, 'Within drinking water', EUROPEAN),
        limit('chlorineMgL', null, 0.05, 'None to be tasted'),
      ]),
    ],
    ppmSchools: [],
  },
  steamOven: {
    label: 'Steam oven',
    says: 'Soft enough for the generator, not so pure that it cannot sense the level.',
    family: 'beverage',
    heatedC: 100,
    judgesProduct: false,
    living: false,
    schools: [
      school('strict', 'Strict makers', [
        limit('hardnessMgL', null, 50, 'Scale in the generator'),
        limit('chlorideMgL', null, 25, 'Pits the cavity'),
        pH(7, 8.5, 'Corrosion below'),
        limit('ec25UScm', 30, null, 'Level is sensed electrically'),
      ]),
      school('tolerant', 'Tolerant makers', [
        limit('hardnessMgL', null, 125, 'Scale in the generator'),
        limit('chlorideMgL', null, 80, 'Pits the cavity'),
        pH(7, 8.5, 'Corrosion below'),
        limit('ec25UScm', 30, null, 'Level is sensed electrically'),
      ]),
    ],
    ppmSchools: [],
  },
  ice: {
    label: 'Ice',
    says: 'Clear, hard cubes: few minerals, no chlorine, still enough to sense the level.',
    family: 'beverage',
    heatedC: null,
    judgesProduct: false,
    living: false,
    schools: usual([
      limit('tdsMgL', 10, 150, 'Cloudy cubes above'),
      limit('hardnessMgL', null, 100, 'White cubes and scaled plates above'),
      limit('ec25UScm', 10, null, 'Level is sensed electrically'),
      limit('chlorineMgL', null, 0.05, 'Tastes, and eats the evaporator'),
    ]),
    ppmSchools: [],
  },
  drinking: {
    label: 'Drinking water',
    says: 'What health and taste ask of the minerals. Germs, lead and organics need their own tests.',
    family: 'drinking',
    heatedC: 60,
    judgesProduct: false,
    living: false,
    schools: [
      school('who', 'Health and taste', [
        limit('nitrateMgL', null, 50, 'Infants', WHO),
        limit('fluorideMgL', null, 1.5, 'Teeth and bones', WHO),
        limit('boronMgL', null, 2.4, 'Health', WHO),
        limit('chlorineMgL', null, 5, 'Health', WHO),
        limit('tdsMgL', null, 600, 'Good taste; 1000 is still drinkable', WHO),
        limit('chlorideMgL', null, 250, 'Taste', WHO),
        limit('sulfateMgL', null, 250, 'Taste', WHO),
        limit('sodiumMgL', null, 200, 'Taste', WHO),
      ]),
      school('remineralised', 'Membrane water, minerals back', [
        limit('calciumMgL', 20, null, 'Pure water should not be the only drink; 30 is better'),
        limit('alkalinityMgL', 40, null, 'Flat and corrosive below; 50 is better'),
        limit('tdsMgL', null, 600, 'Good taste', WHO),
        limit('nitrateMgL', null, 50, 'Infants', WHO),
        limit('sodiumMgL', null, 200, 'Taste', WHO),
      ]),
    ],
    ppmSchools: [],
  },
  watermaker: {
    label: 'Boat drinking water',
    says: 'From the sea, judged by what is left in it.',
    family: 'drinking',
    heatedC: null,
    judgesProduct: false,
    living: false,
    schools: [
      school('excellent', 'Excellent', [
        limit('tdsMgL', null, 300, 'Tastes of nothing'),
        limit('boronMgL', null, 2.4, 'Boric acid passes the membrane', WHO),
      ]),
      school('good', 'Good', [
        limit('tdsMgL', null, 600, 'Good to drink'),
        limit('boronMgL', null, 2.4, 'Boric acid passes the membrane', WHO),
      ]),
      school('last', 'Still drinkable', [
        limit('tdsMgL', null, 1000, 'To the drain above this'),
        limit('boronMgL', null, 2.4, 'Boric acid passes the membrane', WHO),
      ]),
    ],
    ppmSchools: [],
  },
  custom: {
    label: 'Limits of my own',
    says: 'Nothing given: set what this job asks for.',
    family: 'own',
    heatedC: null,
    judgesProduct: false,
    living: false,
    schools: usual([]),
    ppmSchools: [],
  },
};

const SET_HERE = 'Set for this job';

/** EC at 25 °C up to which a whole-ppm meter still shows the limit: half a step above it. */
export function ecOfShownPpm(ppm: number, ppmFactor: number): number {
  return (ppm + 0.5) / ppmFactor;
}

/** The school a goal is worked by; the goal's first when none was chosen. */
export function schoolOf(goal: Pick<Goal, 'id' | 'school'>): School {
  const { schools } = GOAL_ROWS[goal.id];
  return schools.find((candidate) => candidate.id === goal.school) ?? schools[0];
}

/** The limits of a goal, strictest concern first; what this crew set itself stands in place of the school's. */
export function goalLimits(goal: Pick<Goal, 'id' | 'school' | 'crewLimitPpm' | 'ownLimits'>, ppmFactor: number): Limit[] {
  const given: readonly Limit[] =
    goal.id === 'windowCleaning'
      ? [
          limit(
            'ec25UScm',
            null,
            ecOfShownPpm(goal.crewLimitPpm ?? 0, ppmFactor),
            `Reads ${goal.crewLimitPpm ?? 0} ppm at the brush`,
            goal.crewLimitPpm === null ? TRADE : 'this crew',
          ),
        ]
      : schoolOf(goal).limits;
  const own = new Map(goal.ownLimits.map((set) => [set.quantity, set]));
  const changed = given.map((base) => {
    const set = own.get(base.quantity);
    if (!set) return base;
    // A reason that names the school's own figure is no reason for another one.
    const because = set.high === base.high && set.low === base.low ? base.because : SET_HERE;
    return { ...base, low: set.low, high: set.high, origin: 'this crew', because: goal.id === 'laboratory' ? because : base.because };
  });
  const added = goal.ownLimits
    .filter((set) => !given.some((base) => base.quantity === set.quantity))
    .map((set) => limit(set.quantity, set.low, set.high, SET_HERE, 'this crew'));
  return [...changed, ...added];
}
