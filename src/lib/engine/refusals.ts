/** Saying no: every error the engine answers, as a value. */
import type { Problem } from '$core/chart/syntax';

interface EngineError {
  readonly code: 'invalid_chart' | 'invalid_request' | 'unknown_collection' | 'out_of_range';
  readonly message: string;
  readonly path?: string;
  readonly line?: number;
  readonly column?: number;
  readonly token?: string;
}

export type EngineResult<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: EngineError };

export const accept = <T>(value: T): EngineResult<T> => ({ ok: true, value });

export const refuse = (error: EngineError): EngineResult<never> => ({ ok: false, error });

export const refuseChart = ({ message, line, column, token }: Problem): EngineResult<never> =>
  refuse({ code: 'invalid_chart', message, line, column, token });
