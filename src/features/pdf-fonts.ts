import 'server-only';
import path from 'node:path';
import { Font } from '@react-pdf/renderer';

const fontFile = (family: string, weight: number): string =>
  path.resolve(
    /* turbopackIgnore: true */ process.cwd(),
    `node_modules/@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`,
  );

/** The faces of every printed page. */
export function registerFonts(): void {
  Font.register({
    family: 'Text',
    fonts: [400, 700].map((fontWeight) => ({ src: fontFile('atkinson-hyperlegible-next', fontWeight), fontWeight })),
  });
  Font.register({
    family: 'Figures',
    fonts: [400].map((fontWeight) => ({ src: fontFile('atkinson-hyperlegible-mono', fontWeight), fontWeight })),
  });
}
