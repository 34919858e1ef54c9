/** The pictures of a movement: looked at, added and taken away. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Picture } from '@waxwing/core/movement';
import { useRef, useState } from 'react';

import { addressOf, call } from '../api/http';
import { picturesQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { say } from '../words/say';

const MOST = 6;

export function Pictures({ movementId }: { movementId: string }) {
  const query = picturesQuery(movementId);
  const pictures = useQuery(query).data ?? [];
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const { train } = useMay();
  const change = async (request: Promise<Picture[]>) => {
    setProblem(null);
    try {
      queries.setQueryData(query.queryKey, await request);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section aria-labelledby="pictures" className="mt-6">
      <div className="border-base-content mb-2 flex items-baseline justify-between border-b-2 pb-1">
        <h2 id="pictures">{say.library.pictures}</h2>
        {pictures.length < MOST && (
          <button type="button" className="btn btn-sm" onClick={() => chooser.current?.click()}>
            {say.library.addAPicture}
          </button>
        )}
        <input
          ref={chooser}
          type="file"
          accept="image/png,image/jpeg,image/webp"
          aria-label={say.library.pictureFile}
          className="hidden"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file)
              void change(
                call('POST /movements/{movementId}/pictures', {
                  movementId,
                  query: { caption: file.name },
                  body: file,
                }),
              );
          }}
        />
      </div>
      {problem && (
        <p role="alert" className="text-error mb-2">
          {problem}
        </p>
      )}
      {pictures.length === 0 ? (
        <p className="quiet">{say.library.noneYetPngJpegOr(MOST)}</p>
      ) : (
        <ul className="flex flex-wrap gap-4">
          {pictures.map(({ id, caption }) => (
            <li key={id} className="w-48">
              <img
                src={addressOf('/movements/{movementId}/pictures/{id}', { movementId, id })}
                alt={caption}
                className="bg-base-200 h-36 w-full object-contain"
              />
              <p className="flex items-center justify-between gap-2 text-sm">
                <span className="truncate">{caption}</span>
                {train && (
                  <button
                    type="button"
                    className="btn btn-xs btn-ghost"
                    aria-label={say.library.removePicture(caption)}
                    onClick={() =>
                      void change(call('DELETE /movements/{movementId}/pictures/{id}', { movementId, id }))
                    }
                  >
                    {say.common.remove}
                  </button>
                )}
              </p>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
