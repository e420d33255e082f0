/** A meter of the bench: its name on the air, what it is called and its unit (RFC 8428). */
export interface BenchSensor {
  readonly name: string;
  readonly title: string;
  readonly unit: 'S/m' | 'Pa' | 'Cel' | 'm3/s' | 'm3';
}

/** What the names of the household unit's meters begin with. */
export const HOUSE = 'bench:house:';
export const SENSORS: readonly BenchSensor[] = [
  { name: `${HOUSE}tap`, title: 'Tap, in-line meter', unit: 'S/m' },
  { name: `${HOUSE}membrane`, title: 'After membrane, in-line meter', unit: 'S/m' },
  { name: `${HOUSE}resin`, title: 'After resin, in-line meter', unit: 'S/m' },
  { name: `${HOUSE}pressure`, title: 'Line pressure', unit: 'Pa' },
  { name: `${HOUSE}temperature`, title: 'Water temperature', unit: 'Cel' },
  { name: `${HOUSE}product`, title: 'Product flow', unit: 'm3/s' },
  { name: `${HOUSE}waste`, title: 'Waste flow', unit: 'm3/s' },
  { name: `${HOUSE}litres`, title: 'Product meter', unit: 'm3' },
  { name: 'bench:loop:outlet', title: 'Loop outlet, resistivity probe', unit: 'S/m' },
];
