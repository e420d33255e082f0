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
  /** Our own; figures of a standard or an association one can start from; or one that only older files name. */
  readonly kind: 'own' | 'copy' | 'kept';
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
/** Figures of a document nobody copied out here. */
const COPY = 'from memory; check your copy';
const HEALTH = 'from memory; check the rules where you are';
const OURS = 'ours';

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
const school = (
  id: string,
  label: string,
  limits: readonly Limit[],
  unseen: readonly string[] = [],
  kind: School['kind'] = 'own',
): School => ({ id, label, limits, unseen, kind });
/** A standard's or an association's figures, to start from. */
const copied = (id: string, label: string, limits: readonly Limit[], unseen: readonly string[] = []): School =>
  school(id, label, limits, unseen, 'copy');
/** What older files were judged by, and no new one is. */
const kept = (id: string, label: string, limits: readonly Limit[]): School => school(id, label, limits, [], 'kept');
/** The only way of a goal nobody quarrels over. */
const usual = (limits: readonly Limit[]): readonly [School] => [school('usual', 'Usual limits', limits)];

const NO_CHLORINE = limit('chlorineMgL', null, 0.02, 'Kills livestock and membranes');
const dH = (degrees: number): number => degrees * MG_L_PER_DH;
const microgram = (amount: number): number => amount / 1000;

