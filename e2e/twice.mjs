// Names at the end of a run the tests that passed only at their second try.
export default class Twice {
  onRunComplete(_contexts, { testResults }) {
    const twice = testResults.flatMap((file) =>
      file.testResults.filter((t) => t.status === 'passed' && t.invocations > 1).map((t) => t.fullName),
    );
    for (const name of twice) console.log(`Passed only at the second try: ${name}`);
  }
}
