import { partByRef, type Board } from '../src/core/board';
import {
  Predictor,
  SOUND,
  idealReading,
  singleFaults,
  type Measurement,
  type Reading,
  type Value,
} from '../src/core/diagnose';
import type { EventBody, Story } from '../src/core/job';
import { seededRandom } from '../src/core/math';
import { DEMO_DUMPS } from './dumps';
import { demoBoard, demoDump, demoStations, type DEMO_BOARDS } from './files';
import { sha256Hex } from '../src/core/image';
import { aimPlan, judgeHeat, nozzleFor, shownOf, simulateHeat, startingPlan } from '../src/core/heat';

/** One demo job: its readings are those that the model gives for its fault, with a meter's last digit of noise. */
export interface DemoJob {
  readonly number: number;
  readonly boardId: (typeof DEMO_BOARDS)[number];
  readonly openedAt: string;
  readonly events: readonly EventBody[];
}

const story = (symptom: string, more: Partial<Story> = {}): EventBody => ({
  kind: 'story',
  symptom,
  history: [],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
  ...more,
});

/** Takes readings on a board with one known fault; after `mend` the board is sound. */
class Bench {
  private readonly predictor: Predictor;
  private readonly random;
  private faultId: string;

  constructor(board: Board, faultId: string, seed: number) {
    this.predictor = new Predictor(board);
    this.random = seededRandom(seed);
    this.faultId = faultId;
  }

  mend(): void {
    this.faultId = SOUND.id;
  }

  take(...measurements: Measurement[]): EventBody[] {
    return measurements.map((m) => ({ kind: 'reading', ...this.read(m) }));
  }

  private read(m: Measurement): Pick<Reading, 'measurement' | 'value'> {
    const fault = singleFaults(this.predictor.board).find((f) => f.id === this.faultId) ?? SOUND;
    const { measurement, value } = idealReading(this.predictor, m, fault);
    return { measurement, value: this.shown(value) };
  }

  /** Three figures, the last one unsteady. */
  private shown(value: Value): Value {
    const unsteady = (x: number): number => Number((x * (1 + (this.random() - 0.5) * 0.02)).toPrecision(3));
    if (value.kind === 'figure') return { ...value, value: unsteady(value.value) };
    if (value.kind === 'pair') return { ...value, volts: unsteady(value.volts), amps: unsteady(value.amps) };
    return value;
  }
}

const usb = (port: string, side: 'A' | 'B'): Measurement => ({ kind: 'usbMeter', port, side });
const look = (ref: string): Measurement => ({ kind: 'visualInspection', ref });
const ohm = (net: string): Measurement => ({ kind: 'groundResistance', net });
const volts = (rail: string): Measurement => ({ kind: 'railVoltage', rail });
const drop = (net: string): Measurement => ({ kind: 'diodeDrop', net });
const through = (ref: string): Measurement => ({ kind: 'seriesResistance', ref, line: '' });
const works = (fn: string): Measurement => ({ kind: 'functionTest', fn });

const PACK_OUT: EventBody = { kind: 'pack', state: 'out' };

function imageEvent(role: 'patient' | 'donor', file: string, sound: boolean): EventBody {
  const dump = DEMO_DUMPS.find((d) => d.file === file)!;
  const bytes = demoDump(file);
  return { kind: 'image', role, sha256: sha256Hex(bytes), name: dump.name, sizeBytes: bytes.length, sound };
}

/** The demo world's jobs, one for each stage of the path and more. */
export function demoJobs(): DemoJob[] {
  const heron = demoBoard('heronlog-4-c');
  const marsh = demoBoard('marshdesk-2-b');
  return [
    fuseJob(heron),
    provingJob(heron),
    oneSideJob(marsh),
    imageJob(marsh),
    swollenJob(),
    controllerJob(heron),
    heatJob(heron),
    freshJob(marsh),
    walkJob(heron),
    portJob(marsh, 35, 'U12', 'Middle socket dead after a storm on the jetty'),
    portJob(marsh, 36, 'U13', 'Right socket dead, others charge'),
    portJob(marsh, 37, 'U11', 'Left socket gives up after a second'),
  ];
}

