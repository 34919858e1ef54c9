/** One client: limits, kit, what works, and the way to the floor. */
import type { Client } from '@waxwing/core/client';
import { OUTCOME_SCORE } from '@waxwing/core/coaching';
import {
  demandWords,
  FOCUS_WORDS,
  FOCUSES,
  type KitPiece,
  label,
  type Limit,
  limitsOn,
  loadLabel,
  weightWords,
  SPACE_WORDS,
} from '@waxwing/core/movement';
import { buildLadder } from '@waxwing/core/ladder';
import { comeBacks } from '@waxwing/core/progress';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { More } from '../shell/more';
import { useNextTime } from '../words/use-next-time';
import { Link, useParams } from 'react-router';
import {
  clientOnDayQuery,
  clientQuery,
  houseRulesQuery,
  movementsQuery,
  recordQuery,
  sessionsQuery,
} from '../api/queries';
import { useMovementName } from '../library/use-movement-name';
import { someOf } from '../words/names';
import { useMay } from '../door/use-door';
import { StartSession } from '../floor/start-session';
import { Await } from '../shell/states';
import { dayWords, minutesBetween, today } from '../words/dates';
import { DAY_WORDS } from '../words/day-words';
import { FocusMark } from '../words/focus-mark';
import { BalanceOfWeeks } from './balance';
import { Benchmarks } from './benchmarks';
import { DataRights } from './data-rights';
import { HeadwayStrip } from './headway';
import { KeptStills } from './kept-stills';
import { Readiness } from './readiness';
import { PageHead, Section } from '../shell/page';

export function PersonScreen() {
  const { clientId = '' } = useParams();
  return useMay().train ? <File clientId={clientId} /> : <OnTheFloor clientId={clientId} />;
}

const File = ({ clientId }: { clientId: string }) => (
  <Await query={useQuery(clientQuery(clientId))} what="the client">
    {(client) => <Person key={client.id} client={client} />}
  </Await>
);

/** What somebody who runs a session may know: what is limited, and not why. */
const OnTheFloor = ({ clientId }: { clientId: string }) => (
  <Await query={useQuery(clientOnDayQuery(clientId, today()))} what="the client">
    {({ id, name, limits }) => (
      <article className="page space-y-8">
        <PageHead
          title={name}
          back={{ to: '/people', name: 'People' }}
          actions={<StartSession clientIds={[id]}>Start a session</StartSession>}
        />
        <Limits limits={limits} />
        <WhatWorks clientId={id} />
        <Climbing clientId={id} />
        <Sessions clientId={id} />
        <p className="quiet">The rest of their file is for those who train them.</p>
      </article>
    )}
  </Await>
);

function Person({ client }: { client: Client }) {
  return (
    <article className="page">
      <PageHead
        title={client.name}
        back={{ to: '/people', name: 'People' }}
        about={[
          client.about,
          client.trainingYears === null ? '' : `${client.trainingYears} years of training`,
          client.dayMostly === null ? '' : `mostly ${DAY_WORDS[client.dayMostly]}`,
          client.bodyKg === null ? '' : weightWords(client.bodyKg, client.unit === 'lb' ? 'lb' : null),
        ]
          .filter(Boolean)
          .join(' · ')}
        actions={
          <>
            <Link className="btn" to={`/people/${client.id}/edit`}>
              Edit
            </Link>
            <Link className="btn" to={`/people/${client.id}/today`}>
              How they are today
            </Link>
            <Link className="btn" to={`/plan/new?client=${client.id}`}>
              Plan a session
            </Link>
            <Link className="btn" to={`/sight?client=${client.id}`}>
              Watch a clip
            </Link>
            <StartSession clientIds={[client.id]}>Start a session</StartSession>
          </>
        }
      />
      <HeadwayStrip clientId={client.id} unit={client.unit} />
      <div className="grid gap-x-10 gap-y-8 md:grid-cols-2">
        <div className="space-y-8">
          <Limits limits={client.limits} />
          <Section title="Goal">
            <p className={client.goal ? '' : 'quiet'}>{client.goal || 'Not noted.'}</p>
          </Section>
          <Section title="Health note">
            <p className={client.healthNote ? 'whitespace-pre-line' : 'quiet'}>
              {client.healthNote || 'Nothing noted.'}
            </p>
            <p className="quiet mt-2 text-sm">
              Private: shown only here. Medical questions go to a qualified clinician.
            </p>
          </Section>
          <Section title="Before starting">
            <Readiness client={client} />
          </Section>
          <Section title="Touch for correction">
            {client.touchConsentOn
              ? `Agreed on ${dayWords(client.touchConsentOn)}`
              : 'Not agreed: touch is never suggested.'}
            <span className="quiet block">
              {client.filmConsentOn
                ? `Agreed to be filmed on ${dayWords(client.filmConsentOn)}.`
                : 'Not agreed to be filmed.'}
            </span>
          </Section>
          {client.note && (
            <Section title="Notes">
              <p className="whitespace-pre-line">{client.note}</p>
            </Section>
          )}
          <Section title="Their data">
            <DataRights client={client} />
          </Section>
        </div>
        <div className="space-y-8">
          <WhatWorks clientId={client.id} />
          <Section title="Benchmarks">
            <Benchmarks client={client} />
          </Section>
          <Section title="Balance of four weeks">
            <BalanceOfWeeks client={client} />
          </Section>
          <KeptStills client={client} />
          <Climbing clientId={client.id} />
          <ComingBack clientId={client.id} />
          <OwnSchools client={client} />
          <Section title="Kit at home">
            <KitList kit={client.kit} />
            <p className="quiet mt-1">Room for {SPACE_WORDS[client.homeSpace]}.</p>
          </Section>
          <Sessions clientId={client.id} />
        </div>
      </div>
    </article>
  );
}

