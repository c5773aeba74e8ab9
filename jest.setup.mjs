import fc from 'fast-check';

// In CI properties are tried on the same values each time; elsewhere every run looks at others.
if (process.env.CI) fc.configureGlobal({ seed: 20261125 });
