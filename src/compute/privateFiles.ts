/** Files by name, in a folder of their own: of the browser's (OPFS), or of a test. */
export interface Files {
  read(name: string): Promise<Uint8Array<ArrayBuffer> | null>;
  /** Whole or not at all. */
  write(name: string, bytes: Uint8Array<ArrayBuffer>): Promise<void>;
  remove(name: string): Promise<void>;
  sizes(): Promise<Map<string, number>>;
  names(): Promise<string[]>;
}

/**
 * A folder of the browser's private files of this origin. They lie apart from its database, which is one store for all that an
 * origin keeps, and goes as a whole when it breaks. Rejects where the browser has none.
 */
export async function privateFiles(name: string): Promise<Files> {
  const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle(name, { create: true });
  const entries = () => (folder as unknown as { entries(): AsyncIterable<[string, FileSystemHandle]> }).entries();
  return {
    async read(name) {
      try {
        return new Uint8Array(await (await (await folder.getFileHandle(name)).getFile()).arrayBuffer());
      } catch (e) {
        if ((e as Error).name === 'NotFoundError') return null;
        throw e;
      }
    },
    async write(name, bytes) {
      // What is written takes the file's place when it is closed; given up, nothing has changed.
      const to = await (await folder.getFileHandle(name, { create: true })).createWritable();
      try {
        await to.write(bytes);
        await to.close();
      } catch (e) {
        await to.abort().catch(() => {});
        throw e;
      }
    },
    async remove(name) {
      await folder.removeEntry(name).catch(() => {});
    },
    async sizes() {
      const all = new Map<string, number>();
      for await (const [name, handle] of entries())
        if (handle.kind === 'file') all.set(name, (await (handle as FileSystemFileHandle).getFile()).size);
      return all;
    },
    async names() {
      const all: string[] = [];
      for await (const [name, handle] of entries()) if (handle.kind === 'file') all.push(name);
      return all;
    },
  };
}

const types = { Uint8Array, Int32Array, Float32Array, Float64Array } as const;
type View = InstanceType<(typeof types)[keyof typeof types]>;
/** Stands in the text for an array of numbers behind it: its type, where it begins, and how many. No plain value has such a key. */
const VIEW = '\u0000view';
const aligned = (n: number): number => 8 * Math.ceil(n / 8);

/** Stands for a number that JSON cannot say. */
const NUMBER = '\u0000number';
const sayable = (v: number): boolean => Number.isFinite(v) && !Object.is(v, -0);

/**
 * A plain value with arrays of numbers as bytes, whatever memory they lie in. What is undefined is left out of objects, as in
 * JSON.
 *
 *     | length of text, 8 bytes | text | arrays, each from a multiple of 8 on |
 */
export function toBytes(value: unknown): Uint8Array<ArrayBuffer> {
  const views: { readonly view: View; readonly at: number }[] = [];
  let end = 0;
  const text = new TextEncoder().encode(
    JSON.stringify(value, (_, v: unknown) => {
      if (typeof v === 'number' && !sayable(v)) return { [NUMBER]: Object.is(v, -0) ? '-0' : String(v) };
      if (!ArrayBuffer.isView(v)) return v;
      const at = end;
      views.push({ view: v as View, at });
      end += aligned(v.byteLength);
      return { [VIEW]: [(v as View).constructor.name, at, (v as View).length] };
    }),
  );
  const begin = aligned(8 + text.length);
  const bytes = new Uint8Array(begin + end);
  new Float64Array(bytes.buffer, 0, 1)[0] = text.length;
  bytes.set(text, 8);
  for (const { view, at } of views)
    bytes.set(new Uint8Array(view.buffer, view.byteOffset, view.byteLength), begin + at);
  return bytes;
}

/** The value of such bytes; its arrays lie in them. Throws on bytes that are none. */
export function fromBytes(bytes: Uint8Array<ArrayBuffer>): unknown {
  const [length] = new Float64Array(bytes.buffer, bytes.byteOffset, 1);
  const begin = aligned(8 + length);
  return JSON.parse(new TextDecoder().decode(bytes.subarray(8, 8 + length)), (_, v: Record<string, unknown> | null) => {
    if (!v || typeof v !== 'object') return v;
    if (NUMBER in v) return Number(v[NUMBER]);
    const view = v[VIEW] as [keyof typeof types, number, number] | undefined;
    return view ? new types[view[0]](bytes.buffer, bytes.byteOffset + begin + view[1], view[2]) : v;
  });
}
