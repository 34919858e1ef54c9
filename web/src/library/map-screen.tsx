/** A family's ladder drawn: levels as rows, the lever on each link, and who stands where. Links are drawn and taken away here. */
import '@xyflow/react/dist/style.css';
import './ladder-map.css';

import { useQueries, useQuery } from '@tanstack/react-query';
import { familiesOf } from '@waxwing/core/ladder';
import { label, type MovementSummary } from '@waxwing/core/movement';
import {
  BaseEdge,
  Controls,
  type Edge,
  EdgeLabelRenderer,
  type EdgeProps,
  Handle,
  MarkerType,
  MiniMap,
  type Node,
  type NodeProps,
  Position,
  ReactFlow,
  type ReactFlowInstance,
  ViewportPortal,
} from '@xyflow/react';
import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';

import { clientsQuery, movementsQuery, recordQuery } from '../api/queries';
import { Still } from '../figures/still';
import { PageTitle } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { useKeys } from '../shell/use-keys';
import { useWide } from '../shell/use-wide';
import { firstName } from '../words/names';
import { say } from '../words/say';
import { type LaidLadder, type LaidLink, layLadder, NODE } from './lay-ladder';
import { LinkPanel, type NewLink } from './link-panel';

export function MapScreen() {
  return (
    <Await query={useQuery(movementsQuery)} what={say.library.theLadders}>
      {(movements) => <Families movements={movements} />}
    </Await>
  );
}

function Families({ movements }: { movements: readonly MovementSummary[] }) {
  const asked = useSearchParams()[0].get('family');
  const families = familiesOf(movements).map(({ family }) => family);
  return (
    <FamilyMap
      movements={movements}
      families={families}
      family={families.find((one) => one === asked) ?? families[0] ?? ''}
    />
  );
}

/** A family with more rungs is read a part at a time. */
const MOST_AT_ONCE = 14;

/** The glide from rung to rung; none where motion is unwanted. */
const STEP_MS = window.matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 150;

interface Props {
  movements: readonly MovementSummary[];
  families: readonly string[];
  family: string;
}

