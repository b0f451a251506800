import { fail, ok, type Result } from '../result';

const PREFIX: Record<string, number> = { m: 1e-3, '': 1, k: 1e3, M: 1e6 };

/**
 * Reads a figure as typed at the bench: decimal point or comma, an optional multiplier (`4.7k`, `4k7`, `20m`).
 * The multiplier is case-sensitive only where it matters: `m` is milli, `M` is mega, `K` counts as `k`.
 */
export function parseFigure(text: string): Result<number> {
  const clean = text.trim().replace(',', '.');
  const infix = /^(\d+)([kKM])(\d+)$/.exec(clean);
  if (infix) return ok(Number(`${infix[1]}.${infix[3]}`) * PREFIX[infix[2].replace('K', 'k')]);
  const plain = /^([-+]?(?:\d+\.?\d*|\.\d+))([mkKM]?)$/.exec(clean);
  if (!plain) return fail(`Expected a number such as 0.4, 4.7k or 4k7; got "${text}".`);
  return ok(Number(plain[1]) * PREFIX[plain[2].replace('K', 'k')]);
}
