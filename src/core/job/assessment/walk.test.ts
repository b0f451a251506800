import { demoBoard } from '../../../../demo/files';
import { problemText } from '../../result';
import { statsOf } from '../../reference';
import { isBareValue } from '../entry/bare-value';
import { parseEntry } from '../entry/grammar';
import type { JobEvent } from '../log';
import { foldJob } from '../log';
import { recordedBy } from '../tests/typed';
import { walkPort, walkStem } from './walk';

const board = demoBoard('heronlog-4-c');

function stateAfter(lines: readonly string[]) {
  const events: JobEvent[] = [];
  for (const line of lines) {
    const entry = parseEntry(board, foldJob(events), line, 'ohm');
    if (!entry.ok) throw new Error(`${line}: ${problemText(entry.problems)}`);
    events.push({ seq: events.length + 1, at: '', bench: '', actor: '', body: recordedBy(entry.value) });
  }
  return foldJob(events);
}
const walk = (lines: readonly string[], references = {}) => walkPort(board, stateAfter(lines), references, 'J1');

test('the next contact is always named, with what a good one reads and what stands behind it', () => {
  expect(walk([]).next!.pin).toBe('A1');
  const after = walk(['a1 0.001', 'a2 0.266', 'a3 0.266', 'a4 0.46']);
  expect(after.next!.pin).toBe('A5');
  expect(after.hint).toEqual([
    'Good boards read 0.232 to 0.292 V (board file).',
    expect.stringMatching(/^Behind it: D1, .*U4/),
  ]);
  expect(after.readCount).toBe(4);
});

test('the twin that was read is told, and references narrow the hint', () => {
  const point = 'pin:J1:B5';
  const after = walk(['a5 0.262', 'b4 0.462'], { [point]: statsOf([0.26, 0.262, 0.264]) });
  expect(after.next!.pin).toBe('B5');
  expect(after.hint[0]).toMatch(/\(3 boards\)\.$/);
  expect(after.hint[1]).toBe('Its twin A5 reads 0.262 V.');
});

test('bad contacts are gathered with their verdict', () => {
  const { bad } = walk(['a5 0.003', 'a6 ol', 'a7 0.258']);
  expect(bad.map((p) => [p.pin, p.verdict!.label.split(':')[0]])).toEqual([
    ['A5', 'shorted to ground'],
    ['A6', 'open'],
  ]);
});

test('a correction counts in place of what it corrects; a new connector begins the walk anew', () => {
  expect(walk(['a5 0.003', 'fix a5 0.261']).bad).toEqual([]);
  expect(walk(['a5 0.003', 'off j1', 'on j1 new']).readCount).toBe(0);
  expect(walk(['a5 0.003', 'off j1', 'on j1 new', 'a5 0.262']).readCount).toBe(1);
});

test('a whole walk ends with no next contact', () => {
  const lines = ['a', 'b'].flatMap((row) => Array.from({ length: 12 }, (_, i) => `${row}${i + 1} 0.26`));
  expect(walk(lines).next).toBeUndefined();
});

test('a value alone is told from other lines', () => {
  for (const text of ['0.262', ' .26', '262m', 'ol', 'OPEN', '-0.3', '0,26']) expect(isBareValue(text)).toBe(true);
  for (const text of ['a5 0.2', 'usb a 5 0', '', 'out', 'look j1 good']) expect(isBareValue(text)).toBe(false);
  expect(walkStem(board, 'J1', 'A5')).toBe('a5 ');
  expect(walkStem(demoBoard('marshdesk-2-b'), 'J2', 'B7')).toBe('j2 b7 ');
});
