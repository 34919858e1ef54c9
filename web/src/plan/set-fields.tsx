/** What one set is made of, how its rounds differ, and lighter weights in the same set: behind one button, with a line that says what was chosen. */
import type { KnownTest, Test } from '@waxwing/core/client';
import { amountOfParts, namedTempo, parseParts, partsWords, wrongParts, wrongPartsFor } from '@waxwing/core/dosage';
import { type Begins, beginsWith, type MovementSummary } from '@waxwing/core/movement';
import {
  dropsFrom,
  dropWords,
  MOST_DROPS,
  type PatternFacts,
  patternOf,
  type PlanLane,
  ROUND_PATTERNS,
  type RoundPattern,
  roundsBy,
  roundsWords,
  sumWords,
  underClock,
  withPattern,
  withSets,
} from '@waxwing/core/planning';
import type { Part } from '@waxwing/core/schema';
import { useId, useState } from 'react';

import { say } from '../words/say';
import { TestField } from './test-field';

interface Props {
  /** The movement and whom it is for, in words. */
  of: string;
  lane: PlanLane;
  movement: MovementSummary;
  facts: PatternFacts;
  /** Tests of the movement that are offered or were done before. */
  tests: readonly KnownTest[];
  nameOf: (movementId: string) => string;
  onChange: (lane: PlanLane) => void;
}

const PATTERN_WORDS: Readonly<Record<RoundPattern, string>> = say.plan.patternWords;

/** Parts that one tap puts at the end. */
const quickParts = (begins: Begins): { name: string; part: Part }[] => [
  { name: 'singles', part: { kind: 'reps', count: 8, tempo: null } },
  { name: 'slow', part: { kind: 'reps', count: 3, tempo: namedTempo('slow', begins) } },
  { name: 'pause', part: { kind: 'reps', count: 3, tempo: namedTempo('pause', begins) } },
  { name: 'half-and-full', part: { kind: 'half', count: 4 } },
  { name: 'pulses', part: { kind: 'pulses', count: 8, at: null } },
  { name: 'hold', part: { kind: 'hold', count: 8, at: null } },
];

export function SetFields({ of, lane, movement, facts, tests, nameOf, onChange }: Props) {
  const { rounds: sets } = facts;
  // A plan has many lines, and few of them are looked at so closely.
  const [open, setOpen] = useState(false);
  const { mode } = movement.dose;
  const possible = ROUND_PATTERNS.filter((pattern) => roundsBy(pattern, lane, facts) !== null);
  const chosen = patternOf(lane, facts);
  const drops = dropsFrom(lane, facts.loads, MOST_DROPS);
  const withParts = (parts: readonly Part[]) => {
    const { parts: _, ...plain } = lane;
    onChange(parts.length === 0 ? plain : { ...plain, parts: [...parts], amount: amountOfParts(parts) });
  };
  const withDrops = (count: number) => {
    const { drops: _, ...plain } = lane;
    onChange(count === 0 ? plain : { ...plain, drops: drops.slice(0, count) });
  };
  const withTest = (test: Test | undefined) => {
    const { test: before, ...plain } = lane;
    const known = tests.find(({ name }) => name === test?.name);
    if (!test) return onChange(plain);
    const sets = before ? plain.sets : 1;
    const amount = before ? plain.amount : (known?.amount ?? plain.amount);
    return onChange({ ...withSets(plain, sets), sets, amount, test });
  };
  // What is counted has no place while a clock goes; it is there again when the clock is taken off.
  const counted = !facts.byClock;
  const said = [
    ...(counted && lane.test ? [say.plan.testNamed(lane.test.name)] : []),
    ...(counted && lane.parts ? [partsWords(lane.parts)] : []),
    ...roundsWords(counted ? lane : underClock(lane), sets, nameOf),
    ...(counted && lane.drops ? [dropWords(lane)] : []),
  ];
  const sum = counted && sumWords(lane, sets, { mode, sides: movement.sides });
  return (
    <details className="open:w-full" onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="link w-fit cursor-pointer text-sm" aria-label={say.plan.setInDetail(of)}>
        {said.length > 0 ? said.join(' · ') : say.plan.inDetail}
        {sum && <span className="quiet"> ({sum})</span>}
      </summary>
      {open && (
        <div className="mt-2 flex flex-wrap items-start gap-x-6 gap-y-3">
          {!facts.byClock && mode !== 'distance' && (
            <PartsField of={of} lane={lane} movement={movement} onChange={withParts} />
          )}
          <label>
            <span className="quiet block text-sm">{say.plan.rounds}</span>
            <select
              className="select w-56"
              aria-label={say.plan.roundsOf(of)}
              value={chosen ?? ''}
              onChange={({ target }) => onChange(withPattern(lane, target.value as RoundPattern, facts))}
            >
              {!chosen && <option value="">{say.plan.asTheyAreNow}</option>}
              {possible.map((pattern) => (
                <option key={pattern} value={pattern}>
                  {PATTERN_WORDS[pattern]}
                </option>
              ))}
            </select>
          </label>
          {!facts.byClock && (drops.length > 0 || lane.drops) && (
            <label>
              <span className="quiet block text-sm">{say.plan.lighterAtOnceInThe}</span>
              <select
                className="select w-56"
                aria-label={say.plan.lighterAtOnce(of)}
                value={lane.drops?.length ?? 0}
                onChange={({ target }) => withDrops(Number(target.value))}
              >
                <option value={0}>{say.common.no}</option>
                {drops.map((_, i) => (
                  <option key={i} value={i + 1}>
                    {dropWords({ drops: drops.slice(0, i + 1) })}
                  </option>
                ))}
              </select>
            </label>
          )}
          {!facts.byClock && <TestField of={of} test={lane.test} known={tests} onChange={withTest} />}
        </div>
      )}
    </details>
  );
}