/** At the port: good one way round only, its contacts walked as far as the first of row B. */
function walkJob(board: Board): DemoJob {
  const bench = new Bench(board, 'D1/short/CC1', 34);
  const contacts = ['A1', 'A2', 'A3', 'A4', 'A5', 'A6', 'A7', 'A8', 'A9', 'A10', 'A11', 'A12', 'B1', 'B2'];
  return {
    number: 34,
    boardId: 'heronlog-4-c',
    openedAt: '2026-11-24T09:10:00.000Z',
    events: [
      story('Charges only when the plug is turned', { history: ['unknownCharger'] }),
      ...bench.take(look('J1'), usb('J1', 'A'), usb('J1', 'B'), { kind: 'portTester', port: 'J1' }),
      { kind: 'reading', measurement: { kind: 'knownGoodSwap', port: 'J1', what: 'cable' }, value: { kind: 'fail' } },
      PACK_OUT,
      ...bench.take(...contacts.map((pin): Measurement => ({ kind: 'contactDrop', port: 'J1', pin }))),
    ],
  };
}

/** Closed: an open fuse, replaced and proven. */
function fuseJob(board: Board): DemoJob {
  const bench = new Bench(board, 'F1/open', 26);
  const before = bench.take(look('J1'), usb('J1', 'A'), usb('J1', 'B'), through('F1'));
  bench.mend();
  const after = bench.take(
    ...board.rails.map((r) => volts(r.id)),
    usb('J1', 'A'),
    usb('J1', 'B'),
    ...board.functions.map((f) => works(f.id)),
  );
  return {
    number: 26,
    boardId: 'heronlog-4-c',
    openedAt: '2026-11-16T08:40:00.000Z',
    events: [
      story('Dead after a night on a petrol generator', { history: ['unknownCharger'] }),
      ...before,
      PACK_OUT,
      { kind: 'decision', action: 'replace', ref: 'F1' },
      { kind: 'partOff', ref: 'F1' },
      { kind: 'partOn', ref: 'F1', fresh: true },
      ...after,
      { kind: 'close', outcome: 'repaired', cause: 'Input fuse blown by an unsteady charger; use the one supplied.' },
    ],
  };
}

/** Proving: the port controller has been replaced, half of the rails are measured. */
function provingJob(board: Board): DemoJob {
  const bench = new Bench(board, 'U4/dead', 27);
  const before = bench.take(
    look('J1'),
    usb('J1', 'A'),
    usb('J1', 'B'),
    volts('VBUS_F'),
    volts('AON33'),
    ohm('AON33'),
    drop('CC1'),
  );
  bench.mend();
  return {
    number: 27,
    boardId: 'heronlog-4-c',
    openedAt: '2026-11-18T09:05:00.000Z',
    events: [
      story('Charges from no socket since the flood', { history: ['liquid'], dataMatters: true }),
      ...before,
      PACK_OUT,
      { kind: 'decision', action: 'replace', ref: 'U4' },
      heatPlan(board, 'U4', ['U9', 'Q1']),
      { kind: 'partOff', ref: 'U4' },
      ...bench.take(ohm('AON33')),
      { kind: 'site', ref: 'U4', words: '40 pads tinned and level, half the centre pad in paste' },
      { kind: 'partOn', ref: 'U4', fresh: true },
      ...bench.take(ohm('AON33'), volts('VBUS'), volts('VBUS_F'), volts('AON33'), volts('PD18'), volts('VIN')),
    ],
  };
}

/** Probing on the workstation: one ESD array shorts one CC side of one port. */
function oneSideJob(board: Board): DemoJob {
  const bench = new Bench(board, 'D1/short/CC1_1', 28);
  return {
    number: 28,
    boardId: 'marshdesk-2-b',
    openedAt: '2026-11-19T13:20:00.000Z',
    events: [
      story('Left socket charges one way round only', { history: ['unknownCharger'] }),
      ...bench.take(look('J1'), usb('J1', 'A'), usb('J1', 'B'), usb('J2', 'A')),
    ],
  };
}

