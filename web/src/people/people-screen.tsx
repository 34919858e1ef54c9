/** The trainer's clients. In an empty place this is where the demo studio is offered. */
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { clientsQuery } from '../api/queries';
import { Await, Empty } from '../shell/states';
import { BringBack } from './bring-back';
import { LoadDemo } from '../studio/load-demo';

export function PeopleScreen() {
  return (
    <div className="mx-auto max-w-4xl p-4 sm:p-6">
      <div className="mb-6 flex items-end justify-between gap-4">
        <h1 className="shrink-0">People</h1>
        <span className="flex flex-wrap items-center justify-end gap-2">
          <BringBack />
          <Link to="/people/new" className="btn btn-primary">
            Add a client
          </Link>
        </span>
      </div>
      <Await query={useQuery(clientsQuery)} what="the clients">
        {(clients) =>
          clients.length === 0 ? (
            <Empty title="No clients yet">
              <p>Add your first client, with the limits that movements must respect and the kit they have at home.</p>
              <p>Or look around first: the demo studio brings seven invented clients with six weeks of sessions.</p>
              <LoadDemo />
            </Empty>
          ) : (
            <ul className="ruled border-base-content border-t-2">
              {clients.map((client) => (
                <li key={client.id}>
                  <Link
                    to={`/people/${client.id}`}
                    className="hover:bg-base-200 grid gap-x-6 px-2 py-3 sm:grid-cols-[14rem_1fr_auto]"
                  >
                    <span className="text-lg font-semibold">{client.name}</span>
                    <span className="quiet">{client.about}</span>
                    <span className="text-sm">
                      {client.limits > 0 && (client.limits === 1 ? '1 limit' : `${client.limits} limits`)}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          )
        }
      </Await>
    </div>
  );
}
