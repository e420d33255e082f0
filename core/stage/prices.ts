import { ELEMENT_CLASSES, type ElementClass } from '../membrane';

/** What pieces cost where nobody has entered anything: made-up amounts, every one to be replaced (science of options, 10). */
export const PIECE_PRICES = {
  '1812-24': 26,
  '1812-50': 28,
  '1812-75': 30,
  '1812-100': 34,
  '1812-150': 42,
  '1812-200': 48,
  '2012-200': 50,
  '2540-LE': 190,
  '2540-BW': 200,
  '2540-SW': 420,
  '4040-LE': 280,
  '4040-BW': 290,
  '4040-XLE': 300,
  '4040-NF': 310,
  '4040-SW': 640,
  smallHousing: 20,
  housing2012: 22,
  housing2540: 90,
  housing4040: 130,
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
} as const satisfies Readonly<Record<ElementClass, number> & Record<string, number>>;
export type Piece = keyof typeof PIECE_PRICES;
export const PIECES = Object.keys(PIECE_PRICES) as Piece[];

/** Pieces as a shop calls them. */
export const PIECE_WORDS: Readonly<Record<Piece, string>> = {
  ...(Object.fromEntries(ELEMENT_CLASSES.map((id) => [id, `Membrane ${id}`])) as Record<ElementClass, string>),
  smallHousing: 'Housing of a small membrane',
  housing2012: 'Housing of a 2012',
  housing2540: 'Housing of a 2540',
  housing4040: 'Housing of a 4040',
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
};

/** Vessels resin is sold in, by the litres each holds. */
const VESSELS: readonly (readonly [upToL: number, piece: Piece])[] = [
  [2, 'resinHousing'],
  [8, 'vessel7'],
  [12, 'vessel11'],
  [26, 'vessel25'],
  [Infinity, 'vessel40'],
];
export const vesselFor = (litres: number): Piece => VESSELS.find(([upTo]) => litres <= upTo)![1];

/** The housing an element is built into. */
export function housingFor(element: ElementClass): Piece {
  if (element.endsWith('SW')) return 'seaHousing';
  if (element.startsWith('1812')) return 'smallHousing';
  if (element.startsWith('2012')) return 'housing2012';
  return element.startsWith('2540') ? 'housing2540' : 'housing4040';
}
