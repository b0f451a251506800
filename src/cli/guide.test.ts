/** The commands of the guide run as they stand there. */
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { cli } from './tests/run-cli';

const FOLDER = 'docs/guide';
const COMMANDS = readdirSync(FOLDER).flatMap((file) =>
  [...readFileSync(path.join(FOLDER, file), 'utf8').matchAll(/```sh\n([\s\S]*?)```/g)].flatMap(([, body]) =>
    body
      .trim()
      .split('\n')
      .map((line) => [file, line] as const),
  ),
);

test('there are some', () => expect(COMMANDS.length).toBeGreaterThan(4));

test.each(COMMANDS)('%s: %s', async (_file, line) => {
  expect(line).toMatch(/^npm run -s cli -- /);
  const { code, out, err } = await cli(...line.replace('npm run -s cli -- ', '').split(' '));
  expect([code, err]).toEqual([0, '']);
  expect(out).not.toBe('');
});