const astm = (id: string, label: string, ec: number, sodium: number, chloride: number, silica: number | null, toc: number | null): School =>
  copied(
    `astm-${id}`,
    label,
    [
      limit('ec25UScm', null, ec, `${Number((1 / ec).toPrecision(2))} MΩ·cm at 25 °C`, COPY),
      limit('sodiumMgL', null, microgram(sodium), `${sodium} µg/L`, COPY),
      limit('chlorideMgL', null, microgram(chloride), `${chloride} µg/L`, COPY),
      ...(silica === null ? [] : [limit('silicaMgL', null, microgram(silica), `${silica} µg/L`, COPY)]),
      ...(id === 'IV' ? [limit('pH', 5, 8, 'Only this grade has a pH', COPY)] : []),
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
    says: 'The resistivity the bench needs at its outlet, and traces no meter sees.',
    family: 'laboratory',
    heatedC: null,
    judgesProduct: false,
    living: false,
    schools: [
      school('general', 'General bench', [
        limit('ec25UScm', null, 1, '1 MΩ·cm: buffers, media, rinsing of glass', OURS),
        limit('silicaMgL', null, 0.02, 'Clouds what is evaporated', OURS),
      ]),
      school('fine', 'Fine analysis', [
        limit('ec25UScm', null, 0.1, '10 MΩ·cm: traces, chromatography', OURS),
        limit('silicaMgL', null, 0.01, 'First to leave the resin', OURS),
      ]),
      school('rinsing', 'Rinsing and humidifiers', [limit('ec25UScm', null, 5, '0.2 MΩ·cm: dries without a mark', OURS)]),
      astm('I', 'ASTM I', 0.056, 1, 1, 3, 50),
      astm('II', 'ASTM II', 1, 5, 5, 3, 50),
      astm('III', 'ASTM III', 0.25, 10, 10, 500, 200),
      astm('IV', 'ASTM IV', 5, 50, 50, null, null),
      copied('iso-1', 'ISO 1', [limit('ec25UScm', null, 0.1, '10 MΩ·cm', COPY), limit('silicaMgL', null, 0.01, '10 µg/L', COPY)]),
      copied(
        'iso-2',
        'ISO 2',
        [
          limit('ec25UScm', null, 1, '1 MΩ·cm', COPY),
          limit('silicaMgL', null, 0.02, '20 µg/L', COPY),
          limit('residueMgL', null, 1, 'After drying', COPY),
        ],
        ['oxidisable matter at most 0.08 mg/L as oxygen'],
      ),
      copied(
        'iso-3',
        'ISO 3',
        [
          limit('ec25UScm', null, 5, '0.2 MΩ·cm', COPY),
          limit('pH', 5, 7.5, 'Only this grade has a pH', COPY),
          limit('residueMgL', null, 2, 'After drying', COPY),
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
      limit('boilerScaleMgL', null, 10, 'Lime dropped at 125 °C, closed', OURS),
      limit('alkalinityMgL', 40, 80, 'Acid eats the boiler below; dull and scaling above', OURS),
      limit('hardnessMgL', 50, 170, 'Flat below, lime above', OURS),
      pH(6.5, 8, 'Copper and brass dissolve below', OURS),
      limit('chlorideMgL', null, 50, 'Pits stainless boilers; 30 is safer'),
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
      school('balanced', 'Balanced cup', [
        limit('hardnessMgL', 50, 170, 'Flat below, lime above', OURS),
        limit('alkalinityMgL', 40, 80, 'Sour below, dull above', OURS),
        pH(6.5, 8, 'Acid at the machine below', OURS),
        limit('chlorineMgL', null, 0.05, 'None to be tasted'),
      ]),
      copied('american', 'American association, 2009', [
        limit('tdsMgL', 75, 250, 'Target 150', COPY),
        limit('calciumHardnessMgL', 17, 85, 'Target 68', COPY),
        limit('alkalinityMgL', 30, 50, 'About 40; the span is ours', COPY),
        pH(6.5, 7.5, 'Target 7.0', COPY),
        limit('sodiumMgL', null, 30, 'About 10; the span is ours', COPY),
        limit('chlorineMgL', null, 0.05, 'None to be tasted', COPY),
      ]),
      copied('european', 'European association', [
        limit('hardnessMgL', 50, 175, 'Taste below, scale above', COPY),
        limit('alkalinityMgL', 40, 75, 'Sour below, dull above', COPY),
        pH(6.5, 8, 'Within drinking water', COPY),
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
      // What an oven bears is on its own sheet: typed from there, or not known.
      school('sheet', 'The oven’s own sheet', []),
      kept('strict', 'Stricter figures', [
        limit('hardnessMgL', null, 50, 'Scale in the generator'),
        limit('chlorideMgL', null, 25, 'Pits the cavity'),
        pH(7, 8.5, 'Corrosion below'),
        limit('ec25UScm', 30, null, 'Level is sensed electrically'),
      ]),
      kept('tolerant', 'Looser figures', [
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
        limit('nitrateMgL', null, 50, 'Infants', HEALTH),
        limit('fluorideMgL', null, 1.5, 'Teeth and bones', HEALTH),
        limit('boronMgL', null, 2.4, 'Health', HEALTH),
        limit('chlorineMgL', null, 5, 'Health', HEALTH),
        limit('tdsMgL', null, 600, 'Good taste; 1000 is still drinkable', HEALTH),
        limit('chlorideMgL', null, 250, 'Taste', HEALTH),
        limit('sulfateMgL', null, 250, 'Taste', HEALTH),
        limit('sodiumMgL', null, 200, 'Taste', HEALTH),
      ]),
      school('remineralised', 'Membrane water, minerals back', [
        limit('calciumMgL', 20, null, 'Pure water should not be the only drink; 30 is better'),
        limit('alkalinityMgL', 40, null, 'Flat and corrosive below; 50 is better'),
        limit('tdsMgL', null, 600, 'Good taste', HEALTH),
        limit('nitrateMgL', null, 50, 'Infants', HEALTH),
        limit('sodiumMgL', null, 200, 'Taste', HEALTH),
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
        limit('boronMgL', null, 2.4, 'Boric acid passes the membrane', HEALTH),
      ]),
      school('good', 'Good', [
        limit('tdsMgL', null, 600, 'Good to drink'),
        limit('boronMgL', null, 2.4, 'Boric acid passes the membrane', HEALTH),
      ]),
      school('last', 'Still drinkable', [
        limit('tdsMgL', null, 1000, 'To the drain above this'),
        limit('boronMgL', null, 2.4, 'Boric acid passes the membrane', HEALTH),
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
