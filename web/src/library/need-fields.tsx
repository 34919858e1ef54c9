/** What a movement takes and asks for: doses, demands, kit, and what to be careful of. */
import { useQuery } from '@tanstack/react-query';
import {
  amountWords,
  DEMANDS,
  demandWords,
  DOSE_MODES,
  KIT_ITEMS,
  label,
  levelOf,
  PURPOSES,
} from '@waxwing/core/movement';
import { Fragment } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';

import { conditionsQuery, demandLevelsQuery } from '../api/queries';
import { FieldError } from '../people/field-error';
import { say } from '../words/say';
import { Chips, Field, Options, RemoveButton } from './form-parts';
import type { Fields } from './movement-fields';

export function DoseFields() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'windows', keyName: 'key' });
  const rows = useWatch({ control, name: 'windows' });
  const unused = PURPOSES.filter((purpose) => !rows.some((row) => row.purpose === purpose));
  const number = (name: `windows.${number}.${'low' | 'high' | 'fewest' | 'most' | 'rest'}`, title: string) => (
    <input
      type="number"
      min={0}
      className="input w-full"
      aria-label={title}
      {...register(name, { valueAsNumber: true })}
    />
  );
  return (
    <>
      <div className="mb-3 grid grid-cols-2 gap-3 md:grid-cols-4">
        <Field title={say.library.countedIn} path="dose.mode">
          {(id) => (
            <select id={id} className="select w-full" {...register('mode')}>
              <Options values={DOSE_MODES} />
            </select>
          )}
        </Field>
        <Field title={say.library.tempoLowerPauseRisePause} path="dose.tempo">
          {(id) => <input id={id} className="input w-full" {...register('tempo')} />}
        </Field>
      </div>
      <table className="w-full text-left">
        <thead className="quiet text-sm">
          <tr>
            {['for', 'from', 'to', say.library.setsFrom, say.library.setsTo, say.library.restS, ''].map((head) => (
              <th key={head} className="font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {fields.map((field, i) => {
            const purpose = rows[i]?.purpose ?? field.purpose;
            return (
              <tr key={field.key} className="[&_td]:pr-2 [&_td]:pb-2">
                <td>
                  <select
                    className="select w-full"
                    aria-label={say.library.purpose(i + 1)}
                    {...register(`windows.${i}.purpose`)}
                  >
                    <Options values={[purpose, ...unused]} />
                  </select>
                  {['low', 'high', 'sets', 'rest', 'sets.0', 'sets.1'].map((part) => (
                    <FieldError key={part} path={`dose.windows.${purpose}.${part}`} />
                  ))}
                </td>
                <td>{number(`windows.${i}.low`, say.library.fewest(label(purpose)))}</td>
                <td>{number(`windows.${i}.high`, say.library.most(label(purpose)))}</td>
                <td>{number(`windows.${i}.fewest`, say.library.fewestSets(label(purpose)))}</td>
                <td>{number(`windows.${i}.most`, say.library.mostSets(label(purpose)))}</td>
                <td>{number(`windows.${i}.rest`, say.library.restFor(label(purpose)))}</td>
                <td>
                  <RemoveButton what={say.library.theDoseFor(label(purpose))} onClick={() => remove(i)} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <FieldError path="dose.windows" />
      {unused[0] && (
        <button
          type="button"
          className="btn mt-1"
          onClick={() => append({ purpose: unused[0] ?? 'learn', low: 8, high: 12, fewest: 2, most: 3, rest: 60 })}
        >
          {say.library.addADose}
        </button>
      )}
    </>
  );
}

/** What can be asked of a demand. */
const AMOUNTS = [0, 1, 2, 3] as const;

/** @param name whose demands: the movement's own, or those of an option of its kit */
export function DemandFields({ name = 'demands' }: { name?: 'demands' | `kit.${number}.demands` }) {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name, keyName: 'key' });
  const unused = DEMANDS.filter((demand) => !fields.some((field) => field.demand === demand));
  return (
    <div className="flex flex-wrap items-center gap-2">
      {fields.map((field, i) => (
        <span key={field.key} className="bg-base-200 flex items-center gap-1 py-1 pr-1 pl-3">
          <label className="flex items-center gap-2">
            {label(demandWords(field.demand))}
            <select className="select select-sm w-auto" {...register(`${name}.${i}.amount`, { valueAsNumber: true })}>
              {AMOUNTS.map((amount) => (
                <option key={amount} value={amount}>
                  {amountWords(amount)}
                </option>
              ))}
            </select>
          </label>
          <RemoveButton what={demandWords(field.demand)} onClick={() => remove(i)} />
        </span>
      ))}
      <select
        className="select w-auto"
        aria-label={name === 'demands' ? say.library.addADemand : say.library.addADemandOf(name)}
        value=""
        onChange={(event) => append({ demand: event.target.value as (typeof DEMANDS)[number], amount: 1 })}
      >
        <option value="">{name === 'demands' ? say.library.addADemandMore : say.library.asksOtherwise}</option>
        {unused.map((demand) => (
          <option key={demand} value={demand}>
            {label(demandWords(demand))}
          </option>
        ))}
      </select>
    </div>
  );
}

/** What the chosen level of each demand means. */
export function LevelWords() {
  const rows = useWatch<Fields, 'demands'>({ name: 'demands' });
  const levels = useQuery(demandLevelsQuery).data ?? [];
  const said = rows.flatMap(({ demand, amount }) => levelOf(levels, demand, amount) ?? []);
  return (
    said.length > 0 && (
      <dl className="mt-3 grid gap-x-4 text-sm md:grid-cols-[minmax(14rem,auto)_1fr]">
        {said.map(({ demand, level, means }) => (
          <Fragment key={demand}>
            <dt className="quiet">{say.library.levelOfDemand(label(demandWords(demand)), amountWords(level))}</dt>
            <dd className="mb-1">{means}</dd>
          </Fragment>
        ))}
      </dl>
    )
  );
}

export function KitOptions() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'kit', keyName: 'key' });
  return (
    <>
      <p className="quiet mb-2 text-sm">{say.library.anyOneOfTheseWill}</p>
      <ul className="space-y-2">
        {fields.map((field, i) => (
          <li key={field.key} className="flex flex-wrap items-center gap-2">
            <span className="quiet">{i === 0 ? say.library.either : say.library.or}</span>
            <KitNeeds i={i} />
            <label className="flex items-center gap-1">
              <span className="quiet">{say.library.atMost}</span>
              <input
                className="input input-sm w-20"
                inputMode="decimal"
                aria-label={say.library.mostKilogramsOption(i + 1)}
                {...register(`kit.${i}.mostKg`)}
              />
              <span className="quiet">{say.common.kg}</span>
            </label>
            <DemandFields name={`kit.${i}.demands`} />
            <button type="button" className="btn btn-sm btn-ghost" onClick={() => remove(i)}>
              {say.library.removeThisOption}
            </button>
            <FieldError path={`kit.${i}`} />
            <FieldError path={`kit.${i}.mostKg`} />
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn mt-2"
        onClick={() => append({ needs: [{ item: 'dumbbell', count: 1 }], demands: [], mostKg: '' })}
      >
        {say.library.addAnOption}
      </button>
    </>
  );
}

function KitNeeds({ i }: { i: number }) {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: `kit.${i}.needs`, keyName: 'key' });
  return (
    <>
      {fields.map((field, j) => (
        <span key={field.key} className="flex items-center gap-1">
          {j > 0 && <span className="quiet">{say.library.and}</span>}
          <input
            type="number"
            min={1}
            max={10}
            className="input input-sm w-16"
            aria-label={say.library.howManyOptionNeed(i + 1, j + 1)}
            {...register(`kit.${i}.needs.${j}.count`, { valueAsNumber: true })}
          />
          <select
            className="select select-sm w-auto"
            aria-label={say.library.whatOptionNeed(i + 1, j + 1)}
            {...register(`kit.${i}.needs.${j}.item`)}
          >
            <Options values={KIT_ITEMS} />
          </select>
          <RemoveButton what={say.library.needOfOption(j + 1, i + 1)} onClick={() => remove(j)} />
        </span>
      ))}
      <button type="button" className="btn btn-sm" onClick={() => append({ item: 'mat', count: 1 })}>
        {say.library.andMorePieces}
      </button>
    </>
  );
}

