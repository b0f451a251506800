import { fail, ok } from '../../result';
import { parseFigure } from '../../units';
import { record } from '../decide/command';
import { defineJobLine } from './context';

/** Lines for the record itself: the soak, and words. */

const MOST_SOAK_MINUTES = 24 * 60;

const soakLine = defineJobLine({
  name: 'soak',
  usage: [
    { example: 'soak 30', help: 'a soak of 30 minutes begins' },
    { example: 'soak restart', help: 'a restart in it' },
    { example: 'soak off', help: 'its end' },
  ],
  parse(_context, { args }) {
    const [what, ...more] = args;
    if (more.length > 0 || what === undefined)
      return fail(`Expected minutes, restart or off after "soak"; got "${args.join(' ')}".`);
    if (what === 'off') return ok({ command: record({ kind: 'soak', act: 'end' }), echo: 'Soak ended' });
    if (what === 'restart')
      return ok({ command: record({ kind: 'soak', act: 'restart' }), echo: 'It restarted in the soak' });
    const minutes = parseFigure(what);
    if (!minutes.ok) return minutes;
    if (minutes.value < 1 || minutes.value > MOST_SOAK_MINUTES)
      return fail(`Expected 1 to ${MOST_SOAK_MINUTES} minutes; got ${minutes.value}.`);
    return ok({
      command: record({ kind: 'soak', act: 'start', minutes: minutes.value }),
      echo: `Soak of ${minutes.value} min begins`,
    });
  },
  complete: (_context, words) => (words.length === 2 ? ['30', 'restart', 'off'] : []),
});

const noteLine = defineJobLine({
  name: 'note',
  usage: [{ example: 'note screws wrong', help: 'words for the record' }],
  parse: (_context, { rest }) =>
    rest === ''
      ? fail('Expected words after "note".')
      : ok({ command: record({ kind: 'note', text: rest }), echo: 'Note kept with the job.' }),
  complete: () => [],
});

export const recordLines = [soakLine, noteLine];
