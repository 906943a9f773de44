import { hostname, networkInterfaces } from 'node:os';

/** Names and numbers by which other machines near by reach this one, as they are now. */
export function namesOnNetwork(): string[] {
  const numbers = Object.values(networkInterfaces()).flatMap((entries) =>
    (entries ?? []).filter((e) => !e.internal && e.family === 'IPv4').map((e) => e.address),
  );
  const name = hostname().toLowerCase();
  return [...numbers, ...(name === '' || name === 'localhost' ? [] : [name, `${name}.local`])];
}
