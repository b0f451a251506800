import type { ImageWish } from './images';

/** The dumps that ship with the demo, as a technician would find them on the programmer's folder. */
export const DEMO_DUMPS: readonly { file: string; family: string; name: string; wish: ImageWish }[] = [
  {
    file: 'heronlog-patient-damaged.bin',
    family: 'heron-pd',
    name: 'Heronlog unit 31, code damaged',
    wish: { code: 4, unit: 31, position: 1, damagedBytes: 640 },
  },
  {
    file: 'heronlog-known-good.bin',
    family: 'heron-pd',
    name: 'Heronlog known-good, unit 12',
    wish: { code: 4, unit: 12, position: 1 },
  },
  {
    file: 'heronlog-side-position.bin',
    family: 'heron-pd',
    name: 'Heronlog side port, unit 18',
    wish: { code: 4, unit: 18, position: 2 },
  },
  {
    file: 'marshdesk-patient-damaged.bin',
    family: 'marsh-pd3',
    name: 'Marshdesk unit 7, code damaged',
    wish: { code: 9, unit: 7, position: 0, damagedBytes: 2048 },
  },
  {
    file: 'marshdesk-known-good.bin',
    family: 'marsh-pd3',
    name: 'Marshdesk known-good, unit 3',
    wish: { code: 9, unit: 3, position: 0 },
  },
];
