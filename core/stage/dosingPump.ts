import { z } from 'zod';
import {
  AGENTS,
  doseForPH,
  dosesMlPerH,
  EVEN_STROKES,
  limitsAtDose,
  stockGPerL,
  sulfiteForChlorine,
  tankDays,
  withAgent,
  type Agent,
} from '../dosing';
import { formatQuantity, inSentence, maybe, measured, ok, percent, THIN, words, type Outcome } from '../quantity';
import type { Water } from '../water';
import { keysOf } from './field';
import { findingsOn, type Finding } from './finding';
import { allPasses, anyStage, asFitted, defineStage, fitted, keepsAll, neverOpen, zero, type Standing, threaded } from './kind';
import { LOCAL_CODE, phBehind, seen, type Caution } from './step';

const schema = z.strictObject({
  kind: z.literal('dosingPump'),
  ...anyStage,
  agent: z.enum(AGENTS),
  /** Of the agent, as 100 %; antiscalant as it is sold. */
  doseMgL: measured('concentrationMgL', 0, 200),
  /** Acid or caustic dosed to a pH; null where it goes by the dose. */
  targetPH: maybe(measured('ph', 4, 10.5)),
  /** Antiscalant that gives its full effect, by its sheet. */
  fullDoseMgL: measured('concentrationMgL', 0.5, 20),
  /** Stock as it stands in its tank. */
  stockPercent: measured('fraction', 0.0001, 1),
  stockKgPerL: measured('densityKgPerL', 0.8, 2),
  tankL: measured('volumeL', 0.5, 5000),
  /** Most the pump gives. */
  mostLPerH: measured('flowLPerH', 0.001, 1000),
  ...fitted,
});
type DosingPump = z.infer<typeof schema>;
const field = keysOf<DosingPump>(schema.shape);

const AGENT_WORDS: Readonly<Record<Agent, string>> = {
  antiscalant: 'Antiscalant',
  hydrochloricAcid: 'Hydrochloric acid',
  sulfuricAcid: 'Sulfuric acid',
  causticSoda: 'Caustic soda',
  bisulfite: 'Bisulfite, against chlorine',
};
const toPH = (agent: Agent): agent is 'hydrochloricAcid' | 'sulfuricAcid' | 'causticSoda' =>
  agent !== 'antiscalant' && agent !== 'bisulfite';

/** Twice to three times what chlorine takes is dosed (common practice); excess above 3 mg/L leaves no oxygen. */
const SULFITE = { least: 2, over: 3 } as const;
/** More than its full dose by half precipitates and feeds growth; no sheet asks for more than 10 (common practice). */
const OVERDOSE = { times: 1.5, mgL: 10 } as const;
/** pH of caustic ahead of a second pass: ammonia passes above (common practice). */
const MOST_PH = 8.6;
/** Days a stock keeps, by its strength (common practice: bisulfite 2 % 3 days, 10 % a week, 20 % a month, 30 % half a year). */
const BISULFITE_KEEPS: readonly (readonly [percent: number, days: number])[] = [
  [0.02, 3],
  [0.1, 7],
  [0.2, 30],
  [1, 183],
];
/** Thinned antiscalant is renewed every week. */
const THINNED_DAYS = 7;
const PROVE_DAYS = 7;
const YEAR_DAYS = 365;

/** What is dosed into a water, mg/L. */
function doseOf({ agent, doseMgL, targetPH }: DosingPump, water: Water): Outcome<number> {
  return toPH(agent) && targetPH !== null ? doseForPH(water, agent, targetPH) : ok(doseMgL);
}
const known = (stage: DosingPump, water: Water): number => {
  const dose = doseOf(stage, water);
  return dose.ok ? dose.value : 0;
};
const stockOf = ({ stockPercent, stockKgPerL }: DosingPump): number => stockGPerL(100 * stockPercent, stockKgPerL);
/** Litres of stock an hour. */
const givesLPerH = (stage: DosingPump, water: Water, flowLPerH: number): number =>
  dosesMlPerH(flowLPerH, known(stage, water), stockOf(stage)) / 1000;

/** Days a tank of stock may stand. */
function keepsDays({ agent, stockPercent }: DosingPump): number | null {
  if (agent === 'bisulfite') return BISULFITE_KEEPS.find(([upTo]) => stockPercent <= upTo)![1];
  return agent === 'antiscalant' && stockPercent < 0.5 ? THINNED_DAYS : null;
}

