import type { Board } from '../src/core/board';
import {
  measurementId,
  measurementTitle,
  Predictor,
  pickWeighted,
  sampleReading,
  singleFaults,
  SOUND,
  type Fault,
  type Measurement,
} from '../src/core/diagnose';
import type { EventBody, JobEvent } from '../src/core/job';
import { normalDraw, seededRandom, type Random } from '../src/core/math';
import { appendEvents, openJob } from '../src/db/jobs';
import type { Session } from '../src/db/session';
import { demoBoard } from './files';

/** A year of closed jobs behind the demo world: faults drawn by their odds, readings as a bench takes them, most of them repaired. */
export interface PastJob {
  readonly boardId: string;
  readonly openedAt: string;
  readonly person: string;
  readonly events: readonly { readonly body: EventBody; readonly minute: number }[];
}

const PEOPLE = ['Mira', 'Ansel', 'Jorun'] as const;
/** How often each of them finds it, and how fast they are against the planner's usual minutes. Made up. */
const SKILL: Readonly<Record<(typeof PEOPLE)[number], { cure: number; pace: number }>> = {
  Mira: { cure: 0.9, pace: 0.8 },
  Ansel: { cure: 0.72, pace: 1.5 },
  Jorun: { cure: 0.83, pace: 1 },
};
const BOARDS = ['heronlog-4-c', 'marshdesk-2-b'] as const;
const DAY_MS = 86_400_000;
const FIRST_DAY = Date.UTC(2025, 11, 1, 8);
const COMEBACK = 0.06;
const FIRST_NUMBER = 1001;

export function pastYear(count: number, seed = 2026): PastJob[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_, k) => pastJob(k, count, random));
}

function pastJob(k: number, count: number, random: Random): PastJob {
  const boardId = BOARDS[Math.floor(random() * BOARDS.length)];
  const board = demoBoard(boardId);
  const person = PEOPLE[Math.floor(random() * PEOPLE.length)];
  const fault = drawnFault(board, random);
  const at = FIRST_DAY + Math.floor((k * 355 * DAY_MS) / count) + Math.floor(random() * 8 * 3_600_000);
  let minute = 0;
  const events: { body: EventBody; minute: number }[] = [];
  const add = (body: EventBody, usual: number): void => {
    minute += Math.max(0.5, usual * SKILL[person].pace * Math.exp(0.35 * normalDraw(random)));
    events.push({ body, minute });
  };
  add(story(fault), 5);
  for (const r of readings(board, fault, random)) add({ kind: 'reading', ...r }, 2.5);
  const price = Math.round(60 + 60 * random());
  const chance = Number((0.6 + 0.35 * random()).toFixed(2));
  add({ kind: 'quote', state: 'accepted', price, low: price - 20, high: price + 30, successChance: chance }, 4);
  const promisedMin = minute + 60 * (3 + 4 * random());
  add({ kind: 'promise', byAt: new Date(at + promisedMin * 60_000).toISOString() }, 1);
  const isRepaired = random() < SKILL[person].cure;
  if (isRepaired) {
    add({ kind: 'decision', action: 'replace', ref: fault.ref }, 4);
    add({ kind: 'partOff', ref: fault.ref }, 18);
    add({ kind: 'partOn', ref: fault.ref, fresh: true }, 22);
    for (const r of proof(board, random)) add({ kind: 'reading', ...r }, 1.5);
  }
  // A queue stood before some of them.
  minute += 60 * 8 * random() ** 3;
  add(
    {
      kind: 'close',
      outcome: isRepaired ? 'repaired' : 'returned',
      cause: isRepaired ? `${fault.ref} was at fault.` : 'Not found at a price that is worth it.',
      price: isRepaired ? price : 20,
    },
    4,
  );
  if (isRepaired && random() < COMEBACK) {
    minute += 60 * 24 * (5 + 40 * random());
    events.push({ body: { kind: 'reopen', symptom: 'The same again' }, minute });
    add({ kind: 'close', outcome: 'stopped', cause: 'Sent on.', price: 0 }, 30);
  }
  return { boardId, openedAt: new Date(at).toISOString(), person, events };
}

