/** `npm run bake -w body`: makes the skin of both builds and keeps it beside the sources, with the hash of what it was made from. */
import { writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

import {
  folded,
  type PartLists,
  PLACES,
  type SkinHead,
  type SkinPart,
  type Vec,
  writtenSkin,
  ZONES,
} from '@waxwing/core/body';

import { type BuildName, BUILDS } from './build.js';
import { openness } from './cloth.js';
import { bodyMade, type MadeBody, type MadePart } from './parts.js';
import { bakedFile, sourcesHash } from './places.js';
import { acrossMiddle, packed } from './weights.js';

function listsOf({ plan, surface, coarse }: MadePart, { everything }: MadeBody): { part: SkinPart; lists: PartLists } {
  const { points, normals, triangles } = surface;
  const corner = (pick: (...all: number[]) => number): Vec =>
    [0, 1, 2].map((i) => pick(...points.map((p) => p[i] ?? 0))) as unknown as Vec;
  const [least, most] = [corner(Math.min), corner(Math.max)];
  const pulls = points.map((p) => packed(acrossMiddle(plan.pulls(p), p)));
  return {
    part: {
      name: plan.name,
      zone: ZONES.indexOf(plan.zone),
      ...(plan.hand ? { hand: plan.hand } : {}),
      ...(plan.hair ? { hair: plan.hair } : {}),
      vertices: points.length,
      triangles: triangles.length,
      coarse: coarse.length,
      least,
      most,
    },
    lists: {
      places: Uint16Array.from(
        points.flatMap((p) =>
          p.map((x, i) => Math.round(((x - (least[i] ?? 0)) / ((most[i] ?? 0) - (least[i] ?? 0) || 1)) * PLACES)),
        ),
      ),
      normals: Int8Array.from(normals.flatMap((normal) => folded(normal))),
      open: Uint8Array.from(points.map((p, i) => 17 * Math.round(15 * openness(p, normals[i] as Vec, everything)))),
      bones: Uint8Array.from(pulls.flatMap(({ bones }) => bones)),
      weights: Uint8Array.from(pulls.flatMap(({ weights }) => weights)),
      corners: Uint16Array.from(triangles.flat()),
      coarse: Uint16Array.from(coarse.flat()),
    },
  };
}

async function bake(build: BuildName, hash: string): Promise<void> {
  const started = performance.now();
  const body = await bodyMade(build);
  const all = body.parts.map((part) => listsOf(part, body));
  const { right, root } = body.anatomy;
  const { hip, knee, ankle, ball, shoulder, elbow, wrist } = right;
  const head: SkinHead = {
    hash,
    joints: { root, hip, knee, ankle, ball, shoulder, elbow, wrist },
    parts: all.map(({ part }) => part),
  };
  const file = writtenSkin({ head, lists: all.map(({ lists }) => lists) });
  writeFileSync(bakedFile(build), file);
  const triangles = head.parts.reduce((sum, part) => sum + part.triangles, 0);
  console.log(
    `${build}: ${head.parts.length} parts, ${triangles} triangles, ${(file.length / 1024).toFixed(0)} kB, ` +
      `${(gzipSync(file, { level: 9 }).length / 1024).toFixed(0)} kB packed, ${((performance.now() - started) / 1000).toFixed(1)} s`,
  );
}

const hash = sourcesHash();
for (const build of BUILDS) await bake(build, hash);
