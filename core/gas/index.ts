export { AIR_STONE_SHARE, drumMinutes, drumUnits, openMmolL, OPEN_DEVICES, towerMmolL, towerUnits } from './aeration';
export {
  degassedMmolL,
  degasserLossBar,
  degasserUnits,
  leastGasBar,
  sweepFactor,
  unitsFromSheet,
  usualUnits,
  type Sweep,
  type UnitsAt,
} from './degasser';
export { atRestMmolL, ATM_BAR, CO2_G_PER_MOL } from './strip';