/** One line that is typed, or built by taps. What cannot be read is said beside it, and changes nothing. */
function PartsField({
  of,
  lane,
  movement,
  onChange,
}: Pick<Props, 'of' | 'lane' | 'movement'> & { onChange: (parts: readonly Part[]) => void }) {
  const { mode } = movement.dose;
  const begins = beginsWith(movement.phases);
  const id = useId();
  const [typed, type] = useState<string | null>(null);
  const parts = lane.parts ?? [];
  const wrongIn = (line: string): string | null => {
    const read = parseParts(line, begins);
    if ('wrong' in read) return read.wrong;
    const wrong = wrongPartsFor(mode, read.parts) ?? wrongParts(read.parts, lane.tempo);
    return read.parts.length > 0 && wrong ? say.plan.theParts(wrong) : null;
  };
  const read = (line: string) => {
    type(line);
    const answer = parseParts(line, begins);
    if ('parts' in answer && wrongIn(line) === null) onChange(answer.parts);
  };
  const problem = typed === null ? null : wrongIn(typed);
  const add = (part: Part) => {
    type(null);
    onChange([...parts, part]);
  };
  return (
    <div className="min-w-72 flex-1">
      <label htmlFor={id} className="quiet block text-sm">
        {say.plan.partsOfOneSet}
      </label>
      <input
        id={id}
        className={`input w-full ${problem ? 'border-error border-2' : ''}`}
        aria-label={say.plan.partsOf(of)}
        placeholder={say.plan.partsExample}
        value={typed ?? partsWords(parts)}
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${id}-wrong` : undefined}
        onChange={({ target }) => read(target.value)}
        onBlur={() => problem === null && type(null)}
      />
      {problem && (
        <span id={`${id}-wrong`} role="alert" className="text-error block text-sm">
          {problem}
        </span>
      )}
      <div className="mt-1 flex flex-wrap gap-1">
        {quickParts(begins)
          .filter(({ part }) => mode === 'reps' || part.kind === 'hold' || (part.kind === 'pulses' && parts.length > 0))
          .map(({ name, part }) => (
            <button key={name} type="button" className="btn btn-sm" onClick={() => add(part)}>
              + {name}
            </button>
          ))}
        {parts.length > 0 && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => {
              type(null);
              onChange(parts.slice(0, -1));
            }}
          >
            {say.plan.takeTheLastOff}
          </button>
        )}
      </div>
    </div>
  );
}
