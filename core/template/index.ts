export { systemFromAnswers, templatesFor, type Answers } from './fit';
export { newLoop } from './loop';
export { TEMPLATE_ROWS } from './rows';
export { newInstrument, systemFromTemplate, type NewSystem } from './start';
