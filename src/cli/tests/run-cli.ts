import { run } from '../main';

/** Runs the command line in this process and gives what it would have printed. */
export async function cli(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const stdout = jest.spyOn(process.stdout, 'write').mockImplementation((text) => ((out += text), true));
  const stderr = jest.spyOn(process.stderr, 'write').mockImplementation((text) => ((err += text), true));
  try {
    return { code: await run(args), out, err };
  } finally {
    stdout.mockRestore();
    stderr.mockRestore();
  }
}
