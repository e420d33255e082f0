import { z } from 'zod';
import {
  ampsFor,
  CURRENT_SHARE,
  feedCountsUScm,
  hydrogenLPerH,
  ionMeqL,
  LOADED,
  loadOf,
  mostAmps,
  mostHardnessMgL,
  ohms,
  saltShare,
  STACK_FLOOR,
  stackLossBar,
  stackPasses,
  stackUnits,
  stackW,
  strongAnionsMeqL,
  UNTAKEN,
  voltsFor,
  type StackLoad,
} from '../exchange';
import { between, formatQuantity, inSentence, measured, maybe, ok, percent, THIN, words } from '../quantity';
import { balanced, eachSolute, type Water, type WaterState } from '../water';
import { SLOWEST_L_PER_H } from './cartridge';
import { keysOf } from './field';
import { findingsOn, type Finding } from './finding';
import { allPasses, anyStage, asFitted, defineStage, fitted, holdsNothing, neverOpen, none, zero, type Standing, threaded } from './kind';
import { seen, type Caution } from './step';

const schema = z.strictObject({
  kind: z.literal('electrodeionizer'),
  ...anyStage,
  /** Diluting cells in its flow. */
  cells: between(1, 500),
  nominalLPerH: measured('flowLPerH', 1, 100_000),
  /** Of what runs through it, what goes on as product; the electrodes' share counted with the waste. */
  recovery: measured('fraction', 0.5, 0.98),
  ratedV: measured('voltageV', 6, 1000),
  ratedA: measured('currentA', 0.05, 50),
  /** What its supply can give. */
  mostV: measured('voltageV', 6, 1000),
  /** Current it is set to. */
  amp: measured('currentA', 0, 50),
  /** Loss of the diluting cells at nominal flow and 25 °C. */
  lossBar: measured('pressureBar', 0.05, 6),
  /** Largest conductivity a feed may count as, by its sheet. */
  mostFeedUScm: measured('conductivityUScm', 1, 200),
  /** Share of the current that carries salt, set so that a measured silica or resistivity is met; null: as usual. */
  currentShare: maybe(measured('fraction', 0.05, 1)),
  ...fitted,
});
type Stack = z.infer<typeof schema>;
const field = keysOf<Stack>(schema.shape);

/** What a feed may hold (common practice): each ruins or starves a stack. */
const MOST = { chlorineMgL: 0.02, ironMgL: 0.01, co2MgL: 5, silicaMgL: 0.5 } as const;
/** Flows it runs evenly at, of its nominal one (common practice). */
const FLOWS = { least: 0.4, most: 1.3 } as const;
/** Serves 5 to 10 years (common practice). */
const SERVES_DAYS = 2557;

const stackOf = ({
  cells,
  nominalLPerH,
  currentShare,
}: Stack): Parameters<typeof stackUnits>[1] & { cells: number; currentShare: number } => ({
  cells,
  nominalLPerH,
  currentShare: currentShare ?? CURRENT_SHARE,
});
const ohmOf = ({ ratedV, ratedA }: Stack): number => ohms(ratedV, ratedA);
/** The current that flows: as it is set, as far as its supply drives it through water as cold as this. */
const ampsAt = (stage: Stack, temperatureC: number, years = 0): number =>
  Math.min(stage.amp, mostAmps(stage.mostV, ohmOf(stage), temperatureC, years));

const stackLoad = (water: Water): StackLoad => ({
  strongMeqL: strongAnionsMeqL(water),
  carbonMeqL: ionMeqL(water, 'carbon'),
  silicaMeqL: ionMeqL(water, 'SiO2'),
  boronMeqL: ionMeqL(water, 'B'),
});

/** Share of its resin that salt occupies. */
const shareOf = (stage: Stack, water: Water, flowLPerH: number, years = 0): number =>
  saltShare(loadOf(stackLoad(water)), flowLPerH, ampsAt(stage, water.temperatureC, years), stackOf(stage));

function treated(stage: Stack, water: Water, flowLPerH: number, years: number): Water {
  const flow = Math.max(flowLPerH, SLOWEST_L_PER_H);
  const passes = stackPasses(stackLoad(water), shareOf(stage, water, flow, years), stackUnits(flow, stackOf(stage), water.temperatureC));
  const mgL = eachSolute((solute) => {
    if (UNTAKEN.includes(solute)) return water.mgL[solute];
    if (solute === 'SiO2') return water.mgL.SiO2 * passes.silica + STACK_FLOOR.SiO2;
    if (solute === 'B') return water.mgL.B * passes.boron;
    const floor = solute === 'Na' ? STACK_FLOOR.Na : solute === 'Cl' ? STACK_FLOOR.Cl : 0;
    return water.mgL[solute] * passes.strong + floor;
  });
  return balanced(mgL, water.carbonMmolL * passes.carbon + STACK_FLOOR.carbonMmolL, water.temperatureC);
}

