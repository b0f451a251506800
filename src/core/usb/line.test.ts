import { seededRandom } from '../math';
import { BIT_S, conversation, edgesOf, LineDecoder, OFFERS_65W, messageWords, type PdPacket } from '.';

const packets = conversation({ trouble: 'none', offers: OFFERS_65W, want: 2, wantMa: 1500 });

function decode(edges: readonly number[]): PdPacket[] {
  const got: PdPacket[] = [];
  const decoder = new LineDecoder((p) => got.push(p));
  for (const edge of edges) decoder.edge(edge);
  decoder.finish();
  return got;
}

const clean = edgesOf(packets, { seed: 1 });

test('a clean line gives every message, at the times they were sent', () => {
  const got = decode(clean);
  expect(got.length).toBe(packets.length);
  got.forEach((p, i) => {
    expect(p.intact).toBe(true);
    expect(Math.abs(p.atS - packets[i].atS)).toBeLessThan(BIT_S);
  });
});

test.each([-0.09, -0.05, 0.05, 0.09])(
  'a sender’s clock off by %p reads as well: the rate comes from its own preamble',
  (clockError) => {
    expect(decode(edgesOf(packets, { seed: 2, clockError })).every((p) => p.intact)).toBe(true);
  },
);

test('glitches far below half a bit do not count', () => {
  const got = decode(edgesOf(packets, { seed: 3, glitchesPerS: 300 }));
  expect(got.filter((p) => p.intact).length).toBe(packets.length);
});

test('one lost edge breaks its own packet and no other, and is never taken for a good one', () => {
  const said = ({ header, objects }: PdPacket): string => JSON.stringify([header, objects]);
  const whole = decode(clean).map(said);
  for (let k = 150; k < clean.length; k += 97) {
    const got = decode(clean.filter((_, i) => i !== k));
    const wrong = got.filter((p) => p.intact && !whole.includes(said(p)));
    expect(wrong).toEqual([]);
    expect(got.filter((p) => p.intact).length).toBeGreaterThanOrEqual(packets.length - 1);
  }
});

test('noise of any kind gives no message that passes its check sum', () => {
  const random = seededRandom(8);
  for (let round = 0; round < 40; round++) {
    const edges: number[] = [];
    for (let at = 0; edges.length < 1500;) edges.push((at += BIT_S * (0.2 + 1.2 * random())));
    expect(decode(edges).filter((p) => p.intact && p.set === 'SOP')).toEqual([]);
  }
});

test('a quiet line, a single pulse and an aborted preamble give nothing', () => {
  expect(decode([])).toEqual([]);
  expect(decode([0.1, 0.2])).toEqual([]);
  expect(decode(clean.slice(0, 40))).toEqual([]);
});

test('a packet cut short says that its end is missing', () => {
  const [first] = decode(clean.slice(0, 330));
  expect(first.intact).toBe(false);
  expect(messageWords([first])[0]).toMatch(/its end is missing|only \d+ bytes/);
});
