/** One client: limits, kit, what works, and the way to the floor. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { type Client, limitsFromPain } from '@waxwing/core/client';
import { OUTCOME_SCORE } from '@waxwing/core/coaching';
import { buildLadder } from '@waxwing/core/ladder';
import {
  FOCUS_WORDS,
  FOCUSES,
  type KitPiece,
  label,
  loadLabel,
  SPACE_WORDS,
  weightWords,
} from '@waxwing/core/movement';
import { comeBacks } from '@waxwing/core/progress';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';

import {
  clientOnDayQuery,
  clientQuery,
  houseRulesQuery,
  movementsQuery,
  recordQuery,
  sessionsQuery,
} from '../api/queries';
import { useMay } from '../door/use-door';
import { StartSession } from '../floor/start-session';
import { useMovementName } from '../library/use-movement-name';
import { More } from '../shell/more';
import { PageHead, Section } from '../shell/page';
import { Await } from '../shell/states';
import { dayWords, minutesBetween, today } from '../words/dates';
import { DAY_WORDS } from '../words/day-words';
import { FocusMark } from '../words/focus-mark';
import { someOf } from '../words/names';
import { say } from '../words/say';
import { useNextTime } from '../words/use-next-time';
import { BalanceOfWeeks } from './balance';
import { Benchmarks } from './benchmarks';
import { DataRights } from './data-rights';
import { HeadwayStrip } from './headway';
import { KeptStills } from './kept-stills';
import { LimitList, Limits } from './limits';
import { Readiness } from './readiness';

export function PersonScreen() {
  const { clientId = '' } = useParams();
  return useMay().train ? <File clientId={clientId} /> : <OnTheFloor clientId={clientId} />;
}

const File = ({ clientId }: { clientId: string }) => (
  <Await query={useQuery(clientQuery(clientId))} what={say.common.theClient}>
    {(client) => <Person key={client.id} client={client} />}
  </Await>
);

/** What somebody who runs a session may know: what is limited, and not why. */
function OnTheFloor({ clientId }: { clientId: string }) {
  const record = useQuery(recordQuery(clientId));
  return (
    <Await query={useQuery(clientOnDayQuery(clientId, today()))} what={say.common.theClient}>
      {({ id, name, limits }) => (
        <article className="page space-y-8">
          <PageHead
            title={name}
            back={{ to: '/people', name: say.common.people }}
            actions={<StartSession clientIds={[id]}>{say.people.startASession}</StartSession>}
          />
          <Section title={say.people.limits}>
            <Await query={record} what={say.people.limits}>
              {({ pains }) => {
                const all = [...limits, ...limitsFromPain(pains, say.people.afterPain)];
                return all.length === 0 ? (
                  <p className="quiet">{say.people.noneNotedEveryMovementIs}</p>
                ) : (
                  <LimitList limits={all} withReasons />
                );
              }}
            </Await>
          </Section>
          <WhatWorks clientId={id} />
          <Climbing clientId={id} />
          <Sessions clientId={id} />
          <p className="quiet">{say.people.theRestOfTheirFile}</p>
        </article>
      )}
    </Await>
  );
}

function Person({ client }: { client: Client }) {
  return (
    <article className="page">
      <PageHead
        title={client.name}
        back={{ to: '/people', name: say.common.people }}
        about={[
          client.about,
          client.trainingYears === null ? '' : say.people.yearsTrained(client.trainingYears),
          client.dayMostly === null ? '' : say.people.mostly(DAY_WORDS[client.dayMostly]),
          client.bodyKg === null ? '' : weightWords(client.bodyKg, client.unit === 'lb' ? 'lb' : null),
        ]
          .filter(Boolean)
          .join(' · ')}
        actions={
          <>
            <Link className="btn" to={`/people/${client.id}/edit`}>
              {say.common.edit}
            </Link>
            <Link className="btn" to={`/people/${client.id}/today`}>
              {say.common.howTheyAreToday}
            </Link>
            <Link className="btn" to={`/plan/new?client=${client.id}`}>
              {say.common.planASession}
            </Link>
            <Link className="btn" to={`/sight?client=${client.id}`}>
              {say.common.watchAClip}
            </Link>
            <StartSession clientIds={[client.id]}>{say.people.startASession}</StartSession>
          </>
        }
      />
      <HeadwayStrip clientId={client.id} unit={client.unit} />
      <div className="grid gap-x-10 gap-y-8 md:grid-cols-2">
        <div className="space-y-8">
          <Limits client={client} />
          <Section title={say.people.goal}>
            <p className={client.goal ? '' : 'quiet'}>{client.goal || say.people.notNotedYet}</p>
          </Section>
          <Section title={say.people.healthNote}>
            <p className={client.healthNote ? 'whitespace-pre-line' : 'quiet'}>
              {client.healthNote || say.people.nothingNoted}
            </p>
            <p className="quiet mt-2 text-sm">{say.people.privateShownOnlyHereMedical}</p>
          </Section>
          <Section title={say.people.beforeStarting}>
            <Readiness client={client} />
          </Section>
          <Section title={say.people.touchForCorrection}>
            {client.touchConsentOn
              ? say.people.agreedOn(dayWords(client.touchConsentOn))
              : say.people.notAgreedTouchIsNever}
            <span className="quiet block">
              {client.filmConsentOn
                ? say.people.mayBeFilmedSince(dayWords(client.filmConsentOn))
                : say.people.notAgreedToBeFilmed}
            </span>
          </Section>
          {client.note && (
            <Section title={say.common.notes}>
              <p className="whitespace-pre-line">{client.note}</p>
            </Section>
          )}
          <Section title={say.people.theirData}>
            <DataRights client={client} />
          </Section>
        </div>
        <div className="space-y-8">
          <WhatWorks clientId={client.id} />
          <Section title={say.people.benchmarks}>
            <Benchmarks client={client} />
          </Section>
          <Section title={say.people.balanceOfFourWeeks}>
            <BalanceOfWeeks client={client} />
          </Section>
          <KeptStills client={client} />
          <Climbing clientId={client.id} />
          <ComingBack clientId={client.id} />
          <OwnSchools client={client} />
          <Section title={say.people.kitAtHome}>
            <KitList kit={client.kit} />
            <p className="quiet mt-1">{say.people.roomFor(SPACE_WORDS[client.homeSpace])}</p>
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
    <Section title={say.people.houseRulesOfTheirOwn}>
      {own.map(({ matter, name }) => (
        <p key={matter}>
          <span className="font-semibold">{name}</span> <span className="quiet">· {matter}</span>
        </p>
      ))}
    </Section>
  );
}

