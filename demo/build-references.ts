/** Writes the demo references: readings on good boards of the fleet. Run with: npx tsx demo/build-references.ts */
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Predictor, SOUND, boardMeasurements, measurementId, sampleReading } from '../src/core/diagnose';
import { seededRandom } from '../src/core/math';
import { portPins } from '../src/core/port';
import { referencesCsv, type ReferenceReading } from '../src/core/reference';
import { DEMO_BOARDS, demoBoard } from './files';

const GOOD_BOARDS = 5;
/** Boards of one lot lie closer together than the model's whole spread: a share of it, so that references are worth keeping. */
const LOT_SHARE = 0.3;

const folder = path.resolve('demo/references');
mkdirSync(folder, { recursive: true });
for (const [k, id] of DEMO_BOARDS.entries()) {
  const board = demoBoard(id);
  const predictor = new Predictor(board);
  const random = seededRandom(70 + k);
  const readings: ReferenceReading[] = [];
  const pinTests = board.ports.flatMap((port) =>
    portPins(board, port.id)
      .filter((p) => p.net !== undefined && board.nets[p.net].diodeV !== undefined)
      .map((p) => ({ kind: 'contactDrop', port: port.id, pin: p.pin }) as const),
  );
  const tests = [
    ...pinTests,
    ...boardMeasurements(board).filter((m) => m.kind === 'groundResistance' || m.kind === 'railVoltage'),
  ];
  for (const m of tests) {
    const prediction = predictor.predict(m, SOUND, new Set(), new Set());
    const centre = prediction.kind === 'values' ? prediction.alternatives[0].means[0] : 0;
    for (let n = 1; n <= GOOD_BOARDS; n++) {
      const { value } = sampleReading(predictor, m, SOUND, random, { practice: { errorRates: { [m.kind]: 0 } } });
      if (value.kind !== 'figure') continue;
      const log = m.kind === 'groundResistance';
      const drawn = log ? Math.log10(value.value) : value.value;
      const near = centre + LOT_SHARE * (drawn - centre);
      const shown = Number((log ? 10 ** near : near).toPrecision(3));
      readings.push({ boardId: id, point: measurementId(m), value: shown, source: `good board ${n}` });
    }
  }
  writeFileSync(path.join(folder, `${id}.csv`), referencesCsv(readings));
}
