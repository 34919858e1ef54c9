/** Offers to fill an empty place with the demo studio. */
import { useMutation, useQueryClient } from '@tanstack/react-query';

import { call } from '../api/http';
import { say } from '../words/say';

export function LoadDemo() {
  const queries = useQueryClient();
  const load = useMutation({
    mutationFn: () => call('POST /studio/demo'),
    onSuccess: () => queries.invalidateQueries(),
  });
  return (
    <div>
      <button type="button" className="btn" disabled={load.isPending} onClick={() => load.mutate()}>
        {load.isPending ? say.studio.loadingTheDemoStudio : say.studio.loadTheDemoStudio}
      </button>
      {load.error && (
        <p role="alert" className="text-error mt-2">
          {load.error.message}
        </p>
      )}
    </div>
  );
}
