/** What a plan comes to, and what is wrong with it, each with a fix that one press applies. */
import { label } from '@waxwing/core/movement';
import {
  type Block,
  coverageOf,
  minuteWords,
  type Plan,
  pushPull,
  type Totals,
  type Warning,
} from '@waxwing/core/planning';

import { fixWords, wrongWords } from '../words/plan-words';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';
import { namesIn } from './names-in';
import { SEGMENT_WORDS } from './tape';
import type { World } from './use-world';

interface Props {
  plan: Plan;
  world: World;
  totals: Totals;
  warnings: readonly Warning[];
  onFix: (blocks: Block[]) => void;
}

/** What needs a decision. */
export function ToMend({ world, warnings, onFix }: Pick<Props, 'world' | 'warnings' | 'onFix'>) {
  const names = namesIn(world);
  return (
    <section aria-label={say.plan.warnings}>
      <h2 className="border-base-content mb-2 border-b-2 pb-1">{say.plan.toFix}</h2>
      {warnings.length === 0 && <p className="quiet">{say.plan.nothingLimitsKitMinutesAnd}</p>}
      <ul className="ruled">
        {warnings.map((warning) => (
          <li key={warning.id} className="py-2">
            <p className="flex gap-2">
              <span className="mt-1">
                <SeverityMark severity={warning.severity} size={16} />
              </span>
              <span>{wrongWords(warning.wrong, names)}</span>
            </p>
            <div className="mt-1 flex flex-wrap gap-2 pl-6">
              {warning.fixes.map((fix) => (
                <button
                  key={fixWords(fix.does, names)}
                  type="button"
                  className="btn btn-sm h-auto min-h-9 py-1"
                  onClick={() => onFix(fix.blocks)}
                >
                  {fixWords(fix.does, names)}
                </button>
              ))}
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What it comes to, and for whom. */
export const Sums = ({ plan, world, totals }: Pick<Props, 'plan' | 'world' | 'totals'>) => (
  <>
    <section aria-label={say.plan.totals}>
      <h2 className="border-base-content mb-2 border-b-2 pb-1">{say.plan.comesTo}</h2>
      <dl className="grid grid-cols-[1fr_auto] gap-x-4">
        {(Object.keys(SEGMENT_WORDS) as (keyof typeof SEGMENT_WORDS)[]).map((kind) => (
          <Row key={kind} name={SEGMENT_WORDS[kind]} value={minuteWords(totals.by[kind])} />
        ))}
        <Row name="Weight changes" value={String(totals.weightChanges)} />
      </dl>
    </section>
    {plan.clientIds.map((id) => (
      <Coverage key={id} clientId={id} plan={plan} world={world} />
    ))}
  </>
);

const Row = ({ name, value }: { name: string; value: string }) => (
  <>
    <dt className="quiet">{name}</dt>
    <dd className="text-right font-semibold">{value}</dd>
  </>
);

const MOST_MUSCLES = 6;

function Coverage({ clientId, plan, world }: { clientId: string; plan: Plan; world: World }) {
  const coverage = coverageOf(plan, clientId, world.context);
  const name = world.clients.find(({ id }) => id === clientId)?.name;
  const sets = (n: number) => (Number.isInteger(n) ? String(n) : n.toFixed(1));
  const muscles = [...coverage.muscles].toSorted((a, b) => b[1] - a[1]).slice(0, MOST_MUSCLES);
  return (
    <section aria-label={say.plan.whatDoes(name)}>
      <h2 className="border-base-content mb-2 border-b-2 pb-1">{plan.clientIds.length > 1 ? name : say.plan.covers}</h2>
      <dl className="grid grid-cols-[1fr_auto] gap-x-4">
        <Row name="Sets" value={String(coverage.sets)} />
        <Row name="Reps, both sides counted" value={String(coverage.reps)} />
        <Row name="Push : pull" value={pushPull(coverage).join(' : ')} />
        <Row name="Trips to the floor" value={String(coverage.floorTrips)} />
      </dl>
      <p className="mt-2 text-sm">
        {[...coverage.patterns].map(([pattern, n]) => `${label(pattern)} ${n}`).join(' · ')}
        {coverage.planes.size > 0 && (
          <span className="quiet block">{[...coverage.planes].map(([plane, n]) => `${plane} ${n}`).join(' · ')}</span>
        )}
        {muscles.length > 0 && (
          <span className="quiet block">
            {muscles.map(([muscle, n]) => `${label(muscle).toLowerCase()} ${sets(n)}`).join(' · ')}
          </span>
        )}
      </p>
    </section>
  );
}
