/** Benchmarks: what was measured, by hand or by a test in a session, each with its latest value, what changed since the first, and its picture. */
import { useQuery } from '@tanstack/react-query';
import { type Benchmark, type Client, measured, USUAL_TESTS } from '@waxwing/core/client';
import { useState } from 'react';

import { recordQuery } from '../api/queries';
import { Wrong } from '../shell/states';
import { dayWords, today } from '../words/dates';
import { say } from '../words/say';
import { useEditClient } from './use-edit-client';
import { ValuesChart } from './values-chart';

const UNITS: readonly Benchmark['unit'][] = ['reps', 's', 'kg', 'm'];

export function Benchmarks({ client }: { client: Client }) {
  const [name, setName] = useState<string>(USUAL_TESTS[0]?.name ?? '');
  const [unit, setUnit] = useState<Benchmark['unit']>('reps');
  const [value, setValue] = useState('');
  const edit = useEditClient(client);
  const n = Number(value.replace(',', '.'));
  const right = value.trim() !== '' && n >= 0 && n <= 100_000 && name.trim() !== '';
  const record = useQuery(recordQuery(client.id)).data;
  const rows = [...measured(client.benchmarks, record?.tests ?? [])];
  const pick = (typed: string) => {
    setName(typed);
    const known = USUAL_TESTS.find((one) => one.name === typed) ?? client.benchmarks.find((one) => one.name === typed);
    if (known) setUnit(known.unit);
  };
  return (
    <div>
      {rows.length === 0 && <p className="quiet">{say.people.noneMeasuredYet}</p>}
      <ul className="ruled">
        {rows.map(([title, all]) => {
          const [first, last] = [all[0], all.at(-1)];
          const gain = first && last ? last.value - first.value : 0;
          return (
            <li key={title} className="grid grid-cols-[1fr_auto] gap-3 py-1.5">
              <span>{title}</span>
              <span>
                <b>
                  {last?.value} {last?.unit}
                </b>{' '}
                <span className="quiet text-sm">
                  {gain === 0 ? '' : `${gain > 0 ? '+' : ''}${Math.round(gain * 10) / 10} · `}
                  {last && dayWords(last.on)}
                </span>
              </span>
              {all.length > 1 && (
                <div className="col-span-2">
                  <ValuesChart name={title} values={all} />
                </div>
              )}
            </li>
          );
        })}
      </ul>
      <form
        autoComplete="off"
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!right) return;
          edit.mutate({ benchmarks: [...client.benchmarks, { name: name.trim(), unit, on: today(), value: n }] });
          setValue('');
        }}
      >
        <input
          className="input w-48"
          aria-label={say.people.benchmark}
          list="benchmarks"
          maxLength={60}
          value={name}
          onChange={(event) => pick(event.target.value)}
        />
        <datalist id="benchmarks">
          {[...new Set([...USUAL_TESTS, ...client.benchmarks].map((one) => one.name))].map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <input
          className="input w-16"
          aria-label={say.people.value}
          inputMode="decimal"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
        <select
          className="select w-20"
          aria-label={say.people.unit}
          value={unit}
          onChange={(event) => setUnit(event.target.value as Benchmark['unit'])}
        >
          {UNITS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        <button type="submit" className="btn" disabled={!right || edit.isPending}>
          {say.common.note}
        </button>
      </form>
      <Wrong error={edit.error} />
    </div>
  );
}
