/** Structured log lines on standard output, one JSON object each. */
export function log(
  level: 'info' | 'warn' | 'error',
  message: string,
  fields: Readonly<Record<string, unknown>> = {},
): void {
  console.log(JSON.stringify({ time: new Date().toISOString(), level, message, ...fields }));
}
