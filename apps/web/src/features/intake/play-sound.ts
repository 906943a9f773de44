import type { Heard, MainsHz } from '@zemble/contract';
import { faultSound } from '@zemble/core';

let context: AudioContext | null = null;
let playing: AudioBufferSourceNode | null = null;

/** Plays what a fault sounds like; a second one ends the first. */
export function playSound(heard: Heard | 'as it should be', mainsHz: MainsHz): void {
  context ??= new AudioContext();
  void context.resume();
  playing?.stop();
  const samples = faultSound(heard, context.sampleRate, mainsHz);
  const buffer = context.createBuffer(1, samples.length, context.sampleRate);
  buffer.getChannelData(0).set(samples);
  playing = context.createBufferSource();
  playing.buffer = buffer;
  playing.connect(context.destination);
  playing.start();
}
