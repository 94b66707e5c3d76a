/** How many tries a test makes: a share of them in every run, all of them with `bin/test --long` (ETAGERE_LONG_TESTS=1). */
export const tries = (all: number, share: number): number => (process.env.ETAGERE_LONG_TESTS ? all : share);
