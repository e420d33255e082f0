import { branch, counterSupply, stage, type TemplateRow } from './row';

export const counterHard: TemplateRow = {
  label: 'Counter behind a softener and a membrane',
  says: 'Filters, softener and membrane, with tap blended back, feed everything; espresso and ice keep filters of their own.',
  goal: 'brewWater',
  demandL: 300,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment', { holdsG: 20 }),
    stage('carbon', 'carbon', { volumeL: 2, ratedL: 60_000 }),
    stage('softener', 'softener', { volumeL: 20 }),
    stage('pump', 'pump', { pump: { kind: 'centrifugal', shutOffBar: 12, atLPerH: 600, atBar: 8, speed: 0.8 } }),
    stage('membrane', 'membrane', {
      elementClass: 'in25Low',
      valve: { kind: 'recovery', recovery: 0.5 },
      recycleLPerH: 500,
      // Hardness for taste comes from water the softener has not seen.
      bypassShare: 0.16,
      bypassAfter: 'carbon',
    }),
    stage('tank', 'tank', { name: 'Pressure tank', volumeL: 80, openToAir: false }),
    stage('carbon', 'polish', { name: 'Polishing filter', volumeL: 1, ratedL: 30_000 }),
  ],
  probes: [
    { name: 'After membrane', after: 'membrane' },
    { name: 'To the counter', after: 'polish' },
  ],
  drawLPerH: 200,
  branches: [
    branch('espresso', 'Espresso', 'polish', 'espresso', null, 80, 60, [
      stage('decarboniser', 'espresso-cartridge', { name: 'Espresso cartridge', volumeL: 1, bypass: 0.9 }),
    ]),
    branch('ice', 'Ice', 'polish', 'ice', null, 120, 60, [
      stage('carbon', 'ice-filter', { name: 'Ice filter', volumeL: 0.6, ratedL: 12_000 }),
    ]),
    branch('ovens', 'Ovens', 'softener', 'steamOven', null, 40, 40, []),
  ],
  supply: counterSupply('Well main', 420),
};
