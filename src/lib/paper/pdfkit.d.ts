declare module 'pdfkit/output' {
  /** Collects a document's bytes until it has ended; asked for before anything is drawn. */
  export function toBytes(document: unknown): Promise<Uint8Array>;
}
