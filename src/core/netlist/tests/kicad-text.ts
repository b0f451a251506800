import type { NetName, PartRef } from '../../identities';
import { padsOf, type Board } from '../../board';

/** Layouts of the format by the version of the suite: words and where reference and value stand. */
export type KicadVersion = 5 | 6 | 8;
const DAY: Readonly<Record<KicadVersion, number>> = { 5: 20171130, 6: 20211014, 8: 20240108 };

const q = (text: string, version: KicadVersion): string =>
  version === 5 && /^[A-Za-z0-9_+./-]+$/.test(text) ? text : `"${text.replace(/(["\\])/g, '\\$1')}"`;

/** A board in the text form of a general EDA suite, pads in the frame of their footprints, on a sheet that begins elsewhere. */
export function kicadText(board: Board, version: KicadVersion, at: readonly [number, number] = [100, 50]): string {
  const nets = Object.keys(board.nets);
  const code = new Map(nets.map((net, i) => [net, i + 1]));
  const head = version === 5 ? 'module' : 'footprint';
  const netOf = (net: NetName | undefined): string =>
    net === undefined ? '' : ` (net ${code.get(net)} ${q(net, version)})`;
  const field = (name: 'reference' | 'value', text: string): string =>
    version === 8
      ? `(property "${name[0].toUpperCase()}${name.slice(1)}" ${q(text, version)} (at 0 0 0))`
      : `(fp_text ${name} ${q(text, version)} (at 0 0) (layer F.SilkS))`;
  const footprint = (
    ref: PartRef,
    value: string,
    x: number,
    y: number,
    turn: number,
    back: boolean,
    pads: readonly { pin: string; net?: NetName; xMm: number; yMm: number; wMm: number; hMm: number }[],
  ): string => {
    const angle = (turn * Math.PI) / 180;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const quarter = Math.abs(Math.round(turn / 90)) % 2 === 1;
    const lines = pads.map((p) => {
      const [dx, dy] = [p.xMm - x, p.yMm - y];
      const place = `${(dx * cos - dy * sin).toFixed(6)} ${(dx * sin + dy * cos).toFixed(6)} ${turn}`;
      const [w, h] = quarter ? [p.hMm, p.wMm] : [p.wMm, p.hMm];
      const layers = back ? 'B.Cu B.Paste B.Mask' : 'F.Cu F.Paste F.Mask';
      return `    (pad ${q(p.pin, version)} smd rect (at ${place}) (size ${w} ${h}) (layers ${layers})${netOf(p.net)})`;
    });
    return `  (${head} ${q('lib:part', version)} (layer ${back ? 'B.Cu' : 'F.Cu'}) (at ${x + at[0]} ${y + at[1]} ${turn})\n    ${field('reference', ref)}\n    ${field('value', value)}\n${lines.join('\n')}\n  )`;
  };
  const parts = board.parts.map((part) =>
    footprint(
      part.ref,
      part.ohm === undefined ? part.what : `${part.ohm}R`,
      part.xMm,
      part.yMm,
      (360 - part.rotationDeg) % 360,
      part.side === 'back',
      padsOf(board, part).map((pad) => ({ ...pad, net: part.pins[pad.pin] })),
    ),
  );
  const points = board.points.map((p) =>
    footprint(p.id, p.net, p.xMm, p.yMm, 0, p.side === 'back', [
      { pin: '1', net: p.net, xMm: p.xMm, yMm: p.yMm, wMm: 1, hMm: 1 },
    ]),
  );
  const edge = board.outlineMm.map(([x, y], i) => {
    const [x2, y2] = board.outlineMm[(i + 1) % board.outlineMm.length];
    return `  (gr_line (start ${x + at[0]} ${y + at[1]}) (end ${x2 + at[0]} ${y2 + at[1]}) (layer Edge.Cuts) (width 0.1))`;
  });
  const layers = board.layers.map(
    (_, i, all) => `    (${i} ${q(i === 0 ? 'F.Cu' : i === all.length - 1 ? 'B.Cu' : `In${i}.Cu`, version)} signal)`,
  );
  return [
    `(kicad_pcb (version ${DAY[version]}) (generator pcbnew)`,
    `  (general (thickness ${board.thicknessMm}))`,
    `  (layers\n${layers.join('\n')}\n    (44 Edge.Cuts user)\n  )`,
    `  (net 0 "")`,
    ...nets.map((net) => `  (net ${code.get(net)} ${q(net, version)})`),
    ...parts,
    ...points,
    ...edge,
    ')',
  ].join('\n');
}
