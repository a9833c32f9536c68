import fc from 'fast-check';

// Each mutant meets every property again: a few tries each have to do.
fc.configureGlobal({ numRuns: 20 });
