import { landsOf, parseBoard, type Board } from '../board';
import { fail, type Result } from '../result';
import { STACKS, answersSchema, type Answers } from './answers';
import { GROUND, circuitOf, type Circuit, type CircuitPart } from './circuit';
import { USUAL, USUAL_SIGNAL_DROP_V, usualLoad } from './levels';
import { landPattern } from './packages';

/** Copper of a layer and how much of it is covered, where only the look of a board is known. Engineering estimates. */
const COPPER_UM = 18;
const COVERAGE = 0.6;
/** What the pins of a chip are called that lie on ground: its centre pad, else the last one. */
const CENTRE_PIN = 'EP';
/** Plastic connectors suffer from here, °C. Common practice, no source. */
const PLASTIC_C = 200;

/**
 * The first board of a sketch: the generic circuit of an archetype with what was answered. Every value is a range, every place
 * that of the archetype, and the file says so of each part.
 * @returns the board, or a sentence where an answer does not fit: a package with too few pins, a side of a board that is none.
 */
export function firstBoard(id: string, typed: Answers): Result<Board> {
  const parsed = answersSchema.safeParse(typed);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return fail(`${ANSWER_WORDS[String(issue.path[0])] ?? 'An answer'}: ${issue.message}.`);
  }
  const answers = parsed.data;
  const circuit = circuitOf(answers);
  const unknown = circuit.parts.find((p) => !landPattern(p.pattern));
  if (unknown) return fail(`Expected a package of the list for the ${unknown.what}; got "${unknown.pattern}".`);
  const crowded = circuit.parts.find((p) => Array.isArray(p.nets) && p.nets.length > freePins(p.pattern).length);
  if (crowded)
    return fail(
      `The ${crowded.what} needs ${crowded.nets.length as number} pins beside ground here; ${crowded.pattern} has ${freePins(crowded.pattern).length}.`,
    );
  const stack = STACKS[answers.stack];
  const [width, height] = answers.sizeMm;
  return parseBoard({
    format: 'unisolda-board/2',
    id,
    device: answers.device,
    name: 'sketch',
    revision: '1',
    outlineMm: [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ],
    thicknessMm: stack.thicknessMm,
    layers: Array.from({ length: stack.layers }, (_, i) => ({
      name: `L${i + 1}`,
      copperUm: COPPER_UM,
      coverage: COVERAGE,
    })),
    packages: Object.fromEntries(circuit.parts.map((p) => [p.pattern, landPattern(p.pattern)!.package])),
    nets: netsOf(circuit),
    parts: circuit.parts.map((part) => partOf(part, circuit, answers)),
    points: [],
    ports: circuit.ports,
    rails: circuit.rails.map(({ usual: _, ...rail }) => rail),
    functions: circuit.functions,
    assumed: ['outline', 'stack', 'parts'],
  });
}

const ANSWER_WORDS: Readonly<Record<string, string>> = {
  device: 'Name of the device',
  ports: 'Number of ports',
  sizeMm: 'Size of the board in mm',
};

/** Pins of a pattern that may carry a signal, in their order. */
const freePins = (pattern: string): string[] =>
  landsOf(landPattern(pattern)!.package)
    .map((p) => p.pin)
    .filter((pin) => pin !== CENTRE_PIN);

function partOf(part: CircuitPart, circuit: Circuit, { sizeMm: [width, height] }: Answers): object {
  const { ref, kind, what, pattern, at, known, required, optional, ohm } = part;
  const loads = (part.loads ?? []).map((net) => {
    const rail = circuit.rails.find((r) => r.net === net)!;
    const count = circuit.parts.filter((p) => p.loads?.includes(net)).length;
    return [net, usualLoad(USUAL[rail.usual], count)] as const;
  });
  return {
    ref,
    kind,
    what,
    package: pattern,
    xMm: onBoard(at[0], width),
    yMm: onBoard(at[1], height),
    pins: pinsOf(part),
    ...(ohm !== undefined && { ohm }),
    loadsOhm: Object.fromEntries(loads.map(([net, load]) => [net, load.ohm])),
    ...(loads.length > 0 && { loadsWithin: Object.fromEntries(loads.map(([net, load]) => [net, load.within])) }),
    ...(landPattern(pattern)!.package.plastic && { bodyLimitC: PLASTIC_C }),
    ...(required && { required }),
    ...(optional && { optional }),
    assumed: [
      'place',
      ...(known ? [] : ['package']),
      ...(Array.isArray(part.nets) && part.nets.length > 2 ? ['pins'] : []),
    ],
  };
}

/** A share of a side as a place on it, mm; never beyond its edge. */
const onBoard = (share: number, sideMm: number): number =>
  Number((Math.min(0.97, Math.max(0.03, share)) * sideMm).toFixed(2));

/** Nets in the order of the pins; ground at the centre pad, or at the last pin where there is none left. */
function pinsOf({ pattern, nets }: CircuitPart): Record<string, string> {
  if (!Array.isArray(nets)) return { ...(nets as Readonly<Record<string, string>>) };
  const free = freePins(pattern);
  const pins = Object.fromEntries((nets as readonly string[]).map((net, i) => [free[i], net]));
  const hasCentre = landsOf(landPattern(pattern)!.package).some((p) => p.pin === CENTRE_PIN);
  if (hasCentre) pins[CENTRE_PIN] = GROUND;
  else if (free.length > nets.length) pins[free[free.length - 1]] = GROUND;
  return pins;
}

function netsOf(circuit: Circuit): Record<string, object> {
  const rails = new Map(circuit.rails.map((r) => [r.net, USUAL[r.usual]]));
  const all = new Set(
    circuit.parts.flatMap((p) => (Array.isArray(p.nets) ? p.nets : Object.values(p.nets)) as string[]),
  );
  return Object.fromEntries(
    [...all].map((net) => {
      if (net === GROUND) return [net, { role: 'ground' }];
      if (/^SW/.test(net)) return [net, { role: 'switch' }];
      const usual = rails.get(net);
      const [diodeV, diodeWithinV] = usual?.dropV ?? USUAL_SIGNAL_DROP_V;
      return [net, { role: usual ? 'power' : 'signal', diodeV, diodeWithinV }];
    }),
  );
}
