import { lengthOf } from '@/core/program/text';
import { busyWith } from '@/ui/common/busy';
import { downloadBlob } from './files';
import { pour, type Sink, type Written } from './pour';
import { tell } from './tell';

/** What is larger goes straight into a file that the maker names, where the browser lets it, bytes: it need not lie in memory first. */
const LARGE = 64e6;

interface Writable {
  write(part: Uint8Array<ArrayBuffer>): Promise<void>;
  close(): Promise<void>;
  abort(): Promise<void>;
}
type Picker = {
  showSaveFilePicker?: (o: { suggestedName: string }) => Promise<{ createWritable(): Promise<Writable> }>;
};

/** A file that the maker has named; null where the browser has no such thing, undefined where the maker has changed their mind. */
async function namedFile(name: string): Promise<Writable | null | undefined> {
  const ask = (window as unknown as Picker).showSaveFilePicker;
  if (!ask) return null;
  try {
    return await (await ask.call(window, { suggestedName: name })).createWritable();
  } catch (e) {
    return (e as Error).name === 'AbortError' ? undefined : null;
  }
}

/** Saves a program, or several as an archive, under a name: in parts, so that the page goes on meanwhile. */
export async function saveWritten(name: string, files: readonly Written[], zipped: boolean): Promise<void> {
  const large = files.reduce((n, f) => n + lengthOf(f.chunks), 0) > LARGE;
  const to = large ? await namedFile(name) : null;
  if (to === undefined) return;
  // Each part is the browser's at once: given all of them in one go it copies them in one go.
  const parts: Blob[] = [];
  const sink: Sink = to ? (part) => to.write(part) : (part) => void parts.push(new Blob([part]));
  const stop = new AbortController();
  try {
    await busyWith(
      `Saving ${name}\u2026`,
      () => stop.abort(),
      () => pour(files, zipped, sink, stop.signal),
    );
    if (to) await to.close();
    else downloadBlob(name, new Blob(parts, { type: zipped ? 'application/zip' : 'text/plain' }));
  } catch (e) {
    await to?.abort().catch(() => {});
    if (stop.signal.aborted) tell('info', `"${name}" was not saved: you stopped it.`);
    else
      tell(
        'error',
        `"${name}" could not be saved: ${to ? 'the disk may be full, or the file is in use. Save it elsewhere.' : 'this device may have too little memory. Save each program by itself.'}`,
      );
    console.error(e);
  }
}
