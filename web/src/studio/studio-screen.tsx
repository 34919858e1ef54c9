/** The studio: its name, its kit, and how the screen looks on this device. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Studio } from '@waxwing/core/client';
import type { Looks, Space } from '@waxwing/core/movement';
import { useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';

import { call } from '../api/http';
import { studioQuery } from '../api/queries';
import { Devices } from '../door/devices';
import { LeftBehind } from '../door/left-behind';
import { PeopleHere } from '../door/people-here';
import { useMay } from '../door/use-door';
import { You } from '../door/you';
import { FieldError, showProblems } from '../people/field-error';
import { fromRows, KitFields, type KitRow, toRows } from '../people/kit-fields';
import { LooksField } from '../people/looks-field';
import { chosenRules, RuleFields } from '../people/rule-fields';
import { SpaceField } from '../people/space-field';
import { PageHead } from '../shell/page';
import { Await } from '../shell/states';
import { chooseTheme, type Theme, THEMES, useTheme } from '../shell/theme';
import { say } from '../words/say';
import { CalendarLink } from './calendar-link';
import { Keeping } from './keeping';
import { LoadDemo } from './load-demo';
import { Outbox } from './outbox';
import { type PlaceRow, PlacesFields } from './places-fields';

export function StudioScreen() {
  const { own: owner, train: trains } = useMay();
  return (
    <div className="page page-reading space-y-10">
      <PageHead title={say.common.studio} />
      <Appearance />
      <You />
      <Devices />
      {owner && <LeftBehind />}
      {owner && <PeopleHere />}
      <Await query={useQuery({ ...studioQuery, staleTime: 0 })} what={say.common.theStudio}>
        {(studio) => (
          <>
            {owner && <StudioForm key={studio.version} studio={studio} />}
            {owner && <Keeping />}
            {trains && <CalendarLink />}
            {trains && <Outbox />}
            {owner && studio.clients === 0 && (
              <section>
                <h2 className="mb-2">{say.studio.demoStudio}</h2>
                <p className="quiet mb-3">{say.studio.sevenInventedClientsWithSix}</p>
                <LoadDemo />
              </section>
            )}
          </>
        )}
      </Await>
    </div>
  );
}

function Appearance() {
  const theme = useTheme();
  return (
    <fieldset>
      <legend className="mb-2 text-xl font-bold">{say.common.light}</legend>
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        {(Object.entries(THEMES) as [Theme, string][]).map(([value, name]) => (
          <label key={value} className="flex min-h-11 items-center gap-2">
            <input
              type="radio"
              name="theme"
              className="radio"
              checked={theme === value}
              onChange={() => chooseTheme(value)}
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

interface Fields {
  name: string;
  trainer: string;
  space: Space;
  kit: KitRow[];
  places: PlaceRow[];
  houseRules: Record<string, string>;
  looks: Looks | '';
  emergencyText: string;
  emergencyPhone: string;
}

function StudioForm({ studio }: { studio: Studio }) {
  const form = useForm<Fields>({
    defaultValues: {
      name: studio.name,
      trainer: studio.trainer,
      space: studio.space,
      kit: toRows(studio.kit),
      places: studio.places.map(({ id, kit, ...place }) => ({ ...place, placeId: id, kit: toRows(kit) })),
      houseRules: studio.houseRules,
      looks: studio.looks ?? '',
      emergencyText: studio.emergencyText,
      emergencyPhone: studio.emergencyPhone,
    },
  });
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const queries = useQueryClient();
  const save = form.handleSubmit(async (fields) => {
    try {
      const saved = await call('PATCH /studio', {
        body: {
          ...fields,
          kit: fromRows(fields.kit),
          places: fields.places.map(({ placeId, kit, ...place }) => ({ ...place, id: placeId, kit: fromRows(kit) })),
          houseRules: chosenRules(fields),
          looks: fields.looks || null,
          version: studio.version,
        },
      });
      queries.setQueryData(studioQuery.queryKey, saved);
    } catch (error) {
      const text = showProblems(form, error);
      setSaid(text ? { text, bad: true } : null);
    }
  });
  return (
    <FormProvider {...form}>
      <form className="space-y-6" onSubmit={(event) => void save(event)} noValidate>
        <div className="grid gap-4 sm:grid-cols-2">
          <div>
            <label htmlFor="studio-name" className="mb-1 block font-bold">
              {say.common.name}
            </label>
            <input
              id="studio-name"
              className="input w-full"
              {...form.register('name', { required: say.common.mustNotBeEmpty })}
            />
            <FieldError path="name" />
          </div>
          <div>
            <label htmlFor="studio-trainer" className="mb-1 block font-bold">
              {say.studio.trainer}
            </label>
            <input id="studio-trainer" className="input w-full" {...form.register('trainer')} />
            <FieldError path="trainer" />
          </div>
        </div>
        <div>
          <label htmlFor="studio-looks" className="mb-1 block font-bold">
            {say.studio.whoShowsTheMovements}
          </label>
          <LooksField id="studio-looks" nobody={say.studio.aMixOfPeople} />
          <FieldError path="looks" />
        </div>
        <fieldset className="grid gap-4 sm:grid-cols-[1fr_12rem]">
          <legend className="mb-2 text-xl font-bold">{say.studio.emergencyCard}</legend>
          <div>
            <label htmlFor="emergency-text" className="mb-1 block font-bold">
              {say.studio.whatIsDoneHere}
            </label>
            <textarea
              id="emergency-text"
              className="textarea min-h-24 w-full"
              maxLength={2000}
              {...form.register('emergencyText')}
            />
            <FieldError path="emergencyText" />
          </div>
          <div>
            <label htmlFor="emergency-phone" className="mb-1 block font-bold">
              {say.studio.numberToCall}
            </label>
            <input
              id="emergency-phone"
              type="tel"
              className="input w-full"
              maxLength={40}
              {...form.register('emergencyPhone')}
            />
            <FieldError path="emergencyPhone" />
          </div>
        </fieldset>
        <SpaceField name="space" title={say.common.room} />
        <KitFields />
        <PlacesFields />
        <RuleFields />
        <div className="flex items-center gap-4">
          <button
            type="submit"
            className="btn btn-primary"
            disabled={!form.formState.isDirty || form.formState.isSubmitting}
          >
            {say.common.save}
          </button>
          <p role="status" className={said?.bad ? 'text-error' : 'quiet'}>
            {said?.text ?? (studio.version > 1 && !form.formState.isDirty ? say.common.saved : '')}
          </p>
        </div>
      </form>
    </FormProvider>
  );
}
