import { branch, counterSupply, stage, type TemplateRow } from './row';

export const counterSoft: TemplateRow = {
  label: 'Counter from the main, fine filters and inhibitor',
  says: 'A fine filter, carbon and an inhibitor feed everything; only the espresso machine gets a cartridge of its own.',
  goal: 'brewWater',
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
      stage('decarboniser', 'espresso-cartridge', { name: 'Espresso cartridge', volumeL: 1, bypass: 0.8 }),
    ]),
    branch('ice', 'Ice', 'inhibitor', 'ice', null, 90, 40, [
      stage('carbon', 'ice-filter', { name: 'Ice filter', volumeL: 0.6, ratedL: 12_000 }),
    ]),
    branch('ovens', 'Ovens', 'inhibitor', 'steamOven', null, 30, 40, []),
  ],
  supply: counterSupply('Town main', 105),
};
