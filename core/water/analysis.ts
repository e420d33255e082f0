import type { Character } from './characters';
import type { Solute } from './solutes';

/** What a person knows of a water. All optional but the kind of supply. */
export interface PartialAnalysis {
  readonly character: Character;
  readonly temperatureC: number;
  /** Nothing is known but the kind of supply: a usual water of it. */
  readonly usual?: boolean;
  readonly ec25UScm?: number;
  readonly hardnessMgL?: number;
  readonly alkalinityMgL?: number;
  readonly pH?: number;
  readonly mgL?: Partial<Record<Solute, number>>;
  /** Not found above these, mg/L: counted with half of it, and as assumed. */
  readonly below?: Partial<Record<Solute, number>>;
  /** Known ± of the kit's figures, mg/L as CaCO3; 5 % otherwise. */
  readonly plusMinus?: { readonly hardnessMgL?: number; readonly alkalinityMgL?: number };
  /** Close the charge of a complete analysis on sodium, or on chloride when anions are short. */
  readonly closeBalance?: boolean;
}
