/** A programmer with a serial flash at its end, real or simulated. Each call ends when the chip is ready again. */
export interface Programmer {
  /** Bytes of the identification. */
  identify(): Promise<Uint8Array>;
  /** The first bytes of the discovery table. */
  discovery(bytes: number): Promise<Uint8Array>;
  read(offset: number, bytes: number): Promise<Uint8Array>;
  erase(offset: number, bytes: number): Promise<void>;
  /** Clears bits within one page. */
  program(offset: number, bytes: Uint8Array): Promise<void>;
  status(): Promise<number>;
  writeStatus(status: number): Promise<void>;
  close(): Promise<void>;
}

/** The supply went away in the middle of something: what it was at is in an unknown state. */
export class SupplyLost extends Error {}
