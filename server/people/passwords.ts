/** Passwords are kept as Argon2id hashes alone. */
import { hash, verify } from '@node-rs/argon2';

/** OWASP's recommendation for Argon2id: 19 MiB, two passes. */
const strength = { memoryCost: 19456, timeCost: 2, parallelism: 1 };

export const hashed = (password: string): Promise<string> => hash(password, strength);
export const isPassword = (passwordHash: string, password: string): Promise<boolean> => verify(passwordHash, password);
