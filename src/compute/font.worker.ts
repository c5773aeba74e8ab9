import { unpacked } from '@/core/lettering/font';

/** Opens a packed font file; null where it is damaged. A large one takes a second, in which the page goes on. */
self.onmessage = (e: MessageEvent<Uint8Array>) => self.postMessage(unpacked(e.data));
