import { listBoards } from '../../db/boards';
import { findGoals, findPractice, findReportWords, findSitePractice, findSourcing } from '../../db/knowledge';
import { listCalibrations, listImageFamilies, listStations } from '../../db/library';
import { listPartFamilies, listPartTypes, listReports } from '../../db/parts';
import type { UnreadableRow } from '../../db/readable';
import type { Session } from '../../db/session';
import { stockEventsOf } from '../../db/stock';

/** Every row of the library, the settings and the stock that cannot be read. A job's own rows are marked on the job. */
export async function loadUnreadable(db: Session): Promise<UnreadableRow[]> {
  const marks: UnreadableRow[] = [];
  await listBoards(db, marks);
  for (const { id } of await listStations(db, marks)) await listCalibrations(db, id, marks);
  await listImageFamilies(db, marks);
  await listPartTypes(db, marks);
  await listPartFamilies(db, marks);
  await listReports(db, undefined, marks);
  await stockEventsOf(db, marks);
  for (const find of [findPractice, findSourcing, findGoals, findSitePractice, findReportWords]) await find(db, marks);
  return marks;
}
