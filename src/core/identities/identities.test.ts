import { demoBoard } from '../../../demo/files';
import { partByRef, railOfNet } from '../board';
import { emptyStock } from '../stock';
import type { ChipId, LotId, NetName, PartRef } from './index';

describe('names of different kinds', () => {
  const board = demoBoard('heronlog-4-c');
  const part: PartRef = board.parts[0].ref;
  const net: NetName = board.rails[0].net;

  it('finds a part by its reference and a rail by its net, plain text included', () => {
    expect(partByRef(board, part)?.ref).toBe(part);
    expect(partByRef(board, 'U4')?.ref).toBe('U4');
    expect(railOfNet(board, net)?.net).toBe(net);
  });

  it('does not take one kind where another is due: the compiler says so', () => {
    // @ts-expect-error a net is no part
    expect(partByRef(board, net)).toBeUndefined();
    // @ts-expect-error a part is no net
    expect(railOfNet(board, part)).toBeUndefined();
    const lot: LotId = 'L-1';
    // @ts-expect-error a lot is no chip
    const chip: ChipId = lot;
    // @ts-expect-error a lot is not looked up among the chips
    expect(emptyStock().chips.get(lot)).toBeUndefined();
    expect(chip).toBe('L-1');
  });
});
