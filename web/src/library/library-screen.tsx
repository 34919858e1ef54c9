/** The library: every movement by family and level, or what a search finds, narrowed by what is at hand and who is waiting. */
import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { becauseWords } from '@waxwing/core/formats';
import { familiesOf, type Family } from '@waxwing/core/ladder';
import {
  HOUSEHOLD,
  KIT_ITEMS,
  kitCounts,
  type KitItem,
  kitWords,
  label,
  type MovementSummary,
  PATTERNS,
  POSITIONS,
  usableOption,
} from '@waxwing/core/movement';
import { type FitNow, fitNow } from '@waxwing/core/progress';
import { Search } from 'lucide-react';
import { lazy, memo, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';

import { clientsQuery, movementsQuery, studioQuery } from '../api/queries';
import { useMay } from '../door/use-door';
import { Still } from '../figures/still';
import { Await, Empty, Loading } from '../shell/states';
import { useKeys } from '../shell/use-keys';
import { usePlainLinks } from '../shell/use-plain-links';
import { useSetParam } from '../shell/use-set-param';
import { FitMark } from '../words/fit-mark';
import { say } from '../words/say';
import { type FaultAnswer, useFinder } from './use-finder';
import { type Asked, NotAsked, useStanding } from './use-standing';

const NONE: readonly MovementSummary[] = [];
/** Movements named under a fault; the rest are counted. */
const MOST_NAMED = 4;

export function LibraryScreen() {
  const query = useQuery(movementsQuery);
  const movements = query.data ?? NONE;
  const [params, setParams] = useSearchParams();
  const [words, type] = useState(params.get('q') ?? '');
  const found = useFinder(words.trim());
  const box = useRef<HTMLInputElement>(null);
  useKeys(['/'], () => box.current?.focus());
  // The address follows when the box is left: typing must not wait for it, and coming back finds the search again.
  const remember = () => {
    if ((params.get('q') ?? '') === words) return;
    setParams(
      (old) => {
        if (words) old.set('q', words);
        else old.delete('q');
        return old;
      },
      { replace: true },
    );
  };

  const { train } = useMay();
  const families = useMemo(() => familiesOf(movements), [movements]);
  const levels = useMemo(() => levelsById(families), [families]);
  const most = useMemo(() => families.reduce((high, one) => Math.max(high, one.levels), 0), [families]);
  const { passes, fitOf, asked } = useFilter(params, levels);
  const byId = useMemo(() => new Map(movements.map((movement) => [movement.id, movement])), [movements]);
  const shown = useMemo(() => {
    const source = found ? found.movements.flatMap((id) => byId.get(id) ?? []) : movements;
    return source.filter(passes);
  }, [found, byId, movements, passes]);
  // The first search of a visit waits for the index; until then the whole list would pass for an answer.
  const looking = words.trim() !== '' && !found;
  const rows = useMemo(
    () =>
      looking ? [] : found ? shown.map((movement) => rowOf(movement, levels)) : rowsByFamily(families, new Set(shown)),
    [looking, found, shown, families, levels],
  );
  // Most visits go on to a movement: its screen is fetched while the list is read.
  useEffect(() => {
    void import('./movement-screen');
    void import('../figures/player');
  }, []);

  return (
    <div className="flex h-full flex-col">
      <header className="border-base-300 border-b px-4 pt-5 pb-3 sm:px-8">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-x-6 gap-y-3">
          <div className="flex items-baseline gap-5">
            <h1 className="shrink-0">{say.common.library}</h1>
            <nav aria-label={say.library.libraryTools} className="flex flex-wrap gap-x-4 text-base">
              <Link className="link" to="/library/map">
                {say.library.ladders}
              </Link>
              <Link className="link" to="/library/figures">
                {say.common.figures}
              </Link>
              <Link className="link" to="/library/health">
                {say.library.health}
              </Link>
              {train && (
                <Link className="link" to="/library/transfer">
                  {say.library.importAndExport}
                </Link>
              )}
              <Link className="link" to="/library/new">
                {say.library.newMovement}
              </Link>
            </nav>
          </div>
          <label className="input input-lg w-full max-w-md">
            <Search aria-hidden size={20} />
            <input
              ref={box}
              type="text"
              inputMode="search"
              aria-label={say.library.findAMovementOrA}
              placeholder={say.library.findKneesFallInRow}
              value={words}
              onChange={(event) => type(event.target.value)}
              onBlur={remember}
              onKeyDown={(event) => {
                if (event.key === 'Escape') type('');
                if (event.key === 'Enter') remember();
              }}
            />
            <kbd className="kbd kbd-sm max-sm:hidden" aria-hidden>
              /
            </kbd>
          </label>
        </div>
        <Filters params={params} setParams={setParams} most={most} />
      </header>
      <Await query={query} what={say.library.theLibrary}>
        {({ length }) =>
          length === 0 ? (
            <Empty title={say.library.noMovementsYet}>
              <p>{say.library.makeOneOrTakeIn}</p>
              <Link className="btn btn-primary" to="/library/new">
                {say.library.newMovement}
              </Link>
            </Empty>
          ) : (
            <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
              {found && <Faults faults={found.faults} byId={byId} />}
              {looking && <Loading what={say.library.whatMatches} />}
              {asked.unknown ? (
                <NotAsked {...asked} />
              ) : !looking && shown.length === 0 ? (
                <Empty title={say.library.nothingFound}>
                  <p>{words.trim() ? say.library.noMovementHasTheseWords : say.library.noMovementPassesAllOf}</p>
                </Empty>
              ) : (
                <Rows
                  rows={rows}
                  fitOf={fitOf}
                  counted={found ? (found.movements.length === shown.length ? found.total : shown.length) : null}
                  words={found?.words}
                />
              )}
            </div>
          )
        }
      </Await>
    </div>
  );
}

type Families = readonly Family<MovementSummary>[];
type Row = { head: Families[number]; count: number } | { movement: MovementSummary; level: number | null };

/** The level of a movement in the first of its families. */
const levelsById = (families: Families): ReadonlyMap<string, number> =>
  new Map(
    families.flatMap(({ family, members }) =>
      members.flatMap(({ movement, level }): [string, number][] =>
        movement.families[0] === family ? [[movement.id, level]] : [],
      ),
    ),
  );

const rowOf = (movement: MovementSummary, levels: ReadonlyMap<string, number>): Row => ({
  movement,
  level: levels.get(movement.id) ?? null,
});

const rowsByFamily = (families: Families, shown: ReadonlySet<MovementSummary>): Row[] =>
  families.flatMap((head) => {
    const members = head.members.filter(({ movement }) => shown.has(movement));
    return members.length === 0 ? [] : [{ head, count: members.length }, ...members];
  });

/** Heights are fixed, so that no row has to be drawn to know where the next one goes. A narrow page gives a name two lines. */
const ROW_HEIGHT = window.matchMedia('(min-width: 640px)').matches ? 49 : 86;
const HEAD_HEIGHT = 60;

/** Only the rows in view are drawn: a library of thousands scrolls as one of dozens. */
const Rows = memo(function Rows({
  rows,
  fitOf,
  counted,
  words,
}: {
  rows: readonly Row[];
  fitOf: ((movement: MovementSummary) => FitNow) | null;
  counted: number | null;
  /** What the rows answer. */
  words: string | undefined;
}) {
  const pane = useRef<HTMLDivElement>(null);
  const follow = usePlainLinks();
  // The virtualizer's functions change by design; the compiler's advice does not apply to it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => pane.current,
    estimateSize: (i) => (rows[i] && 'head' in rows[i] ? HEAD_HEIGHT : ROW_HEIGHT),
    overscan: 4,
  });
  const families = rows.flatMap((row, i) => ('head' in row ? [{ ...row.head, count: row.count, i }] : []));
  return (
    <>
      {families.length > 1 && (
        <nav
          aria-label={say.library.families}
          className="border-base-300 hidden w-48 shrink-0 overflow-y-auto border-r py-3 lg:block"
        >
          <ul>
            {families.map(({ family, group, count, i }, place) => (
              <li key={family}>
                {families[place - 1]?.group !== group && (
                  <p className={`px-4 pb-1 text-sm font-bold ${place > 0 ? 'pt-4' : ''}`}>{label(group)}</p>
                )}
                <button
                  type="button"
                  className="hover:bg-base-200 flex w-full justify-between px-4 py-1 text-left"
                  onClick={() => list.scrollToIndex(i, { align: 'start' })}
                >
                  <span>{label(family)}</span>
                  <span className="quiet">{count}</span>
                </button>
              </li>
            ))}
          </ul>
        </nav>
      )}
      {/* eslint-disable-next-line jsx-a11y-x/click-events-have-key-events, jsx-a11y-x/no-noninteractive-element-interactions -- the clicks of its links, which Enter makes too */}
      <div
        ref={pane}
        className="@container min-h-0 flex-1 overflow-y-auto px-4 pb-6 sm:px-8"
        tabIndex={0}
        role="region"
        aria-label={counted === null ? say.library.movements : say.library.foundMovements}
        data-words={words}
        onClick={follow}
      >
        {counted !== null && counted > 0 && (
          <p role="status" className="quiet pt-3">
            {say.library.foundBestFirst(counted)}
          </p>
        )}
        <div role="list" style={{ height: list.getTotalSize(), position: 'relative' }}>
          {list.getVirtualItems().map((item) => {
            const row = rows[item.index];
            return (
              row && (
                <div
                  // By place, not by movement: another answer then fills the rows that stand, which is far quicker than new ones.
                  key={item.index}
                  role="listitem"
                  className="absolute top-0 left-0 w-full"
                  style={{ transform: `translateY(${item.start}px)`, height: item.size }}
                >
                  {'head' in row ? (
                    <FamilyHead head={row.head} />
                  ) : (
                    <MovementRow movement={row.movement} level={row.level} fit={fitOf?.(row.movement)} />
                  )}
                </div>
              )
            );
          })}
        </div>
      </div>
    </>
  );
});

