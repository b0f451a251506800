import { fail, ok } from '../../result';
import { momentIn, parseFigure } from '../../units';
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

/** A day as it is written everywhere: 2026-12-01, with an hour or at the end of it. */
const DAY = /^(\d{4}-\d\d-\d\d)(?:[ t](\d\d:\d\d))?$/;
const END_OF_DAY = '17:00';
/** A delivery of which only the day is known comes by noon. Common practice, no source. */
const NOON = '12:00';

const promiseLine = defineJobLine({
  name: 'promise',
  usage: [
    {
      example: 'promise 2026-12-01',
      help: 'the owner is promised the device for that day; with an hour: 2026-12-01 12:00',
    },
    { example: 'promise off', help: 'the promise is taken back' },
  ],
  parse({ place }, { rest }) {
    if (rest === 'off') return ok({ command: record({ kind: 'promise', byAt: null }), echo: 'Promise taken back' });
    const [, day = '', hour = END_OF_DAY] = DAY.exec(rest) ?? [];
    const byAt = momentIn(place, day, hour);
    if (byAt === undefined) return fail(`Expected a day such as 2026-12-01 after "promise"; got "${rest}".`);
    return ok({ command: record({ kind: 'promise', byAt }), echo: `Promised for ${day}, ${hour}` });
  },
  complete: (_context, words) => (words.length === 2 ? ['off'] : []),
});

/** What is waited for is named in so many letters. */
const MOST_WHAT = 120;
/** A day, and what is expected then. */
const DAY_AND_WHAT = /^(\d{4}-\d\d-\d\d)\s+(\S.*)$/;

const awaitsLine = defineJobLine({
  name: 'awaits',
  usage: [
    { example: 'awaits 2026-12-02 donor board', help: 'the job waits for it until then, and is planned from then on' },
    { example: 'awaits here', help: 'what it waited for is there' },
  ],
  parse({ state, place }, { rest }) {
    if (rest.toLowerCase() === 'here') {
      const what = state.delivery?.what ?? 'What was waited for';
      return ok({ command: record({ kind: 'delivery', what, byAt: null }), echo: `${what} is here` });
    }
    const [, day = '', what = ''] = DAY_AND_WHAT.exec(rest) ?? [];
    const byAt = momentIn(place, day, NOON);
    if (byAt === undefined || what.length > MOST_WHAT)
      return fail(
        `Expected a day and up to ${MOST_WHAT} letters of what is expected then, such as: awaits 2026-12-02 donor board; got "${rest}".`,
      );
    return ok({ command: record({ kind: 'delivery', what, byAt }), echo: `Waits for ${what}, expected ${day}` });
  },
  complete: (_context, words) => (words.length === 2 ? ['here'] : []),
});

const quoteLine = defineJobLine({
  name: 'quote',
  usage: [
    { example: 'quote 120', help: 'a price was told to the owner' },
    { example: 'quote accepted', help: 'the owner took it, or: refused, expired' },
  ],
  parse({ state }, { rest }) {
    if (rest === 'accepted' || rest === 'refused' || rest === 'expired')
      return ok({
        command: record({ kind: 'quote', state: rest, price: state.quote?.price ?? 0 }),
        echo: `Quote ${rest}`,
      });
    const price = parseFigure(rest);
    if (!price.ok) return fail(`Expected a price, accepted, refused or expired after "quote"; got "${rest}".`);
    if (price.value <= 0 || price.value > 1_000_000)
      return fail(`Expected a price from 0.01 to 1,000,000; got ${price.value}.`);
    return ok({
      command: record({ kind: 'quote', state: 'sent', price: price.value }),
      echo: `Quote of ${price.value} sent`,
    });
  },
  complete: (_context, words) => (words.length === 2 ? ['accepted', 'refused', 'expired'] : []),
});

export const recordLines = [soakLine, noteLine, promiseLine, awaitsLine, quoteLine];
