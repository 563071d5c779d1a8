/** The part of a desk's address that asks for the place of its first finding. */
export const FINDINGS = 'findings';
