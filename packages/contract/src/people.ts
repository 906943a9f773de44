import { z } from 'zod';

/** A person who works at this bench, where it can be reached from other machines. */
export const personSchema = z.object({
  id: z.uuid(),
  name: z.string(),
  /** May add and remove people. */
  isOwner: z.boolean(),
});
export type Person = z.infer<typeof personSchema>;

/** Shortest passphrase: length is what makes guessing hopeless (NIST SP 800-63B asks for 8 at least). */
export const SHORTEST_PASSPHRASE = 10;
const passphraseSchema = z
  .string()
  .min(SHORTEST_PASSPHRASE, `a passphrase has at least ${SHORTEST_PASSPHRASE} characters`)
  .max(200);
/** A name as it is seen: one that differs by invisible signs, or by how its letters are put together, is the same name. */
const seenName = (name: string): string =>
  name
    .normalize('NFKC')
    .replace(/[\p{Cf}\p{Cc}\p{Default_Ignorable_Code_Point}]/gu, '')
    .replace(/\s+/gu, ' ')
    .trim();
const personNameSchema = z.string().max(200).overwrite(seenName).min(1, 'a person needs a name').max(60);

/** Who asks, and what has to be done first. */
export const sessionSchema = z.discriminatedUnion('state', [
  /** The bench is reached from this machine only: nobody is asked for a name. */
  z.object({ state: z.literal('open') }),
  /** Nobody is known yet: whoever sits at the bench's own machine names the first person. */
  z.object({ state: z.literal('first'), mayBegin: z.boolean() }),
  z.object({ state: z.literal('signed-out') }),
  z.object({
    state: z.literal('signed-in'),
    person: personSchema,
    /** Addresses of the bench as other machines reach it. */
    addresses: z.array(z.string()),
  }),
]);
export type Session = z.infer<typeof sessionSchema>;

export const signInSchema = z.object({ name: personNameSchema, passphrase: z.string().min(1).max(200) });
export const newPersonSchema = z.object({ name: personNameSchema, passphrase: passphraseSchema });
export const newPassphraseSchema = z.object({
  /** The one so far; not asked of the owner for somebody else. */
  current: z.string().max(200).optional(),
  passphrase: passphraseSchema,
});
export const peopleSchema = z.object({ people: z.array(personSchema) });

/** A code that lets one more device in, once. */
export const pairingSchema = z.object({ code: z.string(), expiresAt: z.iso.datetime() });
export type Pairing = z.infer<typeof pairingSchema>;
export const redeemSchema = z.object({ code: z.string().min(1).max(100) });

/** How long a pairing code works, s. */
export const PAIRING_S = 120;
