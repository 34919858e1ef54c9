/** Where the library is thin or wrong: worst first, each with a way to the place; and how its families stand. */
import { useQuery } from '@tanstack/react-query';
import { type Health, HEALTH_KINDS, HEALTH_WEIGHT, type HealthKind } from '@waxwing/core/ladder';
import { label } from '@waxwing/core/movement';
import { Link, useSearchParams } from 'react-router';

import { healthQuery } from '../api/queries';
import { PageHead } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';

const KIND_WORDS: Readonly<Record<HealthKind, string>> = say.library.kindWords;

export function HealthScreen() {
  return (
    <div className="page">
      <PageHead title={say.library.healthOfTheLibrary} back={{ to: '/library', name: say.common.library }} />
      <Await query={useQuery(healthQuery)} what={say.library.theHealthOfTheLibrary}>
        {(health) => <Report health={health} />}
      </Await>
    </div>
  );
}

function Report({ health }: { health: Health }) {
  const [params, setParams] = useSearchParams();
  const kind = params.get('kind') ?? '';
  const kinds = HEALTH_KINDS.filter((one) => health.gaps.some((gap) => gap.kind === one));
  const shown = health.gaps.filter((gap) => kind === '' || gap.kind === kind);
  return (
    <div className="grid gap-8 lg:grid-cols-[5fr_2fr]">
      <section aria-labelledby="gaps">
        <div className="border-base-content flex items-baseline justify-between border-b-2 pb-1">
          <h2 id="gaps">{say.library.gapsWorstFirst(health.gaps.length)}</h2>
          {kinds.length > 1 && (
            <select
              className="select select-sm w-auto"
              aria-label={say.library.kindOfGap}
              value={kind}
              onChange={(event) => setParams(event.target.value ? { kind: event.target.value } : {}, { replace: true })}
            >
              <option value="">{say.library.allKinds}</option>
              {kinds.map((one) => (
                <option key={one} value={one}>
                  {KIND_WORDS[one]}
                </option>
              ))}
            </select>
          )}
        </div>
        {health.gaps.length === 0 && (
          <Empty title={say.library.nothingIsMissing}>
            <p>{say.library.everyMovementHasItsSteps}</p>
          </Empty>
        )}
        <ul className="ruled">
          {shown.map((gap) => (
            <li key={`${gap.movementId} ${gap.kind} ${gap.path}`} className="flex items-start gap-3 py-2">
              <span className="pt-1">
                <SeverityMark severity={HEALTH_WEIGHT[gap.kind].severity} size={16} />
              </span>
              <span className="min-w-0 flex-1">
                <Link className="link font-semibold" to={`/library/${gap.movementId}`}>
                  {gap.name}
                </Link>
                <span className="quiet"> · {KIND_WORDS[gap.kind]}</span>
                <span className="block">{gap.message}</span>
              </span>
              <Link
                className="btn btn-sm"
                to={`/library/${gap.movementId}/edit?at=${encodeURIComponent(gap.path)}`}
                aria-label={say.library.fixGap(gap.name, KIND_WORDS[gap.kind])}
              >
                {say.library.fix}
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="families">
        <h2 id="families" className="border-base-content border-b-2 pb-1">
          {say.library.families}
        </h2>
        <table className="w-full text-left [&_td]:py-1 [&_th]:py-1">
          <thead className="quiet text-sm">
            <tr>
              <th className="font-normal">{say.library.family}</th>
              <th className="text-right font-normal">{say.common.movements}</th>
              <th className="text-right font-normal">{say.library.gaps}</th>
              <th className="text-right font-normal">{say.library.ofHundred}</th>
            </tr>
          </thead>
          <tbody>
            {health.families.map(({ family, movements, gaps, score }) => (
              <tr key={family} className="border-base-300 border-t">
                <th scope="row" className="font-normal">
                  <Link className="link" to={`/library/map?family=${family}`}>
                    {label(family)}
                  </Link>
                </th>
                <td className="text-right">{movements}</td>
                <td className="text-right">{gaps}</td>
                <td className="text-right font-bold">{score}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </div>
  );
}
