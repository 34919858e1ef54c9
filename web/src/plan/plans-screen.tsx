/** Plans that are kept: those with a date first, then the rest, then templates to start from. */
import type { PlanSummary } from '@waxwing/core/planning';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { plansQuery } from '../api/queries';
import { useVisitor } from '../door/use-door';
import { More } from '../shell/more';
import { Await, Empty } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';

export function PlansScreen() {
  const mayPlan = useVisitor()?.role !== 'assistant';
  const query = useInfiniteQuery({ ...plansQuery('plans'), staleTime: 0 });
  const kept = useInfiniteQuery({ ...plansQuery('templates'), staleTime: 0 });
  const templates = kept.data ?? [];
  return (
    <div className="mx-auto max-w-4xl p-4 sm:p-6">
      <div className="mb-6 flex items-end justify-between gap-4">
        <h1 className="shrink-0">Plan</h1>
        {mayPlan && (
          <Link to="/plan/new" className="btn btn-primary">
            Plan a session
          </Link>
        )}
      </div>
      <Await query={query} what="the plans">
        {(plans) =>
          plans.length === 0 && templates.length === 0 ? (
            <Empty title="No plans yet">
              <p>
                Say who comes and how many minutes there are: a session is suggested that fits their limits, their last
                time and your kit, and ends when it should.
              </p>
              {mayPlan && (
                <Link to="/plan/new" className="btn btn-primary">
                  Plan the first session
                </Link>
              )}
            </Empty>
          ) : (
            <>
              <List title="Sessions" plans={plans} />
              <More query={query} what="sessions" />
              <List title="Templates" plans={templates} />
              <More query={kept} what="templates" />
            </>
          )
        }
      </Await>
    </div>
  );
}

function List({ title, plans }: { title: string; plans: readonly PlanSummary[] }) {
  if (plans.length === 0) return null;
  const sorted = plans.toSorted((a, b) => (b.startsAt ?? b.updatedAt).localeCompare(a.startsAt ?? a.updatedAt));
  return (
    <section className="mb-8">
      <h2 className="mb-2">{title}</h2>
      <ul className="ruled border-base-content border-t-2">
        {sorted.map((plan) => (
          <li key={plan.id}>
            <Link
              to={`/plan/${plan.id}`}
              className="hover:bg-base-200 grid gap-x-6 px-2 py-3 sm:grid-cols-[1fr_1fr_auto]"
            >
              <span className="text-lg font-semibold">{plan.name}</span>
              <span className="quiet">{plan.clients.map(({ name }) => name).join(' and ')}</span>
              <span>
                {plan.startsAt ? `${dayWords(plan.startsAt)}, ${timeWords(plan.startsAt)} · ` : ''}
                {plan.minutes} min
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
