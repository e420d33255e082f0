import { PPM_PER_USCM, type Dimension } from '../quantity';
import type { KindId, YesNoId } from './kinds';

/** What a reading is called, how it is taken, and how it is written down. */
export interface KindWords {
  readonly label: string;
  /** How it is taken, where it is asked for as a check. */
  readonly how: string;
  readonly dimension: Dimension;
  /** What one of the search's own units is of the dimension's: a meter's ppm are conductivity. */
  readonly perUnit: number;
  /** What could hurt or flood, said before it is done. */
  readonly caution?: string;
}

const strength = (label: string, how: string): KindWords => ({ label, how, dimension: 'conductivityUScm', perUnit: 1 / PPM_PER_USCM });
const flow = (label: string, how: string): KindWords => ({ label, how, dimension: 'flowLPerH', perUnit: 1 });
const hard = (label: string, how: string): KindWords => ({ label, how, dimension: 'hardnessMgL', perUnit: 1 });

/** Before a housing or a line under pressure is opened. */
const PRESSURE = 'Shut the feed, open the waste, and wait until the gauge reads nothing before you open it.';

export const KIND_WORDS: Readonly<Record<KindId, KindWords>> = {
  tap: strength('Tap', 'Read the tap again with the in-line meter.'),
  membrane: strength('After membrane', 'Read the probe behind the membrane again.'),
  later: strength('After membrane, a quarter of an hour later', 'Let it run 15 minutes to drain, then read behind the membrane.'),
  clean: strength('After membrane, meter cleaned', 'Clean the tips with alcohol, fit a new battery, and read behind the membrane again.'),
  product: strength('After resin', 'Read the probe behind the last resin again.'),
  midResin: strength('Between the resins', 'Read between the first and the second resin.'),
  line: { label: 'Line pressure', how: 'Read the gauge at the inlet with water running.', dimension: 'pressureBar', perUnit: 1 },
  inlet: {
    label: 'Pressure at the membrane',
    how: 'Read a gauge behind the filters, at the membrane, with water running.',
    dimension: 'pressureBar',
    perUnit: 1,
  },
  temperature: { label: 'Water temperature', how: 'Hold the thermometer in the waste.', dimension: 'temperatureC', perUnit: 1 },
  productFlow: flow('Product', 'Measure the product with jug and clock again.'),
  wasteFlow: flow('Waste', 'Measure the waste with jug and clock again.'),
  openFlow: {
    ...flow('Product with its line off', 'Take the product line off at the membrane and measure there with jug and clock.'),
    caution: 'Water runs where the line was: hold a bucket, and stay until it is on again.',
  },
  penMembrane: strength('After membrane, by pen', 'Read the water behind the membrane with a pen meter.'),
  penTap: strength('Tap, by pen', 'Read the tap with a pen meter.'),
  penProduct: strength('Product, by pen', 'Read the product with a pen meter in a glass.'),
  ratioStrength: {
    label: 'Last element’s strength against the first’s',
    how: 'Read what each element makes at its own port, and divide the last by the first.',
    dimension: 'ratio',
    perUnit: 1,
    caution: PRESSURE,
  },
  ratioFlow: {
    label: 'Last element’s flow against the first’s',
    how: 'Measure what each element makes with jug and clock, and divide the last by the first.',
    dimension: 'ratio',
    perUnit: 1,
    caution: PRESSURE,
  },
  pH: { label: 'pH after resin', how: 'Read the pH of the product, with a strip or a meter.', dimension: 'ph', perUnit: 1 },
  softHardness: hard('Hardness behind the softener', 'Count the drops of a hardness kit on water from behind the softener.'),
  blendHardness: hard('Carbonate hardness of the blend', 'Count the drops of a carbonate kit on the blend.'),
  shutHardness: hard(
    'Carbonate hardness with the bypass shut',
    'Turn the bypass to nothing, let a litre run, and count the drops of a carbonate kit.',
  ),
  nightResistivity: {
    label: 'Resistivity after a night, MΩ·cm',
    how: 'Read the tank’s resistivity in the morning, before anything is drawn.',
    dimension: 'count',
    perUnit: 1,
  },
  returnFlow: flow('Flow at the loop’s return', 'Read the flow meter at the return of the loop.'),
  pumpFlow: {
    ...flow('Pump’s flow, valve open', 'Open the regulating valve wholly and measure what the pump moves to drain.'),
    caution: 'Open the valve slowly, and never shut the pump’s outlet.',
  },
  recycleFlow: flow('Recycle', 'Read the recycle meter.'),
};

