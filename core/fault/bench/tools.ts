import type { Available } from '../nextCheck';
import { READING_KINDS, YES_NO_CHECKS, type KindId, type YesNoId } from '../kinds';
import { CHECK_WORDS, KIND_WORDS } from '../words';

/** A tool of the bench: what is read with it in one go, or the look, kit or question it is. */
export interface Tool {
  readonly id: string;
  readonly label: string;
  /** What it reads, in a few words. */
  readonly says: string;
  readonly kinds: readonly KindId[];
  readonly check: YesNoId | null;
  readonly minutes: number;
  readonly caution: string | null;
}

/** Kinds read in one go, and what that is called; what is not named here is a tool of its own. */
const TOGETHER: readonly { readonly label: string; readonly says: string; readonly kinds: readonly KindId[] }[] = [
  { label: 'Read the probes', says: 'tap, membrane, resin', kinds: ['tap', 'membrane', 'product'] },
  { label: 'Gauge', says: 'pressure of the line', kinds: ['line'] },
  { label: 'Thermometer', says: 'held in the waste', kinds: ['temperature'] },
  { label: 'Jug under the product', says: 'with a clock', kinds: ['productFlow'] },
  { label: 'Jug under the waste', says: 'with a clock', kinds: ['wasteFlow'] },
  { label: 'Line off, jug under it', says: 'product at the membrane', kinds: ['openFlow'] },
  { label: 'Second gauge', says: 'at the membrane, behind the filters', kinds: ['inlet'] },
  { label: 'Pen in a glass', says: 'tap and membrane, another scale', kinds: ['penTap', 'penMembrane'] },
  { label: 'Pen at the outlet', says: 'product in a glass', kinds: ['penProduct'] },
  { label: 'Each element alone', says: 'strength and flow at its port', kinds: ['ratioStrength', 'ratioFlow'] },
  { label: 'Clean tips, new battery', says: 'then behind the membrane again', kinds: ['clean'] },
  { label: 'Let it run, read again', says: 'to drain, then behind the membrane', kinds: ['later'] },
  { label: 'Between the resins', says: 'at the port of the first', kinds: ['midResin'] },
  { label: 'pH strip', says: 'behind the resin', kinds: ['pH'] },
  { label: 'Drops behind the softener', says: 'total hardness', kinds: ['softHardness'] },
  { label: 'Drops on the blend', says: 'carbonate hardness, dial as it stands', kinds: ['blendHardness'] },
  { label: 'Dial to nothing, drops', says: 'carbonate hardness, bypass shut', kinds: ['shutHardness'] },
  { label: 'Tank at dawn', says: 'resistivity after a night', kinds: ['nightResistivity'] },
  { label: 'Meter at the return', says: 'flow of the loop', kinds: ['returnFlow'] },
  { label: 'Valve open, jug', says: 'what the pump moves', kinds: ['pumpFlow'] },
  { label: 'Recycle meter', says: 'what is led back', kinds: ['recycleFlow'] },
];

/** Tools of a system, by what can be read and asked of it. */
export function toolsOf({ kinds, checks }: Available): Tool[] {
  const has = new Set(kinds);
  const readers = TOGETHER.flatMap(({ label, says, kinds: all }): Tool[] => {
    const own = all.filter((kind) => has.has(kind));
    if (own.length === 0) return [];
    const minutes = own.reduce((sum, kind) => sum + READING_KINDS[kind].minutes, 0);
    const caution = own.map((kind) => KIND_WORDS[kind].caution).find((text) => text !== undefined) ?? null;
    const named = own.length === all.length ? says : own.map((kind) => KIND_WORDS[kind].label.toLowerCase()).join(', ');
    return [{ id: all[0]!, label, says: named, kinds: own, check: null, minutes, caution }];
  });
  const asked = checks.map((check): Tool => ({
    id: check,
    label: CHECK_WORDS[check].label,
    says: CHECK_WORDS[check].question.toLowerCase(),
    kinds: [],
    check,
    minutes: YES_NO_CHECKS[check].minutes,
    caution: CHECK_WORDS[check].caution ?? null,
  }));
  return [...readers, ...asked];
}
