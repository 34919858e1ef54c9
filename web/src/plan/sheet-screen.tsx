/** What a client takes home, as it will lie on paper; to print, to keep as a file, or to send. */
import '../shell/paper.css';

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { headOf, type Sheet, type SheetLine } from '@waxwing/core/formats';
import { useState } from 'react';
import { Link, useParams } from 'react-router';

import { call } from '../api/http';
import { clientQuery, movementQuery, outboxQuery, sheetQuery } from '../api/queries';
import { StillPair } from '../figures/still';
import { Await, Wrong } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { Marked } from '../words/marked';
import { say } from '../words/say';

export function SheetScreen() {
  const { planId = '', clientId = '' } = useParams();
  const query = useQuery(sheetQuery(planId, clientId));
  const file = (name: string, more = '') => `/api/plans/${planId}/${name}?clientId=${clientId}${more}`;
  return (
    <div className="page page-reading">
      <nav className="no-print mb-4 flex flex-wrap gap-2" aria-label={say.common.thisSheet}>
        <Link className="btn" to={`/plan/${planId}`}>
          {say.common.back}
        </Link>
        <button type="button" className="btn btn-primary" onClick={() => window.print()}>
          {say.common.print}
        </button>
        <a className="btn" href={file('sheet.pdf')} download="sheet.pdf">
          {say.plan.pdfA4}
        </a>
        <a className="btn" href={file('sheet.pdf', '&paper=letter')} download="sheet.pdf">
          {say.plan.pdfLetter}
        </a>
        <a className="btn" href={file('sheet.md')} download="sheet.md">
          {say.common.markdown}
        </a>
        {query.data?.startsAt && (
          <a className="btn" href={`/api/plans/${planId}/calendar.ics`} download="session.ics">
            {say.common.calendar}
          </a>
        )}
        <Send planId={planId} clientId={clientId} />
      </nav>
      <Await query={query} what={say.plan.theSheet}>
        {(sheet) => <Paper sheet={sheet} />}
      </Await>
    </div>
  );
}

function Send({ planId, clientId }: { planId: string; clientId: string }) {
  const client = useQuery(clientQuery(clientId)).data;
  const [typed, type] = useState<string | null>(null);
  const queries = useQueryClient();
  const to = typed ?? client?.email ?? '';
  const send = useMutation({
    mutationFn: () => call('POST /plans/{id}/send', { id: planId, body: { clientId, ...(to ? { to } : {}) } }),
    onSuccess: () => queries.invalidateQueries({ queryKey: outboxQuery.queryKey }),
  });
  return (
    <form
      className="flex basis-full flex-wrap items-center gap-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate();
      }}
    >
      <input
        className="input w-64"
        type="email"
        aria-label={say.plan.sendTo}
        placeholder={say.plan.address}
        value={to}
        onChange={(event) => type(event.target.value)}
      />
      <button type="submit" className="btn" disabled={send.isPending}>
        {say.plan.send}
      </button>
      {send.data && (
        <p role="status">
          <Marked
            words={say.plan.writtenForItWaitsIn(send.data.to)}
            as={(outbox) => (
              <Link className="link" to="/studio">
                {outbox}
              </Link>
            )}
          />
        </p>
      )}
      <Wrong error={send.error} />
    </form>
  );
}

function Paper({ sheet }: { sheet: Sheet }) {
  const { startsAt } = sheet;
  const when = startsAt ? `${dayWords(startsAt)}, ${timeWords(startsAt)}` : null;
  const before = (i: number) => sheet.blocks.slice(0, i).reduce((sum, { lines }) => sum + lines.length, 0);
  return (
    <article className="card-page">
      <h1>{sheet.title}</h1>
      <p>{headOf(sheet, when).join(' · ')}</p>
      {sheet.blocks.map((block, i) => (
        <section key={i}>
          <h2>{[block.title, block.note].filter(Boolean).join(' · ')}</h2>
          <ol className="sheet-lines">
            {block.lines.map((line, at) => (
              <Line key={`${line.movementId} ${line.name}`} line={line} number={before(i) + at + 1} />
            ))}
          </ol>
        </section>
      ))}
      <h2>{say.plan.mind}</h2>
      <ul className="list-disc pl-5">
        {sheet.cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
    </article>
  );
}

function Line({ line, number }: { line: SheetLine; number: number }) {
  const told = [
    ...(line.easier ? [say.plan.easier(line.easier)] : []),
    ...(line.harder ? [say.plan.harder(line.harder)] : []),
    ...(line.changed ? [say.plan.sinceLastTime(line.changed)] : []),
  ];
  return (
    <li className="flex break-inside-avoid items-start gap-3 border-b border-current/20 py-2 max-sm:flex-col max-sm:gap-1 print:flex-row">
      <Small movementId={line.movementId} />
      <div>
        <p className="font-bold">
          {number}. {line.name}
        </p>
        <p>
          {line.leaveOut ?? line.dose}
          {line.kit ? `, ${line.kit}` : ''}
        </p>
        {line.setUp && <p>{say.plan.setUp(line.setUp)}</p>}
        {line.how && <p>{line.how}</p>}
        <ul className="list-disc pl-5">
          {line.reminders.map((reminder) => (
            <li key={reminder}>{reminder}</li>
          ))}
        </ul>
        {line.watchOut && (
          <p>
            <b>{say.plan.watchOut}</b> {line.watchOut}
          </p>
        )}
        {told.length > 0 && <p className="text-sm">{told.join(' · ')}</p>}
      </div>
    </li>
  );
}

function Small({ movementId }: { movementId: string }) {
  const page = useQuery(movementQuery(movementId)).data;
  return page ? <StillPair movement={page.movement} className="h-20 w-20" /> : null;
}
