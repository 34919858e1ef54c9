/** Rows for what a place has: item, how many, and the weight of weighed things. Shared by client and studio forms. */
import { fromPounds, KIT_ITEMS, type KitPiece, label, weightWords } from '@waxwing/core/movement';
import { Fragment } from 'react';
import { useFieldArray, useFormContext } from 'react-hook-form';

import { say } from '../words/say';
import { FieldError } from './field-error';

/** A kit row as the form holds it: numbers as they are typed, in the unit beside them. */
export interface KitRow {
  item: KitPiece['item'];
  count: number;
  kg: string;
  unit: 'kg' | 'lb';
  label: string;
  /** `4 × 2.5, 4 × 1.25`. */
  plates: string;
  /** A stack's step and its heaviest. */
  step: string;
  most: string;
  changeSeconds: string;
  order: string;
  heights: string;
}

const BLANK_ROW: KitRow = {
  item: 'dumbbell',
  count: 2,
  kg: '',
  unit: 'kg',
  label: '',
  plates: '',
  step: '',
  most: '',
  changeSeconds: '',
  order: '',
  heights: '',
};

const shown = (kg: number | null | undefined, unit: KitPiece['unit']): string =>
  kg === null || kg === undefined ? '' : String(parseFloat(weightWords(kg, unit)));

export const toRows = (kit: readonly KitPiece[]): KitRow[] =>
  kit.map((piece) => ({
    item: piece.item,
    count: piece.count,
    kg: shown(piece.kg, piece.unit),
    unit: piece.unit ?? 'kg',
    label: piece.label ?? '',
    plates: (piece.plates ?? []).map(({ kg, count }) => `${count} × ${shown(kg, piece.unit)}`).join(', '),
    step: shown(piece.stepKg, piece.unit),
    most: shown(piece.mostKg, piece.unit),
    changeSeconds: piece.changeSeconds === null || piece.changeSeconds === undefined ? '' : String(piece.changeSeconds),
    order: piece.order ? String(piece.order) : '',
    heights: (piece.heightsCm ?? []).join(', '),
  }));

/** `4 × 2.5, 4x1.25` as plates; what cannot be read stays a number that is none, so that the answer names the field. */
const platesOf = (typed: string, inKg: (n: number) => number) =>
  typed
    .split(/[,;]/)
    .filter((part) => part.trim() !== '')
    .map((part) => {
      const [count, kg] = part.split(/[×x*]/i).map((number) => Number(number.trim()));
      return { kg: inKg(kg ?? NaN), count: count ?? NaN };
    });

export const fromRows = (rows: readonly KitRow[]): KitPiece[] =>
  rows.map((row) => {
    const inKg = (n: number) => (row.unit === 'lb' ? fromPounds(n) : n);
    const weight = (typed: string) => inKg(Number(typed));
    return {
      item: row.item,
      count: row.count,
      ...(row.kg.trim() ? { kg: weight(row.kg) } : {}),
      ...(row.label.trim() ? { label: row.label.trim() } : {}),
      ...(row.unit === 'lb' ? { unit: 'lb' as const } : {}),
      ...(row.plates.trim() ? { plates: platesOf(row.plates, inKg) } : {}),
      ...(row.step.trim() ? { stepKg: weight(row.step) } : {}),
      ...(row.most.trim() ? { mostKg: weight(row.most) } : {}),
      ...(row.changeSeconds.trim() ? { changeSeconds: Number(row.changeSeconds) } : {}),
      ...(row.order.trim() ? { order: Number(row.order) } : {}),
      ...(row.heights.trim() ? { heightsCm: row.heights.split(/[,;]/).map(Number) } : {}),
    };
  });

/** Items that come with plates, a stack, an order or heights. */
const LOADED: readonly KitPiece['item'][] = ['dumbbell', 'barbell', 'bell'];
/** Set by a pin, or filled little by little. */
const STACKED: readonly KitPiece['item'][] = [
  'cable',
  'leg-press',
  'pull-down-machine',
  'row-machine',
  'chest-press-machine',
  'leg-extension-machine',
  'leg-curl-machine',
  'hip-machine',
  'backpack',
  'jug',
];

/** A form with the kit of a place in it, and of other places. */
interface KitForm {
  kit: KitRow[];
  places: { kit: KitRow[] }[];
}
type KitName = 'kit' | `places.${number}.kit`;

