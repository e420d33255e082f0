import { z } from 'zod';
import {
  ACIDS,
  ANION_TYPES,
  calciumInAcidMmolL,
  CATION_IDS,
  cationEqPerL,
  cationsMeqL,
  ionMeqL,
  MOST_CALCIUM_MMOL_L,
  pairChemicals,
  pairCycle,
  REGENERATION_WAYS,
  silicaSlipMgL,
  sodiumSlipMgL,
  strongAnionsMeqL,
  strongestAcidPercent,
  UNTAKEN,
  wasteAlkalinityEq,
  type PairLoad,
} from '../exchange';
import { CO2_G_PER_MOL } from '../gas';
import { formatQuantity, inSentence, maybe, measured, ok, percent, THIN, words } from '../quantity';
import { balanced, eachSolute, type Solute, type Water } from '../water';
import { cartridgeSlopeBar, VESSEL_BAR } from './cartridge';
import { keysOf } from './field';
import { findingsOn, type Finding } from './finding';
import { allPasses, anyStage, defineStage, fitted, holdsNothing, keepsAll, neverOpen, zero, type Standing, threaded } from './kind';
import { HEAVY, LOCAL_CODE, seen, type Caution } from './step';

const schema = z.strictObject({
  kind: z.literal('twoBed'),
  ...anyStage,
  cationL: measured('volumeL', 0.5, 5000),
  anionL: measured('volumeL', 0.5, 5000),
  acid: z.enum(ACIDS),
  anionType: z.enum(ANION_TYPES),
  way: z.enum(REGENERATION_WAYS),
  acidGPerL: measured('saltGPerL', 20, 320),
  causticGPerL: measured('saltGPerL', 20, 320),
  acidPercent: measured('fraction', 0.005, 0.1),
  causticPercent: measured('fraction', 0.01, 0.1),
  causticC: measured('temperatureC', 5, 60),
  /** Free CO2 a degasser between the beds leaves; null where none stands there. */
  degassedToMgL: maybe(measured('concentrationMgL', 0, 50)),
  /** Litres since they were regenerated; null where the log speaks. */
  madeL: maybe(measured('volumeL', 0, 100_000_000)),
  ...fitted,
});
type TwoBed = z.infer<typeof schema>;
const field = keysOf<TwoBed>(schema.shape);

const ACID_WORDS = { HCl: 'Hydrochloric acid', H2SO4: 'Sulfuric acid' } as const;
const ACID_PIECE = { HCl: 'hydrochloricAcid', H2SO4: 'sulfuricAcid' } as const;
const ANION_WORDS = { strongI: 'Strong base, type I', strongII: 'Strong base, type II', weakBase: 'Weak base' } as const;
const WAY_WORDS = { coCurrent: 'The way of the water', counterCurrent: 'Against the water' } as const;

/** The anion side should end this much later than the cation side: sodium shows on a meter, silica on none (common practice). */
const LATER = { least: 1.05, most: 1.3 } as const;
/** Sodium that slips raises what slips of silica, by half for each mg/L (common practice). */
const SILICA_BY_SODIUM = 0.5;
/** Hottest caustic the anion resins bear by long use (common practice), °C. */
const MOST_CAUSTIC_C = { strongI: 60, strongII: 35, weakBase: 50 } as const;
/** A cycle longer than this is no cycle, days. */
const IDLE_DAYS = 3650;
/** Years each resin serves (common practice). */
const ANION_DAYS = 1461;

/** Silica, boron and carbon meet the strong anion resin only. */
const WEAK: readonly Solute[] = ['SiO2', 'B'];
const CATIONS = new Set<Solute>(CATION_IDS);

const shareOf = (part: number, whole: number): number => (whole > 0 ? part / whole : 0);

/** Carbon that a degasser between the beds takes out: behind the cation bed all of it is CO2, mmol/L. */
const degassedMmolL = ({ degassedToMgL }: TwoBed, water: Water): number =>
  degassedToMgL === null ? 0 : Math.max(0, water.carbonMmolL - degassedToMgL / CO2_G_PER_MOL);

