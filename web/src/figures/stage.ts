/**
 * The figure drawn by the graphics card: three tones of each colour, a thin contour, and a blot on the floor. One context for the whole
 * page, since browsers allow only some: all pictures of a moment are drawn there side by side, and then copied onto their own canvases.
 * A copy waits until everything before it is drawn, so that one by one they would cost a wait each.
 */
import {
  type Blot,
  blotOf,
  encoded,
  FILL_LIGHT,
  INKS,
  KEY_LIGHT,
  LIGHT,
  lightOf,
  type Solid,
  solidsOf,
  TONE_STEPS,
} from '@waxwing/core/body';

import type { Layer, Picture } from './picture';
import { drawPlainly } from './plain-stage';
import { type Area, type Sheet, sheetsOf } from './sheets';

export interface Stage {
  /** Whether it has a graphics card, and not a program that stands in for one, or nothing. */
  card: boolean;
  /** Draws pictures over one another onto a canvas, in its own size in pixels, before the page is shown next. */
  draw: (onto: CanvasRenderingContext2D, layers: readonly Layer[]) => void;
}

interface Asked {
  onto: CanvasRenderingContext2D;
  layers: readonly Layer[];
}

const vec3 = (v: readonly number[]): string => `vec3(${v.map((x) => x.toFixed(4)).join(',')})`;
const float = (x: number): string => x.toFixed(4);

/**
 * What a share of light comes to in an encoded colour c: (c + 0.055) × share^(1/2.4) − 0.055, but for colours that are nearly black. No
 * power needs to be taken at every pixel.
 */
const seenShare = (share: number): string => float(share ** (1 / 2.4));
const [DARK, MIDDLE, BRIGHT] = TONE_STEPS.shares;
/** Of its colour, a contour keeps so much light. */
const CONTOUR_SHARE = 0.3;

const SOLID_VERTEX = `#version 300 es
in vec3 place,normal;in float ink,open;
uniform mat3 eye;uniform vec4 fit;uniform vec3 shift,inks[${INKS.length}];uniform float grow;
out vec3 facing,colour;out float openness;
void main(){facing=eye*normal;colour=inks[int(ink+.5)];openness=open;vec3 q=eye*(place-shift+normal*grow);
gl_Position=vec4(q.xy*fit.xy+fit.zw,-q.z/600.,1.);}`;

const SOLID_PIXEL = `#version 300 es
precision highp float;in vec3 facing,colour;in float openness;uniform float contour;out vec4 pixel;
float bright(vec3 n,float o){float key=dot(n,${vec3(KEY_LIGHT)}),fill=max(0.,dot(n,${vec3(FILL_LIGHT)})),edge=1.-max(0.,n.z);
float around=mix(${float(LIGHT.ground)},${float(LIGHT.sky)},.5+.5*n.y),direct=max(0.,(key+${float(LIGHT.wrap)})/${float(1 + LIGHT.wrap)});
return (o*around+${float(LIGHT.key)}*direct*(.35+.65*o)+${float(LIGHT.fill)}*fill)*(1.-${float(LIGHT.rim)}*edge*edge*edge);}
void main(){float l=bright(normalize(facing),openness);if(!gl_FrontFacing)l*=.42;float w=fwidth(l)*.8+.004;
float tone=mix(${seenShare(DARK)},${seenShare(MIDDLE)},smoothstep(${float(TONE_STEPS.from[0])}-w,${float(TONE_STEPS.from[0])}+w,l));
tone=mix(tone,${seenShare(BRIGHT)},smoothstep(${float(TONE_STEPS.from[1])}-w,${float(TONE_STEPS.from[1])}+w,l));
pixel=vec4((colour+.055)*(contour>.5?${seenShare(CONTOUR_SHARE)}:tone)-.055,1.);}`;

const FLOOR_VERTEX = `#version 300 es
in vec3 place;in vec2 at;uniform mat3 eye;uniform vec4 fit;out vec2 cell;
void main(){cell=at;vec3 q=eye*place;gl_Position=vec4(q.xy*fit.xy+fit.zw,.999,1.);}`;

const FLOOR_PIXEL = `#version 300 es
precision highp float;in vec2 cell;uniform sampler2D shades;uniform float dark;out vec4 pixel;
void main(){pixel=vec4(vec3(.25,.2,.16),1.)*texture(shades,cell).r*dark;}`;

