/** One stretch of an image in the overview. */
export interface Stretch {
  /** Share of its bytes that differ between the two images, 0 to 1; 0 where there is only one image. */
  readonly differs: number;
  /** True when every byte of it is FF in both images. */
  readonly erased: boolean;
}

/** Cuts an image into equal stretches and says of each how much differs and whether it is erased. */
export function overviewOf(a: Uint8Array, b: Uint8Array | undefined, stretches: number): Stretch[] {
  return Array.from({ length: stretches }, (_, s) => {
    const from = Math.floor((s * a.length) / stretches);
    const to = Math.floor(((s + 1) * a.length) / stretches);
    let differing = 0;
    let erased = true;
    for (let i = from; i < to; i++) {
      if (b && a[i] !== b[i]) differing++;
      if (a[i] !== 0xff || (b && b[i] !== 0xff)) erased = false;
    }
    return { differs: to > from ? differing / (to - from) : 0, erased };
  });
}
