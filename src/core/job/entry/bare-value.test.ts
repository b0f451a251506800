/** A digit typed where a value is due is a value: all of them from 0 to 99.99, on every walk. */
import { demoBoard } from '../../../../demo/files';
import { foldJob } from '../log';
import { walkStem } from '../assessment/walk';
import { jointStem } from '../proof/joint-walk';
import type { EntryMode } from './context';
import { isBareValue } from './bare-value';
import { parseEntry } from './grammar';

const heron = demoBoard('heronlog-4-c');
const fresh = foldJob([]);

const VALUES = Array.from({ length: 10_000 }, (_, i) => i / 100);
/** As a hand types it: without what is not needed, with all digits, and with a comma. */
const FORMS: readonly ((value: number) => string)[] = [
  (v) => String(v),
  (v) => v.toFixed(2),
  (v) => v.toFixed(2).replace('.', ','),
];

test('every value is one by itself', () => {
  const not = FORMS.flatMap((form) => VALUES.map(form).filter((text) => !isBareValue(text)));
  expect(not).toEqual([]);
});

test.each(['ol', 'OL', 'o.l', 'open', ' 262m ', '-0,4', '+3'])('"%s" is one', (text) => {
  expect(isBareValue(text)).toBe(true);
});

test.each(['tp7 1.2', 'note 3', 'off u4', 'u4', '1.2 v', '', '12x', 'x12', 'olm', 'holds', 'opens', '4.7k'])(
  '"%s" is more, or less, than a value',
  (text) => {
    expect(isBareValue(text)).toBe(false);
  },
);

const WALKS: readonly (readonly [string, string, EntryMode, number])[] = [
  ['contacts of the port', walkStem(heron, 'J1', 'A5'), 'ohm', 3],
  ['joints of a part', jointStem('U4', '1'), 'volt', 3],
  ['rails', 'tp7 ', 'volt', 100],
  ['nets to ground', 'tp7 ohm ', 'ohm', 100],
];

test.each(WALKS)('on the walk of the %s each lands as the reading it says', (_, stem, mode, most) => {
  const wrong = VALUES.filter((v) => v < most).flatMap((value) =>
    FORMS.flatMap((form) => {
      const entry = parseEntry(heron, fresh, stem + form(value), mode);
      if (!entry.ok) return [`${stem}${form(value)}: ${entry.problems[0].message}`];
      const { command } = entry.value;
      const body = command.do === 'record' ? command.body : undefined;
      const read = body?.kind === 'reading' && body.value.kind === 'figure' ? body.value.value : undefined;
      return read !== undefined && Math.abs(read - value) < 1e-9 ? [] : [`${stem}${form(value)}: ${read}`];
    }),
  );
  expect(wrong.slice(0, 5)).toEqual([]);
});
