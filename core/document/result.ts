export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

export interface PatchError {
  /** Where: `modules[2].params.rateHz`. */
  readonly path: string;
  readonly message: string;
}

export type Result<T, E> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly errors: E };
