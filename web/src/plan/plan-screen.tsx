/** One plan at the desk: the tape to scale above, the lines below, and beside them what the whole comes to and what is wrong with it. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { CLEARANCE_WORDS } from '@waxwing/core/client';
import { label } from '@waxwing/core/movement';
import {
  type Block,
  BLOCK_KINDS,
  type BlockKind,
  DAY_MINUTES,
  type Plan,
  type PlanItem,
  type StoredPlan,
  timelineOf,
  totalsOfPlan,
  warningsOf,
} from '@waxwing/core/planning';
import { useMemo, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';

import { call } from '../api/http';
import { planQuery, plansChanged } from '../api/queries';
import { useMay } from '../door/use-door';
import { StartSession } from '../floor/start-session';
import { Await, Failed, Loading } from '../shell/states';
import { localField } from '../words/dates';
import { PlaceField } from '../words/place-field';
import { savedWords, suggestWords } from '../words/plan-words';
import { say } from '../words/say';
import { TROUBLE_WORDS } from '../words/trouble';
import { BlockEditor } from './block-editor';
import { addBlock, atPlace, copyOf, moveItem, withBlocks } from './edit';
import { faultNames } from './fault-names';
import { AimField, NumberField, RoomField } from './fields';
import { namesIn } from './names-in';
import { forgetDraft, type Saving } from './plan-saver';
import { ReadPlan } from './read-plan';
import { Sums, ToMend } from './side-panel';
import { Stations } from './stations-panel';
import { Tape } from './tape';
import { usePlanDraft } from './use-plan-draft';
import { knownPairs, useWorld, type World, worldAt } from './use-world';
import { WhatIf } from './what-if';

export function PlanScreen() {
  const { planId = '' } = useParams();
  return (
    <Await query={useQuery(planQuery(planId))} what={say.plan.thePlan}>
      {(stored) => <WithWorld key={stored.id} stored={stored} />}
    </Await>
  );
}

function WithWorld({ stored }: { stored: StoredPlan }) {
  const { world, error } = useWorld(stored.clientIds);
  const { train } = useMay();
  if (error) return <Failed error={error} />;
  if (world && !train) return <ReadPlan stored={stored} world={worldAt(world, stored.place)} />;
  return world ? <Editor stored={stored} world={world} /> : <Loading what={say.plan.clientsKitAndLibrary} />;
}

/** Time left from which filling up is offered. */
const ROOM_SECONDS = 5 * 60;

const lockItems = (blocks: readonly Block[], locked: (item: PlanItem) => boolean): Block[] =>
  blocks.map((block) => ({ ...block, items: block.items.map((item) => ({ ...item, locked: locked(item) })) }));

