import { stage, type TemplateRow } from './row';

export const breeder: TemplateRow = {
  label: 'Membrane only, for a breeder',
  says: 'Sediment, carbon and a larger membrane; a drum filled overnight.',
  goal: 'softWaterBreeding',
  demandL: 100,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment'),
    stage('carbon', 'carbon'),
    stage('membrane', 'membrane', {
      elementClass: 'household150',
      restrictor: { form: 'tube', lengthMm: 300, boreMm: 1.45, assumed: true, flushLever: false },
      // A little tap led past it buffers the water (common practice for a tap of middling strength).
      bypassShare: 0.14,
    }),
    stage('tank', 'tank', { name: 'Drum', volumeL: 200 }),
  ],
  probes: [{ name: 'After membrane', after: 'membrane' }],
  drawLPerH: 10,
};