const FamilyHead = ({ head: { family, group, members, levels } }: { head: Families[number] }) => (
  <h2 className="border-base-content flex h-full items-end justify-between gap-4 border-b-2 pb-1">
    <span>
      {label(family)}
      {group !== family && <span className="quiet ml-3 text-base font-normal">{label(group)}</span>}
    </span>
    <a className="flex items-end gap-3 text-base font-normal hover:underline" href={`/library/map?family=${family}`}>
      <SmallLadder counts={countsOf(members, levels)} />
      <span className="link">{say.library.ladder}</span>
    </a>
  </h2>
);

/** How many movements there are at each level, the easiest first. */
const countsOf = (members: Families[number]['members'], levels: number): number[] =>
  Array.from({ length: levels }, (_, i) => members.filter(({ level }) => level === i + 1).length);

/** A ladder in little: a step for each level, and on it a mark for each movement. */
function SmallLadder({ counts }: { counts: readonly number[] }) {
  const [step, mark, most] = [9, 5, 4];
  const height = 30;
  return (
    <svg
      width={counts.length * step}
      height={height}
      role="img"
      aria-label={say.library.levels(counts.length)}
      className="shrink-0"
    >
      {counts.flatMap((count, level) => {
        const foot = height - 2 - (level / Math.max(1, counts.length - 1)) * 9;
        return Array.from({ length: Math.min(count, most) }, (_, i) => (
          <rect
            key={`${level} ${i}`}
            x={level * step}
            y={foot - mark * (i + 1) + 1}
            width={step - 2}
            height={mark - 1}
            fill="currentColor"
          />
        ));
      })}
    </svg>
  );
}

