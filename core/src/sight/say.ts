/** What a reading says, in sentences, the most important first. */
import { median } from './frame.js';
import { type Lead, MEASURED, type Unit } from './quantities.js';
import type { Answer, Reading, Why } from './read.js';
import type { Count } from './reps.js';

export interface Said {
  /** What is to be done about nothing: counts, reach, tempo. */
  facts: string[];
  /** A fault that was seen, with its kind. */
  seen: { kind: string; words: string }[];
  /** Looked for and not there. */
  notSeen: string[];
  /** What cannot be told, with why. */
  cannot: { why: string; kinds: string[] }[];
}

const BLIND = 'Film this one from the side: from here it cannot be read.';

const UNCOUNTED = 'The reps of this movement cannot be counted by a camera from here.';

/** Depth is only said of those that lie in the picture. */
const LEAD_WORDS: Readonly<Partial<Record<Lead, string>>> = {
  'knee-bend': 'Knees bent',
  'hip-bend': 'Hips bent',
  'elbow-bend': 'Elbows bent',
  'arm-raise': 'Arms raised',
};

const VIEW_WORDS = { front: 'the front', side: 'the side', back: 'behind', oblique: 'a corner' } as const;

/** Why something cannot be told, for whoever may do something about it. */
const whyWords = (why: Why, { stand: { view } }: Reading): string =>
  ({
    view: `not from ${VIEW_WORDS[view]}`,
    position: 'it does not show in this movement from here',
    'no-reps': 'no whole rep was seen',
    rough: 'what was seen is too unsteady to tell rep from rep',
    hidden: 'hidden, or out of the picture',
    small: 'the person is too small in the picture',
    border: 'too close to call',
  })[why];

/** Why a count is not to be stood by. */
const UNSURE_WORDS: Readonly<Record<Exclude<Count, 'sure'>, string>> = {
  rough: 'what was seen is too unsteady to be sure. Count for yourself.',
  gap: 'for a while too little of the body was seen.',
  uneven: 'some go so much less far that they may not be reps.',
};

/** Reps by their place, counted from one: "2", "1 and 3", "2–5 and 7". */
export function repWords(places: readonly number[]): string {
  const spans: [number, number][] = [];
  for (const place of places) {
    const last = spans.at(-1);
    if (last && place === last[1] + 1) last[1] = place;
    else spans.push([place, place]);
  }
  const said = spans.map(([from, to]) => (from === to ? `${from + 1}` : `${from + 1}–${to + 1}`));
  return said.length < 2 ? said.join('') : `${said.slice(0, -1).join(', ')} and ${said.at(-1)}`;
}

export const amountWords = (amount: number, unit: Unit): string =>
  unit === 'cm' ? `${Math.round(amount)} cm` : `${Math.round(amount)}${unit === '%' ? ' %' : '°'}`;

/** In what a lead is counted. */
export const leadUnit = (lead: Lead): Unit => MEASURED[lead].unit;

/** So much is a difference that a trainer would speak of, and more than a camera is off: degrees or centimetres. */
const WORTH_SAYING = 15;
/** A time is off when it is so far from what was asked for: in seconds, or a share of it. */
const OFF_SECONDS = 0.4;
const OFF_SHARE = 0.2;

export function sentencesOf(reading: Reading, nameOf: (kind: string) => string): Said {
  const said: Said = {
    facts: reading.blind ? [BLIND] : reading.holds ? holdWords(reading) : repsWords(reading),
    seen: [],
    notSeen: [],
    cannot: [],
  };
  for (const answer of reading.answers) {
    const name = nameOf(answer.kind);
    if (answer.seen.length > 0) said.seen.push({ kind: answer.kind, words: seenWords(name, answer, reading.holds) });
    else if (answer.cannot === null) said.notSeen.push(name);
    else {
      const why = whyWords(answer.cannot, reading);
      const known = said.cannot.find((one) => one.why === why);
      if (known) known.kinds.push(name);
      else said.cannot.push({ why, kinds: [name] });
    }
  }
  return said;
}

