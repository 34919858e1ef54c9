/** Sound and speech of the floor: signals scheduled ahead, so that a busy page does not delay them. What is set here stays on this device. */
import type { Signal, SignalKind } from '@waxwing/core/session';
import { useSyncExternalStore } from 'react';

import { keepHere, keptHere } from '../shell/kept';
import { floorClock } from './clock';

export interface SoundSettings {
  /** 0 to 1. */
  volume: number;
  muted: boolean;
  /** Says the next cue and changes of station. */
  speech: boolean;
}

const KEY = 'waxwing-sound';
const USUAL: SoundSettings = { volume: 0.6, muted: false, speech: false };

function read(): SoundSettings {
  try {
    return { ...USUAL, ...(JSON.parse(keptHere(KEY) ?? '{}') as Partial<SoundSettings>) };
  } catch {
    return USUAL;
  }
}

let settings = read();
const listeners = new Set<() => void>();

export function setSound(change: Partial<SoundSettings>): void {
  settings = { ...settings, ...change };
  keepHere(KEY, JSON.stringify(settings));
  for (const listener of listeners) listener();
}

export const useSound = (): SoundSettings =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => settings,
  );

/** Each kind has a pitch and a length of its own, in hertz and seconds. */
const TONES: Readonly<Record<SignalKind, readonly [hertz: number, seconds: number]>> = {
  count: [620, 0.08],
  begin: [930, 0.35],
  end: [465, 0.5],
  side: [740, 0.3],
  lower: [310, 0.12],
  hold: [415, 0.12],
  rise: [520, 0.12],
};

/** Signals are laid out so far ahead: longer than a hidden page is kept from looking again. */
const AHEAD_MS = 80_000;
/** How often they are laid against the clock anew: a device's sound runs by a clock of its own, which drifts. */
const AGAIN_MS = 20_000;
/** What sounds in a moment stays as it is. */
const SOON_MS = 250;

let context: AudioContext | undefined;

/**
 * Schedules signals that are reckoned from `start` (milliseconds of the floor's clock); those that are past are left out. They are laid out ahead
 * and again and again, so that neither a busy page nor the sound's own clock moves them.
 * @param pitch a factor, so that lanes sound apart
 * @returns takes back what has not sounded yet
 */
export function schedule(signals: readonly Signal[], start: number, pitch: number, volume: number): () => void {
  if (typeof AudioContext === 'undefined') return () => undefined;
  const audio = (context ??= new AudioContext());
  const laid = new Map<number, OscillatorNode>();
  let over = false;
  const layOut = () => {
    if (over) return;
    const now = floorClock.now();
    signals.forEach(({ at, kind }, i) => {
      const wait = start + at - now;
      const known = laid.get(i);
      if (wait < -50 || wait > AHEAD_MS || (known && wait < SOON_MS)) return;
      const when = audio.currentTime + Math.max(0, wait) / 1000;
      known?.disconnect();
      laid.set(i, sound(audio, kind, when, pitch, volume));
    });
  };
  const again = setInterval(layOut, AGAIN_MS);
  // A page that nobody has touched yet may not sound: the rest is laid out as soon as it may.
  if (audio.state === 'running') layOut();
  else void audio.resume().then(layOut);
  return () => {
    over = true;
    clearInterval(again);
    for (const tone of laid.values()) tone.disconnect();
  };
}

function sound(audio: AudioContext, kind: SignalKind, when: number, pitch: number, volume: number): OscillatorNode {
  const [hertz, seconds] = TONES[kind];
  const tone = audio.createOscillator();
  const gain = audio.createGain();
  tone.frequency.value = hertz * pitch;
  gain.gain.setValueAtTime(volume, when);
  gain.gain.exponentialRampToValueAtTime(0.001, when + seconds);
  tone.connect(gain).connect(audio.destination);
  tone.start(when);
  tone.stop(when + seconds);
  return tone;
}

export function speak(words: string): void {
  if (!settings.speech || settings.muted || typeof speechSynthesis === 'undefined') return;
  speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(words);
  said.volume = settings.volume;
  speechSynthesis.speak(said);
}
