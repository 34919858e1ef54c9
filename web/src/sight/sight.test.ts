import { describe, expect, test } from '@jest/globals';
import { placeOf, POINTS, type Rep } from '@waxwing/core/sight';
import fc from 'fast-check';

import { bodyFrom } from './body-from';
import { nearest } from './overlay';
import { sameMoment } from './same-moment';

const seconds = fc.double({ min: 0.3, max: 5, noNaN: true });
const reps = fc
  .record({ starts: fc.double({ min: 0, max: 60, noNaN: true }), there: seconds, stay: seconds, back: seconds })
  .map(({ starts, there, stay, back }): Rep => ({
    starts,
    there,
    stay,
    back,
    turns: starts + there,
    ends: starts + there + stay + back,
    reach: 90,
    share: 1,
  }));

test('the same moment of the clean rep rises with the clip, begins and ends with it, and turns where it turns', () => {
  fc.assert(
    fc.property(reps, reps, fc.double({ min: 0, max: 1, noNaN: true }), (rep, clean, share) => {
      const at = (part: number): number => sameMoment(rep, rep.starts + part * (rep.ends - rep.starts), clean);
      expect(at(0)).toBeCloseTo(clean.starts, 6);
      expect(at(1)).toBeCloseTo(clean.ends, 6);
      expect(at(share)).toBeLessThanOrEqual(at(Math.min(1, share + 0.1)) + 1e-9);
      expect(sameMoment(rep, rep.starts + rep.there, clean)).toBeCloseTo(clean.starts + clean.there, 6);
      expect(sameMoment(rep, rep.ends + 3, clean)).toBeCloseTo(clean.ends, 6);
    }),
  );
});

test('the nearest moment is the nearest of all', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 500 }), { minLength: 1 }), fc.integer(), (list, at) => {
      const times = Float64Array.from(list.toSorted((a, b) => a - b));
      const found = times[nearest(times, at)] ?? NaN;
      expect(Math.abs(found - at)).toBe(Math.min(...list.map((time) => Math.abs(time - at))));
    }),
  );
});

describe('what the model finds', () => {
  const place = (visibility: number, more = {}) => ({ x: 0.5, y: 0.5, z: 0, visibility, ...more });
  const whole = (visibility: number) =>
    Array.from({ length: 33 }, (_, i) => place(visibility, { x: i / 40, y: i / 40 }));

  test('is a body when its trunk is seen, with its places in heights of the picture', () => {
    const body = bodyFrom(whole(0.9), whole(0.9), 0.75);
    const knee = placeOf('left.knee');
    expect(body?.flat[knee * 2]).toBeCloseTo((25 / 40) * 0.75, 5);
    expect(body?.flat[knee * 2 + 1]).toBeCloseTo(25 / 40, 5);
    expect(body?.seen).toHaveLength(POINTS.length);
    expect(body?.box.bottom).toBeCloseTo(32 / 40, 5);
  });

  test('on a bare wall is nobody, and what lies outside of the picture is not seen', () => {
    expect(bodyFrom(whole(0.2), whole(0.2), 0.75)).toBeNull();
    const outside = whole(0.9);
    outside[32] = place(0.9, { y: 1.2 });
    const body = bodyFrom(outside, outside, 0.75);
    expect(body?.seen[placeOf('right.toe')]).toBeLessThan(0.5);
    expect(body?.seen[placeOf('left.toe')]).toBeGreaterThan(0.5);
  });
});
