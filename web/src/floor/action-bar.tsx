/** The bar under the floor: easier and harder in one tap, other ways out, undo and finish. */
import { describe } from '@waxwing/core/session';
import { useQueryClient } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { movementQuery } from '../api/queries';
import { useKeys } from '../shell/use-keys';
import { LadderMark } from '../words/ladder-mark';
import { ChooseMovement } from './choose-movement';
import { PainSheet } from './pain';
import { Sheet } from './sheet';
import { startSwap, SwapSheet } from './swap-sheet';
import { nextUp, type LaneView } from './use-lane';
import type { LiveSession } from './use-session';

/** Two of ten columns on a narrow screen, its own width on a wide one. */
const SMALL = 'btn target col-span-2 px-1 xl:px-4';

type Open = 'swap' | 'pain' | 'next' | null;

export function ActionBar({ live, view, onFinish }: { live: LiveSession; view: LaneView; onFinish: () => void }) {
  const [open, setOpen] = useState<Open>(null);
  const queries = useQueryClient();
  const find = (id: string) => queries.getQueryData(movementQuery(id).queryKey)?.movement;
  const last = live.state.log.at(-1);
  const easier = view.swaps('too-hard', undefined, 1).ranked[0];
  const up = nextUp(view);
  const canGoUp = up.best !== undefined && up.held === null;
  const goDown = () => easier && startSwap(view, easier.id, 'easier');
  const goUp = () => canGoUp && up.best && startSwap(view, up.best.id, 'harder');

  useKeys(['ArrowDown'], goDown);
  useKeys(['ArrowUp'], goUp);
  useKeys(['a'], () => view.entry && setOpen('swap'));
  useKeys(['p'], () => setOpen('pain'));
  useKeys(['m'], () => view.entry && setOpen('next'));
  useKeys(['u'], () => void live.undo());
  const close = () => setOpen(null);

  return (
    <footer className="border-base-content bg-base-200 border-t-2 px-3 py-2">
      <div className="grid grid-cols-10 gap-2 xl:flex">
        {view.entry && (
          <>
            <BarButton onClick={goDown} held={!easier} title="Easier" detail={easier?.name ?? 'nothing easier fits'}>
              <LadderMark direction="easier" size={24} />
            </BarButton>
            <BarButton
              onClick={goUp}
              held={!canGoUp}
              title={up.ready && canGoUp ? 'Harder · ready' : 'Harder'}
              detail={up.held ?? up.best?.name ?? 'nothing harder fits'}
              hint={up.ready}
            >
              <LadderMark direction="harder" size={24} />
            </BarButton>
            <button type="button" className={SMALL} onClick={() => setOpen('swap')}>
              Swap
            </button>
            <button type="button" className={SMALL} onClick={() => setOpen('next')}>
              Next
            </button>
          </>
        )}
        <button type="button" className={`${SMALL} text-error border-error`} onClick={() => setOpen('pain')}>
          Pain
        </button>
        <button
          type="button"
          className={`${SMALL} h-auto xl:min-w-0 xl:flex-1`}
          disabled={!last}
          onClick={() => void live.undo()}
        >
          <Undo2 aria-hidden className="xl:hidden" />
          <span className="max-xl:sr-only flex min-w-0 flex-col">
            Undo
            {last && <span className="truncate text-base font-normal">{describe(last, live.state.log, find)}</span>}
          </span>
        </button>
        <button type="button" className={SMALL} onClick={onFinish}>
          Finish
        </button>
      </div>
      {open === 'swap' && <SwapSheet view={view} onClose={close} />}
      {open === 'pain' && <PainSheet view={view} onClose={close} />}
      {open === 'next' && (
        <Sheet title="Next movement" onClose={close}>
          <ChooseMovement view={view} onDone={close} />
        </Sheet>
      )}
    </footer>
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
      className={`btn target col-span-5 h-auto min-w-0 flex-1 justify-start gap-3 px-3 py-1 text-left ${held ? 'held' : ''}`}
      title={hint ?? undefined}
      aria-disabled={held}
      onClick={onClick}
    >
      {children}
      <span className="flex min-w-0 flex-col">
        <span>{title}</span>
        <span className="truncate text-base font-normal">{detail}</span>
      </span>
    </button>
  );
}