/**
 * @param name which kit of the form
 * @param of whose it is, read aloud before each field; nothing for the only one
 */
export function KitFields({
  name = 'kit',
  title = say.common.kit,
  of = '',
}: {
  name?: KitName;
  title?: string;
  of?: string;
}) {
  const { control, register, watch } = useFormContext<KitForm>();
  const { fields, append, remove } = useFieldArray({ control, name });
  const said = (words: string) => (of ? `${of}: ${words.charAt(0).toLowerCase()}${words.slice(1)}` : words);
  return (
    <fieldset className="space-y-2">
      <legend className={of ? 'font-bold' : 'text-xl font-bold'}>{title}</legend>
      {fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-2 sm:grid-cols-[1fr_5rem_10rem_1fr_auto] items-start gap-2">
          <select
            className="select w-full"
            aria-label={said(say.people.item(i + 1))}
            {...register(`${name}.${i}.item`)}
          >
            {KIT_ITEMS.map((item) => (
              <option key={item} value={item}>
                {label(item)}
              </option>
            ))}
          </select>
          <span>
            <input
              className="input w-full"
              type="number"
              min={1}
              aria-label={said(say.people.howManyOfItem(i + 1))}
              {...register(`${name}.${i}.count`, { valueAsNumber: true })}
            />
            <FieldError path={`${name}.${i}.count`} />
          </span>
          <span className="flex">
            <input
              className="input w-full min-w-0"
              inputMode="decimal"
              placeholder={say.people.weight}
              aria-label={said(say.people.weightOfItem(i + 1))}
              {...register(`${name}.${i}.kg`)}
            />
            <select
              className="select w-18 shrink-0 px-2"
              aria-label={said(say.people.unitOfItem(i + 1))}
              {...register(`${name}.${i}.unit`)}
            >
              <option>{say.common.kg}</option>
              <option>{say.people.lb}</option>
            </select>
            <FieldError path={`${name}.${i}.kg`} />
          </span>
          <input
            className="input w-full"
            placeholder={say.people.labelExample}
            aria-label={said(say.people.labelOfItem(i + 1))}
            {...register(`${name}.${i}.label`)}
          />
          <button
            type="button"
            className="btn btn-ghost"
            onClick={() => remove(i)}
            aria-label={said(say.people.removeItem(i + 1))}
          >
            {say.common.remove}
          </button>
          <More name={name} i={i} item={watch(`${name}.${i}.item`)} said={said} />
        </div>
      ))}
      <button type="button" className="btn" onClick={() => append(BLANK_ROW)}>
        {of ? say.people.addKitOf(of) : say.people.addKit}
      </button>
    </fieldset>
  );
}

/** What only some items have. */
function More({
  name: kit,
  i,
  item,
  said,
}: {
  name: KitName;
  i: number;
  item: KitPiece['item'];
  said: (words: string) => string;
}) {
  const { register } = useFormContext<KitForm>();
  const field = (
    name: 'plates' | 'step' | 'most' | 'changeSeconds' | 'order' | 'heights',
    title: string,
    path: string,
  ) => (
    <label className="min-w-0 flex-1">
      <span className="quiet block text-sm">{title}</span>
      <input
        className="input w-full"
        aria-label={said(say.people.ofItem(title, i + 1))}
        {...register(`${kit}.${i}.${name}`)}
      />
      <FieldError path={`${kit}.${i}.${path}`} />
    </label>
  );
  const parts = LOADED.includes(item)
    ? [
        field('plates', say.people.platesExample, 'plates'),
        field('changeSeconds', say.people.secondsAChange, 'changeSeconds'),
      ]
    : STACKED.includes(item)
      ? [
          field('step', say.people.step, 'stepKg'),
          field('most', say.people.heaviest, 'mostKg'),
          field('changeSeconds', say.people.secondsAChange, 'changeSeconds'),
        ]
      : item === 'band'
        ? [field('order', say.people.placeFromTheLightest, 'order')]
        : item === 'step' || item === 'jump-box'
          ? [field('heights', say.people.heightsInCmSuchAs, 'heightsCm')]
          : [];
  return parts.length === 0 ? null : (
    <div className="col-span-full flex gap-2 pl-4">
      {parts.map((part, at) => (
        <Fragment key={at}>{part}</Fragment>
      ))}
    </div>
  );
}
