import type { PartRef } from '../identities';
import { groundNet, netNamed, partNamed, railOfNet, type Board, type PartKind } from '../board';
import { completeLine, defineCommand, orList, parseLine, type CommandDefinition, type Grammar } from '../command-line';
import { fail, ok, type Result } from '../result';
import { formatVolt, parseFigure } from '../units';
import type { BoardEdit, Node } from './board-edit';
import { LAND_PATTERNS, landPattern } from './packages';

/** What a line means: the edit, and what it is in words. */
export interface SketchEntry {
  readonly edit: BoardEdit;
  readonly echo: string;
}

type SketchLine = CommandDefinition<Board, SketchEntry>;
const defineSketchLine = (definition: SketchLine): SketchLine => defineCommand<Board, SketchEntry>(definition);

/** What designators begin with, and what such a part mostly is. Source: IEEE 315 class letters; kinds of this trade, common practice. */
const BY_LETTER: readonly (readonly [prefix: string, kind: PartKind, pattern: string])[] = [
  ['FL', 'lineFilter', 'FILTER-4'],
  ['C', 'capacitor', 'CHIP-1005'],
  ['R', 'resistor', 'CHIP-1005'],
  ['L', 'coil', 'COIL-2520'],
  ['F', 'fuse', 'CHIP-3216'],
  ['D', 'esdArray', 'ESD-3'],
  ['Q', 'mosfet', 'FET-3.3'],
  ['Y', 'crystal', 'XTAL-4'],
  ['J', 'connector', 'PACK-4'],
  ['U', 'converter', 'QFN-16-0.5'],
];
const kindOfRef = (ref: PartRef) => BY_LETTER.find(([prefix]) => ref.toUpperCase().startsWith(prefix));

/** Roles of a circuit by the words that name them, and the part that has each on this board. */
const ROLES: Readonly<Record<string, (board: Board) => string | undefined>> = {
  controller: (board) => board.ports[0]?.controller,
  charger: (board) =>
    firstOf(board, 'chargeController') ?? board.rails.find((r) => r.feeds.some((f) => f.by))?.feeds[0].by ?? undefined,
  memory: (board) => board.ports.find((p) => p.imagePart)?.imagePart ?? firstOf(board, 'flash'),
  port: (board) => board.ports[0]?.id,
  fuse: (board) => firstOf(board, 'fuse'),
  switch: (board) => firstOf(board, 'mosfet'),
  coil: (board) => firstOf(board, 'coil'),
  mux: (board) => firstOf(board, 'mux'),
  processor: (board) => firstOf(board, 'processor'),
  converter: (board) => firstOf(board, 'converter'),
  pack: (board) => firstOf(board, 'batteryConnector'),
};
const firstOf = (board: Board, kind: PartKind): string | undefined => board.parts.find((p) => p.kind === kind)?.ref;

const REF = /^[a-z][a-z0-9_+-]*$/;
const isRef = (word: string): boolean => REF.test(word);
const lower = (names: readonly string[]): string[] => names.map((n) => n.toLowerCase());
const nets = (board: Board): string[] => lower(Object.keys(board.nets));
const refs = (board: Board): string[] => lower(board.parts.map((p) => p.ref));

/** Takes a trailing unit off: `3.3v`, `10k`, `12kohm`. */
const figureOf = (words: readonly string[], unit: string): number | undefined => {
  const text = words.join('').replace(new RegExp(`(${unit})$`), '');
  const figure = parseFigure(text);
  return figure.ok ? figure.value : undefined;
};

function nodeOf(board: Board, word: string): Node {
  const net = word === 'ground' || word === 'gnd' ? groundNet(board) : netNamed(board, word);
  if (net !== undefined) return { net };
  const at = word.lastIndexOf('.');
  return at > 0 ? { ref: word.slice(0, at), pin: word.slice(at + 1) } : { net: word };
}

const nodeWords = (node: Node): string =>
  'net' in node ? node.net.toUpperCase() : `${node.ref.toUpperCase()}.${node.pin.toUpperCase()}`;

