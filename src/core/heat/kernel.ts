import { KERNEL_BASE64 } from './kernel-bytes';
import { stepInTypeScript, type Factors, type SolverArrays } from './typescript-kernel';

/**
 * What runs the hot loops, and where their arrays live. There are two, each the other's check: plain TypeScript, and
 * WebAssembly with SIMD. The arrays that `step` is given must come from `doubles` and `indices` of the same kernel.
 */
export interface Kernel {
  readonly name: 'typescript' | 'webassembly';
  /** A new array of zeros. */
  doubles(length: number): Float64Array;
  indices(length: number): Int32Array;
  /** One step of the Douglas scheme, θ = ½. Returns what all faces gave back at its start, W, to a room at 0 °C. */
  step(arrays: SolverArrays, factors: Factors): number;
}

export const typescriptKernel = (): Kernel => ({
  name: 'typescript',
  doubles: (length) => new Float64Array(length),
  indices: (length) => new Int32Array(length),
  step: stepInTypeScript,
});

/** WebAssembly where it runs here and the rows are long enough for two cells at a time, else TypeScript. */
export function bestKernel(nx: number, bytes: number): Kernel {
  return (nx >= 2 ? webassemblyKernel(bytes) : undefined) ?? typescriptKernel();
}

/** Exports of assembly/kernel.ts; arrays are byte offsets. */
type Exports = Record<'conduct' | 'sweepRows' | 'sweepColumns' | 'sweepStacks', (...args: number[]) => void> & {
  readonly exchange: (...args: number[]) => number;
};

/** The part of the platform that the core asks for; it is written without the types of a browser or of Node. */
interface Host {
  readonly WebAssembly?: {
    Module: new (bytes: Uint8Array) => object;
    Memory: new (size: { initial: number }) => { readonly buffer: ArrayBuffer };
    Instance: new (module: object, imports: object) => { readonly exports: unknown };
    validate(bytes: Uint8Array): boolean;
  };
  atob(base64: string): string;
}

const host = globalThis as unknown as Host;
const PAGE_BYTES = 65_536;
/** Vectors are read fastest at addresses of whole vectors. */
const ALIGN_BYTES = 16;
/** More arrays than a solver asks for: each may lose a part of a vector to alignment. */
const MOST_ARRAYS = 64;

let compiled: object | null | undefined;

/** Compiled once; null where WebAssembly or its SIMD is missing. */
function compiledModule(): object | null {
  if (compiled !== undefined) return compiled;
  const bytes = Uint8Array.from(host.atob(KERNEL_BASE64), (c) => c.charCodeAt(0));
  const wasm = host.WebAssembly;
  return (compiled = wasm?.validate(bytes) ? new wasm.Module(bytes) : null);
}

/**
 * A kernel with memory for arrays of so many bytes in all.
 * @returns undefined where WebAssembly or its SIMD is missing.
 */
export function webassemblyKernel(bytes: number): Kernel | undefined {
  const kernel = compiledModule();
  if (!kernel) return undefined;
  const wasm = host.WebAssembly!;
  const memory = new wasm.Memory({ initial: Math.ceil((bytes + MOST_ARRAYS * ALIGN_BYTES) / PAGE_BYTES) });
  const run = new wasm.Instance(kernel, { env: { memory } }).exports as Exports;
  let used = 0;
  const reserve = (size: number): number => {
    const start = used;
    used += Math.ceil(size / ALIGN_BYTES) * ALIGN_BYTES;
    return start;
  };
  return {
    name: 'webassembly',
    doubles: (length) => new Float64Array(memory.buffer, reserve(8 * length), length),
    indices: (length) => new Int32Array(memory.buffer, reserve(4 * length), length),
    step: (a, { stepS, x, y, z }) => {
      const { nx, plane } = a;
      const cells = (array: Float64Array): number => array.byteOffset;
      const padded = (array: Float64Array): number => array.byteOffset + 8 * plane;
      const [d, t, c] = [padded(a.delta), padded(a.t), cells(a.capacity)];
      const runs = [a.runs.byteOffset, a.runs.length];
      run.conduct(d, t, padded(a.gx), padded(a.gy), padded(a.gz), ...runs, nx, plane, stepS);
      const faces = [a.faceCells.byteOffset, cells(a.faceAir), cells(a.faceC), a.faceCells.length];
      const lostW = run.exchange(d, t, ...faces, stepS);
      run.sweepRows(d, padded(x.lower), cells(x.inverse), ...runs, nx);
      for (let layer = 0; layer + 1 < a.layers.length; layer++)
        run.sweepColumns(
          d,
          c,
          padded(y.lower),
          cells(y.inverse),
          a.runs.byteOffset,
          a.layers[layer],
          a.layers[layer + 1],
          nx,
        );
      run.sweepStacks(d, t, c, padded(z.lower), cells(z.inverse), ...runs, plane);
      return lostW;
    },
  };
}
