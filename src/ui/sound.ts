'use client';

/** A note: how high it is, and how long. */
export interface Note {
  readonly hz: number;
  readonly seconds: number;
}

/** Between two notes, so that two of one height are heard as two. */
const GAP_S = 0.06;

let context: AudioContext | undefined;

/** Plays notes one after the other. */
export function playNotes(notes: readonly Note[]): void {
  context ??= new AudioContext();
  let at = context.currentTime;
  for (const { hz, seconds } of notes) {
    const oscillator = context.createOscillator();
    oscillator.frequency.value = hz;
    oscillator.connect(context.destination);
    oscillator.start(at);
    oscillator.stop(at + seconds);
    at += seconds + GAP_S;
  }
}
