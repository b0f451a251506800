import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { groundNet, padsOf, partByRef, type Board, type Part } from '../board';
import { judgeLifted, type LiftedKind } from './lifted';

const board = demoBoard('heronlog-4-c');
const part = partByRef(board, 'U4')!;
const pads = padsOf(board, part);
const users = (b: Board, p: Part, net: string): number =>
  b.parts.filter((q) => q.ref !== p.ref && Object.values(q.pins).includes(net)).length;

test.each(DEMO_BOARDS.map((id) => [id]))('every pad of every chip of %s: what its net says decides', (id) => {
  const b = demoBoard(id);
  const ground = groundNet(b);
  const seen = new Set<LiftedKind>();
  for (const p of b.parts.filter((q) => padsOf(b, q).length >= 6)) {
    for (const { pin } of padsOf(b, p)) {
      const [{ kind, summary, wireTo }] = judgeLifted(b, p, [pin]).pads;
      seen.add(kind);
      const net = p.pins[pin];
      const twins = Object.entries(p.pins).filter(([other, n]) => n === net && other !== pin).length;
      if (net === undefined) expect(kind).toBe('noConnect');
      else if (net === ground) expect(['ground', 'wire', 'vital']).toContain(kind);
      else if (twins > 0) expect(kind).toBe('doubled');
      else if (users(b, p, net) === 0 && !b.points.some((t) => t.net === net)) expect(kind).toBe('noConnect');
      else expect(['wire', 'vital']).toContain(kind);
      expect(kind === 'wire').toBe(wireTo !== undefined);
      expect(summary.length).toBeGreaterThan(10);
    }
  }
  expect([...seen].sort()).toEqual(expect.arrayContaining(['doubled', 'ground', 'noConnect', 'wire']));
});

test('a net with two pads carries on with one, and needs a wire when both are gone', () => {
  const doubled = pads.filter((p) => pads.some((q) => q.pin !== p.pin && part.pins[q.pin] === part.pins[p.pin]));
  const { pin } = doubled.find((p) => part.pins[p.pin] !== undefined && part.pins[p.pin] !== groundNet(board))!;
  const net = part.pins[pin];
  const all = pads.filter((p) => part.pins[p.pin] === net).map((p) => p.pin);
  expect(judgeLifted(board, part, [pin]).pads[0].kind).toBe('doubled');
  const both = judgeLifted(board, part, all);
  expect(both.pads.every((p) => p.kind === 'wire')).toBe(true);
  expect(both.headline).toMatch(/^Goes on with/);
});

test('the nearest place of the net on the same side is named, with its distance (checked over all pads)', () => {
  const pad = pads.find((p) => judgeLifted(board, part, [p.pin]).pads[0].kind === 'wire')!;
  const { wireTo } = judgeLifted(board, part, [pad.pin]).pads[0];
  const net = part.pins[pad.pin];
  const away = [
    ...board.points.filter((t) => t.net === net && t.side === part.side),
    ...board.parts
      .filter((q) => q.ref !== part.ref && q.side === part.side)
      .flatMap((q) => padsOf(board, q).filter((r) => q.pins[r.pin] === net)),
  ].map((t) => Math.hypot(t.xMm - pad.xMm, t.yMm - pad.yMm));
  expect(wireTo!.awayMm).toBeCloseTo(Math.min(...away), 9);
});

test('a pad whose net comes up nowhere else on this side stops the job', () => {
  const pad = pads.find((p) => judgeLifted(board, part, [p.pin]).pads[0].kind === 'wire')!;
  const net = part.pins[pad.pin];
  const turned: Board = {
    ...board,
    points: board.points.filter((t) => t.net !== net),
    parts: board.parts.map((q) =>
      q.ref !== part.ref && Object.values(q.pins).includes(net)
        ? { ...q, side: q.side === 'front' ? 'back' : 'front' }
        : q,
    ),
  };
  const verdict = judgeLifted(turned, partByRef(turned, part.ref)!, [pad.pin]);
  expect(verdict).toMatchObject({ goesOn: false, pads: [{ kind: 'vital' }] });
  expect(verdict.headline).toContain(pad.pin);
});

test('nothing lifted, nothing to say; unknown pads are left out', () => {
  expect(judgeLifted(board, part, [])).toMatchObject({ goesOn: true, headline: 'No lifted pad' });
  expect(judgeLifted(board, part, ['Z99']).pads).toEqual([]);
});