function FamilyMap({ movements, families, family }: Props) {
  const [params, setParams] = useSearchParams();
  const laid = useMemo(() => layLadder(movements, family), [movements, family]);
  const at = laid.nodes.find(({ movement }) => movement.id === params.get('at')) ?? laid.lowest;
  const [drawn, draw] = useState<NewLink | null>(null);
  const standing = useStanding((params.get('who') ?? '').split(',').filter(Boolean), laid);
  const navigate = useNavigate();
  // Where all of it would be too small.
  const large = !useWide() || laid.nodes.length > MOST_AT_ONCE;
  const set = (change: Record<string, string>) =>
    setParams(
      (old) => {
        for (const [key, value] of Object.entries(change)) old.set(key, value);
        return old;
      },
      { replace: true },
    );
  const [map, setMap] = useState<ReactFlowInstance<Node<RungData>> | null>(null);
  const goTo = (id: string | undefined) => {
    const rung = laid.nodes.find(({ movement }) => movement.id === id);
    if (!id || !rung) return;
    set({ at: id });
    void map?.setCenter(rung.x + NODE.width / 2, rung.y + NODE.height / 2, { zoom: map.getZoom(), duration: STEP_MS });
  };
  useKeys(['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Enter'], (key) => {
    if (!at) return;
    if (key === 'Enter') void navigate(`/library/${at.movement.id}`);
    else goTo(laid.step(at.movement.id, key));
  });
  if (!at) return <Empty title={say.library.thereAreNoMovementsIn} />;
  const near = laid.edges
    .filter(({ from, to, sideways }) => !sideways && (from === at.movement.id || to === at.movement.id))
    .flatMap(({ from, to }) => [{ id: from }, { id: to }]);

  const nodes: Node<RungData>[] = laid.nodes.map(({ movement, x, y, outside }) => ({
    id: movement.id,
    type: 'rung',
    position: { x, y },
    width: NODE.width,
    height: NODE.height,
    data: { movement, outside, chosen: movement.id === at.movement.id, who: standing.get(movement.id) ?? [] },
    draggable: false,
    selectable: false,
    focusable: false,
  }));
  const edges: Edge<LinkData>[] = laid.edges.map((link) => ({
    id: `${link.from} ${link.to}`,
    type: 'link',
    source: link.from,
    target: link.to,
    data: { link, near: link.from === at.movement.id || link.to === at.movement.id },
    focusable: false,
    selectable: false,
    ...(link.sideways ? {} : { markerEnd: { type: MarkerType.ArrowClosed, width: 16, height: 16 } }),
  }));
  return (
    <div className="flex h-full flex-col">
      <header className="border-base-300 flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b px-4 pt-5 pb-3 sm:px-8">
        <PageTitle title={say.library.ladder} back={{ to: '/library', name: say.common.library }} />
        <select
          className="select w-auto font-bold"
          aria-label={say.common.family}
          value={family}
          onChange={(event) => setParams({ family: event.target.value }, { replace: true })}
        >
          {families.map((one) => (
            <option key={one} value={one}>
              {label(one)}
            </option>
          ))}
        </select>
        <Who chosen={params.get('who') ?? ''} onChoose={(who) => set({ who })} />
      </header>
      <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <div
          className="ladder-map min-h-[55vh] flex-1 lg:min-h-80"
          role="application"
          aria-label={say.library.ladderOfArrowKeysMove(label(family))}
        >
          <ReactFlow
            key={family}
            nodes={nodes}
            edges={edges}
            nodeTypes={NODE_TYPES}
            edgeTypes={EDGE_TYPES}
            fitView
            // A large ladder is read a part at a time rather than all of it too small; the overview says where.
            fitViewOptions={
              large
                ? { maxZoom: 1, minZoom: 0.7, nodes: [{ id: at.movement.id }, ...near] }
                : { maxZoom: 1, padding: 0.08 }
            }
            minZoom={0.25}
            onInit={setMap}
            disableKeyboardA11y
            nodesConnectable
            proOptions={{ hideAttribution: true }}
            onNodeClick={(_, node) => goTo(node.id)}
            onNodeDoubleClick={(_, node) => void navigate(`/library/${node.id}`)}
            onConnect={({ source, target }) => {
              goTo(source);
              draw({ from: source, to: target, direction: 'harder' });
            }}
          >
            <Rows laid={laid} />
            <Controls showInteractive={false} />
            {laid.nodes.length > MOST_AT_ONCE && (
              <MiniMap
                className="max-sm:hidden"
                pannable
                zoomable
                ariaLabel={say.library.theWholeLadder}
                nodeColor={({ id }) => (id === at.movement.id ? 'var(--color-accent)' : 'var(--color-secondary)')}
              />
            )}
          </ReactFlow>
        </div>
        <LinkPanel key={at.movement.id} movementId={at.movement.id} drawn={drawn} onDrawn={draw} onGo={goTo} />
      </div>
    </div>
  );
}

interface RungData extends Record<string, unknown> {
  movement: MovementSummary;
  outside: boolean;
  chosen: boolean;
  who: readonly string[];
}

function Rung({ data: { movement, outside, chosen, who } }: NodeProps<Node<RungData>>) {
  return (
    <div
      aria-current={chosen || undefined}
      className={`bg-base-100 text-base-content relative flex flex-col justify-center border-2 px-2 text-center text-base leading-tight ${
        chosen
          ? 'border-base-content bg-base-200 ring-base-content font-bold ring-4'
          : outside
            ? 'border-base-300 border-dashed'
            : 'border-base-300'
      }`}
      style={{ width: NODE.width, height: NODE.height }}
    >
      <Handle type="target" position={Position.Bottom} className="rung-handle" />
      <span className="flex items-center justify-center gap-1">
        <Still movement={movement} className="h-14 w-14 shrink-0" />
        <span>{movement.name}</span>
      </span>
      {who.length > 0 && (
        <span className="absolute -top-3 left-2 flex gap-1">
          {who.map((name) => (
            <span
              key={name}
              title={name}
              className="border-base-content bg-accent text-accent-content border-2 px-1 text-sm leading-5 font-bold"
            >
              {initialsOf(name)}
              <span className="sr-only">{say.library.standsHere(name)}</span>
            </span>
          ))}
        </span>
      )}
      <Handle type="source" position={Position.Top} className="rung-handle" />
    </div>
  );
}

const NODE_TYPES = { rung: Rung };

