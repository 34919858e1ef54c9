/** A test on the Floor: what is asked for, what ends it, and how it compares with the last time and the first. */
import { measured, type Test } from '@waxwing/core/client';
import type { LaneView } from '@waxwing/core/floor';

import { dayWords } from '../words/dates';
import { say } from '../words/say';

/** Values of a test before today, earliest first. */
const before = (view: LaneView, test: Test) =>
  measured(view.client.benchmarks, view.record.tests)
    .get(test.name)
    ?.filter(({ unit }) => unit === test.unit) ?? [];

export function TestHead({ view, test }: { view: LaneView; test: Test }) {
  const values = before(view, test);
  const [first, last] = [values[0], values.at(-1)];
  return (
    <div className="mb-2 leading-snug">
      <p className="font-bold">
        {say.floor.test(test.name)}
        <span className="font-normal">{say.floor.endsWithTheFirstThat(test.seconds)}</span>
      </p>
      {test.clean && <p className="quiet">{test.clean}</p>}
      {last && (
        <p>
          {say.floor.lastTime(last.value, last.unit)}
          <span className="quiet">{say.floor.on(dayWords(last.on))}</span>
          {first && first !== last && (
            <>
              {say.floor.first(first.value, first.unit)}
              <span className="quiet">{say.floor.on(dayWords(first.on))}</span>
            </>
          )}
        </p>
      )}
    </div>
  );
}

/** What a test that was just done came to, against the last time. */
export function TestOutcome({ view }: { view: LaneView }) {
  const set = view.justDone?.set;
  if (!set?.test) return null;
  const { test } = set;
  const value = test.unit === 'kg' ? set.kg : set.amount;
  const last = before(view, test).at(-1);
  if (value === null) return null;
  const gain = last && Math.round((value - last.value) * 10) / 10;
  return (
    <p role="status" className="mt-1 font-bold">
      {test.name}: {value} {test.unit}
      {gain !== undefined && (gain === 0 ? say.floor.sameAsLastTime : say.floor.moreLessThanLastTime(gain))}
    </p>
  );
}
