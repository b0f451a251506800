import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { padsOf } from './lands';
import { boardSvg } from './svg';

describe.each(DEMO_BOARDS)('the drawing of %s', (id) => {
  const board = demoBoard(id);

  test.each(['front', 'back'] as const)('shows every part, pad and point of the %s once, in millimetres', (side) => {
    const svg = boardSvg(board, side);
    const parts = board.parts.filter((p) => p.side === side);
    const pads = parts.flatMap((p) => padsOf(board, p));
    const count = (what: RegExp): number => svg.match(what)?.length ?? 0;
    expect(count(/<g>/g)).toBe(parts.length);
    expect(count(/<rect /g)).toBe(parts.length + pads.length);
    expect(count(/<circle /g)).toBe(board.points.filter((p) => p.side === side).length);
    expect(count(/<(g|svg|rect|circle|text|title)[ >]/g)).toBe(
      count(/<\/(g|svg|rect|circle|text|title)>/g) + parts.length,
    );
    expect(svg).toMatch(/width="[\d.]+mm" height="[\d.]+mm"/);
  });

  test('the back is mirrored: what lies left seen from the front lies right', () => {
    const moved = { ...board, parts: board.parts.map((p) => ({ ...p, side: 'back' as const, rotationDeg: 0 })) };
    const centre = (svg: string, ref: string): number => {
      const group = svg.split('\n').find((line) => line.includes(`>${ref}</text>`))!;
      return Number(/translate\((-?[\d.]+) /.exec(group)![1]);
    };
    const xs = board.outlineMm.map(([x]) => x);
    const [{ ref, xMm }] = board.parts;
    expect(centre(boardSvg(moved, 'back'), ref)).toBeCloseTo(Math.min(...xs) + Math.max(...xs) - xMm, 6);
  });
});