/** Image: three controllers silent because their shared flash is damaged. */
function imageJob(board: Board): DemoJob {
  const bench = new Bench(board, 'U19/image', 29);
  return {
    number: 29,
    boardId: 'marshdesk-2-b',
    openedAt: '2026-11-20T10:00:00.000Z',
    events: [
      story('No socket charges after an update broke off', { dataMatters: true }),
      ...bench.take(
        look('J1'),
        usb('J1', 'A'),
        usb('J1', 'B'),
        usb('J2', 'A'),
        usb('J3', 'A'),
        volts('AON33'),
        volts('PD18_1'),
        volts('PD18_2'),
      ),
      PACK_OUT,
      { kind: 'access', access: 'out' },
      ...bench.take({ kind: 'imageCheck', ref: 'U19' }),
      { kind: 'decision', action: 'rewrite', ref: 'U19' },
      imageEvent('patient', 'marshdesk-patient-damaged.bin', false),
    ],
  };
}

/** Just arrived, with a pack that comes first. */
function swollenJob(): DemoJob {
  return {
    number: 30,
    boardId: 'heronlog-4-c',
    openedAt: '2026-11-23T15:45:00.000Z',
    events: [story('Case bulges, screen lifts at one corner', { history: ['fall'], pack: 'swollen' })],
  };
}

/** Probing: the port controller's always-on input is shorted inside. */
function controllerJob(board: Board): DemoJob {
  const bench = new Bench(board, 'U4/short/AON33', 31);
  return {
    number: 31,
    boardId: 'heronlog-4-c',
    openedAt: '2026-11-24T07:55:00.000Z',
    events: [
      story('Went dead on a car charger', { history: ['unknownCharger'] }),
      ...bench.take(look('J1'), usb('J1', 'A'), usb('J1', 'B')),
      PACK_OUT,
      { kind: 'access', access: 'out' },
      ...bench.take(through('F1'), { kind: 'seriesResistance', ref: 'FL1', line: 'ab' }),
    ],
  };
}

/** Heat: decided on the port controller, nothing planned yet. */
function heatJob(board: Board): DemoJob {
  const bench = new Bench(board, 'U4/short/PD18', 32);
  return {
    number: 32,
    boardId: 'heronlog-4-c',
    openedAt: '2026-11-24T08:30:00.000Z',
    events: [
      story('Shows five volts on every charger', { history: ['unknownCharger', 'earlierRepair'] }),
      ...bench.take(look('J1'), usb('J1', 'A'), usb('J1', 'B')),
      PACK_OUT,
      { kind: 'access', access: 'out' },
      ...bench.take(ohm('AON33'), ohm('PD18'), through('F1')),
      { kind: 'decision', action: 'replace', ref: 'U4' },
    ],
  };
}

/** Decided on the controller of one port of three: waits for a chip that knows its position. */
function portJob(board: Board, number: number, ref: string, symptom: string): DemoJob {
  const bench = new Bench(board, `${ref}/dead`, number);
  const { id: port, controllerRails } = board.ports.find((p) => p.controller === ref)!;
  return {
    number,
    boardId: 'marshdesk-2-b',
    openedAt: `2026-11-24T10:${number - 20}:00.000Z`,
    events: [
      story(symptom, { history: ['unknownCharger'], worth: 420 }),
      ...bench.take(look(port), usb(port, 'A'), usb(port, 'B')),
      PACK_OUT,
      { kind: 'access', access: 'out' },
      ...bench.take(...controllerRails.map(volts), { kind: 'imageCheck', ref: 'U19' }),
      { kind: 'decision', action: 'replace', ref },
    ],
  };
}

/** Outside: one reading so far. */
function freshJob(board: Board): DemoJob {
  const bench = new Bench(board, 'Q2/open', 33);
  return {
    number: 33,
    boardId: 'marshdesk-2-b',
    openedAt: '2026-11-24T09:10:00.000Z',
    events: [
      story('Middle socket charges nothing, others do', { history: [] }),
      ...bench.take(look('J2'), usb('J2', 'A')),
    ],
  };
}

/** A kept plan as the application makes it: dial aimed, simulated, judged; nothing about it is written by hand. */
function heatPlan(board: Board, ref: string, covers: string[]): EventBody {
  const [station] = demoStations();
  const { bodyMm } = board.packages[partByRef(board, ref)!.package];
  const start = { ...startingPlan(ref, board.alloy, nozzleFor(station.nozzlesMm, bodyMm)), covers };
  const { plan } = aimPlan(board, station, start);
  const verdict = judgeHeat(board, plan, simulateHeat(board, station, plan, { frames: false })!);
  return { kind: 'heatPlan', plan, stationId: station.id, shown: shownOf(verdict) };
}
