/** Who shows the movements: a mix of people, or one by build and skin. */
import { SKINS } from '@waxwing/core/body';
import { type Build, LOOKS, type Looks, type Tone, TONES } from '@waxwing/core/movement';
import { useFormContext, useWatch } from 'react-hook-form';

import { say } from '../words/say';

const BUILD_WORDS: Readonly<Record<Build, string>> = say.people.buildWords;

const partsOf = (looks: Looks): [Build, Tone] => looks.split('-') as [Build, Tone];

const looksWords = (looks: Looks): string => {
  const [build, tone] = partsOf(looks);
  return say.people.looks(BUILD_WORDS[build], tone);
};

/** @param nobody what it means that nobody is chosen */
export function LooksField({ id, nobody }: { id: string; nobody: string }) {
  const { register } = useFormContext<{ looks: Looks | '' }>();
  const looks = useWatch<{ looks: Looks | '' }, 'looks'>({ name: 'looks' });
  const tone = looks ? SKINS[TONES.indexOf(partsOf(looks)[1])] : undefined;
  return (
    <span className="flex items-center gap-2">
      <select id={id} className="select w-full max-w-xs" {...register('looks')}>
        <option value="">{nobody}</option>
        {LOOKS.map((one) => (
          <option key={one} value={one}>
            {looksWords(one)}
          </option>
        ))}
      </select>
      {tone && <span aria-hidden className="inline-block h-6 w-6 shrink-0" style={{ background: tone }} />}
    </span>
  );
}
