/** Reading request bodies: bounded, JSON, checked by Zod, refused in sentences. */
import type { z } from 'zod';

export const BODY_LIMIT = 524_288;
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

async function readBounded(request: Request): Promise<string | null> {
  if (Number(request.headers.get('content-length') ?? 0) > BODY_LIMIT) return null;
  const reader = request.body?.getReader();
  if (!reader) return '';
  const decoder = new TextDecoder();
  let text = '';
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return text + decoder.decode();
    size += value.byteLength;
    if (size > BODY_LIMIT) {
      await reader.cancel();
      return null;
    }
    text += decoder.decode(value, { stream: true });
  }
}

function tooDeep(value: unknown, depth = 0): boolean {
  if (depth > DEPTH_LIMIT) return true;
  if (typeof value !== 'object' || value === null) return false;
  return Object.values(value).some((inner) => tooDeep(inner, depth + 1));
}

/** The body of a request as the schema describes it, or why not. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<Body<T>> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\b/iu.test(type)) {
    return refuse(422, 'invalid_request', 'Send the request as application/json.', 'content-type');
  }
  let text: string | null;
  try {
    text = await readBounded(request);
  } catch {
    // The adapter's own limit, or a client that went away.
    text = null;
  }
  if (text === null) {
    return refuse(413, 'too_large', `A request holds at most ${BODY_LIMIT / 1024} kB.`);
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return refuse(400, 'invalid_json', 'The request is not valid JSON.');
  }
  if (tooDeep(value)) {
    return refuse(422, 'invalid_request', 'The request is nested too deeply.', '');
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return { ok: true, value: parsed.data };
  const issue = parsed.error.issues[0];
  const path = issue?.path.join('.') ?? '';
  const where = path === '' ? 'The request' : `“${path}”`;
  return refuse(422, 'invalid_request', `${where}: ${issue?.message ?? 'not as expected'}.`, path);
}

export const refusalResponse = ({ status, ...error }: Refusal): Response =>
  Response.json({ error }, { status });