const addLine = defineSketchLine({
  name: 'add',
  usage: [
    { example: 'add c14 on vin', help: 'a part from a net to ground; its letter says what it is' },
    { example: 'add r5 from v33 to scl', help: 'a part between two nets' },
    { example: 'add u12 on v33 vsys', help: 'a chip on some nets' },
  ],
  parse(board, { args }) {
    const [ref, how, ...rest] = args;
    const [, part, pattern] = kindOfRef(ref ?? '') ?? [];
    if (!ref || !isRef(ref) || !part || !pattern)
      return fail(`Expected a designator that begins with ${orList(BY_LETTER.map(([p]) => p))}; got "${ref ?? ''}".`);
    const wanted = how === 'on' ? rest : how === 'from' && rest[1] === 'to' ? [rest[0], rest[2]] : undefined;
    if (!wanted || wanted.length === 0 || wanted.includes(undefined as never))
      return fail(`Expected where it is, as in: add ${ref} on vin, or: add ${ref} from v33 to scl.`);
    const unknown = wanted.find((w) => netNamed(board, w) === undefined && w !== 'ground');
    if (unknown !== undefined) return fail(`Expected a net of this board; got "${unknown}".`);
    const found = wanted.map((w) => (w === 'ground' ? groundNet(board) : netNamed(board, w)!));
    const toGround = how === 'on' && found.length === 1;
    const all = toGround ? [...found, groundNet(board)] : found;
    return ok({
      edit: { kind: 'add', ref, part, pattern, nets: all },
      echo: `${ref.toUpperCase()}, ${part}, ${toGround ? `${found[0]} to ground` : all.join(', ')}`,
    });
  },
  complete: (board, words) => (words.length === 3 ? ['on', 'from'] : words.length > 3 ? [...nets(board), 'to'] : []),
});

const removeLine = defineSketchLine({
  name: 'no',
  usage: [{ example: 'no f1', help: 'a part that is not on this board; what stood in series is joined' }],
  parse(board, { args: [ref = ''] }) {
    const part = partNamed(board, ref);
    return part
      ? ok({ edit: { kind: 'remove', ref: part.ref }, echo: `No ${part.ref} here` })
      : fail(`Expected a part of this board; got "${ref}".`);
  },
  complete: (board, words) => (words.length === 2 ? refs(board) : []),
});

const goodLine = defineSketchLine({
  name: 'good',
  usage: [
    { example: 'good vin ohm 12k', help: 'what a good board reads to ground' },
    { example: 'good cc1 drop 0.46', help: 'what a good board reads in diode mode' },
  ],
  parse(board, { args: [typed = '', what = '', ...rest] }) {
    const net = netNamed(board, typed);
    if (net === undefined) return fail(`Expected a net of this board; got "${typed}".`);
    if (what !== 'ohm' && what !== 'drop') return fail(`Expected ohm or drop; got "${what}".`);
    const figure = figureOf(rest, what === 'ohm' ? 'ohm' : 'v');
    if (figure === undefined || !(figure > 0)) return fail(`Expected a figure above 0; got "${rest.join(' ')}".`);
    return ok({
      edit: { kind: 'sound', net, ...(what === 'ohm' ? { ohm: figure } : { dropV: figure }) },
      echo: `${net} of a good board: ${figure} ${what === 'ohm' ? 'Ω' : 'V'}`,
    });
  },
  complete: (board, words) => (words.length === 2 ? nets(board) : words.length === 3 ? ['ohm', 'drop'] : []),
});

const packageLine = defineSketchLine({
  name: 'package',
  usage: [{ example: 'package u1 qfn-40-0.5', help: 'in what package a part is' }],
  parse(board, { args: [ref = '', name = ''] }) {
    const part = partNamed(board, ref);
    if (!part) return fail(`Expected a part of this board; got "${ref}".`);
    const pattern = landPattern(name)?.name ?? Object.keys(board.packages).find((p) => p.toLowerCase() === name);
    return pattern
      ? ok({ edit: { kind: 'package', ref: part.ref, pattern }, echo: `${part.ref} in ${pattern}` })
      : fail(`Expected a package of the list, such as QFN-40-0.5 or CHIP-1005; got "${name}".`);
  },
  complete: (board, words) =>
    words.length === 2 ? refs(board) : words.length === 3 ? lower(LAND_PATTERNS.map((p) => p.name)) : [],
});

const sizeLine = defineSketchLine({
  name: 'size',
  usage: [{ example: 'size 60 40', help: 'width and height of the board, mm' }],
  parse(_board, { args }) {
    const sides = args.map((a) => figureOf([a], 'mm'));
    const [width, height] = sides;
    return sides.length === 2 && width !== undefined && height !== undefined
      ? ok({ edit: { kind: 'size', sizeMm: [width, height] }, echo: `${width} × ${height} mm` })
      : fail(`Expected a width and a height in mm, as in: size 60 40; got "${args.join(' ')}".`);
  },
  complete: () => [],
});

