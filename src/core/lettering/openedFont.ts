import { damaged, isCollection, isTight, LARGEST, sfntIn, type OpenFont } from './font';
import { openWoff2 } from './woff2';

/**
 * The font in a file, whichever way it is packed, tightly (WOFF2) too. What opens those brings a dictionary of its own, which takes a
 * twentieth of a second to be made ready wherever it is loaded: so whoever only sets letters is given fonts that are open already.
 */
export const openedFont: OpenFont = (bytes, name) => {
  if (!isTight(bytes) || isCollection(bytes)) return sfntIn(bytes, name);
  const sfnt = openWoff2(bytes, LARGEST);
  if (!sfnt) throw damaged(name);
  return sfnt;
};
