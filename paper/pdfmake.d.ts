declare module 'pdfmake' {
  interface Made {
    getBuffer(): Promise<Uint8Array>;
  }
  interface PdfMake {
    setFonts(fonts: Readonly<Record<string, Readonly<Record<string, string>>>>): void;
    setUrlAccessPolicy?(allows: (url: string) => boolean): void;
    setLocalAccessPolicy?(allows: (path: string) => boolean): void;
    createPdf(definition: object): Made;
  }
  const pdfmake: PdfMake;
  export default pdfmake;
}
