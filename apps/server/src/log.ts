import type { FastifyServerOptions } from 'fastify';

/** A log file that is larger is put aside, and so many of those are kept. */
const ROTATION = { size: '5m', limit: { count: 4 } } as const;
/** A request carries a device's token in its cookie. */
const SECRET = ['req.headers.cookie', 'req.headers.authorization', 'res.headers["set-cookie"]'];

/** What a failed statement carries is what somebody typed: of an error of the database its words are logged, and where it was made. */
const serializers = {
  err(error: Error & { readonly code?: unknown; readonly parent?: { readonly code?: unknown } }) {
    const { name, message, stack = '', code, parent } = error;
    return { type: name, message, stack, code: code ?? parent?.code };
  },
};

/** Every request into a file, what went wrong to the terminal too. Without a file, what went wrong only. */
export function serverLog(file: string | undefined): FastifyServerOptions['logger'] {
  const toTerminal = { target: 'pino/file', level: 'warn', options: { destination: 2 } };
  if (file === undefined) return { level: 'warn', redact: SECRET, serializers };
  const toFile = { target: 'pino-roll', level: 'info', options: { file, mkdir: true, ...ROTATION } };
  return { level: 'info', redact: SECRET, serializers, transport: { targets: [toFile, toTerminal] } };
}
