import anyAscii from 'any-ascii';

/** Text in printable ASCII: letters of other scripts are written as they sound, accents are dropped, nothing becomes a control character. */
export const toAscii = (text: string): string => anyAscii(text).replace(/[^\x20-\x7e]/g, ' ');
