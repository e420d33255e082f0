import {
  CHECK_WORDS,
  isKind,
  KIND_WORDS,
  repairOf,
  valveLabel,
  type BenchEntry,
  type BenchSystemId,
  type KindId,
  type YesNoId,
} from '@yes-clear/core/fault';
import { inSentence, THIN, type UnitPreference } from '@yes-clear/core/quantity';
import { readingText } from '../kit/faultText';

/** What was done on the bench, in words. */

/** Minutes as a clock shows them. */
export function clockText(minutes: number): string {
  const seconds = Math.round(60 * minutes);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

/** Minutes of a tool or a repair. */
export const minutesText = (minutes: number): string => {
  const whole = Math.floor(minutes);
  const half = minutes - whole >= 0.5 ? '½' : '';
  return `${whole > 0 || !half ? whole : ''}${half}${THIN}min`;
};

export const checkLabel = (check: KindId | YesNoId): string => (isKind(check) ? KIND_WORDS[check].label : CHECK_WORDS[check].label);

/** What an entry was, and what came of it. */
export function entryText(
  { action, readings, answer }: BenchEntry,
  rig: BenchSystemId,
  asked: string,
  units: UnitPreference,
): { readonly label: string; readonly figure: string } {
  const figure = [
    ...inOneUnit(readings.map(({ kind, value }) => readingText(kind, value, units))),
    ...(answer ? [answer.yes ? 'yes' : 'no'] : []),
  ].join(' · ');
  const uncounted = readings.length > 0 && readings.every(({ countsAs }) => countsAs === null) ? ' (rig changed)' : '';
  switch (action.kind) {
    case 'tool':
    case 'check':
      return {
        label: answer ? CHECK_WORDS[answer.check].question : readings.map(({ kind }) => labelOf(kind)).join(', ') + uncounted,
        figure,
      };
    case 'valve':
      return { label: `${valveLabel(rig, action.valve)} ${action.to}`, figure };
    case 'run':
      return { label: `ran ${action.minutes}${THIN}min`, figure };
    case 'repair':
      return { label: inSentence(repairOf(action.repair).label), figure };
    case 'takeOut':
      return {
        label: action.what === 'none' ? 'cartridges put back' : action.what === 'all' ? 'all cartridges out' : 'pre-filter out',
        figure,
      };
    case 'warm':
      return { label: action.toC === null ? 'feed as it comes' : `feed mixed to ${action.toC}${THIN}°C`, figure };
    case 'plugRelief':
      return { label: 'relief valve plugged', figure };
    case 'ask':
      return { label: `“${asked}”`, figure };
    case 'hint':
      return { label: 'hint', figure };
  }
}

/** Figures in a row, with a unit that all share said once. */
function inOneUnit(texts: readonly string[]): string[] {
  const parts = texts.map((text) => /^(.*\d)[\s\u202f\u2009]*(\D*)$/u.exec(text));
  const unit = parts[0]?.[2];
  const shared = unit && parts.every((part) => part?.[2] === unit);
  return texts.map((text, i) => (shared && i < texts.length - 1 ? parts[i]![1]! : text));
}

const labelOf = (kind: KindId): string => inSentence(KIND_WORDS[kind].label);
