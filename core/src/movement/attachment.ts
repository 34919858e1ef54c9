/** A picture that a studio attached to a movement. */
export interface Picture {
  id: string;
  caption: string;
  addedAt: string;
}
