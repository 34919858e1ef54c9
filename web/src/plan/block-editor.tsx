/** One block of a plan: its rounds, its lines in order, and on each line a lane for everybody. */
import { testsOf } from '@waxwing/core/client';
import { atHand, loadsOpen, sensibleLoads } from '@waxwing/core/dosage';
import { label, UNIT_WORDS } from '@waxwing/core/movement';
import {
  type Block,
  inRounds,
  isByWork,
  minuteWords,
  type PatternFacts,
  patternOf,
  type Plan,
  type PlanItem,
  type PlanLane,
  roundsIn,
  secondsOf,
  setsOfLane,
  timelineOf,
  turnSeconds,
  withPattern,
  withSets,
} from '@waxwing/core/planning';
import { ArrowUp, Link2, Lock, LockOpen, Trash2 } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';

import { Still } from '../figures/still';
import { PickMovement } from '../library/pick-movement';
import { SortableRows } from '../library/sortable-rows';
import { LadderMark } from '../words/ladder-mark';
import { firstName } from '../words/names';
import { whyWords } from '../words/reasons';
import { say } from '../words/say';
import { ClockFields } from './clock-fields';
import {
  addItem,
  blockUp,
  changeBlock,
  changeItem,
  changeLane,
  combineLast,
  freshLane,
  moveItem,
  removeItem,
  toBlock,
  withBlocks,
  withRounds,
} from './edit';
import { NumberField, TempoField } from './fields';
import { LevelButtons } from './level-buttons';
import { namesIn } from './names-in';
import { openRung } from './rungs';
import { SetFields } from './set-fields';
import { itemName } from './tape';
import type { World } from './use-world';
import { WeightField } from './weight-field';

interface Props {
  block: Block;
  plan: Plan;
  world: World;
  change: (plan: Plan) => void;
  /** The item that was asked for on the tape. */
  open: string | null;
  setOpen: (itemId: string | null) => void;
}

export function BlockEditor({ block, plan, world, change, open, setOpen }: Props) {
  const combined = combineLast(plan, block) !== plan;
  return (
    <section aria-label={label(block.kind)}>
      <div className="border-base-content mb-2 flex flex-wrap items-end gap-x-4 gap-y-2 border-b-2 pb-1">
        <h2 className="flex-1">
          {label(block.kind)}{' '}
          <span className="quiet text-base font-normal">
            {minuteWords(secondsOf(timelineOf({ blocks: [block] }, world.context)))}
          </span>
        </h2>
        {inRounds(block) && (
          <NumberField
            title={say.plan.rounds}
            value={block.rounds}
            low={1}
            high={20}
            onChange={(rounds) => change(changeBlock(plan, block.id, (one) => withRounds(one, rounds)))}
          />
        )}
        {block.kind === 'circuit' && (
          <ClockFields block={block} onChange={(next) => change(changeBlock(plan, block.id, () => next))} />
        )}
        {plan.blocks[0] !== block && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            aria-label={say.plan.moveTheBlockUp(label(block.kind))}
            onClick={() => change(blockUp(plan, block.id))}
          >
            <ArrowUp aria-hidden size={18} />
          </button>
        )}
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          aria-label={say.plan.removeTheBlock(label(block.kind))}
          onClick={() =>
            change(
              withBlocks(
                plan,
                plan.blocks.filter((one) => one !== block),
              ),
            )
          }
        >
          <Trash2 aria-hidden size={18} />
        </button>
      </div>
      <SortableRows
        ids={block.items.map(({ id }) => id)}
        name={`line of ${label(block.kind).toLowerCase()}`}
        onMove={(from, to) => change(moveItem(plan, block.id, from, to))}
      >
        {(i) => {
          const item = block.items[i];
          return item ? (
            <Line
              item={item}
              last={i === block.items.length - 1}
              block={block}
              plan={plan}
              world={world}
              change={change}
              asked={open === item.id}
              onShown={() => setOpen(null)}
            />
          ) : null;
        }}
      </SortableRows>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <PickMovement
          title={say.plan.addAMovementTo(label(block.kind).toLowerCase())}
          onPick={(id) => change(addItem(world, plan, block.id, id))}
        />
        {combined && (
          <button type="button" className="btn btn-sm" onClick={() => change(combineLast(plan, block))}>
            {say.plan.combineTheLastTwo}
          </button>
        )}
      </div>
    </section>
  );
}

