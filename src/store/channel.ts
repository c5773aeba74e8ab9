/** Windows of this device tell each other what they have changed. */
export type News =
  | { readonly of: 'job'; readonly id: string; readonly revision: number }
  /** Fonts or pictures came. */
  | { readonly of: 'files' }
  | { readonly of: 'library' }
  | { readonly of: 'shelves'; readonly name: string };

export const CHANNEL = 'mirvak';
const channel =
  typeof window === 'undefined' || typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);

/** Ears of this window that want its own news too. */
const own = new Set<(news: News) => void>();

export const tellOthers = (news: News): void => channel?.postMessage(news);

/** Tells this window's own ears too. */
export function tellAll(news: News): void {
  tellOthers(news);
  own.forEach((hear) => hear(news));
}

/** Hears the news of every window, this one's too; gives the way to stop that. */
export function onAllNews<K extends News['of']>(of: K, heard: () => void): () => void {
  const mine = (n: News) => n.of === of && heard();
  own.add(mine);
  const deaf = onNews(of, heard);
  return () => {
    own.delete(mine);
    deaf();
  };
}

/** Calls back when another window tells something of a kind; gives the way to stop that. */
export function onNews<K extends News['of']>(of: K, heard: (news: Extract<News, { of: K }>) => void): () => void {
  const listen = (e: MessageEvent<News>) => e.data.of === of && heard(e.data as Extract<News, { of: K }>);
  channel?.addEventListener('message', listen);
  return () => channel?.removeEventListener('message', listen);
}