const stackLine = defineSketchLine({
  name: 'stack',
  usage: [{ example: 'stack 1.0 8', help: 'thickness in mm and number of copper layers' }],
  parse(_board, { args }) {
    const [thicknessMm, layers] = args.map((a) => figureOf([a], 'mm'));
    return thicknessMm !== undefined && layers !== undefined && Number.isInteger(layers) && layers >= 1 && layers <= 40
      ? ok({ edit: { kind: 'stack', thicknessMm, layers }, echo: `${thicknessMm} mm, ${layers} layers` })
      : fail(`Expected a thickness in mm and a whole number of layers, as in: stack 1.0 8; got "${args.join(' ')}".`);
  },
  complete: () => [],
});

const drawnLine = defineSketchLine({
  name: 'all',
  usage: [
    { example: 'all parts drawn', help: 'every part of the board is in the file: less is left to what no list holds' },
  ],
  parse: (_board, { words }) =>
    words.join(' ') === 'all parts drawn'
      ? ok({ edit: { kind: 'complete' }, echo: 'Every part is drawn' })
      : fail('Expected: all parts drawn.'),
  complete: (_board, words) => (words.length === 2 ? ['parts'] : ['drawn']),
});

const joinLine = defineSketchLine({
  name: 'pin',
  matches: (_board, { words }) => words.includes('=') && words.length === 3,
  usage: [
    { example: 'u4.12 = c14.1', help: 'it beeps between them: one net' },
    { example: 'u4.3 = vin', help: 'a pin on a net' },
  ],
  parse(board, { words: [a, , b] }) {
    const [first, second] = [nodeOf(board, a), nodeOf(board, b)];
    return ok({
      edit: { kind: 'join', a: first, b: second },
      echo: `${nodeWords(first)} and ${nodeWords(second)} are one net`,
    });
  },
  complete: (board) => nets(board),
});

const isLine = defineSketchLine({
  name: 'name',
  matches: (_board, { words }) => words[1] === 'is' && words.length > 2,
  usage: [
    { example: 'u4 is the controller', help: `what a part is: ${orList(Object.keys(ROLES))}` },
    { example: 'tp3 is 3.3 v', help: 'a test point on the rail of that level' },
    { example: 'vsys is 8.4 v', help: 'the level of a rail' },
    { example: 'r5 is 10k', help: 'the value of a resistor' },
    { example: 'c14.2 is ground', help: 'a pin that beeps to ground' },
  ],
  parse(board, { words: [name, , ...rest] }) {
    if (rest[0] === 'the') return roleOf(board, name, rest.slice(1).join(' '));
    if (rest.length === 1 && (rest[0] === 'ground' || rest[0] === 'gnd')) {
      const [a, b] = [nodeOf(board, name), nodeOf(board, 'ground')];
      return ok({ edit: { kind: 'join', a, b }, echo: `${nodeWords(a)} is ground` });
    }
    return valueOf(board, name, rest);
  },
  complete: (board, words) =>
    words.length === 3 ? ['the', 'ground'] : words[2] === 'the' ? Object.keys(ROLES) : refs(board),
});

/** Which part of the circuit a designator on the board is. */
function roleOf(board: Board, name: string, role: string): Result<SketchEntry> {
  const find = ROLES[role];
  if (!find) return fail(`Expected what it is: ${orList(Object.keys(ROLES))}; got "${role}".`);
  if (!isRef(name)) return fail(`Expected a designator such as U4; got "${name}".`);
  const ref = find(board);
  if (ref === undefined) return fail(`Expected a board with a ${role}; this one has none. Add it first.`);
  return ok({ edit: { kind: 'rename', ref, to: name }, echo: `${name.toUpperCase()} is the ${role}` });
}

function valueOf(board: Board, name: string, words: readonly string[]): Result<SketchEntry> {
  const part = partNamed(board, name);
  if (part?.kind === 'resistor') {
    const ohm = figureOf(words, 'ohm|r');
    return ohm !== undefined && ohm > 0
      ? ok({ edit: { kind: 'value', ref: part.ref, ohm }, echo: `${part.ref}, ${ohm} Ω` })
      : fail(`Expected a value in ohm above 0, such as 10k; got "${words.join(' ')}".`);
  }
  const volts = figureOf(words, 'v');
  if (volts === undefined || !(volts > 0))
    return fail(`Expected a level such as 3.3 v, ground, or: the controller; got "${words.join(' ')}".`);
  const net = netNamed(board, name);
  if (net !== undefined) return ok({ edit: { kind: 'level', net, volts }, echo: `${net} is ${formatVolt(volts)}` });
  if (part) return fail(`Expected a rail or a test point to have a level; ${part.ref} is a part.`);
  const rails = board.rails.filter(
    (r) => r.expect.kind === 'fixed' && Math.abs(r.expect.volts - volts) <= r.tolerance * r.expect.volts,
  );
  if (rails.length !== 1)
    return fail(
      rails.length === 0
        ? `Expected the level of a rail of this board; none is near ${formatVolt(volts)}. Say the net: ${name} on vsys.`
        : `${rails.map((r) => r.id).join(' and ')} may both be ${formatVolt(volts)}. Say which: ${name} on ${rails[0].net.toLowerCase()}.`,
    );
  return ok({
    edit: { kind: 'point', id: name, net: rails[0].net },
    echo: `${name.toUpperCase()} on ${rails[0].net}, ${formatVolt(volts)}`,
  });
}

