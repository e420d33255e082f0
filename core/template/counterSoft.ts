import { branch, counterSupply, stage, type TemplateRow } from './row';

export const counterSoft: TemplateRow = {
  label: 'Counter on weak water, below about 250 ppm',
  says: 'Fine filtration with scale inhibition feeds everything; only the espresso machine gets a cartridge of its own.',
  goal: 'brewWater',
  school: 'european',
  demandL: 250,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment', { name: 'Fine filter', micron: 0.5, holdsG: 20 }),
    stage('carbon', 'carbon', { volumeL: 2, ratedL: 60_000 }),
    stage('inhibitor', 'inhibitor'),
  ],
  probes: [{ name: 'Behind the filters', after: 'inhibitor' }],
  drawLPerH: 200,
  branches: [
    branch('espresso', 'Espresso', 'inhibitor', 'espresso', null, 60, 60, [
      stage('decarboniser', 'espresso-cartridge', { name: 'Espresso cartridge', volumeL: 1.1, capacityEq: 2.4, bypass: 0.8 }),
    ]),
    branch('ice', 'Ice', 'inhibitor', 'ice', null, 90, 40, [
      stage('carbon', 'ice-filter', { name: 'Ice filter', volumeL: 0.6, ratedL: 12_000 }),
    ]),
    branch('ovens', 'Ovens', 'inhibitor', 'steamOven', 'tolerant', 30, 40, []),
  ],
  supply: counterSupply('Town main', 105),
};