function Editor({ stored, world: atStudio }: { stored: StoredPlan; world: World }) {
  const { plan, change, undo, saving } = usePlanDraft(stored);
  const world = useMemo(() => worldAt(atStudio, plan.place), [atStudio, plan.place]);
  const queries = useQueryClient();
  // Where an item would be put down, while it is carried: totals follow the hand.
  const [carried, carry] = useState<Plan | null>(null);
  // Why a suggestion is as it is comes along from where it was made.
  const { state } = useLocation() as { state: { reasons?: readonly string[] } | null };
  const [said, tell] = useState<readonly string[]>(state?.reasons ?? []);
  const [busy, setBusy] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const shown = carried ?? plan;
  const segments = useMemo(() => timelineOf(shown, world.context), [shown, world.context]);
  const totals = totalsOfPlan(shown, world.context, segments);
  const warnings = useMemo(() => warningsOf(plan, world.context), [plan, world.context]);

  /** What was worked out for this plan, unless it was changed in the meantime: then the change counts. */
  const meanwhile = (blocks: Block[]) => (now: Plan) => (now === plan ? withBlocks(now, blocks) : now);
  const edit = (next: Plan) => change(() => next);
  /** One piece of work at a time; what fails says so, and the plan stays as it is. */
  const workOut = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      tell([say.plan.thatDidNotWork(error instanceof Error ? error.message : String(error))]);
    } finally {
      setBusy(false);
    }
  };
  const order = () =>
    workOut(async () => {
      const reordered = await world.planner.order(plan, knownPairs(world));
      tell([savedWords(reordered)]);
      if (reordered.moved) change(meanwhile(reordered.blocks));
    });
  /** @param stay what stays of the plan is locked in them */
  const suggested = async (stay: Block[], notThese: string[]) => {
    const request = {
      minutes: plan.minutes,
      purpose: plan.purpose,
      clients: world.suggestClients,
      kit: world.place.kit,
      space: plan.space,
      wanted: [],
      without: [],
      blocks: stay,
      notThese,
      now: new Date().toISOString(),
    };
    const { blocks, reasons } = await world.planner.suggest(request, await faultNames(queries, world));
    tell(reasons.map((reason) => suggestWords(reason, namesIn(world))));
    return blocks;
  };
  const suggest = () =>
    workOut(async () => {
      const items = plan.blocks.flatMap((block) => block.items);
      const notThese = items
        .filter(({ locked }) => !locked)
        .flatMap(({ lanes }) => lanes.map(({ movementId }) => movementId))
        .filter((id) => !items.some((item) => item.locked && item.lanes.some(({ movementId }) => movementId === id)));
      const blocks = await suggested(plan.blocks, notThese);
      change(meanwhile(blocks));
    });
  /** Everything stays, and what there is time for comes round it. */
  const fill = () =>
    workOut(async () => {
      const locked = new Set(
        plan.blocks.flatMap(({ items }) => items.filter((item) => item.locked)).map(({ id }) => id),
      );
      const whole = lockItems(plan.blocks, () => true);
      const blocks = await suggested(whole, []);
      change(meanwhile(lockItems(blocks, ({ id }) => locked.has(id))));
    });

  return (
    <div className="page max-w-none">
      <Header plan={plan} world={world} stored={stored} change={edit} undo={undo} saving={saving} />
      <Tape
        plan={plan}
        world={world}
        segments={segments}
        onMove={(blockId, from, to) => edit(moveItem(plan, blockId, from, to))}
        onCarry={(blockId, from, to) => carry(blockId === null ? null : moveItem(plan, blockId, from, to))}
        onOpen={setOpen}
      />
      <div className="mt-6 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1fr)_20rem] xl:grid-rows-[auto_1fr]">
        <div className="order-2 min-w-0 space-y-6 xl:order-1 xl:row-span-2">
          {plan.blocks.map((block) => (
            <BlockEditor
              key={block.id}
              block={block}
              plan={plan}
              world={world}
              change={edit}
              open={open}
              setOpen={setOpen}
            />
          ))}
          <AddBlock onAdd={(kind) => edit(addBlock(plan, kind))} />
          {plan.clientIds.length > 1 && <Stations plan={plan} world={world} />}
          <WhatIf plan={plan} world={world} />
        </div>
        <div className="order-1 space-y-6 xl:order-2">
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-primary" disabled={busy} onClick={() => void order()}>
              {say.plan.bestOrder}
            </button>
            <button type="button" className="btn" disabled={busy} onClick={() => void suggest()}>
              {say.plan.suggestWhatIsNotLocked}
            </button>
            {totals.seconds < plan.minutes * 60 - ROOM_SECONDS && plan.blocks.length > 0 && (
              <button type="button" className="btn" disabled={busy} onClick={() => void fill()}>
                {say.plan.fillUpToMin(plan.minutes)}
              </button>
            )}
          </div>
          <div role="status">
            <ul className="space-y-1">
              {said.map((words) => (
                <li key={words}>{words}</li>
              ))}
            </ul>
          </div>
          <ToMend world={world} warnings={warnings} onFix={(blocks) => edit(withBlocks(plan, blocks))} />
        </div>
        <div className="order-3 space-y-6">
          <Sums plan={shown} world={world} totals={totals} />
        </div>
      </div>
    </div>
  );
}