/** Where the four numbers of a vertex go. */
const SLOTS = { place: 0, normal: 1, ink: 2, open: 3 } as const;
const FLOOR_SLOTS = { place: 0, at: 1 } as const;
/** Thinner ones are left out where every pixel is paid for on the processor. */
const THICK_CM = 0.3;

interface Program {
  program: WebGLProgram;
  at: (name: string) => WebGLUniformLocation | null;
}

function programOf(gl: WebGL2RenderingContext, vertex: string, pixel: string, slots: Record<string, number>): Program {
  const program = gl.createProgram();
  for (const [type, source] of [
    [gl.VERTEX_SHADER, vertex],
    [gl.FRAGMENT_SHADER, pixel],
  ] as const) {
    const shader = gl.createShader(type);
    if (!shader) throw new Error('no shader');
    gl.shaderSource(shader, source);
    gl.compileShader(shader);
    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS) && !gl.isContextLost())
      throw new Error(gl.getShaderInfoLog(shader) ?? 'the shader does not compile');
    gl.attachShader(program, shader);
  }
  for (const [name, slot] of Object.entries(slots)) gl.bindAttribLocation(program, slot, name);
  gl.linkProgram(program);
  const known = new Map<string, WebGLUniformLocation | null>();
  const at = (name: string): WebGLUniformLocation | null => {
    if (!known.has(name)) known.set(name, gl.getUniformLocation(program, name));
    return known.get(name) ?? null;
  };
  return { program, at };
}

/** Whether pictures are made by a graphics card. */
function hasCard(): boolean {
  const gl = document.createElement('canvas').getContext('webgl2');
  const known = gl?.getExtension('WEBGL_debug_renderer_info');
  const name: unknown = gl && known ? gl.getParameter(known.UNMASKED_RENDERER_WEBGL) : '';
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return typeof name === 'string' && !/swiftshader|llvmpipe|software/i.test(name);
}

/** What of a solid never changes, kept on the card. */
interface Kept {
  inks: WebGLBuffer;
  open: WebGLBuffer;
  triangles: WebGLBuffer;
}

/** The part of a blot that is not quite clear, in shares of its side: the rest would be paid for and not seen. */
function darkPart({ cells, shades }: Blot): { u0: number; v0: number; u1: number; v1: number } {
  let [u0, v0, u1, v1] = [cells, cells, 0, 0];
  shades.forEach((shade, i) => {
    if (shade === 0) return;
    const [u, v] = [i % cells, Math.floor(i / cells)];
    [u0, v0, u1, v1] = [Math.min(u0, u), Math.min(v0, v), Math.max(u1, u + 1), Math.max(v1, v + 1)];
  });
  return { u0: u0 / cells, v0: v0 / cells, u1: u1 / cells, v1: v1 / cells };
}

/** Pixels that become one of a fine picture, each way. */
const FINER = 2;

/** What draws a whole sheet; false while the graphics card is away. */
type Press = (sheet: Sheet<Shown>, copy: (cell: Cell, from: CanvasImageSource) => void) => boolean;

interface Shown extends Layer {
  onto: CanvasRenderingContext2D;
  width: number;
  height: number;
}

type Cell = Sheet<Shown>['cells'][number];

function pressOn(canvas: OffscreenCanvas, card: boolean): Press {
  // Without a card every smoothed edge is paid for on the processor.
  const gl = canvas.getContext('webgl2', { antialias: card, alpha: true, premultipliedAlpha: true });
  if (!gl) return () => false;
  let drawing = prepared(gl);
  canvas.addEventListener('webglcontextlost', (event) => event.preventDefault());
  canvas.addEventListener('webglcontextrestored', () => (drawing = prepared(gl)));
  return ({ cells, width, height }, copy) => {
    if (gl.isContextLost()) return false;
    if (canvas.width !== width) canvas.width = width;
    if (canvas.height !== height) canvas.height = height;
    gl.viewport(0, 0, canvas.width, canvas.height);
    gl.clearColor(0, 0, 0, 0);
    gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
    for (const { of, x, y } of cells) drawing(of.picture, { ...of, x, y: canvas.height - y - of.height });
    // Taken away once: copying from the canvas itself would wait for it at every figure.
    const sheet = canvas.transferToImageBitmap();
    for (const cell of cells) copy(cell, sheet);
    sheet.close();
    return true;
  };
}

