/** Questions before the first session. Any yes sends to a qualified clinician, and marks the file until clearance is noted. */
import {
  awaitsClearance,
  CLEARANCE_WORDS,
  type Client,
  READINESS_QUESTIONS,
  type ReadinessCheck,
} from '@waxwing/core/client';
import { useState } from 'react';

import { Wrong } from '../shell/states';
import { dayWords, today } from '../words/dates';
import { say } from '../words/say';
import { useEditClient } from './use-edit-client';

export function Readiness({ client }: { client: Client }) {
  const { readiness } = client;
  const [asking, ask] = useState(false);
  const [yes, setYes] = useState<ReadinessCheck['yes']>([]);
  const [by, setBy] = useState('');
  const edit = useEditClient(client);
  const waits = awaitsClearance(readiness);
  if (asking)
    return (
      <div>
        <ul className="ruled">
          {READINESS_QUESTIONS.map(({ id, words }) => (
            <li key={id}>
              <label className="flex min-h-11 items-center gap-3 py-1.5">
                <input
                  autoComplete="off"
                  type="checkbox"
                  className="checkbox"
                  checked={yes.includes(id)}
                  onChange={() => setYes(yes.includes(id) ? yes.filter((one) => one !== id) : [...yes, id])}
                />
                {words}
              </label>
            </li>
          ))}
        </ul>
        <p className="quiet my-2 text-sm">{say.people.tickWhatIsAnsweredWith}</p>
        <button
          type="button"
          className="btn btn-primary"
          onClick={() => {
            edit.mutate({ readiness: { on: today(), yes, clearedOn: null, clearedBy: '' } });
            ask(false);
          }}
        >
          {say.people.keepTheAnswers}
        </button>{' '}
        <button type="button" className="btn btn-ghost" onClick={() => ask(false)}>
          {say.common.cancel}
        </button>
      </div>
    );
  return (
    <div className="space-y-2">
      {!readiness && <p className="quiet">{say.people.notAskedYet}</p>}
      {readiness && (
        <p>
          {say.people.askedOn(
            dayWords(readiness.on),
            readiness.yes.length === 0
              ? say.people.noToEverything
              : say.people.yesToOf(readiness.yes.length, READINESS_QUESTIONS.length),
          )}
        </p>
      )}
      {readiness && readiness.yes.length > 0 && (
        <ul className="quiet list-disc pl-5 text-sm">
          {READINESS_QUESTIONS.filter(({ id }) => readiness.yes.includes(id)).map(({ id, words }) => (
            <li key={id}>{words}</li>
          ))}
        </ul>
      )}
      {waits && readiness && (
        <div className="border-error border-l-4 pl-3">
          <p className="text-error font-bold">{CLEARANCE_WORDS}</p>
          <div className="mt-1 flex flex-wrap gap-2">
            <input
              autoComplete="off"
              className="input w-56"
              aria-label={say.people.whoGaveClearance}
              placeholder={say.people.clearanceGivenBy}
              value={by}
              onChange={(event) => setBy(event.target.value)}
            />
            <button
              type="button"
              className="btn"
              disabled={by.trim() === ''}
              onClick={() => edit.mutate({ readiness: { ...readiness, clearedOn: today(), clearedBy: by.trim() } })}
            >
              {say.people.noteClearance}
            </button>
          </div>
        </div>
      )}
      {readiness?.clearedOn && <p>{say.people.clearedByOn(readiness.clearedBy, dayWords(readiness.clearedOn))}</p>}
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => {
          setYes(readiness?.yes ?? []);
          ask(true);
        }}
      >
        {readiness ? say.people.askAgain : say.people.askTheQuestions}
      </button>
      <Wrong error={edit.error} />
    </div>
  );
}
