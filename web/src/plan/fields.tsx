/** Small fields of a plan: what is typed counts when it is right, and says what is wrong with it until then. */
import { label, type Purpose, PURPOSES, type Space, SPACE_WORDS, SPACES } from '@waxwing/core/movement';
import { type Block, parseWork, workEach } from '@waxwing/core/planning';
import { useId, useState } from 'react';

import { Choice } from '../words/choice';
import { say } from '../words/say';

function Typed({
  title,
  hidden,
  value,
  width,
  wrong,
  onChange,
}: {
  title: string;
  /** The title is only read aloud. */
  hidden: boolean;
  value: string;
  width: string;
  /** What is wrong with a text; null when nothing is. */
  wrong: (typed: string) => string | null;
  onChange: (typed: string) => void;
}) {
  const [typed, type] = useState<string | null>(null);
  const id = useId();
  const problem = typed === null ? null : wrong(typed);
  return (
    <span className="inline-block align-top">
      <label htmlFor={id} className={hidden ? 'sr-only' : 'quiet block text-sm'}>
        {title}
      </label>
      <input
        id={id}
        className={`input h-9 ${width} ${problem ? 'border-error border-2' : ''}`}
        inputMode={width === 'w-24' ? 'text' : 'numeric'}
        value={typed ?? value}
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${id}-wrong` : undefined}
        onChange={(event) => {
          type(event.target.value);
          if (wrong(event.target.value) === null) onChange(event.target.value);
        }}
        onBlur={() => problem === null && type(null)}
      />
      {problem && (
        <span id={`${id}-wrong`} role="alert" className="text-error block max-w-40 text-sm">
          {problem}
        </span>
      )}
    </span>
  );
}

export function NumberField({
  title,
  hidden = false,
  value,
  low,
  high,
  onChange,
}: {
  title: string;
  hidden?: boolean;
  value: number;
  low: number;
  high: number;
  onChange: (value: number) => void;
}) {
  return (
    <Typed
      title={title}
      hidden={hidden}
      value={String(value)}
      width="w-14"
      wrong={(typed) => {
        const n = Number(typed);
        return typed.trim() !== '' && Number.isInteger(n) && n >= low && n <= high
          ? null
          : say.plan.mustBeAWholeNumber(low, high);
      }}
      onChange={(typed) => onChange(Number(typed))}
    />
  );
}

const TEMPO = /^\d{1,2}-\d{1,2}-\d{1,2}-\d{1,2}$/;

export function TempoField({
  title,
  value,
  onChange,
}: {
  title: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <Typed
      title={title}
      hidden
      value={value}
      width="w-24"
      wrong={(typed) => (TEMPO.test(typed) ? null : say.plan.mustBeLowerPauseRise)}
      onChange={onChange}
    />
  );
}

/** Seconds of work of a circuit: of every turn, or round by round. */
export function WorkField({ block, onChange }: { block: Block; onChange: (block: Block) => void }) {
  const { workThen: _, ...plain } = block;
  return (
    <Typed
      title={say.plan.secondsEach}
      hidden={false}
      value={workEach(block).join(', ')}
      width="w-24"
      wrong={(typed) => {
        const read = parseWork(typed);
        return 'wrong' in read ? read.wrong : null;
      }}
      onChange={(typed) => {
        const read = parseWork(typed);
        if (!('wrong' in read)) onChange({ ...plain, ...read });
      }}
    />
  );
}

interface ChoiceProps<T> {
  value: T;
  onChange: (value: T) => void;
}

/** What a plan is for: it chooses the dose windows. */
export const AimField = (props: ChoiceProps<Purpose>) => (
  <Choice title={say.plan.aim} all={PURPOSES} words={label} {...props} />
);

/** The room there is: movements that need more are not suggested. */
export const RoomField = (props: ChoiceProps<Space>) => (
  <Choice title={say.common.room} all={SPACES} words={(one) => SPACE_WORDS[one]} {...props} />
);
