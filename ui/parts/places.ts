/** The part of an editor's address that asks for the place of its first finding. */
export const FINDINGS = 'findings';