/** Where this client is coached by another school than the studio's. */
function OwnSchools({ client }: { client: Client }) {
  const rules = useQuery(houseRulesQuery).data ?? [];
  const own = rules.flatMap((rule) => {
    const option = rule.options.find(({ id }) => id === client.houseRules[rule.id]);
    return option ? [{ matter: rule.matter, name: option.name }] : [];
  });
  if (own.length === 0) return null;
  return (
    <Section title="House rules of their own">
      {own.map(({ matter, name }) => (
        <p key={matter}>
          <span className="font-semibold">{name}</span> <span className="quiet">· {matter}</span>
        </p>
      ))}
    </Section>
  );
}

const ALLOWED = ['none', 'a little', 'up to a clear amount'];

function Limits({ limits }: { limits: readonly Limit[] }) {
  const held = new Set(limitsOn(limits, today()));
  return (
    <Section title="Limits">
      {limits.length === 0 && <p className="quiet">None noted: every movement is open.</p>}
      <ul className="ruled">
        {limits.map((limit) => (
          <li key={limit.demand} className={held.has(limit) ? 'py-2' : 'quiet py-2 line-through'}>
            <span className="text-lg font-semibold">{label(demandWords(limit.demand))}</span>: {ALLOWED[limit.allowed]}
            <span className="quiet block text-sm">
              {limit.reason}
              {limit.until ? ` · until ${dayWords(limit.until)}` : ' · lasting'}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

export const KitList = ({ kit }: { kit: readonly KitPiece[] }) =>
  kit.length === 0 ? (
    <p className="quiet">None: only movements without kit.</p>
  ) : (
    <ul className="flex flex-wrap gap-x-5 gap-y-1">
      {kit.map((piece, i) => (
        <li key={i}>
          {piece.count > 1 && `${piece.count} × `}
          {label(piece.item).toLowerCase()}
          {pieceWords(piece)}
        </li>
      ))}
    </ul>
  );

/** How often cues of each focus helped. */
function WhatWorks({ clientId }: { clientId: string }) {
  const { data } = useQuery(recordQuery(clientId));
  const mine = data?.trials ?? [];
  const rows = FOCUSES.map((focus) => mine.filter((trial) => trial.focus === focus)).filter(
    (trials) => trials.length > 0,
  );
  return (
    <Section title="Cues that land">
      {rows.length === 0 && <p className="quiet">Not known yet. Every outcome noted on the floor teaches it.</p>}
      <ul className="ruled">
        {rows.map((trials) => {
          const focus = trials[0]?.focus ?? 'outward';
          const helped = trials.filter((trial) => OUTCOME_SCORE[trial.outcome] > 0).length;
          return (
            <li key={focus} className="grid grid-cols-[16px_5rem_1fr_auto] items-center gap-3 py-2">
              <FocusMark focus={focus} />
              <span className="font-semibold">{FOCUS_WORDS[focus]}</span>
              <progress
                className="progress"
                aria-label={`${FOCUS_WORDS[focus]} cues that helped`}
                value={helped}
                max={trials.length}
              />
              <span className="text-sm">
                helped {helped} of {trials.length}
              </span>
            </li>
          );
        })}
      </ul>
    </Section>
  );
}

/** The rung that the client stands on in each family: the movement done last. */
function Climbing({ clientId }: { clientId: string }) {
  const { data: record } = useQuery(recordQuery(clientId));
  const { data: list } = useQuery(movementsQuery);
  const nextTime = useNextTime(clientId, record);
  const done = Object.entries(record?.sets ?? {})
    .map(([id, sessions]) => ({ movement: list?.find((item) => item.id === id), at: sessions.at(-1)?.at ?? '' }))
    .sort((a, b) => b.at.localeCompare(a.at));
  const current = new Map<string, (typeof done)[number]>();
  for (const entry of done) {
    const family = entry.movement?.families[0];
    if (family && !current.has(family)) current.set(family, entry);
  }
  return (
    <Section title="Rungs now">
      {current.size === 0 && <p className="quiet">No sessions yet.</p>}
      <ul className="ruled">
        {[...current].map(([family, { movement, at }]) => (
          <li key={family} className="grid grid-cols-[5rem_1fr_auto] gap-x-3 py-1.5">
            <span className="quiet">{label(family)}</span>
            <Link className="link font-semibold" to={`/library/${movement?.id ?? ''}`}>
              {movement?.name}
            </Link>
            <span className="quiet text-sm">{dayWords(at)}</span>
            <span className="quiet col-start-2 col-end-4 text-sm">{movement && nextTime(movement.id)}</span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** Rungs that were gone down from on the floor, and how far the way back is. */
function ComingBack({ clientId }: { clientId: string }) {
  const { data: record } = useQuery(recordQuery(clientId));
  const { data: list } = useQuery(movementsQuery);
  const ladder = useMemo(() => buildLadder(list ?? []), [list]);
  const nextTime = useNextTime(clientId, record);
  const found = record ? comeBacks(record, ladder) : [];
  if (found.length === 0) return null;
  const name = (id: string) => list?.find((one) => one.id === id)?.name ?? id;
  return (
    <Section title="To come back to">
      <ul className="ruled">
        {found.map(({ movementId, to, since }) => (
          <li key={movementId} className="grid grid-cols-[1fr_auto] gap-x-3 py-1.5">
            <Link className="link font-semibold" to={`/library/${movementId}`}>
              {name(movementId)}
            </Link>
            <span className="quiet text-sm">since {dayWords(since)}</span>
            <span className="quiet col-span-2 text-sm">
              Now {name(to)}. {nextTime(to)}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Sessions({ clientId }: { clientId: string }) {
  const query = useInfiniteQuery(sessionsQuery({ clientId }));
  const nameOf = useMovementName();
  const { data = [] } = query;
  return (
    <Section title="Sessions">
      {data.length === 0 && <p className="quiet">None yet.</p>}
      <ul className="ruled">
        {data.map((session) => (
          <li key={session.id} className="py-1.5">
            <Link className="link" to={session.finishedAt ? `/review/${session.id}` : `/floor/${session.id}`}>
              {dayWords(session.startedAt)}
            </Link>{' '}
            <span className="quiet">
              {session.finishedAt ? `${minutesBetween(session.startedAt, session.finishedAt)} min` : 'still open'}
              {session.movements.length > 0 && ` · ${someOf(session.movements.map(nameOf))}`}
            </span>
          </li>
        ))}
      </ul>
      <More query={query} what="sessions" />
    </Section>
  );
}

/** What there is of a piece beside its name: its weight, its plates, its settings, its heights. */
function pieceWords(piece: KitPiece): string {
  if (piece.plates?.length)
    return ` to load up to ${weightWords((piece.kg ?? 0) + piece.plates.reduce((sum, { kg, count }) => sum + kg * 2 * Math.floor(count / (2 * piece.count)), 0), piece.unit)}`;
  if (piece.stepKg && piece.mostKg) return ` to ${weightWords(piece.mostKg, piece.unit)}`;
  if (piece.heightsCm?.length) return ` ${piece.heightsCm.join(', ')} cm`;
  return piece.kg || piece.label ? ` ${loadLabel(piece)}` : '';
}
