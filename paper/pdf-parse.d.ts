declare module 'pdf-parse/lib/pdf-parse.js' {
  /** What a PDF says, and on how many pages. */
  export default function readPdf(bytes: Uint8Array): Promise<{ readonly text: string; readonly numpages: number }>;
}
