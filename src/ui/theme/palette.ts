/** The house colours. "text" variants are darkened (paper) or lifted (dim) until they pass WCAG AA as text. */
export const PALETTE = {
  paper: { light: '#F6F3EC', dark: '#15191B' },
  ground: { light: '#FBF9F4', dark: '#1D2326' },
  ink: { light: '#1D2327', dark: '#ECE7DA' },
  quiet: { light: '#5A6066', dark: '#A9AEAC' },
  rule: { light: '#D9D3C4', dark: '#3A4245' },
  copper: { light: '#B4622D', dark: '#E39A68' },
  copperText: { light: '#9E5222', dark: '#E39A68' },
  tin: { light: '#5F7482', dark: '#9DB2C0' },
  tinText: { light: '#566A77', dark: '#9DB2C0' },
  leaf: { light: '#2C7A4B', dark: '#6CC08D' },
  amber: { light: '#B7791F', dark: '#E0AE58' },
  amberText: { light: '#8A5A12', dark: '#E0AE58' },
  rust: { light: '#B3372F', dark: '#EC8079' },
  track: { light: '#E7E1D3', dark: '#2A3134' },
  mat: { light: '#2E4A4B', dark: '#1E3334' },
  matLine: { light: '#B9CFC6', dark: '#9FBDB2' },
  matText: { light: '#D7E3DD', dark: '#C6D8D0' },
  matCopper: { light: '#F2B48C', dark: '#F2B48C' },
  matRust: { light: '#F5A39C', dark: '#F5A39C' },
  matFill: { light: '#3C5B5A', dark: '#2C4645' },
} as const;

export type ColourName = keyof typeof PALETTE;
