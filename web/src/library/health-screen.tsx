/** Where the library is thin or wrong: worst first, each with a way to the place; and how its families stand. */
import { type Health, HEALTH_KINDS, HEALTH_WEIGHT, type HealthKind } from '@waxwing/core/ladder';
import { label } from '@waxwing/core/movement';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { healthQuery } from '../api/queries';
import { Await, Empty } from '../shell/states';
import { PageHead } from '../shell/page';
import { SeverityMark } from '../words/severity-mark';

const KIND_WORDS: Readonly<Record<HealthKind, string>> = {
  cycle: 'Runs in a circle',
  'dead-end-without-kit': 'Dead end at home',
  'off-ladder': 'On no ladder',
  'no-easier': 'No easier version',
  'demands-missing': 'Demands missing',
  'no-cues': 'No cues',
  'no-faults': 'No faults',
  'fault-only-words': 'Only words to correct',
  'fault-unseen': 'Fault seen from no side',
  'only-inward-cues': 'Only inward cues',
  'unreachable-readiness': 'Sign out of reach',
  'near-duplicate': 'Nearly the same',
  'swap-asks-more': 'Swap asks more',
  touch: 'Hands on, not marked',
  severity: 'Taken lightly',
  'demand-falls': 'Harder, but asks less',
  how: 'For somebody alone',
  feel: 'What to feel',
  caution: 'Caution too short',
  views: 'Shows from one side',
  kind: 'Kind of fault unknown',
  'spoken-cue': 'Nothing to say',
  'link-both-ways': 'Cue and fault apart',
  speakable: 'Hard to say aloud',
  telegram: 'Too short to follow',
  jargon: 'Word of the trade',
  'sign-back': 'No sign to go back',
};

export function HealthScreen() {
  return (
    <div className="page">
      <PageHead title="Health of the library" back={{ to: '/library', name: 'Library' }} />
      <Await query={useQuery(healthQuery)} what="the health of the library">
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
          <h2 id="gaps">{health.gaps.length === 1 ? '1 gap' : `${health.gaps.length} gaps`}, worst first</h2>
          {kinds.length > 1 && (
            <select
              className="select select-sm w-auto"
              aria-label="Kind of gap"
              value={kind}
              onChange={(event) => setParams(event.target.value ? { kind: event.target.value } : {}, { replace: true })}
            >
              <option value="">All kinds</option>
              {kinds.map((one) => (
                <option key={one} value={one}>
                  {KIND_WORDS[one]}
                </option>
              ))}
            </select>
          )}
        </div>
        {health.gaps.length === 0 && (
          <Empty title="Nothing is missing">
            <p>Every movement has its steps, its cues, its faults and ways to correct them.</p>
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
                aria-label={`Fix ${gap.name}: ${KIND_WORDS[gap.kind]}`}
              >
                Fix
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="families">
        <h2 id="families" className="border-base-content border-b-2 pb-1">
          Families
        </h2>
        <table className="w-full text-left [&_td]:py-1 [&_th]:py-1">
          <thead className="quiet text-sm">
            <tr>
              <th className="font-normal">family</th>
              <th className="text-right font-normal">movements</th>
              <th className="text-right font-normal">gaps</th>
              <th className="text-right font-normal">of 100</th>
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