/** A part by the root of its odds, so that a year has more than the commonest in it, and one of its faults by its odds. */
function drawnFault(board: Board, random: Random): Fault {
  const byPart = faultsByPart(board);
  const odds = byPart.map((faults) => Math.sqrt(faults.reduce((sum, f) => sum + f.weight, 0)));
  const faults = byPart[pickWeighted(scaled(odds), random)];
  return faults[pickWeighted(scaled(faults.map((f) => f.weight)), random)];
}

const known = new Map<string, Fault[][]>();

function faultsByPart(board: Board): Fault[][] {
  const there = known.get(board.id);
  if (there) return there;
  const faults = singleFaults(board).filter((f) => f.weight > 0);
  const byPart = board.parts.map((p) => faults.filter((f) => f.ref === p.ref)).filter((own) => own.length > 0);
  known.set(board.id, byPart);
  return byPart;
}

function scaled(weights: readonly number[]): number[] {
  const whole = weights.reduce((sum, w) => sum + w, 0);
  return weights.map((w) => w / whole);
}

const story = (fault: Fault): EventBody => ({
  kind: 'story',
  symptom: fault.effects.length > 1 ? 'Dead since yesterday' : 'Does not charge',
  history: [],
  dataMatters: false,
  locked: false,
  consent: true,
  pack: 'sound',
});

/** What a bench reads on such a board before the work: outside first, then the fault's own nets and a few others. */
function readings(board: Board, fault: Fault, random: Random) {
  const predictor = Predictor.of(board);
  const [port] = board.ports;
  const own = fault.effects.flatMap((e) => ('net' in e && typeof e.net === 'string' ? [e.net] : []));
  const nets = [...new Set([...own, ...board.rails.map((r) => r.net)])].slice(0, 4);
  const asked: Measurement[] = [
    { kind: 'usbMeter', port: port.id, side: 'A' },
    { kind: 'usbMeter', port: port.id, side: 'B' },
    ...nets.map((net): Measurement => ({ kind: 'groundResistance', net })),
    ...board.rails.slice(0, 2).map((r): Measurement => ({ kind: 'railVoltage', rail: r.id })),
  ];
  return asked
    .filter((m) => measurementTitle(board, m) !== '' && measurementId(m) !== '')
    .map((m) => sampleReading(predictor, m, fault, random))
    .map(({ measurement, value }) => ({ measurement, value }));
}

function proof(board: Board, random: Random) {
  const predictor = Predictor.of(board);
  const asked: Measurement[] = [
    ...board.rails.map((r): Measurement => ({ kind: 'railVoltage', rail: r.id })),
    { kind: 'usbMeter', port: board.ports[0].id, side: 'A' },
    ...board.functions.map((f): Measurement => ({ kind: 'functionTest', fn: f.id })),
  ];
  return asked.map((m) => {
    const { measurement, value } = sampleReading(predictor, m, SOUND, random);
    return { measurement, value };
  });
}

/** Puts a year of closed jobs behind what is there. */
export async function loadYear(db: Session, count: number, seed?: number): Promise<void> {
  for (const [k, job] of pastYear(count, seed).entries()) {
    const number = await openJob(db, job.boardId, job.openedAt, FIRST_NUMBER + k);
    const log: JobEvent[] = [];
    for (const [i, { body, minute }] of job.events.entries()) {
      const at = new Date(Date.parse(job.openedAt) + minute * 60_000).toISOString();
      const meta = { key: `year ${number} ${i}`, at, bench: 'Window bench', actor: job.person };
      log.push(...(await appendEvents(db, number, [{ body }], log, meta)));
    }
  }
}
