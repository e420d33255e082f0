import type { Dimension } from '../quantity';

/** A warning that stands where the hand is about to do the thing. */
export interface Caution {
  readonly title: string;
  readonly text: string;
}

/** Parts of the work, in their order; the runbook heads its sections by them. */
export const PLACES = [
  'shutDown',
  'connect',
  'pressure',
  'rinse',
  'membrane',
  'setting',
  'cartridges',
  'resin',
  'store',
  'running',
  'meters',
  'handOver',
] as const;
export type Place = (typeof PLACES)[number];

/** What a step does, in the words the rules of order speak of. */
export type Act =
  | 'shutOff'
  | 'resinOut'
  | 'remove'
  | 'restrictorOut'
  | 'mount'
  | 'hookUp'
  | 'hoses'
  | 'drain'
  | 'ports'
  | 'fit'
  | 'move'
  | 'joinProducts'
  | 'restrictorIn'
  | 'flushValve'
  | 'linePressure'
  | 'prime'
  | 'reliefFree'
  | 'flushFilters'
  | 'filterDrop'
  | 'seat'
  | 'purge'
  | 'flushPreservative'
  | 'leaks'
  | 'lookAgain'
  | 'soak'
  | 'openValve'
  | 'raisePressure'
  | 'taste'
  | 'setValves'
  | 'ratio'
  | 'trim'
  | 'readPorts'
  | 'flushCartridge'
  | 'setDial'
  | 'presetMeter'
  | 'regenerate'
  | 'pack'
  | 'rinse'
  | 'charge'
  | 'fitFloat'
  | 'tryFloat'
  | 'fill'
  | 'circulate'
  | 'light'
  | 'probes'
  | 'bleed'
  | 'preservativeIn'
  | 'plugIn'
  | 'unplug'
  | 'emptyHousing'
  | 'strainer'
  | 'freshFlush'
  | 'drainDown'
  | 'closeUp'
  | 'baseline'
  | 'handOver';

/** What is read at a step, and between which bounds it is accepted. */
export interface Measure {
  /** Its own within the step. */
  readonly id: string;
  readonly label: string;
  /** How it is typed; 'seen' is answered yes or no and kept as 1 or 0. */
  readonly dimension: Dimension | 'seen';
  /** Where the preference does not say how it is typed. */
  readonly unit?: string;
  /** What the solved train gives here today; null where nothing is predicted. */
  readonly expected: number | null;
  readonly low: number | null;
  readonly high: number | null;
  /** One standard deviation of what such an instrument reads: a share of it, and at least so much. */
  readonly doubt?: { readonly share: number; readonly least: number };
  /** Where the bounds come from, in a few words. */
  readonly because: string;
  /** What to do when it lies below or above; for what is seen, when it is not. */
  readonly ifLow?: string;
  readonly ifHigh?: string;
  /** The product port of a vessel that was read. */
  readonly port?: { readonly stageId: string; readonly rank: number; readonly vessel: number };
}

/** Tools of their own that a step's page has. */
export type StepTool = 'ratio' | 'trim' | 'ratioAgain' | 'valves' | 'baseline' | null;

/** One thing to do, one hand's worth. */
export interface Step {
  readonly id: string;
  readonly act: Act;
  readonly place: Place;
  /** The stage it is done to; null where it is the whole system's. */
  readonly stageId: string | null;
  readonly title: string;
  /** What must stand before it; null where nothing does. */
  readonly before: string | null;
  readonly how: string;
  /** Time it usually takes, min. */
  readonly minutes: number;
  /** Whether those minutes are waited out, by the clock. */
  readonly waits: boolean;
  readonly measures: readonly Measure[];
  readonly cautions: readonly Caution[];
  readonly tool: StepTool;
}

/** A step as a kind of stage writes it: what is usual is left out. */
export type StepEntry = Pick<Step, 'id' | 'act' | 'place' | 'title' | 'how' | 'minutes'> & Partial<Step>;

/** A step with what is usual filled in. */
export const step = (entry: StepEntry): Step => ({
  stageId: null,
  before: null,
  waits: false,
  measures: [],
  cautions: [],
  tool: null,
  ...entry,
});

/** Something that is looked at and must be so. */
export const seen = (id: string, label: string, ifNot: string, because = ''): Measure => ({
  id,
  label,
  dimension: 'seen',
  expected: 1,
  low: 1,
  high: null,
  because,
  ifLow: ifNot,
});

/** pH read behind a stage, against what the model gives there. */
export const phBehind = (
  small: string,
  pH: number | null,
  within: number,
  says: Pick<Measure, 'because' | 'ifLow' | 'ifHigh'>,
): Measure => ({
  id: 'ph',
  label: `pH behind ${small}`,
  dimension: 'ph',
  expected: pH,
  low: pH === null ? null : pH - within,
  high: pH === null ? null : pH + within,
  ...says,
});

export const LOCAL_CODE: Caution = {
  title: 'Local codes come first',
  text: 'Plumbing to the mains and anything at mains voltage follows your local code and belongs to licensed trades where it says so.',
};
export const FLOOD: Caution = {
  title: 'Stay with it',
  text: 'The first hour under pressure is when fittings let go. Never leave it unattended; know where the stopcock is.',
};
export const HEAVY: Caution = {
  title: 'Wet is heavy',
  text: 'Full of water or wet resin it weighs several times its look. Two hands, or two people.',
};
export const MAINS: Caution = {
  title: 'Electricity near water',
  text: 'A pump goes behind a residual-current device, wired by someone who may. Dry hands, and unplug before opening anything.',
};
export const SCALD: Caution = {
  title: 'Boilers scald',
  text: 'Shut the machine off, let the pressure out and let it cool before its water is opened.',
};
export const PRESERVATIVE: Caution = {
  title: 'Keep resin out of this water',
  text: 'Preservative ruins resin. Product stays on the drain until it is flushed out and the resin fitted. Wear gloves; never drink it.',
};
export const GLOVES: Caution = {
  title: 'Preservative: gloves, and never drink it',
  text: 'A new membrane comes in it. Product stays on the drain or its sample outlet until it is flushed out.',
};
export const CUT: Caution = {
  title: 'A cut cannot be undone',
  text: 'Cut to the mark and no farther, run ten minutes, measure, cut again. If the end of the tube comes first, fit a larger restrictor.',
};
export const UNDER_PRESSURE: Caution = {
  title: 'Let the pressure out first',
  text: 'Shut the feed, open a tap behind the unit and wait until nothing runs. A housing opened under pressure lets go at once.',
};
export const PRODUCT_OPEN: Caution = {
  title: 'Never shut the product under a running pump',
  text: 'What the membrane makes must always have a way out. Shut in, it bursts the product line or tears the membrane off its tube.',
};
export const DRINKING: Caution = {
  title: 'Not for drinking until tested',
  text: 'A meter says nothing of germs, lead or organics. Water for drinking needs its own tests, by your local rules.',
};
