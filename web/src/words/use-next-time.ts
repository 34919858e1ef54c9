/** What comes next for a client in a movement, in words, by the policy that plan and floor go by. */
import { useQuery } from '@tanstack/react-query';
import { type Aim, kitAt, USUAL_AIM } from '@waxwing/core/client';
import type { ClientRecord } from '@waxwing/core/coaching';
import { buildCatalog, signWords } from '@waxwing/core/ladder';
import { type NextStep, nextTime, standingOf, type TimeQuestion, towards } from '@waxwing/core/progress';
import type { Lane } from '@waxwing/core/session';
import { useMemo } from 'react';

import { clientOnDayQuery, movementsQuery, studioQuery } from '../api/queries';
import { today } from './dates';
import { whyWords } from './reasons';
import { say } from './say';

/**
 * @param record what the sessions so far teach
 * @param pains of a session that is looked at; none outside of one
 * @param asked what the next time is for and where, where that is known otherwise than by the record
 * @returns what comes next in a movement and its words; undefined until everything is here, and for a movement that is in no list any more
 */
export function useNextTime(
  clientId: string,
  record: ClientRecord | undefined,
  pains: Lane['pains'] = NONE,
  faultOf?: TimeQuestion['faultOf'],
  asked: Aim | null = null,
): (movementId: string) => { words: string; step: NextStep } | undefined {
  const { data: movements } = useQuery(movementsQuery);
  const { data: studio } = useQuery(studioQuery);
  const { data: client } = useQuery(clientOnDayQuery(clientId, today()));
  const catalog = useMemo(() => buildCatalog(movements ?? []), [movements]);
  return (movementId) => {
    const movement = movements?.find(({ id }) => id === movementId);
    if (!movement || !studio || !client || !record) return undefined;
    const aim = asked ?? record.aim ?? USUAL_AIM;
    const question: TimeQuestion = {
      standing: standingOf(client, record, pains),
      movement,
      purpose: aim.purpose,
      kit: kitAt(aim.place, studio, client),
      ladder: catalog.ladder,
      find: (id) => movements?.find((one) => one.id === id),
      sets: record.sets,
      faultOf,
    };
    return { words: nextTimeWords(question), step: nextTime(question) };
  };
}

const NONE: Lane['pains'] = [];

/** What comes next as one sentence, with how far the next rung is. */
export function nextTimeWords(question: TimeQuestion): string {
  const nameOf = (id: string) => question.find(id)?.name ?? id;
  const step = nextTime(question);
  const why = whyWords(step.why, nameOf);
  if (step.kind === 'rung-down') return step.to === null ? why : say.reasons.whyAndNext(why, nameOf(step.to));
  const sign = step.code === 'window' || step.code === 'same-again' ? towards(question) : null;
  return sign && !sign.ready
    ? say.shell.ofSessionsTowards(why, sign.met, sign.needed, nameOf(sign.id), signWords(sign.sign))
    : why;
}
