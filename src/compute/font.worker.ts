import { FontError } from '@/core/lettering/font';
import { openedFont } from '@/core/lettering/openedFont';

/** Opens a packed font file, or says what is wrong with it. A large one takes a second, in which the page goes on. */
self.onmessage = (e: MessageEvent<Uint8Array>) => {
  try {
    self.postMessage(openedFont(e.data, 'font'));
  } catch (error) {
    self.postMessage(error instanceof FontError ? error.why : 'it cannot be read');
  }
};
