import { SupplyLost, makeSfdp, protectedFrom, usualChip, type FlashChip, type Programmer } from '../../core/flash';
import { seededRandom, type Random } from '../../core/math';

/** What is wrong with the bench or the chip. Everything left out is well. */
export interface ProgrammerTrouble {
  /** Chance of each bit to be read wrong, anew each time: bad contact. */
  readonly bitErrorRate?: number;
  /** An address line that is held low: what lies above repeats what lies below. */
  readonly stuckAddressBit?: number;
  /** Offset of a sector that no longer erases fully. */
  readonly wornSector?: number;
  /** The chip answers with another identification. */
  readonly identity?: readonly number[];
  /** Nothing answers. */
  readonly absent?: true;
  /** The supply goes away so many ms after it is switched on. */
  readonly supplyLostAtMs?: number;
}

/** Serial clock, bits for each ms: 16 MHz on one line. Engineering estimate of a clip on a bench. */
const BITS_PER_MS = 16_000;
/** Writing the status register. Engineering estimate. */
const STATUS_MS = 5;
/** A maker's code of no firm: the parity is odd, as it has to be. */
const MAKER = 0x6b;
/** A device type of no part. */
const DEVICE = 0x40;

/**
 * A programmer with a chip on its clip, for the bench without one. Content, time and trouble are its own; time goes on by
 * what each operation takes, not by a clock.
 */
export class SimulatedProgrammer implements Programmer {
  readonly chip: FlashChip;
  /** What the cells really hold. */
  readonly cells: Uint8Array;
  statusBits: number;
  elapsedMs = 0;
  private readonly random: Random;

  constructor(
    content: Uint8Array,
    private trouble: ProgrammerTrouble = {},
    { seed = 1, status = 0 }: { readonly seed?: number; readonly status?: number } = {},
  ) {
    this.cells = Uint8Array.from(content);
    this.chip = usualChip(content.length);
    this.statusBits = status;
    this.random = seededRandom(seed);
  }

  /** Another clip, another supply: the cells stay as they are. */
  mended(trouble: ProgrammerTrouble = {}): void {
    this.trouble = trouble;
    this.elapsedMs = 0;
  }

  async identify(): Promise<Uint8Array> {
    this.pass(4 / BITS_PER_MS, () => {});
    if (this.trouble.absent) return new Uint8Array(3).fill(0xff);
    return Uint8Array.from(this.trouble.identity ?? [MAKER, DEVICE, Math.log2(this.cells.length)]);
  }

  async discovery(bytes: number): Promise<Uint8Array> {
    const table = new Uint8Array(bytes).fill(0xff);
    if (!this.trouble.absent) table.set(makeSfdp(this.chip));
    return table;
  }

  async read(offset: number, bytes: number): Promise<Uint8Array> {
    this.pass((8 * bytes) / BITS_PER_MS, () => {});
    const { stuckAddressBit, bitErrorRate = 0, absent } = this.trouble;
    const out = new Uint8Array(bytes).fill(0xff);
    if (absent) return out;
    for (let k = 0; k < bytes; k++) {
      const at = offset + k;
      out[k] = this.cells[stuckAddressBit === undefined ? at : at & ~(1 << stuckAddressBit)];
    }
    this.spoil(out, bitErrorRate);
    return out;
  }

  async erase(offset: number, bytes: number): Promise<void> {
    const kind = this.chip.erases.find((e) => e.bytes === bytes);
    if (!kind || offset % bytes !== 0)
      throw new Error(`expected an erase of this chip at a multiple of its size; got ${bytes} at ${offset}`);
    if (offset + bytes > protectedFrom(this.statusBits, this.cells.length)) return this.pass(STATUS_MS, () => {});
    this.pass(kind.typicalMs, (share) => {
      // Cells let go one after the other: an erase that is cut leaves some as they were.
      for (let i = offset; i < offset + bytes; i++)
        for (let bit = 0; bit < 8; bit++) if (share >= 1 || this.random() < share) this.cells[i] |= 1 << bit;
      const { wornSector } = this.trouble;
      if (wornSector !== undefined && wornSector >= offset && wornSector < offset + bytes)
        this.cells[wornSector] &= 0xef;
    });
  }

  async program(offset: number, bytes: Uint8Array): Promise<void> {
    const { pageBytes, pageMs } = this.chip;
    if (Math.floor(offset / pageBytes) !== Math.floor((offset + bytes.length - 1) / pageBytes))
      throw new Error(`expected bytes within one page of ${pageBytes}; got ${bytes.length} at ${offset}`);
    if (offset + bytes.length > protectedFrom(this.statusBits, this.cells.length))
      return this.pass(STATUS_MS, () => {});
    this.pass(pageMs + (8 * bytes.length) / BITS_PER_MS, (share) => {
      for (let k = 0; k < bytes.length; k++)
        for (let bit = 0; bit < 8; bit++)
          if (!((bytes[k] >>> bit) & 1) && (share >= 1 || this.random() < share)) this.cells[offset + k] &= ~(1 << bit);
    });
  }

  async status(): Promise<number> {
    return this.statusBits;
  }

  async writeStatus(status: number): Promise<void> {
    this.pass(STATUS_MS, (share) => {
      if (share >= 1) this.statusBits = status;
    });
  }

  async close(): Promise<void> {}

  /** Lets time go by; where the supply goes away meanwhile only a share of it happens. */
  private pass(ms: number, happens: (share: number) => void): void {
    const { supplyLostAtMs = Infinity } = this.trouble;
    const left = supplyLostAtMs - this.elapsedMs;
    if (left < ms) {
      if (left > 0) happens(left / ms);
      this.elapsedMs = supplyLostAtMs;
      throw new SupplyLost('the supply went away');
    }
    happens(1);
    this.elapsedMs += ms;
  }

  /** Errors at random places: the distance to the next is drawn, so that few errors cost little. */
  private spoil(bytes: Uint8Array, rate: number): void {
    if (rate <= 0) return;
    const next = (): number => Math.floor(Math.log(1 - this.random()) / Math.log(1 - rate));
    for (let bit = next(); bit < 8 * bytes.length; bit += 1 + next()) bytes[bit >>> 3] ^= 1 << (bit & 7);
  }
}
