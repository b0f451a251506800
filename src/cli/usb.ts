import { closeSync, openSync, readSync } from 'node:fs';
import type { Command } from 'commander';
import {
  decodePowerObject,
  powerObjectWords,
  readDialogue,
  readHexList,
  readMessages,
  type CaptureReading,
} from '../core/usb';
import {
  CHARGERS,
  expectDraw,
  nameSegments,
  PACK_STATES,
  SEGMENT_WORDS,
  type Charger,
  type ExpectedDraw,
  type PackState,
} from '../core/trace';
import type { Board, Port } from '../core/board';
import { CaptureReader, meterTable, type Outcome } from '../core/import';
import { complain, InputProblem, print, readBoard, readBytes } from './input';

interface PortOptions {
  readonly port?: string;
  readonly charger: string;
  readonly pack: string;
}

export function addUsbCommands(root: Command): void {
  const usb = root.command('usb').description('what the port says');
  usb
    .command('decode <capture>')
    .description(
      'a two-channel capture (CSV or VCD), a list of messages as hex (.hex, .txt), or power objects as hex words separated by commas',
    )
    .option('--board <board.json>', 'says what a stop implicates on this board')
    .option('--port <id>', 'the connector; the first of the board when left out')
    .option('--rate <hz>', 'sample rate of files without time')
    .action(decode);
  usb
    .command('trace <board.json> <meter.csv>')
    .description('a meter’s record cut into named segments')
    .option('--port <id>')
    .option('--charger <name>', `one of: ${CHARGERS.map((c) => c.name).join('; ')}`, '65 W')
    .option('--pack <state>', PACK_STATES.join(', '), 'partly')
    .action(trace);
  usb
    .command('expect <board.json>')
    .description('the healthy window of a port')
    .option('--port <id>')
    .option('--charger <name>', 'as for trace', '65 W')
    .option('--pack <state>', PACK_STATES.join(', '), 'partly')
    .action((boardFile: string, options: PortOptions) => print(expectedFor(readBoard(boardFile), options)));
}

const PIECE_BYTES = 1 << 20;

function decode(file: string, options: { board?: string; port?: string; rate?: string }): void {
  if (/^[0-9a-f]{8}(,[0-9a-f]{8})*$/i.test(file)) {
    const objects = file.split(',').map((word) => decodePowerObject(parseInt(word, 16)));
    return print({ objects: objects.map((o) => ({ ...o, words: powerObjectWords(o) })) });
  }
  const capture = /\.(hex|txt)$/i.test(file) ? decodeList(file) : decodeCapture(file, options.rate);
  const board = options.board === undefined ? undefined : readBoard(options.board);
  const dialogue = board && readDialogue(board, portOf(board, options.port).id, capture);
  print({
    line: capture.line,
    durationS: capture.durationS,
    edges: capture.edges,
    messages: readMessages(capture.packets).map(
      ({ packet: p, name, section, extended, fields, supplies, request, words }) => ({
        ...{ atS: p.atS, set: p.set, intact: p.intact, words, name, section, header: p.header, extended },
        ...(fields.length > 0 && { fields }),
        ...{ supplies, request },
      }),
    ),
    stop: dialogue?.stop,
    headline: dialogue?.headline,
    implicated: dialogue?.implicated,
  });
}

function decodeList(file: string): CaptureReading {
  const reading = readHexList(new TextDecoder().decode(readBytes(file)));
  return reading.ok ? reading.value : complain(reading.problems.map((p) => ({ ...p, at: `${file} ${p.at ?? ''}` })));
}

function decodeCapture(file: string, rate: string | undefined): CaptureReading {
  const reader = new CaptureReader(file, rate === undefined ? {} : { rate });
  readPieces(file, (piece) => reader.push(piece));
  return valueOf(reader.finish(), file);
}

/** What was read; open questions are told as problems here, with the command that takes answers. */
function valueOf<T>(outcome: Outcome<T>, file: string): T {
  if (outcome.kind === 'refused') return complain(outcome.problems.map((p) => ({ ...p, at: file })));
  if (outcome.value !== undefined) return outcome.value;
  return complain(
    outcome.questions.map((q) => ({ at: file, message: `${q.why} Ask with: unisolda import --answer "${q.id}=…".` })),
  );
}

/** Reads a file piece by piece, so that memory does not grow with it. */
function readPieces(file: string, take: (piece: Uint8Array) => boolean): void {
  let handle: number;
  try {
    handle = openSync(file, 'r');
  } catch (error) {
    throw new InputProblem(
      `Expected a capture or hex words; ${file}: ${(error as NodeJS.ErrnoException).code ?? 'not readable'}.`,
    );
  }
  try {
    for (;;) {
      const piece = new Uint8Array(PIECE_BYTES);
      const got = readSync(handle, piece, 0, PIECE_BYTES, null);
      if (got === 0 || !take(piece.subarray(0, got))) return;
    }
  } finally {
    closeSync(handle);
  }
}

function trace(boardFile: string, csvFile: string, options: PortOptions): void {
  const board = readBoard(boardFile);
  const expected = expectedFor(board, options);
  const imported = meterTable.read({ name: csvFile, bytes: readBytes(csvFile) }, {});
  const meter = valueOf(imported, csvFile);
  const segments = nameSegments(meter.trace, expected);
  print({ expected, segments: segments.map((s) => ({ ...s, words: SEGMENT_WORDS[s.name] })) });
}

function portOf(board: Board, id: string | undefined): Port {
  const port = id === undefined ? board.ports[0] : board.ports.find((p) => p.id === id.toUpperCase());
  if (!port)
    throw new InputProblem(`Expected one of the ports ${board.ports.map((p) => p.id).join(', ')}; got "${id}".`);
  return port;
}

function expectedFor(board: Board, options: PortOptions): ExpectedDraw {
  const charger: Charger | undefined = CHARGERS.find((c) => c.name.startsWith(options.charger));
  if (!charger)
    throw new InputProblem(`Expected a charger: ${CHARGERS.map((c) => c.name).join('; ')}; got "${options.charger}".`);
  if (!PACK_STATES.includes(options.pack as PackState))
    throw new InputProblem(`Expected a pack state: ${PACK_STATES.join(', ')}; got "${options.pack}".`);
  return expectDraw(portOf(board, options.port), charger, options.pack as PackState);
}
