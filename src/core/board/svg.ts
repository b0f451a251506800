import { groundNet, outlineBox } from './query';
import { padsOf } from './lands';
import type { Board, Part, Side } from './schema';

const MARGIN_MM = 2;
const LINE_MM = 0.08;
const NAME_MM = 0.9;

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
const mm = (value: number): string => String(Number(value.toFixed(3)));

/**
 * One side of a board as a drawing of its own in millimetres: outline, bodies, pads with their nets as titles, names and
 * test points. The back is drawn as seen from the back.
 */
export function boardSvg(board: Board, side: Side): string {
  const { x0, y0, x1, y1 } = outlineBox(board);
  const [w, h] = [x1 - x0 + 2 * MARGIN_MM, y1 - y0 + 2 * MARGIN_MM];
  const x = (xMm: number): number => (side === 'back' ? x0 + x1 - xMm : xMm);
  const outline = board.outlineMm.map(([px, py]) => `${mm(x(px))},${mm(py)}`).join(' ');
  const parts = board.parts.filter((p) => p.side === side);
  const points = board.points.filter((p) => p.side === side);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(w)}mm" height="${mm(h)}mm" viewBox="${mm(x0 - MARGIN_MM)} ${mm(y0 - MARGIN_MM)} ${mm(w)} ${mm(h)}" font-family="sans-serif" font-size="${NAME_MM}" fill="none" stroke="black" stroke-width="${LINE_MM}">`,
    `<title>${escape(`${board.device}, ${board.name}, revision ${board.revision}, ${side} side`)}</title>`,
    `<polygon points="${outline}"/>`,
    ...parts.map((part) => partSvg(board, part, x)),
    ...points.map(
      (p) =>
        `<circle cx="${mm(x(p.xMm))}" cy="${mm(p.yMm)}" r="0.4"><title>${escape(`${p.id} ${p.net}`)}</title></circle>`,
    ),
    '</svg>',
    '',
  ].join('\n');
}

function partSvg(board: Board, part: Part, x: (xMm: number) => number): string {
  const [w, h] = board.packages[part.package].bodyMm;
  const turn = part.side === 'back' ? -part.rotationDeg : part.rotationDeg;
  const pads = padsOf(board, part).map((pad) => {
    const net = part.pins[pad.pin];
    const filled = net === groundNet(board) ? 'none' : 'silver';
    return `<rect x="${mm(x(pad.xMm) - pad.wMm / 2)}" y="${mm(pad.yMm - pad.hMm / 2)}" width="${mm(pad.wMm)}" height="${mm(pad.hMm)}" fill="${filled}" stroke-width="0.03"><title>${escape(`${part.ref}.${pad.pin} ${net ?? 'not joined'}`)}</title></rect>`;
  });
  const body = `<rect x="${mm(-w / 2)}" y="${mm(-h / 2)}" width="${mm(w)}" height="${mm(h)}" transform="translate(${mm(x(part.xMm))} ${mm(part.yMm)}) rotate(${mm(turn)})"/>`;
  const name = `<text x="${mm(x(part.xMm))}" y="${mm(part.yMm + NAME_MM / 3)}" text-anchor="middle" fill="black" stroke="none">${escape(part.ref)}</text>`;
  return `<g><title>${escape(`${part.ref} ${part.what}`)}</title>${pads.join('')}${body}${name}</g>`;
}
