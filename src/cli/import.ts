import { basename } from 'node:path';
import type { Command } from 'commander';
import { importFile, IMPORTERS, type Answers } from '../core/import';
import { InputProblem, print, readBytes } from './input';

/** What the shell is told: read, refused, or questions are open. */
const EXIT_REFUSED = 2;
const EXIT_ASKED = 3;

export const answersOf = (given: readonly string[]): Answers =>
  Object.fromEntries(
    given.map((text) => {
      const at = text.lastIndexOf('=');
      if (at < 1) throw new InputProblem(`Expected --answer question=value; got "${text}".`);
      return [text.slice(0, at), text.slice(at + 1)];
    }),
  );

export function addImportCommand(root: Command): void {
  root
    .command('import <file>')
    .description('read a file of any kind and say what was understood of it')
    .option('--as <importer>', `the kind of file: ${IMPORTERS.map((i) => i.id).join(', ')}`)
    .option('--answer <question=value...>', 'answers to questions that an earlier call asked')
    .addHelpText('after', '\nExit code 0: read. 3: questions are open. 2: refused.')
    .action((path: string, options: { as?: string; answer?: string[] }) => {
      const file = { name: basename(path), bytes: readBytes(path) };
      const { importer, score, outcome } = importFile(file, answersOf(options.answer ?? []), options.as);
      const refused = outcome.kind === 'refused';
      print({
        importer,
        score: Number(score.toFixed(3)),
        questions: refused ? [] : outcome.questions,
        problems: refused ? outcome.problems : [],
        notes: refused ? [] : outcome.notes,
        summary: refused ? null : outcome.summary,
      });
      process.exitCode = refused ? EXIT_REFUSED : outcome.questions.length > 0 ? EXIT_ASKED : 0;
    });
}
