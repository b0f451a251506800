export { defineCommand, readLine, type CommandDefinition, type CommandForm, type CommandLine } from './command';
export { expected, oneOf, orList } from './expected';
export { applyCompletion, completeLine, grammarForms, headWords, parseLine, type Grammar } from './grammar';
