/** The bar under the floor: easier and harder in one tap, other ways out, undo and finish. */
import { useQueryClient } from '@tanstack/react-query';
import { goTo, type LaneView, movementOf, nextOther, nextUp, skip, swapsOf, swapTo } from '@waxwing/core/floor';
import { signWords } from '@waxwing/core/ladder';
import { describe, type RunStep } from '@waxwing/core/session';
import { Undo2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { movementQuery } from '../api/queries';
import { Dialog } from '../shell/dialog';
import { useKeys } from '../shell/use-keys';
import { LadderMark } from '../words/ladder-mark';
import { heldWords } from '../words/reasons';
import { say } from '../words/say';
import { ChooseMovement } from './choose-movement';
import { LevelsSheet } from './levels-sheet';
import { PainSheet } from './pain';
import { SwapSheet } from './swap-sheet';
import type { LiveSession } from './use-session';
import { useTap } from './use-tap';

/** Two of twelve columns on a narrow screen, its own width on a wide one. */
const SMALL = 'btn target col-span-2 px-1 xl:px-3';

type Open = 'swap' | 'pain' | 'next' | 'levels' | null;

export function ActionBar({
  live,
  views,
  view,
  onFinish,
}: {
  live: LiveSession;
  views: readonly LaneView[];
  view: LaneView;
  onFinish: () => void;
}) {
  const [open, setOpen] = useState<Open>(null);
  const queries = useQueryClient();
  const find = (id: string) => queries.getQueryData(movementQuery(id).queryKey)?.movement;
  const last = live.state.log.at(-1);
  const tap = useTap(view.client.id);
  const easier = swapsOf(view, 'too-hard', undefined, 1).ranked[0];
  const up = nextUp(view);
  const canGoUp = up.best !== undefined && up.held === null;
  const goDown = () => easier && tap(swapTo(view, easier.id, 'easier', uuidv7));
  const goUp = () => canGoUp && up.best && tap(swapTo(view, up.best.id, 'harder', uuidv7));

  const { step } = view;
  const skipOne = () => {
    if (step) tap(skip(step, uuidv7));
  };

  useKeys(['ArrowDown'], goDown);
  useKeys(['ArrowUp'], goUp);
  useKeys(['a'], () => view.movement && setOpen('swap'));
  useKeys(['p'], () => setOpen('pain'));
  useKeys(['m'], () => view.movement && setOpen('next'));
  useKeys(['v'], () => view.movement && setOpen('levels'));
  useKeys(['k'], skipOne);
  useKeys(['u'], () => void live.undo());
  const close = () => setOpen(null);

  return (
    <footer className="border-base-content bg-base-200 border-t-2 px-3 py-2">
      <div className="grid grid-cols-12 gap-2 xl:flex">
        {view.movement && (
          <>
            <BarButton
              onClick={goDown}
              held={!easier}
              title={say.common.easier}
              detail={easier?.name ?? say.floor.nothingEasierFits}
            >
              <LadderMark direction="easier" size={24} />
            </BarButton>
            <BarButton
              onClick={goUp}
              held={!canGoUp}
              title={up.ready && canGoUp ? say.floor.harderReady : say.common.harder}
              detail={up.held ? heldWords(up.held) : (up.best?.name ?? say.floor.nothingHarderFits)}
              hint={up.ready && say.floor.ready(signWords(up.ready))}
            >
              <LadderMark direction="harder" size={24} />
            </BarButton>
            <button type="button" className={SMALL} onClick={() => setOpen('swap')}>
              {say.floor.swap}
            </button>
            {views.length > 1 && (
              <button type="button" className={SMALL} onClick={() => setOpen('levels')}>
                {say.floor.levels}
              </button>
            )}
            <button type="button" className={SMALL} onClick={() => setOpen('next')}>
              {say.floor.next}
            </button>
          </>
        )}
        <button type="button" className={`${SMALL} text-error border-error`} onClick={() => setOpen('pain')}>
          {say.common.pain}
        </button>
        <button
          type="button"
          className={`${SMALL} h-auto xl:min-w-0 xl:flex-1`}
          disabled={!last}
          onClick={() => void live.undo()}
        >
          <Undo2 aria-hidden className="xl:hidden" />
          <span className="max-xl:sr-only flex min-w-0 flex-col">
            {say.common.undo}
            {last && <span className="truncate font-normal">{describe(last, live.state.log, find)}</span>}
          </span>
        </button>
        <button type="button" className={SMALL} onClick={onFinish}>
          {say.floor.finish}
        </button>
      </div>
      {open === 'swap' && <SwapSheet view={view} onClose={close} />}
      {open === 'levels' && <LevelsSheet views={views} view={view} onClose={close} />}
      {open === 'pain' && <PainSheet view={view} onClose={close} />}
      {open === 'next' && (
        <Dialog title={say.floor.nextMovement} onClose={close}>
          {step && <GoOn view={view} next={nextOther(view)} onSkip={skipOne} onDone={close} />}
          <ChooseMovement view={view} onDone={close} />
        </Dialog>
      )}
    </footer>
  );
}

/** What is planned next: go to it now, or skip the set in hand. */
function GoOn({
  view,
  next,
  onSkip,
  onDone,
}: {
  view: LaneView;
  next: RunStep | undefined;
  onSkip: () => void;
  onDone: () => void;
}) {
  const tap = useTap(view.client.id);
  const go = () => {
    if (next) tap(goTo(next, uuidv7));
    onDone();
  };
  return (
    <div className="flex flex-wrap gap-2">
      {next && (
        <button type="button" className="btn btn-primary target" onClick={go}>
          {say.floor.goOnTo((movementOf(view, next.lane.movementId)?.name ?? '').toLowerCase())}
        </button>
      )}
      <button
        type="button"
        className="btn target"
        onClick={() => {
          onSkip();
          onDone();
        }}
      >
        {say.floor.skipThisSet}
      </button>
    </div>
  );
}

function BarButton({
  title,
  detail,
  hint,
  held,
  onClick,
  children,
}: {
  title: string;
  detail: string;
  hint?: string | null;
  /** Held back; `detail` says why. */
  held: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className={`btn target col-span-6 h-auto min-w-0 flex-1 justify-start gap-3 px-3 py-1 text-left ${held ? 'held' : ''}`}
      title={hint ?? undefined}
      aria-disabled={held}
      onClick={onClick}
    >
      {children}
      <span className="flex min-w-0 flex-col">
        <span>{title}</span>
        <span className="truncate font-normal">{detail}</span>
      </span>
    </button>
  );
}
