/** Who came in, and who read, changed, exported or deleted what of whom: for the owner of the studio. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { AuditEntry } from '@waxwing/core/door';
import { Download } from 'lucide-react';
import { useSearchParams } from 'react-router';

import { accountsQuery, auditQuery, auditWholeQuery } from '../api/door';
import { clientsQuery } from '../api/queries';
import { More } from '../shell/more';
import { PageHead } from '../shell/page';
import { Await } from '../shell/states';
import { useSetParam } from '../shell/use-set-param';
import { AUDIT_WORDS, fieldWords, whoDid } from '../words/audit-words';
import { dayWords, timeWords } from '../words/dates';
import { say } from '../words/say';
import { KeepsForm } from './keeps-form';

export function AuditScreen() {
  const [params] = useSearchParams();
  const choose = useSetParam();
  const [clientId, accountId] = [params.get('client') ?? '', params.get('who') ?? ''];
  const list = useInfiniteQuery(auditQuery({ ...(clientId && { clientId }), ...(accountId && { accountId }) }));
  const clients = useQuery(clientsQuery).data ?? [];
  const accounts = useQuery(accountsQuery).data ?? [];
  return (
    <div className="page">
      <PageHead
        title={say.door.whoDidWhat}
        back={{ to: '/studio', name: say.common.studio }}
        actions={
          <a className="btn" href="/api/audit.csv" download="waxwing-audit.csv">
            <Download aria-hidden size={18} />
            {say.door.downloadAsATable}
          </a>
        }
      />
      <p className="quiet mb-3 max-w-2xl">
        {say.door.whoCameInFromWhere}
        <Whole />
      </p>
      <div className="mb-4 flex flex-wrap gap-3">
        <select
          aria-label={say.door.aboutWhom}
          className="select w-56"
          value={clientId}
          onChange={(event) => choose('client', event.target.value)}
        >
          <option value="">{say.door.aboutEverybody}</option>
          {clients.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <select
          aria-label={say.door.byWhom}
          className="select w-56"
          value={accountId}
          onChange={(event) => choose('who', event.target.value)}
        >
          <option value="">{say.door.byEverybody}</option>
          {accounts.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </div>
      <KeepsForm />
      <Await query={list} what={say.door.whatWasDone}>
        {(entries) => (
          <>
            {entries.length === 0 && <p className="quiet">{say.door.nothingYet}</p>}
            <ul className="ruled border-base-content border-t-2">
              {entries.map((entry) => (
                <Entry key={entry.place} entry={entry} />
              ))}
            </ul>
            <More query={list} what={say.door.entries} />
          </>
        )}
      </Await>
    </div>
  );
}

function Whole() {
  const { data } = useQuery(auditWholeQuery);
  if (data === undefined) return null;
  return data === null ? (
    <>{say.door.everyEntryIsAsIt}</>
  ) : (
    <strong role="alert" className="text-error">
      {say.door.entryIsNotAsIt(data)}
    </strong>
  );
}

function Entry({ entry: { at, accountName, action, clientId, clientName, fields, device } }: { entry: AuditEntry }) {
  return (
    <li className="grid gap-x-4 py-2 sm:grid-cols-[11rem_1fr_12rem]">
      <span className="quiet">
        {dayWords(at)}, {timeWords(at)}
      </span>
      <span>
        <span className="font-semibold">{accountName || whoDid(action)}</span> {AUDIT_WORDS[action]}
        {clientId && (
          <>
            {' '}
            <span className="font-semibold">{clientName || say.door.somebodyWhoIsDeleted}</span>
          </>
        )}
        {fields.length > 0 && <span className="quiet">: {fields.map(fieldWords).join(', ')}</span>}
      </span>
      <span className="quiet sm:text-right">{device}</span>
    </li>
  );
}
