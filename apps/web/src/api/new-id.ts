import { v7 as uuid } from 'uuid';

/** A new id: of an entity, or of a write. Later ones sort behind earlier ones (UUIDv7, RFC 9562). */
export const newId = (): string => uuid();
