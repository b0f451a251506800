/**
 * A value or the problems that kept it from being made. The core returns problems as data where a user can
 * cause them, and throws only on programmer error.
 */
export interface Problem {
  /** One sentence in the user's words: what was expected and what was got. */
  readonly message: string;
  /** Where in the input, for example `parts[3].xMm` or `line 12`. */
  readonly at?: string;
}

export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: Problem[] };

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

export const fail = <T = never>(message: string, at?: string): Result<T> => ({
  ok: false,
  problems: [at === undefined ? { message } : { message, at }],
});

export const failAll = <T = never>(problems: Problem[]): Result<T> => ({ ok: false, problems });

/** All problems in one line, for places that show a single sentence. */
export function problemText(problems: readonly Problem[], most = 3): string {
  const shown = problems.slice(0, most).map((p) => (p.at ? `${p.at}: ${p.message}` : p.message));
  const rest = problems.length - shown.length;
  return shown.join(' ') + (rest > 0 ? ` And ${rest} more.` : '');
}
