import { USUAL_MAINS_HZ, type Heard, type MainsHz } from '@zemble/contract';

/** A repeatable source of noise, -1 to 1 (linear congruence, Numerical Recipes). */
function noiseSource(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2147483648 - 1;
  };
}

const SECONDS = 2.4;
/** A tune that everybody can tell from its faults: the notes of a chime, Hz. */
const CHIME_HZ = [659.26, 523.25, 587.33, 392];
const NOTE_S = 0.55;

/** The chime as it should sound, at a time in seconds, played at a speed. */
function chime(t: number, speed = 1): number {
  const at = t * speed;
  const note = Math.floor(at / NOTE_S);
  const frequency = CHIME_HZ[note];
  if (frequency === undefined) return 0;
  const into = at - note * NOTE_S;
  const envelope = Math.exp(-3 * into) * Math.min(1, into * 80);
  const phase = 2 * Math.PI * frequency * at;
  return 0.5 * envelope * (Math.sin(phase) + 0.35 * Math.sin(2 * phase) + 0.12 * Math.sin(3 * phase));
}

/** The hum of a rectified supply: twice the mains with its harmonics, over a little of the mains itself. */
const hum = (t: number, mainsHz: number) =>
  [1, 2, 4, 6, 8].reduce(
    (sum, n, i) => sum + [0.25, 1, 0.4, 0.2, 0.1][i]! * Math.sin(2 * Math.PI * mainsHz * n * t),
    0,
  ) / 2;

/**
 * What a fault sounds like, as samples of -1 to 1 for about two seconds, so that one who cannot describe it can point at
 * it. Made of tones and noise; every call gives the same samples.
 *
 * @param mainsHz frequency of the mains, whose hum it is, Hz
 */
export function faultSound(
  heard: Heard | 'as it should be',
  sampleRateHz: number,
  mainsHz: MainsHz = USUAL_MAINS_HZ,
): Float32Array {
  const samples = new Float32Array(Math.round(SECONDS * sampleRateHz));
  const noise = noiseSource(7);
  let crackle = 0;
  let rumble = 0;
  for (let i = 0; i < samples.length; i += 1) {
    const t = i / sampleRateHz;
    const white = noise();
    samples[i] = Math.max(-1, Math.min(1, sampleOf()));
    function sampleOf(): number {
      switch (heard) {
        case 'as it should be':
          return chime(t);
        case 'nothing':
          return 0;
        case 'hum':
          return 0.35 * chime(t) + 0.45 * hum(t, mainsHz);
        case 'hiss':
          return 0.6 * chime(t) + 0.14 * white;
        case 'crackle': {
          const isSnap = noise() > 1 - 24 / sampleRateHz;
          crackle = isSnap ? 0.9 * Math.sign(white) : crackle * (1 - 900 / sampleRateHz);
          return 0.6 * chime(t) + crackle * white;
        }
        case 'distortion':
          return 0.55 * Math.tanh(9 * chime(t)) + 0.1 * Math.tanh(40 * Math.max(0, chime(t)));
        case 'weak':
          return 0.06 * chime(t);
        case 'wrong pitch or speed':
          return chime(t, 0.72 + 0.06 * Math.sin(2 * Math.PI * 3 * t));
        case 'thump': {
          rumble += (white - rumble) * (60 / sampleRateHz);
          const body = Math.exp(-9 * t) * Math.sin(2 * Math.PI * 45 * t * (1 + 0.6 * Math.exp(-30 * t)));
          return 0.95 * body + 0.4 * rumble * Math.exp(-6 * t) + (t > 0.9 ? chime(t - 0.9) : 0);
        }
        case 'pulsing power': {
          const isOn = t % 0.6 < 0.22;
          return isOn ? 0.5 * chime(t) + 0.3 * Math.exp(-40 * (t % 0.6)) * Math.sin(2 * Math.PI * 70 * t) : 0;
        }
      }
    }
  }
  return samples;
}
