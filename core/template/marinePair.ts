import { stage, type TemplateRow } from './row';

export const marinePair: TemplateRow = {
  label: 'Two membranes, two carbons, two resins',
  says: 'For chloramine and heavier use: a membrane pair in series, resin as lead and guard.',
  goal: 'marineMakeUp',
  demandL: 60,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment'),
    stage('carbon', 'carbon-1', { name: 'Carbon 1' }),
    stage('carbon', 'carbon-2', { name: 'Carbon 2' }),
    stage('membrane', 'membrane', {
      name: 'Membrane ×2',
      arrangement: 'series',
      restrictor: { form: 'tube', lengthMm: 300, boreMm: 1.5, assumed: true, flushLever: false },
    }),
    stage('resin', 'resin-1', { name: 'Resin 1' }),
    stage('resin', 'resin-2', { name: 'Resin 2' }),
    stage('tank', 'tank', { volumeL: 200 }),
  ],
  probes: [
    { name: 'After membrane', after: 'membrane' },
    { name: 'After resin', after: 'resin-2' },
  ],
  drawLPerH: 10,
};
