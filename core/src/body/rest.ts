/** The posture in which the figure's skin was made: arms half out and legs a little apart, so that nothing touches. */
import { type Body, bodyAt } from './kinematics.js';
import { posed } from './skeleton.js';

const REST = posed([{ 'shoulder.out': 45, 'hip.out': 7 }]);

/** The body at rest with its heels on the floor. */
export function restBody(): Body {
  const low = bodyAt(REST).right.heel[1];
  return bodyAt(REST, [0, -low, 0]);
}