const counts = (water: Water, state: WaterState): number => feedCountsUScm(state.ec25UScm, state.co2MgL, water.mgL.SiO2);

function findings({ stage, before, units }: Standing<Stack>): Finding[] {
  const { water, state, flowLPerH } = before;
  if (!(flowLPerH > 0)) return [];
  const say = words(units);
  const small = inSentence(stage.name);
  const { found, add } = findingsOn(stage.id);
  const most = mostHardnessMgL(stage.recovery);
  if (state.hardnessMgL > most)
    add(
      'stack-hard',
      'bad',
      `Hardness ${say.of(state.hardnessMgL, 'hardnessMgL')} scales ${small}`,
      `At ${percent(stage.recovery)} recovery it bears ${say.of(most, 'hardnessMgL')}. A softener ahead of the membrane, a second pass, or more waste.`,
      state.hardnessMgL / most,
    );
  if (water.mgL.chlorine > MOST.chlorineMgL || water.mgL.chloramine > MOST.chlorineMgL)
    add(
      'stack-chlorine',
      'bad',
      `Chlorine destroys the resin in ${small}`,
      `${say.mgL(Math.max(water.mgL.chlorine, water.mgL.chloramine))} reach it, ${say.mgL(MOST.chlorineMgL)} is the most. It does not come back: carbon ahead of the membrane.`,
    );
  if (water.mgL.Fe > MOST.ironMgL)
    add(
      'stack-iron',
      'bad',
      `Iron ${say.mgL(water.mgL.Fe)} fouls ${small}`,
      `${say.mgL(MOST.ironMgL)} is the most: take it out ahead of the membrane.`,
    );
  const counted = counts(water, state);
  if (counted > stage.mostFeedUScm)
    add(
      'stack-feed',
      'mind',
      `Its feed counts ${say.of(counted, 'conductivityUScm')}, its sheet allows ${say.of(stage.mostFeedUScm, 'conductivityUScm')}`,
      `Conductivity ${say.water(state.ec25UScm)}, CO₂ ${say.mgL(state.co2MgL)} and silica ${say.mgL(water.mgL.SiO2)} together. ${state.co2MgL > MOST.co2MgL ? 'A degasser ahead of it takes the largest part away.' : 'A tighter membrane or a second pass.'}`,
      counted / stage.mostFeedUScm,
    );
  else if (state.co2MgL > MOST.co2MgL)
    add(
      'stack-co2',
      'mind',
      `CO₂ ${say.mgL(state.co2MgL)} takes the current silica and boron need`,
      'Up to 5 mg/L is usual: a degasser ahead of it, or caustic ahead of a second pass.',
    );
  if (water.mgL.SiO2 > MOST.silicaMgL)
    add(
      'stack-silica',
      'mind',
      `Silica ${say.mgL(water.mgL.SiO2)} is much for ${small}`,
      `${say.mgL(MOST.silicaMgL)} is usual: what leaks follows it.`,
    );
  if (flowLPerH < FLOWS.least * stage.nominalLPerH || flowLPerH > FLOWS.most * stage.nominalLPerH)
    add(
      'stack-flow',
      'mind',
      `${say.of(flowLPerH, 'flowLPerH')} runs through ${small}, made for ${say.of(stage.nominalLPerH, 'flowLPerH')}`,
      flowLPerH < stage.nominalLPerH
        ? 'Too slow, it heats and scales: lead product back, or take a smaller one.'
        : 'Too fast, it lets through: take a larger one, or two side by side.',
    );
  const load = loadOf(stackLoad(water));
  const amps = ampsAt(stage, water.temperatureC);
  const share = shareOf(stage, water, flowLPerH);
  const wanted = ampsFor(LOADED.design, load, flowLPerH, stackOf(stage));
  if (stage.amp === 0)
    add('stack-off', 'bad', `${stage.name} runs without current`, 'It is a bed of resin then, soon spent: everything passes.');
  else if (amps < stage.amp)
    add(
      'stack-cold',
      'mind',
      `The supply of ${small} cannot hold ${say.of(stage.amp, 'currentA')} at ${say.of(water.temperatureC, 'temperatureC')}`,
      `Cold water conducts less: ${say.of(stage.mostV, 'voltageV')} drive ${say.of(amps, 'currentA')}. Warm the feed, or take a stronger supply.`,
    );
  if (stage.amp > 0)
    add(
      'stack-load',
      share > LOADED.most ? 'mind' : 'good',
      share >= 1
        ? `${stage.name} has too little current: salt and CO₂ pass`
        : `Salt takes up ${percent(share)} of ${small}; the rest holds silica and boron`,
      share > LOADED.most
        ? `Set ${say.of(wanted, 'currentA')} for ${percent(LOADED.design)}. Silica passes first, then its pH sinks, then its resistivity.`
        : `At ${say.of(amps, 'currentA')}; ${percent(LOADED.design)} would take ${say.of(wanted, 'currentA')}.`,
    );
  return found;
}

