import { demoBoard } from '../../../demo/files';
import { DEFAULT_PRACTICE, Predictor, sampleReading, type Measurement, type Reading } from '../diagnose';
import { seededRandom } from '../math';
import { drawDrill, drillOfWork, drillSchema, parOf, unknownFaults, type Drill } from '.';

const heron = demoBoard('heronlog-4-c');
const predictor = Predictor.of(heron);
const ohm = (net: string): Measurement => ({ kind: 'groundResistance', net });

/** What a bench reads of a board with a fault, before anything is touched. */
function readOf(fault: string, measurements: readonly Measurement[]): Reading[] {
  const hidden = predictor.faults.find((f) => f.id === fault)!;
  const random = seededRandom(5);
  return measurements.map((measurement) => ({
    measurement,
    value: sampleReading(predictor, measurement, hidden, random).value,
  }));
}
const work = (readings: readonly Reading[], replaced: readonly string[]) => ({
  ...{ number: 26, readings, replaced, history: [], practice: DEFAULT_PRACTICE },
});
const SHORT = readOf('U4/short/AON33', [{ kind: 'visualInspection', ref: 'J1' }, ohm('AON33'), ohm('PD18')]);

test('a repaired job becomes a drill with the fault that its readings show and its work cleared', () => {
  const drill = drillOfWork(predictor, work(SHORT, ['U4']))!;
  expect(drillSchema.parse(drill)).toEqual(drill);
  expect(drill).toMatchObject({ hidden: ['U4/short/AON33'], faults: 1, boardId: heron.id });
  const drawn = drawDrill(predictor, drill);
  expect(drawn.faults.map((f) => f.id)).toEqual(['U4/short/AON33']);
  expect([drawn.isUnlisted, drawn.story]).toEqual([false, expect.stringMatching(/^[A-Z]/)]);
  expect(parOf(predictor, drill).isSolved).toBe(true);
});

test('its name tells nothing of what was wrong; another seed hides the same', () => {
  const drill = drillOfWork(predictor, work(SHORT, ['U4']))!;
  expect(drill.name).toBe('From the bench, job 26');
  const again = drawDrill(predictor, { ...drill, seed: 999 });
  expect(again.faults).toEqual(drawDrill(predictor, drill).faults);
});

test('work that the readings do not ask for makes none', () => {
  expect(drillOfWork(predictor, work(SHORT, ['C14']))).toBeUndefined();
  expect(drillOfWork(predictor, work(SHORT, []))).toBeUndefined();
});

test('faults that a board does not know are named', () => {
  const drill: Drill = { ...drillOfWork(predictor, work(SHORT, ['U4']))!, hidden: ['U4/short/AON33', 'U99/dead'] };
  expect(unknownFaults(predictor, drill)).toEqual(['U99/dead']);
});
