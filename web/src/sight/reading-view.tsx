/** What was read from a clip: sentences first, the clip with the body over it, the worst rep beside the clean one, a chart and a table. */
import { useQuery } from '@tanstack/react-query';
import type { ClientOnDay } from '@waxwing/core/client';
import { label, type Movement, underRules, type View, VIEWS, viewWords } from '@waxwing/core/movement';
import { amountWords, leadUnit, type Reading, repWords, sentencesOf, type Series } from '@waxwing/core/sight';
import { useMemo, useState } from 'react';

import { useRules } from '../library/use-rules';
import { Failed, Loading } from '../shell/states';
import { say } from '../words/say';
import type { Clip } from './clip';
import { ClipView } from './clip-view';
import { KeepStill } from './keep-still';
import { LeadChart } from './lead-chart';
import { rankedReps } from './ranked';
import { readIn } from './reader';
import type { Told } from './reader.worker';
import { RepPair } from './rep-pair';

interface Props {
  clip: Clip;
  series: Series;
  movement: Movement;
  client?: ClientOnDay;
  narrow: boolean;
  onClose: () => void;
}

export function ReadingView({ clip, series, movement: plain, client, narrow, onClose }: Props) {
  const force = useRules();
  const movement = force ? underRules(plain, force.tags) : plain;
  const [view, setView] = useState<View | null>(null);
  const [quarters, setQuarters] = useState<Told['quarters']>(undefined);
  const [seconds, setSeconds] = useState(0);
  const query = useQuery({
    queryKey: ['reading', movement.id, view, quarters, series.times.length, clip.video.src],
    queryFn: () =>
      readIn(series, movement, movement.dose.tempo, {
        ...(view ? { view } : {}),
        ...(quarters === undefined ? {} : { quarters }),
      }),
    staleTime: Infinity,
    gcTime: 0,
  });
  if (query.error) return <Failed error={query.error} retry={() => void query.refetch()} />;
  if (query.isPending) return <Loading what={say.sight.theReading} />;
  const reading = query.data;
  if (!reading)
    return (
      <div className="max-w-xl space-y-3 text-lg">
        <p role="alert">{say.sight.couldNotBeReadFrom(movement.name)}</p>
        <Another onClose={onClose} />
      </div>
    );
  return (
    <div
      className={`grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 ${narrow ? '' : 'lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]'}`}
    >
      <ClipView
        clip={clip}
        series={series}
        reading={reading}
        marked={markedIn(reading)}
        onMoment={setSeconds}
        first={rankedReps(reading)[0]?.rep.turns ?? 0}
      />
      {/* What is said comes first where there is one column. */}
      <div className={`min-w-0 space-y-5 ${narrow ? 'order-first' : 'max-lg:order-first'}`}>
        <Sentences reading={reading} movement={movement} clip={clip} />
        <div className="flex flex-wrap items-end gap-3">
          <label>
            <span className="quiet block text-sm">{say.sight.filmedFrom}</span>
            <select
              className="select w-auto"
              value={reading.stand.view}
              onChange={(event) => setView(event.target.value as View)}
            >
              {VIEWS.map((one) => (
                <option key={one} value={one}>
                  {label(viewWords(one))}
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            className="btn"
            onClick={() => setQuarters(((reading.quarters + 1) % 4) as Told['quarters'])}
          >
            {say.sight.turnThePicture}
          </button>
          {client && (
            <KeepStill
              client={client}
              movement={movement}
              clip={clip}
              series={series}
              quarters={reading.quarters}
              says={sentencesAt(reading, movement, seconds)}
            />
          )}
          <Another onClose={onClose} />
        </div>
      </div>
      <div className="min-w-0">
        <LeadChart reading={reading} />
      </div>
      <RepPair reading={reading} movement={movement} clip={clip} series={series} />
      <div className={narrow ? 'min-w-0' : 'min-w-0 lg:col-span-2'}>
        <RepTable reading={reading} movement={movement} />
      </div>
    </div>
  );
}

const Another = ({ onClose }: { onClose: () => void }) => (
  <button type="button" className="btn" onClick={onClose}>
    {say.sight.anotherClip}
  </button>
);

const markedIn = ({ answers }: Reading): ReadonlySet<number> => new Set(answers.flatMap(({ seen }) => seen));

const faultName = (movement: Movement) => (kind: string) =>
  movement.faults.find((fault) => fault.kind === kind)?.name ?? label(kind);

/** Below this much of the clip with a body in it, that is said. */
const OFTEN = 0.8;

function Sentences({ reading, movement, clip }: { reading: Reading; movement: Movement; clip: Clip }) {
  const said = sentencesOf(reading, faultName(movement));
  return (
    <section aria-label={say.sight.whatWasSeen} className="space-y-3 text-lg">
      <h2 className="text-2xl">{movement.name}</h2>
      {said.seen.length > 0 && (
        <ul className="space-y-1">
          {said.seen.map(({ kind, words }) => (
            <li key={kind} className="border-error border-l-8 pl-3 text-xl font-bold">
              {words}
            </li>
          ))}
        </ul>
      )}
      <p className="text-xl">{said.facts.join(' ')}</p>
      {said.notSeen.length > 0 && <p>{say.common.notSeen(said.notSeen.join(', '))}</p>}
      {said.cannot.map(({ why, kinds }) => (
        <p key={why} className="quiet">
          {say.common.cantTell(why, kinds.join(', '))}
        </p>
      ))}
      {reading.present < OFTEN && (
        <p className="quiet">{say.sight.theBodyIsSeenIn(Math.round(100 * reading.present))}</p>
      )}
      {reading.quarters > 0 && <p className="quiet">{say.sight.thePictureLayOnIts}</p>}
      {clip.notes.map((note) => (
        <p key={note} className="quiet">
          {note}
        </p>
      ))}
      <p className="quiet text-sm">{say.sight.readByACameraWhich}</p>
    </section>
  );
}

/** What is said with a picture that is kept: the facts, and what was seen in the rep that it shows. */
function sentencesAt(reading: Reading, movement: Movement, seconds: number): string {
  const name = faultName(movement);
  const rep = reading.reps.findIndex(({ starts, ends }) => seconds >= starts && seconds <= ends);
  const seen = reading.answers.filter((answer) => answer.seen.includes(rep)).map(({ kind }) => name(kind));
  const { facts } = sentencesOf(reading, name);
  return [rep < 0 ? '' : say.sight.repAt(rep + 1), seen.length > 0 ? `${seen.join(', ')}.` : '', ...facts]
    .filter(Boolean)
    .join(' ')
    .slice(0, 400);
}

function RepTable({ reading, movement }: { reading: Reading; movement: Movement }) {
  const { reps, holds, answers, tempo } = reading;
  const shown = useMemo(() => answers.filter(({ cannot }) => cannot === null), [answers]);
  if (reps.length === 0) return null;
  const name = faultName(movement);
  const cell = 'border-base-300 border-b px-3 py-1.5 text-right tabular-nums whitespace-nowrap';
  return (
    <div className="overflow-x-auto">
      <table className="w-full">
        <caption className="mb-1 text-left font-bold">{holds ? say.sight.byPiece : say.sight.byRep}</caption>
        <thead>
          <tr className="text-right text-sm [&>th]:px-3 [&>th]:font-normal">
            <th scope="col" className="text-left">
              {holds ? say.sight.piece : say.sight.rep}
            </th>
            {!holds && (
              <>
                <th scope="col">{say.sight.farEnd}</th>
                <th scope="col">
                  {say.sight.lowering}
                  {tempo.lower > 0 && say.sight.ofSeconds(tempo.lower)}
                </th>
                <th scope="col">
                  {say.common.pause}
                  {tempo.pause > 0 && say.sight.ofSeconds(tempo.pause)}
                </th>
                <th scope="col">
                  {say.sight.rising}
                  {tempo.rise > 0 && say.sight.ofSeconds(tempo.rise)}
                </th>
              </>
            )}
            {holds && <th scope="col">{say.common.held}</th>}
            {shown.map(({ kind }) => (
              <th key={kind} scope="col">
                {name(kind)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {reps.map((rep, i) => (
            <tr key={i}>
              <th scope="row" className="border-base-300 border-b px-3 text-left">
                {repWords([i])}
              </th>
              {!holds && (
                <>
                  <td className={cell}>{amountWords(rep.reach, leadUnit(reading.lead))}</td>
                  <td className={cell}>{say.common.inSeconds(rep.lower.toFixed(1))}</td>
                  <td className={cell}>{say.common.inSeconds(rep.stay.toFixed(1))}</td>
                  <td className={cell}>{say.common.inSeconds(rep.rise.toFixed(1))}</td>
                </>
              )}
              {holds && <td className={cell}>{say.common.inSeconds(Math.round(rep.stay))}</td>}
              {shown.map(({ kind, seen, amounts, unit }) => {
                const amount = amounts[i] as number;
                return (
                  <td key={kind} className={`${cell} ${seen.includes(i) ? 'text-error font-bold' : ''}`}>
                    {Number.isNaN(amount)
                      ? '–'
                      : seen.includes(i)
                        ? say.sight.seen(amountWords(amount, unit))
                        : say.common.no}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