export function CautionFields() {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'cautions', keyName: 'key' });
  return (
    <>
      <ul className="space-y-2">
        {fields.map((field, i) => (
          <li key={field.key} className="flex items-start gap-2">
            <span className="flex-1">
              <input
                className="input w-full"
                aria-label={say.library.cautionTitle(i + 1)}
                {...register(`cautions.${i}.text`)}
              />
              <FieldError path={`cautions.${i}`} />
            </span>
            <RemoveButton what={say.library.cautionAt(i + 1)} onClick={() => remove(i)} />
          </li>
        ))}
      </ul>
      <button type="button" className="btn mt-2" onClick={() => append({ text: '' })}>
        {say.library.addACaution}
      </button>
      <RulingFields />
    </>
  );
}

/** With which conditions the movement is left alone, and for which of the strict kind it is marked as suitable. */
function RulingFields() {
  const { data: conditions = [] } = useQuery(conditionsQuery);
  const nameOf = (id: string) => conditions.find((one) => one.id === id)?.name ?? label(id);
  const strict = conditions.filter(({ kind }) => kind === 'only-suitable');
  return (
    <div className="mt-4 grid gap-3 md:grid-cols-2">
      <Chips
        title={say.library.leftAloneWithField}
        name="notFor"
        path="notFor"
        values={conditions.map(({ id }) => id)}
        words={nameOf}
      />
      <Chips
        title={say.library.suitableWithField}
        name="suits"
        path="suits"
        values={strict.map(({ id }) => id)}
        words={nameOf}
      />
    </div>
  );
}
