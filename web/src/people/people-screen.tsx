/** The trainer's clients: when each was here, when they come next, and what to know. In an empty place the demo studio is offered. */
import type { ClientSummary } from '@waxwing/core/client';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { clientsQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { Ledger } from '../shell/ledger';
import { Page } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { LoadDemo } from '../studio/load-demo';
import { agoWords, dayWords, timeWords } from '../words/dates';
import { isFormer } from './away';
import { BringBack } from './bring-back';
import { WeeksLine } from './weeks-line';

/** From so many on a name is looked for. */
const MANY = 12;

export function PeopleScreen() {
  const { train, own } = useMay();
  return (
    <Page
      title="People"
      actions={
        <>
          {own && <BringBack />}
          {train && (
            <Link to="/people/new" className="btn btn-primary">
              Add a client
            </Link>
          )}
        </>
      }
    >
      <Await query={useQuery({ ...clientsQuery, staleTime: 0 })} what="the clients">
        {(clients) => (clients.length === 0 ? <Nobody own={own} /> : <Clients clients={clients} />)}
      </Await>
    </Page>
  );
}

const Nobody = ({ own }: { own: boolean }) => (
  <Empty title="No clients yet">
    <p>Add your first client, with the limits that movements must respect and the kit they have at home.</p>
    {own && (
      <>
        <p>Or look round first: the demo studio brings seven invented clients with six weeks of sessions.</p>
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
          aria-label="Find a client"
          placeholder="Find a client"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      )}
      {found.length === 0 && <Empty title={`Nobody is called “${words.trim()}”`} />}
      <Rows label="Clients" clients={found.filter((client) => !isFormer(client, now))} now={now} />
      <Former clients={found.filter((client) => isFormer(client, now))} now={now} />
    </>
  );
}

/** Nobody keeps health data longer than there is a reason for. */
function Former({ clients, now }: { clients: readonly ClientSummary[]; now: Date }) {
  if (clients.length === 0) return null;
  return (
    <section className="mt-10">
      <h2>Not here for a year</h2>
      <p className="quiet mb-2">
        Is there a reason to keep what is noted of them? If not, export it for them, and delete it on their page.
      </p>
      <Rows label="Former clients" clients={clients} now={now} />
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
                : 'nothing planned'}
            </span>
            <span className="quiet block">{client.last ? `last ${agoWords(client.last, now)}` : 'not here yet'}</span>
          </>
        ),
      }))}
    />
  );
}

/** What to know at a glance, in a few words. */
const knowWords = ({ limits, screened, goal }: ClientSummary): React.ReactNode => {
  const notes = [
    limits > 0 ? `${limits} ${limits === 1 ? 'limit' : 'limits'}` : '',
    screened === false ? 'health questions not asked' : '',
  ].filter(Boolean);
  return (
    <>
      {notes.length > 0 && <span className="text-base-content block font-semibold">{notes.join(' · ')}</span>}
      <span className="block max-sm:hidden">{goal}</span>
    </>
  );
};
