import { stage, type TemplateRow } from './row';

export const vanTank: TemplateRow = {
  label: 'Membrane, resin and a van tank',
  says: 'Fills the van overnight from the mains, polished by a resin vessel.',
  goal: 'windowCleaning',
  demandL: 1500,
  demandPer: 'week',
  stages: [
    stage('sediment', 'sediment', { name: 'Pre-filter', cleanLossBar: 0.04, holdsG: 20 }),
    stage('carbon', 'carbon', { volumeL: 1.4, ratedL: 40_000, cleanLossBar: 0.05 }),
    stage('membrane', 'membrane', {
      elementClass: 'household200',
      arrangement: 'parallel',
      restrictor: { form: 'tube', lengthMm: 250, boreMm: 1.9, assumed: true, flushLever: false },
    }),
    stage('resin', 'resin', { resinClass: 'mixedBed', volumeL: 7, depthMm: 400 }),
    stage('tank', 'tank', { name: 'Van tank', volumeL: 400 }),
  ],
  probes: [
    { name: 'After membrane', after: 'membrane' },
    { name: 'After resin', after: 'resin' },
  ],
  drawLPerH: 120,
};
