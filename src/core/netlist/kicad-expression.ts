/** An expression as the parser gives it: words are texts, quoted texts are text objects, lists are arrays. */
export type Expr = string | Expr[];
export type List = Expr[];

export const isList = (e: Expr | undefined): e is List => Array.isArray(e);
export const textOf = (e: Expr | undefined): string => (e === undefined || isList(e) ? '' : String(e));
export const numberOf = (e: Expr | undefined): number => Number(textOf(e));
/** The lists of a list that begin with a word. */
export const all = (list: List, head: string): List[] =>
  list.filter((e): e is List => isList(e) && textOf(e[0]) === head);
export const one = (list: List, head: string): List | undefined => all(list, head)[0];

export type Point = readonly [number, number];

/** Where a footprint stands, mm, and how far it is turned counter-clockwise, degrees. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly turn: number;
}

/** A point of a footprint's own drawing on the board: y counts down. */
export function turned([px, py]: Point, { x, y, turn }: Place): Point {
  const angle = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [x + px * cos + py * sin, y - px * sin + py * cos];
}
