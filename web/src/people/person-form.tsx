/** Adding and editing a client. What is wrong is said beside its field; a stale edit is refused, never merged in silence. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type Client, DAY_KINDS, type DayKind, newClientSchema } from '@waxwing/core/client';
import {
  DEMANDS,
  demandWords,
  fromPounds,
  isRuling,
  label,
  type Limit,
  type Looks,
  type Space,
  weightWords,
} from '@waxwing/core/movement';
import { type ReactNode, useState } from 'react';
import { FormProvider, type SubmitHandler, useFieldArray, useForm, useFormContext, useWatch } from 'react-hook-form';
import { Link, useNavigate, useParams } from 'react-router';

import { checked } from '../api/checked';
import { call } from '../api/http';
import { clientQuery, clientsQuery, keepClient } from '../api/queries';
import { Await } from '../shell/states';
import { DAY_WORDS } from '../words/day-words';
import { say } from '../words/say';
import { ConditionField } from './condition-field';
import { FieldError, showProblems } from './field-error';
import { fromRows, KitFields, type KitRow, toRows } from './kit-fields';
import { LooksField } from './looks-field';
import { chosenRules, RuleFields } from './rule-fields';
import { SpaceField } from './space-field';

/** A limit with its last day as the field holds it: empty where it lasts. */
type LimitRow = Omit<Limit, 'until'> & { until: string };

interface Fields {
  name: string;
  about: string;
  goal: string;
  healthNote: string;
  touchConsentOn: string;
  filmConsentOn: string;
  email: string;
  note: string;
  trainingYears: string;
  /** In the unit chosen beside it. */
  body: string;
  /** Empty where it is not noted. */
  dayMostly: DayKind | '';
  looks: Looks | '';
  unit: 'kg' | 'lb';
  limits: LimitRow[];
  kit: KitRow[];
  homeSpace: Space;
  houseRules: Record<string, string>;
}

const BLANK: Fields = {
  name: '',
  about: '',
  goal: '',
  healthNote: '',
  touchConsentOn: '',
  filmConsentOn: '',
  email: '',
  note: '',
  trainingYears: '',
  body: '',
  dayMostly: '',
  looks: '',
  unit: 'kg',
  limits: [],
  kit: [],
  homeSpace: 'mat',
  houseRules: {},
};

const fieldsOf = (client: Client): Fields => ({
  name: client.name,
  about: client.about,
  goal: client.goal,
  healthNote: client.healthNote,
  touchConsentOn: client.touchConsentOn ?? '',
  filmConsentOn: client.filmConsentOn ?? '',
  email: client.email,
  note: client.note,
  trainingYears: client.trainingYears === null ? '' : String(client.trainingYears),
  body:
    client.bodyKg === null ? '' : String(parseFloat(weightWords(client.bodyKg, client.unit === 'lb' ? 'lb' : null))),
  dayMostly: client.dayMostly ?? '',
  looks: client.looks ?? '',
  unit: client.unit,
  limits: client.limits.map((limit) => ({ ...limit, until: limit.until ?? '' })),
  kit: toRows(client.kit),
  homeSpace: client.homeSpace,
  houseRules: client.houseRules,
});

/** A number field as it is sent: nothing for an empty one, and what was typed for one that is no number, so that the answer names it. */
const numberOf = (typed: string): number | string | null =>
  typed.trim() === '' ? null : Number.isNaN(Number(typed)) ? typed : Number(typed);

const weightOf = (typed: string, unit: 'kg' | 'lb'): number | string | null => {
  const n = numberOf(typed);
  return typeof n === 'number' && unit === 'lb' ? fromPounds(n) : n;
};

const bodyOf = ({ body, ...fields }: Fields) => ({
  ...fields,
  touchConsentOn: fields.touchConsentOn || null,
  filmConsentOn: fields.filmConsentOn || null,
  trainingYears: numberOf(fields.trainingYears),
  bodyKg: weightOf(body, fields.unit),
  dayMostly: fields.dayMostly || null,
  looks: fields.looks || null,
  limits: fields.limits.map(({ until, ...limit }) => ({ ...limit, ...(until ? { until } : {}) })),
  kit: fromRows(fields.kit),
  houseRules: chosenRules(fields),
});

