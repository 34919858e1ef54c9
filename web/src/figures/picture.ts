/** What one drawing of a figure shows, whoever draws it. */
import type { Box, Camera, Palette, Scene } from '@waxwing/core/body';

export interface Picture {
  scene: Scene;
  camera: Camera;
  /** Centimetres of the room, y down. */
  box: Box;
  palette: Palette;
  /** How dark the blot on the floor is, 0–1. */
  shadow: number;
  /** How thick its contour is, in centimetres. */
  contour: number;
  /**
   * How much is spent on it where the processor pays for every pixel: `quick` for a small one of many a second, `fine` for one that
   * stands still, drawn larger and made smaller so that its edges are smooth.
   */
  detail: 'quick' | 'plain' | 'fine';
}

/** One of several over one another. */
export interface Layer {
  /** How much of it covers what is below, 0–1. */
  share: number;
  picture: Picture;
}
