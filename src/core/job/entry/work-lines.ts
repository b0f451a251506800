import { named, partNamed } from '../../board';
import { expected, oneOf } from '../../command-line';
import { inSmallLetters, partNames, targetKey } from '../../diagnose';
import { fail, ok, type Result } from '../../result';
import { record } from '../decide/command';
import { defineJobLine, type Entry } from './context';

/** Lines for work on the board: how far it is open, parts off and on, shields, the pack. */

const ACCESS_ECHO = {
  open: 'The housing is open.',
  out: 'The board is out of its frame.',
  closed: 'The housing is closed.',
} as const;

const accessLine = (access: keyof typeof ACCESS_ECHO, help: string) =>
  defineJobLine({
    name: access,
    usage: [{ example: access, help }],
    parse: (_context, { args, text }): Result<Entry> =>
      args.length === 0
        ? ok({ command: record({ kind: 'access', access }), echo: ACCESS_ECHO[access] })
        : fail(`Expected "${access}" alone; got "${text}".`),
    complete: () => [],
  });

const packLine = defineJobLine({
  name: 'pack',
  usage: [{ example: 'pack out', help: 'the pack is unplugged, or plugged in' }],
  parse(_context, { args }) {
    const [state] = args;
    if ((state !== 'in' && state !== 'out') || args.length > 1)
      return fail(`Expected in, out, or the connector’s voltage after "pack"; got "${args.join(' ')}".`);
    const echo = state === 'out' ? 'The pack is unplugged.' : 'The pack is plugged in.';
    return ok({ command: record({ kind: 'pack', state }), echo });
  },
  complete: () => ['in', 'out'],
});

const offLine = defineJobLine({
  name: 'off',
  usage: [{ example: 'off u4', help: 'a part comes off' }],
  parse({ board }, { args: [word = ''] }) {
    const part = partNamed(board, word);
    if (!part) return fail(`Expected a part of this board after "off"; got "${word}".`);
    return ok({
      command: record({ kind: 'partOff', ref: part.ref }),
      echo: `${part.ref} ${part.what} is off the board: measure again.`,
    });
  },
  complete: ({ board }, words) => (words.length === 2 ? partNames(board) : []),
});

const onLine = defineJobLine({
  name: 'on',
  usage: [
    { example: 'on u4 new', help: 'a new part goes on' },
    { example: 'on u4 same', help: 'the same part goes back on' },
  ],
  parse({ board }, { args: [word = '', how] }) {
    const part = partNamed(board, word);
    if (!part) return fail(`Expected a part of this board after "on"; got "${word}".`);
    const which = oneOf(['new', 'same'], how ?? 'new', `after ${part.ref}`);
    if (!which.ok) return which;
    const fresh = which.value === 'new';
    return ok({
      command: record({ kind: 'partOn', ref: part.ref, fresh }),
      echo: fresh ? `A new ${part.ref} is on.` : `The same ${part.ref} is back on.`,
    });
  },
  complete: ({ board }, words) => (words.length === 2 ? partNames(board) : ['new', 'same']),
});

const shieldLine = defineJobLine({
  name: 'shield',
  usage: [{ example: 'shield sh1 off', help: 'a shield comes off, or goes back on' }],
  parse({ board }, { args: [name = '', way] }) {
    const id = name.toUpperCase();
    if (id === '') return fail(expected(inSmallLetters(board.shields.map((s) => s.id)), name, 'after "shield"'));
    if (way !== 'off' && way !== 'on') return fail(expected(['off', 'on'], way, `after ${id}`));
    return ok({ command: record({ kind: 'shield', id, off: way === 'off' }), echo: `Shield ${id} is ${way}.` });
  },
  complete: ({ board }, words) => (words.length === 2 ? inSmallLetters(board.shields.map((s) => s.id)) : ['off', 'on']),
});

/** Damage of the board itself: a trace to a rail, or where a screw went through. */
const mendedLine = defineJobLine({
  name: 'mended',
  usage: [
    { example: 'mended vin', help: 'a wire past the cracked trace to a rail' },
    { example: 'mended s2', help: 'the board mended where a screw went through' },
  ],
  parse({ board }, { args: [word = ''] }) {
    const rail = named(
      board.rails.map((r) => r.id),
      word,
    );
    const isRail = rail !== undefined;
    const what = rail ?? word.toUpperCase();
    const echo = isRail ? `A wire is laid past the trace to ${what}.` : `The board is mended at screw ${what}.`;
    return ok({ command: record({ kind: 'mended', what }), echo });
  },
  complete: ({ board }, words) =>
    words.length === 2 ? inSmallLetters([...board.rails.map((r) => r.id), ...board.screws.map((s) => s.id)]) : [],
});

/** Small work that is done and proven like any other: joints touched up, contacts cleaned, software restored. */
const touchedLine = defineJobLine({
  name: 'touched',
  usage: [{ example: 'touched u4', help: 'the joints of a part touched up, or flowed again' }],
  parse({ board }, { args: [word = ''] }) {
    const part = partNamed(board, word);
    if (!part) return fail(`Expected a part of this board after "touched"; got "${word}".`);
    const what = targetKey({ kind: 'joints', ref: part.ref });
    return ok({ command: record({ kind: 'mended', what }), echo: `The joints of ${part.ref} are touched up.` });
  },
  complete: ({ board }, words) => (words.length === 2 ? partNames(board) : []),
});

const cleanedLine = defineJobLine({
  name: 'cleaned',
  usage: [{ example: 'cleaned j1', help: 'the contacts of a connector cleaned' }],
  parse({ board }, { args: [word = ''] }) {
    const part = partNamed(board, word);
    if (part?.kind !== 'connector') return fail(`Expected a connector of this board after "cleaned"; got "${word}".`);
    const what = targetKey({ kind: 'contacts', ref: part.ref });
    return ok({ command: record({ kind: 'mended', what }), echo: `The contacts of ${part.ref} are cleaned.` });
  },
  complete: ({ board }, words) =>
    words.length === 2 ? inSmallLetters(board.parts.filter((p) => p.kind === 'connector').map((p) => p.ref)) : [],
});

const restoredLine = defineJobLine({
  name: 'restored',
  usage: [{ example: 'restored', help: 'what the device runs on restored; its data may be lost' }],
  parse: (_context, { args, text }): Result<Entry> =>
    args.length === 0
      ? ok({
          command: record({ kind: 'mended', what: targetKey({ kind: 'software' }) }),
          echo: 'What the device runs on is restored.',
        })
      : fail(`Expected "restored" alone; got "${text}".`),
  complete: () => [],
});

export const workLines = [
  offLine,
  onLine,
  mendedLine,
  touchedLine,
  cleanedLine,
  restoredLine,
  shieldLine,
  packLine,
  accessLine('open', 'the housing is open'),
  accessLine('out', 'the board is out of its frame'),
  accessLine('closed', 'the housing is closed'),
];
