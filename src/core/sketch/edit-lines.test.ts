import { completeSketchLine, parseSketchLine, SKETCH_GRAMMAR, FIRST_ANSWERS, applyBoardEdit, firstBoard } from '.';
import { grammarForms } from '../command-line';

const first = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
if (!first.ok) throw new Error(first.problems[0].message);
const board = first.value;
/** The sketch with what the examples of the help speak of. */
const withExamples = ['u4 is the controller', 'add c14 on vin', 'add r5 from v33 to scl'].reduce((now, line) => {
  const read = parseSketchLine(now, line);
  const made = read.ok ? applyBoardEdit(now, read.value.edit) : read;
  if (!made.ok) throw new Error(made.problems[0].message);
  return made.value;
}, board);

test('every example of the help is read as what it says', () => {
  for (const { example } of grammarForms(SKETCH_GRAMMAR)) {
    // The examples add what the sketch now has; a level that two rails may have is asked.
    const on = /^(add|u4 is)/.test(example) ? board : withExamples;
    const read = parseSketchLine(
      on,
      example
        .replace('u1', 'u4')
        .replace('tp3 is 3.3 v', 'tp3 is 9 v')
        .replace(/^add u12/, 'add u12'),
    );
    const words = read.ok ? read.value.echo : read.problems[0].message;
    expect(`${example}: ${read.ok || /may both be/.test(words)}`).toBe(`${example}: true`);
  }
});

test.each([
  ['u1 is the c', 'controller'],
  ['add c14 on v', 'vin'],
  ['package u1 qfn-4', 'qfn-40-0.5'],
  ['no f', 'f1'],
  ['good vin o', 'ohm'],
])('%j can be completed with %j', (text, word) => {
  expect(completeSketchLine(board, text)).toContain(word);
});

test.each([
  ['u4 at 12.5', 'Expected two figures in mm'],
  ['turn u99', 'Expected a part of this board; got "u99".'],
  ['turn u1 sideways', 'Expected degrees; got "sideways".'],
  ['side u1', 'Expected front or back'],
  ['stack 1.0 many', 'Expected a thickness in mm and a whole number of layers'],
  ['all of it', 'Expected: all parts drawn.'],
  ['r5 is ten', 'Expected a value in ohm above 0'],
  ['vsys is high', 'Expected a level such as 3.3 v'],
])('%j is answered with a sentence', (text, words) => {
  const read = parseSketchLine(/^(u4|r5)/.test(text) ? withExamples : board, text);
  expect(read.ok ? 'read' : read.problems[0].message).toContain(words);
});
