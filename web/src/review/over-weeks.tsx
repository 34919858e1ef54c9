/** What a picture tells better than a line: load and reps of a movement over the weeks, faults session by session, and which kinds of cue work. */
import { type ClientRecord, OUTCOME_SCORE, type Trial } from '@waxwing/core/coaching';
import { label, type Movement, UNIT_WORDS } from '@waxwing/core/movement';
import { useState } from 'react';

import { optionsWith, Picture, useColours } from '../charts/picture';
import { dayWords } from '../words/dates';
import { say } from '../words/say';

const sum = (numbers: readonly number[]): number => numbers.reduce((total, n) => total + n, 0);

export function OverWeeks({ record, movements }: { record: ClientRecord; movements: readonly Movement[] }) {
  // Two sessions make a line.
  const drawable = movements.filter(({ id }) => (record.sets[id]?.length ?? 0) > 1);
  const [chosen, choose] = useState('');
  const movement = drawable.find(({ id }) => id === chosen) ?? drawable[0];
  const own = record.trials;
  if (!movement && record.faultLoads.length < 2 && own.length === 0) return null;
  return (
    <section aria-label={say.review.overTheWeeks} className="mt-8">
      <h2 className="border-base-content mb-3 border-b-2 pb-1">{say.review.overTheWeeks}</h2>
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-3">
        {movement && (
          <div>
            <label className="mb-2 flex items-center gap-2 font-bold">
              <span className="sr-only">{say.review.movement}</span>
              <select
                className="select select-sm w-full"
                value={movement.id}
                onChange={({ target }) => choose(target.value)}
              >
                {drawable.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <LoadAndReps record={record} movement={movement} />
          </div>
        )}
        {record.faultLoads.length > 1 && (
          <div>
            <h3 className="mb-2 font-bold">{say.review.faultsMarkedInTenSets}</h3>
            <FaultsOverTime record={record} />
          </div>
        )}
        {own.length > 0 && (
          <div>
            <h3 className="mb-2 font-bold">{say.review.whatWorksForThisClient}</h3>
            <WhatWorks trials={own} />
          </div>
        )}
      </div>
    </section>
  );
}

function LoadAndReps({ record, movement }: { record: ClientRecord; movement: Movement }) {
  const { ink, line, second } = useColours();
  const sessions = record.sets[movement.id] ?? [];
  const unit = UNIT_WORDS[movement.dose.mode];
  const reps = sessions.map(({ sets }) => sum(sets.map(({ amount }) => amount)));
  const kg = sessions.map(({ sets }) => Math.max(0, ...sets.map((set) => set.kg ?? 0)));
  const loaded = kg.some((one) => one > 0);
  const days = sessions.map(({ at }) => dayWords(at));
  const said = days
    .map((day, i) => `${day}: ${reps[i] ?? 0} ${unit}${loaded ? say.review.withKg(kg[i] ?? 0) : ''}`)
    .join('; ');
  return (
    <Picture
      said={said}
      data={{
        labels: days,
        datasets: [
          ...(loaded
            ? [
                {
                  type: 'line' as const,
                  label: 'kg',
                  data: kg,
                  yAxisID: 'kg',
                  borderColor: ink,
                  backgroundColor: ink,
                },
              ]
            : []),
          { type: 'bar' as const, label: unit, data: reps, yAxisID: 'reps', backgroundColor: loaded ? line : second },
        ],
      }}
      options={optionsWith(ink, line, {
        reps: {
          position: 'left',
          beginAtZero: true,
          title: { display: true, text: say.review.inAll(unit), color: ink },
        },
        ...(loaded
          ? { kg: { position: 'right', beginAtZero: true, title: { display: true, text: 'kg', color: ink } } }
          : {}),
      })}
    />
  );
}

function FaultsOverTime({ record }: { record: ClientRecord }) {
  const { ink, line, second } = useColours();
  const rates = record.faultLoads.map(({ faults, sets }) => Math.round((faults / sets) * 100) / 10);
  const days = record.faultLoads.map(({ at }) => dayWords(at));
  return (
    <Picture
      said={days.map((day, i) => `${day}: ${rates[i] ?? 0}`).join('; ')}
      data={{
        labels: days,
        datasets: [{ type: 'bar', label: say.review.faultsInTenSets, data: rates, backgroundColor: second }],
      }}
      options={optionsWith(ink, line, { y: { beginAtZero: true } })}
    />
  );
}

/** Words by their focus, everything else by its kind. */
const styleOf = ({ kind, focus }: Trial): string =>
  kind === 'say' && focus ? say.review.focusWords(label(focus)) : label(kind);

function WhatWorks({ trials }: { trials: readonly Trial[] }) {
  const { ink, line, second } = useColours();
  const styles = [...new Set(trials.map(styleOf))]
    .map((style) => {
      const own = trials.filter((trial) => styleOf(trial) === style);
      return { style, tried: own.length, share: sum(own.map(({ outcome }) => OUTCOME_SCORE[outcome])) / own.length };
    })
    .sort((a, b) => b.share - a.share);
  return (
    <Picture
      said={styles
        .map(({ style, tried, share }) => say.review.shareOf(style, Math.round(share * 100), tried))
        .join('; ')}
      data={{
        labels: styles.map(({ style, tried }) => `${style} (${tried})`),
        datasets: [
          {
            type: 'bar',
            label: 'worked, %',
            data: styles.map(({ share }) => Math.round(share * 100)),
            backgroundColor: second,
          },
        ],
      }}
      options={{ ...optionsWith(ink, line, { x: { min: 0, max: 100 } }), indexAxis: 'y' }}
    />
  );
}
