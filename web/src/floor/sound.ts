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

/** Later signals are laid out when their time comes nearer. */
const AHEAD_MS = 20 * 60_000;

let context: AudioContext | undefined;

/**
 * Schedules signals that are reckoned from `start` (milliseconds of the floor's clock); those that are past are left out.
 * @param pitch a factor, so that lanes sound apart
 * @returns takes back what has not sounded yet
 */
export function schedule(signals: readonly Signal[], start: number, pitch: number, volume: number): () => void {
  if (typeof AudioContext === 'undefined') return () => undefined;
  const audio = (context ??= new AudioContext());
  const sounding: OscillatorNode[] = [];
  let over = false;
  const layOut = () => {
    if (over) return;
    const now = floorClock.now();
    for (const { at, kind } of signals) {
      const wait = start + at - now;
      if (wait < -50 || wait > AHEAD_MS) continue;
      const [hertz, seconds] = TONES[kind];
      const when = audio.currentTime + Math.max(0, wait) / 1000;
      const tone = audio.createOscillator();
      const gain = audio.createGain();
      tone.frequency.value = hertz * pitch;
      gain.gain.setValueAtTime(volume, when);
      gain.gain.exponentialRampToValueAtTime(0.001, when + seconds);
      tone.connect(gain).connect(audio.destination);
      tone.start(when);
      tone.stop(when + seconds);
      sounding.push(tone);
    }
  };
  // A page that nobody has touched yet may not sound: the rest is laid out as soon as it may.
  if (audio.state === 'running') layOut();
  else void audio.resume().then(layOut);
  return () => {
    over = true;
    for (const tone of sounding) tone.disconnect();
  };
}

export function speak(words: string): void {
  if (!settings.speech || settings.muted || typeof speechSynthesis === 'undefined') return;
  speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(words);
  said.volume = settings.volume;
  speechSynthesis.speak(said);
}
