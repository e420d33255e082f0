export { systemFromAnswers, templatesFor, type Answers } from './fit';
export { newLoop } from './loop';
export { TEMPLATE_ROWS } from './rows';
export { METER_FORMS, METER_FORM_ROWS, newInstrument, systemFromTemplate, type MeterForm, type NewSystem } from './start';
