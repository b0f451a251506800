import { groundNet, type Board } from '../../src/core/board';
import { normalDraw, type Random } from '../../src/core/math';
import { FIRST_ANSWERS, applyBoardEdit, firstBoard, type ArchetypeId, type BoardEdit } from '../../src/core/sketch';

/** A sketch and a board that it may be the sketch of. */
export interface SketchedBoard {
  readonly sketch: Board;
  /** The same with every value known, and with parts that the sketch does not have. */
  readonly full: Board;
  /** Edits that draw in what is on a net and not on the sketch yet. */
  readonly missingAt: (net: string) => readonly BoardEdit[];
}

/** 95 of 100 of what is drawn lie within the ranges that the sketch states. */
const SDS = 1.96;
/** Capacitors that nobody drew. */
const UNDRAWN = 8;

const unwrapped = <T>(made: { ok: true; value: T } | { ok: false; problems: readonly { message: string }[] }): T => {
  if (!made.ok) throw new Error(made.problems[0].message);
  return made.value;
};

/** Draws a board whose sketch is what eight answers give: loads, drops and levels from the stated ranges. */
export function drawnBoard(archetype: ArchetypeId, random: Random): SketchedBoard {
  const sketch = unwrapped(firstBoard('drawn', { ...FIRST_ANSWERS, device: 'Drawn', archetype }));
  const ground = groundNet(sketch);
  const rails = sketch.rails.map((r) => r.net);
  const extra = Array.from({ length: UNDRAWN }, (_, i): BoardEdit & { kind: 'add' } => ({
    ...{ kind: 'add', ref: `C${40 + i}`, part: 'capacitor', pattern: 'CHIP-1005' },
    nets: [rails[Math.floor(random() * rails.length)], ground],
  }));
  const whole = extra.reduce((board, edit) => unwrapped(applyBoardEdit(board, edit)), sketch);
  const full: Board = {
    ...whole,
    assumed: undefined,
    nets: Object.fromEntries(
      Object.entries(whole.nets).map(([name, { diodeWithinV = 0, diodeV, ...net }]) => [
        name,
        {
          ...net,
          ...(diodeV !== undefined && { diodeV: Math.max(0.1, diodeV + (diodeWithinV / SDS) * normalDraw(random)) }),
        },
      ]),
    ),
    parts: whole.parts.map(({ loadsWithin = {}, assumed: _, ...part }) => ({
      ...part,
      loadsOhm: Object.fromEntries(
        Object.entries(part.loadsOhm).map(([net, ohm]) => [
          net,
          ohm * (loadsWithin[net] ?? 1) ** (normalDraw(random) / SDS),
        ]),
      ),
    })),
    rails: whole.rails.map((r) =>
      r.expect.kind === 'fixed' && r.tolerance > 0.15
        ? {
            ...r,
            expect: { kind: 'fixed', volts: r.expect.volts * (1 + (r.tolerance / SDS) * normalDraw(random)) },
            tolerance: 0.05,
          }
        : r,
    ),
  };
  return { sketch, full, missingAt: (net) => extra.filter((e) => e.nets[0] === net) };
}
