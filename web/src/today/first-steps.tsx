/** The very first start: three steps, one after the other, or a look round the demo. */
import type { ClientSummary, Studio } from '@waxwing/core/client';
import { Link } from 'react-router';
import { LoadDemo } from '../studio/load-demo';

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
      title: 'Your studio and its kit',
      what: 'Weights, bands and benches: Waxwing only suggests what your kit can make.',
      to: '/studio',
      act: 'Write down the kit',
      done: studio.kit.length > 0,
    },
    {
      title: 'Your first client',
      what: 'A name is enough. Limits and health questions can follow when you meet.',
      to: '/people/new',
      act: 'Add a client',
      done: clients.length > 0,
    },
    {
      title: 'Your first session',
      what: 'Say who comes and how long there is: a session is suggested, and you change what you like.',
      to: first ? `/plan/new?client=${first.id}` : '/plan/new',
      act: 'Plan a session',
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
                {step.done && <span className="quiet font-normal">, done</span>}
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
          <p className="mb-3 text-lg">
            Or look round first: the demo studio brings seven invented clients with six weeks of sessions.
          </p>
          <LoadDemo />
        </div>
      )}
    </div>
  );
}
