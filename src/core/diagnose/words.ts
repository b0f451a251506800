import type { Board } from '../board';
import { formatAmp, formatChance, formatDrop, formatOhm, formatVolt } from '../units';
import { conditioned, suspects, weightsFor, type Belief } from './belief';
import {
  jointNet,
  pinNet,
  type LookFinding,
  type Measurement,
  type Reading,
  type Unsteady,
  type Value,
} from './measurement';
import { DROP_OPEN_V } from './predict';
import type { Outcome } from './next';
import type { Stop } from '../usb';
import type { Shape } from './prediction';
import type { TestTable } from './table';

/** Diode mode: a drop in volts. */
const isDrop = (m: Measurement): boolean => m.kind === 'drop' || m.kind === 'pin' || m.kind === 'joint';

/** A value in words, with the unit its test has. */
export function valueWords(m: Measurement, value: Value): string {
  switch (value.kind) {
    case 'figure':
      return m.kind === 'volts'
        ? [formatVolt(value.value), ...unsteadyWords(value)].join(', ')
        : isDrop(m)
          ? formatDrop(value.value)
          : formatOhm(value.value);
    case 'pair':
      return `${formatVolt(value.volts)}, ${formatAmp(value.amps)}`;
    case 'open':
      return 'open';
    case 'beep':
      return 'beeps';
    case 'pass':
      return m.kind === 'works'
        ? 'works'
        : m.kind === 'swap'
          ? 'charges then'
          : m.kind === 'tester'
            ? 'passes'
            : 'good';
    case 'fail':
      return failWords(m, value.seen);
    case 'shape':
      return SHAPE_WORDS[value.shape];
    case 'talk':
      return STOP_WORDS[value.stop];
  }
}

/** What else was seen of a voltage, in words. */
export const unsteadyWords = ({ ripplePpV, swings }: Unsteady): string[] => [
  ...(swings ? ['it comes and goes'] : []),
  ...(ripplePpV === undefined ? [] : [`ripple ${formatVolt(ripplePpV)}`]),
];

/** How a watched meter behaves, in words. */
export const SHAPE_WORDS: Readonly<Record<Shape, string>> = {
  steady: 'steady',
  swing: 'swings',
  restart: 'restarts again and again',
  early: 'half an ampere at once',
};

/** Where a conversation stopped, in a few words. */
export const STOP_WORDS: Readonly<Record<Stop, string>> = {
  silent: 'nobody talks',
  offersUnanswered: 'offers unanswered',
  offersNotAsked: 'nothing asked for',
  refused: 'request refused',
  notReady: 'accepted, no supply',
  contract: 'a contract that holds',
  collapsed: 'a contract that collapses',
  noisy: 'a noisy line',
};

/** What makes a port doubtful, in words. */
export const LOOK_WORDS: Readonly<Record<LookFinding, string>> = {
  pins: 'crossed or pushed-back pins',
  tongue: 'a cracked tongue',
  corrosion: 'corrosion',
  liquid: 'liquid marks',
  shell: 'a loose shell',
  debris: 'debris',
};

function failWords(m: Measurement, seen: readonly LookFinding[] | undefined): string {
  if (m.kind === 'works' || m.kind === 'tester') return 'fails';
  if (m.kind === 'swap') return 'no change';
  if (m.kind !== 'look') return 'bad';
  return seen && seen.length > 0 ? seen.map((s) => LOOK_WORDS[s]).join(', ') : 'damaged';
}

/** Where a reading was taken, short: `C14`, `VBUS, A way`. */
export function readingName(board: Board, m: Measurement): string {
  switch (m.kind) {
    case 'usb':
      return board.ports.length > 1 ? `${m.port}, ${m.side} way` : `Port, ${m.side} way`;
    case 'shape':
      return `${board.ports.length > 1 ? m.port : 'Port'} watched, ${m.side} way`;
    case 'talk':
      return `${board.ports.length > 1 ? `${m.port} c` : 'C'}onversation, ${m.side} way`;
    case 'tester':
      return board.ports.length > 1 ? `Quick tester at ${m.port}` : 'Quick tester';
    case 'swap':
      return `Known-good ${m.what}${board.ports.length > 1 ? ` at ${m.port}` : ''}`;
    case 'pin':
      return `${board.ports.length > 1 ? `${m.port} ` : ''}${m.pin} ${pinNet(board, m)} drop`;
    case 'joint':
      return `${m.ref} joint ${m.pin} ${jointNet(board, m)}`;
    case 'through':
      return m.line === 'ab' ? `${m.ref} line to line` : m.line ? `${m.ref} line ${m.line}` : `Through ${m.ref}`;
    case 'drop':
      return `${m.net} drop`;
    case 'ohm':
      return `${m.net} to ground`;
    case 'volts':
      return m.rail;
    case 'look':
      return `${m.ref} by eye`;
    case 'image':
      return `${m.ref} image`;
    case 'works':
      return board.functions.find((f) => f.id === m.fn)?.what ?? m.fn;
    case 'lift':
      return `${m.net}, ${m.ref} off`;
  }
}

/** An outcome class in words: `near 1.6 Ω`, `open`, `fails`. */
export function outcomeWords(m: Measurement, o: Outcome): string {
  if (o.answer) return valueWords(m, o.answer);
  if (m.kind === 'usb') return `${formatVolt(o.means[0])} and ${formatAmp(o.means[1])}`;
  if (m.kind === 'volts') return o.means[0] < 0.2 ? 'next to nothing' : `near ${formatVolt(o.means[0])}`;
  if (isDrop(m)) return o.means[0] >= DROP_OPEN_V - 0.1 ? 'open' : `near ${formatDrop(o.means[0])}`;
  const ohm = 10 ** o.means[0];
  return ohm >= 9e5 ? 'open' : ohm < 0.25 ? 'next to nothing' : `near ${formatOhm(ohm)}`;
}

/** What each likely outcome of a test would say: "Near 1.60 Ω: U4, 88 %." At most `most` sentences, likeliest first. */
export function outlook(
  belief: Belief,
  m: Measurement,
  { table, outcomes }: { readonly table: TestTable; readonly outcomes: readonly Outcome[] },
  most = 2,
): string[] {
  return [...outcomes]
    .filter((o) => o.p > 0.02)
    .sort((a, b) => b.p - a.p)
    .slice(0, most)
    .map((o) => {
      const top = suspects(conditioned(belief, table, o.given))[0];
      const who = top.ref === 'outside' ? 'nothing on this board' : top.ref;
      return `${capital(outcomeWords(m, o))}: then ${who}, ${formatChance(top.p)}.`;
    });
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Why the leading suspect leads: the readings that made it so, in words. */
export function reasons(board: Board, belief: Belief, readings: readonly Reading[], ref: string, most = 3): string[] {
  return weightsFor(belief, ref)
    .filter((w) => Math.abs(w.decades) > 0.15)
    .slice(0, most)
    .map((w) => {
      const r = readings[w.reading];
      const factor = 10 ** Math.abs(w.decades);
      const times = factor > 20 ? 'far' : factor > 3 ? `${Math.round(factor)} times` : 'somewhat';
      return `${readingName(board, r.measurement)} ${valueWords(r.measurement, r.value)}: ${times} ${w.decades > 0 ? 'likelier' : 'less likely'} with ${ref === 'outside' ? 'a sound board' : `${ref} at fault`}.`;
    });
}
