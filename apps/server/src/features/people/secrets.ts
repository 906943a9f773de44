import { createHash, randomBytes } from 'node:crypto';

const SECRET_BYTES = 32;

/** What only the holder knows, as text for a cookie or an address. */
export const newSecret = (): string => randomBytes(SECRET_BYTES).toString('base64url');

/** What is kept of a secret: whoever reads the database cannot use it. */
export const digestOf = (secret: string): string => createHash('sha256').update(secret).digest('base64url');