function stageWith(press: Press, card: boolean): Stage {
  let asked: Asked[] = [];
  const drawAll = (): void => {
    const all = asked.flatMap(({ onto, layers }): Shown[] =>
      layers.map((layer) => {
        const by = !card && layer.picture.detail === 'fine' ? FINER : 1;
        return { onto, ...layer, width: by * onto.canvas.width, height: by * onto.canvas.height };
      }),
    );
    for (const { onto } of asked) onto.clearRect(0, 0, onto.canvas.width, onto.canvas.height);
    asked = [];
    for (const sheet of sheetsOf(all)) {
      const drawn = press(sheet, ({ of: { onto, share, width, height }, x, y }, from) => {
        onto.globalAlpha = share;
        onto.drawImage(from, x, y, width, height, 0, 0, onto.canvas.width, onto.canvas.height);
      });
      if (drawn) continue;
      for (const { of } of sheet.cells) {
        of.onto.globalAlpha = of.share;
        drawPlainly(of.onto, of.picture);
      }
    }
  };
  return {
    card,
    draw: (onto, layers) => {
      if (asked.length === 0) queueMicrotask(drawAll);
      asked = [...asked.filter((one) => one.onto !== onto), { onto, layers }];
    },
  };
}

function prepared(gl: WebGL2RenderingContext): (picture: Picture, cell: Area) => void {
  const solids = programOf(gl, SOLID_VERTEX, SOLID_PIXEL, SLOTS);
  const floor = programOf(gl, FLOOR_VERTEX, FLOOR_PIXEL, FLOOR_SLOTS);
  const [places, normals, square] = [gl.createBuffer(), gl.createBuffer(), gl.createBuffer()];
  const shades = gl.createTexture();
  gl.bindTexture(gl.TEXTURE_2D, shades);
  for (const [name, value] of [
    [gl.TEXTURE_MIN_FILTER, gl.LINEAR],
    [gl.TEXTURE_MAG_FILTER, gl.LINEAR],
    [gl.TEXTURE_WRAP_S, gl.CLAMP_TO_EDGE],
    [gl.TEXTURE_WRAP_T, gl.CLAMP_TO_EDGE],
  ] as const)
    gl.texParameteri(gl.TEXTURE_2D, name, value);
  gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
  gl.enable(gl.DEPTH_TEST);

  const kept = new WeakMap<Uint8Array, Kept>();
  const fill = (target: number, buffer: WebGLBuffer, data: BufferSource, use: number): void => {
    gl.bindBuffer(target, buffer);
    gl.bufferData(target, data, use);
  };
  const feed = (buffer: WebGLBuffer, slot: number, size: number, type: number, stride = 0, offset = 0): void => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    gl.enableVertexAttribArray(slot);
    gl.vertexAttribPointer(slot, size, type, false, stride, offset);
  };
  const filled = (into: Kept, { inks, open, triangles }: Solid, use: number): Kept => {
    fill(gl.ARRAY_BUFFER, into.inks, Float32Array.from(inks), use);
    fill(gl.ARRAY_BUFFER, into.open, Float32Array.from(open ?? new Float32Array(inks.length).fill(1)), use);
    fill(gl.ELEMENT_ARRAY_BUFFER, into.triangles, Uint16Array.from(triangles), use);
    return into;
  };
  const room = (): Kept => ({ inks: gl.createBuffer(), open: gl.createBuffer(), triangles: gl.createBuffer() });
  /** What is held is another solid at every moment. */
  const passing = room();
  const keptOf = (solid: Solid, lasts: boolean): Kept => {
    if (!lasts) return filled(passing, solid, gl.DYNAMIC_DRAW);
    const known = kept.get(solid.inks);
    if (known) return known;
    const made = filled(room(), solid, gl.STATIC_DRAW);
    kept.set(solid.inks, made);
    return made;
  };

  return ({ scene, camera, box, palette, shadow, contour, detail }, { x, y, width, height }) => {
    const quick = detail === 'quick';
    const { right, up, back, shift, mirrored } = camera;
    const scale = Math.max(box.width / width, box.height / height);
    const [sx, sy] = [2 / (scale * width), 2 / (scale * height)];
    const eye = new Float32Array([0, 1, 2].flatMap((i) => [right[i] ?? 0, up[i] ?? 0, back[i] ?? 0]));
    const fit = [sx, sy, -(box.x + box.width / 2) * sx, (box.y + box.height / 2) * sy] as const;
    gl.viewport(x, y, width, height);
    gl.frontFace(mirrored ? gl.CW : gl.CCW);

    const blot = blotOf([scene.person, ...(scene.held ? [scene.held] : [])], shift);
    gl.useProgram(floor.program);
    gl.uniformMatrix3fv(floor.at('eye'), false, eye);
    gl.uniform4f(floor.at('fit'), ...fit);
    gl.uniform1f(floor.at('dark'), shadow);
    gl.bindTexture(gl.TEXTURE_2D, shades);
    gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8, blot.cells, blot.cells, 0, gl.RED, gl.UNSIGNED_BYTE, blot.shades);
    const { u0, v0, u1, v1 } = darkPart(blot);
    const [x0, z0] = [blot.x + u0 * blot.side, blot.z + v0 * blot.side];
    const [x1, z1] = [blot.x + u1 * blot.side, blot.z + v1 * blot.side];
    const corners = [x0, 0, z0, u0, v0, x1, 0, z0, u1, v0, x0, 0, z1, u0, v1, x1, 0, z1, u1, v1];
    fill(gl.ARRAY_BUFFER, square, new Float32Array(corners), gl.DYNAMIC_DRAW);
    feed(square, FLOOR_SLOTS.place, 3, gl.FLOAT, 20);
    feed(square, FLOOR_SLOTS.at, 2, gl.FLOAT, 20, 12);
    gl.disableVertexAttribArray(SLOTS.ink);
    gl.disableVertexAttribArray(SLOTS.open);
    gl.depthMask(false);
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
    gl.depthMask(true);

    gl.useProgram(solids.program);
    gl.uniformMatrix3fv(solids.at('eye'), false, eye);
    gl.uniform4f(solids.at('fit'), ...fit);
    gl.uniform3f(solids.at('shift'), shift[0], 0, shift[2]);
    gl.uniform3fv(
      solids.at('inks'),
      INKS.flatMap((ink) => lightOf(palette[ink]).map(encoded)),
    );
    for (const solid of solidsOf(scene, camera)) {
      const { inks, open, triangles } = keptOf(solid, solid !== scene.held);
      fill(gl.ARRAY_BUFFER, places, solid.positions as Float32Array<ArrayBuffer>, gl.DYNAMIC_DRAW);
      feed(places, SLOTS.place, 3, gl.FLOAT);
      fill(gl.ARRAY_BUFFER, normals, solid.normals as Float32Array<ArrayBuffer>, gl.DYNAMIC_DRAW);
      feed(normals, SLOTS.normal, 3, gl.FLOAT);
      feed(inks, SLOTS.ink, 1, gl.FLOAT);
      feed(open, SLOTS.open, 1, gl.FLOAT);
      gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, triangles);
      const pass = (grow: number): void => {
        gl.uniform1f(solids.at('grow'), grow);
        gl.uniform1f(solids.at('contour'), grow > 0 ? 1 : 0);
        gl.drawElements(gl.TRIANGLES, solid.triangles.length, gl.UNSIGNED_SHORT, 0);
      };
      gl.cullFace(gl.BACK);
      // What nobody sees is paid for as well.
      if (quick) gl.enable(gl.CULL_FACE);
      pass(0);
      gl.enable(gl.CULL_FACE);
      gl.cullFace(gl.FRONT);
      if (solid === scene.person && !(quick && contour < THICK_CM)) pass(contour);
      gl.disable(gl.CULL_FACE);
    }
  };
}

let shared: Stage | undefined;

/** The page's one stage. Without WebGL, and while it is away, pictures are drawn in plain numbers. */
export function sharedStage(): Stage {
  const card = shared?.card ?? hasCard();
  return (shared ??= stageWith(pressOn(new OffscreenCanvas(1, 1), card), card));
}
