/** A picture of numbers, in the colours of the theme, with the same in words for those who do not see it. */
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  type ChartData,
  type ChartOptions,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Chart as Drawn } from 'react-chartjs-2';

import { lessMotion } from '../figures/use-clock';
import { useTheme } from '../shell/theme';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** The colours of the theme in force. */
export function useColours() {
  useTheme();
  const style = getComputedStyle(document.documentElement);
  const of = (name: string) => style.getPropertyValue(`--color-${name}`).trim();
  return { ink: of('base-content'), line: of('base-300'), second: of('secondary') };
}

export function optionsWith(
  ink: string,
  line: string,
  scales: ChartOptions<'bar' | 'line'>['scales'],
): ChartOptions<'bar' | 'line'> {
  const axis = { ticks: { color: ink }, grid: { color: line } };
  return {
    animation: lessMotion() ? false : { duration: 200 },
    responsive: true,
    maintainAspectRatio: false,
    scales: Object.fromEntries(Object.entries(scales ?? {}).map(([id, own]) => [id, { ...axis, ...own }])),
  };
}

export function Picture({
  data,
  options,
  said,
  low = false,
}: {
  data: ChartData<'bar' | 'line', number[]>;
  options: ChartOptions<'bar' | 'line'>;
  /** The same in words, for those who do not see it. */
  said: string;
  low?: boolean;
}) {
  return (
    <div className={`relative ${low ? 'h-28' : 'h-52'}`}>
      <Drawn type="bar" data={data} options={options} role="img" aria-label={said} />
    </div>
  );
}
