import { stage, type TemplateRow } from './row';

export const vanCart: TemplateRow = {
  label: 'Cart with pump, membrane and resin',
  says: 'A 4-inch membrane at 8 to 10 bar, part of its waste recycled; fills the tank of van or shop.',
  goal: 'windowCleaning',
  demandL: 4000,
  demandPer: 'week',
  stages: [
    stage('sediment', 'sediment', { name: 'Pre-filter', cleanLossBar: 0.02, holdsG: 60 }),
    stage('carbon', 'carbon', { volumeL: 2.8, ratedL: 80_000, cleanLossBar: 0.03 }),
    // Half recovered on a middling tap scales without it (common practice: this or a softener).
    stage('inhibitor', 'inhibitor'),
    stage('pump', 'pump', { name: 'Cart pump', pump: { kind: 'centrifugal', shutOffBar: 8, atLPerH: 1500, atBar: 4.5, speed: 1 } }),
    stage('membrane', 'membrane', {
      elementClass: 'in4Usual',
      // About half recovered, with so much recycled that the element still sees its cross-flow (common practice).
      valve: { kind: 'recovery', recovery: 0.5 },
      recycleLPerH: 800,
    }),
    stage('resin', 'resin', { resinClass: 'mixedBed', volumeL: 11, depthMm: 450 }),
    stage('tank', 'tank', { name: 'Van tank', volumeL: 650 }),
  ],
  probes: [
    { name: 'After membrane', after: 'membrane' },
    { name: 'After resin', after: 'resin' },
  ],
  drawLPerH: 240,
};