export function NewPersonScreen() {
  return (
    <PersonForm
      title={say.common.addAClient}
      start={BLANK}
      back="/people"
      save={(fields) => call('POST /clients', { body: checked(newClientSchema, bodyOf(fields)) })}
    />
  );
}

export function EditPersonScreen() {
  const { clientId = '' } = useParams();
  const query = useQuery({ ...clientQuery(clientId), staleTime: 0 });
  return (
    <Await query={query} what={say.common.theClient}>
      {(client) => (
        <PersonForm
          title={client.name}
          start={fieldsOf(client)}
          back={`/people/${clientId}`}
          save={(fields) =>
            call('PATCH /clients/{id}', {
              id: clientId,
              body: { ...checked(newClientSchema, bodyOf(fields)), version: client.version },
            })
          }
        />
      )}
    </Await>
  );
}

function PersonForm({
  title,
  start,
  back,
  save,
}: {
  title: string;
  start: Fields;
  back: string;
  save: (fields: Fields) => Promise<Client>;
}) {
  const form = useForm<Fields>({ defaultValues: start });
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const submit: SubmitHandler<Fields> = async (fields) => {
    setProblem(null);
    try {
      const client = await save(fields);
      keepClient(queries, client);
      void queries.invalidateQueries({ queryKey: clientsQuery.queryKey });
      await navigate(`/people/${client.id}`);
    } catch (error) {
      setProblem(showProblems(form, error));
    }
  };
  return (
    <FormProvider {...form}>
      <form
        // A browser keeps what stands in a form for the next time; this must not lie on its disk.
        autoComplete="off"
        className="page page-reading space-y-6"
        onSubmit={(event) => void form.handleSubmit(submit)(event)}
        noValidate
      >
        <h1>{title}</h1>
        <Row name="name" title={say.common.name}>
          {(id) => (
            <input
              id={id}
              className="input w-full"
              {...form.register('name', { required: say.common.mustNotBeEmpty })}
            />
          )}
        </Row>
        <Row name="about" title={say.people.whoTheyAre}>
          {(id) => <input id={id} className="input w-full" {...form.register('about')} />}
        </Row>
        <Row name="goal" title={say.people.goal}>
          {(id) => <input id={id} className="input w-full" {...form.register('goal')} />}
        </Row>
        <Row name="healthNote" title={say.people.healthNotePrivate}>
          {(id) => <textarea id={id} className="textarea w-full" rows={3} {...form.register('healthNote')} />}
        </Row>
        <Row name="touchConsentOn" title={say.people.agreedToTouchForCorrection}>
          {(id) => <input id={id} type="date" className="input" {...form.register('touchConsentOn')} />}
        </Row>
        <Row name="filmConsentOn" title={say.people.agreedToBeFilmedOn}>
          {(id) => <input id={id} type="date" className="input" {...form.register('filmConsentOn')} />}
        </Row>
        <Row name="looks" title={say.people.movementsAreShownBy}>
          {(id) => <LooksField id={id} nobody={say.people.whoeverTheStudioHasChosen} />}
        </Row>
        <Row name="dayMostly" title={say.people.mostOfTheDay}>
          {(id) => (
            <select id={id} className="select w-full max-w-xs" {...form.register('dayMostly')}>
              <option value="">{say.people.notNoted}</option>
              {DAY_KINDS.map((kind) => (
                <option key={kind} value={kind}>
                  {DAY_WORDS[kind]}
                </option>
              ))}
            </select>
          )}
        </Row>
        <div className="grid gap-4 sm:grid-cols-3">
          <Row name="trainingYears" title={say.people.yearsOfTraining}>
            {(id) => <input id={id} className="input w-full" inputMode="numeric" {...form.register('trainingYears')} />}
          </Row>
          <Row name="bodyKg" title={say.people.bodyWeight}>
            {(id) => <input id={id} className="input w-full" inputMode="decimal" {...form.register('body')} />}
          </Row>
          <Row name="unit" title={say.people.weightsIn}>
            {(id) => (
              <select id={id} className="select w-full" {...form.register('unit')}>
                <option value="kg">{say.people.kilograms}</option>
                <option value="lb">{say.people.pounds}</option>
              </select>
            )}
          </Row>
        </div>
        <Row name="email" title={say.people.eMailForSheets}>
          {(id) => <input id={id} type="email" className="input w-full" {...form.register('email')} />}
        </Row>
        <Row name="note" title={say.common.notes}>
          {(id) => <textarea id={id} className="textarea w-full" rows={3} {...form.register('note')} />}
        </Row>
        <LimitFields />
        <KitFields title={say.people.kitAtHome} />
        <SpaceField name="homeSpace" title={say.people.roomAtHome} />
        <RuleFields unset={say.people.asTheStudio} />
        {problem && (
          <p role="alert" className="text-error">
            {problem}
          </p>
        )}
        <div className="flex gap-2">
          <button type="submit" className="btn btn-primary" disabled={form.formState.isSubmitting}>
            {say.common.save}
          </button>
          <Link className="btn btn-ghost" to={back}>
            {say.common.cancel}
          </Link>
        </div>
      </form>
    </FormProvider>
  );
}

