import { demoBoard } from '../../../demo/files';
import { bodyBox, partByRef, type Board, type Part } from '../board';
import { COARSE_MESH, NOMINAL_STATION, judgeHeat, simulateHeat, startingPlan, type HeatPlan } from '../heat';
import { stretchesOf, threatsRound, type Threat } from '.';

const board = demoBoard('heronlog-4-c');
const part = partByRef(board, 'U4')!;
const hot: HeatPlan = {
  ...startingPlan('U4', board.alloy, 6),
  plateSetC: 150,
  steps: startingPlan('U4', board.alloy, 6).steps.map((s) =>
    s.airSetC === null ? s : { ...s, airSetC: s.airSetC + 60 },
  ),
};

function threats(b: Board, plan: HeatPlan = hot): Threat[] {
  const worked = partByRef(b, 'U4')!;
  const verdict = judgeHeat(b, plan, simulateHeat(b, NOMINAL_STATION, plan, { ...COARSE_MESH, frames: false })!);
  return threatsRound(b, worked, verdict, stretchesOf(b, worked));
}

/** A neighbour set down beside U4's right edge. */
function beside(ref: string, gapMm: number, more: Partial<Part> = {}): Board {
  const other = partByRef(board, ref)!;
  const [box, own] = [bodyBox(board, part), bodyBox(board, other)];
  const xMm = box.x1 + gapMm + (own.x1 - own.x0) / 2;
  const moved = { ...other, xMm, yMm: part.yMm, side: part.side, ...more };
  return { ...board, parts: board.parts.map((p) => (p.ref === ref ? moved : p)) };
}

test('heat threatens whom the simulation says it does, those with underfill of their own first', () => {
  const usual = threats(board).filter((t) => t.from === 'heat');
  expect(usual.length).toBeGreaterThan(0);
  const [first] = usual;
  const filled = threats({
    ...board,
    parts: board.parts.map((p) => (p.ref === first.ref ? { ...p, underfilled: true } : p)),
  }).find((t) => t.ref === first.ref && t.from === 'heat')!;
  // Underfill conducts a little too: the peak moves by thousandths of a kelvin.
  expect(filled.weight).toBeCloseTo(first.weight + 5, 2);
  expect(filled.summary).toContain('underfill of its own');
});

test('air threatens what melts and is small', () => {
  const blown = threats(board).filter((t) => t.from === 'air');
  expect(blown.length).toBeGreaterThan(0);
  for (const t of blown)
    expect(['capacitor', 'resistor', 'esdArray', 'lineFilter', 'fuse', 'clampDiode', 'crystal']).toContain(
      partByRef(board, t.ref)!.kind,
    );
});

test('a tool threatens what stands close, more the closer; with room it does not', () => {
  const weight = (gapMm: number): number =>
    threats(beside('U9', gapMm)).find((t) => t.ref === 'U9' && t.from === 'tool')?.weight ?? 0;
  expect(weight(0.1)).toBeGreaterThan(weight(0.5));
  expect(weight(0.5)).toBeGreaterThan(0);
  expect(weight(2)).toBe(0);
});

test('a shield next to the part is told of once', () => {
  const u9 = partByRef(board, 'U9')!;
  const [w, h] = board.packages[u9.package].bodyMm;
  const near = beside('U9', 1.5);
  const at = partByRef(near, 'U9')!;
  const shields = [
    {
      ...board.shields[0],
      id: 'SH9',
      side: at.side,
      xMm: at.xMm,
      yMm: at.yMm,
      sizeMm: [w + 0.4, h + 0.4] as [number, number],
    },
  ];
  const told = threats({ ...near, shields }).filter((t) => t.from === 'shield');
  expect(told.map((t) => t.ref)).toEqual(['U9']);
});

test('a cold plan threatens nobody with heat', () => {
  const cold = {
    ...hot,
    plateSetC: null,
    steps: hot.steps.map((s) => (s.airSetC === null ? s : { ...s, airSetC: 120 })),
  };
  expect(threats(board, cold).filter((t) => t.from === 'heat' || t.from === 'air')).toEqual([]);
});
