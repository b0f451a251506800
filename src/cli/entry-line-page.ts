import { grammarForms, type CommandForm } from '../core/command-line';
import { PAGE_LINES, PLAN_GRAMMAR } from '../core/heat';
import { JOB_GRAMMAR } from '../core/job';
import { SKETCH_GRAMMAR } from '../core/sketch';
import { STOCK_GRAMMAR } from '../core/stock';

/** The page `docs/entry-line.md`, from the grammars themselves: it says what the program reads. */

const table = (forms: readonly CommandForm[]): string =>
  ['| typed | means |', '|---|---|', ...forms.map(({ example, help }) => `| \`${example}\` | ${help} |`)].join('\n');

export const entryLinePage = (): string => `# The entry line

Typed at the bottom of a page; the echo says in words what Enter will keep. Tab completes, \`?\` shows this list.
This page is written from the grammars by \`npm run formats\`.

## A job

${table(grammarForms(JOB_GRAMMAR))}

A bare figure is ohms while probing and volts while proving; a net's own name with a bare figure is volts. In a walk from
contact to contact, or from joint to joint, the value alone is enough.

## The heat plan

${table([...grammarForms(PLAN_GRAMMAR), ...PAGE_LINES])}

\`off\`, \`on\`, \`pack\` and \`note\` belong to the job and work here too.

## The stock

${table(grammarForms(STOCK_GRAMMAR))}

A reason after \`because\` lifts what is a matter of care, and stays in the record: \`c-109 for 35 because its flash is worn\`.

## A board in the making

${table(grammarForms(SKETCH_GRAMMAR))}

## Keys

While the line is empty: \`Enter\` (or the pedal, \`F9\`) takes the suggestion; while proving the pedal takes the meter's
reading, \`1\`–\`9\` go to a stage, \`Shift N\` asks for another test, on the Outside page \`Shift L\`, \`M\`, \`T\`, \`C\`, \`W\` go to its
views, on the Prove page \`Shift J\`, \`R\`, \`P\`, \`F\`, \`Shift U\` undoes, \`Shift B\` large type, \`/\` finds a job, \`?\` lists keys
and lines.

While a plan runs: \`F9\` (or the pedal's own key), \`Space\` or \`Enter\` goes on, \`M\` marks what is seen, \`P\` pauses and goes
on, \`Backspace\` goes back, \`X\` gives up, \`S\` switches the voice.
`;
