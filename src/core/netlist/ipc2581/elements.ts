import { SaxesParser } from 'saxes';
import { fail, ok, type Result } from '../../result';

/** One element with what stands in it. */
export interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
}

/** Told of each wanted element as it ends, with those it stands in, outermost first, without their children. */
type OnElement = (element: Element, within: readonly Omit<Element, 'children'>[]) => void;

/** Deeper is no document of a board. */
const DEEPEST = 200;

/**
 * Goes through a document once and tells of each wanted element whole; what is in no wanted element is forgotten at once, so
 * that copper drawings of a hundred megabytes cost no memory. Names are told without their prefix.
 */
export function eachElement(text: string, wanted: ReadonlySet<string>, onElement: OnElement): Result<void> {
  const parser = new SaxesParser({ xmlns: false });
  const open: Omit<Element, 'children'>[] = [];
  /** The wanted element that is open and what is open in it. */
  const building: { name: string; attributes: Record<string, string>; children: Element[] }[] = [];
  let failed: Error | undefined;
  parser.on('error', (error) => {
    failed ??= error;
  });
  parser.on('opentag', ({ name: spelled, attributes }) => {
    const name = spelled.replace(/^.*:/, '');
    if (building.length > 0 || wanted.has(name)) building.push({ name, attributes, children: [] });
    open.push({ name, attributes });
    if (open.length > DEEPEST) failed ??= new Error(`elements stand in one another more than ${DEEPEST} deep`);
  });
  parser.on('closetag', () => {
    open.pop();
    const done = building.pop();
    if (!done) return;
    const parent = building.at(-1);
    if (parent) parent.children.push(done);
    else onElement(done, open);
  });
  for (let at = 0; at < text.length && !failed; at += CHUNK) parser.write(text.slice(at, at + CHUNK));
  if (!failed) parser.close();
  return failed
    ? fail(`Expected a document of well-formed XML; ${failed.message.replace(/\.?$/, '.')}`)
    : ok(undefined);
}

/** Characters read between two looks at whether it failed. */
const CHUNK = 2 ** 16;

/** The children of a name, in their order. */
export const childrenOf = (element: Element | undefined, name: string): readonly Element[] =>
  element?.children.filter((c) => c.name === name) ?? [];

export const childOf = (element: Element | undefined, name: string): Element | undefined =>
  element?.children.find((c) => c.name === name);

/** A figure of an attribute; NaN where it is none. */
export const figureOf = (element: Element | undefined, name: string): number => {
  const text = element?.attributes[name];
  return text === undefined || text.trim() === '' ? NaN : Number(text);
};