/** What a yes or no is about. */
export interface CheckWords {
  readonly label: string;
  readonly how: string;
  readonly question: string;
  readonly caution?: string;
}

export const CHECK_WORDS: Readonly<Record<YesNoId, CheckWords>> = {
  chlorineStrip: {
    label: 'Strip for total chlorine behind the carbon',
    how: 'Let the water behind the carbon run a minute, then hold a strip for total chlorine into it.',
    question: 'Does the strip show chlorine?',
  },
  freeChlorineStrip: {
    label: 'Strip for free chlorine behind the carbon',
    how: 'Let the water behind the carbon run a minute, then hold a strip for free chlorine into it.',
    question: 'Does the strip show chlorine?',
  },
  silicaKit: { label: 'Silica kit on the product', how: 'Test the product for silica.', question: 'Does the kit show silica?' },
  ammoniaKit: { label: 'Ammonia kit on the product', how: 'Test the product for ammonia.', question: 'Does the kit show ammonia?' },
  drainWhenFull: {
    label: 'Drain with the tank full',
    how: 'Let the tank fill, or lift its float, and look at the drain five minutes later.',
    question: 'Does water still run to drain?',
    caution: 'Stay while the tank fills: a float that sticks floods the floor.',
  },
  lookConnections: {
    label: 'Look at the connections',
    how: 'Follow every line from port to port: product, waste, restrictor, probes.',
    question: 'Is anything in the wrong place?',
  },
  inspectSeals: {
    label: 'Open the housing and look at the seals',
    how: 'Take the element out and look at the O-rings of the product tube and at the brine seal.',
    question: 'Is a seal torn, flat or out of its seat?',
    caution: PRESSURE,
  },
  askFirstMinute: {
    label: 'When was it read?',
    how: 'Ask whether the reading was taken in the first minute after a rest.',
    question: 'Was it read in the first minute?',
  },
  countStarts: {
    label: 'Count the starts',
    how: 'Listen for ten minutes with nothing drawn, and count how often it starts.',
    question: 'Did it start more than once?',
  },
  lampCheck: {
    label: 'Look at the lamp’s hours and intensity',
    how: 'Read its counter and its indicator through the cover.',
    question: 'Over 9,000 hours, or weak?',
    caution: 'Never look at a burning lamp: it burns eyes and skin in seconds.',
  },
  liftHose: {
    label: 'Lift the suction hose',
    how: 'Stop the pump, lift the hose and see whether it drains back.',
    question: 'Does it drain back, or do bubbles show?',
  },
  feelRelief: {
    label: 'Feel the relief valve’s return',
    how: 'Under pressure, feel the bypass hose and look at its end.',
    question: 'Is it warm, or does it run?',
    caution: 'Under pressure: keep your face away, and never plug a relief valve.',
  },
  foamTest: {
    label: 'Clean glass, clean pad',
    how: 'Clean the same glass with bottled pure water and a new pad.',
    question: 'Are the marks gone?',
  },
  smellOil: { label: 'Smell the flush water', how: 'Smell the first flush water and look for a film.', question: 'Oil or chlorine?' },
  lookSweep: {
    label: 'Look at the degasser’s gas',
    how: 'Feel the sweep at its outlet, look at the low point of its line and at the gas ports.',
    question: 'Is there no sweep, or water where gas should be?',
  },
  readStack: {
    label: 'Read volts and amperes of the stack',
    how: 'From its supply, covers on. Against what was written down when it ran well, at the same flow and warmth.',
    question: 'Are they off by more than a quarter?',
  },
  lookDosing: {
    label: 'Look at the dosing tank',
    how: 'Mark its level, let the unit run for an hour. It should fall by what the pump is set to.',
    question: 'Did it stand still?',
  },
  lookSoftener: { label: 'Look at the softener’s bypass', how: 'Look at the position of its valve.', question: 'Is it open?' },
};