const LETHAL: Caution = {
  title: 'Lethal voltage',
  text: 'Up to some hundred volts of direct current. Covers stay on; the supply is locked out before a hose or a cover is touched. Wired by someone who may.',
};
const HYDROGEN: Caution = {
  title: 'Hydrogen comes off',
  text: 'Its vent leads outside and stays open; no flame near it. Traces of chlorine come with it.',
};
const DRY: Caution = {
  title: 'No current without flow',
  text: 'Interlock it with all three flows. Current in standing water burns its channels within minutes.',
};

/** Electrodeionization: membranes, resin and a direct current that keeps the resin regenerated. */
export const electrodeionizer = defineStage(schema, {
  kind: 'electrodeionizer',
  label: 'Electrodeionizer',
  says: 'Polishes by current, without chemicals',
  place: 8,
  defaults: {
    kind: 'electrodeionizer',
    name: 'Electrodeionizer',
    cells: 10,
    nominalLPerH: 950,
    recovery: 0.93,
    ratedV: 60,
    ratedA: 3,
    mostV: 120,
    amp: 2.5,
    lossBar: 1.5,
    mostFeedUScm: 40,
    currentShare: null,
    fittedOn: null,
  },
  form: 'vessel',
  touches: () => 'salt',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: (stage, { water, flowLPerH, use }) => ok({ water: treated(stage, water, flowLPerH, use.years ?? 0) }),
  slopeBar: ({ lossBar, nominalLPerH }, _flow, temperatureC) => stackLossBar({ bar: lossBar, atLPerH: nominalLPerH }, 1, temperatureC),
  riseBar: zero,
  holdsBar: () => 6,
  breaksPressure: neverOpen,
  mounting: ({ cells }) => ({ wetKg: 15 + 1.2 * cells, wallM: 0.6 }),
  price: (_stage, { piece }) => piece('electrodeionizer'),
  costLine: 'cartridges',
  drainShare: zero,
  keeps: ({ recovery }) => recovery,
  powerW: (stage, { before }) => {
    const amps = ampsAt(stage, before.water.temperatureC);
    return amps > 0 ? stackW(voltsFor(amps, ohmOf(stage), before.water.temperatureC), amps) : 0;
  },
  chemicals: none,
  buys: (_stage, { piece }) => piece('electrodeionizer'),
  worn: asFitted,
  renewed: asFitted,
  dirtPassed: allPasses,
  steps: (stage, { standing, units }) => {
    const { id, name, recovery, nominalLPerH, amp } = stage;
    const small = inSentence(name);
    const text = (value: number, dimension: 'flowLPerH' | 'currentA'): string => formatQuantity(value, dimension, units).text;
    const wasteLPerH = nominalLPerH * (1 - recovery);
    const expected = standing?.after.state.ec25UScm ?? null;
    return [
      {
        id: `stack-flush-${id}`,
        act: 'rinse',
        place: 'resin',
        title: `Flush ${small} without current`,
        before: 'The membrane ahead is on specification: hardness, chlorine and CO₂ measured, not reckoned.',
        how: `To the drain, supply off. Then set its flows: product ${text(nominalLPerH * recovery, 'flowLPerH')}, waste and electrodes together ${text(wasteLPerH, 'flowLPerH')}; the product's pressure 0.3 to 0.7${THIN}bar above the waste's.`,
        minutes: 30,
        cautions: [DRY],
        measures: [
          seen('flows', 'All three flows stand, and shutting one stops the supply', 'Do not switch it on: mend the interlock first.'),
        ],
      },
      {
        id: `stack-current-${id}`,
        act: 'rinse',
        place: 'resin',
        title: `Raise the current of ${small} to ${text(amp, 'currentA')}`,
        before: 'Flows stand; its vent is open to the outside.',
        how: 'In steps, ten minutes each. Product goes to the drain until it reads its goal: that can take 2 to 24 hours.',
        minutes: 120,
        waits: true,
        cautions: [LETHAL, HYDROGEN],
        measures: [
          {
            id: 'ec',
            label: `Conductivity behind ${small}`,
            dimension: 'conductivityUScm',
            expected,
            low: null,
            high: expected === null ? null : RESISTIVITY_WITHIN * expected,
            because: 'by the model, within a factor of 1.5',
            ifHigh: 'Still falling: wait on. Standing still: more current, less CO₂ ahead, or set its share by what you measured.',
          },
        ],
      },
    ];
  },
  plumbed: () => ({ ...threaded('1/2'), drains: true, powered: true }),
  tools: () => ['Multimeter', 'Conductivity or resistivity meter near 18 MΩ·cm'],
  partGroup: 'cartridges',
  parts: (stage, { prices, units }) => [
    {
      part: `electrodeionizer-${stage.nominalLPerH}`,
      name: `Electrodeionizer for ${formatQuantity(stage.nominalLPerH, 'flowLPerH', units).text}, with its supply`,
      why: 'one',
      count: 1,
      each: prices.piece('electrodeionizer'),
    },
    { part: 'flow-switch', name: 'Flow switch', why: 'no current without product, waste and electrode flow', count: 3 },
    { part: 'vent-line', name: 'Vent line to the outside', why: 'hydrogen', count: 3, unit: 'm' },
  ],
  upkeep: () => [
    { says: 'read volts, amps and flows of', work: 'compared', everyDays: 7 },
    { says: 'change', work: 'changed', afterDays: SERVES_DAYS },
  ],
  faults: () => ['stackStarved', 'stackScaled', 'co2Early'],
  wears: { years: 7, causes: ['stackScaled'] },
  raises: ['stackStarved'],
  findings,
  facts: ({ worn, before, units }) => {
    if (!before) return [];
    const { water, state, flowLPerH } = before;
    const text = (value: number, dimension: 'currentA' | 'voltageV' | 'conductivityUScm' | 'flowLPerH'): string =>
      formatQuantity(value, dimension, units).text;
    const amps = ampsAt(worn, water.temperatureC);
    const volts = voltsFor(amps, ohmOf(worn), water.temperatureC);
    return [
      ['Its feed counts', text(counts(water, state), 'conductivityUScm')],
      ['Salt takes up', amps > 0 ? percent(Math.min(1, shareOf(worn, water, flowLPerH))) : 'all'],
      ['Current for 45 %', text(ampsFor(LOADED.design, loadOf(stackLoad(water)), flowLPerH, stackOf(worn)), 'currentA')],
      ['Runs at', `${text(volts, 'voltageV')}, ${text(amps, 'currentA')}, ${Math.round(stackW(volts, amps))}${THIN}W`],
      ['To the drain', text(flowLPerH * (1 - worn.recovery), 'flowLPerH')],
      ['Hydrogen to vent', text(hydrogenLPerH(amps, water.temperatureC), 'flowLPerH')],
      ['Figures within', 'a factor of 2'],
    ];
  },
  fill: ({ worn, before }) => (before ? Math.min(1, shareOf(worn, before.water, before.flowLPerH)) : 0),
  fields: (stage) => ({
    choices: [],
    quantities: [
      field.quantity(stage, 'nominalLPerH', 'Nominal flow'),
      field.quantity(stage, 'cells', 'Diluting cells'),
      field.quantity(stage, 'recovery', 'Recovery', { unit: '%' }),
      field.quantity(stage, 'amp', 'Current it is set to'),
      field.quantity(stage, 'ratedV', 'On its plate: volts', { folded: true }),
      field.quantity(stage, 'ratedA', 'at amperes', { folded: true }),
      field.quantity(stage, 'mostV', 'Most its supply gives', { folded: true }),
      field.quantity(stage, 'lossBar', 'Loss at nominal flow', { folded: true }),
      field.quantity(stage, 'mostFeedUScm', 'Most its feed may count', { unit: 'µS/cm', folded: true }),
      field.quantity(stage, 'currentShare', 'Current that carries salt', { unit: '%', empty: 'as usual, 40', folded: true }),
    ],
  }),
  folded: 'From its data sheet',
});

/** How far above the model a reading may stand. */
const RESISTIVITY_WITHIN = 1.5;