const loadOf = (water: Water): PairLoad => ({
  cationMeqL: cationsMeqL(water),
  strongMeqL: strongAnionsMeqL(water),
  weakMeqL: ionMeqL(water, 'carbon') + ionMeqL(water, 'SiO2') + ionMeqL(water, 'B'),
});
const cycleOf = (stage: TwoBed, water: Water): ReturnType<typeof pairCycle> => pairCycle(stage, loadOf(water), degassedMmolL(stage, water));

/** What slips, and goes on as hydroxide: sodium, mg/L. */
const sodiumOf = (stage: TwoBed, water: Water): number =>
  Math.min(
    water.mgL.Na,
    sodiumSlipMgL(stage.acid, stage.way, stage.acidGPerL, {
      strongMeqL: strongAnionsMeqL(water),
      sodiumShare: shareOf(ionMeqL(water, 'Na'), cationsMeqL(water)),
    }),
  );
function silicaOf(stage: TwoBed, water: Water, sodiumMgL: number): number {
  const load = loadOf(water);
  const anions = load.strongMeqL + load.weakMeqL - degassedMmolL(stage, water);
  const slip = silicaSlipMgL(stage.way, stage.causticGPerL, shareOf(ionMeqL(water, 'SiO2'), anions), stage.causticC);
  return Math.min(water.mgL.SiO2, slip * (1 + SILICA_BY_SODIUM * sodiumMgL));
}

function treated(stage: TwoBed, water: Water): Water {
  const sodium = sodiumOf(stage, water);
  const weakBase = stage.anionType === 'weakBase';
  const mgL = eachSolute((solute) => {
    if (UNTAKEN.includes(solute)) return water.mgL[solute];
    if (solute === 'Na') return sodium;
    if (CATIONS.has(solute)) return 0;
    if (solute === 'SiO2') return weakBase ? water.mgL.SiO2 : silicaOf(stage, water, sodium);
    return weakBase && WEAK.includes(solute) ? water.mgL[solute] : 0;
  });
  const carbonMmolL = weakBase ? water.carbonMmolL - degassedMmolL(stage, water) : 0;
  return balanced(mgL, carbonMmolL, water.temperatureC);
}

/** Acid and alkali a day, and the water of it, by how often it is regenerated. */
function daily(
  stage: TwoBed,
  { before, litresPerDay }: Pick<Standing<TwoBed>, 'before' | 'litresPerDay'>,
): {
  readonly acidKg: number;
  readonly causticKg: number;
  readonly waterL: number;
} {
  const { litres } = cycleOf(stage, before.water);
  const times = litres && litres > 0 ? litresPerDay / litres : 0;
  const { acidKg, causticKg, waterL } = chemicalsOf(stage);
  return { acidKg: times * acidKg, causticKg: times * causticKg, waterL: times * waterL };
}
const chemicalsOf = (stage: TwoBed): ReturnType<typeof pairChemicals> =>
  pairChemicals(stage, { acidPercent: 100 * stage.acidPercent, causticPercent: 100 * stage.causticPercent });

