/** The trainer's clients: when each was here, when they come next, and what to know. In an empty place the demo studio is offered. */
import { useQuery } from '@tanstack/react-query';
import type { ClientSummary } from '@waxwing/core/client';
import { useState } from 'react';
import { Link } from 'react-router';

import { clientsQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { Ledger } from '../shell/ledger';
import { Page } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { LoadDemo } from '../studio/load-demo';
import { agoWords, dayWords, timeWords } from '../words/dates';
import { say } from '../words/say';
import { isFormer } from './away';
import { BringBack } from './bring-back';
import { WeeksLine } from './weeks-line';

/** From so many on a name is looked for. */
const MANY = 12;

export function PeopleScreen() {
  const { train, own } = useMay();
  return (
    <Page
      title={say.common.people}
      actions={
        <>
          {own && <BringBack />}
          {train && (
            <Link to="/people/new" className="btn btn-primary">
              {say.common.addAClient}
            </Link>
          )}
        </>
      }
    >
      <Await query={useQuery({ ...clientsQuery, staleTime: 0 })} what={say.people.theClients}>
        {(clients) => (clients.length === 0 ? <Nobody own={own} /> : <Clients clients={clients} />)}
      </Await>
    </Page>
  );
}

const Nobody = ({ own }: { own: boolean }) => (
  <Empty title={say.people.noClientsYet}>
    <p>{say.people.addYourFirstClientWith}</p>
    {own && (
      <>
        <p>{say.common.orLookRoundFirstThe}</p>
        <LoadDemo />
      </>
    )}
  </Empty>
);

function Clients({ clients }: { clients: readonly ClientSummary[] }) {
  const [words, setWords] = useState('');
  const now = new Date();
  const found = clients.filter(({ name }) => name.toLowerCase().includes(words.trim().toLowerCase()));
  return (
    <>
      {clients.length >= MANY && (
        <input
          type="search"
          className="input mb-4 w-full max-w-sm"
          aria-label={say.people.findAClient}
          placeholder={say.people.findAClient}
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      )}
      {found.length === 0 && <Empty title={say.people.nobodyIsCalled(words.trim())} />}
      <Rows label={say.common.clients} clients={found.filter((client) => !isFormer(client, now))} now={now} />
      <Former clients={found.filter((client) => isFormer(client, now))} now={now} />
    </>
  );
}

/** Nobody keeps health data longer than there is a reason for. */
function Former({ clients, now }: { clients: readonly ClientSummary[]; now: Date }) {
  if (clients.length === 0) return null;
  return (
    <section className="mt-10">
      <h2>{say.people.notHereForAYear}</h2>
      <p className="quiet mb-2">{say.people.isThereAReasonTo}</p>
      <Rows label={say.people.formerClients} clients={clients} now={now} />
    </section>
  );
}

function Rows({ label, clients, now }: { label: string; clients: readonly ClientSummary[]; now: Date }) {
  if (clients.length === 0) return null;
  return (
    <Ledger
      label={label}
      columns="minmax(10rem, 1fr) 4.5rem minmax(9rem, 1.5fr) 9.5rem"
      rows={clients.map((client) => ({
        key: client.id,
        to: `/people/${client.id}`,
        name: (
          <>
            {client.name}
            <span className="quiet block text-base font-normal max-sm:hidden">{client.about}</span>
          </>
        ),
        middle: <WeeksLine came={client.came} now={now} />,
        about: knowWords(client),
        aside: (
          <>
            <span className={client.next ? 'block font-semibold' : 'quiet block'}>
              {client.next
                ? `${dayWords(client.next.startsAt)}, ${timeWords(client.next.startsAt)}`
                : say.people.nothingPlanned}
            </span>
            <span className="quiet block">
              {client.last ? say.people.last(agoWords(client.last, now)) : say.people.notHereYet}
            </span>
          </>
        ),
      }))}
    />
  );
}

/** What to know at a glance, in a few words. */
const knowWords = ({ limits, screened, goal }: ClientSummary): React.ReactNode => {
  const notes = [
    limits > 0 ? say.people.limitsKnown(limits) : '',
    screened === false ? say.people.healthQuestionsNotAsked : '',
  ].filter(Boolean);
  return (
    <>
      {notes.length > 0 && <span className="text-base-content block font-semibold">{notes.join(' · ')}</span>}
      <span className="block max-sm:hidden">{goal}</span>
    </>
  );
};
