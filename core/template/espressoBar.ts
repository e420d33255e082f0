import { stage, type TemplateRow } from './row';

export const espressoBar: TemplateRow = {
  label: 'Espresso machine, one cartridge with a bypass',
  says: 'A particle and a carbon stage, then a decarbonising cartridge whose dial lets part of the water past.',
  goal: 'espresso',
  demandL: 60,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment'),
    stage('carbon', 'carbon', { volumeL: 0.8, ratedL: 20_000 }),
    stage('decarboniser', 'decarboniser', { name: 'Cartridge', bypass: 0.5 }),
  ],
  probes: [{ name: 'At the machine', after: 'decarboniser' }],
  drawLPerH: 60,
};
