import { padsOf, partByRef } from '../board';
import { FIRST_ANSWERS, firstBoard, rotationByFirstPin } from '.';

const begun = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
if (!begun.ok) throw new Error('the first answers begin no board');
const board = begun.value;
const chip = partByRef(board, 'U1')!;
const pinOne = (rotationDeg: number) => padsOf(board, { ...chip, rotationDeg })[0];

test.each([0, 90, 180, 270])(
  'a click on the first pad of a chip that lies at %s° gives that, however it was drawn',
  (deg) => {
    for (const drawn of [0, 90, 180, 270])
      expect(rotationByFirstPin(board, { ...chip, rotationDeg: drawn }, pinOne(deg))).toBe(deg);
  },
);

test('the corner of the body is near enough; a part that lies aslant turns by quarters from there', () => {
  const [w, h] = board.packages[chip.package].bodyMm;
  // Pin 1 of a quad package is at the top of its left side (the board format).
  expect(rotationByFirstPin(board, chip, { xMm: chip.xMm - w / 2, yMm: chip.yMm - h / 2 })).toBe(0);
  expect(rotationByFirstPin(board, chip, { xMm: chip.xMm + w / 2, yMm: chip.yMm - h / 2 })).toBe(90);
  expect(rotationByFirstPin(board, { ...chip, rotationDeg: 15 }, pinOne(285))).toBe(285);
});

test('the middle of a part, and the middle between two corners, say nothing', () => {
  expect(rotationByFirstPin(board, chip, chip)).toBeUndefined();
  const [a, b] = [pinOne(0), pinOne(90)];
  expect(rotationByFirstPin(board, chip, { xMm: (a.xMm + b.xMm) / 2, yMm: (a.yMm + b.yMm) / 2 })).toBeUndefined();
});

test('on the back a chip is seen through the board: the click is where its pad lies there', () => {
  const back = { ...chip, side: 'back' as const };
  for (const deg of [0, 90, 180, 270])
    expect(rotationByFirstPin(board, back, padsOf(board, { ...back, rotationDeg: deg })[0])).toBe(deg);
});
