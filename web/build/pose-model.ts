/**
 * The model that finds a body on a picture, put together from published weights: a detector and a landmark model, each told how its input
 * is to be scaled, in one archive. The shapes are those of TensorFlow Lite's public schemas (model and metadata).
 */
import { zipSync } from 'fflate';
import { Builder, ByteBuffer } from 'flatbuffers';

/** Fields of the tables that are written or read here, by their place in the schema. */
const MODEL = {
  version: 0,
  operators: 1,
  subgraphs: 2,
  description: 3,
  buffers: 4,
  metadataBuffer: 5,
  metadata: 6,
  signatures: 7,
};
const RGB = 1;
const IMAGE_PROPERTIES = 2;
const NORMALIZATION = 1;
const VERSION = 'TFL3';
/** Weights are read in place and want to begin at such a boundary. */
const ALIGNED = 64;

interface Scale {
  mean: number;
  deviation: number;
}

/** What the detector and the landmark model were trained on: −1 to 1, and 0 to 1. */
const DETECTOR: Scale = { mean: 127.5, deviation: 127.5 };
const LANDMARKS: Scale = { mean: 0, deviation: 255 };

/** The description of the one input: a picture in RGB, of which mean and deviation are taken off. */
function metadataOf({ mean, deviation }: Scale): Uint8Array {
  const to = new Builder();
  const table = (fields: number, fill: () => void): number => {
    to.startObject(fields);
    fill();
    return to.endObject();
  };
  const listOf = (at: number): number => {
    to.startVector(4, 1, 4);
    to.addOffset(at);
    return to.endVector();
  };
  const number = (value: number): number => {
    to.startVector(4, 1, 4);
    to.addFloat32(value);
    return to.endVector();
  };
  const [means, deviations] = [number(mean), number(deviation)];
  const options = table(2, () => {
    to.addFieldOffset(0, means, 0);
    to.addFieldOffset(1, deviations, 0);
  });
  const unit = table(2, () => {
    to.addFieldInt8(0, NORMALIZATION, 0);
    to.addFieldOffset(1, options, 0);
  });
  const picture = table(2, () => to.addFieldInt8(0, RGB, 0));
  const content = table(3, () => {
    to.addFieldInt8(0, IMAGE_PROPERTIES, 0);
    to.addFieldOffset(1, picture, 0);
  });
  const units = listOf(unit);
  const input = table(5, () => {
    to.addFieldOffset(3, content, 0);
    to.addFieldOffset(4, units, 0);
  });
  const inputs = listOf(input);
  const subgraph = table(3, () => to.addFieldOffset(2, inputs, 0));
  const subgraphs = listOf(subgraph);
  to.finish(
    table(4, () => to.addFieldOffset(3, subgraphs, 0)),
    'M001',
  );
  return to.asUint8Array();
}

/** Reads where the fields of a table lie. */
function reader(bytes: Uint8Array) {
  const from = new ByteBuffer(bytes);
  const far = (at: number): number => at + from.readUint32(at);
  return {
    from,
    root: far(0),
    /** Where a field lies; 0 when it is not there. */
    field(table: number, place: number): number {
      const at = from.__offset(table, 4 + 2 * place);
      return at === 0 ? 0 : table + at;
    },
    /** Where the places of a list lie. */
    places(at: number): number[] {
      if (at === 0) return [];
      const list = far(at);
      return Array.from({ length: from.readUint32(list) }, (_, i) => list + 4 + 4 * i);
    },
    far,
  };
}

/** A front part is put before the whole of the old file; what it points to lies behind it, where offsets reach. */
function described(weights: Uint8Array, scale: Scale): Uint8Array {
  const old = reader(weights);
  if (old.from.getBufferIdentifier() !== VERSION) throw new Error('These are no weights of a model.');
  const buffers = old.places(old.field(old.root, MODEL.buffers));
  const metadata = old.places(old.field(old.root, MODEL.metadata));
  const kept = Object.values(MODEL).filter(
    (place) => ![MODEL.version, MODEL.buffers, MODEL.metadata].includes(place) && old.field(old.root, place) !== 0,
  );

  const to = new Builder();
  to.forceDefaults(true);
  const data = to.createByteVector(metadataOf(scale));
  to.startObject(1);
  to.addFieldOffset(0, data, 0);
  const buffer = to.endObject();
  const name = to.createString('TFLITE_METADATA');
  to.startObject(2);
  to.addFieldOffset(0, name, 0);
  to.addFieldInt32(1, buffers.length, 0);
  const entry = to.endObject();
  /** Lists are written from behind: the new one last, the others are filled in below. */
  const listWith = (last: number, others: number): number => {
    to.startVector(4, others + 1, 4);
    to.addOffset(last);
    for (let i = 0; i < others; i += 1) to.addInt32(0);
    return to.endVector();
  };
  const [entries, all] = [listWith(entry, metadata.length), listWith(buffer, buffers.length)];
  to.startObject(8);
  to.addFieldInt32(MODEL.version, old.from.readInt32(old.field(old.root, MODEL.version)), 0);
  for (const place of kept) to.addFieldInt32(place, 0, 0);
  to.addFieldOffset(MODEL.buffers, all, 0);
  to.addFieldOffset(MODEL.metadata, entries, 0);
  to.finish(to.endObject(), VERSION);

  const written = to.asUint8Array();
  const start = Math.ceil(written.length / ALIGNED) * ALIGNED;
  const whole = new Uint8Array(start + weights.length);
  whole.set(written);
  whole.set(weights, start);
  const front = reader(whole);
  const point = (at: number, target: number): void => front.from.writeInt32(at, start + target - at);
  const lists = (place: number, targets: number[]): void =>
    front
      .places(front.field(front.root, place))
      .slice(0, targets.length)
      .forEach((at, i) => point(at, old.far(targets[i] as number)));
  lists(MODEL.buffers, buffers);
  lists(MODEL.metadata, metadata);
  for (const place of kept) point(front.field(front.root, place), old.far(old.field(old.root, place)));
  return whole;
}

const HEADER = 30;

/** The archive, stored and not packed, with each file at a boundary. */
export function poseModel(detector: Uint8Array, landmarks: Uint8Array): Uint8Array {
  const files = [
    ['pose_detector.tflite', described(detector, DETECTOR)],
    ['pose_landmarks_detector.tflite', described(landmarks, LANDMARKS)],
  ] as const;
  let at = 0;
  return zipSync(
    Object.fromEntries(
      files.map(([name, bytes]) => {
        const start = at + HEADER + name.length;
        // A field of no meaning of at least four bytes fills up to the boundary.
        const fill = Math.ceil((start + 4) / ALIGNED) * ALIGNED - start;
        at = start + fill + bytes.length;
        return [name, [bytes, { level: 0, mtime: new Date(1990, 0, 1), extra: { 0xffff: new Uint8Array(fill - 4) } }]];
      }),
    ),
  );
}
