/** A number, or a weight, with one step down and one up. */
import { Minus, Plus } from 'lucide-react';

import { say } from '../words/say';

export function Stepper({
  name,
  value,
  wide,
  onLess,
  onMore,
  onOpen,
}: {
  name: string;
  value: string;
  wide?: boolean;
  onLess: (() => void) | undefined;
  onMore: (() => void) | undefined;
  /** Opens everything that there is to choose from. */
  onOpen?: (() => void) | undefined;
}) {
  return (
    <div role="group" aria-label={name} className="flex min-h-16 items-stretch">
      <button
        type="button"
        className="btn h-auto w-14 px-0"
        aria-label={say.floor.less(name)}
        disabled={!onLess}
        onClick={onLess}
      >
        <Minus aria-hidden />
      </button>
      <output
        className={`flex flex-col items-center justify-center px-2 text-center leading-none font-bold ${wide ? 'max-w-40 min-w-28 text-xl' : 'min-w-18 text-4xl'}`}
      >
        {onOpen ? (
          <button type="button" className="target w-full underline underline-offset-4" onClick={onOpen}>
            {value}
          </button>
        ) : (
          value
        )}
        {!wide && <span className="quiet text-xl font-normal">{name}</span>}
      </output>
      <button
        type="button"
        className="btn h-auto w-14 px-0"
        aria-label={say.floor.more(name)}
        disabled={!onMore}
        onClick={onMore}
      >
        <Plus aria-hidden />
      </button>
    </div>
  );
}
