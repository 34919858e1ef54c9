/** The quantity by which reps are told, in time, with the place where a clean rep turns as a band. */
import { type Lead, leadUnit, type Reading } from '@waxwing/core/sight';

import { optionsWith, Picture, useColours } from '../charts/picture';
import { say } from '../words/say';

const LEAD_NAMES: Readonly<Record<Lead, string>> = say.sight.leadNames;

/** More points than this are not told apart on a screen. */
const MOST_POINTS = 400;
/** Degrees to either side of where a clean rep turns. */
const BAND = 10;

export function LeadChart({ reading: { times, values, lead, clean } }: { reading: Reading }) {
  const { ink, line, second } = useColours();
  const every = Math.max(1, Math.ceil(times.length / MOST_POINTS));
  const shown = [...times.keys()].filter((i) => i % every === 0);
  const unit = leadUnit(lead) === 'cm' ? 'centimetres' : 'degrees';
  const target = clean.rep?.reach ?? clean.to;
  const flat = (value: number): number[] => shown.map(() => value);
  const options = optionsWith(ink, line, {
    x: { ticks: { color: ink, maxTicksLimit: 12 }, title: { display: true, text: say.common.seconds, color: ink } },
    y: { title: { display: true, text: unit, color: ink } },
  });
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1">
        <strong>{LEAD_NAMES[lead]}</strong> <span className="quiet">{say.sight.inTheBandIsWhere(unit)}</span>
      </figcaption>
      <Picture
        said={say.sight.inTimeACleanRep(LEAD_NAMES[lead], Math.round(target), unit)}
        options={{ ...options, plugins: { legend: { display: false } } }}
        data={{
          labels: shown.map((i) => (times[i] as number).toFixed(1)),
          datasets: [
            {
              type: 'line',
              data: shown.map((i) => values[i] as number),
              borderColor: ink,
              borderWidth: 2,
              pointRadius: 0,
            },
            { type: 'line', data: flat(target + BAND), borderWidth: 0, pointRadius: 0 },
            {
              type: 'line',
              data: flat(target - BAND),
              borderWidth: 0,
              pointRadius: 0,
              backgroundColor: `color-mix(in srgb, ${second} 30%, transparent)`,
              fill: '-1',
            },
          ],
        }}
      />
    </figure>
  );
}
