import type { PartRef } from '../identities';
import { failAll, ok, type Problem, type Result } from '../result';
import { landsOf } from './lands';
import { boardSchema, type Board } from './schema';

/**
 * Checks a value against the board format and against itself: every name that is used is defined, every pin is on
 * the package, nothing is named twice, every part lies within the outline's bounds, rails form a tree.
 */
export function parseBoard(input: unknown): Result<Board> {
  const parsed = boardSchema.safeParse(upcast(input));
  if (!parsed.success) {
    return failAll(
      parsed.error.issues.slice(0, 20).map((issue) => ({
        at:
          issue.path
            .map((p) => (typeof p === 'number' ? `[${p}]` : `.${String(p)}`))
            .join('')
            .replace(/^\./, '') || 'file',
        message: `${issue.message}.`,
      })),
    );
  }
  const problems = crossCheck(parsed.data);
  return problems.length > 0 ? failAll(problems) : ok(parsed.data);
}

/** Files of version 1 allowed fewer names; all that they hold holds in version 2. */
const upcast = (input: unknown): unknown =>
  typeof input === 'object' && input !== null && 'format' in input && input.format === 'unisolda-board/1'
    ? { ...input, format: 'unisolda-board/2' }
    : input;

/** Reads board JSON text; a text that is not JSON is named as such. */
export function parseBoardText(text: string): Result<Board> {
  try {
    return parseBoard(JSON.parse(text));
  } catch (error) {
    return failAll([
      { message: `Expected a board file in JSON; got text that is not JSON (${(error as Error).message}).` },
    ]);
  }
}

function crossCheck(board: Board): Problem[] {
  return [...checkParts(board), ...checkNets(board), ...checkRailsAndPorts(board), ...checkSlots(board)];
}

function checkParts(board: Board): Problem[] {
  const problems: Problem[] = [];
  const refs = new Set<string>();
  const xs = board.outlineMm.map((p) => p[0]);
  const ys = board.outlineMm.map((p) => p[1]);
  for (const part of board.parts) {
    const at = `parts ${part.ref}`;
    if (refs.has(part.ref)) problems.push({ at, message: 'This designator is used twice; expected each once.' });
    refs.add(part.ref);
    const pkg = board.packages[part.package];
    if (!pkg) {
      problems.push({ at, message: `Expected a package listed under packages; got "${part.package}".` });
      continue;
    }
    const pins = new Set(landsOf(pkg).map((p) => p.pin));
    for (const [pin, net] of Object.entries(part.pins)) {
      if (!pins.has(pin)) problems.push({ at, message: `Pin ${pin} is not on package ${part.package}.` });
      if (!board.nets[net])
        problems.push({ at, message: `Pin ${pin} is on net ${net}, which is not listed under nets.` });
    }
    for (const net of Object.keys(part.loadsOhm)) {
      if (!Object.values(part.pins).includes(net))
        problems.push({ at, message: `It loads ${net} but has no pin on it.` });
    }
    for (const net of Object.keys(part.loadsWithin ?? {})) {
      if (part.loadsOhm[net] === undefined)
        problems.push({ at, message: `It gives a factor for its load on ${net}, but no load.` });
    }
    if (part.kind === 'resistor' && part.ohm === undefined)
      problems.push({ at, message: 'A resistor needs its value in ohm.' });
    const inside =
      part.xMm >= Math.min(...xs) &&
      part.xMm <= Math.max(...xs) &&
      part.yMm >= Math.min(...ys) &&
      part.yMm <= Math.max(...ys);
    if (!inside) problems.push({ at, message: `It lies at ${part.xMm}, ${part.yMm} mm, outside the outline.` });
  }
  return problems;
}

