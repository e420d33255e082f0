import { ELEMENT_CLASSES, ELEMENT_ROWS, elementText, type ElementClass } from '../membrane';
import type { UnitPreference } from '../quantity';

/** What pieces cost where nobody has entered anything: made-up amounts, every one to be replaced (science of options, 10). */
export const PIECE_PRICES = {
  household25: 26,
  household50: 28,
  household75: 30,
  household100: 34,
  household150: 42,
  household200: 48,
  household200Wide: 50,
  in25Low: 190,
  in25Usual: 200,
  in25Sea: 420,
  in4Low: 280,
  in4Usual: 290,
  in4Lowest: 300,
  in4Loose: 310,
  in4Sea: 640,
  smallHousing: 20,
  housingWide: 22,
  housing25: 90,
  housing4: 130,
  seaHousing: 450,
  frame: 60,
  filterHousing: 22,
  cartPump: 380,
  skidPump: 900,
  highPressurePump: 2200,
  energyRecovery: 1800,
  resinHousing: 18,
  vessel7: 110,
  vessel11: 140,
  vessel25: 230,
  vessel40: 340,
  bypassHead: 90,
  softener: 600,
  uvUnit: 240,
  degasser: 650,
  aerator: 900,
  electrodeionizer: 3200,
  pairOfBeds: 2400,
  dosingPump: 280,
  antiscalant: 9,
  hydrochloricAcid: 1.6,
  sulfuricAcid: 0.9,
  causticSoda: 1.8,
  bisulfite: 2.2,
} as const satisfies Readonly<Record<ElementClass, number> & Record<string, number>>;
export type Piece = keyof typeof PIECE_PRICES;
/** Pieces that are used up by weight. */
export type Chemical = Extract<Piece, 'antiscalant' | 'hydrochloricAcid' | 'sulfuricAcid' | 'causticSoda' | 'bisulfite'>;
export const PIECES = Object.keys(PIECE_PRICES) as Piece[];

/** Pieces as a shop calls them. */
const WORDS: Readonly<Record<Exclude<Piece, ElementClass>, string>> = {
  smallHousing: 'Housing of a small membrane',
  housingWide: 'Housing of a wide small membrane',
  housing25: 'Housing of a 2.5-inch membrane',
  housing4: 'Housing of a 4-inch membrane',
  seaHousing: 'Seawater housing',
  frame: 'Frame and fittings, a metre of wall',
  filterHousing: 'Filter housing',
  cartPump: 'Cart pump',
  skidPump: 'Skid pump',
  highPressurePump: 'High-pressure pump',
  energyRecovery: 'Energy recovery',
  resinHousing: 'Housing for a resin cartridge',
  vessel7: 'Vessel, 7 L',
  vessel11: 'Vessel, 11 L',
  vessel25: 'Vessel, 25 L',
  vessel40: 'Vessel, 40 L',
  bypassHead: 'Head with bypass',
  softener: 'Softener, 28 L of resin',
  uvUnit: 'UV unit',
  degasser: 'Membrane degasser',
  aerator: 'Aerator with its blower',
  electrodeionizer: 'Electrodeionizer with its supply',
  pairOfBeds: 'Cation and anion vessel with their tanks, 25 L each',
  dosingPump: 'Dosing pump with its tank',
  antiscalant: 'Antiscalant, kg',
  hydrochloricAcid: 'Hydrochloric acid, kg as 100 %',
  sulfuricAcid: 'Sulfuric acid, kg as 100 %',
  causticSoda: 'Caustic soda, kg as 100 %',
  bisulfite: 'Sodium metabisulfite, kg',
};

export const isElementPiece = (piece: Piece): piece is ElementClass => (ELEMENT_CLASSES as readonly string[]).includes(piece);
export const pieceText = (piece: Piece, units: UnitPreference): string =>
  isElementPiece(piece) ? `Membrane ${elementText(piece, units)}` : WORDS[piece];

/** Vessels resin is sold in, by the litres each holds. */
const VESSELS: readonly (readonly [upToL: number, piece: Piece])[] = [
  [2, 'resinHousing'],
  [8, 'vessel7'],
  [12, 'vessel11'],
  [26, 'vessel25'],
  [Infinity, 'vessel40'],
];
export const vesselFor = (litres: number): Piece => VESSELS.find(([upTo]) => litres <= upTo)![1];

const HOUSINGS = { household: 'smallHousing', householdWide: 'housingWide', in25: 'housing25', in4: 'housing4' } as const;
/** The housing an element is built into. */
export function housingFor(element: ElementClass): Piece {
  const { size, use } = ELEMENT_ROWS[element];
  return use === 'sea' ? 'seaHousing' : HOUSINGS[size];
}
