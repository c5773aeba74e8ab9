// A window on a loaded machine may stall for longer than anybody waits, once in many hundred tests. A test that failed is tried
// once more; what the first try said is printed, and `twice.mjs` names it at the end, so that it is looked into.
jest.retryTimes(1, { logErrorsBeforeRetry: true });
