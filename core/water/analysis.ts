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
  /** Doubt of the conductivity, as a share: 0.01 of a laboratory, 0.05 of a pen nobody compared; 0.03 where nothing is said. */
  readonly ec25Doubt?: number;
  /** Carbon dioxide an acid water stands under, atm; by its kind of supply where nothing is said. */
  readonly pCO2Atm?: number;
  /** Known ± of the kit's figures, mg/L as CaCO3; 5 % otherwise. */
  readonly plusMinus?: { readonly hardnessMgL?: number; readonly alkalinityMgL?: number };
  /** Close the charge of a complete analysis on sodium, or on chloride when anions are short. */
  readonly closeBalance?: boolean;
}
