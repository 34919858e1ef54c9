/** The very first start: three steps, one after the other, or a look round the demo. */
import type { ClientSummary, Studio } from '@waxwing/core/client';
import { Link } from 'react-router';

import { LoadDemo } from '../studio/load-demo';
import { say } from '../words/say';

interface Step {
  title: string;
  what: string;
  to: string;
  act: string;
  done: boolean;
}

export function FirstSteps({ studio, clients }: { studio: Studio; clients: readonly ClientSummary[] }) {
  const [first] = clients;
  const steps: Step[] = [
    {
      title: say.today.yourStudioAndItsKit,
      what: say.today.weightsBandsAndBenchesWaxwing,
      to: '/studio',
      act: say.today.writeDownTheKit,
      done: studio.kit.length > 0,
    },
    {
      title: say.today.yourFirstClient,
      what: say.today.aNameIsEnoughLimits,
      to: '/people/new',
      act: say.common.addAClient,
      done: clients.length > 0,
    },
    {
      title: say.today.yourFirstSession,
      what: say.today.sayWhoComesAndHow,
      to: first ? `/plan/new?client=${first.id}` : '/plan/new',
      act: say.common.planASession,
      done: false,
    },
  ];
  const next = steps.find(({ done }) => !done);
  return (
    <div className="max-w-3xl">
      <ol className="ruled border-base-content border-t-2">
        {steps.map((step, i) => (
          <li key={step.title} className="grid items-center gap-x-6 gap-y-2 py-5 sm:grid-cols-[3rem_1fr_auto]">
            <span className="text-4xl font-bold" aria-hidden>
              {step.done ? '✓' : i + 1}
            </span>
            <span>
              <span className="block text-xl font-bold">
                {step.title}
                {step.done && <span className="quiet font-normal">{say.today.done}</span>}
              </span>
              <span className="quiet">{step.what}</span>
            </span>
            <Link className={`btn ${step === next ? 'btn-primary btn-lg' : ''}`} to={step.to}>
              {step.act}
            </Link>
          </li>
        ))}
      </ol>
      {!first && (
        <div className="border-base-content mt-2 border-t-2 py-5">
          <p className="mb-3 text-lg">{say.common.orLookRoundFirstThe}</p>
          <LoadDemo />
        </div>
      )}
    </div>
  );
}
