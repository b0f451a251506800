import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';

const FOLDER = path.join(process.cwd(), 'docs/guide');
const PICTURES = path.join(process.cwd(), 'docs/screenshots');

/** A page of the guide as it lies in the repository: `03-outside.md` is `outside`. */
export interface GuidePage {
  readonly id: string;
  readonly title: string;
  readonly text: string;
}

const idOf = (file: string): string => file.replace(/^\d+-/, '').replace(/\.md$/, '');

let pages: readonly GuidePage[] | undefined;

/** All pages in their order; read once. */
export const guidePages = (): readonly GuidePage[] =>
  (pages ??= readdirSync(FOLDER)
    .filter((file) => /^\d+-.*\.md$/.test(file))
    .toSorted()
    .map((file) => {
      const text = readFileSync(path.join(FOLDER, file), 'utf8');
      return { id: idOf(file), title: /^# (.*)$/m.exec(text)?.[1] ?? idOf(file), text };
    }));

/** The words of an address that a page of the guide is about, beside the page's own name. */
const ALSO: Readonly<Record<string, string>> = {
  close: 'prove',
  report: 'prove',
  run: 'heat',
  records: 'records-and-drills',
  drills: 'records-and-drills',
  'sign-in': 'shop',
  new: 'arrive',
};

/** The page of the guide about an address of the program: the last word of it that one is about. */
export function guideFor(address: string): string {
  const words = address.split(/[/?]/).toReversed();
  const known = new Set(guidePages().map((p) => p.id));
  for (const word of words) {
    const id = known.has(word) ? word : ALSO[word];
    if (id) return id;
  }
  return 'bench';
}

/** A picture of the guide by its name; undefined where there is none. */
export function guidePicture(name: string): Buffer<ArrayBuffer> | undefined {
  if (!/^[a-z0-9-]+\.png$/.test(name) || !readdirSync(PICTURES).includes(name)) return undefined;
  return readFileSync(path.join(PICTURES, name)) as Buffer<ArrayBuffer>;
}

/** Addresses within the guide, as they are in the program. */
export function inProgram(url: string): string {
  const page = /^(\d+-[a-z-]+)\.md$/.exec(url)?.[1];
  if (page) return `/guide/${idOf(page)}`;
  return url.startsWith('../screenshots/') ? url.replace('../screenshots/', '/guide/pictures/') : url;
}
