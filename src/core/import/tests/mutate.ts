import type { Random } from '../../math';

/** A file with some of its bytes changed, cut, doubled or mixed: what a torn download or a wrong editor leaves. */
export function mutated(bytes: Uint8Array, random: Random): Uint8Array {
  let out = Uint8Array.from(bytes);
  const at = (): number => Math.floor(random() * out.length);
  const rounds = 1 + Math.floor(random() * 6);
  for (let k = 0; k < rounds && out.length > 0; k++) {
    const kind = Math.floor(random() * 6);
    if (kind === 0) out[at()] = Math.floor(random() * 256);
    else if (kind === 1) out = out.slice(0, at());
    else if (kind === 2) out = out.slice(at());
    else if (kind === 3) {
      const [a, b] = [at(), at()].sort((x, y) => x - y);
      out = Uint8Array.from([...out.subarray(0, b), ...out.subarray(a, b), ...out.subarray(b)]);
    } else if (kind === 4) {
      const from = at();
      const digits = '0123456789,;.\n\t-eE:@$#'.split('');
      for (let i = from; i < Math.min(out.length, from + 20); i++)
        out[i] = digits[Math.floor(random() * digits.length)].charCodeAt(0);
    } else {
      const from = at();
      out = Uint8Array.from([
        ...out.subarray(0, from),
        ...out.subarray(Math.min(out.length, from + 1 + Math.floor(random() * 200))),
      ]);
    }
    if (out.length > 4 * bytes.length + 1000) out = out.slice(0, 4 * bytes.length);
  }
  return out;
}
