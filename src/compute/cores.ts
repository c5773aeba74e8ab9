/** More workers than so many want more memory than they save time. */
const MOST = 16;

/** How many workers there are for the work on a job: one for each core of this device. Read in the window and in any worker. */
export const workerCount = (): number => Math.min(MOST, Math.max(2, navigator.hardwareConcurrency || 2));
