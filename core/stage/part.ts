import { THIN, type UnitPreference } from '../quantity';
import type { PartPrices } from './kind';

/** Headings of the parts list, in their order. */
export const PART_GROUPS = [
  'filters',
  'membranes',
  'pumps',
  'resin',
  'cartridges',
  'tanks',
  'tubing',
  'hookUp',
  'meters',
  'own',
  'spares',
] as const;
export type PartGroup = (typeof PART_GROUPS)[number];

/** A line of the parts list. */
export interface Part {
  /** What it is, for its price: the same piece bears the same on every job. */
  readonly part: string;
  readonly name: string;
  /** Why so many. */
  readonly why: string;
  readonly count: number;
  readonly unit: 'piece' | 'L' | 'kg' | 'm';
  /** What one costs by the prices of the job; null where they do not say. */
  readonly each: number | null;
  /** Worn out and bought again: so many days between two, at most; null where it stays. */
  readonly wearsDays: number | null;
}

/** What a kind is told when its parts are listed. */
export interface PartsAround {
  /** Whether a pump that pushes on feeds the train: nothing may shut its product in. */
  readonly pushed?: boolean;
  readonly prices: PartPrices;
  readonly units: UnitPreference;
}

export type PartEntry = Pick<Part, 'part' | 'name' | 'why' | 'count'> & Partial<Part>;

/** A part with what is usual filled in. */
export const part = (entry: PartEntry): Part => ({ unit: 'piece', each: null, wearsDays: null, ...entry });

/** A housing for one cartridge, with its spanner and bracket. */
export const housing = (why: string): PartEntry => ({ part: 'housing-10', name: 'Cartridge housing, bracket, spanner', why, count: 1 });

/** How many, with the measure it is bought by. */
export const countText = ({ count, unit }: Pick<Part, 'count' | 'unit'>): string =>
  `${Number(count.toFixed(2))}${unit === 'piece' ? '' : `${THIN}${unit}`}`;
