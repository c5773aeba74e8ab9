/** Size of a card's picture, twice as fine as it is shown; behind the blank there is nothing. */
export const PORTRAIT = { width: 600, height: 356 } as const;

/** A picture as text, to be kept with its job. */
export const addressOf = (blob: Blob): Promise<string> =>
  new Promise((done, fail) => {
    const r = new FileReader();
    r.onload = () => done(r.result as string);
    r.onerror = () => fail(r.error);
    r.readAsDataURL(blob);
  });