function Line({
  item,
  last,
  block,
  plan,
  world,
  change,
  asked,
  onShown,
}: Omit<Props, 'open' | 'setOpen'> & { item: PlanItem; last: boolean; asked: boolean; onShown: () => void }) {
  const name = itemName(item, world);
  const first = world.context.find(item.lanes[0]?.movementId ?? '');
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!asked) return;
    row.current?.scrollIntoView({ block: 'center' });
    row.current?.focus();
    onShown();
  }, [asked, onShown]);
  return (
    <div ref={row} tabIndex={-1} className="border-base-300 flex items-start gap-1 border-b pb-1 outline-offset-4">
      {first && <Still movement={first} className="h-12 w-12 shrink-0 max-sm:hidden" />}
      <div className="min-w-0 flex-1 space-y-2">
        {item.lanes.map((lane) => (
          <Lane key={lane.clientId} lane={lane} item={item} block={block} plan={plan} world={world} change={change} />
        ))}
      </div>
      <div className="grid shrink-0 grid-cols-2">
        <button
          type="button"
          className="btn btn-ghost btn-sm px-1.5"
          aria-pressed={item.locked}
          aria-label={say.plan.lock(name)}
          title={item.locked ? say.plan.lockedKeptBySuggestionsAnd : say.plan.lockThis}
          onClick={() => change(changeItem(plan, item.id, (one) => ({ ...one, locked: !one.locked })))}
        >
          {item.locked ? <Lock aria-hidden size={18} /> : <LockOpen aria-hidden size={18} className="quiet" />}
        </button>
        {last ? (
          <span />
        ) : (
          <button
            type="button"
            className="btn btn-ghost btn-sm px-1.5"
            aria-pressed={item.tied}
            aria-label={say.plan.keepTogetherNamed(name)}
            title={item.tied ? say.plan.theNextFollowsStraightAfter : say.plan.keepTogether}
            onClick={() => change(changeItem(plan, item.id, (one) => ({ ...one, tied: !one.tied })))}
          >
            <Link2 aria-hidden size={18} className={item.tied ? '' : 'quiet opacity-60'} />
          </button>
        )}
        {plan.blocks.length > 1 && (
          <select
            className="select select-sm w-10 px-1"
            aria-label={say.plan.moveToAnotherBlock(name)}
            title={say.plan.toAnotherBlock}
            value=""
            onChange={(event) => event.target.value && change(toBlock(plan, item, event.target.value))}
          >
            <option value="">⇅</option>
            {plan.blocks
              .filter((one) => one !== block)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {label(one.kind)}
                </option>
              ))}
          </select>
        )}
        <button
          type="button"
          className="btn btn-ghost btn-sm px-1.5"
          aria-label={say.plan.remove(name)}
          onClick={() => change(removeItem(plan, item.id))}
        >
          <Trash2 aria-hidden size={18} />
        </button>
      </div>
    </div>
  );
}

