import { DEMO_BOARDS, demoBoard } from '../../demo/files';
import { Predictor, bestTest, fixedChecklist, runPolicy, type PolicyRun } from '../../src/core/diagnose';
import { note, ratio, section } from '../print';

const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length;

/** Tests and minutes until one part is sure enough, over all single faults, against a fixed-order checklist. */
export function benchDiagnosis(): void {
  section(
    'Diagnosis: every single fault once, error-free readings, the application’s choice against a fixed checklist',
  );
  for (const id of DEMO_BOARDS) {
    const predictor = Predictor.of(demoBoard(id));
    const own: PolicyRun[] = [];
    const fixed: PolicyRun[] = [];
    for (const fault of predictor.faults) {
      own.push(runPolicy(predictor, fault, (belief, readings, access) => bestTest(belief, readings, access)));
      fixed.push(runPolicy(predictor, fault, fixedChecklist(predictor.board)));
    }
    note(`${id}: ${predictor.faults.length} faults, in the top three: ${own.filter((r) => r.rank <= 3).length}`);
    for (const what of ['tests', 'minutes'] as const) {
      const [a, b] = [mean(own.map((r) => r[what])), mean(fixed.map((r) => r[what]))];
      note(`mean ${what}: ${a.toFixed(1)} against ${b.toFixed(1)}`);
      ratio(`${what}, own / checklist`, a / b, '< 1');
    }
  }
}
