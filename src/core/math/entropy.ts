/** Shannon entropy in bits of a distribution that sums to one; zero entries count nothing. */
export function entropyBits(p: ArrayLike<number>): number {
  let bits = 0;
  for (let i = 0; i < p.length; i++) if (p[i] > 0) bits -= p[i] * Math.log2(p[i]);
  return bits;
}