function findings({ stage, before, litresPerDay, units }: Standing<TwoBed>): Finding[] {
  const { water } = before;
  const cycle = cycleOf(stage, water);
  if (cycle.litres === null) return [];
  const say = words(units);
  const small = inSentence(stage.name);
  const { found, add } = findingsOn(stage.id);
  const days = litresPerDay > 0 ? cycle.litres / litresPerDay : null;
  if (days !== null && days > IDLE_DAYS) {
    add('two-bed', 'note', `${stage.name} has next to nothing to take`, `It would be regenerated once in ${say.days(days)}.`);
    return found;
  }
  const { acidKg, causticKg, waterL } = chemicalsOf(stage);
  const net = wasteAlkalinityEq(stage, loadOf(water), cycle.litres);
  add(
    'two-bed',
    days !== null && days < 0.5 ? 'bad' : days !== null && days < 1 ? 'mind' : 'note',
    `${stage.name} makes ${say.about(cycle.litres, 'volumeL')} between two regenerations${days === null ? '' : `, ${say.days(Math.max(1, days))}`}`,
    `Each takes ${say.kg(acidKg)} of acid and ${say.kg(causticKg)} of caustic as 100${THIN}%, and ${say.about(waterL, 'volumeL')} of water. The joined waste is ${net >= 0 ? 'alkaline' : 'acid'} by ${Math.abs(net).toFixed(0)}${THIN}eq: bring it to pH 6 to 10, by local rules. Capacities within a tenth.`,
  );
  if (cycle.cationL !== null && cycle.anionL !== null && stage.anionType !== 'weakBase') {
    const later = cycle.anionL / cycle.cationL;
    if (later < LATER.least)
      add(
        'two-bed-silica',
        'mind',
        `The anion bed of ${small} ends before the cation bed`,
        `At ${say.about(cycle.anionL, 'volumeL')} against ${say.about(cycle.cationL, 'volumeL')}: silica breaks through, and no meter shows it. More anion resin, more caustic${stage.degassedToMgL === null ? ', or a degasser between the beds' : ''}.`,
      );
    else if (later > LATER.most)
      add(
        'two-bed-anion',
        'note',
        `The anion bed of ${small} is larger than it needs to be`,
        `It ends ${percent(later - 1)} later; 5 to 15${THIN}% is enough.`,
      );
  }
  if (stage.acid === 'H2SO4') {
    const calcium = shareOf(ionMeqL(water, 'Ca'), cationsMeqL(water));
    const capacity = cationEqPerL(stage.acid, stage.way, stage.acidGPerL);
    const spent = calciumInAcidMmolL(stage.acidGPerL, 100 * stage.acidPercent, calcium, capacity);
    if (spent > MOST_CALCIUM_MMOL_L) {
      const strongest = strongestAcidPercent(stage.acidGPerL, calcium, capacity);
      add(
        'two-bed-gypsum',
        'bad',
        `Gypsum falls out in the cation bed of ${small}`,
        `${percent(calcium)} of the cations are calcium: acid of ${strongest.toFixed(1)}${THIN}% at the most, faster, in two steps; or hydrochloric acid.`,
      );
    }
  }
  if (stage.causticC > MOST_CAUSTIC_C[stage.anionType])
    add(
      'two-bed-hot',
      'mind',
      `Caustic of ${say.of(stage.causticC, 'temperatureC')} ages ${ANION_WORDS[stage.anionType].toLowerCase()} resin`,
      `At most ${say.of(MOST_CAUSTIC_C[stage.anionType], 'temperatureC')}.`,
    );
  if (water.mgL.chlorine > 0.1)
    add(
      'two-bed-chlorine',
      'mind',
      `Chlorine oxidises the cation resin of ${small}`,
      `${say.mgL(water.mgL.chlorine)} reach it: carbon ahead.`,
    );
  return found;
}

const CHEMICALS: Caution = {
  title: 'Acid and caustic',
  text: 'Goggles, gloves, apron, an eyewash in reach. Acid into water, never water into acid. Caustic heats when diluted and turns solid below 12 to 16 °C at 50 %. Store them apart, and hypochlorite away from acid: it gives chlorine gas.',
};
const CARBONIC: Caution = {
  title: 'Ventilate the pit',
  text: 'CO₂ comes off where acid waste meets carbonate. Waste goes to the drain between pH 6 and 10, by local rules.',
};

