import fc from 'fast-check';

/** The check that decides what lands tries the same inputs each time; on a desk every run tries new ones. */
if (process.env.CI) fc.configureGlobal({ seed: 20261124 });