/** Days until its tank is filled again: empty, or too old. */
function refillDays(stage: DosingPump, standing: Standing<DosingPump> | null): number | null {
  const perDay = standing ? (standing.litresPerDay * known(stage, standing.before.water)) / stockOf(stage) / 1000 : 0;
  const empty = perDay > 0 ? tankDays(stage.tankL, 1000 * perDay, 1) : null;
  const old = keepsDays(stage);
  return empty === null ? old : old === null ? empty : Math.min(empty, old);
}

function findings({ stage, before, after, units }: Standing<DosingPump>): Finding[] {
  const { water, flowLPerH } = before;
  if (!(flowLPerH > 0)) return [];
  const say = words(units);
  const { found, add } = findingsOn(stage.id);
  const dose = known(stage, water);
  const gives = givesLPerH(stage, water, flowLPerH);
  const stroke = gives / stage.mostLPerH;
  if (dose === 0) {
    add(
      'dose-none',
      'mind',
      `${stage.name} has nothing to do`,
      stage.targetPH === null
        ? 'Its dose is 0.'
        : `The water stands at pH ${before.state.pH.toFixed(1)} already, on the other side of pH ${stage.targetPH.toFixed(1)}.`,
    );
    return found;
  }
  const rate = `${(1000 * gives).toFixed(gives < 0.01 ? 1 : 0)}${THIN}mL/h`;
  if (stroke > 1)
    add(
      'dose-small',
      'bad',
      `${stage.name} cannot give ${rate}`,
      `It gives ${say.of(stage.mostLPerH, 'flowLPerH')} at the most: a stronger stock, or a larger pump.`,
    );
  else
    add(
      'dose',
      stroke < EVEN_STROKES.least || stroke > EVEN_STROKES.most ? 'mind' : 'note',
      `${stage.name} gives ${rate}, ${percent(stroke)} of its most`,
      stroke < EVEN_STROKES.least
        ? `Below ${percent(EVEN_STROKES.least)} it doses unevenly: thin the stock, or take a smaller pump.`
        : stroke > EVEN_STROKES.most
          ? `Above ${percent(EVEN_STROKES.most)} nothing is left in reserve: a stronger stock.`
          : `${say.mgL(dose)} from a stock of ${stockOf(stage).toFixed(0)}${THIN}g/L. A pump that lost its prime looks alive: prove it every week by the fall of its tank.`,
    );
  if (stage.agent === 'antiscalant') {
    const most = Math.min(OVERDOSE.mgL, OVERDOSE.times * stage.fullDoseMgL);
    if (dose > most)
      add(
        'dose-over',
        'mind',
        `${say.mgL(dose)} of antiscalant is too much`,
        `Above ${say.mgL(most)} it falls out with iron and aluminium and feeds growth.`,
      );
    else if (dose < stage.fullDoseMgL)
      add(
        'dose-part',
        'note',
        `${percent(dose / stage.fullDoseMgL)} of the full dose`,
        'It holds so much less scale; limits are within a third.',
      );
  }
  if (stage.agent === 'bisulfite') {
    const needed = sulfiteForChlorine(water.mgL);
    if (needed > 0 && dose < SULFITE.least * needed)
      add(
        'dose-chlorine',
        dose < needed ? 'bad' : 'mind',
        `${say.mgL(dose)} of bisulfite is little for ${say.mgL(water.mgL.chlorine + water.mgL.chloramine)} of chlorine`,
        `It takes ${say.mgL(needed)}; two to three times as much is dosed, with 20 to 30 seconds to mix. Proof: total chlorine below 0.02${THIN}mg/L.`,
      );
    else if (dose - needed > SULFITE.over)
      add(
        'dose-excess',
        'mind',
        `Bisulfite is over by ${say.mgL(dose - needed)}`,
        'Water without oxygen grows slime and smells: less of it.',
      );
  }
  if (stage.agent === 'causticSoda' && after.state.pH > MOST_PH)
    add(
      'dose-ph',
      'mind',
      `pH ${after.state.pH.toFixed(1)} lets ammonia through a membrane`,
      `${MOST_PH} is the most; see that hardness there is below 1 to 2${THIN}mg/L.`,
    );
  return found;
}

const ACID_CAUTION: Caution = {
  title: 'Acid and caustic burn',
  text: 'Goggles, gloves, apron, an eyewash in reach. Acid into water, never water into acid; never acid near hypochlorite or bisulfite.',
};
const FUMES: Caution = { title: 'Bisulfite fumes', text: 'Sulfur dioxide comes off: air the room. Never near acid or hypochlorite.' };
const cautionsOf = (agent: Agent): readonly Caution[] => (toPH(agent) ? [ACID_CAUTION, LOCAL_CODE] : agent === 'bisulfite' ? [FUMES] : []);

