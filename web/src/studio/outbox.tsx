/** Messages that were written and wait: Waxwing sends no mail itself, a mail program opens the files. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { call } from '../api/http';
import { outboxQuery } from '../api/queries';
import { Await } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { say } from '../words/say';

export function Outbox() {
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: (name: string) => call('DELETE /outbox/{name}', { name }),
    onSuccess: () => queries.invalidateQueries({ queryKey: outboxQuery.queryKey }),
  });
  return (
    <section>
      <h2 className="mb-1">{say.studio.outbox}</h2>
      <p className="quiet mb-2 text-sm">{say.studio.sheetsThatWereSentLie}</p>
      <Await query={useQuery(outboxQuery)} what={say.studio.theOutbox}>
        {(messages) =>
          messages.length === 0 ? (
            <p className="quiet">{say.studio.empty}</p>
          ) : (
            <ul className="ruled border-base-content border-t-2">
              {messages.map(({ name, to, subject, writtenAt }) => (
                <li key={name} className="flex flex-wrap items-center gap-x-4 py-2">
                  <a className="link font-semibold" href={`/api/outbox/${name}`} download={`${subject}.eml`}>
                    {subject}
                  </a>
                  <span className="quiet flex-1">{to}</span>
                  <span>
                    {dayWords(writtenAt)}, {timeWords(writtenAt)}
                  </span>
                  <button
                    type="button"
                    className="btn btn-sm"
                    aria-label={say.studio.remove(subject)}
                    onClick={() => remove.mutate(name)}
                  >
                    {say.common.remove}
                  </button>
                </li>
              ))}
            </ul>
          )
        }
      </Await>
    </section>
  );
}
