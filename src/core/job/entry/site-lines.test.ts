import { demoBoard } from '../../../../demo/files';
import { completeEntry, foldJob, parseEntry } from '..';

const board = demoBoard('heronlog-4-c');
const state = foldJob([]);
const enter = (text: string) => parseEntry(board, state, text, 'ohm');

test('lifted pads by name, none, and what is wrong with others', () => {
  const none = enter('lifted u4 none');
  expect(none).toMatchObject({ ok: true, value: { command: { body: { kind: 'lifted', ref: 'U4', pins: [] } } } });
  const some = enter('lifted u4 1 ep');
  expect(some).toMatchObject({ ok: true, value: { command: { body: { pins: ['1', 'EP'] } } } });
  for (const [text, words] of [
    ['lifted u4 999', '999'],
    ['lifted u4', 'or none'],
    ['lifted zz 1', 'Expected a part'],
  ]) {
    const got = enter(text);
    expect(got.ok).toBe(false);
    if (!got.ok) expect(got.problems[0].message).toContain(words);
  }
});

test('heights of the corners become a plane, judged', () => {
  const flat = enter('flat u4 52 51 50 52');
  expect(flat).toMatchObject({ ok: true, value: { command: { body: { kind: 'flatness', ref: 'U4' } } } });
  expect(flat.ok && flat.value.echo).toMatch(/^U4: Flat/);
  const tilted = enter('flat u4 50 150 50 150');
  expect(tilted.ok && tilted.value.echo).toMatch(/^U4: .*(high|off|tilt)/i);
  for (const text of ['flat u4 1 2 3', 'flat u4 1 2 3 x', 'flat u4 1 2 3 9000', 'flat 1 2 3 4']) {
    expect(enter(text).ok).toBe(false);
  }
});

test('both words are completed', () => {
  expect(completeEntry(board, state, 'lif')).toContain('lifted');
  expect(completeEntry(board, state, 'lifted u4 n')).toEqual(['none']);
  expect(completeEntry(board, state, 'flat u')).toContain('u4');
});
