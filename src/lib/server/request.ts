/** Reading request bodies: bounded, JSON, checked by Zod, refused in sentences. */
import { RECORDING } from '$core/formats/sound/wav';
import { z } from 'zod';
import { isWav } from './sounds';
import { joined } from './streams';

export const BODY_LIMIT = 524_288;
const RECORDING_LIMIT = RECORDING.megabytes * 2 ** 20;
/** A take's sound: five minutes of it and more. */
const SOUND_LIMIT = 60 * 2 ** 20;
const DEPTH_LIMIT = 32;

export interface Refusal {
  readonly status: number;
  readonly code: string;
  readonly message: string;
  readonly path?: string;
}

export type Body<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusal: Refusal };

const refuse = (status: number, code: string, message: string, path?: string): Body<never> => ({
  ok: false,
  refusal: { status, code, message, ...(path === undefined ? {} : { path }) },
});

/** The body's bytes; null where there are too many, of which the rest is read and forgotten. */
async function readBounded(request: Request, limit: number): Promise<Uint8Array | null> {
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array();
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size <= limit) chunks.push(value);
  }
  if (size > limit) return null;
  return joined(chunks, size);
}

const utf8 = new TextDecoder('utf-8', { fatal: true });

function tooDeep(value: unknown, depth = 0): boolean {
  if (depth > DEPTH_LIMIT) return true;
  if (typeof value !== 'object' || value === null) return false;
  return Object.values(value).some((inner) => tooDeep(inner, depth + 1));
}

/** The body of a request as the schema describes it, or why not. */
export async function readBody<T>(
  request: Request,
  schema: z.core.$ZodType<T>,
  limit = BODY_LIMIT,
): Promise<Body<T>> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\b/iu.test(type)) {
    return refuse(422, 'invalid_request', 'Send the request as application/json.', 'content-type');
  }
  let body: Uint8Array | null;
  try {
    body = await readBounded(request, limit);
  } catch {
    // The adapter's own limit, or a client that went away.
    body = null;
  }
  if (body === null) {
    return refuse(413, 'too_large', `A request holds at most ${limit / 1024} kB.`);
  }
  let value: unknown;
  try {
    value = JSON.parse(utf8.decode(body));
  } catch {
    return refuse(400, 'invalid_json', 'The request is not valid JSON in UTF-8.');
  }
  if (tooDeep(value)) {
    return refuse(422, 'invalid_request', 'The request is nested too deeply.', '');
  }
  const parsed = z.safeParse(schema, value);
  if (parsed.success) return { ok: true, value: parsed.data };
  const issue = parsed.error.issues[0];
  const path = issue?.path.join('.') ?? '';
  const where = path === '' ? 'The request' : `“${path}”`;
  return refuse(422, 'invalid_request', `${where}: ${issue?.message ?? 'not as expected'}.`, path);
}

/** The bytes of a file that is sent as it is. */
export async function readBytes(request: Request, limit: number): Promise<Body<Uint8Array>> {
  const body = await readBounded(request, limit).catch(() => null);
  if (body !== null) return { ok: true, value: body };
  return refuse(413, 'too_large', `A file holds at most ${limit / 2 ** 20} MB.`);
}

/** The bytes of a recording that is sent as it is, up to a limit. */
export async function readRecording(
  request: Request,
  limit = RECORDING_LIMIT,
): Promise<Body<Uint8Array>> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^audio\/(x-|vnd\.)?wave?\b/iu.test(type))
    return refuse(422, 'invalid_request', 'Send the recording as audio/wav.', 'content-type');
  return readBytes(request, limit);
}

/** The bytes of a WAV file that is to be kept. */
export async function readSoundFile(request: Request): Promise<Body<Uint8Array>> {
  const body = await readRecording(request, SOUND_LIMIT);
  return !body.ok || isWav(body.value)
    ? body
    : refuse(422, 'invalid_request', 'This is not a WAV file.', '');
}

export const refusalResponse = ({ status, ...error }: Refusal): Response =>
  Response.json({ error }, { status });

/** Whether an id may be that of something new: as the pages make them. */
export const isNewId = (id: string): boolean => /^[a-z0-9]{8,40}$/u.test(id);