/** A cation bed and an anion bed, each in its vessel, regenerated where they stand. */
export const twoBed = defineStage(schema, {
  kind: 'twoBed',
  label: 'Two-bed deionizer',
  says: 'Cation and anion resin, regenerated in place',
  place: 8,
  defaults: {
    kind: 'twoBed',
    name: 'Two-bed deionizer',
    cationL: 20,
    anionL: 30,
    acid: 'HCl',
    anionType: 'strongI',
    way: 'coCurrent',
    acidGPerL: 80,
    causticGPerL: 80,
    acidPercent: 0.05,
    causticPercent: 0.04,
    causticC: 20,
    degassedToMgL: null,
    madeL: null,
    fittedOn: null,
  },
  form: 'vessel',
  touches: () => 'salt',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: (stage, { water }) => ok({ water: treated(stage, water) }),
  slopeBar: cartridgeSlopeBar,
  riseBar: zero,
  holdsBar: () => VESSEL_BAR,
  breaksPressure: neverOpen,
  mounting: ({ cationL, anionL }) => ({ wetKg: 20 + 1.6 * (cationL + anionL), wallM: 1.2 }),
  price: (stage, { resinPerL }) => (stage.cationL + stage.anionL) * resinPerL,
  costLine: 'resin',
  drainShare: (stage, standing) => (standing.litresPerDay > 0 ? daily(stage, standing).waterL / standing.litresPerDay : 0),
  keeps: keepsAll,
  powerW: zero,
  chemicals: (stage, standing) => {
    const { acidKg, causticKg } = daily(stage, standing);
    return [
      { piece: ACID_PIECE[stage.acid], kgPerDay: acidKg },
      { piece: 'causticSoda', kgPerDay: causticKg },
    ];
  },
  buys: (_stage, { piece }) => piece('pairOfBeds'),
  worn: (stage, { passedL }) => (stage.madeL !== null || passedL === undefined ? stage : { ...stage, madeL: passedL }),
  renewed: (stage) => ({ ...stage, madeL: null }),
  dirtPassed: allPasses,
  steps: (stage, { standing, meterStepUScm, units }) => {
    const { id, name } = stage;
    const small = inSentence(name);
    const say = words(units);
    const { acidKg, causticKg } = chemicalsOf(stage);
    const expected = standing?.after.state.ec25UScm ?? null;
    return [
      {
        id: `beds-fill-${id}`,
        act: 'pack',
        place: 'resin',
        title: `Fill both vessels of ${small}`,
        how: `${formatQuantity(stage.cationL, 'volumeL', units).text} of cation resin first in the water's way, ${formatQuantity(stage.anionL, 'volumeL', units).text} of anion resin behind it. Room to backwash above each; a strainer at each outlet.`,
        minutes: 60,
        cautions: [HEAVY],
        measures: [
          seen(
            'room',
            'Backwashed until clear, no resin at the outlet',
            'Resin in the outlet: the strainer leaks. Shut down and exchange it.',
          ),
        ],
      },
      {
        id: `beds-regenerate-${id}`,
        act: 'rinse',
        place: 'resin',
        title: `Regenerate ${small} once`,
        before: 'Both beds are backwashed; waste is led to where it can be neutralised.',
        how: `${say.kg(acidKg)} of ${ACID_WORDS[stage.acid].toLowerCase()} as 100${THIN}% at ${percent(stage.acidPercent)}, ${say.kg(causticKg)} of caustic soda at ${percent(stage.causticPercent)}, each over half an hour; slow rinse two and a half bed volumes, fast rinse 5 and 8.`,
        minutes: 120,
        waits: true,
        cautions: [CHEMICALS, CARBONIC, LOCAL_CODE],
        measures: [
          {
            id: 'ec',
            label: `Meter behind ${small}`,
            dimension: 'conductivityUScm',
            expected,
            low: null,
            high: expected === null ? null : Math.max(SLIP_WITHIN * expected, meterStepUScm),
            doubt: { share: 0.03, least: meterStepUScm / 2 },
            because: 'by what slips after such a dose, within a factor of three',
            ifHigh: 'Rinse on. Still high: was the acid weak or short, the caustic cold, is a bed channelled?',
          },
        ],
      },
    ];
  },
  plumbed: () => ({ ...threaded('3/4'), drains: true }),
  tools: () => ['pH strips', 'Conductivity meter', 'Goggles, gloves, apron, eyewash'],
  partGroup: 'resin',
  parts: (stage, { prices, units }) => {
    const litres = (value: number): string => formatQuantity(value, 'volumeL', units).text;
    return [
      {
        part: 'cation-resin',
        name: 'Strong acid cation resin',
        why: 'fills its vessel',
        count: stage.cationL,
        unit: 'L',
        each: prices.resinPerL,
      },
      {
        part: `anion-resin-${stage.anionType}`,
        name: `${ANION_WORDS[stage.anionType]} anion resin`,
        why: 'fills its vessel',
        count: stage.anionL,
        unit: 'L',
        each: prices.resinPerL,
      },
      { part: `bed-${stage.cationL}`, name: `Vessel for ${litres(stage.cationL)} of resin`, why: 'cation', count: 1 },
      { part: `bed-${stage.anionL}`, name: `Vessel for ${litres(stage.anionL)} of resin`, why: 'anion', count: 1 },
      { part: 'acid-tank', name: 'Tank and ejector for acid', why: 'stored apart', count: 1 },
      { part: 'caustic-tank', name: 'Tank and ejector for caustic', why: 'stored apart', count: 1 },
    ];
  },
  upkeep: (stage, standing) => {
    const litres = standing ? cycleOf(stage, standing.before.water).litres : null;
    const left =
      litres === null || litres > IDLE_DAYS * standing!.litresPerDay
        ? {}
        : { litresNew: litres, litresLeft: Math.max(0, litres - (stage.madeL ?? 0)) };
    return [
      { says: 'regenerate', work: 'regenerated', ...left },
      { says: 'change', work: 'changed', afterDays: ANION_DAYS },
    ];
  },
  faults: () => ['regenerationShort', 'anionSpent'],
  wears: { years: 4, causes: ['anionSpent'] },
  raises: ['regenerationShort'],
  findings,
  facts: ({ worn, before, units }) => {
    if (!before) return [];
    const { water } = before;
    const sodium = sodiumOf(worn, water);
    const { cationL, anionL } = cycleOf(worn, water);
    const litres = (value: number | null): string => (value === null ? 'nothing to take' : formatQuantity(value, 'volumeL', units).text);
    return [
      ['Cation side lasts', litres(cationL)],
      ['Anion side lasts', litres(anionL)],
      ['Sodium that slips, within a factor of three', words(units).mgL(sodium)],
      [
        'Silica that slips, within a factor of three',
        words(units).mgL(worn.anionType === 'weakBase' ? water.mgL.SiO2 : silicaOf(worn, water, sodium)),
      ],
      ['Made since its regeneration', worn.madeL === null ? 'not known' : formatQuantity(worn.madeL, 'volumeL', units).text],
    ];
  },
  fill: ({ worn, before }) => {
    const litres = before ? cycleOf(worn, before.water).litres : null;
    return litres ? Math.min(1, (worn.madeL ?? 0) / litres) : 0;
  },
  fields: (stage) => {
    const items = <T extends string>(all: Readonly<Record<T, string>>): { title: string; value: string }[] =>
      Object.entries<string>(all).map(([value, title]) => ({ title, value }));
    return {
      choices: [
        field.choice(stage, 'acid', 'Acid', items(ACID_WORDS)),
        field.choice(stage, 'anionType', 'Kind of anion resin', items(ANION_WORDS)),
        field.choice(stage, 'way', 'Regenerated', items(WAY_WORDS)),
      ],
      quantities: [
        field.quantity(stage, 'cationL', 'Cation resin', { unit: 'L' }),
        field.quantity(stage, 'anionL', 'Anion resin', { unit: 'L' }),
        field.quantity(stage, 'acidGPerL', 'Acid for a litre of resin, as 100 %'),
        field.quantity(stage, 'causticGPerL', 'Caustic for a litre of resin, as 100 %'),
        field.quantity(stage, 'degassedToMgL', 'CO₂ a degasser between them leaves', { empty: 'none stands there' }),
        field.quantity(stage, 'acidPercent', 'Acid is used at', { unit: '%', folded: true }),
        field.quantity(stage, 'causticPercent', 'Caustic is used at', { unit: '%', folded: true }),
        field.quantity(stage, 'causticC', 'Caustic is as warm as', { folded: true }),
        field.quantity(stage, 'madeL', 'Made since its regeneration', { empty: 'by the log', folded: true }),
      ],
    };
  },
  folded: 'Strengths',
});

/** How far above the model a reading may stand. */
const SLIP_WITHIN = 3;