export const KitList = ({ kit }: { kit: readonly KitPiece[] }) =>
  kit.length === 0 ? (
    <p className="quiet">{say.people.noneOnlyMovementsWithoutKit}</p>
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
    <Section title={say.people.cuesThatLand}>
      {rows.length === 0 && <p className="quiet">{say.people.notKnownYetEveryOutcome}</p>}
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
                aria-label={say.people.cuesThatHelped(FOCUS_WORDS[focus])}
                value={helped}
                max={trials.length}
              />
              <span className="text-sm">{say.people.helpedOf(helped, trials.length)}</span>
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
    <Section title={say.people.rungsNow}>
      {current.size === 0 && <p className="quiet">{say.people.noSessionsYet}</p>}
      <ul className="ruled">
        {[...current].map(([family, { movement, at }]) => (
          <li key={family} className="grid grid-cols-[5rem_1fr_auto] gap-x-3 py-1.5">
            <span className="quiet">{label(family)}</span>
            <Link className="link font-semibold" to={`/library/${movement?.id ?? ''}`}>
              {movement?.name}
            </Link>
            <span className="quiet text-sm">{dayWords(at)}</span>
            <span className="quiet col-start-2 col-end-4 text-sm">{movement && nextTime(movement.id)?.words}</span>
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
    <Section title={say.people.toComeBackTo}>
      <ul className="ruled">
        {found.map(({ movementId, to, since }) => (
          <li key={movementId} className="grid grid-cols-[1fr_auto] gap-x-3 py-1.5">
            <Link className="link font-semibold" to={`/library/${movementId}`}>
              {name(movementId)}
            </Link>
            <span className="quiet text-sm">{say.people.since(dayWords(since))}</span>
            <span className="quiet col-span-2 text-sm">
              {say.people.nowAt(name(to))}
              {nextTime(to)?.words}
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
    <Section title={say.common.sessions}>
      {data.length === 0 && <p className="quiet">{say.people.noneYet}</p>}
      <ul className="ruled">
        {data.map((session) => (
          <li key={session.id} className="py-1.5">
            <Link className="link" to={session.finishedAt ? `/review/${session.id}` : `/floor/${session.id}`}>
              {dayWords(session.startedAt)}
            </Link>{' '}
            <span className="quiet">
              {session.finishedAt
                ? say.common.inMinutes(minutesBetween(session.startedAt, session.finishedAt))
                : say.people.stillOpen}
              {session.movements.length > 0 && ` · ${someOf(session.movements.map(nameOf))}`}
            </span>
          </li>
        ))}
      </ul>
      <More query={query} what={say.common.sessionsWord} />
    </Section>
  );
}

/** What there is of a piece beside its name: its weight, its plates, its settings, its heights. */
function pieceWords(piece: KitPiece): string {
  if (piece.plates?.length)
    return say.people.toLoadUpTo(
      weightWords(
        (piece.kg ?? 0) +
          piece.plates.reduce((sum, { kg, count }) => sum + kg * 2 * Math.floor(count / (2 * piece.count)), 0),
        piece.unit,
      ),
    );
  if (piece.stepKg && piece.mostKg) return say.people.upToKg(weightWords(piece.mostKg, piece.unit));
  if (piece.heightsCm?.length) return say.people.heights(piece.heightsCm.join(', '));
  return piece.kg || piece.label ? ` ${loadLabel(piece)}` : '';
}
