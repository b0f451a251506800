import { readFileSync } from 'node:fs';
import { decode, type Image } from 'image-js';
import type { z } from 'zod';
import { parseBoardText, type Board } from '../core/board';
import { MOST_PIXELS } from '../core/inspect';
import type { Pixels } from '../core/photo';
import { problemText, type Problem } from '../core/result';

/** What the user can mend: the message says what was expected and what was got. */
export class InputProblem extends Error {}

export const complain = (problems: readonly Problem[]): never => {
  throw new InputProblem(problemText(problems, 10));
};

export function readBytes(file: string): Uint8Array {
  try {
    return new Uint8Array(readFileSync(file));
  } catch (error) {
    throw new InputProblem(
      `Expected a file that can be read; ${file}: ${(error as NodeJS.ErrnoException).code ?? 'not readable'}.`,
    );
  }
}

/** A picture as pixels, four bytes each. */
export function readPixels(file: string): Pixels {
  let image: Image;
  try {
    image = decode(readBytes(file));
  } catch (error) {
    if (error instanceof InputProblem) throw error;
    throw new InputProblem(`Expected a PNG or JPEG picture; ${file} is neither, or broken.`);
  }
  const { width, height } = image;
  if (width * height > MOST_PIXELS)
    throw new InputProblem(
      `Expected at most ${MOST_PIXELS / 1e6} megapixels; got ${((width * height) / 1e6).toFixed(1)}.`,
    );
  const { data } = image.convertBitDepth(8).convertColor('RGBA').getRawImage();
  return { width, height, data: new Uint8ClampedArray(data) };
}

const readText = (file: string): string => new TextDecoder().decode(readBytes(file));

export function readBoard(file: string): Board {
  const parsed = parseBoardText(readText(file));
  return parsed.ok
    ? parsed.value
    : complain(parsed.problems.map((p) => ({ ...p, at: `${file}${p.at ? `, ${p.at}` : ''}` })));
}

/** Reads JSON and checks it by a schema; the problem names the file and the place in it. */
export function readJson<T>(file: string, schema: z.ZodType<T>): T {
  let value: unknown;
  try {
    value = JSON.parse(readText(file));
  } catch (error) {
    if (error instanceof InputProblem) throw error;
    throw new InputProblem(`${file}: expected JSON; got text that is not (${(error as Error).message}).`);
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  return complain(
    parsed.error.issues.map((i) => ({
      at: `${file}${i.path.length > 0 ? `, ${i.path.join('.')}` : ''}`,
      message: `${i.message}.`,
    })),
  );
}

export const print = (value: unknown): void => {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
};

/** One JSON object a line. */
export const printRows = (rows: readonly object[]): void => {
  process.stdout.write(rows.map((row) => `${JSON.stringify(row)}\n`).join(''));
};
