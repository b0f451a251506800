/** A folder for what the test files of one run share, such as the demo world, which takes seconds to load. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

export default function setUp() {
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-run-'));
  process.env.UNISOLDA_TEST_RUN = folder;
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
}
