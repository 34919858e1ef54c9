/** Keeping the picture that is shown now in the client's file, with the body drawn over it. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type ClientOnDay, MOST_STILL_BYTES, type Still } from '@waxwing/core/client';
import type { Movement } from '@waxwing/core/movement';
import type { Series } from '@waxwing/core/sight';
import { v7 as uuidv7 } from 'uuid';

import { call } from '../api/http';
import { clientStillsQuery } from '../api/queries';
import { Wrong } from '../shell/states';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { type Clip, MOST_PIXELS } from './clip';
import { drawBody, nearest } from './overlay';

interface Props {
  client: ClientOnDay;
  movement: Movement;
  clip: Clip;
  series: Series;
  quarters: number;
  says: string;
}

/** Tried one after the other until the picture is small enough. */
const QUALITIES = [0.8, 0.6, 0.4];

/** A JPEG in base64. */
function pictureOf({ video, width, height }: Clip, series: Series, quarters: number): string {
  const by = Math.min(1, MOST_PIXELS / Math.max(width, height));
  const [w, h] = [Math.round(width * by), Math.round(height * by)];
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = quarters % 2 === 0 ? [w, h] : [h, w];
  const pen = canvas.getContext('2d');
  if (!pen) throw new Error(say.sight.thisBrowserCannotDrawThe);
  pen.translate(canvas.width / 2, canvas.height / 2);
  pen.rotate((quarters * Math.PI) / 2);
  pen.translate(-w / 2, -h / 2);
  pen.drawImage(video, 0, 0, w, h);
  drawBody(pen, series, nearest(series.times, video.currentTime), h);
  for (const quality of QUALITIES) {
    const picture = canvas.toDataURL('image/jpeg', quality).split(',')[1] ?? '';
    if (picture.length * 0.75 <= MOST_STILL_BYTES) return picture;
  }
  throw new Error(say.sight.thisPictureIsTooLarge);
}

export function KeepStill({ client, movement, clip, series, quarters, says }: Props) {
  const cache = useQueryClient();
  const keep = useMutation({
    mutationFn: () => {
      const still: Still = {
        id: uuidv7(),
        takenAt: new Date().toISOString(),
        movementId: movement.id,
        says,
        picture: pictureOf(clip, series, quarters),
      };
      return call('POST /clients/{clientId}/stills', { clientId: client.id, body: still });
    },
    onSuccess: () => cache.invalidateQueries({ queryKey: clientStillsQuery(client.id).queryKey }),
  });
  return (
    <div>
      <button type="button" className="btn" disabled={keep.isPending} onClick={() => keep.mutate()}>
        {keep.isSuccess ? say.sight.keptKeepThisOneToo : say.sight.keepThisPictureInS(firstName(client))}
      </button>
      <Wrong error={keep.error} />
    </div>
  );
}