const MovementRow = memo(
  ({ movement, level, fit }: { movement: MovementSummary; level: number | null; fit: FitNow | undefined }) => (
    <a
      href={`/library/${movement.id}`}
      className="hover:bg-base-200 border-base-300 flex h-full items-center gap-4 border-b px-2"
    >
      <Still movement={movement} className="h-10 w-12 shrink-0" />
      <span className="min-w-0 flex-1 leading-tight sm:line-clamp-1">
        <span className="text-lg font-semibold max-sm:line-clamp-2">{movement.name}</span>
        {fit && fit.status !== 'open' && (
          <span className="ml-3 text-sm">
            <FitMark status={fit.status} /> {becauseWords(fit.because)}
          </span>
        )}
        <span className="quiet line-clamp-1 text-sm sm:hidden">
          {movement.kit.length === 0 ? say.library.noKit : kitWords(movement.kit)}
        </span>
      </span>
      <span className="quiet hidden w-44 shrink-0 text-sm @3xl:block">
        {label(movement.role)}, {movement.position.replaceAll('-', ' ')}
      </span>
      <span className="quiet line-clamp-2 w-2/5 max-w-64 shrink-0 text-sm max-sm:hidden" title={kitWords(movement.kit)}>
        {movement.kit.length === 0 ? say.library.noKit : kitWords(movement.kit)}
      </span>
      <span className="quiet w-16 shrink-0 text-right text-sm">{level !== null && say.library.level(level)}</span>
    </a>
  ),
);
MovementRow.displayName = 'MovementRow';