function Header({
  plan,
  world,
  stored,
  change,
  undo,
  saving,
}: {
  plan: Plan;
  world: World;
  stored: StoredPlan;
  change: (plan: Plan) => void;
  undo: (() => void) | undefined;
  saving: Saving;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const tell = async (work: () => Promise<void>) => {
    setProblem(null);
    await work().catch((error: unknown) => setProblem(error instanceof Error ? error.message : String(error)));
  };
  const template = async () => {
    const copy = copyOf(plan, { template: true, startsAt: null, name: say.plan.templateNamed(plan.name).slice(0, 80) });
    await tell(async () => {
      const made = await call('POST /plans', { body: { id: uuidv7(), plan: copy } });
      void plansChanged(queries);
      await navigate(`/plan/${made.id}`);
    });
  };
  const remove = async () => {
    if (!window.confirm(say.plan.deleteThisCannotBeUndone(plan.name))) return;
    await tell(async () => {
      await call('DELETE /plans/{id}', { id: stored.id });
      forgetDraft(stored.id);
      void plansChanged(queries);
      await navigate('/plan');
    });
  };
  return (
    <header className="mb-5">
      <p className="quiet text-sm">
        <Link className="link" to="/plan">
          {say.common.plan}
        </Link>
        {plan.template && say.plan.isTemplate}
      </p>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <h1 className="min-w-0 flex-1 basis-full text-2xl xl:basis-80">
          <input
            key={plan.name}
            aria-label={say.plan.nameOfThePlan}
            className="w-full border-b-2 border-transparent bg-transparent outline-none focus:border-current"
            defaultValue={plan.name}
            maxLength={80}
            onBlur={({ target }) => {
              const name = target.value.trim();
              if (name) change({ ...plan, name });
              else target.value = plan.name;
            }}
          />
        </h1>
        <label>
          <span className="quiet block text-sm">{say.plan.when}</span>
          <input
            type="datetime-local"
            className="input w-52"
            value={plan.startsAt === null ? '' : localField(new Date(plan.startsAt))}
            onChange={({ target }) =>
              change({ ...plan, startsAt: target.value ? new Date(target.value).toISOString() : null })
            }
          />
        </label>
        <NumberField
          title={say.common.minutes}
          value={plan.minutes}
          low={5}
          high={DAY_MINUTES}
          onChange={(minutes) => change({ ...plan, minutes })}
        />
        <AimField value={plan.purpose} onChange={(purpose) => change({ ...plan, purpose })} />
        <PlaceField
          places={world.places}
          value={plan.place}
          onChange={(place) => change(atPlace(world, plan, place))}
        />
        <RoomField value={plan.space} onChange={(space) => change({ ...plan, space })} />
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-2">
        {world.clients.map((client) => (
          <span key={client.id} className="flex items-center gap-2">
            <Link className="link font-semibold" to={`/people/${client.id}`}>
              {client.name}
            </Link>
            <Link className="btn btn-sm" to={`/people/${client.id}/today`}>
              {say.common.howTheyAreToday}
            </Link>
            <Link className="btn btn-sm" to={`/plan/${stored.id}/sheet/${client.id}`}>
              {say.plan.sheet}
            </Link>
          </span>
        ))}
        <span className="flex-1" />
        <button type="button" className="btn btn-sm" disabled={!undo} onClick={undo}>
          {say.common.undo}
        </button>
        {!plan.template && (
          <button type="button" className="btn btn-sm" onClick={() => void template()}>
            {say.plan.keepAsTemplate}
          </button>
        )}
        <button type="button" className="btn btn-sm" onClick={() => void remove()}>
          {say.plan.delete}
        </button>
        {/* The session goes by the plan as the server has it. */}
        {saving === 'saved' && (
          <StartSession clientIds={plan.clientIds} planId={stored.id}>
            {say.common.toTheFloor}
          </StartSession>
        )}
        <SavingWords planId={stored.id} saving={saving} />
        {problem && (
          <p role="alert" className="text-error basis-full font-semibold">
            {problem}
          </p>
        )}
      </div>
      {world.clients
        .filter(({ ease }) => ease?.code === 'clearance')
        .map(({ id, name: who }) => (
          <p key={id} role="alert" className="text-error mt-2 font-bold">
            {who}: {CLEARANCE_WORDS}
          </p>
        ))}
    </header>
  );
}

function SavingWords({ planId, saving }: { planId: string; saving: Saving }) {
  if (typeof saving === 'object')
    return (
      <p role="alert" className="text-error basis-full">
        {say.plan.notSaved(saving.refused)}
        <button
          type="button"
          className="link"
          onClick={() => {
            forgetDraft(planId);
            window.location.reload();
          }}
        >
          {say.plan.loadItAgain}
        </button>
      </p>
    );
  return (
    <p role="status" className="quiet text-sm">
      {saving === 'saved'
        ? say.common.saved
        : saving === 'saving'
          ? say.common.saving
          : say.plan.keptHereSentWhenIt(TROUBLE_WORDS[saving])}
    </p>
  );
}

function AddBlock({ onAdd }: { onAdd: (kind: BlockKind) => void }) {
  return (
    <label className="flex items-center gap-2">
      <span className="font-bold">{say.plan.addABlock}</span>
      <select
        className="select w-44"
        value=""
        onChange={(event) => event.target.value && onAdd(event.target.value as BlockKind)}
      >
        <option value="">{say.plan.choose}</option>
        {BLOCK_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {label(kind)}
          </option>
        ))}
      </select>
    </label>
  );
}
