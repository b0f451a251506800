/** The part of pino-roll that is used: a stream into files that are closed when they are full. */
declare module 'pino-roll' {
  import type { DestinationStream } from 'pino';
  import type { EventEmitter } from 'node:events';
  export default function build(options: {
    readonly file: string;
    readonly size?: string;
    readonly limit?: { readonly count: number };
    readonly mkdir?: boolean;
    readonly mode?: number;
  }): Promise<DestinationStream & EventEmitter>;
}
