import type { IonId } from '@yes-clear/core/exchange';

/** How each ion is called and coloured in a column; none of these is a colour of water. */
export const ION_LOOK: Readonly<Record<IonId, { readonly name: string; readonly colour: string }>> = {
  Na: { name: 'sodium', colour: '#c25b74' },
  NH4N: { name: 'ammonium', colour: '#d9402f' },
  K: { name: 'potassium', colour: '#a05c9c' },
  Mg: { name: 'magnesium', colour: '#6a5aa8' },
  Fe: { name: 'iron', colour: '#7a3b2a' },
  Ca: { name: 'calcium', colour: '#3c3a66' },
  Sr: { name: 'strontium', colour: '#2d2a4a' },
  Ba: { name: 'barium', colour: '#1f1d33' },
  B: { name: 'boron', colour: '#f0a8c0' },
  SiO2: { name: 'silica', colour: '#e4568f' },
  F: { name: 'fluoride', colour: '#c88fc8' },
  PO4: { name: 'phosphate', colour: '#b9a3d6' },
  carbon: { name: 'carbonic acid', colour: '#9a93a8' },
  Cl: { name: 'chloride', colour: '#7d6bb5' },
  NO3: { name: 'nitrate', colour: '#8e3d8e' },
  organic: { name: 'humic anions', colour: '#5a4632' },
  SO4: { name: 'sulfate', colour: '#3b2f5e' },
};