function checkNets(board: Board): Problem[] {
  const problems: Problem[] = [];
  const grounds = Object.entries(board.nets).filter(([, n]) => n.role === 'ground');
  if (grounds.length !== 1)
    problems.push({ at: 'nets', message: `Expected exactly one net with the role ground; got ${grounds.length}.` });
  for (const [net, { diodeV, diodeWithinV }] of Object.entries(board.nets))
    if (diodeWithinV !== undefined && diodeV === undefined)
      problems.push({ at: `nets ${net}`, message: 'It says how far its drop may lie off, but gives no drop.' });
  const ids = new Set(board.parts.map((p) => p.ref));
  for (const point of board.points) {
    if (ids.has(point.id))
      problems.push({ at: `points ${point.id}`, message: 'This name is used twice; expected each once.' });
    ids.add(point.id);
    if (!board.nets[point.net])
      problems.push({
        at: `points ${point.id}`,
        message: `It is on net ${point.net}, which is not listed under nets.`,
      });
  }
  return problems;
}

function checkRailsAndPorts(board: Board): Problem[] {
  const problems: Problem[] = [];
  const refs = new Set(board.parts.map((p) => p.ref));
  const rails = new Map(board.rails.map((r) => [r.id, r]));
  const needPart = (at: string, ref: PartRef): void => {
    if (!refs.has(ref)) problems.push({ at, message: `It names ${ref}, which is not among the parts.` });
  };
  const seen = new Set<string>();
  for (const rail of board.rails) {
    const at = `rails ${rail.id}`;
    if (!board.nets[rail.net])
      problems.push({ at, message: `It is on net ${rail.net}, which is not listed under nets.` });
    for (const feed of rail.feeds) {
      if (feed.from !== null && !seen.has(feed.from)) {
        problems.push({
          at,
          message: rails.has(feed.from)
            ? `It is fed by ${feed.from}, which must be listed before it.`
            : `It is fed by ${feed.from}, which is not a rail.`,
        });
      }
      feed.via.forEach((ref) => needPart(at, ref));
      if (feed.by) needPart(at, feed.by);
    }
    seen.add(rail.id);
  }
  for (const port of board.ports) {
    const at = `ports ${port.id}`;
    const image = port.imagePart === undefined ? [] : [port.imagePart];
    [port.id, port.controller, ...image, ...port.sides.flatMap((s) => s.path)].forEach((ref) => needPart(at, ref));
    for (const id of [port.vbusRail, ...port.controllerRails])
      if (!rails.has(id)) problems.push({ at, message: `It names rail ${id}, which is not listed.` });
    for (const s of port.sides)
      if (!board.nets[s.ccNet])
        problems.push({ at, message: `Side ${s.side} uses net ${s.ccNet}, which is not listed under nets.` });
  }
  for (const fn of board.functions) {
    fn.parts.forEach((ref) => needPart(`functions ${fn.id}`, ref));
    for (const id of fn.rails)
      if (!rails.has(id))
        problems.push({ at: `functions ${fn.id}`, message: `It names rail ${id}, which is not listed.` });
  }
  return problems;
}

function checkSlots(board: Board): Problem[] {
  const problems: Problem[] = [];
  const parts = new Map(board.parts.map((p) => [p.ref, p]));
  const seen = new Set<string>();
  for (const { ref, supply, straps, image, functions } of board.slots) {
    const at = `slots ${ref}`;
    const say = (message: string): void => void problems.push({ at, message });
    if (seen.has(ref)) say('This place is listed twice; expected each once.');
    seen.add(ref);
    for (const name of [ref, image, straps?.top, straps?.bottom])
      if (name !== undefined && !parts.has(name)) say(`It names ${name}, which is not among the parts.`);
    for (const name of [straps?.top, straps?.bottom])
      if (name !== undefined && parts.has(name) && parts.get(name)!.kind !== 'resistor')
        say(`Expected a resistor as a strap; ${name} is not one.`);
    if (supply !== undefined && !board.rails.some((r) => r.id === supply))
      say(`It names rail ${supply}, which is not listed.`);
    for (const id of functions)
      if (!board.functions.some((f) => f.id === id)) say(`It names function ${id}, which is not listed.`);
  }
  return problems;
}
