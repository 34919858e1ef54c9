/** What was measured over the weeks, as a line. */
import type { Benchmark } from '@waxwing/core/client';

import { optionsWith, Picture, useColours } from '../charts/picture';
import { dayWords } from '../words/dates';

export function ValuesChart({ name, values }: { name: string; values: readonly Benchmark[] }) {
  const { ink, line } = useColours();
  const days = values.map(({ on }) => dayWords(on));
  return (
    <Picture
      low
      said={`${name}: ${values.map(({ value, unit }, i) => `${days[i] ?? ''}: ${value} ${unit}`).join('; ')}`}
      data={{
        labels: days,
        datasets: [
          {
            type: 'line',
            label: values.at(-1)?.unit ?? '',
            data: values.map(({ value }) => value),
            borderColor: ink,
            backgroundColor: ink,
          },
        ],
      }}
      options={optionsWith(ink, line, { y: { beginAtZero: true } })}
    />
  );
}
