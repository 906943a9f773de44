import { randomUUID } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { PAIRING_S, type Pairing, type Person } from '@zemble/contract';
import type { Sequelize } from 'sequelize';
import { alone } from '../../database/migrate.ts';
import type { PersonModel } from '../../database/models/index.ts';
import { AtATime } from '../../at-a-time.ts';
import { ApiError, invalid, notFound } from '../../errors.ts';
import { countAttempt, forgiveAttempts } from './attempts.ts';
import {
  deletePerson,
  endSessions,
  insertPairing,
  insertPerson,
  insertSession,
  isAnybodyKnown,
  personById,
  personByName,
  setPassphrase,
  takePairing,
} from './repository.ts';
import { newSecret } from './secrets.ts';

export const personResource = ({ id, name, isOwner }: PersonModel): Person => ({ id, name, isOwner });

/** A name that nobody has is looked at for as long as one that somebody has. */
const NOBODY = await hash(newSecret());

/** A passphrase takes a while to look at, on purpose: a burst of them waits, and takes no time from who is signed in. */
const looking = new AtATime(2, 100);

const notLetIn = (detail: string): ApiError =>
  new ApiError('not-let-in', detail, 'Check both and try again.');

/** Signs a person in on a device: the token for its cookie. Throws 401 and 429. */
export async function signIn(
  database: Sequelize,
  name: string,
  passphrase: string,
  address: string,
): Promise<{ token: string; person: PersonModel }> {
  await countAttempt(database, 'address', address);
  await countAttempt(database, 'name', name);
  const person = await personByName(name);
  const isRight = await looking.run(() => verify(person?.passphrase ?? NOBODY, passphrase));
  if (!person || !isRight) throw notLetIn('This name with this passphrase is not known here.');
  await forgiveAttempts(database, 'name', name);
  await forgiveAttempts(database, 'address', address);
  return letIn(person);
}

async function letIn(person: PersonModel): Promise<{ token: string; person: PersonModel }> {
  const token = newSecret();
  await insertSession(token, person.id);
  return { token, person };
}

/** The first person, who owns the bench. Throws 403 where somebody is known already. */
export async function beginWith(
  database: Sequelize,
  name: string,
  passphrase: string,
): Promise<{ token: string; person: PersonModel }> {
  let first: PersonModel | undefined;
  await alone(database, async (transaction) => {
    if (await isAnybodyKnown()) throw refused('There are people at this bench already.');
    first = await insertPerson(await newPerson(name, passphrase, true), transaction);
  });
  return letIn(first!);
}

const newPerson = async (name: string, passphrase: string, isOwner: boolean) => ({
  id: randomUUID(),
  name,
  passphrase: await hash(passphrase),
  isOwner,
  createdAt: new Date(),
});

const refused = (detail: string): ApiError =>
  new ApiError('not-yours', detail, 'Ask the owner of the bench.');

/** Adds a person. Throws 403 for who does not own the bench, 422 for a name that somebody has. */
export async function addPerson(
  database: Sequelize,
  by: PersonModel,
  name: string,
  passphrase: string,
): Promise<PersonModel> {
  if (!by.isOwner) throw refused('Only the owner of the bench adds people.');
  if (await personByName(name))
    throw invalid(`There is somebody called ${name} already.`, 'Choose another name.');
  const values = await newPerson(name, passphrase, false);
  return database.transaction((transaction) => insertPerson(values, transaction));
}

/** Removes a person, with all devices; what they did stays in the log. Throws 403, 404. */
export async function removePerson(by: PersonModel, id: string): Promise<void> {
  if (!by.isOwner) throw refused('Only the owner of the bench removes people.');
  if (by.id === id) throw refused('Whoever owns the bench cannot be removed.');
  if (!(await personById(id))) throw notFound('person', id);
  await deletePerson(id);
}

/** Sets a passphrase anew and signs the person out on all other devices. Throws 401, 403, 404, 429. */
export async function changePassphrase(
  database: Sequelize,
  by: PersonModel,
  id: string,
  change: { readonly current?: string | undefined; readonly passphrase: string },
  token: string,
): Promise<void> {
  const isOwn = by.id === id;
  if (!isOwn && !by.isOwner) throw refused('Only the owner of the bench sets the passphrase of another.');
  const person = await personById(id);
  if (!person) throw notFound('person', id);
  if (isOwn) {
    await countAttempt(database, 'name', person.name);
    if (!(await verify(person.passphrase, change.current ?? '')))
      throw notLetIn('The passphrase so far is another one.');
    await forgiveAttempts(database, 'name', person.name);
  }
  await setPassphrase(person, await hash(change.passphrase));
  await endSessions(id, isOwn ? token : undefined);
}

/** A code that lets one more device of a person in, once, for two minutes. */
export async function offerPairing(personId: string): Promise<Pairing> {
  const code = newSecret();
  const expiresAt = new Date(Date.now() + PAIRING_S * 1000);
  await insertPairing(code, personId, expiresAt);
  return { code, expiresAt: expiresAt.toISOString() };
}

/** Lets the device in that brings a pairing code. Throws 401 for one that is unknown, used or too old, and 429. */
export async function redeemPairing(
  database: Sequelize,
  code: string,
  address: string,
): Promise<{ token: string; person: PersonModel }> {
  await countAttempt(database, 'address', address);
  const personId = await takePairing(database, code);
  const person = personId === null ? null : await personById(personId);
  if (!person)
    throw new ApiError(
      'not-let-in',
      'This pairing code was used already, or is too old.',
      'Show a new one on the device that is signed in.',
    );
  await forgiveAttempts(database, 'address', address);
  return letIn(person);
}
