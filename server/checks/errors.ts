/** A fault that is told to the caller, in the one shape that all answers use. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: unknown = null,
    /** The details as text, where they hold documents that need not be read for it. */
    readonly detailsText: string | null = null,
  ) {
    super(message);
  }
}

export const notFound = (what: string): ApiError => new ApiError(404, 'not-found', `There is no ${what}.`);
