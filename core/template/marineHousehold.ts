import { stage, type TemplateRow } from './row';

export const marineHousehold: TemplateRow = {
  label: 'Household unit, membrane and resin',
  says: 'Sediment, carbon, one small membrane, one cartridge of resin, a barrel.',
  goal: 'marineMakeUp',
  demandL: 20,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment'),
    stage('carbon', 'carbon'),
    stage('membrane', 'membrane'),
    stage('resin', 'resin'),
    stage('tank', 'tank', { name: 'Barrel', volumeL: 120 }),
  ],
  probes: [
    { name: 'After membrane', after: 'membrane' },
    { name: 'After resin', after: 'resin' },
  ],
  drawLPerH: 10,
};
