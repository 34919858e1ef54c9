/** A movement on one printed page: black on white, no more than a wall or a folder needs. */
import '../shell/paper.css';

import { useQuery } from '@tanstack/react-query';
import { bestView } from '@waxwing/core/coaching';
import { doseWords } from '@waxwing/core/formats';
import type { MovementPage } from '@waxwing/core/ladder';
import {
  correctionWords,
  cueWords,
  demandList,
  kitWords,
  label,
  leverWords,
  SEVERITY_WORDS,
  SIDES_WORDS,
  underRules,
  viewWords,
} from '@waxwing/core/movement';
import { Link, useParams } from 'react-router';

import { movementQuery } from '../api/queries';
import { Strip } from '../figures/strip';
import { useMotion } from '../figures/use-motion';
import { Await } from '../shell/states';
import { say } from '../words/say';
import { useRules } from './use-rules';

export function CardScreen() {
  const { movementId = '' } = useParams();
  return (
    <Await query={useQuery(movementQuery(movementId))} what={say.common.theMovement}>
      {(page) => <Card page={page} />}
    </Await>
  );
}

function Card({ page }: { page: MovementPage }) {
  const force = useRules();
  const movement = force ? underRules(page.movement, force.tags) : page.movement;
  const motion = useMotion(page.movement);
  const movementId = movement.id;
  return (
    <div className="page page-reading">
      <nav className="no-print mb-4 flex flex-wrap gap-2" aria-label={say.library.thisCard}>
        <Link className="btn" to={`/library/${movementId}`}>
          {say.common.back}
        </Link>
        <button type="button" className="btn btn-primary" onClick={() => window.print()}>
          {say.common.print}
        </button>
        <a className="btn" href={`/api/movements/${movementId}/card.md`} download={`${movementId}.md`}>
          {say.common.markdown}
        </a>
      </nav>
      <article className="card-page">
        <h1>{movement.name}</h1>
        {movement.aliases.length > 0 && <p>{say.library.also(movement.aliases.join(', '))}</p>}
        <p className="mt-2">
          <b>{say.library.needsTitle}</b>
          {say.library.kitSidesTempo(kitWords(movement.kit), SIDES_WORDS[movement.sides], movement.dose.tempo)}
        </p>
        <p>
          {doseWords(movement)
            .map(({ purpose, words }) => `${purpose}: ${words}`)
            .join(' · ')}
        </p>
        <p>
          {movement.how && <span className="block">{movement.how}</span>}
          <b>{say.library.breath}</b> {movement.breath}
        </p>
        {motion && (
          <div className="mt-2 h-32 max-w-md [&>div]:h-full">
            <Strip motion={motion} view={motion.figure.view} name={movement.name} />
          </div>
        )}
        <h2>{say.library.sayAndShow}</h2>
        <dl>
          {movement.phases.map((phase) => {
            const cues = movement.cues.filter((cue) => cue.phase === phase);
            return (
              cues.length > 0 && (
                <div key={phase} className="grid grid-cols-[6rem_1fr]">
                  <dt className="font-bold">{label(phase)}</dt>
                  <dd>{cues.map(cueWords).join(' · ')}</dd>
                </div>
              )
            );
          })}
        </dl>
        <h2>{say.library.lookFor}</h2>
        <ul>
          {movement.faults.map((fault) => (
            <li key={fault.id} className="mb-1">
              <b>{fault.name}</b> ({SEVERITY_WORDS[fault.severity].toLowerCase()};{' '}
              {viewWords(bestView(fault), movement.position).toLowerCase()}): {fault.looksLike}
              <br />
              {fault.corrections
                .map((correction) => `${label(correction.kind)}: ${correctionWords(correction, movement.cues)}`)
                .join(' → ')}
            </li>
          ))}
        </ul>
        <h2>{say.library.easierAndHarder}</h2>
        <p>
          {(['easier', 'harder'] as const)
            .flatMap((way) => page[way].map((step) => `${label(way)}: ${step.name}, ${leverWords(step.lever, way)}`))
            .join(' · ') || say.library.notLinkedYet}
        </p>
        <h2>{say.library.care}</h2>
        <p>{say.library.asksForAll(demandList(movement.demands).join(', ') || say.library.nothingSpecial)}</p>
        {movement.cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
        <p className="mt-2">{say.library.sharpPainStopMedicalQuestions}</p>
      </article>
    </div>
  );
}
