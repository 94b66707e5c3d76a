/** How many tries a test makes: a share of them in every run, all of them with `bin/test --whole` (ETAGERE_WHOLE_TESTS=1). */
export const tries = (all: number, share: number): number => (process.env.ETAGERE_WHOLE_TESTS ? all : share);
