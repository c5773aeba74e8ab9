import { decode, type DecodedPng } from 'fast-png';
import type { GreyPicture } from '../../relief/picture';
import { ExchangeError } from '../drawn';
import { isPng, lookThroughPng } from './chunks';

/** How light red, green and blue are (ITU-R BT.709). */
const LIGHT = [0.2126, 0.7152, 0.0722];

/** Reads a PNG of 1 to 16 bits as greys. Throws ExchangeError that names the file, the place and what to do. */
export function readPicture(name: string, bytes: Uint8Array): GreyPicture {
  if (!bytes.length) throw new ExchangeError(name, 'it is empty.');
  if (!isPng(bytes)) throw new ExchangeError(name, 'it is no PNG. Save it as PNG.');
  const { plain } = lookThroughPng(name, bytes);
  let png: DecodedPng;
  try {
    png = decode(plain, { checkCrc: true });
  } catch (e) {
    throw new ExchangeError(name, `it is broken (${(e as Error).message}). Copy it again from where it comes from.`);
  }
  return greysOf(png);
}

function greysOf(png: DecodedPng): GreyPicture {
  const { width, height, depth, palette, transparency } = png;
  const light = new Float32Array(width * height);
  const most = 2 ** depth - 1;
  const value = valuesOf(png);
  const clear = (values: readonly number[]) => !!transparency?.length && values.every((v, k) => v === transparency[k]);
  const grey = (c: readonly number[], of: number) => {
    const v = c.length < 3 ? c[0] : LIGHT[0] * c[0] + LIGHT[1] * c[1] + LIGHT[2] * c[2];
    return v / of;
  };
  const channels = palette ? 1 : png.channels;
  const colours = channels - (channels % 2 === 0 ? 1 : 0);
  for (let i = 0; i < light.length; i++) {
    if (palette) {
      const [r, g, b, alpha = 255] = palette[Math.min(value(i, 0), palette.length - 1)];
      light[i] = alpha === 0 ? NaN : grey([r, g, b], 255);
      continue;
    }
    if (channels === 1 && !transparency) {
      light[i] = value(i, 0) / most;
      continue;
    }
    const c = Array.from({ length: colours }, (_, k) => value(i, k));
    const empty = colours < channels ? value(i, colours) === 0 : clear(c);
    light[i] = empty ? NaN : grey(c, most);
  }
  return { width, height, light, greys: palette ? 256 : most + 1 };
}

/** Reads a value of a pixel; those of less than eight bits lie packed in rows of whole bytes. */
function valuesOf({ width, depth, channels, data }: DecodedPng): (pixel: number, channel: number) => number {
  if (depth >= 8) return (i, k) => data[i * channels + k];
  const row = Math.ceil((width * depth) / 8);
  const each = 8 / depth;
  const mask = 2 ** depth - 1;
  return (i) => {
    const [r, c] = [Math.floor(i / width), i % width];
    return (data[r * row + Math.floor(c / each)] >> (8 - depth - (c % each) * depth)) & mask;
  };
}
