/** A warning that stands where the hand is about to do the thing. */
export interface Caution {
  readonly title: string;
  readonly text: string;
}

/** One thing to do at commissioning. */
export interface Step {
  readonly id: string;
  readonly title: string;
  readonly how: string;
  /** Time it usually takes, min. */
  readonly minutes: number;
  readonly cautions: readonly Caution[];
}

/** Which part of the work a stage's own steps belong to; the runbook orders the parts. */
export type StepPart = 'pump' | 'cartridges' | 'polish';

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
  text: 'A vessel full of wet resin weighs several times its look. Two hands, or two people.',
};
export const MAINS: Caution = {
  title: 'Electricity near water',
  text: 'A pump goes behind a residual-current device, wired by someone who may. Dry hands, and unplug before opening anything.',
};
export const SCALD: Caution = {
  title: 'Boilers scald',
  text: 'Shut the machine off, let the pressure out and let it cool before its water is opened.',
};
