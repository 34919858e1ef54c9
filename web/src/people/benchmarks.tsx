/** Benchmarks: what was measured, each with its latest value and what changed since the first. */
import { type Benchmark, type Client, USUAL_BENCHMARKS } from '@waxwing/core/client';
import { useState } from 'react';
import { dayWords, today } from '../words/dates';
import { useEditClient } from './use-edit-client';
import { Wrong } from '../shell/states';

const UNITS: readonly Benchmark['unit'][] = ['reps', 's', 'kg', 'm'];

export function Benchmarks({ client }: { client: Client }) {
  const [name, setName] = useState<string>(USUAL_BENCHMARKS[0]?.name ?? '');
  const [unit, setUnit] = useState<Benchmark['unit']>('reps');
  const [value, setValue] = useState('');
  const edit = useEditClient(client);
  const n = Number(value.replace(',', '.'));
  const right = value.trim() !== '' && n >= 0 && n <= 100_000 && name.trim() !== '';
  const rows = [...byName(client.benchmarks)];
  const pick = (typed: string) => {
    setName(typed);
    const known =
      USUAL_BENCHMARKS.find((one) => one.name === typed) ?? client.benchmarks.find((one) => one.name === typed);
    if (known) setUnit(known.unit);
  };
  return (
    <div>
      {rows.length === 0 && <p className="quiet">None measured yet.</p>}
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
            </li>
          );
        })}
      </ul>
      <form
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
          aria-label="Benchmark"
          list="benchmarks"
          maxLength={60}
          value={name}
          onChange={(event) => pick(event.target.value)}
        />
        <datalist id="benchmarks">
          {[...new Set([...USUAL_BENCHMARKS, ...client.benchmarks].map((one) => one.name))].map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
        <input
          className="input w-16"
          aria-label="Value"
          inputMode="decimal"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
        <select
          className="select w-20"
          aria-label="Unit"
          value={unit}
          onChange={(event) => setUnit(event.target.value as Benchmark['unit'])}
        >
          {UNITS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        <button type="submit" className="btn" disabled={!right || edit.isPending}>
          Note
        </button>
      </form>
      <Wrong error={edit.error} />
    </div>
  );
}

/** By name, earliest first. */
function byName(benchmarks: readonly Benchmark[]): Map<string, Benchmark[]> {
  const groups = new Map<string, Benchmark[]>();
  for (const one of benchmarks.toSorted((a, b) => a.on.localeCompare(b.on)))
    groups.set(one.name, [...(groups.get(one.name) ?? []), one]);
  return groups;
}
