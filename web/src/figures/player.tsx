/** A movement shown: played at its tempo, slowed, stopped at a phase, seen from each side; its faults beside or over the clean rep. */
import { boundsOf, type Box, type Eye, eyeFor, type Motion, paletteOf, personFor, together } from '@waxwing/core/body';
import { bestView } from '@waxwing/core/coaching';
import { inWords, label, type Movement, type Phase, type View, VIEWS, viewWords } from '@waxwing/core/movement';
import { ArrowLeftRight, Pause, Play } from 'lucide-react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';

import { say } from '../words/say';
import { FigureDrawing, groundNow } from './figure';
import { LargeStill } from './still';
import { Strip } from './strip';
import { useSeconds } from './time';
import { type Clock, lessMotion, useClock } from './use-clock';
import { useMotion } from './use-motion';

interface Props {
  movement: Movement;
  /** A fault to begin with. */
  faultId?: string | undefined;
  /** Larger controls, for arm's length. */
  large?: boolean;
}

export function FigurePlayer({ movement, faultId, large = false }: Props) {
  const [chosen, choose] = useState(faultId ?? '');
  const motion = useMotion(movement);
  const faulty = useMotion(movement, chosen || undefined);
  const [view, look] = useState<View | null>(null);
  const [turned, turn] = useState<Eye | null>(null);
  const [over, layOver] = useState(false);
  const [reflect, setReflect] = useState(false);
  const [angle, setAngle] = useState(false);
  const [muscles, setMuscles] = useState(false);
  const [near, comeNear] = useState(1);
  const clock = useClock(true);
  if (motion === undefined) return <LargeStill movement={movement} className="block h-72 w-full lg:h-[26.25rem]" />;
  if (motion === null) return <p className="quiet">{say.common.noFigureIsDrawnFor}</p>;

  const drawn = movement.faults.filter(({ id }) => id in motion.figure.faults);
  const fault = drawn.find(({ id }) => id === chosen);
  const side = view ?? (fault ? bestView(fault) : motion.figure.view);
  const from = turned ?? side;
  const shown = fault && faulty ? faulty : null;
  // Turned, the frame stays as large as the widest side needs: the figure does not grow and shrink.
  const whole = turned
    ? together(boxOf(motion, shown, 'side'), boxOf(motion, shown, 'front'))
    : boxOf(motion, shown, side);
  const box = closer(whole, near);
  const common = { at: clock.time, view: from, reflect, angle, muscles: muscles ? movement.muscles : undefined, box };
  const height = large ? 'h-[44vh]' : 'h-72 lg:h-[26.25rem]';
  const small = large ? 'btn target' : 'btn btn-sm';
  return (
    <section aria-label={say.figures.figure} className="min-w-0">
      {lessMotion() ? (
        <div className={`${height} [&>div]:h-full`}>
          <Strip motion={shown ?? motion} view={side} name={fault ? fault.name : movement.name} />
        </div>
      ) : (
        <Turning eye={turned ?? eyeFor(side, movement.position)} onTurn={turn} near={near} onNear={comeNear}>
          {!(shown && over) && (
            <Caption words={shown ? say.figures.clean : ''} className="flex-1">
              <FigureDrawing motion={motion} title={movement.name} className={`w-full ${height}`} {...common} />
            </Caption>
          )}
          {shown && fault && (
            <Caption words={fault.name} className="flex-1">
              <FigureDrawing
                motion={shown}
                title={`${movement.name}: ${fault.name}`}
                ghost={over ? motion : undefined}
                mark={motion.figure.faults[fault.id]?.mark}
                className={`w-full ${height}`}
                {...common}
              />
            </Caption>
          )}
        </Turning>
      )}
      <div className="mt-1 flex flex-wrap items-center gap-1">
        {!lessMotion() && (
          <>
            <button
              type="button"
              className={small}
              aria-label={clock.playing ? say.common.pause : say.common.play}
              onClick={() => clock.play(!clock.playing)}
            >
              {clock.playing ? <Pause aria-hidden size={18} /> : <Play aria-hidden size={18} />}
            </button>
            <button
              type="button"
              className={`${small} ${clock.speed < 1 ? 'btn-primary' : ''}`}
              aria-pressed={clock.speed < 1}
              onClick={() => clock.setSpeed(clock.speed < 1 ? 1 : 0.4)}
            >
              {say.figures.slow}
            </button>
          </>
        )}
        <select
          className={large ? 'select target w-auto' : 'select select-sm w-auto'}
          aria-label={say.figures.seenFrom}
          value={side}
          onChange={(event) => {
            look(event.target.value as View);
            turn(null);
          }}
        >
          {VIEWS.map((one) => (
            <option key={one} value={one}>
              {viewWords(one, movement.position)}
            </option>
          ))}
        </select>
        <button
          type="button"
          className={`${small} ${reflect ? 'btn-primary' : ''}`}
          aria-pressed={reflect}
          aria-label={say.figures.otherSide}
          onClick={() => setReflect(!reflect)}
        >
          <ArrowLeftRight aria-hidden size={18} />
        </button>
        {motion.figure.joint && (
          <button
            type="button"
            className={`${small} ${angle ? 'btn-primary' : ''}`}
            aria-pressed={angle}
            onClick={() => setAngle(!angle)}
          >
            {say.figures.angle}
          </button>
        )}
        {!lessMotion() && (
          <button
            type="button"
            className={`${small} ${near > 1 ? 'btn-primary' : ''}`}
            aria-pressed={near > 1}
            onClick={() => comeNear(near > 1 ? 1 : NEAR)}
          >
            {say.figures.closer}
          </button>
        )}
        {!lessMotion() && (
          <button
            type="button"
            className={`${small} ${muscles ? 'btn-primary' : ''}`}
            aria-pressed={muscles}
            onClick={() => setMuscles(!muscles)}
          >
            {say.common.muscles}
          </button>
        )}
        {drawn.length > 0 && (
          <select
            className={large ? 'select target w-auto max-w-60' : 'select select-sm w-auto max-w-44'}
            aria-label={say.figures.faultShown}
            value={chosen}
            onChange={(event) => choose(event.target.value)}
          >
            <option value="">{say.figures.cleanRep}</option>
            {drawn.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
        {shown && (
          <button
            type="button"
            className={`${small} ${over ? 'btn-primary' : ''}`}
            aria-pressed={over}
            onClick={() => layOver(!over)}
          >
            {say.figures.laidOver}
          </button>
        )}
      </div>
      {muscles && <MuscleKey {...movement.muscles} />}
      {!lessMotion() && (
        <label className="mt-1 flex items-center gap-2 text-sm">
          {say.figures.turn}
          <input
            type="range"
            className="range range-xs flex-1"
            min={-180}
            max={180}
            step={5}
            value={Math.round((turned ?? eyeFor(side, movement.position)).round)}
            onChange={(event) =>
              turn({ ...(turned ?? eyeFor(side, movement.position)), round: Number(event.target.value) })
            }
          />
        </label>
      )}
      {!lessMotion() && !motion.still && <Scrubber motion={motion} clock={clock} small={small} />}
    </section>
  );
}

/** Which colour means what. The ink of a muscle is the same on everybody. */
function MuscleKey({ prime, assist }: Movement['muscles']) {
  const ink = paletteOf(personFor(''), groundNow());
  return (
    <p className="mt-1 flex flex-wrap gap-x-4 text-sm">
      <span>
        <span className="muscle-mark" style={{ background: ink.prime }} />
        {say.figures.worksMost(prime.map(inWords).join(', '))}
      </span>
      {assist.length > 0 && (
        <span>
          <span className="muscle-mark" style={{ background: ink.assist }} />
          {say.figures.helps(assist.map(inWords).join(', '))}
        </span>
      )}
    </p>
  );
}

/** Degrees of a turn to a pixel that a finger is drawn along. */
const DEGREES_A_PIXEL = 0.6;
const LEAST_RAISED = -5;
const MOST_RAISED = 60;

/** How near one comes by the button, and at most. */
const NEAR = 1.7;
const NEAREST = 3;

/** A frame from nearer by, about its middle. */
function closer({ x, y, width, height }: Box, near: number): Box {
  const [w, h] = [width / near, height / near];
  return { x: x + (width - w) / 2, y: y + (height - h) / 2, width: w, height: h };
}

interface Turned {
  eye: Eye;
  onTurn: (eye: Eye) => void;
  near: number;
  onNear: (near: number) => void;
  children: React.ReactNode;
}

interface Finger {
  x: number;
  y: number;
}

/** Turned by a finger or the mouse: along for round, up and down for how far above. Two fingers, or the wheel with Ctrl, come nearer. */
function Turning({ eye, onTurn, near, onNear, children }: Turned) {
  const fingers = useRef(new Map<number, Finger>());
  const held = useRef<{ from: Finger; eye: Eye } | null>(null);
  const pinched = useRef<{ apart: number; near: number } | null>(null);
  const place = useRef<HTMLDivElement>(null);
  const comeNear = (to: number): void => onNear(Math.min(NEAREST, Math.max(1, to)));
  const wheel = useEffectEvent((event: WheelEvent) => {
    if (!event.ctrlKey) return;
    event.preventDefault();
    comeNear(near * Math.exp(-event.deltaY / 300));
  });
  useEffect(() => {
    const here = place.current;
    // Only a listener that may stop it keeps the page from growing instead.
    here?.addEventListener('wheel', wheel, { passive: false });
    return () => here?.removeEventListener('wheel', wheel);
  }, []);
  const apart = (): number => {
    const [a, b] = [...fingers.current.values()];
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  };
  const lift = (id: number): void => {
    fingers.current.delete(id);
    held.current = pinched.current = null;
  };
  return (
    <div
      ref={place}
      className="flex touch-pan-y gap-2"
      onPointerDown={({ clientX, clientY, currentTarget, pointerId }) => {
        currentTarget.setPointerCapture(pointerId);
        fingers.current.set(pointerId, { x: clientX, y: clientY });
        const two = fingers.current.size === 2;
        held.current = two ? null : { from: { x: clientX, y: clientY }, eye };
        pinched.current = two ? { apart: apart(), near } : null;
      }}
      onPointerMove={({ clientX, clientY, pointerId }) => {
        if (!fingers.current.has(pointerId)) return;
        fingers.current.set(pointerId, { x: clientX, y: clientY });
        if (pinched.current) comeNear((pinched.current.near * apart()) / Math.max(1, pinched.current.apart));
        if (!held.current) return;
        const { from, eye: first } = held.current;
        const round = first.round + (clientX - from.x) * DEGREES_A_PIXEL;
        const raised = first.raised + (clientY - from.y) * DEGREES_A_PIXEL;
        onTurn({
          round: ((((round + 180) % 360) + 360) % 360) - 180,
          raised: Math.min(MOST_RAISED, Math.max(LEAST_RAISED, raised)),
        });
      }}
      onPointerUp={({ pointerId }) => lift(pointerId)}
      onPointerCancel={({ pointerId }) => lift(pointerId)}
    >
      {children}
    </div>
  );
}

/** One frame for both, so that clean and fault have one size. */
function boxOf(motion: Motion, faulty: Motion | null, view: View): Box {
  const clean = boundsIn(motion, view);
  return faulty ? together(clean, boundsIn(faulty, view)) : clean;
}

/** Bounds are the same for every moment: they are found once for a motion and a view. */
const known = new WeakMap<Motion, Partial<Record<View, Box>>>();
function boundsIn(motion: Motion, view: View): Box {
  const boxes = known.get(motion) ?? {};
  known.set(motion, boxes);
  return (boxes[view] ??= boundsOf(motion, view));
}

/** Stops at a phase, or anywhere on the way. */
function Scrubber({ motion, clock, small }: { motion: Motion; clock: Clock; small: string }) {
  const at = useSeconds(clock.time) % motion.seconds;
  const phases: { phase: Phase; seconds: number }[] = [];
  let start = 0;
  for (const { phase, seconds } of motion.segments) {
    if (phase && !phases.some((one) => one.phase === phase)) phases.push({ phase, seconds: start });
    start += seconds;
  }
  const now = phases.findLast(({ seconds }) => seconds <= at + 1e-6)?.phase;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1">
      <input
        type="range"
        className="range range-xs min-w-24 flex-1"
        aria-label={say.figures.momentOfTheRep}
        min={0}
        max={motion.seconds}
        step={0.05}
        value={at}
        onChange={(event) => clock.scrub(Number(event.target.value))}
      />
      {phases.length > 1 &&
        phases.map(({ phase, seconds }) => (
          <button
            key={phase}
            type="button"
            className={`${small} ${phase === now ? 'font-bold' : 'btn-ghost'}`}
            onClick={() => clock.scrub(seconds + 0.001)}
          >
            {label(phase)}
          </button>
        ))}
    </div>
  );
}

const Caption = ({ words, className, children }: { words: string; className: string; children: React.ReactNode }) => (
  <figure className={`min-w-0 ${className}`}>
    {children}
    {words && <figcaption className="text-center text-sm font-semibold">{words}</figcaption>}
  </figure>
);