const onLine = defineSketchLine({
  name: 'point',
  matches: (_board, { words }) => words[1] === 'on' && words.length === 3,
  usage: [{ example: 'tp3 on vsys', help: 'a test point on a net' }],
  parse(board, { words: [id, , typed] }) {
    const net = netNamed(board, typed);
    return net === undefined
      ? fail(`Expected a net of this board; got "${typed}".`)
      : ok({
          edit: { kind: 'point', id, net },
          echo: `${id.toUpperCase()} on ${net}${railOfNet(board, net) ? ', a rail' : ''}`,
        });
  },
  complete: (board, words) => (words.length === 3 ? nets(board) : []),
});

const atLine = defineSketchLine({
  name: 'place',
  matches: (_board, { words }) => words[1] === 'at',
  usage: [{ example: 'u4 at 12.5 20', help: 'its middle, mm from the left and from the top' }],
  parse(board, { words: [ref, , ...rest] }) {
    const part = partNamed(board, ref);
    if (!part) return fail(`Expected a part of this board; got "${ref}".`);
    const [xMm, yMm] = rest.map((w) => figureOf([w], 'mm'));
    return rest.length === 2 && xMm !== undefined && yMm !== undefined
      ? ok({ edit: { kind: 'place', ref: part.ref, xMm, yMm }, echo: `${part.ref} at ${xMm}, ${yMm} mm` })
      : fail(`Expected two figures in mm, as in: ${ref} at 12.5 20; got "${rest.join(' ')}".`);
  },
  complete: () => [],
});

const turnLine = defineSketchLine({
  name: 'turn',
  usage: [{ example: 'turn u4 90', help: 'clockwise, in degrees, as seen from the front' }],
  parse(board, { args: [ref = '', by = '90'] }) {
    const part = partNamed(board, ref);
    const degrees = figureOf([by], 'deg|°');
    if (!part) return fail(`Expected a part of this board; got "${ref}".`);
    if (degrees === undefined) return fail(`Expected degrees; got "${by}".`);
    const rotationDeg = part.rotationDeg + degrees;
    const { xMm, yMm } = part;
    return ok({
      edit: { kind: 'place', ref: part.ref, xMm, yMm, rotationDeg },
      echo: `${part.ref} turned by ${degrees}°`,
    });
  },
  complete: (board, words) => (words.length === 2 ? refs(board) : ['90', '180', '270']),
});

const sideLine = defineSketchLine({
  name: 'side',
  aliases: ['back', 'front'],
  usage: [{ example: 'back u4', help: 'a part that sits on the back' }],
  parse(board, { head, args: [ref = ''] }) {
    const part = partNamed(board, ref);
    if (!part) return fail(`Expected a part of this board; got "${ref}".`);
    if (head === 'side') return fail('Expected front or back, as in: back u4.');
    const side = head === 'back' ? 'back' : 'front';
    return ok({
      edit: { kind: 'place', ref: part.ref, xMm: part.xMm, yMm: part.yMm, side },
      echo: `${part.ref} on the ${side}`,
    });
  },
  complete: (board, words) => (words.length === 2 ? refs(board) : []),
});

export const SKETCH_GRAMMAR: Grammar<Board, SketchEntry> = {
  commands: [
    joinLine,
    isLine,
    onLine,
    atLine,
    addLine,
    removeLine,
    goodLine,
    packageLine,
    turnLine,
    sideLine,
    sizeLine,
    stackLine,
    drawnLine,
  ],
  helpFirst: 'name',
  emptyLine: 'what you found, such as: u4 is the controller, add c14 on vin, u4.12 = c14.1',
  nameExamples: ['a name of the board, such as: u4 is the controller'],
  names: (board) => [...refs(board), ...nets(board)],
};

/** Reads a line of the sketch. */
export const parseSketchLine = (board: Board, text: string): Result<SketchEntry> =>
  parseLine(SKETCH_GRAMMAR, board, text);
/** Words that can complete the last word of a line. */
export const completeSketchLine = (board: Board, text: string): string[] => completeLine(SKETCH_GRAMMAR, board, text);