function seenWords(name: string, { seen, amounts, unit, judged }: Answer, holds: boolean): string {
  const most = Math.max(...seen.map((i) => Math.abs(amounts[i] as number)));
  const many = seen.length === amounts.length && amounts.length > 1;
  const where = many
    ? `every ${holds ? 'piece' : 'rep'}`
    : `${holds ? 'piece' : seen.length === 1 ? 'rep' : 'reps'} ${repWords(seen)}`;
  const unsure = amounts.length - judged;
  return `${name}: ${where}, up to ${amountWords(most, unit)}${unsure > 0 && !many ? `; ${unsure} could not be told` : ''}.`;
}

function holdWords({ reps }: Reading): string[] {
  if (reps.length === 0) return ['The posture of the hold was not seen for long enough.'];
  const whole = reps.reduce((sum, { stay }) => sum + stay, 0);
  const pieces = reps.map(({ stay }) => `${Math.round(stay)} s`);
  return [
    reps.length === 1
      ? `Held for ${Math.round(whole)} s.`
      : `Held for ${Math.round(whole)} s in ${reps.length} pieces: ${pieces.join(', ')}.`,
  ];
}

function repsWords(reading: Reading): string[] {
  const { reps, lead, clean, stand } = reading;
  if (!clean.rep) return [UNCOUNTED];
  const [first] = reps;
  if (!first) return ['No whole rep was seen.'];
  const near = reading.alternating && stand.view === 'side' ? ` of the ${stand.near} side, the nearer one` : '';
  const counted = `${reps.length} ${reps.length === 1 ? 'rep' : 'reps'}${near}`;
  if (reading.count === 'rough') return [`About ${counted}: ${UNSURE_WORDS.rough}`];
  const facts = [reading.count === 'sure' ? `${counted}.` : `About ${counted}: ${UNSURE_WORDS[reading.count]}`];
  const reach = reps.map((one) => one.reach);
  const mean = reach.reduce((sum, one) => sum + one, 0) / reach.length;
  const spread = Math.sqrt(reach.reduce((sum, one) => sum + (one - mean) ** 2, 0) / reach.length);
  const more = Math.sign(clean.to - clean.from);
  const named = LEAD_WORDS[lead];
  if (stand.view === 'side' && named && clean.rep) {
    const usual = clean.rep.reach;
    const short = reach.flatMap((one, i) => ((usual - one) * more > WORTH_SAYING ? [i] : []));
    facts.push(
      `${named} ${Math.round(mean)}°${reps.length > 1 ? ` ± ${Math.round(spread)}` : ''} at the far end, ${Math.round(usual)}° in the clean rep${
        short.length === 0
          ? ''
          : `; ${short.length === reps.length && short.length > 1 ? 'all stop' : short.length === 1 ? 'one stops' : `${short.length} stop`} more than ${WORTH_SAYING}° short`
      }.`,
    );
  }
  const fades = fading(reach, more);
  if (fades > WORTH_SAYING)
    facts.push(`The last reps go ${amountWords(fades, leadUnit(lead))} less far than the first.`);
  facts.push(tempoWords(reading));
  return facts;
}

/** What differs from what was asked for; a part of 0 s may take what it takes. */
function tempoWords({ reps, tempo }: Reading): string {
  const parts = [
    { what: 'lowering', is: median(reps.map(({ lower }) => lower)), asked: tempo.lower },
    { what: 'pause', is: median(reps.map(({ stay }) => stay)), asked: tempo.pause },
    { what: 'rising', is: median(reps.map(({ rise }) => rise)), asked: tempo.rise },
  ];
  const off = parts.filter(
    ({ is, asked }) => asked > 0 && Math.abs(is - asked) > Math.max(OFF_SECONDS, asked * OFF_SHARE),
  );
  if (off.length === 0)
    return `Tempo as asked for: ${parts.map(({ what, is }) => `${what} ${is.toFixed(1)}`).join(', ')} s.`;
  const said = off.map(({ what, is, asked }) => `${what} ${is.toFixed(1)} s of ${asked}`).join(', ');
  return `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
}

/** By how much the last third goes less far than the first. */
function fading(reach: readonly number[], more: number): number {
  const third = Math.floor(reach.length / 3);
  if (third === 0) return 0;
  return (median(reach.slice(0, third)) - median(reach.slice(-third))) * more;
}
