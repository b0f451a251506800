import Papa from 'papaparse';
import type { Board } from '../board';

/** The parts of a board as a placement list in CSV, one a line, y up as netlists count it, with the nets of its pins. */
export const partsCsv = (board: Board): string =>
  `${Papa.unparse(
    board.parts.map((p) => ({
      Ref: p.ref,
      Value: p.ohm === undefined ? p.what : `${p.ohm} ohm`,
      Kind: p.kind,
      'X (mm)': p.xMm,
      'Y (mm)': -p.yMm,
      Rotation: p.rotationDeg,
      Side: p.side,
      Package: p.package,
      Nets: [...new Set(Object.values(p.pins))].join(' '),
    })),
    // Nets such as +3V3 would be formulas of a spreadsheet.
    { newline: '\n', escapeFormulae: true },
  )}\n`;