interface LinkData extends Record<string, unknown> {
  link: LaidLink;
  /** It leads to or from the chosen rung. */
  near: boolean;
}

/** A line through the places that the layout left free, rounded at its bends. */
function wayOf(points: LaidLink['points']): string {
  const [first, ...rest] = points;
  if (!first) return '';
  const parts = [`M ${first.x} ${first.y}`];
  rest.forEach((point, i) => {
    const next = rest[i + 1];
    parts.push(
      next ? `Q ${point.x} ${point.y} ${(point.x + next.x) / 2} ${(point.y + next.y) / 2}` : `L ${point.x} ${point.y}`,
    );
  });
  return parts.join(' ');
}

function Link({ id, data, markerEnd }: EdgeProps<Edge<LinkData>>) {
  if (!data) return null;
  const { link, near } = data;
  return (
    <>
      <BaseEdge
        id={id}
        path={wayOf(link.points)}
        {...(markerEnd && { markerEnd })}
        style={{ strokeWidth: near ? 2.5 : 1.5, ...(link.sideways && { strokeDasharray: '4 4' }) }}
      />
      <EdgeLabelRenderer>
        <span
          className={`bg-base-100 absolute px-1 text-sm leading-5 whitespace-nowrap ${near ? 'font-bold' : 'quiet'}`}
          style={{ transform: `translate(-50%, -50%) translate(${link.at.x}px, ${link.at.y}px)` }}
        >
          {link.words}
        </span>
      </EdgeLabelRenderer>
    </>
  );
}

const EDGE_TYPES = { link: Link };

/** Room beside the outermost rungs for the name of a level. */
const MARGIN = 110;

/** Levels as ruled rows behind the rungs, the easiest at the bottom. */
function Rows({ laid: { rows, nodes } }: { laid: LaidLadder }) {
  const left = Math.min(...nodes.map(({ x }) => x)) - MARGIN;
  const width = Math.max(...nodes.map(({ x }) => x)) + NODE.width + MARGIN - left;
  return (
    <ViewportPortal>
      {rows.map(({ y, level }) => (
        <div
          key={y}
          className="border-base-300 quiet pointer-events-none absolute -z-10 flex items-end border-b text-sm"
          style={{ left, top: y - NODE.height, width, height: NODE.height }}
        >
          {level !== null && say.library.level(level)}
        </div>
      ))}
    </ViewportPortal>
  );
}

const initialsOf = (name: string): string =>
  name
    .split(/\s+/)
    .flatMap((word) => [...word][0] ?? [])
    .slice(0, 2)
    .join('');

/** Whose rungs are shown. */
function Who({ chosen, onChoose }: { chosen: string; onChoose: (who: string) => void }) {
  const clients = useQuery(clientsQuery).data ?? [];
  const ids = chosen.split(',').filter(Boolean);
  return (
    <div role="group" aria-label={say.library.whoStandsWhere} className="flex flex-wrap gap-1">
      {clients.map(({ id, name }) => {
        const on = ids.includes(id);
        return (
          <button
            key={id}
            type="button"
            aria-pressed={on}
            className={`btn btn-sm ${on ? 'btn-primary' : ''}`}
            onClick={() => onChoose((on ? ids.filter((other) => other !== id) : [...ids, id]).join(','))}
          >
            {firstName({ name })}
          </button>
        );
      })}
    </div>
  );
}

/** Movement id → names of the chosen clients who did it last of this ladder. */
function useStanding(clientIds: readonly string[], laid: LaidLadder): ReadonlyMap<string, readonly string[]> {
  const clients = useQuery(clientsQuery).data ?? [];
  const records = useQueries({ queries: clientIds.map((id) => recordQuery(id)) });
  const standing = new Map<string, string[]>();
  clientIds.forEach((id, i) => {
    const sets = records[i]?.data?.sets ?? {};
    const latest = laid.nodes
      .filter(({ outside }) => !outside)
      .map(({ movement }) => ({ id: movement.id, at: sets[movement.id]?.at(-1)?.at ?? '' }))
      .reduce((most, one) => (one.at > most.at ? one : most), { id: '', at: '' });
    const name = clients.find((one) => one.id === id)?.name;
    if (latest.id && name) standing.set(latest.id, [...(standing.get(latest.id) ?? []), name]);
  });
  return standing;
}