function Lane({
  lane,
  item,
  block,
  plan,
  world,
  change,
}: Omit<Props, 'open' | 'setOpen'> & { lane: PlanLane; item: PlanItem }) {
  const movement = world.context.find(lane.movementId);
  const client = world.clients.find(({ id }) => id === lane.clientId);
  const limits = world.context.clients.find(({ id }) => id === lane.clientId)?.standing.limits ?? [];
  const loads = movement ? atHand(loadsOpen(movement, limits, world.place.kit), lane.load?.item ?? null) : [];
  const used = (world.records.get(lane.clientId)?.sets[lane.movementId] ?? []).flatMap(({ sets }) =>
    sets.flatMap(({ kg }) => kg ?? []),
  );
  const near = sensibleLoads(loads, lane.load, used);
  const several = plan.clientIds.length > 1;
  const timed = isByWork(block);
  // Where a clock says when to change, the rest is the block's.
  const ownRest = turnSeconds(block) === null && roundsIn(block) === null;
  const of = `${movement?.name ?? lane.movementId}${several ? say.plan.forClient(client?.name) : ''}`;
  const replace = (next: PlanLane) => change(changeLane(plan, item.id, lane.clientId, () => next));
  const rung = (direction: 'easier' | 'harder') => {
    const to = openRung(world, lane.clientId, lane.movementId, direction);
    return (to && freshLane(world, plan, lane.clientId, to)) || null;
  };
  const facts = (rounds: number): PatternFacts => ({
    rounds,
    each: movement?.sides === 'each',
    byClock: timed,
    loads,
    easier: rung('easier'),
    harder: rung('harder'),
  });
  const rounds = setsOfLane(block, lane);
  const pattern = patternOf(lane, facts(rounds));
  /** Rounds that follow a pattern follow it with the new numbers as well. */
  const set = (part: Partial<PlanLane>) => {
    const next = { ...lane, ...part };
    const sets = setsOfLane(block, next);
    replace(pattern ? withPattern(next, pattern, facts(sets)) : withSets(next, sets));
  };
  const goTo = (movementId: string) => {
    const fresh = freshLane(world, plan, lane.clientId, movementId);
    if (fresh)
      change(changeLane(plan, item.id, lane.clientId, (old) => ({ ...fresh, sets: old.sets, rest: old.rest })));
  };
  const unit = UNIT_WORDS[movement?.dose.mode ?? 'reps'];
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <div className="flex flex-1 basis-48 flex-wrap items-center gap-x-3 gap-y-1">
          {several && <span className="quiet w-20 truncate">{client && firstName(client)}</span>}
          <span>
            <Link className="link text-lg leading-tight font-semibold" to={`/library/${lane.movementId}`}>
              {movement?.name ?? lane.movementId}
            </Link>
            {lane.withId !== null && (
              <span>
                {say.plan.with}
                {world.context.find(lane.withId)?.name}
              </span>
            )}
          </span>
          <Rungs movementId={lane.movementId} clientId={lane.clientId} of={of} world={world} onTake={goTo} />
          {several && (
            <LevelButtons
              of={of}
              lane={lane}
              item={item}
              plan={plan}
              world={world}
              onTake={(next, baseId) =>
                change(
                  changeItem(
                    changeLane(plan, item.id, lane.clientId, () => next),
                    item.id,
                    (one) => ({ ...one, baseId }),
                  ),
                )
              }
            />
          )}
        </div>
        <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
          {!inRounds(block) && (
            <>
              <NumberField
                title={say.plan.setsOf(of)}
                hidden
                value={lane.sets}
                low={1}
                high={20}
                onChange={(sets) => set({ sets })}
              />
              <span aria-hidden>×</span>
            </>
          )}
          {!timed && !lane.parts && (
            <>
              <NumberField
                title={say.plan.amountOf(
                  unit === 'reps' ? say.common.reps : unit === 's' ? say.common.seconds : say.plan.metres,
                  of,
                )}
                hidden
                value={lane.amount}
                low={1}
                high={3600}
                onChange={(amount) => set({ amount })}
              />
              <span className="quiet mr-2 text-sm">
                {unit}
                {movement?.sides === 'each' && say.common.aSide}
              </span>
            </>
          )}
          {loads.length > 0 && (
            <WeightField
              of={of}
              load={lane.load}
              loads={loads}
              near={near}
              // What was lighter than the old weight may not be so any more.
              onChange={(load) => set({ load, drops: undefined })}
            />
          )}
          {!timed && unit === 'reps' && (
            <TempoField title={say.plan.tempoOf(of)} value={lane.tempo} onChange={(tempo) => set({ tempo })} />
          )}
          {ownRest && (
            <>
              <NumberField
                title={say.plan.restAfter(of)}
                hidden
                value={lane.rest}
                low={0}
                high={900}
                onChange={(rest) => set({ rest })}
              />
              <span className="quiet text-sm">{say.plan.sRest}</span>
            </>
          )}
        </div>
      </div>
      <div className="flex flex-wrap items-baseline gap-x-3">
        {movement && (
          <SetFields
            of={of}
            lane={lane}
            movement={movement}
            facts={facts(rounds)}
            tests={testsOf(lane.movementId, world.records.get(lane.clientId)?.tests ?? [])}
            nameOf={namesIn(world).movement}
            onChange={replace}
          />
        )}
        {lane.why.length > 0 && <p className="quiet text-sm">{whyWords(lane.why, namesIn(world).movement)}</p>}
      </div>
    </div>
  );
}

/** One rung down or up, where the ladder has one that is open. */
function Rungs({
  movementId,
  clientId,
  of,
  world,
  onTake,
}: {
  movementId: string;
  clientId: string;
  of: string;
  world: World;
  onTake: (movementId: string) => void;
}) {
  return (
    <span className="flex gap-1">
      {(['easier', 'harder'] as const).map((direction) => {
        const to = world.context.find(openRung(world, clientId, movementId, direction) ?? '');
        return (
          to && (
            <button
              key={direction}
              type="button"
              className="btn btn-ghost btn-sm px-1.5"
              aria-label={say.plan.otherThan(
                direction === 'easier' ? say.common.easier : say.common.harder,
                of,
                to.name,
              )}
              title={to.name}
              onClick={() => onTake(to.id)}
            >
              <LadderMark direction={direction} />
            </button>
          )
        );
      })}
    </span>
  );
}
