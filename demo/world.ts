import { appendEvent, findJob, openJob } from '../src/db/jobs';
import { saveBoard } from '../src/db/boards';
import { keepImage } from '../src/db/images';
import { keepReferences, markDemoWorld } from '../src/db/knowledge';
import { saveImageFamily, saveStation } from '../src/db/library';
import { addReport, savePartFamily, savePartType } from '../src/db/parts';
import type { Session } from '../src/db/session';
import { appendStock } from '../src/db/stock';
import { TYPED } from '../src/core/job';
import { problemText } from '../src/core/result';
import { DEMO_DUMPS } from './dumps';
import {
  DEMO_BOARDS,
  DEMO_FAMILIES,
  demoBoard,
  demoDump,
  demoFamily,
  demoPartFamilies,
  demoPartTypes,
  demoReferences,
  demoReports,
  demoStations,
  demoStock,
} from './files';
import { demoJobs, type DemoJob } from './jobs';

const LIBRARY_AT = '2026-11-02T08:00:00.000Z';
/** Time between two demo entries, ms. */
const ENTRY_GAP_MS = 95_000;

/** Loads the demo world into a database; what is there already stays as it is. */
export async function loadDemo(db: Session): Promise<void> {
  await markDemoWorld(db);
  for (const id of DEMO_BOARDS) await saveBoard(db, demoBoard(id), LIBRARY_AT);
  for (const id of DEMO_BOARDS) await keepReferences(db, demoReferences(id), LIBRARY_AT);
  for (const id of DEMO_FAMILIES) await saveImageFamily(db, demoFamily(id));
  for (const station of demoStations()) await saveStation(db, station);
  for (const { file, name, family } of DEMO_DUMPS) {
    await keepImage(db, { bytes: demoDump(file), name, familyId: family, at: LIBRARY_AT });
  }
  for (const job of demoJobs()) await loadJob(db, job);
  await loadParts(db);
}

async function loadParts(db: Session): Promise<void> {
  for (const type of demoPartTypes()) await savePartType(db, type);
  for (const family of demoPartFamilies()) await savePartFamily(db, family);
  for (const [i, report] of demoReports().entries()) await addReport(db, report, `demo-report-${i}`, LIBRARY_AT);
  for (const { seq, body, at, bench, actor } of demoStock()) {
    const stored = await appendStock(db, [body], { key: `demo-stock-${seq}`, at, bench, actor });
    if (!stored.ok) throw new Error(problemText(stored.problems));
  }
}

async function loadJob(db: Session, job: DemoJob): Promise<void> {
  if (await findJob(db, job.number)) return;
  await openJob(db, job.boardId, job.openedAt, job.number);
  const start = Date.parse(job.openedAt);
  for (const [i, body] of job.events.entries()) {
    const at = new Date(start + i * ENTRY_GAP_MS).toISOString();
    await appendEvent(
      db,
      job.number,
      { body, origin: TYPED },
      { key: `demo-${job.number}-${i}`, at, bench: 'Bench 1', actor: 'Bench lead' },
    );
  }
}
