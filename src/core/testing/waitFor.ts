/** Waits until something is so, looked at every 25 ms; a test fails where it is not within five seconds. */
export async function waitFor(so: () => boolean): Promise<void> {
  for (let i = 0; !so(); i++) {
    if (i === 200) throw new Error(`It did not come to be within five seconds: ${so}`);
    await new Promise((r) => setTimeout(r, 25));
  }
}
