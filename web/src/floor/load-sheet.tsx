/** Choosing a weight: those that make sense first, all of them behind, and one that is typed because it is here today and in no kit. */
import { useQueryClient } from '@tanstack/react-query';
import type { Place } from '@waxwing/core/client';
import { type Load, sensibleLoads } from '@waxwing/core/dosage';
import { broughtWeight, type LaneView, setLoad, weighable } from '@waxwing/core/floor';
import { fromPounds, type KitItem, type KitPiece, label, type MovementSummary } from '@waxwing/core/movement';
import { type FormEvent, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Dialog } from '../shell/dialog';
import { say } from '../words/say';
import { keepWeight } from './keep-weight';
import { useTap } from './use-tap';

interface Props {
  view: LaneView;
  movement: MovementSummary;
  load: Load | null;
  loads: readonly Load[];
  /** Why nothing heavier is offered; null when it may be. */
  held: string | null;
  onClose: () => void;
}

export function LoadSheet({ view, movement, load, loads, held, onClose }: Props) {
  const tap = useTap(view.client.id);
  const open = held === null ? loads : loads.filter(({ kg }) => kg === null || kg <= (load?.kg ?? 0));
  const used = (view.record.sets[movement.id] ?? []).flatMap(({ sets }) => sets.flatMap(({ kg }) => kg ?? []));
  const near = sensibleLoads(open, load, used);
  const take = (to: Load | null) => {
    tap(setLoad(view, to, uuidv7));
    onClose();
  };
  const button = (one: Load) => (
    <button
      key={`${one.label} ${one.kg}`}
      type="button"
      aria-pressed={one.label === load?.label && one.kg === load.kg}
      className={`btn target h-auto py-2 ${one.label === load?.label && one.kg === load.kg ? 'btn-primary' : ''}`}
      onClick={() => take(one)}
    >
      {one.label}
    </button>
  );
  return (
    <Dialog title={say.floor.weightFor(movement.name.toLowerCase())} onClose={onClose}>
      {held && <p className="mb-3">{say.floor.notHeavier(held)}</p>}
      <div role="group" aria-label={say.common.near} className="flex flex-wrap gap-2">
        {near.map(button)}
        <button type="button" className={`btn target ${load ? '' : 'btn-primary'}`} onClick={() => take(null)}>
          {say.floor.noWeight}
        </button>
      </div>
      {open.length > near.length && (
        <details className="mt-4">
          <summary className="target flex cursor-pointer items-center font-bold">
            {say.floor.allThatAreHere(open.length)}
          </summary>
          <div role="group" aria-label={say.common.all} className="mt-2 flex flex-wrap gap-2">
            {open.map(button)}
          </div>
        </details>
      )}
      {held === null && <Another view={view} movement={movement} onClose={onClose} />}
    </Dialog>
  );
}

const number = (typed: string): number => Number(typed.replace(',', '.'));
const isWeight = (kg: number): boolean => Number.isFinite(kg) && kg >= 0.1 && kg <= 500;

/** A weight that is in no kit: for today, or kept at this place. */
function Another({ view, movement, onClose }: Pick<Props, 'view' | 'movement' | 'onClose'>) {
  const items = weighable(movement);
  const tap = useTap(view.client.id);
  const queries = useQueryClient();
  const [item, setItem] = useState<KitItem>(items.includes('backpack') ? 'backpack' : (items[0] ?? 'backpack'));
  const [typed, type] = useState('');
  const [fills, fill] = useState(false);
  const [step, setStep] = useState('1');
  const [most, setMost] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  if (items.length === 0) return null;
  const { unit } = view.client;
  const kgOf = (text: string) => (unit === 'lb' ? fromPounds(number(text)) : number(text));

  const submit = async (keep: Place | null) => {
    const kg = kgOf(typed);
    const piece: KitPiece = {
      item,
      count: 1,
      kg,
      stepKg: fills ? kgOf(step) : null,
      mostKg: fills ? kgOf(most) : null,
      ...(unit === 'lb' ? { unit } : {}),
    };
    if (!isWeight(kg)) return setProblem(say.floor.typeWhatItWeighsFrom(unit));
    if (fills && !(isWeight(piece.stepKg ?? 0) && isWeight(piece.mostKg ?? 0) && (piece.mostKg ?? 0) > kg))
      return setProblem(say.floor.typeTheStepAndA);
    tap(broughtWeight(view, piece, uuidv7));
    if (keep)
      try {
        await keepWeight(queries, keep, piece);
      } catch (error) {
        return setProblem(say.floor.itIsUsedTodayIt(error instanceof Error ? error.message : String(error)));
      }
    return onClose();
  };
  const field = (title: string, value: string, change: (text: string) => void) => (
    <label>
      <span className="quiet block text-base">{title}</span>
      <input
        className="input input-lg w-28"
        inputMode="decimal"
        value={value}
        onChange={({ target }) => change(target.value)}
      />
    </label>
  );
  return (
    <form
      aria-label={say.floor.anotherWeight}
      className="mt-6"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        void submit(null);
      }}
    >
      <h3 className="mb-2 font-bold">{say.floor.anotherWeightThatIsHere}</h3>
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="quiet block text-base">{say.floor.what}</span>
          <select
            className="select select-lg w-44"
            value={item}
            onChange={({ target }) => setItem(target.value as KitItem)}
          >
            {items.map((one) => (
              <option key={one} value={one}>
                {label(one)}
              </option>
            ))}
          </select>
        </label>
        {field(say.floor.weighs(unit), typed, type)}
        <label className="flex min-h-14 items-center gap-2">
          <input type="checkbox" className="checkbox" checked={fills} onChange={({ target }) => fill(target.checked)} />
          {say.floor.canBeFilledUp}
        </label>
        {fills && field(say.floor.inStepsOf(unit), step, setStep)}
        {fills && field(say.floor.upTo(unit), most, setMost)}
      </div>
      {problem && (
        <p role="alert" className="text-error mt-2">
          {problem}
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="submit" className="btn btn-primary target">
          {say.floor.useItToday}
        </button>
        <button type="button" className="btn target" onClick={() => void submit(view.place)}>
          {say.floor.useItAndKeepIt(view.place.name)}
        </button>
      </div>
    </form>
  );
}
