/** Something to be drawn: triangles with normals, and what each vertex is made of. */
import { type Ink, INKS } from './look.js';
import { add, cross, minus, times, type Turn, turned, unit, type Vec } from './rotation.js';

export interface Solid {
  positions: Float32Array;
  normals: Float32Array;
  triangles: Uint16Array;
  /** Index into `INKS`. */
  inks: Uint8Array;
  /** 0–1: how open each place lies to light; all of it where left out. */
  open?: Float32Array;
}

/** Gathers plain bodies into one solid. */
export class SolidBuilder {
  readonly #positions: number[] = [];
  readonly #normals: number[] = [];
  readonly #triangles: number[] = [];
  readonly #inks: number[] = [];

  #vertex(ink: Ink, at: Vec, normal: Vec): number {
    this.#positions.push(...at);
    this.#normals.push(...normal);
    return this.#inks.push(INKS.indexOf(ink)) - 1;
  }

  /** A body turned on a lathe about an axis from `at`: rows of how far along and how wide. */
  lathe(ink: Ink, at: Vec, axis: Vec, rows: readonly (readonly [along: number, radius: number])[], sides = 20): this {
    const along = unit(axis);
    const across = unit(cross(along, Math.abs(along[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]));
    const other = cross(along, across);
    rows.slice(1).forEach(([end, wide], i) => {
      const [start, narrow] = rows[i] ?? [0, 0];
      const slope = unit([wide - narrow, end - start, 0]);
      const ring = Array.from({ length: sides + 1 }, (_, k) => {
        const angle = (2 * Math.PI * k) / sides;
        const out = add(times(across, Math.cos(angle)), times(other, Math.sin(angle)));
        const normal = add(times(out, slope[1]), times(along, -slope[0]));
        const place = (by: number, radius: number): Vec => add(at, add(times(along, by), times(out, radius)));
        return [this.#vertex(ink, place(start, narrow), normal), this.#vertex(ink, place(end, wide), normal)] as const;
      });
      ring.slice(1).forEach(([c, d], k) => {
        const [a, b] = ring[k] ?? [0, 0];
        this.#triangles.push(a, c, b, b, c, d);
      });
    });
    return this;
  }

  /** A round bar with flat ends. */
  bar(ink: Ink, from: Vec, to: Vec, radius: number, sides = 12): this {
    const axis = minus(to, from);
    const long = Math.hypot(...axis);
    return this.lathe(
      ink,
      from,
      axis,
      [
        [0, 0],
        [0, radius],
        [long, radius],
        [long, 0],
      ],
      sides,
    );
  }

  ball(ink: Ink, middle: Vec, radius: number, sides = 20): this {
    const rows = Array.from({ length: 11 }, (_, i): [number, number] => {
      const angle = (Math.PI * i) / 10;
      return [-radius * Math.cos(angle), radius * Math.sin(angle)];
    });
    return this.lathe(ink, middle, [0, 1, 0], rows, sides);
  }

  /** A box by its half sizes, turned as said. */
  box(ink: Ink, middle: Vec, half: Vec, turn?: Turn): this {
    for (const axis of [0, 1, 2] as const)
      for (const sign of [1, -1] as const) {
        const [u, v] = [(axis + 1) % 3, (axis + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2];
        const normal: [number, number, number] = [0, 0, 0];
        normal[axis] = sign;
        const corner = (a: number, b: number): number => {
          const local: [number, number, number] = [0, 0, 0];
          local[axis] = sign * half[axis];
          local[u] = a * half[u];
          local[v] = b * half[v];
          return this.#vertex(
            ink,
            add(middle, turn ? turned(turn, local) : local),
            turn ? turned(turn, normal) : normal,
          );
        };
        const [a, b, c, d] = [corner(-1, -1), corner(sign, -sign), corner(1, 1), corner(-sign, sign)];
        this.#triangles.push(a, b, c, a, c, d);
      }
    return this;
  }

  get empty(): boolean {
    return this.#triangles.length === 0;
  }

  done(): Solid {
    return {
      positions: Float32Array.from(this.#positions),
      normals: Float32Array.from(this.#normals),
      triangles: Uint16Array.from(this.#triangles),
      inks: Uint8Array.from(this.#inks),
    };
  }
}
