import { partByRef, type Board } from '../board';
import { LOOK_FINDINGS, OUTSIDE_THINGS } from '../diagnose';
import { placeNames } from './places';

const COMMANDS = [
  'usb',
  'look',
  'talk',
  'tester',
  'swap',
  'try',
  'check',
  'off',
  'on',
  'mended',
  'shield',
  'lifted',
  'flat',
  'joint',
  'pack',
  'soak',
  'note',
  'fix',
  'open',
  'out',
  'closed',
];

/** Words that can follow what is typed: at most `most`, shortest first. The last word of the text is completed. */
export function completeEntry(board: Board, text: string, most = 6): string[] {
  const words = text.toLowerCase().trimStart().split(/\s+/);
  if (words[0] === 'fix') words.shift();
  const typed = words[words.length - 1] ?? '';
  return candidates(board, words)
    .filter((c) => c.startsWith(typed) && c !== typed)
    .sort((a, b) => a.length - b.length || a.localeCompare(b))
    .slice(0, most);
}

function candidates(board: Board, words: string[]): string[] {
  if (words.length <= 1) return words[0] ? [...COMMANDS, ...lower(placeNames(board))] : [];
  const [head, second] = words;
  const last = words.length;
  const ports = lower(board.ports.map((p) => p.id));
  switch (head) {
    case 'usb':
      return last === 2
        ? [...(ports.length > 1 ? ports : []), 'a', 'b']
        : last === 3 && ports.includes(second)
          ? ['a', 'b']
          : [];
    case 'soak':
      return last === 2 ? ['30', 'restart', 'off'] : [];
    case 'look':
      return last === 2 ? ports : last === 3 ? ['good', 'bad'] : [...LOOK_FINDINGS];
    case 'talk':
      return words.includes('a') || words.includes('b')
        ? ['silent', 'unanswered', 'unasked', 'refused', 'unready', 'contract', 'collapsed', 'noisy']
        : [...(ports.length > 1 ? ports : []), 'a', 'b'];
    case 'tester':
      return ports.length > 1 && last === 2 ? ports : ['pass', 'fail'];
    case 'swap':
      return swapWords(ports, words);
    case 'check':
      return last === 2 ? lower([...new Set(board.ports.map((p) => p.imagePart))]) : ['good', 'bad'];
    case 'try':
      return last === 2 ? board.functions.map((f) => f.id) : ['works', 'fails'];
    case 'lifted':
      return last === 2 ? lower(board.parts.map((p) => p.ref)) : last === 3 ? ['none'] : [];
    case 'joint':
      return last === 2
        ? lower(board.parts.map((p) => p.ref))
        : last === 3
          ? lower(Object.keys(partByRef(board, second.toUpperCase())?.pins ?? {}))
          : ['ol'];
    case 'flat':
    case 'off':
      return last === 2 ? lower(board.parts.map((p) => p.ref)) : [];
    case 'on':
      return last === 2 ? lower(board.parts.map((p) => p.ref)) : ['new', 'same'];
    case 'shield':
      return last === 2 ? lower(board.shields.map((s) => s.id)) : ['off', 'on'];
    case 'mended':
      return last === 2 ? lower([...board.rails.map((r) => r.id), ...board.screws.map((s) => s.id)]) : [];
    case 'pack':
      return ['in', 'out'];
    case 'note':
      return [];
    default:
      return ['ohm', 'ol', 'open', 'beep', 'drop', 'volt', 'thru', 'ripple', 'swings'];
  }
}

function swapWords(ports: string[], words: string[]): string[] {
  const named = ports.includes(words[1]);
  if (words.length === 2) return [...(ports.length > 1 ? ports : []), ...OUTSIDE_THINGS];
  return words.length === 3 && named ? [...OUTSIDE_THINGS] : ['works', 'same'];
}

const lower = (names: readonly string[]): string[] => names.map((n) => n.toLowerCase());

/** The text with its last word replaced by a completion. */
export function applyCompletion(text: string, completion: string): string {
  return `${text.replace(/\S*$/, '')}${completion} `;
}
