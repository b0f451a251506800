import type { LoadedImage } from '../../records';
import type { Importer } from '../importer';
import { firmwareHex, firmwareRaw, firmwareSRecords } from './images';
import type { FirmwareSummary } from './summary';
import { firmwareText } from './text-forms';

const KINDS = [firmwareHex, firmwareSRecords, firmwareText, firmwareRaw] as const;

/** Any file of a firmware image, by its content: where a screen wants an image and nothing else. */
export const firmwareImage: Pick<Importer<LoadedImage, FirmwareSummary>, 'title' | 'mostBytes' | 'read'> = {
  title: 'a firmware image',
  mostBytes: Math.max(...KINDS.map((k) => k.mostBytes)),
  read: (file, answers) => KINDS.reduce((a, b) => (b.score(file) > a.score(file) ? b : a)).read(file, answers),
};
