import { stage, type TemplateRow } from './row';

export const watermaker: TemplateRow = {
  label: 'Watermaker on a boat',
  says: 'Two filters, a high-pressure pump and one seawater element behind a pressure valve.',
  goal: 'watermaker',
  demandL: 150,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment-20', { name: 'Filter 20 µm', micron: 20, cleanLossBar: 0.02, holdsG: 40 }),
    stage('sediment', 'sediment-5', { name: 'Filter 5 µm', cleanLossBar: 0.04, holdsG: 40 }),
    stage('pump', 'pump', {
      name: 'High-pressure pump',
      pump: { kind: 'displacement', flowLPerH: 700, reliefBar: 65, energyRecovery: 0 },
    }),
    stage('membrane', 'membrane', { name: 'Membrane', elementClass: 'in25Sea', valve: { kind: 'pressure', bar: 55 } }),
    stage('tank', 'tank', { name: 'Water tank', volumeL: 300 }),
  ],
  probes: [{ name: 'Product', after: 'membrane' }],
  drawLPerH: 60,
  supply: {
    name: 'Sea',
    character: 'seawater',
    readingUScm: 51_800,
    temperatureC: 20,
    linePressureBar: 1,
    chlorineMgL: 0,
    season: { lowestTemperatureC: 12, highestTemperatureC: 27 },
  },
};
