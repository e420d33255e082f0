export { systemFromAnswers, type Answers } from './fit';
export { newLoop } from './loop';
export { TEMPLATE_ROWS } from './rows';
export { newInstrument, systemFromTemplate } from './start';
