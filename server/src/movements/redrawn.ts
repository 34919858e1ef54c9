/** A picture drawn anew from its points: whatever else a file held, such as a place, a page or a program, is not in it any more. */
const TYPES = { png: 'image/png', jpeg: 'image/jpeg', webp: 'image/webp' } as const;
type Format = keyof typeof TYPES;

/** More points than a camera of today has are a trap. */
const MOST_POINTS = 50_000_000;
const isFormat = (format: string | undefined): format is Format => format !== undefined && format in TYPES;

/** In its own format, upright; null for what is no whole PNG, JPEG or WebP picture. */
export async function redrawn(bytes: Buffer): Promise<{ type: string; bytes: Buffer } | null> {
  // A library of its own weight, wanted seldom.
  const { default: sharp } = await import('sharp');
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_POINTS, failOn: 'warning' });
    const { format } = await picture.metadata();
    if (!isFormat(format)) return null;
    return { type: TYPES[format], bytes: await picture.rotate().toFormat(format).toBuffer() };
  } catch {
    return null;
  }
}