/** A pump that doses from a tank: antiscalant, acid, caustic or bisulfite. */
export const dosingPump = defineStage(schema, {
  kind: 'dosingPump',
  label: 'Dosing pump',
  says: 'Antiscalant, acid, caustic or bisulfite',
  place: 4,
  defaults: {
    kind: 'dosingPump',
    name: 'Dosing pump',
    agent: 'antiscalant',
    doseMgL: 3,
    targetPH: null,
    fullDoseMgL: 3,
    stockPercent: 0.1,
    stockKgPerL: 1.05,
    tankL: 25,
    mostLPerH: 0.1,
    fittedOn: null,
  },
  form: 'machine',
  touches: ({ agent }) => (agent === 'antiscalant' ? 'nothing' : agent === 'bisulfite' ? 'traces' : 'minerals'),
  prefilter: false,
  inUses: false,
  holdsScale: ({ agent, doseMgL, fullDoseMgL }) => (agent === 'antiscalant' ? limitsAtDose(doseMgL / fullDoseMgL) : null),
  treat: (stage, { water }) => {
    const dose = doseOf(stage, water);
    return dose.ok ? ok({ water: withAgent(water, stage.agent, dose.value) }) : dose;
  },
  slopeBar: zero,
  riseBar: zero,
  breaksPressure: neverOpen,
  mounting: ({ tankL }) => ({ wetKg: 4 + 1.2 * tankL, wallM: 0.4 }),
  price: (_stage, { piece }) => piece('dosingPump'),
  costLine: 'prefilters',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: (stage, { before, litresPerDay }) => [{ piece: stage.agent, kgPerDay: (litresPerDay * known(stage, before.water)) / 1e6 }],
  buys: (_stage, { piece }) => piece('dosingPump'),
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: (stage, { standing }) => {
    const { id, name, agent } = stage;
    const small = inSentence(name);
    const rate = standing ? givesLPerH(stage, standing.before.water, standing.before.flowLPerH) : null;
    return [
      {
        id: `dose-${id}`,
        act: 'flushCartridge',
        place: 'cartridges',
        title: `Prime ${small} and prove what it gives`,
        before: 'Water runs past its injection: it must not dose into standing water.',
        how: `${agent === 'antiscalant' ? 'Inject behind the cartridge filter.' : 'Ten diameters of pipe or a mixer behind its injection.'} Fill its tank, bleed the pump, let it draw from a measuring cylinder for ten minutes. It runs only while the feed pump does.`,
        minutes: 20,
        cautions: cautionsOf(agent),
        measures: [
          ...(rate === null
            ? []
            : [
                {
                  id: 'rate',
                  label: `What ${small} gives`,
                  dimension: 'flowLPerH' as const,
                  unit: 'mL/min',
                  expected: rate,
                  low: (1 - PROVED_WITHIN) * rate,
                  high: (1 + PROVED_WITHIN) * rate,
                  because: `by its dose and a stock of ${stockOf(stage).toFixed(0)}${THIN}g/L, within ${percent(PROVED_WITHIN)}`,
                  ifLow: 'Air in its head, a valve that sticks, a stroke set short: bleed it, set it again.',
                  ifHigh: 'Its stroke is set long, or the line siphons: is its injection valve sprung?',
                },
              ]),
          seen('interlock', 'It stops when the feed stops', 'It must: what is dosed into a resting membrane falls out there.'),
        ],
      },
      ...(toPH(agent)
        ? [
            {
              id: `dose-ph-${id}`,
              act: 'flushCartridge' as const,
              place: 'cartridges' as const,
              title: `Read pH behind ${small}`,
              how: 'Fresh and closed. Conductivity hardly tells: pH or alkalinity does.',
              minutes: 5,
              measures: [
                phBehind(small, standing?.after.state.pH ?? null, PH_WITHIN, {
                  because: 'by the model and what it doses',
                  ifLow:
                    agent === 'causticSoda'
                      ? 'Too little caustic: prove the pump again.'
                      : 'Too much acid: stop it before the membrane is hurt.',
                  ifHigh:
                    agent === 'causticSoda' ? 'Too much caustic: set it back.' : 'Too little acid: scale settles. Prove the pump again.',
                }),
              ],
            },
          ]
        : []),
      ...(agent === 'bisulfite'
        ? [
            {
              id: `dose-chlorine-${id}`,
              act: 'flushCartridge' as const,
              place: 'cartridges' as const,
              title: `Test total chlorine behind ${small}`,
              how: 'A strip for total chlorine, half a minute behind its injection.',
              minutes: 5,
              measures: [seen('none', 'No chlorine shows', 'More bisulfite, or more time to mix. Chloramine takes a minute.')],
            },
          ]
        : []),
    ];
  },
  plumbed: () => ({ ...threaded('1/2'), powered: true }),
  tools: ({ agent }) => [
    'Measuring cylinder',
    ...(toPH(agent) ? ['pH meter'] : agent === 'bisulfite' ? ['Strips for total chlorine'] : []),
  ],
  partGroup: 'cartridges',
  parts: (stage, { prices, units }) => [
    {
      part: 'dosing-pump',
      name: `Dosing pump with a tank of ${formatQuantity(stage.tankL, 'volumeL', units).text}`,
      why: AGENT_WORDS[stage.agent].toLowerCase(),
      count: 1,
      each: prices.piece('dosingPump'),
    },
    {
      part: `stock-${stage.agent}`,
      name: stage.agent === 'antiscalant' ? AGENT_WORDS.antiscalant : `${AGENT_WORDS[stage.agent].split(',')[0]!}, as 100${THIN}%`,
      why: 'fills its tank',
      count: (stockOf(stage) * stage.tankL) / 1000,
      unit: 'kg',
      each: prices.piece(stage.agent),
    },
    { part: 'injection-valve', name: 'Injection valve with a spring', why: 'nothing siphons', count: 1 },
    { part: 'dosing-diaphragm', name: 'Diaphragm and valves of the pump', why: 'yearly', count: 1 },
    { part: 'level-switch', name: 'Level or flow switch', why: 'a pump without prime looks alive', count: 1 },
  ],
  upkeep: (stage, standing) => {
    const days = refillDays(stage, standing);
    return [
      { says: 'prove the rate of', work: 'compared', everyDays: PROVE_DAYS },
      ...(days === null ? [] : [{ says: 'stock of', work: 'refilled' as const, everyDays: Math.max(1, days), takes: 0 }]),
      { says: 'diaphragm and valves of', work: 'cleaned', everyDays: YEAR_DAYS },
    ];
  },
  faults: () => ['doseLost'],
  wears: { years: 1, causes: ['doseLost'] },
  raises: ['doseLost'],
  findings,
  facts: ({ worn, before, units }) => {
    if (!before) return [];
    const dose = known(worn, before.water);
    const gives = givesLPerH(worn, before.water, before.flowLPerH);
    return [
      ['Doses', words(units).mgL(dose)],
      ['Gives', formatQuantity(gives, 'flowLPerH', units).text],
      ['Stock', `${stockOf(worn).toFixed(0)}${THIN}g/L`],
      ...(gives > 0 ? [['A tank lasts, running without pause', words(units).days(tankDays(worn.tankL, 1000 * gives, 24))] as const] : []),
    ];
  },
  fill: zero,
  fields: (stage) => ({
    choices: [
      field.choice(
        stage,
        'agent',
        'What it doses',
        AGENTS.map((value) => ({ title: AGENT_WORDS[value], value })),
      ),
    ],
    quantities: [
      field.quantity(stage, 'doseMgL', stage.agent === 'antiscalant' ? 'Dose, as sold' : 'Dose, as 100 %'),
      ...(toPH(stage.agent) ? [field.quantity(stage, 'targetPH', 'Dosed to pH', { empty: 'by its dose' })] : []),
      ...(stage.agent === 'antiscalant' ? [field.quantity(stage, 'fullDoseMgL', 'Full dose, by its sheet')] : []),
      field.quantity(stage, 'stockPercent', 'Stock, by weight', { unit: '%' }),
      field.quantity(stage, 'mostLPerH', 'Most the pump gives', { unit: 'mL/min', folded: true }),
      field.quantity(stage, 'stockKgPerL', 'Density of the stock', { folded: true }),
      field.quantity(stage, 'tankL', 'Its tank', { folded: true }),
    ],
  }),
  folded: 'Pump and tank',
});

/** How near it has to be proved, and how near a pH has to stand. */
const PROVED_WITHIN = 0.15;
const PH_WITHIN = 0.3;