const FoundFaultPicture = lazy(() => import('./found-fault'));

/** Drawing waits until nobody types. */
const CALM_MS = 400;
const BETWEEN_MS = 120;
const MOST_PICTURED = 4;

const seenIn = ({ movements }: FaultAnswer, byId: ReadonlyMap<string, MovementSummary>) =>
  movements.flatMap(({ id, faultId }) => {
    const movement = byId.get(id);
    return movement ? [{ movement, faultId }] : [];
  });

/** How many pictures may be drawn: none while something still changes, then one after the other, so that no frame draws them all. */
function usePictured(what: unknown): number {
  const [pictured, setPictured] = useState<{ what: unknown; count: number }>({ what: null, count: 0 });
  const count = pictured.what === what ? pictured.count : 0;
  useEffect(() => {
    if (count >= MOST_PICTURED) return undefined;
    const next = setTimeout(() => setPictured({ what, count: count + 1 }), count === 0 ? CALM_MS : BETWEEN_MS);
    return () => clearTimeout(next);
  }, [what, count]);
  return count;
}

const Faults = memo(function Faults({
  faults,
  byId,
}: {
  faults: readonly FaultAnswer[];
  byId: ReadonlyMap<string, MovementSummary>;
}) {
  const follow = usePlainLinks();
  const pictured = usePictured(faults);
  return (
    // eslint-disable-next-line jsx-a11y-x/click-events-have-key-events, jsx-a11y-x/no-noninteractive-element-interactions -- the clicks of its links, which Enter makes too
    <section
      aria-labelledby="found-faults"
      onClick={follow}
      // On a wide page it keeps its place while words are typed, so that the movements beside it do not jump.
      className={`border-base-300 max-h-60 shrink-0 overflow-y-auto border-b px-4 py-4 sm:px-6 lg:max-h-none lg:w-96 lg:border-r lg:border-b-0 ${faults.length === 0 ? 'hidden lg:block' : ''}`}
    >
      <h2 id="found-faults" className="border-base-content mb-1 border-b-2 pb-1">
        {say.common.faults}
      </h2>
      {faults.length === 0 && <p className="quiet py-2">{say.library.noFaultHasTheseWords}</p>}
      <ul className="ruled">
        {faults.map((fault, place) => (
          // By place, as the rows are.
          <li key={place} className="flex gap-3 py-2">
            <div className="min-w-0 flex-1">
              <p className="font-semibold">{fault.name}</p>
              <p className="quiet mb-1 text-sm">{fault.looksLike}</p>
              <p className="flex flex-wrap gap-x-3 text-sm">
                {fault.movements.slice(0, MOST_NAMED).map(({ id, faultId }, place) => (
                  <a key={place} className="link" href={`/library/${id}?fault=${faultId}`}>
                    {byId.get(id)?.name}
                  </a>
                ))}
                {fault.total > MOST_NAMED && (
                  <span className="quiet">{say.library.andMoreMovements(fault.total - MOST_NAMED)}</span>
                )}
              </p>
            </div>
            <span className="min-h-20 w-20 shrink-0 max-lg:hidden">
              {place < pictured && (
                <Suspense>
                  <FoundFaultPicture seen={seenIn(fault, byId)} className="h-20 w-20" />
                </Suspense>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
});

const KIT_CHOICES = say.library.kitChoices;
const FIT_CHOICES = say.library.fitChoices;

interface Filter {
  passes: (movement: MovementSummary) => boolean;
  /** How a movement stands to the chosen client; null when nobody is chosen. */
  fitOf: ((movement: MovementSummary) => FitNow) | null;
  asked: Asked;
}

const counted = (items: readonly KitItem[]): ReadonlyMap<KitItem, number> =>
  new Map(items.map((item) => [item, Infinity]));

/** Everything, as many as anybody wants. */
const ANY_KIT = counted(KIT_ITEMS);

function useFilter(params: URLSearchParams, levels: ReadonlyMap<string, number>): Filter {
  const clientId = params.get('client') ?? '';
  const asked = useStanding(clientId);
  const { standing } = asked;
  const studio = useQuery(studioQuery).data;
  const filter = useMemo((): Omit<Filter, 'asked'> => {
    const kit = {
      studio: kitCounts(studio?.kit ?? []),
      home: counted(HOUSEHOLD),
      none: kitCounts([]),
    }[params.get('kit') ?? ''];
    // What kit there is, is asked for by a filter of its own.
    const fitOf = standing ? (movement: MovementSummary) => fitNow(standing, ANY_KIT, movement) : null;
    const pattern = params.get('pattern');
    const position = params.get('position');
    const level = params.get('level');
    const wanted = params.get('fit');
    return {
      fitOf,
      passes: (movement) =>
        (!pattern || movement.pattern === pattern) &&
        (!position || movement.position === position) &&
        (!level || levels.get(movement.id) === Number(level)) &&
        (!kit || usableOption(movement.kit, kit) !== undefined) &&
        (!wanted || !fitOf || (fitOf(movement).status === 'closed') === (wanted === 'closed')),
    };
  }, [params, levels, standing, studio]);
  return { ...filter, asked };
}

const Filters = memo(function Filters({
  params,
  setParams,
  most,
}: {
  params: URLSearchParams;
  setParams: ReturnType<typeof useSearchParams>[1];
  most: number;
}) {
  const clients = useQuery(clientsQuery).data ?? [];
  const choose = useSetParam();
  const select = (key: string, name: string, options: readonly (readonly [string, string])[]) => (
    <select
      aria-label={name}
      className={`select h-9 w-auto text-sm ${params.get(key) ? 'border-base-content font-bold' : ''}`}
      value={params.get(key) ?? ''}
      onChange={(event) => choose(key, event.target.value)}
    >
      {options.map(([value, text]) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </select>
  );
  const labelled = (values: readonly string[], all: string) =>
    [['', all], ...values.map((value) => [value, label(value)])] as [string, string][];
  const filtered = ['pattern', 'position', 'level', 'kit', 'client', 'fit'].some((key) => params.get(key));
  return (
    <div role="group" aria-label={say.library.filters} className="flex flex-wrap items-center gap-2">
      {select('pattern', say.library.pattern, labelled(PATTERNS, say.library.anyPattern))}
      {select('position', say.library.position, labelled(POSITIONS, say.library.anyPosition))}
      {select('level', say.library.levelTitle, [
        ['', say.library.anyLevel],
        ...Array.from({ length: most }, (_, i) => [String(i + 1), say.library.levelAt(i + 1)] as const),
      ])}
      {select(
        'kit',
        say.common.kit,
        Object.entries(KIT_CHOICES).map(([value, text]) => [value === 'any' ? '' : value, text]),
      )}
      {select('client', say.common.client, [
        ['', say.library.forAnybody],
        ...clients.map(({ id, name }) => [id, say.library.forWhomNamed(name)] as const),
      ])}
      {params.get('client') && select('fit', say.library.openOrClosed, Object.entries(FIT_CHOICES))}
      {filtered && (
        <button
          type="button"
          className="btn btn-sm btn-ghost"
          onClick={() => setParams((old) => new URLSearchParams({ q: old.get('q') ?? '' }), { replace: true })}
        >
          {say.library.clearFilters}
        </button>
      )}
    </div>
  );
});
