/** What to know of somebody before they come. Each row asks for its own: the day stands before the last of them has come. */
import type { ClientSummary } from '@waxwing/core/client';
import type { Note } from '@waxwing/core/planning';
import { Link } from 'react-router';

import { PainOver } from '../people/pain-over';
import { NOTE_MARKS, noteWords } from '../words/brief-words';
import { today } from '../words/dates';
import { LadderMark } from '../words/ladder-mark';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';
import { useBrief } from './use-brief';

/** More than these are on the person's own page. */
const MOST = 4;

/** @param checks whether the check of today is asked for: it is their day */
export function Notes({ client, checks }: { client: ClientSummary; checks: boolean }) {
  const brief = useBrief(client.id);
  const notes = brief?.notes ?? [];
  const more = notes.length - MOST;
  const page = `/people/${client.id}`;
  const asks = [
    ...(client.screened === false ? [{ to: page, words: say.today.theHealthQuestions }] : []),
    ...(checks && client.screened !== null && client.checkedOn !== today()
      ? [{ to: `${page}/today`, words: say.today.howTheyAreToday }]
      : []),
  ];
  return (
    <ul className="min-h-21" aria-busy={!brief} aria-label={say.today.whatToKnowOf(client.name)}>
      {notes.slice(0, MOST).map((note) => (
        <li
          key={`${note.code} ${'movementId' in note ? note.movementId : ''}${note.code === 'hurt' ? note.pain.place : ''}`}
          className="flex flex-wrap items-baseline gap-x-2 py-0.5"
        >
          <Mark code={note.code} />
          <span className="min-w-0 flex-1">{brief && noteWords(note, brief.nameOf)}</span>
          {note.code === 'hurt' && note.pain.place !== null && <PainOver clientId={client.id} pain={note.pain} />}
        </li>
      ))}
      {brief && more > 0 && (
        <li className="py-0.5 pl-7">
          <Link className="link" to={`/people/${client.id}`}>
            {say.today.more(more)}
          </Link>
        </li>
      )}
      {brief && asks.length > 0 && (
        <li className="py-0.5">
          <span className="quiet">{say.today.toAsk}</span>
          {asks.map(({ to, words }, i) => (
            <span key={words}>
              {i > 0 && ', '}
              <Link className="link" to={to}>
                {words}
              </Link>
            </span>
          ))}
        </li>
      )}
    </ul>
  );
}

function Mark({ code }: { code: Note['code'] }) {
  const mark = NOTE_MARKS[code];
  return (
    <span className="w-5 shrink-0 self-center" aria-hidden={mark === null || mark === 'up' || mark === 'limit'}>
      {mark === 'up' ? (
        <LadderMark direction="harder" size={16} />
      ) : mark === 'limit' ? (
        <svg width="16" height="16" viewBox="0 0 16 16">
          <path d="M2 1 V15 M14 1 V15 M2 8 H14" fill="none" stroke="currentColor" strokeWidth="2.5" />
        </svg>
      ) : mark === null ? (
        <span className="quiet block text-center">·</span>
      ) : (
        <SeverityMark severity={mark} size={16} />
      )}
    </span>
  );
}
