/** What an action takes over the network: its arguments by their schemas, or a sentence and nothing done. */
import { arg, taking } from '../taking';
import { saved } from '../action-result';

const done = jest.fn(async (number: number, text: string, key: string, more?: { readonly a: number }) =>
  saved(`${number} ${text} ${key} ${more?.a ?? 'none'}`),
);
const act = taking([arg.number, arg.text, arg.key, arg.object<{ readonly a: number }>().optional()], done);
beforeEach(() => done.mockClear());

test('what fits is handed on as it is, what may be left out may be', async () => {
  expect(await act(31, 'tp7 1.8', 'k1')).toMatchObject({ saved: true, message: '31 tp7 1.8 k1 none' });
  expect(await act(31, 'tp7 1.8', 'k2', { a: 4 })).toMatchObject({ message: '31 tp7 1.8 k2 4' });
});

test.each([
  [[], 'Expected what the page sends; argument 1: '],
  [['31', 'note', 'k'], 'argument 1: Invalid input: expected number, received string.'],
  [[31.5, 'note', 'k'], 'argument 1: expected a whole number.'],
  [[31, { toString: 'note' }, 'k'], 'argument 2: '],
  [[31, 'note', ''], 'argument 3: '],
  [[31, 'note', 'k'.repeat(201)], 'argument 3: '],
  [[31, 'note', 'k', null], 'argument 4: expected an object.'],
  [[31, 'note', 'k', { a: 1 }, 'more'], 'Expected what the page sends'],
])('%j is refused with a sentence, and nothing is done', async (args, words) => {
  const answer = await (act as (...args: unknown[]) => Promise<unknown>)(...args);
  expect(answer).toMatchObject({ saved: false, code: 'badInput', message: expect.stringContaining(words) as string });
  expect(done).not.toHaveBeenCalled();
});

test('where an action answers something of its own, a refusal is one of those', async () => {
  const words = taking(
    [arg.text],
    async (name: string): Promise<string> => `in, ${name}`,
    ({ message }) => message,
  );
  expect(await words('A')).toBe('in, A');
  expect(await (words as (name: unknown) => Promise<string>)(7)).toMatch(/^Expected what the page sends; argument 1/);
});
