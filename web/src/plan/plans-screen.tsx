/** Plans that are kept: those to come first, then the rest, then templates to start from. */
import { useInfiniteQuery } from '@tanstack/react-query';
import type { PlanSummary } from '@waxwing/core/planning';
import { Link } from 'react-router';

import { plansQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { Ledger } from '../shell/ledger';
import { More } from '../shell/more';
import { Page } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { dayWords, timeWords, today } from '../words/dates';
import { say } from '../words/say';

export function PlansScreen() {
  const { train: mayPlan } = useMay();
  const query = useInfiniteQuery({ ...plansQuery('plans'), staleTime: 0 });
  const kept = useInfiniteQuery({ ...plansQuery('templates'), staleTime: 0 });
  const templates = kept.data ?? [];
  return (
    <Page
      title={say.common.plan}
      actions={
        mayPlan && (
          <Link to="/plan/new" className="btn btn-primary">
            {say.common.planASession}
          </Link>
        )
      }
    >
      <Await query={query} what={say.plan.thePlans}>
        {(plans) =>
          plans.length === 0 && templates.length === 0 ? (
            <Empty title={say.plan.noPlansYet}>
              <p>{say.plan.sayWhoComesAndHow}</p>
              {mayPlan && (
                <Link to="/plan/new" className="btn btn-primary">
                  {say.plan.planTheFirstSession}
                </Link>
              )}
            </Empty>
          ) : (
            <>
              <Sessions plans={plans} />
              <More query={query} what={say.common.sessionsWord} />
              <List title={say.plan.templates} plans={templates} />
              <More query={kept} what={say.plan.theTemplates} />
            </>
          )
        }
      </Await>
    </Page>
  );
}

/** Plans by when they are: those to come first, and then what is past. */
function Sessions({ plans }: { plans: readonly PlanSummary[] }) {
  const now = today();
  const [day, stamp] = [(plan: PlanSummary) => plan.startsAt && today(new Date(plan.startsAt)), timeOf];
  const coming = plans.filter((plan) => (day(plan) ?? '') >= now).toSorted((a, b) => stamp(a).localeCompare(stamp(b)));
  const undated = plans.filter(({ startsAt }) => startsAt === null);
  const past = plans.filter((plan) => plan.startsAt !== null && (day(plan) ?? '') < now);
  return (
    <>
      <List title={say.plan.toCome} plans={coming} />
      <List title={say.plan.withoutADay} plans={undated} />
      <List title={say.plan.past} plans={past.toSorted((a, b) => stamp(b).localeCompare(stamp(a)))} />
    </>
  );
}

const timeOf = ({ startsAt, updatedAt }: PlanSummary): string => startsAt ?? updatedAt;

function List({ title, plans }: { title: string; plans: readonly PlanSummary[] }) {
  if (plans.length === 0) return null;
  return (
    <section className="mb-8">
      <h2 className="mb-2">{title}</h2>
      <Ledger
        label={title}
        columns="11rem minmax(0, 1fr) minmax(0, 1fr) 9rem"
        rows={plans.map((plan) => ({
          key: plan.id,
          to: `/plan/${plan.id}`,
          lead: plan.startsAt ? `${dayWords(plan.startsAt)}, ${timeWords(plan.startsAt)}` : say.plan.noDay,
          name: plan.clients.map(({ name }) => name).join(say.common.and) || plan.name,
          about: plan.name,
          aside: plan.filled === 0 ? say.common.stillEmpty : say.today.filled(plan.filled, plan.minutes, false),
        }))}
      />
    </section>
  );
}
