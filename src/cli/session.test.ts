/** A job line by line, as another program plays it. */
import { Readable } from 'node:stream';
import { demoBoard } from '../../demo/files';
import { sessionAnswerSchema } from '../core/diagnose';
import { runSession } from './diagnose';

const board = demoBoard('heronlog-4-c');

/** Answers to lines, and the exit code after them. */
async function answers(...lines: readonly (string | object)[]): Promise<{ told: unknown[]; code: unknown }> {
  const told: unknown[] = [];
  const write = jest.spyOn(process.stdout, 'write').mockImplementation((text) => {
    told.push(JSON.parse(String(text)));
    return true;
  });
  const before = process.exitCode;
  process.exitCode = undefined;
  try {
    const text = lines.map((line) => (typeof line === 'string' ? line : JSON.stringify(line))).join('\n');
    await runSession(board, Readable.from([text]));
    return { told, code: process.exitCode };
  } finally {
    process.exitCode = before;
    write.mockRestore();
  }
}

test('each line has one answer in the published form', async () => {
  const { told, code } = await answers(
    { story: { history: ['liquid'], worth: 400 } },
    {
      reading: {
        measurement: { kind: 'usbMeter', port: 'J1', side: 'A' },
        value: { kind: 'pair', volts: 5.02, amps: 0.06 },
      },
    },
    '',
    { work: { kind: 'part', ref: 'U4' } },
    { proof: 'passed' },
  );
  expect(code).toBeUndefined();
  expect(told).toHaveLength(4);
  const parsed = told.map((answer) => sessionAnswerSchema.parse(answer));
  expect(parsed.map((a) => a.step.kind)).toEqual(['test', 'test', expect.any(String), 'done']);
});

test('a line that cannot be taken is answered with what was expected, and the next one counts', async () => {
  const { told, code } = await answers(
    'not json',
    { story: {}, proof: 'passed' },
    { off: 'U99' },
    { reading: { measurement: { kind: 'usbMeter', port: 'J9', side: 'A' }, value: { kind: 'pass' } } },
    { story: { history: [] } },
  );
  expect(code).toBe(2);
  const problems = told.slice(0, 4) as { problems: { message: string }[] }[];
  for (const { problems: list } of problems) expect(list[0].message).toMatch(/^(Expected|Unrecognized|Invalid)/);
  expect(sessionAnswerSchema.safeParse(told[4]).success).toBe(true);
});