function Row({ name, title, children }: { name: string; title: string; children: (id: string) => ReactNode }) {
  return (
    <div>
      <label htmlFor={`field-${name}`} className="mb-1 block font-bold">
        {title}
      </label>
      {children(`field-${name}`)}
      <FieldError path={name} />
    </div>
  );
}

function LimitFields() {
  const { control, register, setValue } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'limits' });
  const rows = useWatch({ control, name: 'limits' });
  return (
    <fieldset className="space-y-2">
      <legend className="text-xl font-bold">{say.people.limits}</legend>
      <p className="quiet text-sm">{say.people.aMovementThatAsksFor}</p>
      {fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-2 items-start gap-2 md:grid-cols-[1fr_9rem_1fr_9rem_auto]">
          <select
            className="select w-full"
            aria-label={say.people.demandOfLimit(i + 1)}
            {...register(`limits.${i}.demand`)}
          >
            {(isRuling(field.demand) ? [field.demand] : DEMANDS).map((demand) => (
              <option key={demand} value={demand}>
                {label(demandWords(demand))}
              </option>
            ))}
          </select>
          <select
            className="select w-full"
            aria-label={say.people.mostAllowedForLimit(i + 1)}
            {...register(`limits.${i}.allowed`, { valueAsNumber: true })}
          >
            <option value={0}>{say.common.none}</option>
            {!isRuling(field.demand) && (
              <>
                <option value={1}>{say.people.aLittle}</option>
                <option value={2}>{say.people.upToClear}</option>
              </>
            )}
          </select>
          <span>
            <input
              className="input w-full"
              placeholder={say.people.reason}
              aria-label={say.people.reasonOfLimit(i + 1)}
              {...register(`limits.${i}.reason`, { required: say.common.mustNotBeEmpty })}
            />
            <FieldError path={`limits.${i}.reason`} />
          </span>
          <input
            type="date"
            className="input w-full"
            aria-label={say.people.lastDayOfLimitEmpty(i + 1)}
            {...register(`limits.${i}.until`)}
          />
          <button
            type="button"
            className="btn btn-ghost"
            onClick={() => remove(i)}
            aria-label={say.people.removeLimit(i + 1)}
          >
            {say.common.remove}
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn"
        onClick={() => append({ demand: 'deep-knee-bend', allowed: 1, reason: '', until: '' })}
      >
        {say.people.addALimit}
      </button>
      <ConditionField
        limits={rows.map(({ until, ...limit }) => ({ ...limit, until: until || null }))}
        onPropose={(proposed, condition, since) => {
          // A date that was wrong is put right with it.
          rows.forEach((row, i) => row.condition === condition && setValue(`limits.${i}.since`, since));
          append(proposed.map((limit) => ({ ...limit, until: limit.until ?? '' })));
        }}
      />
    </fieldset>
  );
}
