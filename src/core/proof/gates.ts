import type { NetName } from '../identities';
import type { PlugSide } from '../board';
import type { RailProof } from './rails';

export interface Gate {
  readonly id: 'rails' | 'plugs' | 'shorts' | 'seat' | 'functions' | 'image' | 'soak';
  readonly label: string;
  readonly holds: boolean;
  /** What is missing, in a few words. */
  readonly missing?: string;
}

export interface GateFacts {
  readonly rails: RailProof;
  /** Both plug orientations of each port since the last work on the board, healthy or not. */
  readonly plugs: readonly { readonly port: string; readonly side: PlugSide; readonly healthy: boolean | undefined }[];
  /** Nets that were shorted before the repair and what is known of them now. */
  readonly shorts: readonly { readonly net: NetName; readonly gone: boolean | undefined }[];
  readonly functions: readonly { readonly id: string; readonly works: boolean | undefined }[];
  /** What is missing of the joints and the flatness of placed parts; undefined where nobody began to touch them. */
  readonly seat?: readonly string[];
  /** Undefined when no image was worked on. */
  readonly imageSound?: boolean;
  /** What is missing of the last soak; empty where it held, undefined where none was begun. */
  readonly soak?: string;
}

/** A job closes as repaired only when all gates hold, or with a named reason. */
export function judgeGates(facts: GateFacts): Gate[] {
  const gate = (id: Gate['id'], label: string, missing: string[]): Gate => ({
    id,
    label,
    holds: missing.length === 0,
    missing: missing.length > 0 ? missing.join(', ') : undefined,
  });
  const gates = [
    gate(
      'shorts',
      'Shorts gone',
      facts.shorts
        .filter((s) => s.gone !== true)
        .map((s) => `${s.net} ${s.gone === false ? 'still shorted' : 'not measured again'}`),
    ),
    gate(
      'rails',
      'All rails in their windows',
      facts.rails.rails
        .filter((r) => r.state !== 'passes')
        .map((r) => `${r.rail.id} ${r.state === 'fails' ? 'fails' : 'not yet'}`),
    ),
    gate(
      'plugs',
      'Both plug orientations charge',
      facts.plugs
        .filter((p) => p.healthy !== true)
        .map((p) => `${p.port} ${p.side} ${p.healthy === false ? 'not healthy' : 'not yet'}`),
    ),
    gate(
      'functions',
      'Functions tried',
      facts.functions.filter((f) => f.works !== true).map((f) => `${f.id} ${f.works === false ? 'fails' : 'not yet'}`),
    ),
  ];
  if (facts.seat !== undefined) gates.splice(1, 0, gate('seat', 'Placed parts sit and join', [...facts.seat]));
  if (facts.imageSound !== undefined)
    gates.push(gate('image', 'Image checks hold', facts.imageSound ? [] : ['the image written last is not sound']));
  if (facts.soak !== undefined) gates.push(gate('soak', 'Soak held', facts.soak === '' ? [] : [facts.soak]));
  return gates;
}
