import { loadFont } from '@/core/lettering/font';
import { saysOf } from '@/core/units/says';

/** Reads a font and draws its common letters; answers null, or what is wrong with it. A font that hangs holds up this worker only. */
self.onmessage = (e: MessageEvent<Uint8Array>) => {
  try {
    const font = loadFont(e.data, 'font');
    let drawn = 0;
    for (let c = 33; c < 0x250; c++)
      if (font.has(String.fromCharCode(c))) drawn += font.glyph(String.fromCharCode(c)).paths.length;
    font.kern('A', 'V');
    self.postMessage(drawn ? null : 'it has no letters that can be cut');
  } catch (error) {
    self.postMessage(
      saysOf(error, 'its letters cannot be drawn')
        .replace(/^The font "font" cannot be used: /, '')
        .replace(/\.$/, ''),
    );
  }
};
